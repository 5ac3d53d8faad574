"""The door: what is typed there stays, and a session that ends leads back to it."""

from playwright.sync_api import expect


def test_a_half_typed_name_survives_coming_back_to_the_tab(server, chromium):
    context = chromium.new_context()
    page = context.new_page()
    page.goto(server.url)
    page.fill("input[name=username]", "tove")
    with page.expect_response("**/api/session"):
        page.evaluate("() => window.dispatchEvent(new Event('visibilitychange'))")
    page.wait_for_timeout(200)
    expect(page.locator("input[name=username]")).to_have_value("tove")
    context.close()


def test_a_wrong_password_is_answered_at_the_door(server, chromium):
    context = chromium.new_context()
    page = context.new_page()
    page.goto(server.url)
    page.fill("input[name=username]", "tove")
    page.fill("input[name=password]", "not it")
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("Wrong name or password")
    context.close()


def test_a_session_that_ended_leads_back_to_the_door(sign_in):
    page = sign_in()
    page.context.clear_cookies()
    page.evaluate("() => window.dispatchEvent(new Event('visibilitychange'))")
    page.wait_for_selector("input[name=username]")
