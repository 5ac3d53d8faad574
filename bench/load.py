"""Many at once: open pages that listen, and people who write, through the whole of an installation."""

import http.client
import json
import random
import socket
import threading
import time
import uuid
from collections import defaultdict
from collections.abc import Callable
from statistics import quantiles
from typing import Any
from urllib.parse import urlsplit

from bench.installed import PEOPLE, installed

PAGES, WRITERS = 200, PEOPLE
SECONDS, WARM_S = 60.0, 20.0  # so long, after the circuits of the first visits were worked out
LINE_EVERY_S = 8.0  # somebody who measures and types without a pause
LOOK_EVERY_S = 4.0  # as an open page asks whether anything is new
_READ_BACKS = 2  # of a line while it is typed


class Person:
    """Somebody signed in, on a wire of their own that stays open."""

    def __init__(self, url: str, username: str, cookies: dict[str, str] | None = None) -> None:
        self.url, self.username, self.place = url, username, urlsplit(url).netloc
        self.wire = http.client.HTTPConnection(self.place, timeout=30)
        self.cookies: dict[str, str] = dict(cookies or {})
        if cookies is None:
            self.call("POST", "session", {"username": username, "password": "valley-heat"})

    def again(self) -> "Person":
        """Return the same person at another page: signed in already, on a wire of its own."""
        return Person(self.url, self.username, self.cookies)

    def call(self, method: str, path: str, body: object = None) -> tuple[int, Any]:
        """Return status and answer; 0 where nobody answered, and then the wire is a new one."""
        data = None if body is None else json.dumps(body)
        try:
            self.wire.request(method, f"/api/{path}", data, self.headers())
            answer = self.wire.getresponse()
            content = answer.read()
        except (OSError, http.client.HTTPException):
            self.wire.close()
            self.wire = http.client.HTTPConnection(self.place, timeout=30)
            return 0, None
        for name, value in answer.getheaders():
            if name.lower() == "set-cookie":
                key, _, rest = value.partition("=")
                self.cookies[key] = rest.partition(";")[0]
        return answer.status, json.loads(content) if content else None

    def upload(self, path: str, name: str, content: str, **fields: str) -> Any:
        """Send a file with its fields; return the answer."""
        edge = uuid.uuid4().hex
        parts = [f'--{edge}\r\nContent-Disposition: form-data; name="{k}"\r\n\r\n{v}\r\n' for k, v in fields.items()]
        head = f'--{edge}\r\nContent-Disposition: form-data; name="file"; filename="{name}"\r\n\r\n'
        body = "".join([*parts, head, content, f"\r\n--{edge}--\r\n"]).encode()
        headers = {**self.headers(), "Content-Type": f"multipart/form-data; boundary={edge}"}
        self.wire.request("POST", f"/api/{path}", body, headers)
        return json.loads(self.wire.getresponse().read())

    def headers(self) -> dict[str, str]:
        """Return what the page sends along."""
        return {
            "Content-Type": "application/json",
            "Cookie": "; ".join(f"{key}={value}" for key, value in self.cookies.items()),
            "X-CSRFToken": self.cookies.get("csrftoken", ""),
        }

    def listen(self, visit: int) -> socket.socket | None:
        """Open a page's stream; None where it is refused."""
        host, _, port = self.place.partition(":")
        wire = socket.create_connection((host, int(port)), timeout=15)
        head = "".join(f"{name}: {value}\r\n" for name, value in self.headers().items())
        wire.sendall(f"GET /api/visits/{visit}/live HTTP/1.1\r\nHost: {self.place}\r\n{head}\r\n".encode())
        if b" 200 " in wire.recv(4096)[:40]:
            return wire
        wire.close()
        return None


class Times:
    """How long each sort of call took, s, and how many failed."""

    def __init__(self) -> None:
        self.lock = threading.Lock()
        self.took: dict[str, list[float]] = defaultdict(list)
        self.failed: dict[str, int] = defaultdict(int)

    def timed(self, name: str, person: Person, method: str, path: str, body: object = None) -> None:
        """Make a call and note it."""
        begun = time.perf_counter()
        status, _ = person.call(method, path, body)
        with self.lock:
            self.took[name].append(time.perf_counter() - begun)
            self.failed[name] += status != 200

    def forget(self) -> None:
        """Begin anew: what came before was the first time for everything."""
        with self.lock:
            self.took.clear()
            self.failed.clear()

    def said(self, name: str) -> str:
        """Return p50, p95 and failures of one sort."""
        cuts = quantiles(self.took[name], n=20)
        count = len(self.took[name])
        return f"  {name}: p50 {1000 * cuts[9]:.0f} ms, p95 {1000 * cuts[18]:.0f} ms, {self.failed[name]} of {count} failed"


def line(text: str) -> dict[str, object]:
    """Return a line as a page sends it, under an id of its own."""
    return {"id": str(uuid.uuid4()), "text": text, "phase": "found", "at": "2026-01-14T10:00:00-07:00"}


def report() -> None:
    """Print how long people wait while many work at once."""
    with installed() as made:
        people = [Person(made.url, f"bench{n}") for n in range(WRITERS)]
        visits = [stop["id"] for stop in Person(made.url, "odo").call("GET", "round")[1]["stops"]]
        wires = [people[n % WRITERS].listen(visits[n % len(visits)]) for n in range(PAGES)]
        open_wires = [wire for wire in wires if wire is not None]
        print(
            f"load ({PAGES} open pages, {WRITERS} people each writing a line every {LINE_EVERY_S:.0f} s, {SECONDS:.0f} s)"
        )
        times = _run(people, visits)
        for name in ("write a line", "read back", "anything new?"):
            print(times.said(name))
        alive = sum(_lives(wire) for wire in open_wires)
        print(f"  pages that listened to the end: {alive} of {PAGES}")


def _run(people: list[Person], visits: list[int]) -> Times:
    times, stop = Times(), threading.Event()

    def write(person: Person, visit: int) -> None:
        for _ in range(_READ_BACKS):
            body = {"text": "mp 3.5", "stage": None, "phase": "found"}
            times.timed("read back", person, "POST", f"visits/{visit}/read-back", body)
        times.timed("write a line", person, "POST", f"visits/{visit}/lines", line("note bench"))

    def look(person: Person, visit: int) -> None:
        times.timed("anything new?", person, "GET", f"visits/{visit}/version")

    lookers = [people[n % WRITERS].again() for n in range(PAGES)]
    tasks = [(write, LINE_EVERY_S, person) for person in people] + [(look, LOOK_EVERY_S, one) for one in lookers]
    threads = [
        threading.Thread(target=_repeat, args=(stop, every, task, person, visits[n % len(visits)]))
        for n, (task, every, person) in enumerate(tasks)
    ]
    for thread in threads:
        thread.start()
    time.sleep(WARM_S)
    times.forget()
    time.sleep(SECONDS)
    stop.set()
    for thread in threads:
        thread.join()
    return times


def _repeat(
    stop: threading.Event, every: float, task: Callable[[Person, int], None], person: Person, visit: int
) -> None:
    stop.wait(random.random() * every)
    while not stop.is_set():
        task(person, visit)
        stop.wait(every)


def _lives(wire: socket.socket) -> bool:
    wire.setblocking(False)
    try:
        while True:
            if not wire.recv(65536):
                return False
    except BlockingIOError:
        return True
    except OSError:
        return False
    finally:
        wire.close()
