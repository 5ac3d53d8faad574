"""How well one observation fits what a hypothesis would show: chances against a perfect fit, none of them quite zero.

The figures are judgements of this model, wide on purpose: a real unit is never the model. They were set against hunts
whose truth the search does not draw (``./havrin bench suspects``).
"""

from math import exp, hypot, log

from havrin_core.machine.circuit.meant import parts_meant
from havrin_core.machine.circuit.model import HELD, FaultMode
from havrin_core.machine.virtual.run import DARK
from havrin_core.search.model import Observation, Outcome, Test
from havrin_core.search.pictures import BAD, DIFFERS, NOTHING, STEADY, AnyPicture, Pictures
from havrin_core.search.severities import has_range
from havrin_core.search.worlds import World
from havrin_core.vocabulary.catalogue import GOOD as GOOD_VERDICT
from havrin_core.vocabulary.catalogue import verdict_of

FINDS = {"look": (0.92, 0.03), "watch": (0.85, 0.01)}  # a fault that is there, one that is not
DIRECT = ("ohms", "look", "swap", "watch", "jump")  # tests of the very part
_SURE = {"ohms": 0.97, "swap": 0.96, "jump": 0.96}
_STOPS_SURE, _STOPS_ELSEWHERE, _STOPS_NOT_AT_ALL, _RUNS_THIS_TIME = 0.93, 0.02, 0.08, 0.03
_RUNS_ONCE_RESET = 0.3  # what tripped a device need not trip it again at once
_CODE_SURE, _CODE_USUAL, _CODE_OLD = 0.85, 0.2, 0.03  # the fault's own, the heartbeat, one stored from before
_DARK_SURE = 0.97
_AGAIN_DIFFERS = 0.75  # of calls with a fault that comes and goes
_THERE_SHARE = 0.65  # of readings at which a fault that comes and goes is there
_AT_ITS_STOP = 0.7  # of volts of which nobody said when, read where the unit stands still
_NOT_AT_THAT_MOMENT = 0.3  # a moment that this hypothesis never comes to
_MISREAD = {"volts": 0.012, "gauge": 0.02}
_BETWEEN_POINTS = 0.2  # of what a fault takes from a gauge's sound figure: severities lie between the points reckoned
_VOLTS_SHARE = 0.035  # by which transformers and lines differ
_SOAKS = 0.06  # what nobody listed explains anything at least so well
_OWN_JOINT = 0.2  # of what nobody listed, that it lies between the very ends that were read
_LIKE, _UNLIKE, _SEEN_ANYWAY, _GRIME, _STRANGER = 0.8, 0.08, 0.03, 0.2, 0.4
_SOUND_ALTHOUGH = 0.08  # "ok" of a part that has the fault
_TRIPPED_SURE, _TRIPPED_TAKEN = 0.96, 0.25  # an open device is taken for a tripped one
_USUAL_GRIME = ("dirty", "worn", "noisy", "rusted", "corroded", "sooted", "wet", "unknown_work")


def log_chance(
    pictures: Pictures, world: World, present: tuple[FaultMode, ...], seen: Observation, tripped: frozenset[str]
) -> float:
    """Return the log of how well ``seen`` fits ``world`` while its faults ``present`` are there and ``tripped`` is open; 0 is perfect."""
    key = (present, world.unlisted, tripped, seen.test, seen.outcome, seen.spread, seen.moment, seen.bridged)
    known = pictures.chances.get(key)
    if known is None:
        known = pictures.chances[key] = log(_chance(pictures, world, present, seen, tripped))
    return known


def _chance(
    pictures: Pictures, world: World, present: tuple[FaultMode, ...], seen: Observation, tripped: frozenset[str]
) -> float:
    test = pictures.test(seen.test)
    if test.kind == "found":
        return _found(pictures, test, world, present, str(seen.outcome))
    if test.kind == "tripped":
        return _tripped(pictures, test, present, seen, tripped)
    if world.unlisted and present and test.kind in DIRECT and test.part == present[0].part:
        return _of_kind(pictures, test, pictures.sound, seen, present)
    chance = _of_kind(pictures, test, pictures.of(present, seen.bridged, tripped), seen, present)
    if any(fault.comes_and_goes for fault in present):
        away = _of_kind(pictures, test, pictures.of((), seen.bridged, tripped), seen, ())
        chance = _THERE_SHARE * chance + (1 - _THERE_SHARE) * away
    if world.unlisted:
        if test.kind == "volts" and _own_ends(pictures, test, present):
            chance *= _OWN_JOINT
        return max(chance, _SOAKS)
    return chance


def _own_ends(pictures: Pictures, test: Test, present: tuple[FaultMode, ...]) -> bool:
    return test.leads is not None and any(
        set(pictures.circuit.part(fault.part).nodes[:2]) == set(test.leads) for fault in present
    )


def _of_kind(
    pictures: Pictures, test: Test, picture: AnyPicture, seen: Observation, present: tuple[FaultMode, ...]
) -> float:
    shown = seen.outcome
    if test.kind == "volts":
        return _volts(test, picture, seen, pictures.sound if any(map(has_range, present)) else picture)
    predicted = picture[test.key]
    if test.kind == "gauge":
        return _number(test, predicted, shown, hypot(seen.spread, _between_points(test, predicted, pictures, present)))
    if test.kind in FINDS:
        chance = FINDS[test.kind][predicted != BAD]
        return chance if shown == BAD else 1 - chance
    if test.kind == "again":
        return (
            (_AGAIN_DIFFERS if shown == DIFFERS else 1 - _AGAIN_DIFFERS)
            if predicted == DIFFERS
            else (0.04 if shown == DIFFERS else 0.96)
        )
    if test.kind == "stops":
        return _stops(predicted, shown, picture)
    if test.kind == "code":
        return _code(pictures, predicted, shown)
    sure = _SURE[test.kind]
    return sure if predicted == shown else (1 - sure) / 2


def _volts(test: Test, picture: AnyPicture, seen: Observation, sound: AnyPicture) -> float:
    """Return the chance of volts; ``sound`` is what a fault without a range, or of slight severity, would leave."""
    if not isinstance(seen.outcome, float):
        return 1.0
    misread = _MISREAD["volts"]
    at_stop, usual = picture[test.key], sound[test.key]
    assert isinstance(at_stop, float)
    assert isinstance(usual, float)
    more = hypot(seen.spread, _BETWEEN_POINTS * abs(at_stop - usual))
    stop = _bell(test, at_stop, seen.outcome, more)
    if seen.moment in HELD:
        fit = sum(
            share * _bell(test, volts, seen.outcome, more) for share, volts in picture.volts_held(test, seen.moment)
        )
    elif seen.moment:
        at = picture.volts_at(test, seen.moment)
        fit = max((_bell(test, volts, seen.outcome, more) for volts in at), default=_NOT_AT_THAT_MOMENT * stop)
    else:
        moments = picture.volts_at_any_moment(test)
        rest = sum(share * _bell(test, volts, seen.outcome, more) for share, volts in moments)
        fit = _AT_ITS_STOP * stop + (1 - _AT_ITS_STOP) * rest
    return (1 - misread) * fit + misread


def _bell(test: Test, predicted: float, shown: float, more: float) -> float:
    sigma = hypot(spread(test, predicted), more)
    return exp(-0.5 * min(((shown - predicted) / sigma) ** 2, 80.0))


def _number(test: Test, predicted: Outcome, shown: Outcome, more: float) -> float:
    if not isinstance(predicted, float) or not isinstance(shown, float):
        return 1.0
    misread = _MISREAD["gauge"]
    return (1 - misread) * _bell(test, predicted, shown, more) + misread


def _between_points(test: Test, predicted: Outcome, pictures: Pictures, present: tuple[FaultMode, ...]) -> float:
    """Return the standard deviation of a gauge by severities that lie between the points that are reckoned."""
    sound = pictures.sound[test.key]
    if not isinstance(predicted, float) or not isinstance(sound, float) or not any(f.scale for f in present):
        return 0.0
    return _BETWEEN_POINTS * abs(predicted - sound)


def spread(test: Test, predicted: float) -> float:
    """Return the standard deviation of a reading around its prediction, unit of the test."""
    return hypot(test.sigma, (_VOLTS_SHARE if test.kind == "volts" else 0.02) * predicted)


def _stops(predicted: Outcome, shown: Outcome, picture: AnyPicture) -> float:
    if predicted == shown:
        return _STOPS_SURE
    if shown == STEADY:
        return _RUNS_ONCE_RESET if picture.trips else _RUNS_THIS_TIME
    if shown == NOTHING and predicted != STEADY:
        return _STOPS_NOT_AT_ALL  # locked out before anybody came
    return _STOPS_ELSEWHERE


def _code(pictures: Pictures, predicted: Outcome, shown: Outcome) -> float:
    if DARK in (predicted, shown):
        return _DARK_SURE if predicted == shown else 1 - _DARK_SURE
    if predicted == shown:
        return _CODE_SURE
    return _CODE_USUAL if shown in pictures.usual_codes else _CODE_OLD


def _found(pictures: Pictures, test: Test, world: World, present: tuple[FaultMode, ...], said: str) -> float:
    """What a part was found like: it speaks for the faults that it is a word of; of a part that the circuit does not know,
    for what nobody listed."""
    meant = parts_meant(pictures.circuit, test.part)
    here = [fault for fault in present if fault.part in meant and not world.unlisted]
    condition = said.removeprefix("not ")
    good = verdict_of(test.part, condition) == GOOD_VERDICT
    absent = said != condition
    if good or absent:
        sound = good and not absent
        if sound:
            return _SOUND_ALTHOUGH if here else 1.0
        return _SOUND_ALTHOUGH if any(condition in fault.like for fault in here) else 1.0
    if any(condition in fault.like for fault in here):
        return _LIKE
    if here:
        return _UNLIKE
    if condition in _USUAL_GRIME:
        return _GRIME
    return _STRANGER if not meant and world.unlisted and (present or world.tripped) else _SEEN_ANYWAY


def _tripped(
    pictures: Pictures, test: Test, present: tuple[FaultMode, ...], seen: Observation, tripped: frozenset[str]
) -> float:
    opened = {term[1:] for term in pictures.circuit.part(test.part).closed_when if term.startswith("!")}
    picture = pictures.of(present, seen.bridged, tripped)
    held = any(fault.part == test.part and fault.stuck == "open" for fault in present)
    is_open = bool(opened & tripped) or bool(opened & picture.trips)
    sure = _TRIPPED_SURE if is_open else _TRIPPED_TAKEN if held else 1 - _TRIPPED_SURE
    return sure if seen.outcome == BAD else 1 - sure
