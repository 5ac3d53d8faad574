"""A site's units side by side, reached from Arrival, on a tablet and on a phone."""

from playwright.sync_api import expect


def open_site(page, unit):
    page.click(f".stop:has-text('{unit}')")
    page.click("nav.tabs button:has-text('Arrival')")
    page.click("a.site")
    page.wait_for_selector("tbody td")


def test_units_stand_side_by_side_with_what_they_share(sign_in):
    page = sign_in("wenna")
    open_site(page, "B-1")
    for label in ("B-1", "B-2", "B-3", "UH-1"):
        expect(page.locator(f"thead th:has-text('{label}')").first).to_be_visible()
    expect(page.locator(".shared")).to_contain_text("Propagation branch")
    row = page.locator("tbody tr:has-text('Supply, all running')")
    expect(row.locator("td")).to_have_count(4)
    expect(row).to_contain_text("inWC")
    page.click("thead a:text-is('B-2')")
    page.wait_for_selector(".time li")
    expect(page.locator("header h1")).to_contain_text("B-2")


def test_on_a_phone_the_table_scrolls_and_the_page_does_not(sign_in):
    page = sign_in("wenna", width=390, height=844)
    open_site(page, "B-1")
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    first = page.locator("tbody th").first
    before = first.bounding_box()["x"]
    page.locator(".across").evaluate("element => element.scrollTo(400, 0)")
    assert page.locator(".across").evaluate("element => element.scrollLeft") > 100
    assert first.bounding_box()["x"] == before


def test_a_site_of_nobody_says_so(sign_in):
    page = sign_in("wenna")
    page.goto(page.url.split("/visits")[0].rstrip("/") + "/sites/999999")
    expect(page.locator("[role=alert]")).to_contain_text("no such site")
