"""What was put right on the circuit of one unit, as its tape says it."""

from collections.abc import Mapping
from typing import Any

from havrin_core.machine.circuit.edit import Blank, Change, Insert, Move
from havrin_core.wording.language import lower_first, text


def chosen_words(document: Mapping[str, Any]) -> str:
    """Return the sentence for another circuit that was chosen for one unit."""
    return text("Circuit of this unit: chosen “{name}”.", name=document["name"])


def change_words(document: Mapping[str, Any], change: Change | None) -> str:
    """Return the sentence for ``change`` of ``document``; None takes back all that was changed on the spot."""
    names = {row["key"]: row["name"] for row in document["parts"]}
    if change is None:
        return text("The circuit is that of the model again.")
    if isinstance(change, Blank):
        return text("The string is begun blank: its devices are put in as they are found.")
    if isinstance(change, Insert):
        part = lower_first(names.get(change.at, change.at))
        said = "Circuit of this unit: {name} found behind the {part}." if change.behind else ""
        said = said or "Circuit of this unit: {name} found before the {part}."
        return text(said, name=" ".join(change.name.split()) or change.family.replace("_", " "), part=part)
    if isinstance(change, Move):
        part = lower_first(names.get(change.part, change.part))
        return text("Circuit of this unit: the {part} is joined to {node}.", part=part, node=change.node)
    return text("Circuit of this unit: node {node} is “{name}”.", node=change.node, name=" ".join(change.name.split()))
