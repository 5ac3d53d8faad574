"""One door to words: every phrase has its sentence, nothing forms one elsewhere, nothing decides by reading one."""

import ast
import gettext
import json
import re
import string
from pathlib import Path

import pytest

import havrin_core
from havrin_core.batch.run import answer
from havrin_core.phrases import phrase, together
from havrin_core.rules.every import SAMPLES
from havrin_core.wording.language import speaking
from havrin_core.wording.phrases import sentences, words
from tests.core.trade import EVERY, sound_lines, unit_of

CORE = Path(havrin_core.__file__).parent
ROOT = CORE.parent.parent
FILES = [
    file for top in ("core", "server", "demo") for file in (ROOT / top).rglob("*.py") if "migrations" not in file.parts
]
TREES = {file: ast.parse(file.read_text(encoding="utf-8")) for file in FILES}


def phrases_used():
    """Yield file, line, key and part names of every phrase in the code."""
    for file, tree in TREES.items():
        for node in ast.walk(tree):
            if isinstance(node, ast.Call) and getattr(node.func, "id", "") == "phrase" and node.args:
                names = {word.arg for word in node.keywords}
                for key in keys_of(node.args[0]):
                    yield file, node.lineno, key, names


def keys_of(node):
    if isinstance(node, ast.IfExp):
        return [*keys_of(node.body), *keys_of(node.orelse)]
    return [node.value] if isinstance(node, ast.Constant) else []


def fields_of(sentence):
    return {name for _, name, _, _ in string.Formatter().parse(sentence) if name}


def test_every_phrase_has_its_sentence_and_all_of_its_parts():
    wrong = [
        f"{file.name}:{line} {key}"
        for file, line, key, names in phrases_used()
        if key not in sentences() or (names and fields_of(sentences()[key]) != names)
    ]
    assert wrong == []


def test_no_sentence_is_left_over():
    assert sentences().keys() - {key for _, _, key, _ in phrases_used()} == set()


def test_a_phrase_that_is_not_in_words_yet_cannot_slip_into_a_text():
    with pytest.raises(TypeError, match="not in words"):
        f"{phrase('number_missing', what='CO')}"
    assert words(together("CO", ": ", phrase("one_number"))) == "CO: one number"


# What may hold whole sentences: the door itself, what a person is asked to type as samples, tables of the docs.
_MAY = ("wording", "search/alike.py", "phrases.py", "command.py")
_SENTENCE = re.compile(r"^[A-Z“][^|]*\b[a-z]+ [a-z]+\b[^|]*[.?!]$")


def texts_in(tree):
    """Yield the string constants of a module that are no docstrings and no part of a raised TypeError or assert."""
    skipped = set()
    for node in ast.walk(tree):
        body = getattr(node, "body", None)
        if (
            isinstance(body, list)
            and body
            and isinstance(body[0], ast.Expr)
            and isinstance(body[0].value, ast.Constant)
        ):
            skipped.add(body[0].value)
        if isinstance(node, ast.Assert | ast.Raise):
            skipped |= set(ast.walk(node))
    yield from (
        node.value
        for node in ast.walk(tree)
        if isinstance(node, ast.Constant) and isinstance(node.value, str) and node not in skipped
    )


def test_no_module_of_the_core_forms_a_sentence_but_the_door():
    found = [
        (str(file.relative_to(CORE)), text)
        for file, tree in TREES.items()
        if CORE in file.parents and not str(file.relative_to(CORE)).startswith(_MAY)
        for text in texts_in(tree)
        if _SENTENCE.match(text)
    ]
    assert found == []


_SAYS = frozenset(
    (
        "words",
        "text",
        "reason_words",
        "missing_text",
        "because_text",
        "missing_how",
        "describe",
        "echo",
        "standing_title",
        "limit_text",
        "remark_words",
        "change_words",
        "ledger_text",
        "holds_words",
        "title",
        "part_name",
        "condition_name",
    )
)
_READS = frozenset(("split", "partition", "lower", "casefold", "startswith", "endswith", "find", "index", "count"))


def is_said(node):
    """Tell whether an expression is words that came through the door."""
    if isinstance(node, ast.Call):
        name = getattr(node.func, "id", "") or getattr(node.func, "attr", "")
        return name in _SAYS
    return False


def decides_by_reading(tree):
    """Yield the lines on which words are read, split or searched."""
    for node in ast.walk(tree):
        called = node.func if isinstance(node, ast.Call) else None
        if isinstance(called, ast.Attribute) and called.attr in _READS and is_said(called.value):
            yield node.lineno
        if isinstance(node, ast.Compare) and any(map(is_said, (node.left, *node.comparators))):
            yield node.lineno


def test_nothing_is_decided_by_reading_a_sentence():
    found = [(str(file.relative_to(ROOT)), line) for file, tree in TREES.items() for line in decides_by_reading(tree)]
    assert found == []


class Pseudo(gettext.NullTranslations):
    """A language that marks whatever went through the catalogue."""

    def gettext(self, message):
        return f"⟦{message}⟧"


INNERMOST = re.compile(r"⟦[^⟦⟧]*⟧")
WORD = re.compile(r"[A-Za-z]{3,}")
UNITS = frozenset(["inWC", "ppm", "kBtu", "cfm", "gpm", "Btu", "psi", "mbar", "kPa", "mph", "ohm", "min", "mmHg"])
MONTHS = frozenset(
    [
        "January",
        "February",
        "March",
        "April",
        "May",
        "June",
        "July",
        "August",
        "September",
        "October",
        "November",
        "December",
    ]
)


def left_over(said):
    """Return the words of ``said`` that did not come through the catalogue."""
    before = None
    while before != said:
        before, said = said, INNERMOST.sub(" ", said)
    return [word for word in WORD.findall(said) if word not in UNITS | MONTHS]


def said_by(answered):
    """Yield every text for people in a batch answer, apart from echoes of what was typed."""
    found = answered["assessment"]
    yield found["title"]
    for reason in found["reasons"]:
        yield reason["text"]
        yield from (lift["text"] for lift in reason["lifts"])
    yield from (item["text"] for item in found["missing"])
    yield from (ask["question"] for line in answered["lines"] for ask in line["ask"])


@pytest.mark.parametrize("kind", EVERY)
def test_in_another_language_no_english_sentence_is_left(kind):
    lines = [line for sample in SAMPLES for said in (*sample.opens, *sample.lifted) for line in said.split(" | ")]
    typed = set(WORD.findall(" ".join(lines)))
    for begin in range(0, len(lines), 30):
        request = {
            "op": "visit",
            "unit": unit_of(kind),
            "reason": "no_heat",
            "lines": [{"text": line} for line in [*sound_lines(kind)[:8], *lines[begin : begin + 30]]],
        }
        with speaking(Pseudo()):
            answered = answer(json.dumps(request))
        rest = {word for said in said_by(answered) for word in left_over(said)} - typed
        assert rest == set()
