"""What goes wrong on real roofs: nonsense, broken files, a server that dies, two people at once."""

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import open_visit, write

pytestmark = pytest.mark.cellar


def pick_log(page, tmp_path, name, content):
    file = tmp_path / name
    file.write_bytes(content)
    page.set_input_files("label:has-text('Read a log file') input", file)


def test_nonsense_gets_meanings_and_nothing_is_lost(sign_in):
    page = sign_in()
    open_visit(page, "F-2")
    page.fill("input[name=line]", "mannifloud 3.5")
    page.wait_for_selector(".problem")
    page.keyboard.press("Enter")
    expect(page.locator("input[name=line]")).to_have_value("mannifloud 3.5")
    page.click(".problem .word:has-text('manifold')")
    expect(page.locator("input[name=line]")).to_have_value("manifold 3.5")
    page.fill("input[name=line]", "o2 23")
    expect(page.locator(".problem")).to_contain_text("20.946")
    page.fill("input[name=line]", "t -5 K")
    expect(page.locator(".problem")).to_contain_text("absolute zero")


def test_broken_logs_are_answered(sign_in, tmp_path):
    page = sign_in()
    open_visit(page, "F-2")
    page.keyboard.press("2")
    page.wait_for_selector(".flue")
    pick_log(page, tmp_path, "letter.csv", b"Dear sir,\nthe furnace is cold.\n")
    expect(page.locator(".trouble").first).to_contain_text("no table of numbers")
    rows = "".join(f"{i},6.4,{'-' if i % 2 else 40},118\n" for i in range(0, 40))
    head = "s,O2 [%],CO [ppm],T flue [°F]\n"
    pick_log(page, tmp_path, "gaps.csv", (head + rows + "39,6.4,40,118\n200,23,--,-500\n").encode())
    problems = page.locator(".problems")
    for words in ("cells that are empty or dashes", "time of the row before", "gap", "no possible number"):
        expect(problems).to_contain_text(words)
    page.click("button:has-text('Columns')")
    expect(page.locator(".columns")).to_contain_text("comma between columns")


def test_what_a_log_leaves_open_is_asked_and_answered_by_touch(sign_in, tmp_path):
    page = sign_in()
    open_visit(page, "F-2")
    page.keyboard.press("2")
    page.wait_for_selector(".flue")
    rows = "".join(f"{i};6,4;1,234;118\n" for i in range(90))
    pick_log(page, tmp_path, "open.csv", ("Time [s];O2 [%];CO [ppm];T flue\n" + rows).encode())
    asked = page.get_by_label("Asked before it counts")
    expect(asked.locator(".question")).to_have_count(2)
    asked.get_by_role("button", name="decimal point").click()
    expect(asked.locator(".question")).to_have_count(1)
    asked.get_by_role("button", name="°F").click()
    expect(asked).to_have_count(0)
    expect(page.locator(".means")).to_contain_text("1234")


def test_a_large_log_is_streamed_with_progress(sign_in, tmp_path):
    page = sign_in()
    open_visit(page, "F-2")
    page.keyboard.press("2")
    page.wait_for_selector(".flue")
    row = ",".join(["6.4", "40", "118.0", "66.0", *["0.000"] * 10])
    lines = 20 * 1024 * 1024 // (len(row) + 8)
    content = (
        "s,O2 [%],CO [ppm],T flue [°F],T air [°F],"
        + ",".join(f"x{i}" for i in range(10))
        + "\n"
        + "".join(f"{i},{row}\n" for i in range(lines))
    )
    file = tmp_path / "large.csv"
    file.write_text(content)
    assert file.stat().st_size > 19 * 1024 * 1024
    page.set_input_files("label:has-text('Read a log file') input", file)
    page.wait_for_selector(".n-progress")
    page.wait_for_selector("h2:has-text('large.csv')", timeout=240_000)
    page.wait_for_selector(".trace >> text=/steady, \\d/")


def test_a_killed_server_loses_no_line(sign_in, server):
    page = sign_in()
    open_visit(page, "F-2")
    server.kill()
    try:
        page.fill("input[name=line]", "supply 6.7")
        page.keyboard.press("Enter")
        expect(page.locator(".pending")).to_contain_text("supply 6.7")
        expect(page.locator("aside h2").first).to_have_text("Not judged")
        expect(page.locator("header")).to_contain_text("1 to send")
        page.fill("input[name=line]", "lockup 7.4")
        page.keyboard.press("Enter")
        expect(page.locator("header")).to_contain_text("2 to send")
    finally:
        server.start()
    expect(page.locator(".pending")).to_have_count(0)
    expect(page.locator(".entry", has_text="Supply, no flow")).to_have_count(1)
    expect(page.locator("aside h2").first).to_have_text("Do not leave running yet")


def test_views_that_were_never_opened_open_without_the_server(sign_in, server):
    page = sign_in()
    with page.expect_response("**/assets/CloseView*.js") as fetched:
        open_visit(page, "F-2")
    # All that it imports, and its styles: only then is it on this tablet.
    page.evaluate("(url) => import(url).then(() => true)", fetched.value.url)
    page.wait_for_function("() => [...document.querySelectorAll('link[rel=stylesheet]')].every((l) => l.sheet)")
    server.kill()
    try:
        page.click("nav.tabs button:has-text('Close out')")
        page.wait_for_selector(".close")
    finally:
        server.start()


def test_lines_wait_through_a_reload(sign_in, server):
    page = sign_in()
    open_visit(page, "F-2")
    server.kill()
    page.fill("input[name=line]", "static .41")
    page.keyboard.press("Enter")
    expect(page.locator(".pending")).to_contain_text("static .41")
    server.start()
    page.reload()
    page.wait_for_selector(".entry:has-text('External static')")


def test_two_people_see_each_other(sign_in):
    tove, wenna = sign_in("tove"), sign_in("wenna")
    open_visit(tove, "F-2")
    open_visit(wenna, "F-2")
    write(wenna, "note the landlord called")
    tove.wait_for_selector(".entry:has-text('the landlord called')")


def test_a_correction_and_its_withdrawal(sign_in):
    page = sign_in()
    open_visit(page, "F-2")
    write(page, "blower 9.9")
    page.wait_for_selector(".reason:has-text('Blower')")
    page.click(".entry:has-text('Blower')")
    page.click("button:text-is('Correct')")
    page.fill("input[name=line]", "blower 6.1")
    page.keyboard.press("Enter")
    page.wait_for_selector(".entry.struck:has-text('Blower')")
    expect(page.locator(".reason", has_text="Blower")).to_have_count(0)


def test_a_strike_can_be_taken_back(sign_in):
    page = sign_in()
    open_visit(page, "F-2")
    write(page, "input 12")
    page.wait_for_selector(".reason:has-text('Input by meter')")
    page.click(".entry:has-text('Input by meter')")
    page.click("button:text-is('Strike')")
    page.wait_for_selector(".entry.struck:has-text('Input by meter')")
    page.click(".entry:has-text('Struck')")
    page.click("button:text-is('Take back')")
    page.wait_for_selector(".reason:has-text('Input by meter')")


def test_lines_written_at_the_same_moment_all_land(sign_in, server):
    pages = [sign_in("tove"), sign_in("wenna")]
    for page in pages:
        open_visit(page, "F-2")
    visit = pages[0].url.split("/visits/")[1].split("/")[0]
    before = pages[0].request.get(f"{server.url}/api/visits/{visit}/version").json()
    burst = """async ([visit, who]) => {
      const token = /csrftoken=([^;]+)/.exec(document.cookie)[1]
      const send = (n) => fetch(`/api/visits/${visit}/lines`, {
        method: 'POST', headers: { 'Content-Type': 'application/json', 'X-CSRFToken': token },
        body: JSON.stringify({ id: crypto.randomUUID(), text: `note ${who} ${n}`, phase: 'found', at: new Date().toISOString() }) })
      return (await Promise.all([...Array(8).keys()].map(send))).map((answer) => answer.status)
    }"""
    for page, who in zip(pages, ("tove", "wenna"), strict=True):
        page.evaluate(f"(given) => {{ window.burst = ({burst})(given) }}", [visit, who])
    assert [page.evaluate("() => window.burst") for page in pages] == [[200] * 8, [200] * 8]
    assert pages[0].request.get(f"{server.url}/api/visits/{visit}/version").json() == before + 16


def test_a_bundle_of_another_version_is_answered(sign_in, tmp_path):
    page = sign_in()
    open_visit(page, "F-2")
    page.keyboard.press("7")
    page.wait_for_selector(".close")
    file = tmp_path / "b.json"
    file.write_text('{"format": "havrin-visit", "version": 8}')
    page.set_input_files("input[type=file][accept*=json]", file)
    expect(page.locator(".taken")).to_contain_text("version 8")


def test_closing_with_a_jumper_in_is_refused_in_words(sign_in):
    page = sign_in()
    open_visit(page, "F-2")
    page.keyboard.press("7")
    page.fill("input[name=signed-by]", "Tove Lindgarth")
    page.click("button:has-text('Close the visit')")
    expect(page.locator(".refused")).to_contain_text("call for heat is jumpered")


def test_the_office_can_look_only(sign_in):
    page = sign_in("odo")
    open_visit(page, "F-2")
    expect(page.locator("input[name=line]")).to_be_disabled()
