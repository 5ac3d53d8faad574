"""The exchanger for the page."""

from dataclasses import replace

from havrin_core.exchanger.coverage import Coverage, Placed, coverages, placed
from havrin_core.exchanger.evidence import Evidence, evidence_of, is_suspected
from havrin_core.facts.facts import Facts
from havrin_core.machine.exchanger import HEIGHT, SECONDARY, Exchanger, Part, exchanger_of
from havrin_core.vocabulary.catalogue import BAD, DANGER, WORN, conditions, verdict_of
from havrin_core.vocabulary.methods import FINDS, SURENESS
from havrin_core.wording.entries import place_said
from havrin_core.wording.exchanger import look_words, prior_words, sign_words
from havrin_core.wording.names import condition_name, part_name, part_words
from havrin_server.api.schemas_exchanger import (
    CoverageOut,
    EvidenceOut,
    ExchangerOut,
    ExchangerPartOut,
    FindingChoice,
    NextLookOut,
    PlacedOut,
    SignOut,
    ZoneOut,
)
from havrin_server.errors import NotFound
from havrin_server.journal.models import Visit
from havrin_server.journal.queries import open_before, tape_of, unit_of

_SOURCE = "Weights are Havrin's judgement, for guidance. No crack seen is no proof; a seen one needs no odds."
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
_WEIGHTS = {WORN: 2, BAD: 3, DANGER: 4}
_SIZES = ("", "2 mm", "5 mm", "10 mm", "20 mm", "50 mm")


def exchanger_page(visit: Visit) -> ExchangerOut:
    """Return the exchanger of the visit's unit. Raises NotFound for a unit without one."""
    tape = tape_of(visit)
    before = open_before(visit).entries
    unit, facts = unit_of(visit, tape), Facts(tape, before)
    days = {entry.id: f"since {entry.at:%d %B %Y}" for entry in before}
    drawn = exchanger_of(unit)
    if drawn is None:
        raise NotFound("This unit has no heat exchanger: it fires into the air that it heats.")
    rows, seen = placed(facts, drawn), coverages(facts, len(drawn.primary))
    return ExchangerOut(
        form=drawn.form,
        name=drawn.name,
        width=drawn.width,
        height=HEIGHT,
        parts=[_part(drawn, part, rows, seen) for part in drawn.parts],
        placed=[_placed(row, days.get(row.entry_id, "")) for row in rows],
        coverage=[_coverage(row) for row in seen],
        evidence=_evidence(evidence_of(unit, facts)),
        findings=_choices(drawn),
        methods=list(FINDS),
        surenesses=list(SURENESS),
        sizes=list(_SIZES),
        whole=f"exchanger ok {len(drawn.primary)}/{len(drawn.primary)} by ",
    )


def _choices(drawn: Exchanger) -> list[FindingChoice]:
    has_coil = any(part.key == SECONDARY for part in drawn.parts)
    rows = [("exchanger", like) for like in _PLACEABLE] + (
        [("secondary_coil", "dirty"), ("secondary_coil", "leaking")] if has_coil else []
    )
    return [
        FindingChoice(
            starter=f"found {part_words(part)} {conditions()[like].words[0]}",
            name=f"{part_name(part)}: {condition_name(like)}",
            level=_WEIGHTS.get(verdict_of(part, like), 0),
        )
        for part, like in rows
    ]


def _part(drawn: Exchanger, part: Part, rows: list[Placed], seen: list[Coverage]) -> ExchangerPartOut:
    worst = max((_WEIGHTS.get(row.verdict, 0) for row in rows if row.part == part.key), default=0)
    whole = any(row.seen >= row.of for row in seen) and part in drawn.primary
    state = "out" if worst >= 3 else "near" if worst else "in" if whole else "none"
    zones = [ZoneOut(key=z.key, x=z.x, y=z.y) for z in part.zones]
    return ExchangerPartOut(
        key=part.key, outline=[list(point) for point in part.outline], closed=part.closed, zones=zones, state=state
    )


def _placed(row: Placed, since: str) -> PlacedOut:
    look = row.look
    detail = ", ".join(filter(None, (place_said(replace(look, place="", seen=None)), since)))
    text = f"{part_name(look.part)}: {condition_name(look.condition)}"
    return PlacedOut(
        entry_id=row.entry_id,
        text=text,
        place=look.place,
        detail=detail,
        x=row.x,
        y=row.y,
        level=_WEIGHTS.get(row.verdict, 0),
    )


def _coverage(row: Coverage) -> CoverageOut:
    says = f"{row.seen} of {row.of} parts seen by {row.method}"
    return CoverageOut(says=says, finds_pct=round(100 * row.finds, 0))


def odds_words(probability: float) -> str:
    """Return a probability as people say odds."""
    if probability >= 0.995:
        return "practically certain"
    if probability >= 0.5:
        return f"{100 * probability:.0f} %"
    return f"1 in {1 / probability:.0f}" if probability > 0 else "none"


def _evidence(found: Evidence) -> EvidenceOut:
    says = (
        "A breach was seen: it does not run again."
        if found.breached
        else f"Odds of a breach: {odds_words(found.probability)}"
    )
    signs = [SignOut(text=sign_words(s), weight=_weight(s.ratio), against=s.ratio < 1) for s in found.signs]
    looks = [
        NextLookOut(
            text=look_words(n),
            minutes=n.minutes,
            starter=n.starter,
            if_found=odds_words(n.if_found),
            if_not=odds_words(n.if_not),
        )
        for n in found.next_looks
    ]
    state = "out" if found.breached else "near" if is_suspected(found) else "in"
    return EvidenceOut(says=says, prior=prior_words(found), signs=signs, looks=looks, state=state, source=_SOURCE)


def _weight(ratio: float) -> str:
    return "decides" if ratio == float("inf") else f"× {ratio:.3g}" if ratio >= 1 else f"÷ {1 / ratio:.3g}"
