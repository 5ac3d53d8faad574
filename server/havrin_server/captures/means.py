"""Means of a stretch as entries of a tape: a flue sample is one thing, everything else stands alone, volts with their nodes."""

from collections.abc import Iterable

from havrin_core.tape.entries import Body, Reading, Trace
from havrin_core.traces.steady import NOISE
from havrin_core.vocabulary.channels import VOLTS, leads_of

Mean = tuple[str, float, float]  # channel, mean, scatter


def bodies_of_means(source: str, stage: str | None, lasts_s: float, means: Iterable[Mean]) -> list[Body]:
    """Return what goes on the tape of the means of ``source`` (a log or a capture), canonical units."""
    rows = list(means)
    bodies: list[Body] = [_volts(name, mean) for name, mean, _ in rows if leads_of(name)]
    plain = [row for row in rows if not leads_of(row[0])]
    flue = tuple(row for row in plain if row[0] in NOISE)
    groups = [flue, *((row,) for row in plain if row not in flue)]
    return bodies + [Trace(source, stage, lasts_s, group) for group in groups if group]


def _volts(channel: str, mean: float) -> Reading:
    return Reading(VOLTS, mean, round(mean, 2), "V", leads=leads_of(channel))
