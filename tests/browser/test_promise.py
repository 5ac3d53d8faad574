"""Enter is a promise: what was entered is on the tablet in that moment, and on the tape once, whatever the wires do."""

import threading

import pytest
from playwright.sync_api import expect

from tests.sample import connected

pytestmark = pytest.mark.cellar

BAR, TO_SEND, ON_TAPE = "input[name=line]", ".pending li", ".tape .entry"


def at_visit(sign_in, unit="F-1", **size):
    page = sign_in("tove", **size)
    page.click(f".stop:has-text('{unit}')")
    page.click("nav.tabs button:has-text('Unit')")
    page.wait_for_selector("[data-station]")
    return page


def enter(page, text):
    page.fill(BAR, text)
    page.press(BAR, "Enter")


def on_tape(page, words):
    return page.locator(ON_TAPE, has_text=words)


def waiting(page, words):
    return page.locator(TO_SEND, has_text=words)


def silent(page, pattern="**/api/**"):
    """Wires on which nothing moves any more, and which nobody tells of."""
    page.route(pattern, lambda route: None)


def test_with_dead_wires_the_bar_is_empty_at_once_and_the_line_is_kept(sign_in):
    page = at_visit(sign_in)
    silent(page)
    enter(page, "note dead wires")
    assert page.input_value(BAR) == ""
    expect(waiting(page, "dead wires")).to_have_count(1, timeout=2000)
    enter(page, "note and another")
    expect(waiting(page, "and another")).to_have_count(1, timeout=2000)
    page.unroute("**/api/**")
    expect(on_tape(page, "dead wires")).to_have_count(1)
    expect(on_tape(page, "and another")).to_have_count(1)
    expect(page.locator(TO_SEND)).to_have_count(0)


def test_a_tab_closed_right_after_enter_loses_nothing(sign_in):
    page = at_visit(sign_in)
    address, context = page.url, page.context
    silent(page, "**/lines")
    enter(page, "note closed at once")
    page.close()
    again = context.new_page()
    again.goto(address)
    expect(on_tape(again, "closed at once")).to_have_count(1)
    expect(again.locator(TO_SEND)).to_have_count(0)


def test_two_enters_write_one_line(sign_in):
    page = at_visit(sign_in)
    page.fill(BAR, "note two enters")
    page.press(BAR, "Enter")
    page.press(BAR, "Enter")
    expect(on_tape(page, "two enters")).to_have_count(1)
    expect(page.locator(TO_SEND)).to_have_count(0)
    expect(on_tape(page, "two enters")).to_have_count(1)


def test_the_next_line_is_typed_while_the_first_is_on_its_way(sign_in):
    page = at_visit(sign_in)
    slow = threading.Event()
    held = []
    page.route("**/lines", lambda route: route.continue_() if slow.is_set() else held.append(route))
    page.fill(BAR, "note the first of two")
    page.press(BAR, "Enter")
    page.type(BAR, "note the second of two")
    assert page.input_value(BAR) == "note the second of two"
    page.press(BAR, "Enter")
    expect(waiting(page, "of two")).to_have_count(2)
    slow.set()
    for route in held:
        route.continue_()
    expect(on_tape(page, "the first of two")).to_have_count(1)
    expect(on_tape(page, "the second of two")).to_have_count(1)
    expect(page.locator(TO_SEND)).to_have_count(0)


def test_an_answer_that_never_comes_back_is_asked_for_again_and_written_once(sign_in):
    page = at_visit(sign_in)
    lost = []

    def lose_the_answer(route):
        """The server takes the line; the tablet never hears of it."""
        if lost:
            route.continue_()
            return
        lost.append(route.fetch().status)
        route.abort()

    page.route("**/lines", lose_the_answer)
    enter(page, "note the answer was lost")
    expect(on_tape(page, "the answer was lost")).to_have_count(1)
    expect(page.locator(TO_SEND)).to_have_count(0)
    assert lost == [200]
    page.reload()
    expect(on_tape(page, "the answer was lost")).to_have_count(1)


@pytest.mark.parametrize("status", [401, 500, 502, 503])
def test_an_answer_that_says_nothing_of_the_line_keeps_it(sign_in, status):
    page = at_visit(sign_in)
    page.route("**/lines", lambda route: route.fulfill(status=status, json={"title": "No.", "code": "x"}))
    enter(page, f"note kept at {status}")
    expect(waiting(page, f"kept at {status}")).to_have_count(1)
    expect(page.locator(".pending .refused")).to_have_count(0)
    page.unroute("**/lines")
    page.reload()
    expect(on_tape(page, f"kept at {status}")).to_have_count(1)
    expect(page.locator(TO_SEND)).to_have_count(0)


def test_a_session_that_ended_is_asked_for_over_the_page(server, sign_in):
    page = at_visit(sign_in)
    with connected(server.more["HAVRIN_DB_NAME"]) as connection:
        connection.execute("DELETE FROM people_opensession")
    enter(page, "note the session was over")
    over = page.get_by_role("dialog", name="Sign in again")
    expect(over).to_contain_text("1 entry has not reached the server")
    expect(page.locator(BAR)).to_be_attached()
    expect(waiting(page, "the session was over")).to_have_count(1)
    over.locator("input[name=password]").fill("valley-heat")
    over.get_by_role("button", name="Sign in").click()
    expect(over).to_have_count(0)
    expect(on_tape(page, "the session was over")).to_have_count(1)
    expect(page.locator(TO_SEND)).to_have_count(0)


def test_what_was_not_understood_comes_back_into_the_bar_and_stays_on_the_disk(sign_in):
    page = at_visit(sign_in)
    page.route("**/read-back", lambda route: None)  # nothing is read back before Enter
    enter(page, "zzyx 12 qwv")
    expect(page.locator(BAR)).to_have_value("zzyx 12 qwv")
    page.reload()
    refused = page.locator(".pending .refused")
    expect(refused).to_contain_text("zzyx 12 qwv")
    page.unroute("**/read-back")
    refused.get_by_role("button", name="Into the bar").click()
    expect(page.locator(BAR)).to_have_value("zzyx 12 qwv")
    expect(refused).to_have_count(1)
    enter(page, "note it was gas")
    expect(on_tape(page, "it was gas")).to_have_count(1)
    expect(page.locator(TO_SEND)).to_have_count(0)


def test_a_correction_and_a_strike_wait_as_lines_do(sign_in):
    page = at_visit(sign_in)
    enter(page, "note to be struck")
    expect(on_tape(page, "to be struck")).to_have_count(1)
    silent(page)
    on_tape(page, "to be struck").click()
    page.locator(".more").get_by_role("button", name="Strike").click()
    expect(waiting(page, "Strike")).to_have_count(1, timeout=2000)
    page.unroute("**/api/**")
    expect(page.locator(TO_SEND)).to_have_count(0)
    expect(page.locator(f"{ON_TAPE}.struck", has_text="to be struck")).to_have_count(1)


def test_a_photo_waits_on_the_disk_and_is_with_the_visit_once(sign_in, tmp_path):
    page = at_visit(sign_in)
    address, context = page.url, page.context
    picture = tmp_path / "plate.png"
    page.screenshot(path=str(picture))
    silent(page, "**/photos")
    page.locator("footer input[type=file]").set_input_files(str(picture))
    expect(waiting(page, "Photo")).to_have_count(1, timeout=5000)
    page.close()
    again = context.new_page()
    again.goto(address)
    expect(again.locator(TO_SEND)).to_have_count(0)
    again.click("nav.tabs button:has-text('Close out')")
    expect(again.locator(".strip .one")).to_have_count(1)


def test_what_waits_is_told_before_anybody_signs_in(server, sign_in):
    page = at_visit(sign_in)
    silent(page, "**/lines")
    enter(page, "note before the night")
    expect(waiting(page, "before the night")).to_have_count(1)
    page.context.clear_cookies()
    page.goto(server.url)
    expect(page.locator("main")).to_contain_text("1 entry of tove waits on this tablet")
    page.unroute("**/lines")
    page.fill("input[name=username]", "tove")
    page.fill("input[name=password]", "valley-heat")
    page.keyboard.press("Enter")
    page.click(".stop:has-text('F-1')")
    expect(on_tape(page, "before the night")).to_have_count(1)
