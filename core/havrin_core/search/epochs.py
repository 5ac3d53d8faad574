"""What was done, and when: actions part a tape into epochs, jumpers are in for a while. Nothing is compared across."""

from bisect import bisect_right
from dataclasses import dataclass

from havrin_core.facts.facts import Facts
from havrin_core.machine.circuit.meant import parts_meant
from havrin_core.machine.circuit.model import Circuit
from havrin_core.search.model import ActionTaken
from havrin_core.tape.corrections import Line
from havrin_core.tape.entries import AS_TRIAL, Abnormal, Action
from havrin_core.vocabulary.catalogue import verbs

POWER_CYCLE = "power_cycle"
UNSAID = ""  # the verb of an action that was not written


@dataclass(frozen=True, slots=True)
class Epochs:
    """The actions of a tape in order with the keys of their moments, and every jumper put in or taken out."""

    keys: tuple[str, ...]
    actions: tuple[ActionTaken, ...]
    jumpers: tuple[tuple[str, frozenset[str], bool], ...]

    def at(self, key: str) -> int:
        """Return the epoch of a moment: how many actions came before it."""
        return bisect_right(self.keys, key)

    def bridged_now(self) -> frozenset[str]:
        """Return the parts that have a jumper across at the end of the tape."""
        return self.bridged_at(_AFTER_ALL)

    def bridged_at(self, key: str) -> frozenset[str]:
        """Return the parts that had a jumper across at a moment."""
        across: frozenset[str] = frozenset()
        for when, parts, is_in in self.jumpers:
            if when < key:
                across = across | parts if is_in else across - parts
        return across


_AFTER_ALL = "~"  # behind every moment


def moment_key(line: Line) -> str:
    """Return what lines are ordered by: the time, the writer's own clock, then the entry."""
    return f"{line.moment.at.isoformat()} {line.entry.at.isoformat()} {line.entry.id}"


def epochs_of(circuit: Circuit, facts: Facts) -> Epochs:
    """Return the actions and jumpers of a tape, as far as they touch ``circuit`` or what stands behind it."""
    rows = [(moment_key(line), _action_taken(circuit, line, body)) for line, body in facts.of(Action) if _counts(body)]
    rows.sort(key=lambda row: row[0])
    rows = [*_unsaid(facts, rows), *rows]
    jumpers = [
        (moment_key(line), parts_meant(circuit, body.device), body.is_in)
        for line, body in facts.of(Abnormal)
        if body.how == "bridged"
    ]
    jumpers.sort(key=lambda row: row[0])
    return Epochs(tuple(key for key, _ in rows), tuple(action for _, action in rows), tuple(jumpers))


def _unsaid(facts: Facts, rows: list[tuple[str, ActionTaken]]) -> list[tuple[str, ActionTaken]]:
    """Return the action that nobody wrote: what is read as left after nothing was done was read after something all the same."""
    first_left = min((moment_key(line) for line in facts.lines if line.phase == "left"), default="")
    if not first_left or (rows and rows[0][0] < first_left):
        return []
    just_before, _, _ = first_left.rpartition(" ")
    return [(just_before, ActionTaken(UNSAID, frozenset()))]


def _counts(body: Action) -> bool:
    """Tell whether it can have changed anything: a trial is undone, a test and a zero change nothing."""
    known = verbs().get(body.verb)
    return body.sense != AS_TRIAL and known is not None and (bool(known.cures) or body.verb == POWER_CYCLE)


def _action_taken(circuit: Circuit, line: Line, body: Action) -> ActionTaken:
    parts = parts_meant(circuit, body.part) if body.part else frozenset()
    return ActionTaken(body.verb, parts, line.entry.id, elsewhere=bool(body.part) and not parts)
