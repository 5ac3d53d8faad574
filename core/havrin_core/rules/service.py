"""Whether the unit is in service: shut down and tagged, cannot be put right now, repaired for the time being; words on the work."""

from collections.abc import Iterator

from havrin_core.limits.model import HOUSE, TECHNICIAN
from havrin_core.rules.context import Context
from havrin_core.rules.model import NOT_YET, SHUT_DOWN, TELL, Lift, Reason
from havrin_core.tape.corrections import Line
from havrin_core.tape.entries import AS_TEMPORARY, MADE_SAFE, NOT_FOUND, UNREADABLE, Action, Said


def service_reasons(context: Context) -> Iterator[Reason]:
    """Yield the reasons of a unit that is out of service or only repaired for the time being, and what the owner must know."""
    yield from _out_of_service(context)
    yield from _temporary(context)
    yield from _advice(context)
    yield from _cause_not_found(context)
    yield from _unreadable(context)


def made_safe_lines(context: Context) -> list[tuple[Line, Said]]:
    """Return the shut-downs after which nobody took the tag off."""
    rows = [(line, body) for line, body in context.facts.said("leaves") if body.state == MADE_SAFE]
    return [row for row in rows if not _untagged_after(context, row[0])]


def _untagged_after(context: Context, line: Line) -> bool:
    return any(back.moment.surely_after(line.moment) for back, _ in context.facts.said("untag"))


def _out_of_service(context: Context) -> Iterator[Reason]:
    """A unit that was shut down and tagged stays so until somebody takes the tag off; so does one that cannot be put right."""
    rows = made_safe_lines(context)
    if rows:
        line, body = rows[-1]
        facts = {"text": body.text, "who": line.entry.author}
        yield Reason(SHUT_DOWN, "shut_down", "", facts, (Lift("untag"),), TECHNICIAN, (line.entry.id,))
    for line, body in context.facts.said("cannot"):
        if not _untagged_after(context, line):
            facts = {"text": body.text}
            yield Reason(SHUT_DOWN, "cannot_put_right", "", facts, (Lift("untag"),), TECHNICIAN, (line.entry.id,))


def temporary_repairs(context: Context) -> list[tuple[Line, Said | Action]]:
    """Return the temporary repairs that no lasting one followed; an action meant as one is lasting once its part is changed."""
    facts = context.facts
    lasting = [line.moment for line, _ in facts.said("lasting")]
    rows: list[tuple[Line, Said | Action]] = [*facts.said("temporary")]
    rows += [(line, body) for line, body in facts.actions() if body.sense == AS_TEMPORARY]
    return [
        row
        for row in rows
        if not any(m.surely_after(row[0].moment) for m in lasting) and not _done_for_good(context, row)
    ]


def _done_for_good(context: Context, row: tuple[Line, Said | Action]) -> bool:
    line, body = row
    if not isinstance(body, Action):
        return False
    later = context.facts.first_after(
        context.facts.real_actions(),
        line.moment,
        lambda b: b.part == body.part and b.sense != AS_TEMPORARY and b.verb in ("change", "repair"),
    )
    return later is not None


def _temporary(context: Context) -> Iterator[Reason]:
    """A repair for the time being is allowed with a date, or not at all."""
    allowed = context.rules.temporary_repair == "allowed_dated"
    for line, body in temporary_repairs(context):
        text = body.text if isinstance(body, Said) else body.detail
        facts = {
            "text": text,
            "until": body.until,
            "action": body if isinstance(body, Action) else None,
            "allowed": allowed,
        }
        level = TELL if allowed and body.until else NOT_YET
        yield Reason(level, "temporary_repair", "", facts, (Lift("lasting"),), HOUSE, (line.entry.id,))


def _advice(context: Context) -> Iterator[Reason]:
    for what in ("advise", "refuse"):
        for line, body in context.facts.own_said(what):
            yield Reason(TELL, what, "", {"text": body.text}, (), TECHNICIAN, (line.entry.id,))


def _cause_not_found(context: Context) -> Iterator[Reason]:
    causes = context.facts.own_said("cause")
    if causes and all(body.state == NOT_FOUND for _, body in causes):
        line, body = causes[-1]
        yield Reason(TELL, "cause_not_found", "", {"text": body.text}, (), HOUSE, (line.entry.id,), "come_back")


def _unreadable(context: Context) -> Iterator[Reason]:
    """What cannot be read may have been a danger: nothing is settled before somebody has set it aside."""
    for line, body in context.facts.said(UNREADABLE):
        facts = {"text": body.text}
        yield Reason(NOT_YET, "unreadable_entry", "", facts, (), HOUSE, (line.entry.id,), "unreadable")
