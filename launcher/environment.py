"""The virtual environment and the built page, each redone only when its sources changed."""

import os
import sys

from launcher.ground import PYTHON, ROOT, STATE, VENV, Refusal, fingerprint, is_done, mark_done, run, say

WEB = ROOT / "web"
LOCKS = ROOT / "requirements"


def ensure_python(lock: str) -> None:
    """Make the virtual environment hold what ``requirements/<lock>.lock`` names."""
    if sys.version_info < (3, 11):
        raise Refusal(f"Python 3.11 or newer is needed; this is {sys.version.split()[0]}.")
    stamp = fingerprint([LOCKS / f"{lock}.lock", LOCKS / "installer.lock"]) + sys.version
    if PYTHON.exists() and (is_done(f"python-{lock}", stamp) or _check_covers(lock)):
        return
    say("Setting up Python packages …")
    STATE.mkdir(parents=True, exist_ok=True)
    if not (VENV / "bin" / "uv").exists():
        run([sys.executable, "-m", "venv", "--clear", VENV], "Making the virtual environment")
        run(
            [PYTHON, "-m", "pip", "install", "-q", "--require-hashes", "-r", LOCKS / "installer.lock"],
            "Installing the installer",
        )
    run(
        [
            VENV / "bin" / "uv",
            "pip",
            "install",
            "-q",
            "--python",
            PYTHON,
            "--require-hashes",
            "-r",
            LOCKS / f"{lock}.lock",
        ],
        "Installing Python packages",
    )
    mark_done(f"python-{lock}", stamp)


def _check_covers(lock: str) -> bool:
    # What the tests install holds all that serving needs.
    stamp = fingerprint([LOCKS / "check.lock", LOCKS / "installer.lock"]) + sys.version
    return lock == "serve" and is_done("python-check", stamp)


def ensure_node_modules() -> None:
    """Install the page's packages from its lock file."""
    stamp = fingerprint([WEB / "package-lock.json", WEB / "package.json"])
    if is_done("node", stamp) and (WEB / "node_modules").is_dir():
        return
    say("Setting up the page's packages …")
    run(["npm", "ci", "--no-audit", "--no-fund"], "npm ci", cwd=WEB)
    mark_done("node", stamp)


def ensure_page() -> None:
    """Build the page when its sources changed since the last build."""
    ensure_types()
    sources = [WEB / name for name in ("src", "index.html", "vite.config.ts", "package-lock.json")]
    stamp = fingerprint(sources)
    if is_done("page", stamp) and (WEB / "dist" / "index.html").is_file():
        return
    ensure_node_modules()
    say("Building the page …")
    run(["npm", "run", "build"], "Building the page", cwd=WEB)
    mark_done("page", stamp)


def ensure_types() -> None:
    """Write the page's types of the server's calls from docs/openapi.json: they are not kept beside what they say again."""
    source, types = ROOT / "docs" / "openapi.json", WEB / "src" / "api" / "schema.ts"
    stamp = fingerprint([source])
    if is_done("types", stamp) and types.is_file():
        return
    ensure_node_modules()
    run(["npm", "run", "-s", "types"], "Writing the page's types", cwd=WEB)
    mark_done("types", stamp)


def python_env(**extra: str) -> dict[str, str]:
    """Return the environment in which the project's own Python runs."""
    paths = os.pathsep.join(str(ROOT / part) for part in ("core", "server", "."))
    # matrices here are small: threads that wait for one another would only take the machine from its other work
    return {
        "OPENBLAS_NUM_THREADS": "1",
        **os.environ,
        **_bytecode(),
        "PYTHONPATH": paths,
        "DJANGO_SETTINGS_MODULE": "havrin_server.settings",
        **extra,
    }


def _bytecode() -> dict[str, str]:
    """Keep what Python compiles in a folder of its own where the machine wants none beside sources: a start takes half as long."""
    if not os.environ.get("PYTHONDONTWRITEBYTECODE"):
        return {}
    return {"PYTHONDONTWRITEBYTECODE": "", "PYTHONPYCACHEPREFIX": str(STATE / "bytecode")}
