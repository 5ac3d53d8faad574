"""Arriving at a unit: a visit that was not begun opens here."""

from playwright.sync_api import expect

from tests.browser.conftest import open_visit, write


def arrive(page, unit):
    page.click(f".stop:has-text('{unit}')")
    page.wait_for_selector(".arrival")


def test_a_visit_that_was_not_begun_opens_on_arrival(sign_in):
    page = sign_in()
    arrive(page, "MA-1")
    expect(page.locator(".safety")).to_contain_text("not read")
    page.click("button:has-text('I smell gas')")
    expect(page.get_by_role("alert").first).to_contain_text("Call from outside")


def test_triage_is_one_touch_and_the_walk_is_near(sign_in):
    page = sign_in()
    arrive(page, "MA-1")
    page.locator(".triage", has_text="Power").get_by_text("OK", exact=True).click()
    page.wait_for_selector(".entry:has-text('looked at: in order')")
    page.click("text=Walk through the unit")
    page.locator("[data-stop=flame] .answer", has_text="lazy").click()
    page.wait_for_selector(".entry:has-text('Flame: lazy')")
    expect(page.locator("[data-stop=flame] .answer.on")).to_contain_text("lazy")


def test_a_flash_code_is_tapped_along(sign_in):
    page = sign_in("tove")
    arrive(page, "F-3")
    lamp = page.locator(".lamp")
    # The test's own clock: a busy machine must not stretch the pauses.
    page.evaluate("() => { window.clockMs = 0; performance.now = () => window.clockMs }")
    for pause in (300, 1700, 300, 300, 300):
        lamp.dispatch_event("pointerdown")
        page.evaluate("() => { window.clockMs += 80 }")
        lamp.dispatch_event("pointerup")
        page.evaluate(f"() => {{ window.clockMs += {pause} }}")
    expect(page.locator(".pattern")).to_have_text("2 3")
    expect(page.locator(".read")).to_contain_text("did not prove")
    page.click("button:has-text('Write code 2 3')")
    expect(page.locator("input[name=line]")).to_have_value("code 2 3")


def test_the_lock_outs_of_two_sources_lie_on_one_axis(sign_in):
    page = sign_in("wenna")
    page.click(".stop:has-text('F-4')")
    page.wait_for_selector("[data-station]")
    page.keyboard.press("0")
    expect(page.locator(".axis .bar")).to_contain_text("Gas alone")
    expect(page.locator(".axis .note").first).to_contain_text("neither source may run")


def test_a_plate_value_is_asked_for_where_it_is_needed(sign_in):
    page = sign_in()
    open_visit(page, "MA-1")
    write(page, "plate static 1.2")
    expect(page.locator(".entry").first).to_contain_text("On the plate: most external static")
