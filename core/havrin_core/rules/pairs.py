"""As found against as left: what lies between two readings of the same thing is what changed it."""

from havrin_core.facts.facts import ReadingFact
from havrin_core.quantities.display import sentence
from havrin_core.rules.proofs import Case
from havrin_core.tape.entries import Action
from havrin_core.vocabulary.actions import deed, is_deed
from havrin_core.vocabulary.measurands import measurand


def changes_between(case: Case, system: str) -> list[str]:
    """Return a sentence for each quantity read as found and as left, naming what lies between."""
    sentences = []
    seen: set[tuple[str, str | None]] = set()
    for fact in case.facts.readings:
        key = (fact.quantity, fact.stage)
        if key in seen or fact.phase != "left":
            continue
        seen.add(key)
        found, left = case.facts.as_found(*key), case.facts.newest(*key)
        if found is not None and left is not None and left.phase == "left" and left.at > found.at:
            sentences.append(_sentence(case, found, left, system))
    return sentences


def _sentence(case: Case, found: ReadingFact, left: ReadingFact, system: str) -> str:
    what = measurand(left.quantity)
    stage = f", {left.stage} fire" if left.stage in ("low", "high") else ""
    moved = f"{what.name}{stage}: {sentence(found.value, what.dimension, system)} found, "
    moved += f"{sentence(left.value, what.dimension, system)} left"
    work = [_text(e.body) for e in case.facts.entries if isinstance(e.body, Action) and found.at <= e.at <= left.at]
    if not work:
        return f"{moved}; nothing was written in between."
    if len(work) == 1:
        return f"{moved}; between them: {work[0].lower()}."
    return f"{moved}; {len(work)} things were done in between ({', '.join(w.lower() for w in work)}), so the cause is not proven."


def _text(body: Action) -> str:
    return deed(body.action).text if is_deed(body.action) else body.action
