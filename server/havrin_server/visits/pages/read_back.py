"""What is said back of a line while it is typed."""

from collections.abc import Iterator

from havrin_core.shorthand.model import Line
from havrin_core.shorthand.reader import read_line
from havrin_core.standing.line_alone import dangers_of
from havrin_core.wording.chips import reading_chips
from havrin_core.wording.entries import line_echo
from havrin_core.wording.steps import step_words
from havrin_server.visits.models import Visit
from havrin_server.visits.queries import situation
from havrin_server.visits.schemas.lines import DangerOut, ReadBack, ReadBackIn


def read_back_page(visit: Visit, typed: ReadBackIn, system: str) -> ReadBack:
    """Return what the line means on this visit: each entry, its dangers with their first step, doubts, questions."""
    there = situation(visit, typed.stage, typed.phase, system)
    line = read_line(typed.text, there)
    return ReadBack.of(
        line,
        echo=line_echo(line, there),
        dangers=list(_dangers(visit, line, system)),
        chips=reading_chips(line, typed.text),
    )


def _dangers(visit: Visit, line: Line, system: str) -> Iterator[DangerOut]:
    unit = visit.described()
    for danger in dangers_of(unit, visit.rules(), line.bodies, line.phase_of_each):
        yield DangerOut(entry=danger.entry, first=step_words(danger.step, unit, system).title)
