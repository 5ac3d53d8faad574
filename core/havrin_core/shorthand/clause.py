"""One clause without a verb of the bar in front: ``rod dirty``, ``crack cell 3 by borescope``, ``new igniter``, ``limit jumpered``.

Part, condition and action are looked for anywhere in it; what nothing uses is returned as unread, never dropped.
"""

import re
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace

from havrin_core.phrases import phrase
from havrin_core.quantities.units import find_unit
from havrin_core.shorthand.model import Ask, Situation
from havrin_core.shorthand.pieces import typed_pieces
from havrin_core.shorthand.tokens import FILLERS, NEGATIONS, PLACES, PREPOSITIONS, UNSURE, Token, tokens_of
from havrin_core.tape.entries import AS_REPAIR, AS_TEMPORARY, AS_TRIAL, Abnormal, Action, Body, Condition
from havrin_core.vocabulary.catalogue import BAD, DANGER, GOOD, SEEN, condition, part, verdict_of, whole_phrases
from havrin_core.vocabulary.index import Found, condition_index, part_index, phrase_index, verb_index
from havrin_core.vocabulary.methods import METHOD_WORDS

_MOST_SIZE_M = 1.0
_CIRCUMSTANCE = re.compile(
    r"(?P<main>.+?) (?P<under>(?:with|while|when) (?:the )?(?:blower|fan|pump|circulator|inducer)(?: is| was)? "
    r"(?:off|unplugged|disconnected|running|stopped|not running))",
    re.IGNORECASE,
)
# said of a safety device, these mean that somebody left it so
_LEFT_SO = {"bypassed": "bridged", "taped": "held", "propped": "held"}
_FOR_NOW = ("for the time being", "for now", "temporarily", "temporary")
_CONDITION_TOO = ("open", "opened", "closed", "shut", "off", "set", "lit", "drained", "filled", "tested", "cleared")
_OPPOSITE = {"ok": "not_ok", "clean": "not_ok", "open": "closed", "closed": "open", "full": "empty", "thawed": "frozen"}


@dataclass(frozen=True, slots=True)
class Read:
    """What a clause gave: bodies, or words that nothing used, or a question back."""

    bodies: tuple[Body, ...] = ()
    unread: tuple[str, ...] = ()
    asks: tuple[Ask, ...] = ()
    part: str = ""  # that it spoke of: "cleaned" behind "rod dirty" means the rod


def read_clause(text: str, situation: Situation, spoken_of: str = "", *, done: bool = False) -> Read:
    """Return what one clause says. ``done``: it stood behind "did", so it is an action or nothing."""
    main, under = _circumstance(text)
    if under:
        read = read_clause(main, situation, spoken_of, done=done)
        return replace(read, bodies=tuple(_under(body, under) for body in read.bodies))
    words = _Words(tokens_of(text), situation)
    if not words.tokens:
        return Read()
    action = words.action(spoken_of, done=done)
    if action is not None:
        return action
    if done:
        return Read(unread=words.rest())
    return words.condition(spoken_of)


def _circumstance(text: str) -> tuple[str, str]:
    """Return a clause, and the circumstance that it ends with: "limit trips | with blower off" speaks of the limit alone."""
    match = _CIRCUMSTANCE.fullmatch(text)
    return (match["main"], match["under"]) if match else (text, "")


def _under(body: Body, under: str) -> Body:
    """Return a finding with its circumstance kept word for word."""
    if isinstance(body, Condition):
        return replace(body, place=f"{body.place} {under}".strip())
    return replace(body, detail=f"{body.detail} {under}".strip()) if isinstance(body, Action) else body


class _Words:
    """The tokens of a clause, with what was used of them."""

    def __init__(self, tokens: list[Token], situation: Situation) -> None:
        self.tokens, self.situation = tokens, situation
        self.keys = [token.key for token in tokens]
        self.used: set[int] = set()
        self.placed: set[int] = set()  # of these, what says where

    def rest(self) -> tuple[str, ...]:
        """Return the words that nothing used, fillers apart."""
        return tuple(t.typed for i, t in enumerate(self.tokens) if i not in self.used and t.key not in FILLERS)

    def use(self, *found: Found) -> None:
        """Mark the tokens of ``found`` as used."""
        for one in found:
            self.used |= set(range(one.start, one.stop))

    # ---- actions

    def action(self, spoken_of: str, *, done: bool) -> Read | None:
        """Return an action where the clause has a verb that is not a condition here; None where it has none."""
        start = next((i for i, key in enumerate(self.keys) if key not in FILLERS), len(self.keys))
        by_method = self._method_at()
        verbs = [
            v
            for v in verb_index().every(self.keys)
            if (done or self._is_verb(v, start)) and not by_method & set(range(v.start, v.stop))
        ]
        if not verbs or self._negated(verbs[0].start):
            return None
        leads = done or verbs[0].start == start
        if not leads and self._says_wrong(verbs):
            return None  # "exchanger failed pressure test" tells how the exchanger is
        # a word that is both ("drain") is the part where another verb leads
        parts = [p for p in self._parts() if not any(v.start <= p.start < v.stop for v in verbs[:1])]
        verbs = [v for v in verbs if not any(p.start <= v.start < p.stop for p in parts)]
        key = parts[0].key if parts else spoken_of
        if not key and verbs[0].key != "power_cycle":
            return self._ask_part(verbs[0]) if done else None
        used = [v for v in verbs if not any(p.start <= v.start < p.stop for p in parts)]
        if not used:
            return None
        self.use(*used, *parts[:1])
        sense = self._sense()
        detail = self._detail(parts[1:])
        bodies = tuple(
            Action(v.key, "" if v.key == "power_cycle" and not key else key, detail, sense) for v in _each_once(used)
        )
        return Read(bodies, self.rest(), part=key)

    def _is_verb(self, found: Found, start: int) -> bool:
        """A verb leads its clause, or stands behind its part in a form that is no condition."""
        words = " ".join(self.keys[found.start : found.stop])
        if found.start == start:
            return words not in ("open", "closed", "shut", "off", "set", "lit", "short")
        return words not in _CONDITION_TOO and words not in _condition_words()

    def _says_wrong(self, verbs: Sequence[Found]) -> bool:
        """Tell whether words beside a trailing verb say that something is wrong, or deny it."""
        inside = {i for v in verbs for i in range(v.start, v.stop)}
        denied = any(key in NEGATIONS for i, key in enumerate(self.keys) if i not in inside)
        wrong = [
            c
            for c in condition_index().every(self.keys)
            if not inside & set(range(c.start, c.stop)) and c.key not in ("ok", "clean")
        ]
        return denied or bool(wrong)

    def _ask_part(self, verb: Found) -> Read:
        said = " ".join(t.typed for t in self.tokens)
        return Read(unread=tuple(t.typed for t in self.tokens), asks=(Ask(phrase("which_part", said=said)),))

    def _sense(self) -> str:
        text = " ".join(self.keys)
        for said in _FOR_NOW:
            if said in text:
                first = text[: text.index(said)].split()
                self.used |= set(range(len(first), len(first) + len(said.split())))
                return AS_TEMPORARY
        return AS_TRIAL if self.situation.phase == "trial" else AS_REPAIR

    def _detail(self, more: Sequence[Found]) -> str:
        """What follows an action is kept with it, word for word: which, how many, where, with what."""
        words = [t.typed for i, t in enumerate(self.tokens) if i not in self.used and t.key not in FILLERS]
        self.used = set(range(len(self.tokens)))
        return " ".join(words)

    # ---- conditions

    def condition(self, spoken_of: str) -> Read:
        """Return what a part was like."""
        method, sure, size = self._method(), self._sure(), self._size()
        whole = self._whole_phrase()
        if whole is not None:
            key, like, doubtful = whole_phrases()[whole.key]
            said_part, said = self._instead(whole, key, like)
            if said_part not in self.situation.parts:
                return self._not_here(said_part)
            self.use(whole, *self._same_again(key, like))
            return self._finish(said_part, said, whole.start, method, "unsure" if doubtful else sure, size)
        likes = self._conditions()
        parts = [p for p in self._parts() if not any(_lies_within(p, like) for like in likes)]
        if not likes:
            return self._nothing(parts)
        first = likes[0]
        key = parts[0].key if parts else condition(first.key).of or spoken_of
        if not key:
            return Read(unread=self._words(), asks=(Ask(phrase("which_part", said=self._said())),))
        if key not in self.situation.parts:
            return self._not_here(key)
        head = _head(parts, self.keys)
        key = head.key if head else key
        told = [like for like in likes if verdict_of(key, like.key) != SEEN or like is first]
        self.use(*told, *([head] if head else []))
        read = self._finish(key, first.key, first.start, method, sure, size)
        return self._second(read, told[1:])

    def _second(self, read: Read, likes: Sequence[Found]) -> Read:
        """A second condition of the same part in one clause ("rusted and loose") is its own finding; a good one beside a bad is asked back."""
        if not likes or not read.bodies or not isinstance(read.bodies[0], Condition):
            return read
        first = read.bodies[0]
        if any(verdict_of(first.part, like.key) == GOOD for like in likes) != (
            verdict_of(first.part, first.condition) == GOOD
        ):
            return Read(unread=self._words(), part=read.part)
        more = [
            replace(first, condition=like.key, place="")
            for like in {like.key: like for like in likes}.values()
            if like.key != first.condition
        ]
        return Read((*read.bodies, *more), read.unread, read.asks, read.part)

    def _finish(self, key: str, like: str, start: int, method: str, sure: str, size: float | None) -> Read:
        absent = self._negated(start)
        if absent and verdict_of(key, like) == GOOD:
            like, absent = _OPPOSITE.get(like, "not_ok"), False
        seen, of = self._coverage(key)
        verdict = SEEN if absent else verdict_of(key, like)
        place = self._place(strict=verdict in (GOOD, SEEN) or absent)
        if self.rest():
            self.used -= self.placed  # a place in words of its own is kept only with its entry
            return Read(unread=self.rest(), part=key)
        if verdict == GOOD and sure in ("unsure", "likely"):
            return Read(
                unread=self._words(),
                asks=(
                    Ask(
                        phrase("seen_order_not_sure", said=self._said()),
                        (f"{_words_of(key)} ok", f"note {self._said()}"),
                    ),
                ),
                part=key,
            )
        if of is not None and seen is not None and not 1 <= seen <= of:
            return Read(
                unread=self._words(),
                asks=(Ask(phrase("seen_how_many", seen=seen, of=of), (f"{_words_of(key)} ok {of}/{of}",)),),
                part=key,
            )
        if key in self.situation.devices and like in _LEFT_SO and not absent:
            return Read((Abnormal(_LEFT_SO[like], key, True, found=True),), part=key)
        return Read((Condition(key, like, place, size, method, sure, seen, of, (), absent),), part=key)

    def _instead(self, whole: Found, key: str, like: str) -> tuple[str, str]:
        """A single word like "cracked" speaks of the part that the clause names; only alone of the one it is usual for."""
        if whole.stop - whole.start > 1:
            return key, like
        others = [p for p in self._parts() if not whole.start <= p.start < whole.stop]
        head = _head(others, self.keys)
        if head is None:
            return key, like
        self.use(head)
        return head.key, like

    def _same_again(self, key: str, like: str) -> list[Found]:
        """Return the other phrases of the clause that say the very same: "symptoms: headache"."""
        rows = whole_phrases()
        return [f for f in phrase_index().every(self.keys) if rows[f.key][:2] == (key, like)]

    def _whole_phrase(self) -> Found | None:
        found = phrase_index().every(self.keys)
        found = [f for f in found if not self.used & set(range(f.start, f.stop))]
        longest = max(found, key=lambda f: f.stop - f.start, default=None)
        likes = self._conditions()
        if longest is not None and self._says_more(longest, likes):
            return None
        if longest is None or longest.stop - longest.start > 1:
            return longest
        # one word: where the clause has a longer condition ("cracked" in "rusted through, cracked"), the index of conditions reads it
        likes = condition_index().every(self.keys)
        several = len({c.key for c in likes}) > 1
        return None if several or any(c.stop - c.start > 1 for c in likes) else longest

    def _says_more(self, whole: Found, likes: Sequence[Found]) -> bool:
        """Tell whether part or condition reach beyond the phrase: "flame disturbed by blower", "cooling coil dirty", "pilot no flame"."""
        parts = part_index().every(self.keys, self.situation.parts)
        return (
            any(whole.start <= c.start < whole.stop < c.stop for c in likes)
            or any(p.start < whole.start < p.stop for p in parts)
            or (
                any(p.stop == whole.start for p in parts)
                and any((c.start, c.stop) == (whole.start, whole.stop) for c in likes)
            )
        )

    def _parts(self) -> list[Found]:
        every = part_index().every(self.keys, self.situation.parts)
        if not every:
            every = part_index().every(self.keys)
        return [p for p in every if not self.used & set(range(p.start, p.stop))]

    def _conditions(self) -> list[Found]:
        inside = {i for p in self._parts() for i in range(p.start, p.stop)}
        likes = [c for c in condition_index().every(self.keys) if not self.used & set(range(c.start, c.stop))]
        # "no" is both: a negation where a condition follows ("no soot"), else what is missing
        apart = [c for c in likes if not set(range(c.start, c.stop)) <= inside]
        meant = [c for c in apart if self.keys[c.start] != "no" or c.stop - c.start > 1]
        meant = meant or apart
        meant = [c for c in meant if self.keys[c.start : c.stop] != ["on"] or len(meant) == 1]
        return sorted(meant, key=lambda c: (self._weight(c), c.start))

    def _weight(self, found: Found) -> int:
        """What may be dangerous is read before what is good: a good word never hides a bad one."""
        parts = self._parts()
        key = parts[0].key if parts else condition(found.key).of
        verdict = verdict_of(key, found.key) if key else SEEN
        return {DANGER: 0, BAD: 1}.get(verdict, 3 if verdict == GOOD else 2)

    def _negated(self, start: int) -> bool:
        """Tell whether a negation that no phrase used stands before ``start``, and use it."""
        for index in range(start):
            if index not in self.used and self.keys[index] in NEGATIONS:
                self.used.add(index)
                return True
        return False

    def _nothing(self, parts: Sequence[Found]) -> Read:
        asks: tuple[Ask, ...] = ()
        if parts and parts[0].key in self.situation.parts:
            asks = (Ask(phrase("what_about", said=self._said()), (f"note {self._said()}",)),)
            return Read(unread=self._words(), asks=asks, part=parts[0].key)
        return Read(unread=self._words(), asks=asks)

    def _not_here(self, key: str) -> Read:
        name = part(key).name.lower()
        return Read(
            unread=self._words(), asks=(Ask(phrase("unit_has_no_what_meant", name=name), (f"note {self._said()}",)),)
        )

    def _words(self) -> tuple[str, ...]:
        return tuple(t.typed for t in self.tokens)

    def _said(self) -> str:
        return " ".join(t.typed for t in self.tokens)

    # ---- what stands beside

    def _method(self) -> str:
        at = sorted(self._method_at())
        self.used |= set(at)
        return METHOD_WORDS[" ".join(self.keys[index] for index in at[1:])] if at else ""

    def _method_at(self) -> set[int]:
        """Return where "by borescope", "by pressure test" stands."""
        for index, key in enumerate(self.keys):
            for count in (2, 1):
                said = self.keys[index + 1 : index + 1 + count]
                if key == "by" and " ".join(said) in METHOD_WORDS:
                    return set(range(index, index + 1 + len(said)))
        return set()

    def _sure(self) -> str:
        for index, key in enumerate(self.keys):
            if key in UNSURE and index not in self.used:
                self.used.add(index)
                if key == "could" and index + 1 < len(self.keys) and self.keys[index + 1] == "be":
                    self.used.add(index + 1)
                negated = index and self.keys[index - 1] == "not"
                if negated:
                    self.used.add(index - 1)
                return "unsure" if negated else UNSURE[key]
            if key == "looks" and index + 1 < len(self.keys) and self.keys[index + 1] == "like":
                self.used |= {index, index + 1}
                return "likely"
        return ""

    def _size(self) -> float | None:
        for index, token in enumerate(self.tokens):
            pieces = typed_pieces(" ".join(t.typed for t in self.tokens[index : index + 2]), "bore")
            unit = pieces[0][1] if pieces else None
            if token.key[:1].isdigit() and unit is not None and unit.to_si(pieces[0][0]) <= _MOST_SIZE_M:
                spelled = index + 1 < len(self.tokens) and find_unit(self.tokens[index + 1].typed, "bore") is not None
                self.used |= {index, index + 1} if spelled else {index}
                return float(unit.to_si(pieces[0][0]))
        return None

    def _coverage(self, key: str) -> tuple[int | None, int | None]:
        if part(key).station != "exchanger":
            return None, None
        for index, token in enumerate(self.tokens):
            seen, slash, of = token.key.partition("/")
            if slash and seen.isdigit() and of.isdigit():
                self.used.add(index)
                return int(seen), int(of)
            apart = self.keys[index : index + 3]
            if len(apart) == 3 and apart[0].isdigit() and apart[1] == "of" and apart[2].isdigit():
                self.used |= {index, index + 1, index + 2}
                return int(apart[0]), int(apart[2])
        return None, None

    def _place(self, *, strict: bool) -> str:
        """Take the words that say where; what says how it was stays unread. Behind a good finding only plain places count."""
        spared = {i for c in condition_index().every(self.keys) for i in range(c.start, c.stop)}
        place: list[int] = []
        follows = False
        for index, key in enumerate(self.keys):
            if self._is_counted(index):  # "cell 2", "tube 4": which one is part of the place
                place.append(index)
                continue
            if index in self.used:
                continue
            plain = key in PLACES or key in PREPOSITIONS or key.strip(".").isdigit() or key in FILLERS
            known = any(p.start <= index < p.stop for p in part_index().every(self.keys))
            says_how = (index in spared and key not in PLACES) or key in NEGATIONS
            if says_how or (strict and not plain and not (follows and known)):
                continue
            follows = follows or key in PREPOSITIONS or key in PLACES
            if key not in FILLERS:
                place.append(index)
        self.placed = set(place) - self.used
        self.used |= set(place)
        return " ".join(self.tokens[index].typed for index in place)

    def _is_counted(self, index: int) -> bool:
        after = self.keys[index + 1] if index + 1 < len(self.keys) else ""
        number = after.strip(".").isdigit() and index + 1 not in self.used
        return number and any(p.start <= index < p.stop for p in part_index().every(self.keys))


def _head(parts: Sequence[Found], keys: Sequence[str]) -> Found | None:
    """Return the part that is meant: of several side by side the last ("ps port"), else the first."""
    if not parts:
        return None
    head = parts[0]
    for nearest in parts[1:]:
        if nearest.start != head.stop:
            break
        head = nearest
    return head


def _lies_within(one: Found, other: Found) -> bool:
    """ "animal" within "animal in it" is no part of its own."""
    return other.start <= one.start and one.stop <= other.stop and other.stop - other.start > one.stop - one.start


def _each_once(found: Iterable[Found]) -> list[Found]:
    return list({one.key: one for one in found}.values())


def _words_of(key: str) -> str:
    return key.replace("_", " ")


def _condition_words() -> frozenset[str]:
    return frozenset(condition_index().words())
