"""Whole visits in the real page: by keyboard on a tablet, by thumb on a phone."""

import re
import subprocess

from playwright.sync_api import expect

from demo.make_logs import FOLDER
from tests.browser.conftest import open_visit, write
from tests.core.rows import SOUND


def test_a_whole_visit_by_keyboard(sign_in, tmp_path):
    page = sign_in()
    open_visit(page, "F-1")
    title = page.locator("aside h2").first
    expect(title).to_have_text("Not shown yet")
    page.keyboard.press("n")  # the step offered: room CO
    expect(page.locator("input[name=line]")).to_have_value("room ")
    for line in SOUND:
        write(page, line)
    expect(title).to_have_text("Leave running")
    expect(page.locator("[data-station=manifold] b.value")).to_have_text("3.50")
    expect(page.locator("[data-station=manifold] svg")).to_have_attribute("aria-label", "within limits")
    page.locator("h1").click()
    page.keyboard.press("7")
    page.wait_for_selector(".close")
    page.fill("textarea", "Your furnace burns clean.")
    page.fill("input[name=signed-by]", "Tove Lindgarth")
    page.click("button:has-text('Close the visit')")
    page.wait_for_selector("h2:has-text('Closed: Leave running')")
    report = page.request.get(re.sub(r"/visits/(\d+)/.*", r"/api/visits/\1/report.pdf", page.url))
    (tmp_path / "r.pdf").write_bytes(report.body())
    text = subprocess.run(
        ["pdftotext", str(tmp_path / "r.pdf"), "-"], capture_output=True, text=True, check=True
    ).stdout
    assert "Your furnace burns clean." in text
    expect(page.locator("input[name=line]")).to_be_disabled()


def tap_keys(page, text):
    for key in text:
        page.locator(".digits button", has_text=re.compile(f"^{re.escape(key)}$")).tap()


def test_a_visit_with_a_thumb(sign_in):
    page = sign_in(width=390, height=844)
    open_visit(page, "F-3")
    page.locator("input[name=line]").tap()
    page.locator(".likely button", has_text="room").tap()
    tap_keys(page, "0")
    page.locator(".pad .go").tap()
    page.wait_for_selector("text=Room CO 0 ppm")
    page.locator(".jump button", has_text="Gas").tap()
    page.locator("[data-station=manifold]").tap()
    page.locator("button", has_text="Write here: mp").tap()
    tap_keys(page, "10.0")
    page.locator(".pad .go").tap()
    expect(page.locator("[data-station=manifold] b.value")).to_have_text("10.00")
    expect(page.locator(".pad")).to_be_visible()  # stays up for the next line: one touch less each
    page.locator(".strip").tap()
    page.locator(".n-drawer .open", has_text="vent and terminal").tap()
    expect(page.locator("input[name=line]")).to_have_value("vent ok")
    page.locator(".pad .go").tap()
    page.locator(".jump button", has_text="Fire").tap()
    expect(page.locator("[data-station=vent]")).to_contain_text("in order")
    page.locator(".pull").tap()
    expect(page.locator(".n-drawer .entry")).to_have_count(3)
    small = page.evaluate("""() => [...document.querySelectorAll('.tabs button, .jump button, .pull, .strip, footer .side, .plate')]
        .filter(e => e.getBoundingClientRect().height > 0 && e.getBoundingClientRect().height < 43.5).map(e => e.className + e.textContent)""")
    assert small == []


def test_a_log_is_dropped_mapped_and_written(sign_in):
    page = sign_in()
    open_visit(page, "F-2")
    page.keyboard.press("2")
    page.set_input_files("label:has-text('Read a log file') input", FOLDER / "F-2-high-fire.csv")
    page.wait_for_selector(".trace >> text=light-off")
    page.wait_for_selector(".trace >> text=/steady, \\d/")
    page.click("button:has-text('Write on the tape')")
    page.wait_for_selector(".entry:has-text('Flue, traced')")
    row = page.locator("li", has_text="CO air-free")
    expect(row.locator("b")).to_have_text("67")
    row.locator("button").click()
    expect(page.locator(".why .formula")).to_contain_text("CO × 20.946 / (20.946 − O₂)")
    expect(page.locator(".why")).to_contain_text("rounded 20.9 %")


def test_reasons_point_to_their_station_and_themes_switch(sign_in):
    page = sign_in()
    open_visit(page, "F-2")
    page.click(".reason:has-text('jumpered')")
    expect(page.locator(".n-drawer")).to_contain_text("Call at W")
    page.keyboard.press("Escape")
    page.wait_for_selector(".n-drawer", state="hidden")
    page.keyboard.press("d")
    expect(page.locator("html")).to_have_attribute("data-theme", "cellar")
    page.keyboard.press("?")
    page.wait_for_selector("text=take the next step offered")


def test_ties_and_paths_come_from_the_unit(sign_in):
    page = sign_in()
    open_visit(page, "F-2")
    expect(page.locator(".path h2")).to_have_count(4)
    expect(page.locator("[data-station=manifold_low]")).to_be_visible()
    expect(page.locator("path.tie")).to_have_count(3)


def test_a_line_is_written_and_the_views_walked_without_a_pointer(sign_in):
    page = sign_in("tove")
    open_visit(page, "F-3")
    page.locator("h1").click()
    page.keyboard.press("/")
    page.keyboard.type("room 2")
    page.wait_for_function("() => document.querySelector('[data-test=echo]')?.textContent.length > 0")
    page.keyboard.press("Enter")
    expect(page.locator(".entry").first).to_contain_text("Room CO")
    page.keyboard.type("ua 2")
    page.keyboard.press("Escape")
    page.keyboard.press("4")
    expect(page.locator("nav.tabs .on")).to_contain_text("Draft")
    page.keyboard.press("/")
    expect(page.locator("input[name=line]")).to_have_value("ua 2")
    expect(page.locator("input[name=line]")).to_be_focused()
