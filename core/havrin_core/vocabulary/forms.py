"""Forms of a verb in the trade's English, and the ways to say that something does not do what it should."""

from collections.abc import Iterator

_IRREGULAR = {
    "run": "ran",
    "spin": "spun",
    "come": "came",
    "shut": "shut",
    "cut": "cut",
    "let": "let",
    "light": "lit",
    "make": "made",
    "hold": "held",
    "draw": "drew",
    "get": "got",
    "burn": "burned",
    "break": "broke",
}
_DOUBLED = frozenset(("run", "spin", "stop", "trip", "drop", "shut", "cut", "let", "get", "pop"))
_PARTS_TOO = frozenset(("drain", "seal", "spark", "fire"))  # "drain ok" is a drain, not what it does
_NOT_BASE = (
    "won't",
    "wont",
    "will not",
    "doesn't",
    "doesnt",
    "does not",
    "didn't",
    "didnt",
    "did not",
    "don't",
    "dont",
    "do not",
    "can't",
    "cant",
    "cannot",
    "can not",
    "couldn't",
    "could not",
    "wouldn't",
    "wouldnt",
    "would not",
    "never",
    "not",
    "refuses to",
    "refused to",
    "fails to",
    "failed to",
    "failing to",
    "unable to",
    "no longer",
)
_NOT_DOING = (
    "not",
    "isn't",
    "isnt",
    "is not",
    "wasn't",
    "wasnt",
    "was not",
    "aren't",
    "arent",
    "are not",
    "never",
    "no longer",
    "stopped",
    "quit",
)


def third_person(verb: str) -> str:
    """Return "runs" of "run"; of several words the first is bent."""
    first, rest = _parted(verb)
    bent = f"{first[:-1]}ies" if first.endswith("y") and first[-2:-1] not in "aeou" else first
    bent = bent if bent != first else f"{first}es" if first.endswith(("s", "sh", "ch", "x", "o")) else f"{first}s"
    return bent + rest


def doing(verb: str) -> str:
    """Return "running" of "run", "coming on" of "come on"."""
    first, rest = _parted(verb)
    if first in _DOUBLED:
        return f"{first}{first[-1]}ing{rest}"
    return f"{first[:-1] if first.endswith('e') and not first.endswith('ee') else first}ing{rest}"


def done(verb: str) -> str:
    """Return "started" of "start", "came on" of "come on"."""
    first, rest = _parted(verb)
    if first in _IRREGULAR:
        return _IRREGULAR[first] + rest
    if first in _DOUBLED:
        return f"{first}{first[-1]}ed{rest}"
    if first.endswith("y") and first[-2:-1] not in "aeou":
        return f"{first[:-1]}ied{rest}"
    return (f"{first}d" if first.endswith("e") else f"{first}ed") + rest


def not_done(verb: str) -> Iterator[str]:
    """Yield every way to say that something does not do ``verb``.

    >>> [said for said in not_done("come on") if said.startswith(("isn't", "never"))]
    ['never come on', "isn't coming on", 'never coming on', 'never comes on', 'never came on']
    """
    yield from (f"{no} {verb}" for no in _NOT_BASE)
    yield from (f"{no} {doing(verb)}" for no in _NOT_DOING)
    yield from (f"{no} {form}" for no in ("never", "no longer") for form in (third_person(verb), done(verb)))


def done_well(verb: str, ways: tuple[str, ...]) -> Iterator[str]:
    """Yield "runs quiet", "closing fine" and the like: a verb in any form with the way in which it was done."""
    plain = () if verb in _PARTS_TOO else (verb,)
    for form in (*plain, third_person(verb), doing(verb), done(verb)):
        yield from (f"{form} {way}" for way in ways)


def _parted(verb: str) -> tuple[str, str]:
    first, _, rest = verb.partition(" ")
    return first, f" {rest}" if rest else ""
