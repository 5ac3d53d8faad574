"""What is said back of a line while it is typed."""

from collections.abc import Iterator

from django.utils import timezone

from havrin_core.phrases import Phrase, phrase
from havrin_core.quantities.formats import day_words
from havrin_core.shorthand.model import Line
from havrin_core.shorthand.reader import read_line
from havrin_core.standing.line_alone import dangers_of
from havrin_core.wording.chips import reading_chips
from havrin_core.wording.entries import line_echo
from havrin_core.wording.steps import step_words
from havrin_server.instruments.models import Instrument
from havrin_server.instruments.queries import in_hand
from havrin_server.people.models import Person
from havrin_server.visits.models import Visit
from havrin_server.visits.queries import situation
from havrin_server.visits.schemas.lines import DangerOut, ReadBack, ReadBackIn
from havrin_server.visits.services import local_day, read_with


def read_back_page(visit: Visit, typed: ReadBackIn, person: Person) -> ReadBack:
    """Return what the line means on this visit: each entry, its dangers with their first step, doubts, questions."""
    system = person.unit_system
    there = situation(visit, typed.stage, typed.phase, system)
    line = read_line(typed.text, there)
    with_what = list(_read_with(visit, line, person))
    return ReadBack.of(
        line,
        echo=line_echo(line, there),
        dangers=list(_dangers(visit, line, system)),
        doubts=[*line.doubts, *_calibrations(visit, with_what)],
        chips=reading_chips(line, typed.text),
        read_with=[instrument.name for instrument in with_what],
    )


def _dangers(visit: Visit, line: Line, system: str) -> Iterator[DangerOut]:
    unit = visit.described()
    for danger in dangers_of(unit, visit.rules(), line.bodies, line.phase_of_each):
        yield DangerOut(entry=danger.entry, first=step_words(danger.step, unit, system).title)


def _read_with(visit: Visit, line: Line, person: Person) -> dict[Instrument, None]:
    """Return the instruments in hand that the line was read with, each once, in the line's order."""
    held = in_hand(person, local_day(visit, timezone.now()))
    return dict.fromkeys(one for body in line.bodies if (one := read_with(body, held)) is not None)


def _calibrations(visit: Visit, instruments: list[Instrument]) -> Iterator[Phrase]:
    today = local_day(visit, timezone.now())
    for one in instruments:
        if one.calibrated_until is None:
            yield phrase("instrument_never_calibrated", name=one.name)
        elif not one.in_date(today):
            yield phrase("instrument_out_of_calibration", name=one.name, day=day_words(one.calibrated_until))
