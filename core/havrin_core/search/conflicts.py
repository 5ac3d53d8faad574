"""Readings that even the best suspect does not explain."""

from havrin_core.search.inference import Hypothesis, picture_of
from havrin_core.search.likelihood import DIRECT, FINDS, spread
from havrin_core.search.model import UNLISTED, Conflict, Observation, Outcome, Seen, Test
from havrin_core.search.pictures import AnyPicture, Pictures
from havrin_core.search.words import in_words

_ODD_SIGMAS = 5.0


def conflicts(pictures: Pictures, best: Hypothesis, seen: Seen) -> list[Conflict]:
    """Return the readings since the last action that the best hypothesis does not explain at any moment of a call."""
    picture = picture_of(pictures, best)
    found = []
    for o in seen.now:
        test = pictures.test(o.test)
        if test.kind in ("found", "tripped") or (best.kind == UNLISTED and test.kind in DIRECT):
            continue
        away = any(fault.comes_and_goes for fault in best.faults) and not _odd(pictures, test, pictures.sound, o)
        if _odd(pictures, test, picture, o) and not away:
            shown, predicted = in_words(test, o.outcome), in_words(test, picture[o.test])
            found.append(Conflict(test.key, test.name, shown, predicted, o.entry_id))
    return found


def _odd(pictures: Pictures, test: Test, picture: AnyPicture, seen: Observation) -> bool:
    predicted: Outcome = picture[test.key]
    if test.kind == "volts":
        moments = (predicted, *(volts for _, volts in picture.volts_at_any_moment(test)))
        return all(_far(test, volts, seen.outcome) for volts in moments)
    if test.kind == "gauge":
        return _far(test, predicted, seen.outcome)
    if test.kind == "code":
        return seen.outcome not in pictures.codes  # an old one may be stored, but none that its chart does not know
    if test.kind in FINDS or test.kind == "again":
        return False  # a look may miss, a fault that comes and goes may stay away
    return predicted != seen.outcome


def _far(test: Test, predicted: Outcome, shown: Outcome) -> bool:
    if not isinstance(predicted, float) or not isinstance(shown, float):
        return False
    return abs(shown - predicted) > _ODD_SIGMAS * spread(test, predicted)
