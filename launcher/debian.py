"""Debian packages: what is missing is installed where that is allowed, else the command is named."""

import os
import shutil
import subprocess

from launcher.ground import Refusal, run, say

SERVE = ("postgresql", "libpango-1.0-0", "libpangoft2-1.0-0", "libharfbuzz-subset0", "fontconfig", "fonts-dejavu-core")
TEST = ("chromium-headless-shell", "poppler-utils", "libfaketime")


def ensure(packages: tuple[str, ...]) -> None:
    """Install those of ``packages`` that are missing. Raises Refusal naming the command where it may not."""
    wanted = [*packages, *([] if _has_ensurepip() else ["python3-venv"])]
    missing = [name for name in wanted if not _installed(name)]
    if not missing:
        return
    command = f"apt-get update && apt-get install -y --no-install-recommends {' '.join(missing)}"
    if shutil.which("apt-get") is None:
        raise Refusal(f"This is no Debian: install what these packages hold, then start again: {' '.join(missing)}")
    prefix = _rights()
    if prefix is None:
        raise Refusal(f"Missing Debian packages. Run this, then start again:\n  sudo sh -c '{command}'")
    say(f"Installing from Debian: {' '.join(missing)}")
    env = {**os.environ, "DEBIAN_FRONTEND": "noninteractive"}
    run([*prefix, "apt-get", "update", "-qq"], "apt-get update", env=env)
    run([*prefix, "apt-get", "install", "-y", "-qq", "--no-install-recommends", *missing], "apt-get install", env=env)


def need_node() -> None:
    """Raise Refusal unless Node 20 or newer with npm is here."""
    if shutil.which("node") is None or shutil.which("npm") is None:
        raise Refusal("Node.js 20 or newer with npm is needed to build the page; none was found on the path.")
    version = subprocess.run(["node", "--version"], capture_output=True, text=True).stdout.strip()
    if int(version.lstrip("v").split(".")[0]) < 20:
        raise Refusal(f"Node.js 20 or newer is needed; this is {version}.")


def _installed(package: str) -> bool:
    done = subprocess.run(["dpkg-query", "-W", "-f=${Status}", package], capture_output=True, text=True)
    return done.stdout.endswith("ok installed")


def _has_ensurepip() -> bool:
    try:
        import ensurepip  # noqa: F401  Debian ships it in a package of its own
    except ImportError:
        return False
    return True


def _rights() -> list[str] | None:
    if os.geteuid() == 0:
        return []
    if shutil.which("sudo") and subprocess.run(["sudo", "-n", "true"], capture_output=True).returncode == 0:
        return ["sudo", "-n"]
    return None
