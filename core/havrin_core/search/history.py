"""The search as it went: after each entry who led, and which entries did not count, so that a colleague can follow it."""

from collections.abc import Iterable, Iterator, Mapping

from havrin_core.phrases import Saying
from havrin_core.search.inference import Hypothesis, shares
from havrin_core.search.model import LEADS_FROM, PART, UNLISTED, Observation, Seen, Step
from havrin_core.search.pictures import Pictures
from havrin_core.search.words import suspect_name


def history(
    pictures: Pictures, seen: Seen, entry_ids: Iterable[str], odds: Mapping[str, float] | None = None
) -> tuple[Step, ...]:
    """Return a step for each of ``entry_ids`` in order: who led once it was known, or that it said nothing to the search."""
    leads = {entry_id: _leader(pictures, shares(pictures, known, odds)) for entry_id, known in _growing(seen)}
    nothing: tuple[Saying, float] = ("", 0.0)
    return tuple(Step(key, key in leads, *leads.get(key, nothing)) for key in entry_ids)


def _growing(seen: Seen) -> Iterator[tuple[str, Seen]]:
    """Yield what was known after each entry that counts."""
    known: list[Observation] = []
    for epoch in range(len(seen.actions) + 1):
        for observation in (o for o in seen.observations if o.epoch == epoch):
            known.append(observation)
            yield observation.entry_id, Seen(tuple(known), seen.actions[:epoch])
        if epoch < len(seen.actions):
            yield seen.actions[epoch].entry_id, Seen(tuple(known), seen.actions[: epoch + 1])


def _leader(pictures: Pictures, hypotheses: list[Hypothesis]) -> tuple[Saying, float]:
    parts: dict[str, float] = {}
    for h in hypotheses:
        label = h.blocks if h.kind == PART else f"{h.kind}:"
        parts[label] = parts.get(label, 0.0) + h.share
    unlisted = f"{UNLISTED}:"
    first = max(parts, key=lambda label: (label != unlisted or parts[label] >= LEADS_FROM, parts[label]))
    return suspect_name(pictures.circuit, first), parts[first]
