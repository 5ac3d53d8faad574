"""The page's weight and how soon it is useful, in headless Chromium."""

import gzip
import re
import time
from collections.abc import Iterable
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

from launcher.chromium import HEADLESS
from launcher.ground import ROOT

DIST = ROOT / "web" / "dist"


def report(url: str) -> None:
    """Print the first screen's script, first useful paint, and Enter to standing."""
    print("page")
    print(
        f"  script of the first screen: {_first_script_kb():.0f} kB gzipped; all scripts {_kb(DIST.rglob('*.js')):.0f} kB"
    )
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(**HEADLESS)
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        begun = time.perf_counter()
        page.goto(url)
        page.wait_for_selector("input[name=username]")
        print(f"  sign-in page useful after {1000 * (time.perf_counter() - begun):.0f} ms, cold")
        page.fill("input[name=username]", "tove")
        page.fill("input[name=password]", "valley-heat")
        page.keyboard.press("Enter")
        page.wait_for_selector(".stop")
        begun = time.perf_counter()
        page.reload()
        page.wait_for_selector(".stop")
        print(f"  round useful after {1000 * (time.perf_counter() - begun):.0f} ms, warm")
        browser.close()
    report_enter(url, "visit with a dozen entries")


def report_enter(url: str, what: str) -> None:
    """Print how soon a line that is entered shows its new standing, on the second stop of the round."""
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(**HEADLESS)
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        sign_in(page, url)
        page.click(".stop >> nth=1")
        page.wait_for_selector("[data-station]")
        spent = sorted(_enter_to_tape(page, value) for value in range(20))
        print(f"  Enter to new standing on the page, {what}: median {spent[10]:.0f} ms, worst of 20 {spent[-1]:.0f} ms")
        browser.close()


def sign_in(page: Page, url: str) -> None:
    """Sign in as the first technician of the sample world, up to the round."""
    page.goto(url)
    page.fill("input[name=username]", "tove")
    page.fill("input[name=password]", "valley-heat")
    page.keyboard.press("Enter")
    page.wait_for_selector(".stop")


def _enter_to_tape(page: Page, value: int) -> float:
    page.fill("input[name=line]", f"mp 3.{value:02d}")
    page.wait_for_timeout(250)
    return float(
        page.evaluate("""() => new Promise((done) => {
          const count = document.querySelectorAll('.entry').length
          const begun = performance.now()
          new MutationObserver((_, watcher) => {
            if (document.querySelectorAll('.entry').length === count) return
            watcher.disconnect()
            requestAnimationFrame(() => done(performance.now() - begun))
          }).observe(document.querySelector('.tape'), { childList: true, subtree: true })
          document.querySelector('footer form').requestSubmit()
        })""")
    )


def _first_script_kb() -> float:
    index = (DIST / "index.html").read_text()
    return _kb(DIST / name.lstrip("/") for name in re.findall(r'(?:src|href)="(/assets/[^"]+\.js)"', index))


def _kb(files: Iterable[Path]) -> float:
    return sum(len(gzip.compress(file.read_bytes())) for file in files) / 1000
