"""Turns of the manifold's screw that are still to make, learnt from the last turn."""

from collections.abc import Iterator

from havrin_core.facts.facts import ReadingFact
from havrin_core.phrases import phrase
from havrin_core.quantities.display import sentence
from havrin_core.quantities.why import Input, Why
from havrin_core.rules.context import Context
from havrin_core.workings.model import Working, spread, width_of

_TELLS = 1.5  # a change under so many half-widths of the gauge says nothing of the screw
_DONE_SHARE = 0.01


def screw_workings(context: Context, stage: str, system: str) -> Iterator[Working]:
    """Yield the turns to make at ``stage``: the plate's gap over what one turn did between two readings."""
    target = context.unit.stage(stage).manifold_pa
    moved = _last_turn(context, stage)
    if target is None or moved is None:
        return
    before, turns, after = moved
    width = width_of(context, after, "draft")
    change = after.value - before.value
    inputs = (
        Input(phrase("manifold_before_turn"), before.value, "pressure"),
        Input(phrase("turned_by"), turns, "count"),
        Input(phrase("manifold_now"), after.value, "pressure"),
        Input("plate", target, "pressure"),
    )
    why = Why(phrase("gap_over_change_per_turn"), inputs, phrase("read"), phrase("one_turn_time_read_again"))
    if abs(change) < _TELLS * width or change * turns < 0:
        yield Working(
            "turns_left",
            phrase("turns_still_to_make"),
            0.0,
            "turns",
            why,
            0.0,
            stage,
            "near",
            phrase("turn_did_nothing"),
        )
        return
    left = (target - after.value) / (change / turns)
    half = spread(
        lambda v: (target - v["after"]) / ((v["after"] - v["before"]) / turns),
        {"before": before.value, "after": after.value},
        {"before": width, "after": width},
    )
    said = phrase("one_turn_makes", change=sentence(change / turns, "pressure", system), way=_way(left))
    if abs(target - after.value) <= _DONE_SHARE * target:
        left, said = 0.0, phrase("stands_plate")
    yield Working("turns_left", phrase("turns_still_to_make"), left, "turns", why, half, stage, "", said)


def _way(turns: float) -> str:
    return "in" if turns > 0 else "out"


def _last_turn(context: Context, stage: str) -> tuple[ReadingFact, float, ReadingFact] | None:
    """Return the readings around the newest turn, and how far it went; several turns between two readings count together."""
    turns = [fact for fact in context.facts.ever("screw_turns") if fact.stage == stage]
    reads = [fact for fact in context.facts.ever("manifold_pa") if fact.stage == stage]
    if not turns:
        return None
    after = next((fact for fact in reads if fact.moment.surely_after(turns[-1].moment)), None)
    befores = [fact for fact in reads if turns[-1].moment.surely_after(fact.moment)]
    if after is None or not befores:
        return None
    before = befores[-1]
    together = sum(turn.value for turn in turns if turn.moment.surely_after(before.moment))
    return (before, together, after) if together else None
