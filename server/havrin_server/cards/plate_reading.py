"""What may stand on a plate, read off its picture by Debian's tesseract where that is installed. Proposed, never taken unseen."""

import difflib
import re
import shutil
import subprocess
from collections.abc import Mapping, Sequence

from havrin_server.errors import NotWritable

MOST_S = 25
_SERIAL = re.compile(r"(?:serial(?:\s*n(?:o|r|umber)?)?|s\s*/?\s*n|ser\.?\s*no)\W{0,4}([a-z0-9][a-z0-9 -]{3,24})", re.I)
_YEAR = re.compile(r"(?:year|built|made|mfd|date)\D{0,12}((?:19|20)\d\d)", re.I)
_CLOSE = 0.72  # of a model's name to a line: less is another model


def reads_plates() -> bool:
    """Tell whether pictures can be read on this machine."""
    return shutil.which("tesseract") is not None


def read_lines(picture: bytes) -> list[str]:
    """Return the lines of text on a picture. Raises NotWritable where they cannot be read."""
    if not reads_plates():
        raise NotWritable("Pictures of plates are not read on this machine: type what it says.", code="no_reader")
    try:
        said = subprocess.run(
            ["tesseract", "stdin", "stdout", "--psm", "6"],
            input=picture,
            capture_output=True,
            timeout=MOST_S,
            check=True,
        )
    except (subprocess.SubprocessError, OSError) as error:
        raise NotWritable("This picture could not be read: type what the plate says.", code="not_read") from error
    lines = said.stdout.decode("utf-8", "replace").splitlines()
    return [" ".join(line.split()) for line in lines if len(line.strip()) > 2][:60]


def proposed(lines: Sequence[str], models: Mapping[str, str]) -> dict[str, str]:
    """Return what the lines may say of a unit: ``serial``, ``installed_year``, and the key of its ``model`` among ``models``.

    >>> proposed(["Norvane Hearth 70", "Serial No: N70-03318", "Mfd 2009"], {"n70": "Norvane Hearth 70"})
    {'serial': 'N70-03318', 'installed_year': '2009', 'model': 'n70'}
    """
    text = "\n".join(lines)
    found = {}
    if serial := _SERIAL.search(text):
        found["serial"] = serial[1].strip().upper()
    if year := _YEAR.search(text):
        found["installed_year"] = year[1]
    if model := _model(lines, models):
        found["model"] = model
    return found


def _model(lines: Sequence[str], models: Mapping[str, str]) -> str:
    best, how_close = "", _CLOSE
    for key, name in models.items():
        for line in lines:
            near = difflib.SequenceMatcher(None, name.casefold(), line.casefold()).ratio()
            if name.casefold() in line.casefold():
                near = 1.0 + len(name) / 1000
            if near > how_close:
                best, how_close = key, near
    return best
