"""What Havrin is built on is listed whole."""

import re

from launcher.ground import ROOT


def test_every_package_that_the_server_installs_is_listed():
    listed = (ROOT / "docs" / "licences.md").read_text(encoding="utf-8")
    lock = (ROOT / "requirements" / "serve.lock").read_text(encoding="utf-8")
    missing = [
        f"{name} {version}"
        for name, version in re.findall(r"^([A-Za-z0-9._-]+)==(\S+)", lock, re.MULTILINE)
        if f"| {name} | {version} |" not in listed
    ]
    assert missing == []
