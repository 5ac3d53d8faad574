"""What a reader made of a labelled line: right, asked, a note, refused, wrong or dangerous."""

from collections.abc import Iterator, Mapping, Sequence
from fnmatch import fnmatchcase
from typing import Any, Literal

Score = Literal["right", "asked", "note", "refused", "wrong", "dangerous"]
SCORES: tuple[Score, ...] = ("right", "asked", "note", "refused", "wrong", "dangerous")

Item = Mapping[str, Any]
_OF_LABEL = ("tol", "abs", "keeps", "or_ask", "never", "optional", "any", "items")
_GRAVE = ("bad", "danger")


def score(expect: Mapping[str, Any], answer: Mapping[str, Any]) -> Score:
    """Return how an answer of the machine interface stands against a label."""
    items: Sequence[Item] = answer.get("items") or ()
    writable = bool(answer.get("writable"))
    if writable and _dangerous(expect, items, str(answer.get("echo", ""))):
        return "dangerous"
    ways = expect.get("any") or [expect]
    if writable and any(_is_right({"keeps": expect.get("keeps", ()), **way}, items, answer) for way in ways):
        return "right"
    if writable:
        return "note" if items and all(_is_note(item) for item in items) else "wrong"
    if any(_is_left_open(way, answer) for way in ways):
        return "right"
    may_ask = expect.get("or_ask") or any(way.get("or_ask") for way in ways)
    return "asked" if _asks(answer) and may_ask else "refused"


def _is_left_open(way: Mapping[str, Any], answer: Mapping[str, Any]) -> bool:
    """Tell whether a way wants the line asked back, or kept as no more than a note, and that is what was answered."""
    return way.get("is") in ("ask", "note") and (
        _asks(answer) or (way["is"] == "note" and bool(answer.get("offer_note")))
    )


def _asks(answer: Mapping[str, Any]) -> bool:
    return bool(answer.get("ask"))


def _is_note(item: Item) -> bool:
    return item.get("is") == "said" and item.get("what") in ("note", "side_note")


def _is_right(way: Mapping[str, Any], items: Sequence[Item], answer: Mapping[str, Any]) -> bool:
    if way.get("is") in ("ask", "note"):
        return way["is"] == "note" and bool(items) and all(_is_note(item) for item in items)
    wanted = way.get("items") or [way]
    left = list(items)
    for one in wanted:
        found = next((item for item in left if fits(one, item)), None)
        if found is not None:
            left.remove(found)
        elif not one.get("optional"):
            return False
    return all(_is_harmless(item) for item in left) and _kept(way.get("keeps", ()), items, answer)


def _is_harmless(item: Item) -> bool:
    """Tell whether an item beside the right ones does no harm: words said, events, what was only seen, computed values."""
    if item.get("is") in ("said", "event"):
        return True
    return item.get("verdict") == "seen" or bool(item.get("computed_from"))


def _kept(keeps: Sequence[Sequence[str]], items: Sequence[Item], answer: Mapping[str, Any]) -> bool:
    said = f"{answer.get('echo', '')} {list(items)}".lower()
    return all(any(word.lower() in said for word in words) for words in keeps)


def fits(wanted: Mapping[str, Any], item: Item) -> bool:
    """Tell whether an item has the fields of a label."""
    return all(_field_fits(name, value, wanted, item) for name, value in wanted.items() if name not in _OF_LABEL)


def _field_fits(name: str, value: Any, wanted: Mapping[str, Any], item: Item) -> bool:
    if name == "value":
        return _near(value, item.get("value"), wanted)
    if name == "values":
        given = item.get("values") or ()
        return len(given) == len(value) and all(_near(v, g, wanted) for v, g in zip(value, given, strict=True))
    if name == "leads":
        given = frozenset(map(str, item.get("leads") or ()))
        pairs = value if value and isinstance(value[0], list) else [value]
        return any(frozenset(map(str, pair)) == given for pair in pairs)
    if name == "at":
        return any(_word_fits(value, item.get(key)) for key in ("station", "device", "part"))
    if name == "unsure":
        return not value or bool(item.get("sure"))
    if name == "patterns":
        given = [str(one) for one in item.get("patterns") or ()]
        return all(any(_spelled(one, spelling) for spelling in given) for one in value)
    if name in ("size_m", "seconds"):
        return isinstance(item.get(name), int | float) and abs(item[name] - value) <= 0.02 * abs(value) + 1e-9
    return _word_fits(value, item.get(name))


def _spelled(accepted: str, given: str) -> bool:
    return any(one.strip().replace(" ", "-") == given.replace(" ", "-") for one in str(accepted).split("/"))


def _near(value: float, given: Any, wanted: Mapping[str, Any]) -> bool:
    if not isinstance(given, int | float):
        return False
    off = abs(abs(value) - abs(given)) if wanted.get("abs") else abs(value - given)
    return bool(off <= wanted.get("tol", 0.004 * abs(value) + 1e-9))


def _word_fits(value: Any, given: Any) -> bool:
    if isinstance(value, list):
        return any(_word_fits(one, given) for one in value)
    if isinstance(value, str):
        return fnmatchcase(str(given or ""), value)
    return bool(value == given)


def _dangerous(expect: Mapping[str, Any], items: Sequence[Item], echo: str) -> bool:
    never = [*expect.get("never", ()), *(one for way in expect.get("any", ()) for one in way.get("never", ()))]
    if any(fits(one, item) for one in never for item in items):
        return True
    wanted = [one for way in (expect.get("any") or [expect]) for one in (way.get("items") or [way])]
    return (
        any(_unsaid_good(item, wanted) for item in items)
        or any(_other_value(item, wanted) for item in items)
        or _belittled(wanted, items)
    )


def _unsaid_good(item: Item, wanted: Sequence[Mapping[str, Any]]) -> bool:
    """Tell whether an item is a good finding or a passed proof that no label names."""
    good = item.get("verdict") == "good" or (item.get("is") == "proof" and item.get("passed") is True)
    return good and not any(fits(one, item) or _may_be_good(one) for one in wanted)


def _may_be_good(wanted: Mapping[str, Any]) -> bool:
    verdict = wanted.get("verdict")
    named = verdict if isinstance(verdict, list) else [verdict]
    return "good" in named or wanted.get("passed") is True


def _other_value(item: Item, wanted: Sequence[Mapping[str, Any]]) -> bool:
    """Tell whether an item is a reading of a named quantity with a value that no label gives."""
    if item.get("is") != "reading":
        return False
    same = [one for one in wanted if "value" in one and _word_fits(one.get("quantity"), item.get("quantity"))]
    return bool(same) and not any(_near(one["value"], item.get("value"), one) for one in same)


def _belittled(wanted: Sequence[Mapping[str, Any]], items: Sequence[Item]) -> bool:
    """Tell whether a danger that every way names was written as less, or as a mere note."""
    grave = [_verdicts(one) for one in wanted if one.get("is") != "ask"]
    if not grave or not all(verdicts and verdicts <= {"danger"} for verdicts in grave):
        return False
    return not any(item.get("verdict") == "danger" for item in items)


def _verdicts(wanted: Mapping[str, Any]) -> set[str]:
    verdict = wanted.get("verdict")
    return set(verdict) if isinstance(verdict, list) else {verdict} if isinstance(verdict, str) else set()


def tallied(scores: Sequence[tuple[str, Score]]) -> Iterator[tuple[str, int, Mapping[Score, int]]]:
    """Yield every group with its size and how often each score was given, "all" last."""
    groups = sorted({group for group, _ in scores})
    for group in (*groups, "all"):
        here = [found for name, found in scores if group in (name, "all")]
        yield group, len(here), {kind: here.count(kind) for kind in SCORES}
