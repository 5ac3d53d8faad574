"""Take the README's pictures from a freshly served sample world: python -m demo.take_pictures URL."""

import re
import subprocess
import sys
import tempfile
from pathlib import Path

from playwright.sync_api import Browser, Page, sync_playwright

from launcher.chromium import HEADLESS

ROOT = Path(__file__).parent.parent
SHOTS = ROOT / "docs" / "screenshots"
LINES = (
    "draft .58 lo",
    "draft .95 hi left",
    "mp 1.5 lo left",
    "o2 7.0 co 20 co2 7.9 t 104 air 70 lo left",
    "v limit 0.0",
    "v rollout 0.0",
    "v pressure switch 0.1",
    "v gas valve 26.0",
    "lockup 7.4",
    "static .48",
    "rise 58 hi",
    "sa 128",
    "ra 70",
    "blower 6.1",
    "vent ok",
    "exchanger ok 5/5",
)
END = (
    "did clean rod",
    "ua 2.4 hi left",
    "ua 2.6 lo left",
    "trap ok",
    "cause rod coated: the control lost the flame",
    "unjump call",
    "cycles 3",
    "advise a larger return before next winter",
)


def take(url: str) -> None:
    """Write every picture."""
    SHOTS.mkdir(parents=True, exist_ok=True)
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(**HEADLESS)
        _phone(_signed_in(browser, url, 390, 844))
        _firm(_signed_in(browser, url, 1280, 800, "odo"))
        _tablet(_signed_in(browser, url, 1280, 800))
        browser.close()


def _signed_in(browser: Browser, url: str, width: int, height: int, username: str = "tove") -> Page:
    page = browser.new_page(viewport={"width": width, "height": height}, reduced_motion="reduce")
    page.goto(url)
    page.fill("input[name=username]", username)
    page.fill("input[name=password]", "valley-heat")
    page.keyboard.press("Enter")
    page.wait_for_selector(".stop")
    page.evaluate("() => document.fonts.ready")
    return page


def _shot(page: Page, name: str) -> None:
    page.wait_for_timeout(500)
    page.screenshot(path=SHOTS / f"{name}.png")


def _write(page: Page, line: str) -> None:
    before = page.locator(".entry").count()
    page.fill("input[name=line]", line)
    page.keyboard.press("Enter")
    page.wait_for_function(f"() => document.querySelectorAll('.entry').length > {before}")


def _phone(page: Page) -> None:
    page.click(".stop >> nth=0")
    page.wait_for_selector("[data-station]")
    _shot(page, "phone-unit")
    page.click(".tabs button:has-text('Walk')")
    page.wait_for_selector(".stop.current")
    page.evaluate("() => document.querySelector('.stop.current').scrollIntoView({ block: 'center' })")
    _shot(page, "phone-walk")
    page.context.close()


def _firm(page: Page) -> None:
    page.click("nav a:text-is('Board')")
    page.wait_for_selector("[data-cell] [data-visit]")
    _shot(page, "board")
    page.click("nav a:text-is('Kept')")
    page.wait_for_selector("input[name=card_find]")
    page.click("main li a:has-text('Ferncliff')")
    page.wait_for_selector("input[name=hours]")
    _shot(page, "kept")
    page.context.close()


def _others(page: Page) -> None:
    here = page.url
    page.goto(re.sub(r"/visits/.*", "/", here))
    page.click(".stop:has-text('B-1')")
    page.wait_for_selector("[data-station]")
    page.keyboard.press("0")
    page.wait_for_selector(".arrival")
    _shot(page, "arrival")
    page.click("a.site")
    page.wait_for_selector("tbody td")
    _shot(page, "site")
    page.go_back()
    page.wait_for_selector(".arrival")
    for line in ("stops vent", "v r c 26.4", "v 3 4 26.3", "v 3 c 26.3", "seen vent 1.1", "look hose ok"):
        _write(page, line)
    page.locator("h1").click()
    page.keyboard.press("5")
    page.wait_for_selector(".rung")
    page.click(".chip:text-is('Calling')")
    page.click("[data-node='3']")
    page.click("[data-node='4']")
    _shot(page, "string")
    page.goto(re.sub(r"/visits/.*", "/shop/circuit", here))
    page.click("nav button:has-text('Hot-water boiler')")
    page.click("button:has-text('Copy it')")
    page.wait_for_selector(".rung")
    _shot(page, "shop")
    _house(page, here)
    _exchanger(page, here)
    page.goto(here)
    page.wait_for_selector("[data-station]")


def _house(page: Page, here: str) -> None:
    page.goto(re.sub(r"/visits/.*", "/shop/rules", here))
    page.click("button:text-is('strict')")
    page.wait_for_selector("aside details")
    page.locator("aside summary").nth(1).click()
    _shot(page, "rules")


def _exchanger(page: Page, here: str) -> None:
    page.goto(re.sub(r"/visits/.*", "/", here))
    page.click(".stop:has-text('F-1')")
    page.wait_for_selector(".arrival")
    for line in (
        "found rust flakes",
        "found scorch cell 2 neck 10 mm by mirror",
        "o2 step 0.7",
        "exchanger ok 3/4 by mirror",
    ):
        _write(page, line)
    page.locator("h1").click()
    page.keyboard.press("6")
    page.wait_for_selector("[data-zone]")
    page.keyboard.press("d")
    _shot(page, "exchanger")
    page.keyboard.press("d")


def _record(page: Page) -> None:
    page.click("a:has-text('Record of the unit')")
    page.wait_for_selector(".time li")
    _shot(page, "record")


def _tablet(page: Page) -> None:
    _shot(page, "round")
    page.click(".stop >> nth=0")
    page.wait_for_selector("[data-station]")
    for line in LINES:
        _write(page, line)
    page.locator("h1").click()
    page.keyboard.press("l")
    page.keyboard.press("2")
    page.wait_for_selector(".flue")
    page.set_input_files("label:has-text('Read a log file') input", ROOT / "demo" / "logs" / "F-2-high-fire.csv")
    page.wait_for_selector(".trace")
    page.click("button:has-text('Write on the tape')")
    page.wait_for_selector(".entry:has-text('Flue, traced')")
    _shot(page, "flue")
    page.keyboard.press("1")
    _shot(page, "unit")
    for line in ("clock 2 ft3 1 96.4 hi", "orifice 5 #50"):
        _write(page, line)
    page.locator("h1").click()
    page.keyboard.press("3")
    page.wait_for_selector(".ladder")
    _shot(page, "gas")
    page.keyboard.press("4")
    page.wait_for_selector(".switch")
    _shot(page, "draft")
    page.click(".live button:has-text('Record')")
    page.wait_for_selector("[data-channel=draft_pa]")
    page.wait_for_timeout(62_000)  # a minute of traces: a gust comes every 47 s
    page.click("[data-channel=draft_pa] .ask")
    page.wait_for_selector(".dips")
    page.evaluate("() => document.querySelector('.dips').scrollIntoView({ block: 'end' })")
    _shot(page, "live")
    page.click(".live button:has-text('Stop')")
    page.keyboard.press("1")
    _others(page)
    for line in END:
        _write(page, line)
    page.locator("h1").click()
    page.keyboard.press("7")
    page.wait_for_selector(".close")
    page.fill(
        "textarea", "The flame rod was coated, so the control lost sight of the flame. It is clean now and reads well."
    )
    page.fill("input[name=signed-by]", "Tove Lindgarth")
    page.evaluate("() => document.querySelector('main').scrollTo(0, 0)")
    _shot(page, "close")
    page.click("button:has-text('Close the visit')")
    page.wait_for_selector(".done")
    answer = page.request.get(re.sub(r"/visits/(\d+)/.*", r"/api/visits/\1/report.pdf", page.url))
    with tempfile.TemporaryDirectory() as folder:
        file = Path(folder) / "report.pdf"
        file.write_bytes(answer.body())
        command = [
            "pdftoppm",
            "-r",
            "80",
            "-f",
            "1",
            "-l",
            "1",
            "-singlefile",
            "-png",
            str(file),
            str(SHOTS / "report"),
        ]
        subprocess.run(command, check=True)
    _record(page)


if __name__ == "__main__":
    take(sys.argv[1])
