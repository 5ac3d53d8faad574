"""``./havrin test``: style checks, then core, server, web and browser tests."""

import subprocess
import time
from collections.abc import Sequence
from concurrent.futures import ThreadPoolExecutor
from typing import Any

from launcher import debian, environment
from launcher.cluster import Cluster
from launcher.ground import PYTHON, ROOT, STATE, Refusal, say

WEB = ROOT / "web"


def run_checks(only: Sequence[str] = (), *, every_case: bool = False) -> None:
    """Run every check; raise Refusal naming those that failed. ``only`` goes to pytest as it is.

    ``every_case``: tests that generate many cases run all of them, not a thinned row.
    """
    debian.ensure(debian.SERVE + debian.TEST)
    debian.need_node()
    environment.ensure_python("check")
    environment.ensure_page()
    environment.ensure_node_modules()
    with Cluster("test-db", throwaway=True).running() as cluster:
        env = environment.python_env(**cluster.environment(), HAVRIN_STATE=str(STATE / "test-state"))
        env |= {"HAVRIN_EVERY_CASE": "1"} if every_case else {}
        failed = [] if only else _style(env)
        failed += [name for name, rest in _tests(only) if not _passes(name, [*_PYTEST, *rest], ROOT, env)]
    if failed:
        raise Refusal(f"Failed: {', '.join(failed)}.")


_PYTEST = (str(PYTHON), "-m", "pytest")
# A file stays in one process, which keeps the circuits that it worked out; the branches of the core are counted beside.
_PARALLEL = ("-n", "auto", "--dist", "loadfile")
_COVERAGE = (
    "--cov=havrin_core",
    "--cov-branch",
    "--cov-report=term:skip-covered",
    "--cov-report=xml:.havrin/coverage.xml",
)


def _tests(only: Sequence[str]) -> list[tuple[str, Sequence[str]]]:
    """Return what is run under which name: parts as they are asked for, else core, server and launcher, then the browser."""
    if only:
        return [("pytest", only)]
    return [
        ("core tests", ["tests/core", *_PARALLEL, *_COVERAGE]),
        ("server tests", ["tests/server", "tests/launcher", *_PARALLEL]),
        ("browser tests", ["tests/browser", *_PARALLEL]),
    ]


_STYLE: tuple[tuple[str, list[str], object], ...] = (
    ("ruff", [str(PYTHON), "-m", "ruff", "check", "."], ROOT),
    ("ruff format", [str(PYTHON), "-m", "ruff", "format", "--check", "-q", "."], ROOT),
    ("mypy", [str(PYTHON), "-m", "mypy"], ROOT),
    ("import-linter", [str(PYTHON.parent / "lint-imports")], ROOT),
    ("eslint", ["npm", "run", "-s", "lint"], WEB),
    ("vue-tsc", ["npm", "run", "-s", "check"], WEB),
    ("vitest", ["npm", "run", "-s", "test"], WEB),
)


def _style(env: dict[str, str]) -> list[str]:
    """Run the checks of style two at a time, each with its words together; return the names of those that failed."""
    with ThreadPoolExecutor(max_workers=2) as both:
        done = both.map(lambda check: subprocess.run(check[1], cwd=str(check[2]), env=env, **_HEARD), _STYLE)
        failed = []
        for (name, *_), result in zip(_STYLE, done, strict=True):
            say(f"── {name}: {'FAILED' if result.returncode else 'passed'}")
            if result.returncode:
                say(result.stdout)
                failed.append(name)
    return failed


_HEARD: dict[str, Any] = {"stdout": subprocess.PIPE, "stderr": subprocess.STDOUT, "text": True}


def _passes(name: str, command: Sequence[str], place: object, env: dict[str, str]) -> bool:
    begun = time.monotonic()
    say(f"── {name}")
    passed = subprocess.run(command, cwd=str(place), env=env).returncode == 0
    say(f"── {name}: {'passed' if passed else 'FAILED'} in {time.monotonic() - begun:.0f} s")
    return passed
