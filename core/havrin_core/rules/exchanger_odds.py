"""A breach that nobody saw but that is likely: the house rule says whether the unit may run on."""

from collections.abc import Iterator

from havrin_core.exchanger.evidence import Evidence, evidence_of, is_suspected, only_one_weak
from havrin_core.limits.model import HOUSE
from havrin_core.rules.context import Context
from havrin_core.rules.demands import seen_whole
from havrin_core.rules.model import NOT_YET, TELL, Lift, Reason
from havrin_core.vocabulary.methods import CLOSE


def exchanger_reasons(context: Context) -> Iterator[Reason]:
    """Yield the reason of a suspected exchanger."""
    if not context.has_exchanger:
        return
    evidence = evidence_of(context.unit, context.facts)
    if not is_suspected(evidence) or _seen_close(context, evidence):
        return
    noticed = context.rules.exchanger_suspected == "notice_and_date" and only_one_weak(evidence)
    strongest = max(evidence.signs, key=lambda sign: sign.ratio)
    facts = {"probability": evidence.probability, "sign": strongest, "next": evidence.next_looks[:1]}
    level = TELL if noticed else NOT_YET
    ids = (strongest.entry_id,) if strongest.entry_id else ()
    yield Reason(
        level,
        "exchanger_suspected",
        "exchanger",
        facts,
        (Lift("close_look", "exchanger"),),
        HOUSE,
        ids,
        "exchanger_suspected",
    )


def _seen_close(context: Context, evidence: Evidence) -> bool:
    """Every part was seen by a way that clears a crack, after the newest sign that speaks for one."""
    moments = {line.entry.id: line.known for line in context.facts.lines}
    speaking = [moments[sign.entry_id] for sign in evidence.signs if sign.ratio > 1 and sign.entry_id in moments]
    if not speaking:
        return False
    newest = max(speaking, key=lambda moment: (moment.at, moment.order))
    return seen_whole(context, newest, CLOSE) is not None
