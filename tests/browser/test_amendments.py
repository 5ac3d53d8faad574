"""A closed visit in the real page: its papers are kept, and what is said afterwards stands beside them."""

from playwright.sync_api import expect


def closed_visit(page):
    """Open the oldest closed visit of the sample world at its end; return its number."""
    base = page.url.rstrip("/")
    number = next(n for n in range(1, 90) if page.request.get(f"{base}/api/visits/{n}").json()["close"]["closed_at"])
    page.goto(f"{base}/visits/{number}/close")
    page.wait_for_selector("h2:has-text('Closed:')")
    return f"{base}/api", number


def test_a_closed_visit_is_amended_and_keeps_its_papers(sign_in):
    page = sign_in()
    api, number = closed_visit(page)
    first = page.request.get(f"{api}/visits/{number}/customer.pdf").body()
    page.click("button:has-text('Amend this visit')")
    page.fill("textarea[name=amend-lines]", "flumph 9")
    page.fill("input[name=amend-why]", "forgotten on the day")
    page.click("button:has-text('Keep the amendment')")
    expect(page.locator(".amendments [role=alert]")).to_contain_text("Line 1")
    page.fill("textarea[name=amend-lines]", "told owner\nadvise a larger gas line")
    page.click("button:has-text('Keep the amendment')")
    kept = page.locator(".amendments article").last
    expect(kept).to_contain_text("Why: forgotten on the day")
    own = page.request.get(api.removesuffix("/api") + kept.locator("a").get_attribute("href"))
    assert own.headers["content-type"] == "application/pdf"
    assert page.request.get(f"{api}/visits/{number}/customer.pdf").body() == first
    page.reload()
    expect(page.locator(".kept")).to_contain_text("For the customer")
