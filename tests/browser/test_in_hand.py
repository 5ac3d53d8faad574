"""The instruments in hand: seen in the bar of a phone before a reading is typed, taken again as last time with one touch."""

import re

import pytest
from playwright.sync_api import expect

from bench.touches import PHONE, Thumb
from tests.sample import connected


@pytest.fixture
def new_day(server):
    """It is the day after: what was taken in hand was taken yesterday."""
    with connected(server.more["HAVRIN_DB_NAME"]) as connection:
        connection.execute("UPDATE instruments_inhand SET day = day - 1")


def at_the_keypad(sign_in):
    page = sign_in("tove", *PHONE)
    page.click(".stop:has-text('F-2')")
    page.click("input[name=line]")
    return page


def held(page):
    return page.locator(".likely .held")


def test_a_new_day_begins_with_the_same_as_last_time(sign_in, new_day):
    page = at_the_keypad(sign_in)
    expect(held(page)).to_have_text("Instruments …")
    thumb = Thumb(page)
    thumb.tap(held(page))
    thumb.tap(page.get_by_role("button", name=re.compile("^The same as last time")))
    taken = page.locator(".n-drawer .one.on")
    expect(taken.filter(has_text="Analyzer 1")).to_have_count(1)
    names = [one.inner_text().removeprefix("✓ ") for one in taken.locator("b").all()]
    expect(page.get_by_role("button", name=re.compile("^The same as last time"))).to_have_count(0)
    page.keyboard.press("Escape")
    expect(held(page)).to_have_text(f"{names[0]} + {len(names) - 1}")
    page.reload()
    page.click("input[name=line]")
    expect(held(page)).to_have_text(f"{names[0]} + {len(names) - 1}")
    assert thumb.touches == 2


def test_one_of_a_kind_is_in_hand_and_can_be_put_back(sign_in):
    page = at_the_keypad(sign_in)
    held(page).click()
    analyzers = page.get_by_role("group", name="Combustion analyzer").locator(".one")
    chosen = analyzers.filter(has_text="✓").inner_text()
    other = analyzers.filter(has_not_text="✓").first
    name = other.locator("b").inner_text()
    other.click()
    expect(analyzers.filter(has_text="✓").locator("b")).to_have_text(f"✓ {name}")
    assert name not in chosen
    analyzers.filter(has_text="✓").click()
    expect(analyzers.filter(has_text="✓")).to_have_count(0)


def test_a_reading_says_what_it_was_read_with(sign_in):
    page = at_the_keypad(sign_in)
    page.fill("input[name=line]", "manifold 3.5")
    expect(page.locator(".chip.with")).to_have_text(re.compile("^with .*anometer"))
