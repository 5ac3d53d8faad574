"""Every main view, in both themes, on a tablet and on a phone: axe finds nothing, targets are large, headings in order."""

import itertools
import json

import pytest

from launcher.ground import ROOT

AXE = (ROOT / "web" / "node_modules" / "axe-core" / "axe.min.js").read_text(encoding="utf-8")
VIEWS = ("arrival", "unit", "flue", "gas", "draft", "string", "exchanger", "air", "close")
SHOP = ("model", "kind", "circuit", "rules")
KEPT = ("site", "contact", "part", "instrument", "person", "firm")
SIZES = {"tablet": (1280, 800), "phone": (390, 844)}
LEAST_PX = 44

FOUND = """async (of) => (await axe.run(document, {resultTypes: ['violations'], ...of})).violations.flatMap(
    (v) => v.nodes.map((n) => `${v.id}: ${n.target.join(' ')} ${n.html.slice(0, 120)}`))"""
COLOURS = {
    "runOnly": {"type": "rule", "values": ["color-contrast", "link-in-text-block"]}
}  # all that a theme can change
# As another page of the same tablet does it: every open page follows.
CHANGE_THEME = """async (theme) => {
    localStorage.setItem('theme', theme)
    dispatchEvent(new StorageEvent('storage', {key: 'theme', newValue: theme, storageArea: localStorage}))
    const frame = () => new Promise(requestAnimationFrame)
    while (document.documentElement.dataset.theme !== theme) await frame()
    await frame()
    await Promise.allSettled(document.getAnimations().filter((a) => a instanceof CSSTransition).map((a) => a.finished))
}"""
SMALL = """(least) => [...document.querySelectorAll('button:enabled, a, summary, [role=button]')]
    .filter((e) => e.offsetParent && !e.closest('.n-base-selection, .n-input'))
    .map((e) => [e.outerHTML.slice(0, 90), Math.round(e.getBoundingClientRect().height)])
    .filter(([, height]) => height > 0 && height < least)"""
STANDS = """() => {
    const main = document.querySelector('main')
    return main && !/Loading|Looking what/.test(main.textContent)
}"""
SHAPE = """() => ({
    main: document.querySelectorAll('main').length,
    h1: [...document.querySelectorAll('h1')].map((h) => h.textContent.trim()),
    title: document.title,
    levels: [...document.querySelectorAll('h1, h2, h3, h4')].filter((h) => h.checkVisibility()).map((h) => +h.tagName[1]),
})"""


def complaints(page):
    """Return what axe finds on the page as it stands."""
    page.evaluate("() => document.fonts.ready")
    page.evaluate(AXE)
    return page.evaluate(FOUND, {})


def complaints_in_the_cellar(page):
    """Return what axe finds of colours in the other theme; the page is in daylight afterwards."""
    page.evaluate(CHANGE_THEME, "cellar")
    found = page.evaluate(FOUND, COLOURS)
    page.evaluate(CHANGE_THEME, "daylight")
    return [f"cellar: {one}" for one in found]


def wrong_shape(page):
    """Return what is wrong with the page's landmarks, headings and title."""
    shape = page.evaluate(SHAPE)
    wrong = [] if shape["main"] == 1 else [f"{shape['main']} main landmarks"]
    if len(shape["h1"]) != 1 or not shape["h1"][0]:
        wrong.append(f"h1: {shape['h1']}")
    if not shape["title"].endswith("– Havrin"):
        wrong.append(f"title: {shape['title']}")
    levels = shape["levels"]
    skipped = [pair for pair in itertools.pairwise(levels) if pair[1] > pair[0] + 1]
    return wrong + [f"heading {a} is followed by {b}" for a, b in skipped]


def addresses(page):
    """Return every main view's address: of a visit with all views, its unit, its site, the shop, one's own, the firm."""
    stops = page.evaluate("async () => (await (await fetch('/api/round')).json()).stops")
    visit = next(stop["id"] for stop in stops if stop["unit_name"].startswith("F-4"))
    whole = page.evaluate(f"async () => await (await fetch('/api/visits/{visit}')).json()")
    rest = [f"/units/{whole['unit_id']}", f"/sites/{whole['site_id']}", *(f"/shop/{sort}" for sort in SHOP)]
    kept = [f"/kept/{sort}" for sort in KEPT] + [f"/kept/unit/{whole['unit_id']}", "/kept/site/new", "/kept/lists"]
    firm = ["/own", "/kept/roles", "/kept/audit", "/board", f"/sites/{whole['site_id']}/door", *kept]
    return [*(f"/visits/{visit}/{view}" for view in VIEWS), *rest, *firm]


def settle(page, path):
    """Wait until the view stands; in the shop open its first document."""
    page.wait_for_load_state("domcontentloaded")
    page.wait_for_function(STANDS)
    if path.startswith("/shop/") and not path.endswith("rules"):
        page.locator("nav[aria-label=Documents] button").first.click()
        page.wait_for_selector("main .head")


@pytest.mark.parametrize("size", list(SIZES))
def test_every_view_can_be_read_and_reached_by_anybody(sign_in, server, size):
    page = sign_in("wenna", *SIZES[size])
    wrong = {}
    for path in ["/", *addresses(page)]:
        page.goto(server.url + path)
        settle(page, path)
        small = page.evaluate(SMALL, LEAST_PX) if size == "phone" else []
        if found := [*complaints(page), *complaints_in_the_cellar(page), *wrong_shape(page), *small]:
            wrong[path] = found
    assert wrong == {}, json.dumps(wrong, indent=1)


def test_the_door_can_be_read_and_reached_by_anybody(server, chromium):
    for width, height in SIZES.values():
        page = chromium.new_page(viewport={"width": width, "height": height})
        page.goto(server.url)
        page.wait_for_selector("input[name=username]")
        assert [*complaints(page), *wrong_shape(page)] == []
        page.close()


def test_a_view_that_is_entered_has_the_focus_and_the_content_can_be_skipped_to(sign_in):
    page = sign_in("tove")
    page.locator(".stop").first.click()
    page.wait_for_selector("[data-station]")
    page.keyboard.press("2")
    page.wait_for_selector(".flue")
    assert page.evaluate("() => document.activeElement.id") == "main"
    skip = page.locator("a", has_text="Skip to the content")
    skip.focus()
    assert skip.bounding_box()["y"] >= 0  # in sight while it has the focus
    page.keyboard.press("Enter")
    assert page.evaluate("() => document.activeElement.id") == "main"
