"""Remarks on how the work was done, by the house's school: they change no standing, they say what is not proven."""

from collections.abc import Iterator

from havrin_core.rules.proofs import Case
from havrin_core.tape.entries import Action, Code, Entry, Reading

_SWITCHES = ("change_pressure_switch", "change_limit")


def remarks_of(case: Case) -> list[str]:
    """Return one sentence for each habit of the house that this visit left aside."""
    return [*_reset_before_code(case), *_rod(case), *_switches(case), *_cleaned_first(case)]


def _entries(case: Case, kind: type) -> list[Entry]:
    return [entry for entry in case.facts.entries if isinstance(entry.body, kind)]


def _deed(case: Case, *keys: str) -> Entry | None:
    return next((entry for entry, body in case.facts.deeds() if body.action in keys), None)


def _reset_before_code(case: Case) -> Iterator[str]:
    reset = _deed(case, "manual_reset")
    codes = _entries(case, Code)
    if (
        case.rules.code_and_reset == "read_first"
        and reset
        and case.unit.codes
        and not any(e.at <= reset.at for e in codes)
    ):
        yield "It was reset before a code was read: what the board knew may be gone."


def _rod(case: Case) -> Iterator[str]:
    has_rod = any(station.quantity == "flame_current_a" for station in case.unit.stations())
    if not has_rod or case.reason != "maintenance":
        return
    cleaned = _deed(case, "clean_flame_rod", "change_flame_rod")
    if case.rules.flame_rod == "every_maintenance" and cleaned is None:
        yield "The house cleans the flame rod at every maintenance: it was not cleaned on this visit."
    top = case.unit.stage_keys[-1]
    if cleaned is not None and not any(
        f.quantity == "flame_current_a" and f.at < cleaned.at for f in case.facts.readings
    ):
        yield f"The flame signal was not read before the rod was cleaned ({top} fire or any): what the cleaning brought is not known."


def _switches(case: Case) -> Iterator[str]:
    changed = _deed(case, *_SWITCHES)
    if changed is None:
        return
    live = any(
        isinstance(e.body, Reading) and e.body.quantity == "volts_across_v" and e.at < changed.at
        for e in case.facts.entries
    )
    dead = bool(case.facts.checks("ohms"))
    wanted = {"live_volts": live, "power_off": dead, "both": live and dead}[case.rules.switch_test]
    if not wanted:
        how = {
            "live_volts": "volts across it, live",
            "power_off": "continuity, power off",
            "both": "live volts and continuity",
        }
        yield f"A switch was changed without the house’s test ({how[case.rules.switch_test]})."


def _cleaned_first(case: Case) -> Iterator[str]:
    if case.rules.measure_first != "measure_first":
        return
    works = [e for e, body in case.facts.deeds() if isinstance(body, Action)]
    if works and not any(fact.phase == "found" and fact.at <= works[0].at for fact in case.facts.readings):
        yield "Nothing was read as found before the first work: what it cured is not proven."
