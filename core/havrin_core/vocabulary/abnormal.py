"""Everything that may be left abnormal on a unit, from its entry to its put-back: the ledger's kinds."""

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Abnormal:
    """One kind. ``open_text`` says it in a sentence with the device's name; ``lifts`` how it is made good.

    ``bypasses``: the device no longer protects. ``demands``: proofs needed once it is made good.
    """

    key: str
    verb_in: str
    verb_out: str
    said_in: str
    said_out: str
    open_text: str
    lifts: str
    found_words: tuple[str, ...]
    bypasses: bool = False
    known_devices_only: bool = False
    demands: tuple[str, ...] = ()


KINDS: tuple[Abnormal, ...] = (
    Abnormal(
        "jumper", "jump", "unjump", "Jumper IN", "Jumper out", "The {device} is jumpered.", "Take it off",
        ("jumper", "jumpered", "bypass"), bypasses=True, known_devices_only=True,
    ),
    Abnormal(
        "held", "hold", "release", "HELD", "Released", "The {device} is held or taped.", "Release it",
        ("taped", "held"), bypasses=True,
    ),
    Abnormal(
        "lead", "lift", "land", "Lead LIFTED", "Lead back on", "A lead is off: {device}.", "Put it back on its terminal",
        ("lifted", "lead off", "wire off"),
    ),
    Abnormal(
        "tee", "tee", "untee", "Tee IN", "Tee out", "A tee is in a hose: {device}.", "Take it out, hose back on, dry",
        ("tee",),
    ),
    Abnormal(
        "tap", "tap", "plug", "Tap OPEN", "Tap plugged", "A tap is open: {device}.", "Plug it and leak-test it",
        ("open tap", "tap open"), demands=("leak_check",),
    ),
    Abnormal(
        "part", "pull", "refit", "Part OUT", "Part back in", "A part is out: {device}.", "Put it back in",
        ("part out", "missing part"),
    ),
    Abnormal(
        "setting", "alter", "restore", "Setting CHANGED", "Setting back", "A setting is changed: {device}.", "Set it back (or “restore …” once it stays by intent)",
        ("altered setting",),
    ),
)  # fmt: skip

_BY_KEY = {kind.key: kind for kind in KINDS}
IN_VERBS = {kind.verb_in: kind for kind in KINDS}
OUT_VERBS = {kind.verb_out: kind for kind in KINDS}


def abnormal(key: str) -> Abnormal:
    """Return the kind called ``key``; KeyError for an unknown one."""
    return _BY_KEY[key]


def device_name(device: str) -> str:
    """Return ``device`` as it is said in a sentence."""
    names = {"call": "call at the board", "pressure_switch": "pressure switch", "flame_sensor": "flame sensor"}
    return names.get(device, device.replace("_", " "))


def restored_line(how: str, device: str) -> str:
    """Return the line that writes the put-back."""
    return f"{abnormal(how).verb_out} {device_name(device)}"


def still_open(how: str, device: str) -> str:
    """Return the sentence that says what is still abnormal."""
    return abnormal(how).open_text.format(device=device_name(device))
