"""What is said of a trace: how sure a step is, and what the dips of a channel say: how many, while what ran, when it is gone."""

from math import ceil

from havrin_core.phrases import Phrase, phrase
from havrin_core.quantities.formats import number
from havrin_core.traces.dips import DipsRead, bursts, cycles_for, quiet_run_s
from havrin_core.traces.steps import Step
from havrin_core.wording.phrases import words

_RAN = {
    "inducer": phrase("while_the_inducer_ran"),
    "burner": phrase("while_the_burner_ran"),
    "marks": phrase("while_it_ran_by_the_marks"),
    "itself": phrase("while_it_was_there"),
    "always": phrase("recorded"),
}


CLEAR = 0.95  # a step that is less sure than this is within its noise
_SUREST = 0.99  # more than this no trace of minutes can bear out


def sureness(step: Step) -> str:
    """Return how sure a step is, in words."""
    if step.confidence < CLEAR:
        return words(phrase("within_its_noise"))
    return words(phrase("surest") if step.confidence > _SUREST else phrase("so_sure", percent=100 * step.confidence))


def said_of_dips(found: DipsRead, point: str) -> tuple[str, ...]:
    """Return what ``found`` says, the most important first; ``point`` is the set point in words."""
    said = [_counted(found, point), *_reversed(found), *_quiet(found), *_unsure(found)]
    return tuple(words(one) for one in said)


def lasting(seconds: float) -> str:
    """Return a time in minutes and seconds, that is never nothing and never rounded down.

    >>> lasting(0.2), lasting(75), lasting(8000)
    ('1 s', '1 min 15 s', '2 h 14 min')
    """
    whole = max(ceil(seconds), 1)
    if whole < 60:
        return f"{whole} s"
    if whole < 7200:
        return f"{whole // 60} min {whole % 60} s" if whole % 60 else f"{whole // 60} min"
    minutes = ceil(seconds / 60)
    return f"{number(minutes // 60, '.0f')} h {minutes % 60} min"


def _counted(found: DipsRead, point: str) -> Phrase:
    count, watched = len(found.dips), lasting(found.watched_s) if found.watched_s > 0 else "0 s"
    if not count:
        return phrase("no_dip", point=point, watched=watched, ran=_RAN[found.basis])
    comings = bursts(found.dips)
    together = phrase("in_bursts", comings=comings) if comings < count else ""
    dips = phrase("one_dip") if count == 1 else phrase("so_many_dips", count=count)
    return phrase("dips_counted", dips=dips, point=point, watched=watched, ran=_RAN[found.basis], together=together)


def _reversed(found: DipsRead) -> list[Phrase]:
    count = sum(dip.reversed for dip in found.dips)
    return [phrase("dips_reversed", count=count)] if count else []


def _quiet(found: DipsRead) -> list[Phrase]:
    quiet = quiet_run_s(bursts(found.dips), found.watched_s)
    if quiet is None:
        return []
    cycles = cycles_for(quiet, found)
    over = phrase("one_cycle") if cycles == 1 else phrase("so_many_cycles", cycles=cycles)
    return [phrase("gone_only_after", quiet=lasting(quiet), cycles=over)]


def _unsure(found: DipsRead) -> list[Phrase]:
    said = []
    if found.basis == "itself":
        stops = phrase("taken_as_stopped", stops=len(found.stops)) if found.stops else ""
        said.append(phrase("nothing_tells_when_it_ran", stops=stops))
    if found.basis == "marks":
        said.append(phrase("by_marks_to_seconds"))
    if not found.runs:
        said.append(phrase("never_ran"))
    return said
