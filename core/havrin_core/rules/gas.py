"""Gas where it must not be: a failed leak check, a closed line that does not hold, gas in the air, a regulator that creeps."""

from collections.abc import Iterator

from havrin_core.limits.model import DEFAULT
from havrin_core.limits.table import bound, most
from havrin_core.rules.context import Context
from havrin_core.rules.demands import LEAK, NO_GAS, Opened, is_too_short, leak_passed, open_demands
from havrin_core.rules.model import SHUT_DOWN, TELL, Lift, Reason, Sample
from havrin_core.rules.occurrences import beyond, ids_of, last_known
from havrin_core.tape.entries import Proof


def gas_reasons(context: Context) -> Iterator[Reason]:
    """Yield the reasons of gas that escapes."""
    yield from _checked(context)
    yield from _tested(context)
    yield from _in_the_air(context)


def _checked(context: Context) -> Iterator[Reason]:
    """A leak that was found is answered by a later check that passed, whichever phase it was found in."""
    failed = [line for line, body in context.facts.of(Proof) if body.what == "leak" and not body.passed]
    if failed and leak_passed(context.facts, failed[-1].known) is None:
        station = context.station_for("supply_running")
        ids = tuple(line.entry.id for line in failed)
        yield Reason(SHUT_DOWN, "gas_leak", station, {}, (Lift("leak"),), DEFAULT, ids, "find_leak")


def _tested(context: Context) -> Iterator[Reason]:
    """A closed line that loses gas leaks; one whose pressure rises has a valve before it that lets by."""
    band = bound("gas_leak.most")
    rows = context.facts.ever("gas_leak_m3_s")
    wrong = [fact for fact in rows if band.verdict(fact.value) != "in"]
    passed = [
        f for f in rows if f.phase != "trial" and band.verdict(f.value) == "in" and not is_too_short(f, context.rules)
    ]
    open_ = [fact for fact in wrong if not any(good.moment.surely_after(fact.moment) for good in passed)]
    # a test of the same line that did better answers for one that was in doubt
    open_ = [f for f in open_ if band.verdict(f.value) == "out" or f is wrong[-1]]
    if not open_:
        return
    worst = max(open_, key=lambda fact: abs(fact.value))
    level = SHUT_DOWN if band.verdict(worst.value) == "out" else TELL
    facts = {"value": worst.value, "limit": most("gas_leak.most")}
    code = "line_leaks" if worst.value > 0 else "line_lets_by"
    station = context.station_for("supply_standing", context.station_for("supply_running"))
    yield Reason(level, code, station, facts, (Lift("tight"),), DEFAULT, ids_of(open_), code)


def _in_the_air(context: Context) -> Iterator[Reason]:
    """Any gas that a detector reads in the air is a danger until it was read again as none and a leak check is passed."""
    gas = beyond(context, "gas_lel_pct", lambda value: value > 0)
    if not gas:
        return
    since = last_known(context, gas, lambda value: value > 0)
    lifts = open_demands(context, Opened("gas_in_the_air", "any", since), (NO_GAS, LEAK))
    if lifts:
        worst = max(gas, key=lambda fact: fact.value)
        yield Reason(
            SHUT_DOWN, "gas_in_the_air", "room", {"value": worst.value}, lifts, DEFAULT, ids_of(gas), "gas_in_the_air"
        )


SAMPLES = (
    Sample(
        "gas_leak",
        opens=("leak bad", "leak found"),
        not_opens=("leak ok", "leak none"),
        lifted=("leak bad | leak ok",),
        not_lifted=("leak ok | leak bad", "leak bad | tight 4 l 20 mbar 20 mbar 10 min"),
    ),
    Sample(
        "line_leaks",
        opens=("tight 40 l 20 mbar 10 mbar 5 min",),
        not_opens=("tight 4 l 20 mbar 20 mbar 10 min",),
        lifted=("tight 40 l 20 mbar 10 mbar 5 min | tight 4 l 20 mbar 20 mbar 10 min",),
        not_lifted=(
            "tight 40 l 20 mbar 10 mbar 5 min | leak ok",
            "tight 40 l 20 mbar 10 mbar 5 min | tight 40 l 20 mbar 20 mbar 5 s",
        ),
    ),
    Sample(
        "gas_in_the_air",
        opens=("lel 5", "lel 1"),
        not_opens=("lel 0",),
        lifted=("lel 5 | lel 0 | leak ok",),
        not_lifted=("lel 5 | lel 0", "lel 5 | leak ok", "lel 0 | leak ok | lel 5"),
    ),
)
