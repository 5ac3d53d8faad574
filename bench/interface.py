"""The interface's latency on the sample world, through a real server."""

import contextlib
import http.cookiejar
import json
import os
import subprocess
import sys
import time
import urllib.request
import uuid
from collections.abc import Callable, Iterator
from statistics import quantiles
from typing import Any

from launcher.cluster import free_port
from launcher.serve import server_command

TIMES = 60
REPORT_ENTRIES = 500


@contextlib.contextmanager
def served() -> Iterator[str]:
    """Serve a fresh sample world; yield its address."""
    subprocess.run([sys.executable, "-m", "django", "prepare", "--fresh"], check=True)
    port = free_port()
    process = subprocess.Popen(server_command(port, python=sys.executable), env=os.environ)
    url = f"http://127.0.0.1:{port}"
    try:
        for _ in range(200):
            with contextlib.suppress(OSError):
                urllib.request.urlopen(f"{url}/api/health").close()
                break
            time.sleep(0.1)
        yield url
    finally:
        process.terminate()
        process.wait()


class Caller:
    def __init__(self, url: str) -> None:
        self.url = url
        self.jar = http.cookiejar.CookieJar()
        self.opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(self.jar))
        self.call("POST", "session", {"username": "tove", "password": "valley-heat"})

    def call(self, method: str, path: str, body: object = None) -> Any:
        token = next((c.value for c in self.jar if c.name == "csrftoken"), "")
        headers = {"Content-Type": "application/json", "X-CSRFToken": token or ""}
        data = json.dumps(body).encode() if body is not None else None
        request = urllib.request.Request(f"{self.url}/api/{path}", data, headers, method=method)
        with self.opener.open(request) as answer:
            return json.loads(answer.read())

    def fetch(self, path: str) -> bytes:
        with self.opener.open(f"{self.url}/api/{path}") as answer:
            content: bytes = answer.read()
            return content


def report(url: str) -> None:
    """Print p50 and p95 of the calls that a technician waits for."""
    caller = Caller(url)
    visit = caller.call("GET", "round")["stops"][1]["id"]
    print("interface (one at a time, visit page with two years of history)")
    _print("round", lambda: caller.call("GET", "round"))
    _print("visit page", lambda: caller.call("GET", f"visits/{visit}"))
    _print("read back a line", lambda: caller.call("POST", f"visits/{visit}/read-back", {"text": "o2 6.4 co 46 t 118"}))
    _print("write a line, page back", lambda: caller.call("POST", f"visits/{visit}/lines", _line("mp 3.5")))
    _print("closing out", lambda: caller.call("GET", f"visits/{visit}/closing"))
    _print("exchanger with its odds", lambda: caller.call("GET", f"visits/{visit}/exchanger"))
    _print("record of a unit", lambda: caller.call("GET", "units/1"))
    _print("dry run of house rules on the last visits", lambda: caller.call("POST", "house-rules/try", _STRICTER), 8)
    while caller.call("GET", f"visits/{visit}/version") < REPORT_ENTRIES:
        caller.call("POST", f"visits/{visit}/lines", _line("o2 7.4 co 22 co2 7.6 t 342 air 66"))
    for name in ("report", "customer", "tag"):
        _print(
            f"{name}.pdf of {REPORT_ENTRIES} entries", lambda name=name: caller.fetch(f"visits/{visit}/{name}.pdf"), 5
        )


_STRICTER = {"rules": {"worn_part": "replace", "jumpers": "none", "manual_reset": "twelve_cycles"}}


def _line(text: str) -> dict[str, str]:
    return {"id": str(uuid.uuid4()), "text": text, "phase": "found", "at": "2026-01-14T10:00:00Z"}


def _print(name: str, work: Callable[[], object], times: int = TIMES) -> None:
    work()
    spent = []
    for _ in range(times):
        begun = time.perf_counter()
        work()
        spent.append(1000 * (time.perf_counter() - begun))
    cuts = quantiles(spent, n=20)
    print(f"  {name}: p50 {cuts[9]:.0f} ms, p95 {cuts[18]:.0f} ms")
