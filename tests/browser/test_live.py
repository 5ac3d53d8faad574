"""A device of the test's own sends; the page shows it as it comes, also after the server was killed."""

import json
import re
import time
import urllib.request

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import open_visit
from tests.served import Server

pytestmark = pytest.mark.cellar

MAKE_KEY = """async (name) => {
  const token = document.cookie.match(/csrftoken=([^;]+)/)[1];
  const visits = await (await fetch('/api/round')).json();
  const page = await (await fetch(`/api/visits/${visits.stops[0].id}`)).json();
  const instrument = page.instruments.find((row) => row.name === name);
  const answer = await fetch(`/api/instruments/${instrument.id}/key`, { method: 'POST', headers: { 'X-CSRFToken': token } });
  return (await answer.json()).key;
}"""


class Device:
    def __init__(self, url, key):
        self.url, self.key, self.sequence = url, key, 0

    def send(self, *values):
        now = time.time()
        times = [now - 0.1 * i for i in range(len(values))][::-1]
        body = {
            "device_time_s": now,
            "sequence": self.sequence,
            "channels": {"draft_pa": {"t": times, "v": list(values)}},
        }
        self.sequence += 1
        headers = {"Authorization": f"Bearer {self.key}", "Content-Type": "application/json"}
        request = urllib.request.Request(f"{self.url}/api/capture/batches", json.dumps(body).encode(), headers)
        return json.load(urllib.request.urlopen(request, timeout=30))


@pytest.fixture
def live(sign_in, server):
    page = sign_in("wenna")
    device = Device(server.url, page.evaluate(MAKE_KEY, "Two-port manometer"))
    open_visit(page, "F-4")
    page.keyboard.press("4")
    page.click(".live button:has-text('Record')")
    page.wait_for_selector(".live.on")
    return page, device


def stop(page):
    """End the recording, and wait until the server has: a page that is closed at once takes its request along."""
    page.click(".live button:has-text('Stop')")
    expect(page.locator(".live button:has-text('Record')")).to_be_visible()


def shown(page):
    return page.locator("[data-channel=draft_pa] b")


def test_samples_appear_as_they_are_sent_and_go_on_the_tape(live):
    page, device = live
    assert device.send(220, 221, 222)["stored"]
    expect(shown(page)).to_contain_text("0.89")
    device.send(187, 187, 187)
    expect(shown(page)).to_contain_text("0.75")
    page.click("button:has-text('Write the last 5 s')")
    page.wait_for_selector(".entry:has-text('Draft at switch')")
    page.click("[data-channel=draft_pa] .ask")
    expect(page.locator(".dips")).to_contain_text("No dip under")
    stop(page)
    assert device.send(100)["recording"] is False


def test_fast_batches_do_not_put_off_the_first_drawing(live):
    page, device = live
    for _ in range(60):  # a batch every 50 ms: always one on its way
        device.send(205)
        time.sleep(0.05)
        if page.locator("[data-channel=draft_pa]").count():
            break
    else:
        raise AssertionError("no channel was drawn while samples kept coming")
    stop(page)


def test_a_killed_server_loses_nothing_that_it_acknowledged(live, server):
    page, device = live
    device.send(199, 199)
    expect(shown(page)).to_contain_text("0.799")
    server.kill()
    server.start()
    device.send(150, 150)
    expect(shown(page)).to_contain_text("0.60")
    expect(page.locator("[data-channel=draft_pa] .ends")).to_contain_text("0.799")
    stop(page)


def test_two_servers_feed_one_page(live, server):
    page, device = live
    other = Server(server.more)
    other.start()
    try:
        device.send(210, 210)
        expect(shown(page)).to_contain_text("0.84")
        device.url = other.url
        device.send(160, 160)
        expect(shown(page)).to_contain_text("0.64")
    finally:
        other.kill()
    stop(page)


def test_a_page_that_slept_shows_what_came_meanwhile(live):
    page, device = live
    device.send(220, 220)
    expect(shown(page)).to_contain_text("0.88")
    page.context.set_offline(True)
    device.send(130, 130)
    device.send(175, 175)
    page.context.set_offline(False)
    expect(shown(page)).to_contain_text("0.70")
    expect(page.locator("[data-channel=draft_pa] .ends")).to_contain_text("0.52")
    stop(page)


def test_an_event_is_marked_with_one_touch(live):
    page, device = live
    device.send(220, 220, 221)
    page.click(".marks button:has-text('Cover off')")
    expect(page.locator("[data-event=cover_off]")).to_contain_text("marked")
    stop(page)


def test_recorded_samples_come_in_from_a_file_and_are_looked_at_whole(sign_in, tmp_path):
    page = sign_in("wenna")
    open_visit(page, "F-4")
    page.keyboard.press("4")
    rows = [f"draft_pa,{n / 5:.1f},{220 if n < 500 else 120}" for n in range(1000)]
    file = tmp_path / "samples.csv"
    file.write_text("quantity,seconds,value\n" + "\n".join(rows) + "\n")
    page.set_input_files("label:has-text('Take samples in') input", file)
    expect(page.locator(".live h2")).to_contain_text("recorded from")
    expect(page.locator("[data-channel=draft_pa] .ends")).to_contain_text("0.88")
    expect(page.locator("[data-channel=draft_pa] .ends")).to_contain_text("0.48")
    page.click("[data-channel=draft_pa] .ask")
    expect(page.locator(".dips")).to_contain_text("1 dip under")
    page.click(".live button:has-text('Back')")
    page.locator(".live button", has_text=re.compile(r"Look at .*, Analyzer 1\s*$")).click()
    expect(page.locator("[data-channel=draft_pa] b")).to_contain_text("0.48")


def test_a_file_that_is_no_recording_is_answered_by_its_line(sign_in, tmp_path):
    page = sign_in("wenna")
    open_visit(page, "F-4")
    page.keyboard.press("4")
    file = tmp_path / "soup.csv"
    file.write_text("quantity,seconds,value\nsoup_pa,1,2\n")
    page.set_input_files("label:has-text('Take samples in') input", file)
    expect(page.locator(".live [role=alert]")).to_contain_text("Line 2: no channel is called “soup_pa”")
