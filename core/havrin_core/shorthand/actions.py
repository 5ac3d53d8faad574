"""What was done: a verb that leads its clause, or one in the past behind its part; never one that is denied, advised or planned."""

from collections.abc import Sequence
from itertools import pairwise

from havrin_core.phrases import phrase
from havrin_core.shorthand.asked_back import asked, not_here, note_only
from havrin_core.shorthand.words_of_clause import LIKE, PART, PHRASE, VERB, Clause, Read, Span
from havrin_core.tape.entries import AS_REPAIR, AS_TEMPORARY, AS_TRIAL, Action, Said
from havrin_core.vocabulary.catalogue import BAD, DANGER, WORN, verdict_of, whole_phrases
from havrin_core.vocabulary.catalogue import verb as verb_of

_SWITCHED = frozenset(("gas_supply", "line_supply", "gas_cock", "service_switch", "breaker"))
_STORED = frozenset(("storage", "other_appliance"))
_NO_PART_OF_THE_UNIT = frozenset(("access", "people", "animals", "label", "room"))
_WANTS = (
    "need",
    "could use",
    "due",
    "require",
    "time for",
    "ready for",
    "would benefit",
    "will need",
    "may need",
    "might need",
    "in need",
    "going to need",
    "gonna need",
)
_PIECES = frozenset(("gasket", "gaskets", "seal", "seals", "bearing", "bearings", "screw", "screws", "spring"))
_TAKEN_OUT = frozenset(
    ("nest", "animal", "iced", "snowed_in", "dirty", "plugged", "blocked", "wet", "sooted", "rusted")
)


def read_action(clause: Clause, spoken_of: str, *, done: bool) -> Read | None:
    """Return the actions of a clause; None where it says none. ``done``: it stood behind "did"."""
    verbs = _verbs(clause, done=done)
    if not verbs:
        return None
    if _denied(clause, verbs[0]):
        return note_only(clause, phrase("not_done_note", said=clause.said))
    objects = _objects(clause, verbs, spoken_of)
    if isinstance(objects, Read):
        return objects
    parts, used = objects
    if not parts:
        return asked(clause, phrase("which_part", said=clause.said)) if done else None
    sense, for_now = _sense(clause)
    detail = clause.typed([*verbs, *used, *for_now], frozenset(_joins(clause, used)))
    detail = " ".join((*_pieces(clause, used), detail)).strip()
    keys = list(dict.fromkeys((_verb_key(clause, verb, part), part) for part in parts for verb in verbs))
    bodies = tuple(
        Action(verb, "" if verb == "power_cycle" and part == "unit" else part, detail, sense) for verb, part in keys
    )
    return Read(bodies, part=parts[0])


def _pieces(clause: Clause, objects: Sequence[Span]) -> list[str]:
    """Return the words that name a piece of a part: "replaced inducer gasket" leaves the inducer itself as it was."""
    return [t.typed for span in objects for t in clause.tokens[span.start : span.stop] if t.key in _PIECES]


def read_intent(clause: Clause) -> Read | None:
    """Return advice as advice, and a plan or a wish as a question: neither was done."""
    says = [span for span in clause.having(VERB, PART, LIKE, PHRASE) if not set(span.of(PART)) & _NO_PART_OF_THE_UNIT]
    wanted = any(clause.key_of(span).startswith(_WANTS) for span in clause.with_sort("advice"))
    if clause.with_sort("advice") and says and (wanted or clause.having(VERB)):
        return Read((Said("advise", clause.said),))
    verbs = clause.having(VERB)
    if clause.with_sort("plans") and verbs:
        return asked(
            clause, phrase("planned_not_done", said=clause.said), f"advise {clause.said}", f"note {clause.said}"
        )
    return None


def _verbs(clause: Clause, *, done: bool) -> list[Span]:
    """Return the verbs of the clause that say what was done: the leading one with those joined to it, or those behind a part."""
    first = clause.first()
    every = list(clause.having(VERB))
    if first is None or (first.is_("looked") and not first.of(VERB)):
        return every if done else []
    leads = first in every and not (
        _is_named_part(clause, first)
        or _is_adjective(clause, first)
        or _is_no_setting(clause, first)
        or _is_how_it_is_now(clause, first)
    )
    if leads and (done or not first.is_("how_first")):
        return [first, *_joined(clause, first, every)]
    if done:
        return every
    return [span for span in every if _is_done_behind(clause, span)]


def _is_named_part(clause: Clause, span: Span) -> bool:
    """Tell whether a word that is verb and part is the part: "drain plugged" against "drain boiler"."""
    if not span.of(PART):
        return False
    behind = [other for other in clause.spans if other.start >= span.stop]
    return not any(other.of(PART) for other in behind[:2]) or bool(behind and behind[0].of(LIKE))


def _is_adjective(clause: Clause, first: Span) -> bool:
    """Tell whether "new" only tells which one: "new filter already dirty"."""
    behind = [span for span in clause.having(LIKE, PHRASE) if span.start >= first.stop]
    return clause.key_of(first) == "new" and any(not span.of(VERB) and not span.of(PART) for span in behind)


def _is_how_it_is_now(clause: Clause, first: Span) -> bool:
    """Tell whether "clear now" says how it is: no part stands beside a verb that is a condition, too."""
    plain = clause.key_of(first) in ("clear", "clean") and bool(first.of(LIKE))
    return plain and not clause.having(PART) and "now" in clause.keys


def _is_no_setting(clause: Clause, first: Span) -> bool:
    """Tell whether "set" says nothing that was set: "set screw loose on blower"."""
    return clause.key_of(first) == "set" and not {"to", "at"} & set(clause.keys)


def _joined(clause: Clause, first: Span, every: Sequence[Span]) -> list[Span]:
    """Return verbs that follow the first one with nothing but fillers between: "cleaned and adjusted burners"."""
    joined: list[Span] = []
    end = first.stop
    for span in every:
        if span.start >= end and set(range(end, span.start)) <= clause.fillers and not span.of(PART):
            joined.append(span)
            end = span.stop
    return joined


def _is_done_behind(clause: Clause, span: Span) -> bool:
    """Tell whether a verb behind its part says what was done to it, and nothing says how the part is."""
    if span.of(PART) or span.is_("how_behind") or clause.with_sort("others"):
        return False
    others = [s for s in clause.having(LIKE, PHRASE) if s is not span and s.start < span.start and not s.of(VERB)]
    return is_past(clause, span) and not others and not _alarms(clause, span)


def is_past(clause: Clause, span: Span) -> bool:
    """Tell whether a verb stands in the past."""
    return span.is_("past") or clause.key_of(span).split()[0].endswith("ed")


def _alarms(clause: Clause, span: Span) -> bool:
    """Tell whether a word that is verb and condition means harm to the part before it: "relief valve capped"."""
    before = [key for other in clause.having(PART) if other.start < span.start for key in clause.here(other)]
    return any(verdict_of(part, like) in (BAD, DANGER, WORN) for part in before for like in span.of(LIKE))


def _denied(clause: Clause, verb: Span) -> bool:
    """Tell whether a word before the verb says that it was not done."""
    return any(span.stop <= verb.start and (span.is_("not_done") or span.is_("negations")) for span in clause.spans)


def read_not_done(clause: Clause) -> Read | None:
    """Return "didn't clean burners" as a note: not done is neither done nor a finding."""
    for one, behind in pairwise(clause.spans):
        if one.is_("modals") and behind.of(VERB) and not is_past(clause, behind):
            return note_only(clause, phrase("not_done_note", said=clause.said))
    return None


def _objects(clause: Clause, verbs: Sequence[Span], spoken_of: str) -> tuple[list[str], list[Span]] | Read:
    """Return the parts that something was done to with their spans: those before the first word of place, else the first one."""
    inside = [verb.start for verb in verbs]
    parts = [span for span in clause.having(PART, PHRASE) if span.start not in inside and _parts_of(span)]
    usual = verb_of(verbs[0].of(VERB)[0]).of
    places = [span.start for span in clause.with_sort("prepositions") if span.start >= verbs[0].stop]
    near = [span for span in parts if not places or span.start < places[0]]
    if usual and not near:
        return [usual], []
    if not parts:
        if any(span.of(VERB)[0] == "power_cycle" for span in verbs):
            return ["unit"], []
        strange = [i for i in clause.strange if not clause.keys[i].lstrip(".")[:1].isdigit()]
        return ([spoken_of] if spoken_of and not strange else []), []
    heads = _heads(clause, near or parts[:1])
    keys = [_object_key(clause, span, verbs[0]) for span in heads]
    missing = [span for span, key in zip(heads, keys, strict=True) if not key]
    if missing:
        return not_here(clause, _parts_of(missing[0])[0])
    return keys, heads


def _parts_of(span: Span) -> tuple[str, ...]:
    """Return the parts that a span names: by itself, or as a whole phrase ("blown fuse")."""
    return span.of(PART) or tuple(whole_phrases()[said][0] for said in span.of(PHRASE))


def _object_key(clause: Clause, span: Span, verb: Span) -> str:
    here = [key for key in _parts_of(span) if key in clause.situation.parts]
    if len(here) > 1 and "register" in here and verb.of(VERB)[0] in ("open", "close"):
        return "register"
    return here[0] if here else ""


def _heads(clause: Clause, parts: Sequence[Span]) -> list[Span]:
    """Return the first part with those joined to it by "and" or a comma; of parts side by side the last one is meant."""
    heads: list[Span] = []
    for span in parts:
        if heads and span.start == heads[-1].stop:
            heads[-1] = span
        elif not heads or _are_joined(clause, heads[-1], span):
            heads.append(span)
    return heads


def _are_joined(clause: Clause, one: Span, other: Span) -> bool:
    between = clause.keys[one.stop : other.start]
    return bool(between) and set(between) <= {"and", "&", "the", "a", "an", "new"} and bool({"and", "&"} & set(between))


def _joins(clause: Clause, used: Sequence[Span]) -> set[int]:
    return {i for span in used for i in range(max(0, span.start - 1), span.start) if clause.keys[i] in ("and", "&")}


def _verb_key(clause: Clause, verb: Span, part: str) -> str:
    """Return the verb as it is meant of this part: boxes are moved out of the way, a switched thing is put on again."""
    keys = verb.of(VERB)
    if clause.key_of(verb) == "moved" and part not in _STORED:
        return "adjust"
    if keys[0] == "refit" and part in _SWITCHED:
        return "open"
    if keys[0] == "remove" and not clause.having(PART):
        return "clear"  # "nest in vent, removed"
    if keys[0] == "remove" and any(like in _TAKEN_OUT for span in clause.having(LIKE) for like in span.of(LIKE)):
        return "clear"  # "took nest out of flue"
    return keys[0]


def _sense(clause: Clause) -> tuple[str, tuple[Span, ...]]:
    for_now = clause.with_sort("for_now")
    if for_now:
        return AS_TEMPORARY, for_now
    trial = clause.situation.phase == "trial"
    return (AS_TRIAL if trial else AS_REPAIR), ()
