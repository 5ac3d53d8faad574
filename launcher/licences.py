"""docs/licences.md: what Havrin is built on, and under which licence each comes."""

import json
import re
from collections.abc import Iterator
from importlib.metadata import PackageNotFoundError, metadata
from pathlib import Path

from launcher.ground import ROOT

_HEAD = """# Licences of what Havrin is built on

Written by `./havrin schema`; do not edit. Havrin itself: [Apache 2.0](../LICENSE). The fonts are under the SIL Open Font License 1.1.

| package | version | licence |
|---|---|---|
"""
_NAMED = re.compile(r"^([A-Za-z0-9][A-Za-z0-9._-]*)==(\S+)", re.MULTILINE)
_MOST_WORDS = 60


def write() -> None:
    """Write the list from the lock file of the server and the packages of the page, as they are installed."""
    rows = [f"| {name} | {version} | {licence} |" for name, version, licence in sorted((*_python(), *_page()))]
    (ROOT / "docs" / "licences.md").write_text(_HEAD + "\n".join(rows) + "\n", encoding="utf-8")


def _python() -> Iterator[tuple[str, str, str]]:
    for name, version in _NAMED.findall((ROOT / "requirements" / "serve.lock").read_text(encoding="utf-8")):
        try:
            said = metadata(name)
        except PackageNotFoundError:
            yield name, version, "for other platforms; not installed here"
            continue
        classes = [line.rpartition(" :: ")[2] for line in said.get_all("Classifier", []) if "License ::" in line]
        stated = said.get("License-Expression") or ", ".join(classes) or said.get("License") or "see its page"
        yield name, version, " ".join(stated.split())[:_MOST_WORDS]


def _page() -> Iterator[tuple[str, str, str]]:
    package = json.loads((ROOT / "web" / "package.json").read_text(encoding="utf-8"))
    for name in package["dependencies"]:
        file = Path(ROOT / "web" / "node_modules" / name / "package.json")
        if file.exists():
            said = json.loads(file.read_text(encoding="utf-8"))
            yield name, said["version"], str(said.get("license", "see its page"))


if __name__ == "__main__":
    write()
