"""The vocabulary as lines to pick."""

from havrin_core.judgement.actions import DEEDS
from havrin_core.judgement.findings import FINDINGS
from havrin_core.judgement.shorthand.statements import DEVICES
from havrin_core.judgement.shorthand.words import VERBS
from havrin_core.judgement.standing.dangers import device_name
from havrin_server.api.schemas import Vocabulary, WordOut

_OWN_LISTS = ("did", "found", "saw", "jump", "unjump")


def pickable_lines() -> Vocabulary:
    """Return everything that the bar's lists offer."""
    return Vocabulary(
        done=[WordOut(line=f"did {d.words[0]}", text=d.text, station=d.station, level=0) for d in DEEDS],
        found=[WordOut(line=f"found {f.words[0]}", text=f.text, station=f.station, level=f.level) for f in FINDINGS],
        jumpers=[
            WordOut(
                line=f"{verb} {device.replace('_', ' ')}",
                text=f"{label}: {device_name(device)}",
                station=device,
                level=level,
            )
            for device in DEVICES
            for verb, label, level in (
                ("jump", "Jumper in", 3),
                ("unjump", "Jumper out", 0),
                ("proved", "Shown to act", 0),
            )
        ],
        other=[
            WordOut(line=f"{verb} ", text=text, station="", level=0)
            for verb, text in VERBS.items()
            if verb not in _OWN_LISTS
        ],
    )
