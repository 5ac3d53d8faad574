"""The real server on the real database, and headless Chromium in front of it."""

import pytest
from playwright.sync_api import TimeoutError as PlaywrightTimeout
from playwright.sync_api import expect, sync_playwright

from launcher.chromium import HEADLESS
from tests.served import served

# A busy machine is slow, not wrong: speeds belong to the bench.
PATIENCE_MS = 40_000
expect.set_options(timeout=PATIENCE_MS)


@pytest.fixture(scope="module")
def server():
    """Serve a copy of the prepared sample world to the tests of one file: no file finds what another one did."""
    with served("browser") as running:
        yield running


@pytest.fixture(scope="session")
def chromium():
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(**HEADLESS)
        yield browser
        browser.close()


@pytest.hookimpl(wrapper=True)
def pytest_runtest_makereport(item, call):
    """Leave with each test whether it failed, so that its pages can be told about."""
    report = yield
    if report.when == "call":
        item.failed = report.failed
    return report


def _told(page, heard):
    """Say what a page showed and what it asked for last, for whoever reads a failure."""
    print(f"{page.url}: {page.inner_text('body')[:600]!r} after {heard[-12:]}")


@pytest.fixture(scope="module")
def cookies():
    """Keep who signed in to the server of one file: the form is filled once a person, not once a test."""
    return {}


@pytest.fixture
def sign_in(server, chromium, cookies, request):
    """Return a function that gives a page, signed in, at the round.

    The page is kept for a cellar without signal only where a test is marked ``cellar``: each keeping is a whole download.
    """
    contexts, pages = [], []
    keeping = "allow" if request.node.get_closest_marker("cellar") else "block"

    def open_page(username="tove", width=1280, height=800):
        context = chromium.new_context(
            viewport={"width": width, "height": height},
            reduced_motion="reduce",
            has_touch=width < 800,
            accept_downloads=True,
            service_workers=keeping,
        )
        context.add_cookies(cookies.get(username, []))
        context.set_default_timeout(PATIENCE_MS)
        contexts.append(context)
        server.follow_the_day()
        page = context.new_page()
        heard = _listen(page)
        pages.append((page, heard))
        page.goto(server.url)
        try:
            _come_in(page, username)
        except PlaywrightTimeout as error:
            raise AssertionError(f"no round: {page.inner_text('body')!r} after {heard}") from error
        cookies[username] = context.cookies()
        return page

    yield open_page
    if getattr(request.node, "failed", False):
        for page, heard in pages:
            _told(page, heard)
    for context in contexts:
        context.close()


def _come_in(page, username):
    """Wait for the round; fill the form where the server asks who is there."""
    page.wait_for_selector(".stop, input[name=username]")
    if page.locator("input[name=username]").count():
        page.fill("input[name=username]", username)
        page.fill("input[name=password]", "valley-heat")
        page.keyboard.press("Enter")
        page.wait_for_selector(".stop")


def _listen(page):
    """Return a list that fills with what the page asks, gets and complains about."""
    heard = []
    page.on("request", lambda request: heard.append(f"{request.method} {request.url}"))
    page.on("response", lambda response: heard.append(f"{response.status} {response.url}"))
    page.on("requestfailed", lambda request: heard.append(f"{request.failure} {request.url}"))
    page.on("pageerror", lambda error: heard.append(str(error)))
    return heard


def open_visit(page, unit):
    page.click(f".stop:has-text('{unit}')")
    page.click("nav.tabs button:has-text('Unit')")
    page.wait_for_selector("[data-station]")


def write(page, text):
    """Type a line and Enter, as a technician does, and wait until the server has it."""
    before = page.locator(".entry").count()
    page.fill("input[name=line]", text)
    page.wait_for_function("() => document.querySelector('[data-test=echo]')?.textContent.length > 0")
    page.keyboard.press("Enter")
    page.wait_for_function(f"() => document.querySelectorAll('.entry').length > {before}")
