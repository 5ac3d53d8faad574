"""At 22:30 on the last day of a month, by the server's own clock: begin a visit, write on it, look at the round."""

import os
import subprocess
import sys
from datetime import UTC, datetime
from pathlib import Path

import pytest
from playwright.sync_api import expect

from launcher.ground import ROOT
from tests.browser.conftest import PATIENCE_MS, write
from tests.sample import clone
from tests.served import Server

WEST, EAST = "MST7MDT", "Etc/GMT-10"
EVENINGS = [
    (WEST, datetime(2027, 2, 1, 5, 30, tzinfo=UTC)),
    (EAST, datetime(2027, 1, 31, 12, 30, tzinfo=UTC)),
]


def set_zone(zone, world):
    """Move every site, and the firm, of a world into ``zone``."""
    said = (
        "from havrin_server.people.models import Firm; from havrin_server.units.models import Site;"
        f"Firm.objects.update(zone={zone!r}); Site.objects.update(zone={zone!r})"
    )
    env = {**os.environ, **world}
    subprocess.run([sys.executable, "-m", "django", "shell", "-c", said], env=env, cwd=ROOT, check=True)


def faked(now):
    """Return the environment of a program whose clock begins at ``now`` and goes on from there."""
    library = next(Path("/usr/lib").glob("*/faketime/libfaketimeMT.so.1"))
    return {
        "LD_PRELOAD": str(library),
        "FAKETIME": f"@{now:%Y-%m-%d %H:%M:%S}",
        "FAKETIME_DONT_FAKE_MONOTONIC": "1",
        "TZ": "UTC",
    }


@pytest.fixture(params=EVENINGS, ids=["west", "east"])
def evening(request):
    """Serve a world of its own at a late hour."""
    zone, now = request.param
    with clone("evening") as world:
        set_zone(zone, world)
        late = Server({**world, **faked(now)})
        late.start()
        yield late, now
        late.kill()


def test_late_in_the_evening_it_is_still_today(evening, chromium):
    late, now = evening
    context = chromium.new_context(viewport={"width": 1280, "height": 800}, reduced_motion="reduce", timezone_id="UTC")
    context.set_default_timeout(PATIENCE_MS)
    page = context.new_page()
    page.clock.set_fixed_time(now)
    page.goto(late.url)
    page.fill("input[name=username]", "tove")
    page.fill("input[name=password]", "valley-heat")
    page.keyboard.press("Enter")
    page.wait_for_selector("h1:has-text('Sunday, 31 January'), h1:has-text('Sunday 31 January')")
    page.goto(f"{late.url}/units/7")
    page.click("summary:has-text('New visit')")
    expect(page.locator("input[type=date]")).to_have_value("2027-01-31")
    page.click(".plan .chip:has-text('Re-check')")
    page.click("button:has-text('Begin now')")
    page.wait_for_url("**/visits/*/arrival")
    page.click("nav.tabs button:has-text('Unit')")
    page.wait_for_selector("[data-station]")
    write(page, "room 0")
    expect(page.locator(".entry time").first).to_have_text("22:30")
    page.goto(late.url)
    # of the day itself; what was planned for December stands below it, as left over
    expect(page.locator("main > ol .stop", has_text="UH-1")).to_have_count(1)
    context.close()
