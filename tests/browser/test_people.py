"""Somebody is invited, joins, sets a one-time code up and signs in with it; the administrator sees it and ends it."""

import time

import pyotp
from playwright.sync_api import expect

GOOD = "seven-lamps-of-brass"


def test_from_the_invitation_to_the_code_to_the_last_day(sign_in, server, chromium):
    runa = sign_in("runa")
    runa.goto(f"{server.url}/kept/roles")
    runa.get_by_label("First name").fill("Piran")
    runa.get_by_label("Sign-in name").fill("piran")
    runa.get_by_role("button", name="Make the invitation").click()
    link = runa.locator("code").inner_text()
    theirs = chromium.new_context(viewport={"width": 390, "height": 844})
    page = theirs.new_page()
    page.goto(link)
    page.get_by_label("Your password").fill("piran")
    page.get_by_role("button", name="Choose it and sign in").click()
    expect(page.get_by_role("alert")).to_contain_text("too short")
    page.get_by_label("Your password").fill(GOOD)
    page.get_by_role("button", name="Choose it and sign in").click()
    expect(page.get_by_role("heading", level=1)).to_contain_text("day")
    page.get_by_role("link", name="You").click()
    page.get_by_role("button", name="Set it up").click()
    secret = page.locator("code").inner_text().replace(" ", "")
    page.get_by_label("The six digits that it shows").fill(pyotp.TOTP(secret).now())
    page.locator("input[name=password]").fill(GOOD)
    page.get_by_role("button", name="Ask for codes from now on").click()
    expect(page.get_by_text("asked at every sign-in")).to_be_visible()
    page.get_by_role("button", name="Sign out", exact=True).click()
    page.locator("input[name=username]").fill("piran")
    page.locator("input[name=password]").fill(GOOD)
    page.get_by_role("button", name="Sign in").click()
    page.locator("input[name=code]").fill(pyotp.TOTP(secret).at(time.time() + 30))  # the next one, within the drift
    page.get_by_role("button", name="Sign in").click()
    expect(page.get_by_role("heading", level=1)).to_contain_text("day")
    runa.reload()
    row = runa.get_by_role("listitem").filter(has_text="Piran")
    row.get_by_role("button", name="Has left").click()
    expect(row.get_by_role("button", name="Is back")).to_be_visible()
    page.reload()
    expect(page.locator("input[name=username]")).to_be_visible()
    runa.goto(f"{server.url}/kept/audit")
    expect(runa.get_by_role("row").filter(has_text="piran: technician, has left")).to_be_visible()
    theirs.close()


def test_the_sample_world_is_marked_on_every_screen(sign_in, server):
    page = sign_in("tove", 390, 844)
    expect(page.get_by_text("Sample world: all of it is made up")).to_be_visible()
    page.goto(f"{server.url}/own")
    expect(page.get_by_text("Sample world: all of it is made up")).to_be_visible()
