"""The vocabulary as lines to pick."""

from havrin_core.shorthand.statements import DEVICES
from havrin_core.shorthand.words import VERBS
from havrin_core.vocabulary.abnormal import IN_VERBS, KINDS, OUT_VERBS, device_name
from havrin_core.vocabulary.actions import DEEDS
from havrin_core.vocabulary.findings import FINDINGS
from havrin_server.api.schemas import Vocabulary, WordOut

_OWN_LISTS = ("did", "found", "saw", *IN_VERBS, *OUT_VERBS)


def pickable_lines() -> Vocabulary:
    """Return everything that the bar's lists offer."""
    return Vocabulary(
        done=[WordOut(line=f"did {d.words[0]}", text=d.text, station=d.station, level=0) for d in DEEDS],
        found=[WordOut(line=f"found {f.words[0]}", text=f.text, station=f.station, level=f.level) for f in FINDINGS],
        jumpers=[*_devices(), *_places()],
        other=[
            WordOut(line=f"{verb} ", text=text, station="", level=0)
            for verb, text in VERBS.items()
            if verb not in _OWN_LISTS
        ],
    )


def _devices() -> list[WordOut]:
    """Return what can be put in, taken out and proved at the known devices."""
    rows = [
        (device, verb, said, level)
        for device in DEVICES
        for kind in KINDS if kind.known_devices_only
        for verb, said, level in ((kind.verb_in, kind.said_in, 3), (kind.verb_out, kind.said_out, 0))
    ] + [(device, "proved", "Shown to act", 0) for device in DEVICES]  # fmt: skip
    return [
        WordOut(line=f"{verb} {device.replace('_', ' ')}", text=f"{said}: {device_name(device)}", station=device, level=level)
        for device, verb, said, level in rows
    ]  # fmt: skip


def _places() -> list[WordOut]:
    """Return what is followed by a place in the technician's own words."""
    return [
        WordOut(line=f"{verb} ", text=f"{said}: where?", station="", level=level)
        for kind in KINDS if not kind.known_devices_only
        for verb, said, level in ((kind.verb_in, kind.said_in, 3), (kind.verb_out, kind.said_out, 0))
    ]  # fmt: skip
