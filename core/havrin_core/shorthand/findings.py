"""How something is: parts and conditions in any order, each condition with the part that it speaks of.

A word that denies governs the condition behind it; what stands beside is kept word for word as the place. Beside a good finding
only words of place may stand: anything else could take it back.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

from havrin_core.phrases import phrase
from havrin_core.shorthand.asked_back import asked, not_here, note_only
from havrin_core.shorthand.beside import Beside, begins_with_a_figure, begins_with_volts, beside_of
from havrin_core.shorthand.model import Situation
from havrin_core.shorthand.numbers import may_hold_a_number
from havrin_core.shorthand.places import places_of
from havrin_core.shorthand.readings import said_readings
from havrin_core.shorthand.subjects import meant_of, subjects_of, usual_part
from havrin_core.shorthand.words_of_clause import LIKE, PART, PHRASE, VERB, Clause, Read, Span
from havrin_core.tape.entries import Abnormal, Body, Condition
from havrin_core.vocabulary.catalogue import DANGER, GOOD, SEEN, part, verdict_of, whole_phrases
from havrin_core.vocabulary.index import condition_index

# said of a safety device, these mean that somebody left it so
_LEFT_SO = {"bypassed": "bridged", "taped": "held", "propped": "held"}
_OPPOSITE = {"ok": "not_ok", "clean": "not_ok", "open": "closed", "closed": "open", "full": "empty", "thawed": "frozen"}
_SEVERITY = (SEEN, GOOD, "worn", "bad", DANGER)
_NAMES = ("switch", "valve", "relay", "contact", "motor")  # of some part, and nobody said which
_TESTS = (("test",), ("check",), ("tests",), ("tested",), ("checked",), ("testing",))
_STANDS = ("open", "closed")
_WHICH_ONE = ("new", "old")  # at the head of a clause: which one, not how it is
_ASKING = ("is", "are", "does", "do", "can", "should", "was")
_COLOURS = frozenset(("yellow", "white", "green", "blue", "orange", "black"))
_EITHER_WAY = frozenset(("rollout", "rollouts", "roll out"))  # the switch, or the fire that it is there for


@dataclass(frozen=True, slots=True)
class _Look:
    """One condition of a part, with the spans that say it."""

    part: str
    like: str
    span: Span
    subject: Span | None
    denied: Span | None
    doubtful: bool = False

    @property
    def start(self) -> int:
        """Where its words begin."""
        starts = [self.span.start, *(span.start for span in (self.subject, self.denied) if span is not None)]
        return min(starts)


def read_finding(clause: Clause, spoken_of: str) -> Read:
    """Return what the clause says about parts; a question where it says nothing that can be written."""
    likes = _likes(clause)
    if not likes:
        return _without_condition(clause)
    if any(_is_lead(clause, span) or _is_a_test(clause, span) for span in likes):
        return Read(unread=clause.words)
    if _is_turned(clause, likes):
        return note_only(clause, phrase("turned_what", said=clause.said))
    looks = _looks(clause, likes, spoken_of)
    if isinstance(looks, Read):
        return looks
    loose = _loose_denials(clause, looks)
    if loose:
        return (
            _without_condition(clause)
            if len(likes) == 1 and not looks
            else note_only(clause, phrase("denied_what", said=clause.said))
        )
    return _written(clause, looks, likes)


def _is_lead(clause: Clause, span: Span) -> bool:
    """Tell whether a colour is that of a wire: "yellow to c 26"."""
    return clause.key_of(span) in _COLOURS and clause.keys[span.stop : span.stop + 1] == ("to",)


def _is_turned(clause: Clause, likes: Sequence[Span]) -> bool:
    """Tell whether a word of the clause may take back what it says: "used to leak", "gas smell gone"."""
    gone = len(likes) > 1 and any(clause.key_of(span) == "gone" for span in likes)
    return gone or any(span.is_("turning") and span not in likes for span in clause.spans)


def _is_a_test(clause: Clause, span: Span) -> bool:
    """Tell whether a word of a condition only names a test: "spillage test passed"."""
    return clause.keys[span.stop : span.stop + 1] in _TESTS


def _likes(clause: Clause) -> list[Span]:
    """Return the spans that say how something is; a word that is part and condition is the part where another one says how."""
    every = list(clause.having(LIKE, PHRASE))
    both = [span for span in every if span.of(PART)]
    others = [span for span in every if span not in both]
    verbs_only = [span for span in every if span.of(VERB) and clause.key_of(span) in ("moved",)]
    kept = others if both and others else every
    adjectives = [
        span for span in kept[:1] if len(kept) > 1 and clause.key_of(span) in _WHICH_ONE and span is clause.first()
    ]
    return [span for span in kept if span not in verbs_only and span not in adjectives]


def _looks(clause: Clause, likes: Sequence[Span], spoken_of: str) -> list[_Look] | Read:
    subjects = subjects_of(clause, likes)
    found: list[_Look] = []
    last = spoken_of
    for like, own in zip(likes, subjects, strict=True):
        for subject in own or (None,):
            look = _look(clause, like, subject, last, within=_named_before(found))
            if isinstance(look, Read):
                return look
            found.append(look)
            last = look.part
    return _told(found)


def _named_before(looks: Sequence[_Look]) -> str:
    """Return the part that the clause named for the condition before: "vent joint loose and cracked" is all of the joint."""
    return looks[-1].part if looks and looks[-1].subject is not None else ""


def _told(looks: Sequence[_Look]) -> list[_Look]:
    """Return the looks without those that say the same again, or nothing beside one that says more."""
    kept: list[_Look] = []
    for look in looks:
        again = any(_same(look, other) for other in kept)
        silent = bool(kept) and look.denied is None and verdict_of(look.part, look.like) == SEEN
        if not again and not silent:
            kept.append(look)
    return kept


def _same(one: _Look, other: _Look) -> bool:
    return (one.part, one.like, one.denied is None) == (other.part, other.like, other.denied is None)


def _look(clause: Clause, like: Span, subject: Span | None, last: str, *, within: str) -> "_Look | Read":
    denied = _denial(clause, like)
    whole = like.of(PHRASE)
    is_long = like.stop - like.start > 1
    same = within or (last if _goes_on(clause, like, last) else "")
    if whole and (is_long or (subject is None and not (same and like.of(LIKE)))):
        key, said, doubtful = whole_phrases()[whole[0]]
        if key not in clause.situation.parts:
            return not_here(clause, key)
        return _Look(key, said, like, subject if subject and key in clause.here(subject) else None, denied, doubtful)
    keys = like.of(LIKE) or (whole_phrases()[whole[0]][1],)
    usual = usual_part(like)
    if subject is not None and not clause.here(subject) and not _only_a_place(clause, subject, usual):
        return not_here(clause, subject.of(PART)[0])
    if subject is not None and clause.here(subject):
        key, said = _worst(clause.here(subject), keys)
        return _denied_inside(clause, _Look(key, said, like, subject, denied))
    key = same or usual or ("" if _has_a_name(clause, like) else last)
    if not key:
        return asked(clause, phrase("which_part", said=clause.said))
    if key not in clause.situation.parts:
        return not_here(clause, key)
    return _Look(key, _worst((key,), keys)[1], like, None, denied)


def _goes_on(clause: Clause, like: Span, last: str) -> bool:
    """Tell whether a bare adjective goes on about the part spoken of: "belt ok but cracked"; a noun like "crack" does not."""
    said = clause.key_of(like)
    adjective = said.endswith("ed") or said in ("rusty", "sooty", "thin")
    return (
        bool(last)
        and adjective
        and not _has_a_name(clause, like)
        and any(verdict_of(last, one) not in (SEEN, GOOD) for one in like.of(LIKE))
    )


def _has_a_name(clause: Clause, like: Span) -> bool:
    """Tell whether a word that is no part here stands as one right before a condition: "switch opened", not "badly bent"."""
    at = like.start - 1
    named = at >= 0 and clause.keys[at] in _NAMES
    return named or (at in clause.strange and not clause.keys[at].endswith("ly"))


def _only_a_place(clause: Clause, subject: Span, usual: str) -> bool:
    """Tell whether a part that is not here only says where: "spilling at the hood" is a spilling vent all the same."""
    before = [span for span in clause.spans if span.stop <= subject.start]
    return usual in clause.situation.parts and bool(before) and before[-1].is_("prepositions")


def _denied_inside(clause: Clause, look: _Look) -> _Look:
    """Return "no water in the hose" as a hose that is not wet: "no water" by itself says nothing of a hose."""
    words = clause.keys[look.span.start : look.span.stop]
    if verdict_of(look.part, look.like) != SEEN or look.denied is not None or words[0] != "no":
        return look
    senses = next((sense for sense in condition_index().senses(words, 1) if sense.stop == len(words)), None)
    return replace(look, like=senses.keys[0], denied=look.span) if senses else look


def _worst(parts: Sequence[str], likes: Sequence[str]) -> tuple[str, str]:
    """Return which part and condition are meant where words may mean several: what says something before what does not.

    Of a safety device the graver one; of the rest the first.
    """
    pairs = [(key, like) for key in parts for like in likes]
    if part(parts[0]).safety:
        return max(pairs, key=lambda pair: _SEVERITY.index(verdict_of(*pair)))
    return next((pair for pair in pairs if verdict_of(*pair) != SEEN), pairs[0])


def _denial(clause: Clause, like: Span) -> Span | None:
    """Return the word that denies a condition: the last one before it with no other condition between them."""
    before = [span for span in clause.spans if span.stop <= like.start]
    for span in reversed(before):
        if span.is_("negations"):
            return span
        if span.of(LIKE) or span.of(PHRASE):
            joined = {"or", "nor"} & set(clause.keys[span.stop : like.start])
            if not joined:
                return None
    return None


def _loose_denials(clause: Clause, looks: Sequence[_Look]) -> list[Span]:
    """Return the words that deny something which was not understood."""
    used = {look.denied.start for look in looks if look.denied is not None}
    said = {look.span.start for look in looks}  # "no" of "no" that is a condition of its own
    loose = [span for span in clause.with_sort("negations") if span.start not in used | said]
    return [span for span in loose if not (span.is_("unsure") or span.is_("likely"))]


def _without_condition(clause: Clause) -> Read:
    """Return "no filter" as a part that is missing; else ask what about the part."""
    parts = clause.having(PART)
    denials = clause.with_sort("negations")
    if (
        len(denials) == 1
        and clause.key_of(denials[0]) in ("no", "without")
        and parts
        and _stands_alone(clause, denials[0], parts[0])
    ):
        return _missing(clause, denials[0], parts[0])
    here = [span for span in parts if clause.here(span)]
    if here:
        return replace(
            note_only(clause, phrase("what_about", said=clause.said)), part=clause.here(meant_of(clause, here)[-1])[0]
        )
    return Read(unread=clause.words)


def _stands_alone(clause: Clause, denial: Span, subject: Span) -> bool:
    return set(range(denial.stop, subject.start)) <= clause.fillers and not clause.strange


def _missing(clause: Clause, denial: Span, subject: Span) -> Read:
    if clause.key_of(subject) in _EITHER_WAY:
        return asked(
            clause,
            phrase("no_switch_or_no_flame", said=clause.said),
            "found rollout switch missing",
            "flame not rolled out",
        )
    parts = clause.here(subject)
    if not parts:
        return not_here(clause, subject.of(PART)[0])
    key, like = _worst(parts, ("missing", "absent"))
    return _written(clause, [_Look(key, like, denial, subject, None)], [denial])


def _written(clause: Clause, looks: Sequence[_Look], likes: Sequence[Span]) -> Read:
    """Return the looks as entries with what stands beside them; nothing where a good and a bad of one part contradict."""
    if _contradicts(looks):
        return Read(unread=clause.words, part=looks[0].part)
    if any(look.like in ("missing", "absent") and _is_of_something_else(clause, look) for look in looks):
        return note_only(clause, phrase("what_is_missing", said=clause.said))
    if any(_verdict(look) == GOOD and (_turned_round(clause, look) or _is_a_reading(clause, look)) for look in looks):
        return Read(unread=clause.words, part=looks[0].part)
    subjects = [look.subject for look in looks if look.subject is not None and not _is_one_of_several(clause, look)]
    used = [*likes, *subjects, *(look.denied for look in looks if look.denied is not None)]
    beside = beside_of(
        clause, used, looks[0].part, [look.start for look in looks], [_is_strict(look) for look in looks]
    )
    if beside.unread:
        return Read(unread=beside.unread, part=looks[-1].part)
    if any(_is_of_a_meter(look, at, clause.situation) for look, at in zip(looks, beside.places, strict=True)):
        return Read(unread=clause.words, part=looks[-1].part)
    refused = _refused(clause, looks, beside)
    if refused is not None:
        return refused
    bodies = [body for at, look in enumerate(looks) for body in _bodies(clause, look, beside, at)]
    return Read(tuple(bodies), part=looks[-1].part)


def _is_of_a_meter(look: _Look, place: str, situation: Situation) -> bool:
    """Tell whether a reading or a set point would be lost in the place: "24v to valve, no gas", "-.85 closes, -.62 opens"."""
    if begins_with_volts(place) or (look.like in _STANDS and begins_with_a_figure(place)):
        return True
    if not may_hold_a_number(place):
        return False
    told = said_readings(place, places_of(situation.circuit, situation.nodes)).readings
    return any(one.name.own for one in told)


def _turned_round(clause: Clause, look: _Look) -> bool:
    """Tell whether a word of place right before a good word may take it back: "out of level", "off the good side"."""
    before = [span for span in clause.spans if span.stop <= look.span.start]
    return bool(before) and before[-1].is_("prepositions") and before[-1].stop == look.span.start


def _is_of_something_else(clause: Clause, look: _Look) -> bool:
    """Tell whether a word that means nothing known stands right beside "missing": "screws missing in flue" is no missing flue."""
    return bool({look.span.start - 1, look.span.stop} & set(clause.strange))


def _is_a_reading(clause: Clause, look: _Look) -> bool:
    """Tell whether what is called good is a reading and no part: "gas pressure good" says nothing of the valve."""
    return look.subject is not None and clause.keys[look.subject.stop - 1] in ("pressure", "manifold", "pressures")


def _is_one_of_several(clause: Clause, look: _Look) -> bool:
    """Tell whether a number beside its part says which one: "crack cell 3"; then the part's word belongs to the place."""
    subject = look.subject
    if subject is None or part(look.part).station != "exchanger":
        return False
    beside = (*clause.keys[subject.stop : subject.stop + 1], *clause.keys[max(0, subject.start - 1) : subject.start])
    return any(word.strip("#.").isdigit() for word in beside)


def _contradicts(looks: Sequence[_Look]) -> bool:
    verdicts: dict[str, set[str]] = {}
    for look in looks:
        if look.denied is None or _verdict(look) != SEEN:
            verdicts.setdefault(look.part, set()).add(_verdict(look))
    return any(GOOD in found and found - {GOOD, SEEN} for found in verdicts.values())


def _meant(look: _Look) -> tuple[str, bool]:
    """Return the condition with whether it was said to be absent: a denied good is a bad, a denied bad is not there."""
    if look.denied is not None and verdict_of(look.part, look.like) == GOOD:
        return _OPPOSITE.get(look.like, "not_ok"), False
    return look.like, look.denied is not None


def _verdict(look: _Look) -> str:
    like, absent = _meant(look)
    return SEEN if absent else verdict_of(look.part, like)


def _is_strict(look: _Look) -> bool:
    return _verdict(look) in (GOOD, SEEN)


def _refused(clause: Clause, looks: Sequence[_Look], beside: Beside) -> Read | None:
    """Return what stands against writing it: a good that is not sure, more cells looked at than there are."""
    for look in looks:
        words = look.part.replace("_", " ")
        asked_about = clause.keys[0] in _ASKING
        if _verdict(look) == GOOD and (beside.sure in ("unsure", "likely") or look.doubtful or asked_about):
            question = phrase("seen_order_not_sure", said=clause.said)
            return asked(clause, question, f"{words} ok", f"note {clause.said}", spoken_of=look.part)
        seen, of = beside.coverage
        if of is not None and seen is not None and not 1 <= seen <= of:
            question = phrase("seen_how_many", seen=seen, of=of)
            return asked(clause, question, f"{words} ok {of}/{of}", spoken_of=look.part)
    return None


def _bodies(clause: Clause, look: _Look, beside: Beside, at: int) -> Iterator[Body]:
    like, absent = _meant(look)
    if look.part in clause.situation.devices and like in _LEFT_SO and not absent:
        yield Abnormal(_LEFT_SO[like], look.part, True, found=True)
        return
    sure = "unsure" if look.doubtful else beside.sure
    seen, of = beside.coverage
    yield Condition(
        look.part,
        like,
        beside.places[at],
        beside.size_m if at == 0 else None,
        beside.method,
        sure,
        seen,
        of,
        (),
        absent,
    )
