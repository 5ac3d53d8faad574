"""The board in the browser: dragged, moved with keys, given to several, called in, cancelled; a list on a phone."""

import pytest
from playwright.sync_api import expect


@pytest.fixture
def board(sign_in):
    page = sign_in("odo")
    page.click("nav a:text-is('Board')")
    page.wait_for_selector("[data-cell]")
    return page


def cells(page):
    """Return the day columns' first day and each person's cells, by their names."""
    rows = page.evaluate(
        """() => [...document.querySelectorAll('tbody tr')].map((row) => [
            row.querySelector('th').firstChild.textContent.trim(),
            [...row.querySelectorAll('[data-cell]')].map((cell) => cell.dataset.cell)])"""
    )
    return dict(rows)


def drag(page, card, cell):
    """Drag as a hand does: once it lies still, and not in one jump."""
    card.hover(position={"x": 40, "y": 20})
    begin, end = card.bounding_box(), cell.bounding_box()
    page.mouse.down()
    page.mouse.move(begin["x"] + 80, begin["y"] + 30, steps=5)
    page.mouse.move(end["x"] + 40, end["y"] + 40, steps=10)
    page.mouse.up()


def test_dragged_from_beside_to_a_day_it_stands_there(board):
    to = cells(board)["Tove Lindgarth"][3]
    card = board.locator("section[aria-label='Not on a day'] [data-visit]:has-text('UH-2')")
    drag(board, card, board.locator(f"[data-cell='{to}']"))
    expect(board.locator(f"[data-cell='{to}'] [data-visit]")).to_contain_text("UH-2")
    expect(card).to_have_count(0)


def test_the_arrow_keys_move_it_to_the_next_day_and_to_the_next_person(board):
    rows = cells(board)
    card = board.locator("tbody [data-visit]:has-text('B-3')")
    visit = card.get_attribute("data-visit")
    card.focus()
    board.keyboard.press("ArrowRight")
    expect(board.locator(f"[data-cell='{rows['Wenna Harrowick'][2]}'] [data-visit='{visit}']")).to_be_visible()
    board.locator(f"[data-visit='{visit}']").focus()
    board.keyboard.press("ArrowUp")
    expect(board.locator(f"[data-cell='{rows['Tove Lindgarth'][2]}'] [data-visit='{visit}']")).to_be_visible()


def test_a_call_comes_in_with_four_fields_and_waits_worst_first(board):
    board.click("button:text-is('New call')")
    board.fill("input[name=call_where]", "b-5")
    board.click("button.unit:has-text('B-5')")
    board.fill("input[name=call_complaint]", "The warm pool is cold.")
    board.fill("input[name=call_since]", "since six")
    board.fill("input[name=call_there]", "the desk")
    board.click("button:text-is('Take it in')")
    first = board.locator("section[aria-label='Not on a day'] [data-visit]").first
    expect(first).to_contain_text("The warm pool is cold.")
    expect(first).to_contain_text("toddlers")


def test_two_go_and_one_cancels_with_a_reason(board):
    card = board.locator("section[aria-label='Not on a day'] [data-visit]:has-text('RT-3')")
    card.click()
    board.click(".n-drawer .chip:text-is('Tove Lindgarth')")
    board.click(".n-drawer label:has-text('Wenna Harrowick') input")
    today = board.evaluate("async () => (await (await fetch('/api/board')).json()).today")
    board.fill("input[name=plan_day]", today)
    board.click("button:text-is('Keep this plan')")
    expect(board.locator("tbody [data-visit]:has-text('RT-3')")).to_have_count(2)
    board.locator("tbody [data-visit]:has-text('RT-3')").first.click()
    board.click("summary:text-is('Cancel this visit')")
    board.fill("input[name=cancel_why]", "the desk bridged nothing, it runs")
    board.click("button:text-is('Cancel the visit')")
    expect(board.locator("[data-visit]:has-text('RT-3')")).to_have_count(0)


def test_on_a_phone_it_is_a_list_of_one_day(sign_in):
    page = sign_in("wenna", width=390, height=844)
    page.click("nav a:text-is('Board')")
    page.wait_for_selector("section[aria-label='Tove Lindgarth'] [data-visit]")
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    expect(page.locator("table")).to_have_count(0)


def test_any_day_is_reached_from_ones_own_and_today_again(sign_in):
    page = sign_in("tove")
    page.click("button[aria-label='The day after']")
    page.wait_for_selector(".stop:has-text('B-2')")
    expect(page.locator(".stop")).to_have_count(1)
    page.click("button:text-is('Today')")
    page.wait_for_selector(".stop:has-text('F-2')")
