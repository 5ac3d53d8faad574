"""What was started is kept up: a process that dies is started again, more slowly each time it dies at once."""

import subprocess
import time
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from typing import Protocol

from launcher.ground import Refusal, say

LOOK_S = 0.2
FIRST_WAIT_S, LONGEST_WAIT_S = 0.3, 20.0
STEADY_S = 30.0  # what ran so long died of something else than its start


class Watched(Protocol):
    """Something that runs, and can be started again."""

    name: str

    def is_up(self) -> bool:
        """Tell whether it runs."""

    def start(self) -> None:
        """Start it. Raises Refusal when it does not come up."""


@dataclass
class Process:
    """A process of ours; ``make`` starts it."""

    name: str
    make: Callable[[], "subprocess.Popen[bytes]"]
    process: "subprocess.Popen[bytes] | None" = None

    def is_up(self) -> bool:
        """Tell whether it runs."""
        return self.process is not None and self.process.poll() is None

    def start(self) -> None:
        """Start it."""
        self.process = self.make()

    def end(self) -> None:
        """Ask it to end; after eight seconds it is not asked any more."""
        if self.process is None or self.process.poll() is not None:
            return
        self.process.terminate()
        try:
            self.process.wait(timeout=8)
        except subprocess.TimeoutExpired:
            self.process.kill()
            self.process.wait()


@dataclass
class Turn:
    """How it went with one watched thing so far."""

    watched: Watched
    wait_s: float = FIRST_WAIT_S
    began: float = field(default_factory=lambda: time.monotonic())
    due: float | None = None  # when it is started again; None while it runs

    def look(self, now: float) -> None:
        """Start it again where it is down and its turn has come."""
        if self.due is None:
            if self.watched.is_up():
                return
            self.wait_s = FIRST_WAIT_S if now - self.began >= STEADY_S else self.wait_s
            self.due = now + self.wait_s
            say(f"{self.watched.name} ended by itself: starting it again in {self.wait_s:.1f} s.")
        elif now >= self.due:
            self._start(now)

    def _start(self, now: float) -> None:
        self.wait_s = min(2 * self.wait_s, LONGEST_WAIT_S)
        try:
            self.watched.start()
        except Refusal as refusal:
            self.due = time.monotonic() + self.wait_s
            say(f"{self.watched.name} did not come up ({refusal}): once more in {self.wait_s:.1f} s.")
            return
        self.due, self.began = None, now
        say(f"{self.watched.name} was started again.")


def keep_up(watched: Sequence[Watched]) -> None:
    """Look after everything until the launcher is told to stop (which comes as an exception)."""
    turns = [Turn(one) for one in watched]
    while True:
        for turn in turns:
            turn.look(time.monotonic())
        time.sleep(LOOK_S)
