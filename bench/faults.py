"""Everything is killed, one thing after another, while people write: is anything acknowledged lost, or there twice?"""

import contextlib
import os
import random
import signal
import threading
import time
from collections import Counter
from pathlib import Path

from bench.installed import Installed, installed
from bench.load import Person, line
from launcher.cluster import Cluster

MINUTES = 10.0
WRITERS = 8
_CALM_S = (12.0, 25.0)  # between one death and the next
_BACK_WITHIN_S = 15.0
_AGAIN_S = 0.5
_FROZEN_S = 8.0


class Tablet(threading.Thread):
    """Writes a line after another, each under its own id until it is acknowledged, as the page does."""

    def __init__(self, made: Installed, number: int, visits: list[int], stop: threading.Event) -> None:
        super().__init__(daemon=True)
        self.made, self.number, self.visits, self.stopped = made, number, visits, stop
        self.acknowledged: dict[str, int] = {}
        self.newest = 0.0

    def run(self) -> None:
        """Write until told to stop."""
        chance, person = random.Random(self.number), Person(self.made.url, f"bench{self.number}")
        while not self.stopped.is_set():
            visit, sent = chance.choice(self.visits), line(f"note bench {self.number}")
            while person.call("POST", f"visits/{visit}/lines", sent)[0] != 200:
                if self.stopped.wait(_AGAIN_S):
                    return
            self.acknowledged[str(sent["id"])] = visit
            self.newest = time.monotonic()
            self.stopped.wait(chance.uniform(0.2, 1.0))


def report() -> None:
    """Print what died, how long it took to come back, and what the tapes hold at the end."""
    with installed() as made:
        visits = [stop["id"] for stop in Person(made.url, "odo").call("GET", "round")[1]["stops"]]
        stop = threading.Event()
        tablets = [Tablet(made, number, visits, stop) for number in range(WRITERS)]
        for tablet in tablets:
            tablet.start()
        print(f"faults ({WRITERS} people write for {MINUTES:.0f} minutes, one thing is killed after another)")
        waits = _strike(made, tablets)
        stop.set()
        for tablet in tablets:
            tablet.join()
        made.wait(60)
        _compare(made, tablets, visits)
        back = sum(wait <= _BACK_WITHIN_S for wait in waits)
        print(
            f"  back by itself within {_BACK_WITHIN_S:.0f} s: {back} of {len(waits)}; the longest took {max(waits):.1f} s"
        )


def _strike(made: Installed, tablets: list[Tablet]) -> list[float]:
    chance, waits, end = random.Random(1), [], time.monotonic() + 60 * MINUTES
    kinds = ["server", "servers", "database", "session", "all of the database", "frozen sessions"]
    while time.monotonic() < end:
        time.sleep(chance.uniform(*_CALM_S))
        kind = kinds[len(waits) % len(kinds)]
        at = time.monotonic()
        killed = _kill(made, kind, chance)
        while any(tablet.newest <= at for tablet in tablets) and time.monotonic() - at < 90:
            time.sleep(0.1)
        waits.append(time.monotonic() - at)
        print(f"    {kind}: {killed} killed, everybody writes again after {waits[-1]:.1f} s", flush=True)
    return waits


def _kill(made: Installed, kind: str, chance: random.Random) -> int:
    servers, postmaster, sessions = _processes(made)
    chosen = {
        "server": servers[:1],
        "servers": servers,
        "database": postmaster,
        "session": [chance.choice(sessions)] if sessions else [],
        "all of the database": [*postmaster, *sessions],
        "frozen sessions": sessions,
    }[kind]
    for pid in chosen:
        _signal(pid, signal.SIGSTOP if kind == "frozen sessions" else signal.SIGKILL)
    if kind == "frozen sessions":
        threading.Timer(_FROZEN_S, lambda: [_signal(pid, signal.SIGCONT) for pid in chosen]).start()
    return len(chosen)


def _processes(made: Installed) -> tuple[list[int], list[int], list[int]]:
    """Return the serving processes, the database's own process, and its sessions."""
    assert isinstance(made.installation.store, Cluster)
    data = made.installation.store.data.resolve()
    servers, postgres = [], {}
    for place in Path("/proc").glob("[0-9]*"):
        try:
            words = (place / "cmdline").read_bytes().decode().split("\0")
            if "havrin_server.serving" in words and str(made.port) in words:
                servers.append(int(place.name))
            elif Path(os.readlink(place / "exe")).name == "postgres" and Path(os.readlink(place / "cwd")) == data:
                postgres[int(place.name)] = int((place / "stat").read_text().rpartition(") ")[2].split()[1])
        except OSError:
            continue
    top = [pid for pid, parent in postgres.items() if parent not in postgres]
    return servers, top, [pid for pid in postgres if pid not in top]


def _signal(pid: int, number: signal.Signals) -> None:
    with contextlib.suppress(ProcessLookupError):
        os.kill(pid, number)


def _compare(made: Installed, tablets: list[Tablet], visits: list[int]) -> None:
    person, stored = Person(made.url, "odo"), Counter[str]()
    for visit in visits:
        bundle = person.call("GET", f"visits/{visit}/bundle.json")[1]
        stored.update(entry["group"] for entry in bundle["visit"]["entries"])
    with made.installation.store.borrowed():  # as it runs now: it was started anew, on another port
        made.installation.ask("heads")  # follows every chain
    acknowledged = [one for tablet in tablets for one in tablet.acknowledged]
    lost = sum(not stored[one] for one in acknowledged)
    doubled = sum(stored[one] > 1 for one in acknowledged)
    print(f"  acknowledged {len(acknowledged)}, lost {lost}, doubled {doubled}; every chain holds")
