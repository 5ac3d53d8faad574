"""The String view in the browser: leads, meter, suspects, stopwatch."""

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import open_visit, write


@pytest.fixture
def string(sign_in):
    page = sign_in("wenna")
    open_visit(page, "F-2")
    page.keyboard.press("5")
    page.wait_for_selector(".rung")
    return page


def test_two_touches_set_the_leads_and_the_meter_answers(string):
    string.click("[data-node='R']")
    string.click("[data-node='C']")
    expect(string.locator(".meter .shown")).to_contain_text("25.5")
    string.click("button:has-text('Write what yours shows')")
    expect(string.locator("input[name=line]")).to_have_value("v R C ")


def test_a_lead_is_dragged_to_a_node(string):
    string.locator(".plug.red").drag_to(string.locator("[data-node='3']"))
    expect(string.locator(".node.red")).to_contain_text("3")
    string.locator(".plug.black").drag_to(string.locator("[data-node='4']"))
    expect(string.locator(".bench .meter")).to_contain_text("3 ↔ 4")


def test_the_state_and_the_rung_are_switched(string):
    string.click(".chip:text-is('No call')")
    expect(string.locator(".chip:text-is('No call')")).to_have_attribute("aria-pressed", "true")
    expect(string.locator(".node", has_text="6")).to_have_count(0)
    string.click(".chip:text-is('Inducer motor')")
    expect(string.locator("[data-node='IL']")).to_be_visible()


def test_a_reading_moves_the_suspects(string):
    write(string, "ohms igniter OL")
    expect(string.locator(".suspect").first).to_contain_text("Hot-surface igniter")
    string.click(".entry:has-text('ohms')")
    string.click("button:text-is('Strike')")
    string.wait_for_selector(".entry.struck:has-text('ohms')")


def test_the_stopwatch_writes_what_was_seen(string):
    string.click("button:has-text('start the watch')")
    string.click(".who:has-text('Inducer runs')")
    string.wait_for_selector(".entry:has-text('Seen: inducer')")
    expect(string.locator(".seen.in").first).to_be_visible()
    string.click("button:has-text('It stopped here')")
    expect(string.locator("input[name=line]")).to_have_value("stops inducer")


def test_something_else_instead_is_one_touch(string):
    string.click("button:has-text('Other tests')")
    first = string.locator(".others button").first
    expect(first).to_be_visible()
    first.click()
    expect(string.locator("input[name=line]")).not_to_have_value("")


def test_a_lifted_lead_stays_in_the_ledger_until_it_is_landed(string):
    string.click("button:text-is('lift …')")
    expect(string.locator("input[name=line]")).to_have_value("lift ")
    write(string, "lift rod lead")
    row = string.locator(".suspects .left", has_text="A lead is off")
    expect(row).to_contain_text("flame rod")
    row.get_by_text("Made good").click()
    expect(string.locator("input[name=line]")).to_have_value("land flame rod")
    write(string, "land flame rod")
    expect(string.locator(".suspects .left", has_text="A lead is off")).to_have_count(0)


def test_a_chosen_state_goes_with_the_reading(string):
    string.get_by_role("button", name="Trial", exact=True).click()
    string.locator("[data-node='3']").click()
    string.locator("[data-node='4']").click()
    string.get_by_role("button", name="Write what yours shows").click()
    expect(string.locator("input[name=line]")).to_have_value("v 3 4 in trial ")


def test_an_outcome_of_the_offered_test_is_written_at_a_touch_and_the_history_tells_it(string):
    answer = string.locator(".suspects .answer").first
    answer.click()
    expect(string.locator(".suspects h2")).not_to_have_text("Nothing tested yet")
    string.locator("summary:has-text('How it came to this')").click()
    expect(string.locator(".suspects details li").first).to_be_visible()


def test_a_device_that_was_found_is_put_into_the_circuit_of_this_unit(string):
    string.locator("summary:has-text('wired differently')").click()
    string.locator(".differs select").nth(0).select_option("level_switch")
    string.locator(".differs select").nth(2).select_option("limit")
    string.locator(".differs input").fill("Float in the pan")
    string.locator(".differs .strong").click()
    expect(string.locator(".rung")).to_contain_text("Float in the pan")
    expect(string.locator("summary:has-text('Put right on this unit')")).to_be_visible()
