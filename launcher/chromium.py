"""Debian's Chromium without a window, in which tests, bench and pictures look at the page. It asks for nothing from elsewhere."""

from typing import Any

HEADLESS: dict[str, Any] = {
    "executable_path": "/usr/bin/chromium-headless-shell",
    "args": [
        "--no-sandbox",
        "--disable-gpu",
        "--disable-dev-shm-usage",
        "--disable-quic",
        "--no-first-run",
        "--disable-background-networking",
        "--disable-component-update",
        "--disable-sync",
        "--host-resolver-rules=MAP * ~NOTFOUND , EXCLUDE 127.0.0.1 , EXCLUDE localhost",
        "--proxy-server=direct://",
    ],
}
