"""The exchanger for the page."""

from dataclasses import replace

from havrin_core.exchanger.coverage import Coverage, Placed, coverages, part_state, placed
from havrin_core.exchanger.evidence import Evidence, NextLook, evidence_of, evidence_state
from havrin_core.facts.facts import Facts
from havrin_core.machine.exchanger import HEIGHT, SECONDARY, Exchanger, exchanger_of
from havrin_core.quantities.formats import day_words
from havrin_core.vocabulary.catalogue import LEVEL_OF_VERDICT
from havrin_core.vocabulary.methods import FINDS, SURENESS
from havrin_core.wording.choices import finding
from havrin_core.wording.entries import place_said
from havrin_core.wording.exchanger import (
    WEIGHTS_ARE,
    coverage_words,
    evidence_words,
    look_words,
    odds_words,
    prior_words,
    sign_words,
    weight_words,
)
from havrin_core.wording.names import condition_name, part_name
from havrin_server.errors import NotFound
from havrin_server.visits.models import Visit
from havrin_server.visits.queries import open_before, tape_of, unit_of
from havrin_server.visits.schemas.exchanger import (
    CoverageOut,
    EvidenceOut,
    ExchangerOut,
    ExchangerPartOut,
    FindingChoice,
    NextLookOut,
    PlacedOut,
    SignOut,
)

# what is placed on the drawing by touch, most met first
_PLACEABLE = (
    "cracked",
    "holed",
    "rusted_through",
    "thin",
    "warped",
    "scorched",
    "sooted",
    "rusted",
    "rusted_soft",
    "plugged",
)
_OF_THE_COIL = ("dirty", "leaking")
_SIZES = ["", "2 mm", "5 mm", "10 mm", "20 mm", "50 mm"]


def exchanger_page(visit: Visit) -> ExchangerOut:
    """Return the exchanger of the visit's unit. Raises NotFound for a unit without one."""
    tape, before = tape_of(visit), open_before(visit).entries
    unit, facts = unit_of(visit, tape), Facts(tape, before)
    drawn = exchanger_of(unit)
    if drawn is None:
        raise NotFound("This unit has no heat exchanger: it fires into the air that it heats.")
    days = {entry.id: f"since {day_words(entry.at)}" for entry in before}
    rows, seen, whole = placed(facts, drawn), coverages(facts, len(drawn.primary)), len(drawn.primary)
    return ExchangerOut.of(
        drawn,
        height=HEIGHT,
        parts=[ExchangerPartOut.of(p, state=part_state(p.key, drawn, rows, seen)) for p in drawn.parts],
        placed=[_placed(row, days.get(row.entry_id, "")) for row in rows],
        coverage=[_coverage(row) for row in seen],
        evidence=_evidence(evidence_of(unit, facts)),
        findings=_choices(drawn),
        methods=list(FINDS),
        surenesses=list(SURENESS),
        sizes=_SIZES,
        whole=f"exchanger ok {whole}/{whole} by ",
    )


def _choices(drawn: Exchanger) -> list[FindingChoice]:
    has_coil = any(part.key == SECONDARY for part in drawn.parts)
    rows = [finding("exchanger", like) for like in _PLACEABLE]
    rows += [finding("secondary_coil", like) for like in _OF_THE_COIL] if has_coil else []
    return [FindingChoice.of(row, starter=row.line, name=row.text) for row in rows]


def _placed(row: Placed, since: str) -> PlacedOut:
    look = row.look
    return PlacedOut.of(
        row,
        text=f"{part_name(look.part)}: {condition_name(look.condition)}",
        place=look.place,
        detail=", ".join(filter(None, (place_said(replace(look, place="", seen=None)), since))),
        level=LEVEL_OF_VERDICT[row.verdict],
    )


def _coverage(row: Coverage) -> CoverageOut:
    return CoverageOut(says=coverage_words(row), finds_pct=round(100 * row.finds, 0))


def _evidence(found: Evidence) -> EvidenceOut:
    return EvidenceOut(
        says=evidence_words(found),
        prior=prior_words(found),
        signs=[SignOut(text=sign_words(s), weight=weight_words(s), against=s.ratio < 1) for s in found.signs],
        looks=[_look(look) for look in found.next_looks],
        state=evidence_state(found),
        source=WEIGHTS_ARE,
    )


def _look(look: NextLook) -> NextLookOut:
    odds = {"if_found": odds_words(look.if_found), "if_not": odds_words(look.if_not)}
    return NextLookOut.of(look, text=look_words(look), **odds)
