"""Names: of parts, conditions, quantities, stages, devices, levels, ways of leaving, visit reasons, sources of a limit."""

from collections.abc import Mapping

from havrin_core.limits.model import DEFAULT, HOUSE, MANUAL, PHYSICS, PLATE, TECHNICIAN
from havrin_core.machine.unit import STAGE_LABELS
from havrin_core.rules.model import LEAVE, NOT_YET, SHUT_DOWN, TELL
from havrin_core.tape.entries import MADE_SAFE, NOT_TOUCHED, RUNNING, WAITING
from havrin_core.vocabulary.catalogue import condition, part, parts, verb
from havrin_core.vocabulary.measurands import measurand
from havrin_core.wording.language import lower_first, text

TITLES: Mapping[int, str] = {
    LEAVE: "Leave running",
    TELL: "Leave running, owner told",
    NOT_YET: "Do not leave running yet",
    SHUT_DOWN: "Shut down and tag",
}
NOT_SHOWN_TITLE = "Not shown yet"
VISIT_REASONS: Mapping[str, str] = {
    "no_heat": "No heat",
    "maintenance": "Maintenance",
    "start_up": "Start-up",
    "after_repair": "After a repair",
    "return_parts": "Return with parts",
    "recheck": "Re-check",
}
WAYS: Mapping[str, str] = {
    RUNNING: "Running",
    MADE_SAFE: "Off, made safe",
    WAITING: "Off, waiting",
    NOT_TOUCHED: "Not touched",
}
_SOURCES: Mapping[str, str] = {
    PLATE: "data plate",
    MANUAL: "manual",
    HOUSE: "house rule",
    DEFAULT: "Havrin's default, for guidance",
    PHYSICS: "no unit may do that",
    TECHNICIAN: "the technician",
    "readings": "readings laid side by side",
}


def title(level: int, *, settled: bool = True) -> str:
    """Return how a standing is called."""
    return text(TITLES[level] if settled else NOT_SHOWN_TITLE)


def visit_reason(key: str) -> str:
    """Return how the reason of a visit is called."""
    return text(VISIT_REASONS[key])


def way_left(key: str) -> str:
    """Return how a way of leaving a unit is called."""
    return text(WAYS[key])


def source(key: str) -> str:
    """Return whose limit it is; a person stands for himself."""
    return text(_SOURCES[key]) if key in _SOURCES else key


def part_name(key: str) -> str:
    """Return a part's name; what is no part of the vocabulary is said as it was typed."""
    return text(part(key).name) if key in parts() else key.replace("_", " ")


def part_inside(key: str) -> str:
    """Return a part's name as it stands inside a sentence."""
    return lower_first(part_name(key))


def condition_name(key: str) -> str:
    """Return what a condition is called."""
    return text(condition(key).name)


def verb_name(key: str) -> str:
    """Return what was done, as a heading."""
    return text(verb(key).name)


def quantity_name(key: str, stage: str | None = None) -> str:
    """Return how a quantity is called, with its stage where the unit has more than one."""
    name = text(measurand(key).name)
    label = STAGE_LABELS[stage] if stage else ""
    return text("{name}, {stage} fire", name=name, stage=text(label)) if label else name


def part_words(key: str) -> str:
    """Return the words by which the bar knows a part."""
    return key.replace("_", " ")
