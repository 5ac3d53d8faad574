"""How lines are read: how many a second, and how long the worst of many odd ones takes."""

import random
import string
import time
from collections.abc import Iterator
from pathlib import Path

from havrin_core.language.labelled import answer_to, labelled
from havrin_core.language.score import SCORES, score
from havrin_core.shorthand.model import Situation, situation_of
from havrin_core.shorthand.reader import MOST_CHARACTERS, read_line
from havrin_core.shorthand.slips import known_words
from havrin_core.tape.bundle import unit_from_dict

VISIBLE = Path("tests/reference/language/visible.jsonl")
ODD_LINES = 20_000
_LIMIT_MS = 50.0
_ODD = (
    "🔥",
    "…",
    "ß",
    "ñ",
    "漢字",
    "\t",
    "|",
    "((",
    "]]",
    "--",
    ",,,",
    "9" * 400,
    "1,200",
    "-",
    "?",
    "%",
    "°",
    "µA",
    "½",
    "\u202e",
)


def report() -> None:
    """Print every figure, one a line."""
    for name, figure in (*_understood(), *_speed(), *_odd()):
        print(f"language: {name}: {figure}")


def _understood() -> Iterator[tuple[str, str]]:
    rows = list(labelled(VISIBLE.open(encoding="utf-8")))
    found = [score(row.expect, answer_to(row)) for row in rows]
    yield f"labelled lines, of {len(rows)}", ", ".join(f"{kind} {found.count(kind)}" for kind in SCORES)


def _situations() -> list[tuple[str, Situation]]:
    rows = labelled(VISIBLE.open(encoding="utf-8"))
    return [(r.line, situation_of(unit_from_dict(r.unit), phase=r.phase, system=r.system)) for r in rows]


def _speed() -> Iterator[tuple[str, str]]:
    """Yield the lines a second of one core, each read once after the vocabulary is there."""
    pairs = _situations()
    read_line(*pairs[0])
    began = time.process_time()
    for line, there in pairs:
        read_line(line, there)
    yield "lines a second", f"{len(pairs) / (time.process_time() - began):.0f}"


def _odd() -> Iterator[tuple[str, str]]:
    """Yield the slowest of lines made of the vocabulary's words, numbers, letters and signs, up to the longest that is taken."""
    there = _situations()[0][1]
    worst, slow = (0.0, ""), 0
    for seed in range(ODD_LINES):
        line = odd_line(random.Random(seed))
        spent = _read_ms(line, there)
        if spent > _LIMIT_MS:  # read again: what the machine did meanwhile is not the line's
            spent = min(spent, _read_ms(line, there), _read_ms(line, there))
        slow += spent > _LIMIT_MS
        worst = max(worst, (spent, line))
    yield f"slowest of {ODD_LINES} odd lines", f"{worst[0]:.0f} ms ({worst[1][:60]!r} …)"
    yield f"odd lines over {_LIMIT_MS:.0f} ms", str(slow)


def _read_ms(line: str, there: Situation) -> float:
    began = time.process_time()
    read_line(line, there)
    return 1000 * (time.process_time() - began)


def odd_line(draw: random.Random) -> str:
    """Return a line that nobody would type: words of the trade, numbers, letters and signs in any order and length."""
    words = sorted(known_words())
    kinds = (
        lambda: draw.choice(words),
        lambda: str(draw.uniform(-10, 3000))[: draw.randint(1, 6)],
        lambda: "".join(draw.choices(string.ascii_lowercase, k=draw.randint(1, 12))),
        lambda: draw.choice(_ODD),
    )
    made = " ".join(draw.choices(kinds, weights=(6, 2, 2, 1))[0]() for _ in range(draw.choice((3, 8, 20, 90))))
    return made[:MOST_CHARACTERS]
