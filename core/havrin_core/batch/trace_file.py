"""A file of samples, or an instrument's log, and what is said of its trace."""

from collections.abc import Mapping
from pathlib import Path
from typing import Any

import numpy as np

from havrin_core.batch.logs import chosen_from_dict
from havrin_core.batch.traces import trace_to_dict
from havrin_core.logs.reading import read_log
from havrin_core.logs.text import lines_of
from havrin_core.machine.circuit.read import shipped_circuit
from havrin_core.traces.events import Event
from havrin_core.traces.samples_csv import HEADER, read_samples
from havrin_core.traces.series import Channels, channels_of, series_of_log
from havrin_core.wording.phrases import words


def trace_file(path: Path, options: Mapping[str, Any]) -> dict[str, Any]:
    """Return what is said of the trace in a file. Raises BadDocument: neither samples nor a log whose time is sure."""
    raw = path.read_bytes()
    channels, problems = _channels(raw, options)
    circuit = options.get("circuit")
    marks = [Event(str(mark["kind"]), float(mark["at_s"])) for mark in options.get("marks") or ()]
    said = trace_to_dict(
        channels,
        points={str(name): float(point) for name, point in dict(options.get("points") or {}).items()},
        circuit=shipped_circuit(str(circuit)) if circuit else None,
        marks=marks,
        clock_error_s=float(options.get("clock_error_s") or 0.0),
    )
    return {**said, "problems": problems}


def _channels(raw: bytes, options: Mapping[str, Any]) -> tuple[Channels, list[str]]:
    lines, _ = lines_of(raw)
    if lines and tuple(cell.strip().lower() for cell in lines[0].lstrip("\ufeff").split(",")) == HEADER:
        found = read_samples(lines)
        return {name: (np.asarray(times), np.asarray(values)) for name, (times, values) in found.items()}, []
    log = read_log(raw, chosen_from_dict(dict(options.get("map") or {})))
    series = series_of_log(log)
    asked = [words(question.said) for question in log.questions]
    return channels_of(series), [*map(words, series.problems), *asked]
