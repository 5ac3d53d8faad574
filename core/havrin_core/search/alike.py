"""Which faults cannot be told apart without going to the part itself: a table for people who make circuits."""

from collections.abc import Callable, Iterable, Mapping, Sequence

from havrin_core.machine.circuit.model import FaultMode
from havrin_core.phrases import Saying
from havrin_core.search.likelihood import spread
from havrin_core.search.model import Outcome, Test
from havrin_core.search.pictures import Pictures

FROM_OUTSIDE = ("stops", "code", "volts", "gauge")
_APART_SIGMAS = 3.0


def groups_alike(pictures: Pictures, kinds: Sequence[str] = FROM_OUTSIDE) -> list[tuple[FaultMode, ...]]:
    """Return the groups of faults that no test of ``kinds`` tells apart; faults that stand alone are left out."""
    tests = [test for test in pictures.tests.values() if test.kind in kinds]
    groups: list[list[FaultMode]] = []
    for fault in pictures.circuit.faults:
        mine = pictures.of((fault,))
        home = next((g for g in groups if _same(tests, pictures.of((g[0],)), mine)), None)
        if home is None:
            groups.append([fault])
        else:
            home.append(fault)
    return [tuple(group) for group in groups if len(group) > 1]


def splitting_tests(pictures: Pictures, group: Sequence[FaultMode]) -> list[Test]:
    """Return the tests, of whatever kind, that tell at least two faults of ``group`` apart."""
    return [
        test
        for test in pictures.tests.values()
        if any(not _equal(test, pictures.of((group[0],))[test.key], pictures.of((f,))[test.key]) for f in group)
    ]


def table_alike(every: Iterable[Pictures], say: Callable[[Saying], str]) -> str:
    """Return the table as Markdown; ``say`` puts a test's name into words."""
    lines = [
        "# Faults that look alike",
        "",
        "Written by `./havrin schema` from the virtual units; do not edit. Each row is a group of faults that where the",
        "unit stops, its code, every voltage and every gauge cannot tell apart; only the tests at the right can.",
    ]
    for pictures in every:
        lines += ["", f"## {pictures.circuit.name}", "", "| alike from outside | told apart by |", "|---|---|"]
        for group in groups_alike(pictures):
            names = "; ".join(fault.name for fault in group)
            tests = "; ".join(say(test.name) for test in splitting_tests(pictures, group)) or "nothing: the same cure"
            lines.append(f"| {names} | {tests} |")
    return "\n".join(lines) + "\n"


def _same(tests: Sequence[Test], one: Mapping[str, Outcome], other: Mapping[str, Outcome]) -> bool:
    return all(_equal(test, one[test.key], other[test.key]) for test in tests)


def _equal(test: Test, one: Outcome, other: Outcome) -> bool:
    if isinstance(one, float) and isinstance(other, float):
        return abs(one - other) <= _APART_SIGMAS * spread(test, max(one, other))
    return one == other
