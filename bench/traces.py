"""What is said of traces against a truth that the reader does not know: coverage and bias of steps, dips, contacts."""

import time
from collections import Counter
from collections.abc import Iterator

import numpy as np

from havrin_core.machine.circuit.read import shipped_circuit
from havrin_core.search.contacts_of_dips import contact_of, movers_of
from havrin_core.traces.dips import read_dips
from havrin_core.traces.events import propose_events
from havrin_core.traces.steps import steps_at
from tests.core.trace_sims import Cycled, blower_start, contact_opens, heat_cycles

STEPS, CYCLES, CONTACTS = 400, 200, 400
_ALARM = (0.95, 0.99)


def report() -> None:
    """Print every figure, one a line."""
    for name, figure in (*_steps(), *_dips(), *_contacts()):
        print(f"traces: {name}: {figure}")


def _steps() -> Iterator[tuple[str, str]]:
    """Yield how often 95 % intervals hold, and how far the steps are off, over cells of every lateness and noise."""
    held, wrong, alarms, still, spent = 0, [], Counter[float](), 0, 0.0
    for seed in range(STEPS):
        made = blower_start(np.random.default_rng(seed))
        began = time.process_time()
        events = propose_events(made.channels)
        blower = next(event for event in events if event.kind == "blower_on")
        step = steps_at({"o2_dry_pct": made.channels["o2_dry_pct"]}, blower.at_s, events)[0]
        spent += time.process_time() - began
        if step.cannot_tell:
            continue
        wrong.append(step.step - made.step)
        held += abs(wrong[-1]) <= step.half_width
        if made.step == 0:
            still += 1
            alarms.update(level for level in _ALARM if step.confidence > level)
    told = len(wrong)
    yield "steps told", f"{told} of {STEPS}"
    yield "95 % intervals of steps that hold", f"{100 * held / told:.1f} %"
    yield "bias of steps", f"{np.mean(wrong):+.4f} % O2 (scatter {np.std(wrong):.3f})"
    for level in _ALARM:
        yield f"still cells called moved, over {100 * level:.0f} % sure", f"{100 * alarms[level] / still:.1f} %"
    yield "events and one step", f"{1000 * spent / STEPS:.0f} ms"


def _dips() -> Iterator[tuple[str, str]]:
    there = lost = made_up = 0
    spent = 0.0
    for seed in range(CYCLES):
        made = heat_cycles(np.random.default_rng(seed))
        began = time.process_time()
        found = read_dips(made.channels, "draft_pa", made.set_point).dips
        spent += time.process_time() - began
        seen = [(dip.start_s, dip.end_s) for dip in found]
        there += len(made.dips)
        lost += sum(not any(_touch(truth, dip) for dip in seen) for truth in made.dips)
        made_up += sum(not _of(made, dip) for dip in seen)
    yield "dips lost", f"{lost} of {there}, in {CYCLES} traces"
    yield "dips made up", f"{made_up}"
    yield "dips of one trace", f"{1000 * spent / CYCLES:.0f} ms"


def _of(made: Cycled, dip: tuple[float, float]) -> bool:
    return any(_touch(truth, dip) for truth in made.dips)


def _touch(one: tuple[float, float], other: tuple[float, float]) -> bool:
    return one[0] - 0.5 <= other[1] and other[0] - 0.5 <= one[1]


def _contacts() -> Iterator[tuple[str, str]]:
    circuit = shipped_circuit("furnace_80_hot_surface")
    said: Counter[tuple[str, str]] = Counter()
    for seed in range(CONTACTS):
        made = contact_opens(np.random.default_rng(seed))
        dips = read_dips(made.channels, "volts_across_v@4-C", 18.0).dips
        for moved in movers_of(made.channels, dips, made.clock_error_s):
            one = contact_of(circuit, moved, {"draft_pa": made.point}, made.clock_error_s)
            part, cleared = (one.part, one.cleared) if one else ("", ())
            said[made.truth, "named" if part else "cleared" if "pressure_switch" in cleared else "left open"] += 1
    for truth in ("by_itself", "by_draft", "supply"):
        counted = {what: said[truth, what] for what in ("named", "cleared", "left open")}
        yield f"contact opened {truth.replace('_', ' ')}", ", ".join(f"{what} {n}" for what, n in counted.items())
