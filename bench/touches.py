"""How many touches a visit takes with one thumb and no letter: the walk of a whole maintenance on a phone."""

from playwright.sync_api import Locator, Page, expect, sync_playwright

from bench.page import sign_in
from launcher.chromium import HEADLESS

PHONE = (390, 844)
MOST_STOPS = 80
# what a sound 80 % furnace reads, by the stop's key: what is typed for each number
READS = {
    "room_co": "0",
    "supply_standing": "7.4",
    "supply_running": "7.1",
    "manifold": "3.5",
    "draft": ".92",
    "flame_signal": "2.4",
    "static": ".3",
    "rise": "52",
}
FLUE = (("", "7.4"), ("co", "22"), ("t", "342"))


class Thumb:
    """A thumb on a phone's page that counts what it touches. It knows no keyboard."""

    def __init__(self, page: Page) -> None:
        self.page, self.touches = page, 0

    def tap(self, what: str | Locator) -> None:
        """Touch one thing."""
        found = self.page.locator(what).first if isinstance(what, str) else what.first
        found.click()
        self.touches += 1

    def type(self, number: str) -> None:
        """Touch the keys of a number, one by one."""
        for digit in number:
            self.tap(self.page.locator(".digits button", has_text=digit))

    def write(self) -> None:
        """Touch Write on the keypad."""
        self.tap(".ends .go")


def report(url: str) -> None:
    """Print the touches of a whole maintenance of an 80 % furnace, from the round to the signature."""
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(**HEADLESS)
        page = browser.new_page(viewport={"width": PHONE[0], "height": PHONE[1]}, has_touch=True)
        sign_in(page, url)
        by_stop = maintenance(page, "F-1")
        browser.close()
    print("touches")
    print(f"  a whole maintenance of an 80 % furnace, no letter: {sum(by_stop.values())}")
    print(f"  of them: {', '.join(f'{stop} {count}' for stop, count in by_stop.items())}")


def maintenance(page: Page, unit: str) -> dict[str, int]:
    """Walk a whole maintenance of ``unit`` from the round to the signature; return the touches of each part of it."""
    thumb = Thumb(page)
    thumb.tap(f".stop:has-text('{unit}')")
    thumb.tap(".tabs button:has-text('Walk')")
    by_stop: dict[str, int] = {"open": thumb.touches}
    page.wait_for_selector(".stop.current")
    for _ in range(MOST_STOPS):
        stop = page.locator(".stop.current")
        if not stop.count():
            break
        key = stop.get_attribute("data-stop") or ""
        before = thumb.touches
        _answer(thumb, key)
        expect(page.locator(f"[data-stop={key}]")).to_have_class("stop answered")
        by_stop[key] = thumb.touches - before
    before = thumb.touches
    _close(thumb)
    by_stop["close"] = thumb.touches - before
    return by_stop


def _answer(thumb: Thumb, key: str) -> None:
    """Answer the stop in hand: a number where one is wanted, else the first of its buttons that takes none."""
    page = thumb.page
    if key in READS or key == "flue":
        if page.locator("input[name=line]").input_value() == "":
            thumb.tap(".stop.current .answer")
        if key == "flue":
            for word, number in FLUE:
                if word:
                    thumb.tap(page.locator(".words button").get_by_text(word, exact=True))
                thumb.type(number)
        else:
            thumb.type(READS[key])
        thumb.write()
        return
    thumb.tap(page.locator(".stop.current .answer").filter(has_not_text="…"))


def _close(thumb: Thumb) -> None:
    """Sign and close the visit."""
    page = thumb.page
    if page.locator("[aria-label='Close the keypad']").count():
        thumb.tap("[aria-label='Close the keypad']")
    thumb.tap(".tabs button:has-text('Close out')")
    pad = page.locator(".pad svg").first
    pad.scroll_into_view_if_needed()
    _draw(thumb, pad)
    thumb.tap("button:has-text('Close the visit')")
    page.wait_for_selector("h2:has-text('Closed:')")


def _draw(thumb: Thumb, pad: Locator) -> None:
    """Draw a signature with one stroke."""
    box = pad.bounding_box()
    assert box is not None
    mouse = thumb.page.mouse
    mouse.move(box["x"] + 20, box["y"] + 30)
    mouse.down()
    for step in range(1, 6):
        mouse.move(box["x"] + 20 + 30 * step, box["y"] + 30 + 12 * (step % 2))
    mouse.up()
    thumb.touches += 1
