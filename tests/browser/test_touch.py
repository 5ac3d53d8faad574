"""Nothing needs letters: with one thumb on a phone a reading, a finding and a whole maintenance are written, and counted."""

from playwright.sync_api import expect

from bench.touches import PHONE, Thumb, maintenance

MOST_READING, MOST_FINDING, MOST_MAINTENANCE = 4, 3, 90


def on_phone(sign_in, unit):
    page = sign_in("tove", *PHONE)
    page.click(f".stop:has-text('{unit}')")
    page.wait_for_selector("input[name=line]")
    return page


def walk(page):
    page.click(".tabs button:has-text('Walk')")
    page.wait_for_selector(".stop.current")


def test_a_whole_maintenance_of_an_80_percent_furnace(sign_in):
    by_stop = maintenance(sign_in("tove", *PHONE), "F-1")
    assert sum(by_stop.values()) <= MOST_MAINTENANCE, by_stop


def test_a_reading_takes_four_touches(sign_in):
    page = on_phone(sign_in, "B-1")
    walk(page)
    thumb = Thumb(page)
    thumb.tap("[data-stop=room_co] .answer")
    thumb.type("1")
    thumb.write()
    expect(page.locator("[data-stop=room_co] .answer.on")).to_have_text("1 ppm")
    assert thumb.touches <= MOST_READING


def test_a_finding_takes_three_touches_and_is_written(sign_in):
    page = on_phone(sign_in, "B-1")
    thumb = Thumb(page)
    thumb.tap(page.get_by_role("button", name="Found", exact=True))
    thumb.tap(page.locator(".part").get_by_text("Pump", exact=True))
    thumb.tap(page.locator(".line").get_by_text("noisy", exact=True))
    expect(page.locator(".pull")).to_contain_text("Pump: noisy")
    assert thumb.touches <= MOST_FINDING


def test_what_shuts_the_unit_down_is_read_back_first(sign_in):
    page = on_phone(sign_in, "B-1")
    page.get_by_role("button", name="Found", exact=True).click()
    page.locator(".part").get_by_text("Vent", exact=True).click()
    page.get_by_role("group", name="Where").get_by_text("at the first elbow").click()
    page.locator(".line").get_by_text("disconnected", exact=True).click()
    expect(page.locator("input[name=line]")).to_have_value("found vent disconnected at the first elbow")
    expect(page.locator(".danger")).to_contain_text("First: ")


def test_a_walk_that_was_left_goes_on_where_it_was_and_keeps_what_was_skipped(sign_in):
    page = on_phone(sign_in, "F-2")
    walk(page)
    first = page.locator(".stop.current").get_attribute("data-stop")
    page.get_by_role("button", name="Skip", exact=True).click()
    expect(page.locator(f"[data-stop={first}]")).to_contain_text("skipped")
    second = page.locator(".stop.current").get_attribute("data-stop")
    page.locator(".stop.current .answer").filter(has_not_text="…").first.click()
    expect(page.locator(f"[data-stop={second}].answered .answer.on")).to_have_count(1)
    third = page.locator(".stop.current").get_attribute("data-stop")
    page.click(".tabs button:has-text('Unit')")
    page.reload()
    walk(page)
    expect(page.locator(".stop.current")).to_have_attribute("data-stop", third)
    expect(page.locator(f"[data-stop={first}]")).to_contain_text("skipped")


def test_a_part_that_is_not_there_is_said_at_a_touch(sign_in):
    page = on_phone(sign_in, "F-3")
    walk(page)
    for _ in range(40):
        if page.locator("[data-stop=belt].current").count():
            break
        page.get_by_role("button", name="Skip", exact=True).first.click()
    page.get_by_role("button", name="Not here", exact=True).click()
    expect(page.locator(".pull")).to_contain_text("Belt: never fitted")


def test_a_chip_says_how_a_reading_was_read(sign_in):
    page = on_phone(sign_in, "F-3")
    page.click("input[name=line]")
    page.fill("input[name=line]", "supply 6.4")
    page.locator(".chip").get_by_text("neighbour firing", exact=True).click()
    expect(page.locator("input[name=line]")).to_have_value("supply 6.4 neighbour firing")
    expect(page.locator(".chip.on")).to_have_text("neighbour firing")
    page.locator(".chip.on").click()
    expect(page.locator("input[name=line]")).to_have_value("supply 6.4")


def test_an_offered_step_is_passed_over_and_another_one_offered(sign_in):
    page = on_phone(sign_in, "B-1")
    first = page.locator(".offered .offer b").inner_text()
    page.get_by_role("button", name="Not possible here").click()
    expect(page.locator(".offered .offer b")).not_to_have_text(first)
    expect(page.locator(".pull")).to_contain_text("Passed over")
