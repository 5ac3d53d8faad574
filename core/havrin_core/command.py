"""``./havrin calc`` and ``./havrin assess``: the core from the command line, without the server."""

import csv
import json
import sys
from collections.abc import Callable
from pathlib import Path
from typing import Any

from havrin_core.batch.run import run
from havrin_core.commands_circuit import call, circuits, next_test, solve
from havrin_core.errors import CoreError
from havrin_core.language.labelled import answer_to, labelled
from havrin_core.language.score import SCORES, score, tallied
from havrin_core.output import assessment_to_dict
from havrin_core.physics.bulk import compute_file
from havrin_core.physics.calculations import calculation, calculation_names
from havrin_core.standing.assess import assess
from havrin_core.tape.bundle import read_bundle
from havrin_core.vocabulary.listing import vocabulary_to_dict
from havrin_core.wording.phrases import words

__all__ = [
    "assess_file",
    "batch",
    "calc",
    "calculation_names",
    "call",
    "circuits",
    "language",
    "log",
    "main",
    "next_test",
    "solve",
    "trace",
    "vocabulary",
]


def main(run: Callable[[], int]) -> int:
    """Run one command of the core; a refusal is one clear line.

    Exit status: 0 all well, 1 some rows were refused (each says why), 2 the file could not be read.
    """
    try:
        return run()
    except CoreError as refusal:
        print(f"havrin: {words(refusal.said)}", file=sys.stderr)
        return 2
    except (OSError, UnicodeDecodeError, json.JSONDecodeError, csv.Error) as refusal:
        print(f"havrin: {refusal}", file=sys.stderr)
        return 2


def log(file: str, mapping: str | None = None) -> int:
    """Print what the reader makes of an instrument's log, as JSON. ``mapping`` is a JSON file or text of what was chosen."""
    # dateutil is read here alone: every other command does without it
    from havrin_core.batch.logs import chosen_from_dict, log_to_dict
    from havrin_core.logs.reading import read_log

    found = read_log(Path(file).read_bytes(), chosen_from_dict(_json(mapping)))
    print(json.dumps(log_to_dict(found), ensure_ascii=False))
    return 0


def trace(file: str, options: str | None = None) -> int:
    """Print what is said of a trace, as JSON. ``file`` is a CSV of samples or an instrument's log.

    ``options`` is a JSON file or text: ``points`` by channel, ``marks`` (kind, at_s), ``circuit`` (a shipped name),
    ``clock_error_s``, and ``map`` as for a log.
    """
    # numpy and dateutil are read here alone: every other command does without them
    from havrin_core.batch.trace_file import trace_file

    print(json.dumps(trace_file(Path(file), _json(options)), ensure_ascii=False))
    return 0


def _json(given: str | None) -> dict[str, Any]:
    """Return JSON that was given as text or as the name of a file."""
    text = Path(given).read_text() if given and not given.lstrip().startswith("{") else given or "{}"
    found: dict[str, Any] = json.loads(text)
    return found


def calc(what: str, source: str, target: str) -> int:
    """Compute every row of ``source`` into ``target``; status 1 when some were refused. Raises UnknownName."""
    chosen = calculation(what)
    with (
        open(source, newline="", encoding="utf-8-sig") as reader,
        open(target, "w", newline="", encoding="utf-8") as writer,
    ):
        rows, bad = compute_file(chosen, reader, writer, lambda refusal: words(refusal.said))
    print(f"{rows} rows, {bad} with an error.", file=sys.stderr)
    return 1 if bad else 0


def assess_file(file: str) -> int:
    """Print the assessment of a visit bundle as JSON."""
    bundle = read_bundle(json.loads(Path(file).read_text(encoding="utf-8")))
    found = assess(bundle.unit, bundle.rules, bundle.visit)
    print(json.dumps(assessment_to_dict(found, bundle.unit, bundle.system), ensure_ascii=False, indent=1))
    return 0


def batch() -> int:
    """Answer JSON lines from standard input on standard output."""
    return run(sys.stdin, sys.stdout)


def language(file: str, show: bool = False) -> int:
    """Print how a file of labelled lines is understood, by group; with ``show`` also each line that is not right."""
    with open(file, encoding="utf-8") as source:
        rows = [(one, answer_to(one)) for one in labelled(source)]
    scores = [(one, score(one.expect, answer), answer) for one, answer in rows]
    if show:
        for one, found, answer in scores:
            if found not in ("right", "asked"):
                print(f"{found:10}{one.group:18}{one.line!r}: {answer.get('echo') or answer.get('unread')}")
    for group, size, counts in tallied([(one.group, found) for one, found, _ in scores]):
        print(f"{group:18}{size:5}  " + "  ".join(f"{name} {counts[name]}" for name in SCORES if counts[name]))
    return 0


def vocabulary() -> int:
    """Print everything that can be said of a unit as JSON."""
    print(json.dumps(vocabulary_to_dict(), ensure_ascii=False, indent=1))
    return 0
