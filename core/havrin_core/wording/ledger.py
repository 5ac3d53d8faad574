"""Words of what is left abnormal, and of what work leaves to be put back."""

from collections.abc import Mapping

from havrin_core.standing.model import LedgerRow
from havrin_core.vocabulary.abnormal import abnormal
from havrin_core.wording.language import text
from havrin_core.wording.names import part_inside, part_words

# way -> put in, made good, said while it is so, how it is made good
_WAYS: Mapping[str, tuple[str, str, str, str]] = {
    "bridged": ("Jumper IN", "Jumper out", "The {device} is jumpered.", "Take it off"),
    "held": ("HELD", "Released", "The {device} is held or taped.", "Release it"),
    "lifted": ("Lead LIFTED", "Lead back on", "A lead is off: {device}.", "Put it back on its terminal"),
    "tee": ("Tee IN", "Tee out", "A tee is in a hose: {device}.", "Take it out, hose back on, dry"),
    "tap": ("Tap OPEN", "Tap plugged", "A tap is open: {device}.", "Plug it and leak-test it"),
    "removed": ("Part OUT", "Part back in", "A part is out: {device}.", "Put it back in"),
    "setting": ("Setting CHANGED", "Setting back", "A setting is changed: {device}.", "Set it back"),
}
_LEAVES: Mapping[str, str] = {
    "cap_or_plug": "Cap or plug back in",
    "burner_seals": "Burner seals and bolts, crosswise",
    "baffles_seals": "Baffles and seals",
    "hose_back": "Hose back on the switch",
    "belt_guard": "Belt guard",
}


def put_in(how: str) -> str:
    """Return how the putting in reads."""
    return text(_WAYS[how][0])


def made_good(how: str) -> str:
    """Return how the making good reads."""
    return text(_WAYS[how][1])


def still_open(how: str, device: str) -> str:
    """Return the sentence that says what is still abnormal."""
    return text(_WAYS[how][2], device=part_inside(device))


def make_good(how: str) -> str:
    """Return how it is made good."""
    return text(_WAYS[how][3])


def put_back_line(how: str, device: str) -> str:
    """Return the line that writes the put-back."""
    return f"{abnormal(how).verb_out} {part_words(device)}"


def to_put_back(leaves: str) -> str:
    """Return what an action left to be put back."""
    return text(_LEAVES[leaves])


def ledger_text(row: LedgerRow) -> str:
    """Return one row of the ledger in a sentence."""
    if row.what in _LEAVES:
        return text("{what}: {part}.", what=to_put_back(row.what), part=part_inside(row.device))
    if row.until is not None:
        return text("{what}: {device}.", what=put_in(row.what), device=part_inside(row.device))
    said = still_open(row.what, row.device)
    return text("{said} Disabled on purpose.", said=said) if row.disabled else said


def ledger_line(row: LedgerRow) -> str:
    """Return the line that makes a row good."""
    return "putback" if row.what in _LEAVES else put_back_line(row.what, row.device)
