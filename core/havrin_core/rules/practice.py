"""Remarks on how the work was done, by the house's school: they change no standing, they say what is not proven."""

from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import Any

from havrin_core.rules.context import Context
from havrin_core.tape.corrections import Line
from havrin_core.tape.entries import Code

_SWITCH_SORTS = "safety"


@dataclass(frozen=True, slots=True)
class Remark:
    """One remark: its code and typed parts."""

    code: str
    facts: dict[str, Any] = field(default_factory=dict)


def remarks_of(context: Context) -> list[Remark]:
    """Return one remark for each habit of the house that this visit left aside."""
    return [*_reset_before_code(context), *_rod(context), *_switches(context), *_cleaned_first(context)]


def _first(context: Context, verbs: tuple[str, ...], parts: tuple[str, ...] = ()) -> Line | None:
    rows = context.facts.actions(*verbs)
    return next((line for line, body in rows if not parts or body.part in parts), None)


def _reset_before_code(context: Context) -> Iterator[Remark]:
    reset = _first(context, ("reset",))
    if context.rules.code_and_reset != "read_first" or reset is None or not context.unit.codes:
        return
    if not any(reset.moment.surely_after(line.moment) for line, _ in context.facts.of(Code)):
        yield Remark("reset_before_code")


def _rod(context: Context) -> Iterator[Remark]:
    has_rod = any(station.quantity == "flame_current_a" for station in context.unit.stations())
    if not has_rod or context.reason != "maintenance":
        return
    cleaned = _first(context, ("clean", "change"), ("flame_rod",))
    if context.rules.flame_rod == "every_maintenance" and cleaned is None:
        yield Remark("rod_not_cleaned")
    read_before = cleaned and any(
        f.quantity == "flame_current_a" and f.at < cleaned.moment.at for f in context.facts.readings
    )
    if cleaned is not None and not read_before:
        yield Remark("rod_not_read_before", {"stage": context.unit.stage_keys[-1]})


def _switches(context: Context) -> Iterator[Remark]:
    changed = _first(context, ("change",), context.devices)
    if changed is None:
        return
    live = any(f.quantity == "volts_across_v" and f.at < changed.moment.at for f in context.facts.readings)
    dead = bool(context.facts.tried("ohms"))
    wanted = {"live_volts": live, "power_off": dead, "both": live and dead}[context.rules.switch_test]
    if not wanted:
        yield Remark("switch_untested", {"test": context.rules.switch_test})


def _cleaned_first(context: Context) -> Iterator[Remark]:
    if context.rules.measure_first != "measure_first":
        return
    works = [line for line, _ in context.facts.actions()]
    if works and not any(fact.phase == "found" and fact.at <= works[0].moment.at for fact in context.facts.readings):
        yield Remark("not_read_first")
