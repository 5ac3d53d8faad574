"""The whole vocabulary as JSON-ready data."""

from dataclasses import asdict
from typing import Any

from havrin_core.vocabulary.abnormal import WAYS
from havrin_core.vocabulary.catalogue import SEEN, conditions, parts, verbs, verdict_of, whole_phrases
from havrin_core.vocabulary.measurands import MEASURANDS
from havrin_core.vocabulary.methods import METHOD_WORDS


def vocabulary_to_dict() -> dict[str, Any]:
    """Return parts with the verdict of each condition, conditions, verbs, phrases, quantities, and ways to be abnormal."""
    return {
        "parts": {key: _part(key) for key in parts()},
        "conditions": {
            key: {"name": row.name, "words": list(row.words), "of": row.of} for key, row in conditions().items()
        },
        "verbs": {
            key: {"name": row.name, "words": list(row.words), "cures": sorted(row.cures)}
            for key, row in verbs().items()
        },
        "phrases": {
            said: {"part": part, "condition": like, "doubtful": doubt}
            for said, (part, like, doubt) in whole_phrases().items()
        },
        "measurands": {m.key: asdict(m) for m in MEASURANDS},
        "abnormal": {way.key: asdict(way) for way in WAYS},
        "methods": dict(METHOD_WORDS),
    }


def _part(key: str) -> dict[str, Any]:
    row = parts()[key]
    verdicts = {like: verdict for like in conditions() if (verdict := verdict_of(key, like)) != SEEN}
    return {
        "name": row.name,
        "words": list(row.words),
        "station": row.station,
        "on": list(row.on),
        "safety": row.safety,
        "verdicts": verdicts,
        "demands": {verb: list(names) for verb, names in row.demands.items()},
    }
