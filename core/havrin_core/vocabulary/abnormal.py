"""Everything that may be left abnormal on a unit: how it is put in and made good again. Sentences: wording/ledger.py."""

from collections.abc import Mapping
from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Abnormal:
    """One way. ``bypasses``: the device no longer protects. ``demands``: proofs needed once it is made good.

    ``found_words`` say that it was found so; ``known_devices_only``: the device must be one of the vocabulary.
    """

    key: str
    verb_in: str
    verb_out: str
    found_words: tuple[str, ...]
    bypasses: bool = False
    known_devices_only: bool = False
    demands: tuple[str, ...] = ()


WAYS: tuple[Abnormal, ...] = (
    Abnormal(
        "bridged",
        "jump",
        "unjump",
        ("jumper", "jumpered", "bypass", "jumper on", "jumper across", "jumper at", "bridged", "bypassed"),
        bypasses=True,
        known_devices_only=True,
    ),
    Abnormal("held", "hold", "release", ("taped", "held", "held in", "taped shut", "propped open"), bypasses=True),
    Abnormal("lifted", "lift", "land", ("lifted", "lead off", "wire off", "lead lifted")),
    Abnormal("tee", "tee", "untee", ("tee",)),
    Abnormal("tap", "tap", "plug", ("open tap", "tap open"), demands=("leak_check",)),
    Abnormal("removed", "pull", "refit", ("part out", "missing part")),
    Abnormal("setting", "alter", "restore", ("altered setting",)),
)

_BY_KEY: Mapping[str, Abnormal] = {way.key: way for way in WAYS}
IN_VERBS: Mapping[str, Abnormal] = {way.verb_in: way for way in WAYS}
OUT_VERBS: Mapping[str, Abnormal] = {way.verb_out: way for way in WAYS}


def abnormal(key: str) -> Abnormal:
    """Return the way called ``key``; KeyError for an unknown one."""
    return _BY_KEY[key]
