"""A whole installation for a bench: as an operator runs it, on the sample world, gone afterwards."""

import os
import shutil
import signal
import subprocess
import sys
import tempfile
import time
import urllib.request
from collections.abc import Iterator
from contextlib import contextmanager, suppress
from pathlib import Path

from launcher.cluster import free_port
from launcher.ground import ROOT
from launcher.installation import Installation
from launcher.settings_file import NAME

PEOPLE = 60
_MORE_PEOPLE = f"""
from havrin_server.people.models import Person
tove = Person.objects.get(username="tove")
Person.objects.bulk_create(Person(username=f"bench{{n}}", password=tove.password, firm=tove.firm) for n in range({PEOPLE}))
"""


class Installed:
    """``./havrin serve`` on an installation of its own."""

    def __init__(self, home: Path) -> None:
        self.home, self.port = home, free_port()
        (home / NAME).write_text(f"[serve]\nport = {self.port}\n", encoding="utf-8")
        self.installation = Installation(home)
        self.url = f"http://127.0.0.1:{self.port}"
        self.process: subprocess.Popen[bytes] | None = None

    def prepare(self) -> None:
        """Play the sample world in, with people enough."""
        with self.installation.store.running():
            self.installation.ask("prepare")
            self.installation.ask("shell", "-c", _MORE_PEOPLE)

    def start(self) -> None:
        """Serve; return once it is ready."""
        as_root = ["--as-root"] if os.geteuid() == 0 else []
        with (self.home / "log").open("ab") as log:
            command = [sys.executable, str(ROOT / "havrin"), "serve", str(self.home), *as_root]
            self.process = subprocess.Popen(command, stdout=log, stderr=log, start_new_session=True)
        self.wait(90)

    def wait(self, seconds: float) -> float:
        """Return after how many seconds it is ready. Raises TimeoutError."""
        begun = time.monotonic()
        while time.monotonic() - begun < seconds:
            with suppress(OSError):
                urllib.request.urlopen(f"{self.url}/api/health/ready", timeout=2).close()
                return time.monotonic() - begun
            time.sleep(0.1)
        raise TimeoutError(f"not ready within {seconds:.0f} s")

    def stop(self) -> None:
        """End it."""
        if self.process is not None and self.process.poll() is None:
            self.process.send_signal(signal.SIGTERM)
            self.process.wait(60)


@contextmanager
def installed(grow: str = "") -> Iterator[Installed]:
    """Make one and serve it; stop it and remove it at the end. ``grow`` is done with its database before it serves."""
    home = Path(tempfile.mkdtemp(prefix="havrin-bench-"))
    made = Installed(home)
    try:
        made.prepare()
        if grow:
            with made.installation.store.running():
                print("grown:", made.installation.ask("shell", "-c", grow).strip().splitlines()[-1], "s", flush=True)
        made.start()
        yield made
    finally:
        made.stop()
        shutil.rmtree(made.installation.store.folder, ignore_errors=True)  # type: ignore[attr-defined]
        shutil.rmtree(home, ignore_errors=True)
