"""Where things are, how they are told, and how commands are run."""

import hashlib
import os
import subprocess
from collections.abc import Iterable, Sequence
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
STATE = Path(os.environ.get("HAVRIN_STATE", ROOT / ".havrin"))
VENV = STATE / "venv"
PYTHON = VENV / "bin" / "python"


class Refusal(Exception):
    """Something that the person must put right; the text is one clear line."""


def say(text: str) -> None:
    """Print one line of progress at once."""
    print(text, flush=True)


def run(command: Sequence[str | Path], what: str, **options: object) -> None:
    """Run ``command``; when it fails, refuse with ``what`` and the end of its output."""
    done = subprocess.run([str(c) for c in command], capture_output=True, text=True, **options)  # type: ignore[call-overload]
    if done.returncode:
        tail = "\n".join((done.stderr + done.stdout).strip().splitlines()[-8:])
        raise Refusal(f"{what} failed (exit {done.returncode}):\n{tail}")


def fingerprint(paths: Iterable[Path]) -> str:
    """Return a hash over the names and contents of ``paths`` and everything in them."""
    digest = hashlib.sha256()
    for path in sorted(p for top in paths for p in ([top] if top.is_file() else top.rglob("*")) if p.is_file()):
        digest.update(str(path.relative_to(ROOT)).encode() + b"\0" + path.read_bytes())
    return digest.hexdigest()


def is_done(stamp: str, value: str) -> bool:
    """Tell whether the step ``stamp`` was finished for ``value``."""
    file = STATE / "stamps" / stamp
    return file.is_file() and file.read_text() == value


def mark_done(stamp: str, value: str) -> None:
    """Remember that the step ``stamp`` is finished for ``value``; written last, so half a step is redone."""
    (STATE / "stamps").mkdir(parents=True, exist_ok=True)
    (STATE / "stamps" / stamp).write_text(value)
