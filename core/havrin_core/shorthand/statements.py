"""Lines that begin with a verb of the bar: what was said, proved, put in and out."""

from collections.abc import Callable, Mapping
from dataclasses import replace
from datetime import date

from havrin_core.follow_up.cooling import MASSES, insulation_of
from havrin_core.follow_up.parts import known_parts, named_parts
from havrin_core.follow_up.plan import APPROVERS
from havrin_core.machine.circuit.codes import normal_pattern
from havrin_core.phrases import Saying, phrase
from havrin_core.quantities.dates import date_in
from havrin_core.shorthand.causes import read_cause
from havrin_core.shorthand.clause import Read, read_clause
from havrin_core.shorthand.model import Ask, Line, Problem, Situation
from havrin_core.shorthand.passed_over import read_passed_over
from havrin_core.shorthand.tokens import clauses_of, tokens_of
from havrin_core.shorthand.words import nearest, nearest_parts
from havrin_core.tape.entries import (
    MADE_SAFE,
    NOT_TOUCHED,
    RUNNING,
    WAITING,
    Abnormal,
    Action,
    Body,
    Code,
    Note,
    Proof,
    Said,
)
from havrin_core.vocabulary.abnormal import IN_VERBS, OUT_VERBS, WAYS
from havrin_core.vocabulary.index import part_index

_FOUND_ABNORMAL = {word: way for way in WAYS for word in way.found_words}
_MOST_PLACE = 40
_MOST_CODE = 40
_GOOD = ("ok", "good", "tight", "passed", "none", "yes", "no leak", "no leaks", "no bubbles", "holds")
_BAD = (
    "bad",
    "failed",
    "fails",
    "found",
    "yes leak",
    "no",
    "leaks",
    "leaking",
    "bubbles",
    "not ok",
    "not tight",
    "not good",
)
_WAYS_LEFT = {
    "running": RUNNING,
    "on": RUNNING,
    "off made safe": MADE_SAFE,
    "made safe": MADE_SAFE,
    "off and made safe": MADE_SAFE,
    "shut down": MADE_SAFE,
    "tagged": MADE_SAFE,
    "red tagged": MADE_SAFE,
    "not touched": NOT_TOUCHED,
    "untouched": NOT_TOUCHED,
}
_WAITING = ("off waiting for", "off, waiting for", "waiting for", "off until", "off waiting")
_WHOM = (
    "owner",
    "tenant",
    "manager",
    "customer",
    "caretaker",
    "facility manager",
    "gas company",
    "landlord",
    "wife",
    "husband",
    "office",
    "supervisor",
)
_MEANS = {
    "phone": "phone",
    "telephone": "phone",
    "call": "phone",
    "writing": "writing",
    "written": "writing",
    "mail": "mail",
    "email": "mail",
    "text": "message",
    "person": "in person",
}

Outcome = Body | tuple[Body, ...] | Problem | Read | tuple[Said, tuple[Ask, ...]]


def is_statement(verb: str) -> bool:
    """Tell whether a line that begins with ``verb`` says, proves, puts in or takes out something."""
    return verb == "code" or verb in _READERS


def read_statement(verb: str, rest: list[str], situation: Situation) -> Line:
    """Return the line that ``verb`` with its ``rest`` makes."""
    text = " ".join(rest)
    if verb == "code":
        return _codes(text, situation)
    return line_of(_READERS[verb](rest, text, situation), situation)


def line_of(outcome: Outcome, situation: Situation) -> Line:
    """Return the line that an outcome makes."""
    bodies: tuple[Body, ...] = ()
    problems: tuple[Problem, ...] = ()
    asks: tuple[Ask, ...] = ()
    unread: tuple[str, ...] = ()
    if isinstance(outcome, Problem):
        problems = (outcome,)
    elif isinstance(outcome, Read):
        bodies, unread, asks = outcome.bodies, outcome.unread, outcome.asks
    elif isinstance(outcome, tuple) and len(outcome) == 2 and isinstance(outcome[1], tuple):
        bodies, asks = (outcome[0],), outcome[1]
    else:
        bodies = outcome if isinstance(outcome, tuple) else (outcome,)  # type: ignore[assignment]
    return Line(bodies, problems, (), situation.phase, situation.stage, "", asks, unread)


def _codes(text: str, situation: Situation) -> Line:
    """Return one code, or several stored ones with commas between them, newest first."""
    patterns = [normal_pattern(piece) for piece in text.split(",") if piece.strip()]
    if not patterns or any(len(pattern) > _MOST_CODE for pattern in patterns):
        how = phrase("which_code_flashes_code_2")
        return line_of(Problem(text or "code", how), situation)
    unknown = [p for p in patterns if situation.codes and p not in situation.codes]
    doubts = tuple(phrase("code_not_on_chart", code=p) for p in unknown)
    # The newest is written last: the tape's newest code is the one that counts.
    bodies = tuple(Code(pattern) for pattern in reversed(patterns))
    return replace(line_of(bodies, situation), doubts=doubts, station="call")


def _did(rest: list[str], text: str, situation: Situation) -> Outcome:
    if not rest:
        return Problem("did", phrase("did_what_example_did_clean"))
    if rest[0].lower() in ("not", "never", "nothing"):
        return read_clauses(f"did {text}", situation)
    bodies: list[Body] = []
    spoken_of = ""
    for clause in clauses_of(text):
        read = read_clause(clause, situation, spoken_of, done=True)
        if read.asks and not read.bodies and read.asks[0].question.key != "which_part":
            return read
        if read.unread or read.asks or not read.bodies:
            what = phrase("what_done_which_part_write", text=text)
            return Problem(text, what, nearest_parts(text, "did change"))
        bodies += read.bodies
        spoken_of = read.part
    return tuple(bodies)


def _found(rest: list[str], text: str, situation: Situation) -> Outcome:
    low = [word.lower() for word in rest]
    for count in (2, 1):
        way = _FOUND_ABNORMAL.get(" ".join(low[:count]))
        if way is not None and len(rest) > count:
            after = rest[count + 1 :] if low[count] in ("on", "at", "across", "in") else rest[count:]
            device = _device(after, situation)
            if not isinstance(device, Problem) or way.key in ("bridged", "tee", "tap"):
                return _put_in(way.key, after, situation, found=True)
    if not rest:
        return Problem("found", phrase("found_what_example_found_soot"))
    return read_clauses(text, situation)


def read_clauses(text: str, situation: Situation) -> Read:
    """Return what the clauses of a line say together; where one is not understood, the whole line is asked back."""
    bodies: list[Body] = []
    unread: list[str] = []
    asks: list[Ask] = []
    spoken_of = ""
    for clause in clauses_of(text):
        read = read_clause(clause, situation, spoken_of)
        bodies += read.bodies
        unread += read.unread
        asks += read.asks
        spoken_of = read.part or spoken_of
    return Read(tuple(bodies), tuple(unread), tuple(asks))


def _device(rest: list[str], situation: Situation) -> str | Problem:
    """Return the part that the words name: a safety device of this unit before any other part of it."""
    keys = [token.key for token in tokens_of(" ".join(rest))]
    devices = frozenset(situation.devices)
    for among in (devices, situation.parts):
        found = part_index().every(keys, among)
        if found:
            return found[0].key
    known = ", ".join(device.replace("_", " ") for device in situation.devices)
    return Problem(" ".join(rest) or "?", phrase("which_device_here", known=known), nearest(" ".join(rest)))


def _rest_of_device(rest: list[str], device: str) -> list[str]:
    """Return the words that do not name the device."""
    tokens = tokens_of(" ".join(rest))
    found = part_index().every([t.key for t in tokens], frozenset((device,)))
    used = {i for f in found[:1] for i in range(f.start, f.stop)}
    return [t.typed for i, t in enumerate(tokens) if i not in used]


def _where(how: str, rest: list[str], situation: Situation) -> str | Problem:
    """Return the device or place: a known device where the way wants one, else the words themselves."""
    device = _device(rest, situation)
    way = next(way for way in WAYS if way.key == how)
    if not isinstance(device, Problem):
        keeps = _rest_of_device(rest, device)
        plain = [
            word
            for word in keeps
            if word.lower() not in ("the", "a", "switch", "in", "at", "on", "lead", "wire", "port", "of")
        ]
        # "alter blower speed to high": what is said beside the part belongs to it
        return " ".join(rest).lower() if plain and not way.known_devices_only and not way.bypasses else device
    if way.known_devices_only:
        return device
    text = " ".join(rest).lower()
    if not text or len(text) > _MOST_PLACE:
        return Problem(text or how, phrase("where_say_few_words_manifold", verb_in=way.verb_in))
    return text


def _put_in(how: str, rest: list[str], situation: Situation, *, found: bool = False) -> Outcome:
    device = _where(how, rest, situation)
    return device if isinstance(device, Problem) else Abnormal(how, device, True, found)


def _abnormal_in(how: str) -> Callable[[list[str], str, Situation], Outcome]:
    return lambda rest, text, situation: _put_in(how, rest, situation)


def _abnormal_out(how: str) -> Callable[[list[str], str, Situation], Outcome]:
    def read(rest: list[str], text: str, situation: Situation) -> Outcome:
        device = _where(how, rest, situation)
        return device if isinstance(device, Problem) else Abnormal(how, device, False)

    return read


def _device_test(passed: bool) -> Callable[[list[str], str, Situation], Outcome]:
    def read(rest: list[str], text: str, situation: Situation) -> Outcome:
        device = _device(rest, situation)
        if isinstance(device, Problem):
            return device
        left = [
            w
            for w in _rest_of_device(rest, device)
            if w.lower() not in ("the", "switch", "acts", "ok", "good", "too", "again", "and")
        ]
        if any(word.lower() in ("not", "never", "didn't") for word in left):
            return Read(unread=tuple(left))
        return Proof("device", passed, 1, device, " ".join(left))

    return read


def _leak(rest: list[str], text: str, situation: Situation) -> Outcome:
    word = text.lower().removeprefix("check ").removeprefix("test ").strip()
    if word in _GOOD:
        return Proof("leak", True)
    if word in _BAD:
        return Proof("leak", False)
    if word.startswith(("at ", "on ", "in ")):
        return read_clauses(f"leak {text}", situation)
    return Problem(text or "leak", phrase("how_did_leak_check_end"))


def _cycles(rest: list[str], text: str, situation: Situation) -> Outcome:
    if not rest or not rest[0].isdigit() or not 1 <= int(rest[0]) <= 99:
        return Problem(text or "cycles", phrase("how_many_full_cycles_were"))
    words = [word.lower() for word in rest[1:]]
    passed = not any(word in ("failed", "bad", "not", "no", "fails") for word in words)
    left = [
        word
        for word in words
        if word not in ("failed", "bad", "ok", "good", "watched", "cycles", "times", "full", "fails")
    ]
    return Read(unread=tuple(left)) if left else Proof("cycles", passed, int(rest[0]))


def _told_whom(text: str) -> tuple[tuple[str, ...], str]:
    keys = {token.key for token in tokens_of(text)}
    low = " ".join(token.key for token in tokens_of(text))
    whom = tuple(name for name in _WHOM if name in keys or (" " in name and name in low))
    means = next((said for word, said in _MEANS.items() if word in keys), "")
    return whom, means


def _shut(rest: list[str], text: str, situation: Situation) -> Outcome:
    words = " ".join(rest[1:]) if rest and rest[0].lower().strip(",;:") == "down" else text
    whom, means = _told_whom(words) if "told" in [token.key for token in tokens_of(words)] else ((), "")
    return Said("leaves", words, state=MADE_SAFE, told=whom or (("told",) if _says_told(words) else ()), means=means)


def _says_told(words: str) -> bool:
    return "told" in [token.key for token in tokens_of(words)]


def _leaves(rest: list[str], text: str, situation: Situation) -> Outcome:
    low = text.lower().strip()
    for said in _WAITING:
        if low.startswith(said):
            return Said("leaves", text[len(said) :].strip(), state=WAITING, until=_date(text, situation))
    for said, way in sorted(_WAYS_LEFT.items(), key=lambda row: -len(row[0])):
        if low.startswith(said):
            words = text[len(said) :].strip(" ,:")
            whom, means = _told_whom(words) if _says_told(words) else ((), "")
            return Said("leaves", words, state=way, told=whom, means=means)
    return Problem(text or "leaves", phrase("how_left_leaves_running_made"))


def _told(rest: list[str], text: str, situation: Situation) -> Outcome:
    if not text:
        return Problem("told", phrase("told_whom_example_told_owner"))
    whom, means = _told_whom(text)
    return Said("told", text, told=whom or (rest[0].lower(),), means=means)


def _date(text: str, situation: Situation) -> date | None:
    return date_in(text, situation.today) if situation.today else None


def _worded(name: str, label: Saying) -> Callable[[list[str], str, Situation], Outcome]:
    def read(rest: list[str], text: str, situation: Situation) -> Outcome:
        if not text:
            return Problem(name, phrase("say_few_words", label=label))
        parts = named_parts(text) if name == "order" else ()
        return Said(name, text, until=_date(text, situation), parts=parts)

    return read


def _levelled(name: str, allowed: tuple[int, ...]) -> Callable[[list[str], str, Situation], Outcome]:
    def read(rest: list[str], text: str, situation: Situation) -> Outcome:
        if len(rest) < 2 or not rest[0].isdigit() or int(rest[0]) not in allowed:
            levels = ", ".join(str(n) for n in allowed)
            return Problem(
                text or name, phrase("write_level_reason_levels", name=name, allowed=allowed[0], levels=levels)
            )
        return Said(name, " ".join(rest[1:]), int(rest[0]))

    return read


def _answered(name: str, label: Saying) -> Callable[[list[str], str, Situation], Outcome]:
    def read(rest: list[str], text: str, situation: Situation) -> Outcome:
        if not rest or rest[0].lower() not in APPROVERS:
            return Problem(
                text or name,
                phrase("who_which_part_owner_inducer", label=label, name=name, approvers=", ".join(APPROVERS)),
            )
        who = rest[0].lower()
        return Said(name, " ".join([who, *rest[1:]]), who=who, parts=named_parts(" ".join(rest[1:])))

    return read


def _dated(name: str, label: Saying) -> Callable[[list[str], str, Situation], Outcome]:
    def read(rest: list[str], text: str, situation: Situation) -> Outcome:
        if date_in(text, date.min) is None:
            return Problem(text or name, phrase("which_day_2026_12_01", label=label))
        return Said(name, text, until=_date(text, situation), parts=known_parts(text) if name == "arrives" else ())

    return read


_BUILDING: Mapping[str, Mapping[str, str]] = {
    "state": {
        **{word: word for word in MASSES},
        "timber": "light",
        "wood": "light",
        "brick": "heavy",
        "stone": "heavy",
    },
    "condition": {
        "poor": "poor",
        "uninsulated": "poor",
        "old": "poor",
        "good": "good",
        "insulated": "good",
        "new": "good",
    },
    "means": {"draughty": "draughty", "drafty": "draughty", "leaky": "draughty", "tight": "tight"},
}


def _building(rest: list[str], text: str, situation: Situation) -> Outcome:
    """``building heavy poor draughty`` or ``building light built 1962``: each property by one word, none skipped."""
    found: dict[str, str] = {}
    words = [word.lower().strip(",") for word in rest]
    if "built" in words[:-1] and (year := words[words.index("built") + 1]).isdigit():
        found["condition"] = insulation_of(int(year))
        words = [word for word in words if word not in ("built", year)]
    for word in words:
        field = next((name for name, known in _BUILDING.items() if word in known and name not in found), None)
        if field is None:
            return Problem(word, phrase("how_long_does_keep_its"))
        found[field] = _BUILDING[field][word]
    if not found:
        return Problem(text or "building", phrase("how_long_does_keep_its"))
    mass, insulation, draughts = (found.get(name, "") for name in _BUILDING)
    return Said("building", text.lower(), state=mass, condition=insulation, means=draughts)


def _cause(rest: list[str], text: str, situation: Situation) -> Outcome:
    return read_cause(text, situation)


def _note(rest: list[str], text: str, situation: Situation) -> Outcome:
    if not text:
        return Problem("note", phrase("note_needs_its_words"))
    for prefix in ("for owner:", "for the owner:", "owner:"):
        if text.lower().startswith(prefix):
            return Note(text[len(prefix) :].strip(), for_owner=True)
    return Note(text)


def _side(rest: list[str], text: str, situation: Situation) -> Outcome:
    return Note(text, for_owner=True, side=True) if text else Problem("side", phrase("what_seen_other_system"))


def _disable(rest: list[str], text: str, situation: Situation) -> Outcome:
    if text.lower().startswith(("lead", "wire")):
        return Abnormal("lifted", text.lower(), True, on_purpose=True)
    return Action("disable", "unit", text)


def _power(rest: list[str], text: str, situation: Situation) -> Outcome:
    if text.lower() in ("off and on", "cycle", "cycled", "off on"):
        return Action("power_cycle", "")
    return read_clauses(f"power {text}", situation)


def _skip(rest: list[str], text: str, situation: Situation) -> Outcome:
    return read_passed_over(rest, situation) or read_clauses(f"skip {text}", situation)


_READERS: Mapping[str, Callable[[list[str], str, Situation], Outcome]] = {
    "did": _did,
    "found": _found,
    "saw": _found,
    **{verb: _abnormal_in(way.key) for verb, way in IN_VERBS.items()},
    **{verb: _abnormal_out(way.key) for verb, way in OUT_VERBS.items()},
    "leak": _leak,
    "cycles": _cycles,
    "proved": _device_test(True),
    "fails": _device_test(False),
    "cause": _cause,
    "advise": _worded("advise", "Advice"),
    "refused": _worded("refuse", "Refused"),
    "cannot": _worded("cannot", phrase("cannot_put_right_now")),
    "told": _told,
    "building": _building,
    "vulnerable": _worded("vulnerable", phrase("cold_would_harm")),
    "tempheat": _worded("tempheat", phrase("heat_time_being")),
    "drained": _worded("drained", "Drained"),
    "part": _worded("order", phrase("order")),
    "approve": _answered("approve", phrase("needs_yes")),
    "approved": _answered("approved", "Approved"),
    "declined": _answered("declined", "Declined"),
    "arrives": _dated("arrives", "Arrives"),
    "again": _dated("again", phrase("next_visit")),
    "temporary": _worded("temporary", phrase("temporary_repair")),
    "lasting": _worded("lasting", phrase("lasting_repair")),
    "shut": _shut,
    "leaves": _leaves,
    "untag": _worded("untag", phrase("tag_off_back_service")),
    "stricter": _levelled("stricter", (2, 3, 4)),
    "override": _levelled("override", (1, 2)),
    "putback": lambda rest, text, situation: Read(unread=tuple(rest)) if rest else Proof("put_back", True),
    "phoned": _worded("call", phrase("telephone")),
    "complaint": _worded("complaint", "Complaint"),
    "disable": _disable,
    "power": _power,
    "side": _side,
    "note": _note,
    "skip": _skip,
}
