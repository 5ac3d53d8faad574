"""Findings placed with two touches, photos marked, the record and its link, house rules tried: in the real page."""

import io
import re

from PIL import Image
from playwright.sync_api import expect

from tests.browser.conftest import open_visit, write


def picture():
    content = io.BytesIO()
    Image.new("RGB", (640, 480), (180, 170, 150)).save(content, "PNG")
    return {"name": "cell.png", "mimeType": "image/png", "buffer": content.getvalue()}


def begin_visit(page, unit):
    """Begin a visit that is on no round, from the unit's record."""
    if page.viewport_size["width"] < 800:
        page.click("button:text-is('Find')")
    page.fill("input[name=find]", unit)
    page.click(f"[role=option]:has-text('{unit} ·')")
    page.click(".plan summary")
    page.click(".plan .chip:text-is('Re-check')")
    page.fill(".plan .words input", "Smells of dust.")
    page.click("button:text-is('Begin now')")
    page.wait_for_selector(".arrival")
    expect(page.locator(".arrival")).to_contain_text("Smells of dust.")


def exchanger(page, unit="RT-3"):
    begin_visit(page, unit)
    page.locator("h1").click()
    page.keyboard.press("6")
    page.wait_for_selector("[data-zone]")


def test_two_touches_place_a_finding_and_the_odds_follow(sign_in):
    page = sign_in("wenna")
    exchanger(page)
    page.click(".how button:text-is('borescope')")
    page.click(".how button:text-is('5 mm')")
    page.click("[data-zone='tube 2 first bend']")
    page.click(".kinds button:has-text('scorched')")
    expect(page.locator(".placed")).to_contain_text("tube 2 first bend · 5 mm, by borescope")
    expect(page.locator(".mark-at")).to_have_count(1)
    expect(page.locator(".entry").first).to_contain_text("scorched")
    expect(page.locator("section:has(h3:text-is('What would settle it')) li").first).to_contain_text("×")
    page.locator("[data-zone='tube 3 straight']").focus()
    page.keyboard.press("Enter")
    expect(page.locator(".kinds b")).to_have_text("tube 3, straight")
    page.click(".kinds button:text-is('Nothing')")


def test_what_was_left_open_holds_the_next_visit_until_the_tag_comes_off(sign_in):
    page = sign_in("wenna")
    expect(page.locator(".stop:has-text('RT-2') .last")).to_contain_text("Off, made safe")
    open_visit(page, "RT-2")
    standing = page.locator("aside")
    expect(standing).to_contain_text("Shut down and tag")
    expect(standing).to_contain_text("Open since the visit of")
    page.locator("h1").click()
    page.keyboard.press("6")
    expect(page.locator(".placed")).to_contain_text("since")
    expect(page.locator(".exchanger")).to_contain_text("A breach was seen: it does not run again.")


def test_a_photo_is_taken_and_an_arrow_drawn_on_it(sign_in):
    page = sign_in("wenna")
    exchanger(page)
    page.set_input_files(".strip input[type=file]", picture())
    page.locator(".one").last.click()
    board = page.locator(".photo svg")
    board.drag_to(board, source_position={"x": 40, "y": 40}, target_position={"x": 200, "y": 150})
    page.fill("input[aria-label='Words of mark 1']", "scorched here")
    page.click("button:has-text('Keep the marks')")
    expect(page.locator(".one small").last).to_have_text("1 marked")
    page.set_input_files(
        ".strip input[type=file]", {"name": "a.jpg", "mimeType": "image/jpeg", "buffer": b"MZ not a picture"}
    )
    expect(page.locator(".strip [role=alert]")).to_contain_text("not a JPEG")


def test_what_is_out_holds_the_visit_and_one_touch_begins_its_put_back(sign_in):
    page = sign_in("wenna")
    open_visit(page, "RT-2")
    write(page, "pull igniter")
    page.locator("h1").click()
    page.keyboard.press("7")
    step = page.locator("[data-step=put_back]")
    expect(step).to_contain_text("holds the visit open")
    step.locator("button").click()
    expect(page.locator("input[name=line]")).to_have_value("refit igniter")
    page.keyboard.press("Enter")
    expect(step).to_contain_text("No jumper, lifted lead")


def test_the_customers_link_opens_without_signing_in_until_it_is_taken_back(sign_in, chromium):
    page = sign_in("wenna")
    open_visit(page, "RT-2")
    page.locator("h1").click()
    page.keyboard.press("7")
    page.click("a:has-text('Record of the unit')")
    page.wait_for_selector(".time li")
    expect(page.locator("table")).to_contain_text("Manifold, high fire")
    page.click("button:has-text('Make a link')")
    address = page.locator(".link code").first.inner_text()
    stranger = chromium.new_context()
    customer = stranger.new_page()
    customer.goto(address)
    expect(customer.locator("h1")).to_contain_text("RT-2")
    expect(customer.locator("article").first).to_contain_text("Off, made safe")
    expect(customer.locator("body")).not_to_contain_text("Sign in")
    page.locator(".link button:has-text('Take back')").first.click()
    expect(page.locator(".link").first).to_contain_text("taken back")
    customer.reload()
    expect(customer.locator("[role=alert]")).to_contain_text("does not open")
    stranger.close()


def test_rules_are_tried_on_the_visits_that_were_and_kept_by_a_supervisor_alone(sign_in):
    page = sign_in("wenna")
    page.goto(re.sub(r"/$", "", page.url) + "/shop/rules")
    page.click("button:text-is('strict')")
    expect(page.locator("aside h3")).to_contain_text("of the last 50 visits would differ")
    expect(page.locator("legend:has-text('Worn part')")).to_contain_text("alone changes")
    page.click("button:has-text('Back to today')")
    expect(page.locator("aside h2")).to_have_text("As it is today")
    technician = sign_in("tove")
    technician.goto(re.sub(r"/$", "", technician.url) + "/shop/rules")
    technician.click("button:text-is('strict')")
    expect(technician.locator("aside h3")).to_contain_text("would differ")
    expect(technician.locator("button:has-text('Keep these rules')")).to_have_count(0)


def test_with_a_thumb_the_tab_is_in_sight_and_two_touches_do(sign_in):
    page = sign_in("wenna", width=390, height=844)
    begin_visit(page, "RT-1")
    page.locator("nav.tabs button", has_text="Exchanger").tap()
    page.wait_for_selector("[data-zone]")
    tab = page.locator("nav.tabs .on").bounding_box()
    assert tab["x"] >= 0
    assert tab["x"] + tab["width"] <= 391
    page.locator("[data-zone='tube 4 straight']").tap()
    page.locator(".kinds button", has_text="sooted").tap()
    expect(page.locator(".placed")).to_contain_text("tube 4 straight")
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
