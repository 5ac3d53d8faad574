"""The circuit editor in the browser: copy, break, mend, keep."""

from playwright.sync_api import expect


def test_a_circuit_is_copied_broken_mended_and_kept(sign_in):
    page = sign_in("wenna")
    page.click("a:has-text('Shop')")
    page.click("a:has-text('Circuits')")
    page.click("nav button:has-text('Unit heater')")
    page.wait_for_selector(".rung")
    page.click("button:has-text('Copy it')")
    nodes = page.locator("input[aria-label='Nodes of Limit']")
    nodes.fill("W W")
    nodes.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("joins 2 different nodes")
    expect(page.locator("tr.blamed input").first).to_have_value("limit")
    expect(page.locator("button:has-text('Keep it')")).to_be_disabled()
    nodes.fill("W 1")
    nodes.press("Enter")
    page.wait_for_selector(".rung")
    page.click("button:has-text('Keep it')")
    expect(page.locator("nav[aria-label=Documents]")).to_contain_text("our own")
    page.reload()
    page.click("nav button:has-text('our own')")
    expect(page.locator("input[aria-label='Nodes of Limit']")).to_have_value("W 1")


def test_a_technician_may_try_and_not_keep(sign_in):
    page = sign_in("tove")
    page.click("a:has-text('Shop')")
    page.click("a:has-text('Circuits')")
    name = "Unit heater, power vent, spark module fed through the string"
    page.locator("nav button", has_text=name).filter(has_not_text="our own").first.click()
    page.click("button:has-text('Copy it')")
    expect(page.locator("button:has-text('Keep it')")).to_be_disabled()
    expect(page.locator("main")).to_contain_text("only a supervisor keeps")


def test_a_kind_is_copied_with_a_station_more(sign_in):
    page = sign_in("wenna")
    page.click("a:has-text('Shop')")
    page.click("a:has-text('Kinds of units')")
    page.click("nav button:has-text('Unit heater')")
    page.wait_for_selector(".path")
    page.click("button:has-text('Copy it')")
    page.locator("button:has-text('One more station')").first.click()
    name = page.get_by_label("Name of New station")
    name.fill("Meter cock")
    name.press("Enter")
    expect(page.locator(".path").first).to_contain_text("Meter cock")
    key = page.get_by_label("Key of Meter cock")
    key.fill("manifold")
    key.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("Two stations are called 'manifold'")
    expect(page.locator("button:has-text('Keep it')")).to_be_disabled()
    key.fill("meter_cock")
    key.press("Enter")
    page.click("button:has-text('Keep it')")
    expect(page.locator("nav[aria-label=Documents]")).to_contain_text("Unit heater, our own")


def test_a_models_wrong_number_is_answered_at_its_field(sign_in):
    page = sign_in("wenna")
    page.click("a:has-text('Shop')")
    page.click("nav button:has-text('Crest 60')")
    rise = page.get_by_label("Rise, most", exact=True)
    rise.fill("warm")
    rise.press("Tab")
    expect(page.locator("label.wrong .said")).to_be_visible()
    rise.fill("36 K")
    rise.press("Tab")
    expect(page.locator("label.wrong")).to_have_count(0)
    page.click("button:has-text('Keep it')")
    expect(page.locator("button:has-text('Kept')")).to_be_visible()
    page.reload()
    page.click("nav button:has-text('Crest 60')")
    expect(page.get_by_label("Rise, most", exact=True)).to_have_value("65")
