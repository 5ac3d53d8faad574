"""Gas, Draft and Air or Water in the browser: the ladder, the meter's clock, whys."""

import re

from playwright.sync_api import expect

from tests.browser.conftest import open_visit, write


def open_path(page, unit, key):
    open_visit(page, unit)
    page.keyboard.press(key)


def test_the_meter_is_clocked_with_the_space_bar(sign_in):
    page = sign_in("wenna")
    open_path(page, "F-4", "3")
    page.wait_for_selector(".watch")
    # The test's own clock: a busy machine must not stretch the turns.
    page.evaluate("() => { window.clockMs = 1000; performance.now = () => window.clockMs }")
    page.locator("h2").first.click()
    page.keyboard.press(" ")
    page.evaluate("() => { window.clockMs += 58_000 }")
    page.keyboard.press(" ")
    expect(page.locator(".watch")).to_contain_text("1 turn in 58.0 s")
    page.click(".watch button:has-text('Write it')")
    expect(page.locator("input[name=line]")).to_have_value("clock 2 ft3 1 58.0")
    expect(page.locator("[data-test=echo]")).to_contain_text("Input by meter")
    page.keyboard.press("Enter")
    page.wait_for_selector(".entry:has-text('Input by meter')")
    expect(page.locator(".figures")).to_contain_text("Input by meter")


def test_the_screw_is_told_and_every_figure_can_be_asked_why(sign_in):
    page = sign_in("wenna")
    open_path(page, "F-4", "3")
    write(page, "mp 3.9")
    expect(page.locator(".screw")).to_contain_text("turn out")
    page.locator(".figures button", has_text="To reach the plate").click()
    expect(page.locator(".why")).to_contain_text("plate value − manifold as read")


def test_a_rung_begins_its_line(sign_in):
    page = sign_in("wenna")
    open_path(page, "F-4", "3")
    page.click("[data-rung='supply_standing']")
    expect(page.locator("input[name=line]")).to_have_value("lockup ")


def test_the_margin_at_the_switch_moves_with_the_reading(sign_in):
    page = sign_in("wenna")
    open_path(page, "F-4", "4")
    write(page, "draft .88")
    expect(page.locator(".switch .name")).to_contain_text("0.880 inWC")
    expect(page.locator(".figures")).to_contain_text("beyond the stamp")


def test_airflow_says_what_it_took_for_granted(sign_in):
    page = sign_in("wenna")
    open_path(page, "F-4", "8")
    write(page, "rise 44")
    expect(page.locator(".figures")).to_contain_text("CFM")
    expect(page.locator(".figures")).to_contain_text("not read at the flue")


def test_each_screen_says_what_it_shows_in_the_windows_title(sign_in):
    page = sign_in()
    expect(page).to_have_title(re.compile("^Round of .+ – Havrin$"))
    open_visit(page, "F-1")
    expect(page).to_have_title("F-1 · Stage room, unit – Havrin")
    page.click("nav.tabs button:has-text('Gas')")
    expect(page).to_have_title("F-1 · Stage room, gas – Havrin")
    page.goto(f"{page.url.partition('/visits')[0]}/shop/circuit")
    expect(page).to_have_title("Shop, circuits – Havrin")
    expect(page.locator("h1")).to_have_count(1)
