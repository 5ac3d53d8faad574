"""Gas where it must not be: a failed leak check, a closed line that does not hold, gas in the air."""

from havrin_core.limits.limits import GAS_LEAK_DOUBT_M3_S, GAS_LEAK_MOST_M3_S, SOURCES
from havrin_core.quantities.display import sentence
from havrin_core.rules.lifting import PROVED
from havrin_core.rules.model import SHUT_DOWN, TELL, Reason
from havrin_core.rules.proofs import Case

_CURE = "Find it with leak fluid, joint by joint; cure it, then the whole test again."
_LET_BY = "The valve before the closed line lets gas by: shut the gas before it, change it, then the whole test again."


def leak_reasons(case: Case, system: str) -> list[Reason]:
    """Return the reasons of gas that escapes."""
    return [*_checked(case), *_tested(case, system), *_in_the_air(case)]


def _checked(case: Case) -> list[Reason]:
    checks = case.facts.checks("leak")
    if not checks or checks[-1][1].passed:
        return []
    text, lifts = "Leak check failed: gas escapes.", "Cure the leak, then pass the leak check."
    where = ("supply_running", "leak found", "no leak", SOURCES["default"])
    return [Reason(SHUT_DOWN, "gas_leak", text, lifts, *where, checks[-1][0].id)]


def _tested(case: Case, system: str) -> list[Reason]:
    """A closed line that loses gas leaks; one whose pressure rises has a valve before it that lets by."""
    tests = [fact for fact in case.facts.ever_read("gas_leak_m3_s") if fact.phase != "trial"]
    if not tests or abs(tests[-1].value) <= GAS_LEAK_DOUBT_M3_S:
        return []
    test = tests[-1]
    level = SHUT_DOWN if abs(test.value) > GAS_LEAK_MOST_M3_S else TELL
    reading, most = (sentence(value, "leak", system) for value in (abs(test.value), GAS_LEAK_MOST_M3_S))
    what, lifts = ("The closed line leaks", _CURE) if test.value > 0 else ("Gas gets into the closed line", _LET_BY)
    text = f"{what}: {reading}, at most {most}."
    return [
        Reason(
            level, "line_leaks", text, lifts, "supply_standing", reading, f"at most {most}", SOURCES["default"], test.entry_id
        )
    ]  # fmt: skip


def _in_the_air(case: Case) -> list[Reason]:
    """Any gas that a detector reads in the air is a danger until it was read again as none and a leak check is passed."""
    rows = case.facts.ever_read("gas_lel_pct")
    gas = [fact for fact in rows if fact.value > 0]
    if not gas or (rows[-1].value == 0 and PROVED["leak_check"](case, gas[0].at)):
        return []
    worst = max(gas, key=lambda fact: fact.value)
    reading = f"{worst.value:g} % of the lower explosive limit"
    text = f"Gas in the air, {reading}: touch no switch and no phone, everybody out, call from outside."
    lifts = "Find and cure the leak, air the place until a detector reads none (“lel 0”), then pass a leak check."
    return [
        Reason(SHUT_DOWN, "gas_in_the_air", text, lifts, "room", reading, "none", SOURCES["default"], worst.entry_id)
    ]
