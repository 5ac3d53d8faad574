"""Samples of a live channel, packed: milliseconds and single-precision values, compressed."""

import zlib
from collections.abc import Iterable, Sequence
from itertools import pairwise

import numpy as np

from havrin_core.errors import BadDocument
from havrin_core.phrases import phrase
from havrin_core.traces.series import Floats

MOST_SAMPLES = 5000  # of one batch


def pack(milliseconds: Sequence[int], values: Sequence[float]) -> bytes:
    """Return samples as bytes: int64 milliseconds as differences, float32 values, compressed."""
    times = np.asarray(milliseconds, dtype="<i8")
    steps = np.diff(times, prepend=np.int64(0))
    return zlib.compress(steps.tobytes() + np.asarray(values, dtype="<f4").tobytes(), 6)


def unpack(packed: bytes) -> tuple[np.ndarray, Floats]:
    """Return (milliseconds, values) of packed samples."""
    raw = zlib.decompress(packed)
    count = len(raw) // 12
    times = np.cumsum(np.frombuffer(raw[: 8 * count], dtype="<i8"))
    return times, np.frombuffer(raw[8 * count :], dtype="<f4").astype(float)


def joined(blocks: Iterable[bytes]) -> tuple[Floats, Floats]:
    """Return (seconds since the first sample's epoch 0, values) of many blocks in time order."""
    parts = [unpack(block) for block in blocks]
    if not parts:
        return np.array([]), np.array([])
    times = np.concatenate([t for t, _ in parts])
    values = np.concatenate([v for _, v in parts])
    order = np.argsort(times, kind="stable")
    return times[order] / 1000.0, values[order]


def checked(times_s: object, values: object, channel: str) -> tuple[list[float], list[float]]:
    """Return the samples that a device sent, as numbers. Raises BadDocument naming the channel."""
    if not isinstance(times_s, list) or not isinstance(values, list) or len(times_s) != len(values) or not times_s:
        raise BadDocument("samples_form", phrase("many_values_times_least_one", channel=channel), value=channel)
    if len(times_s) > MOST_SAMPLES:
        raise BadDocument(
            "samples_many",
            phrase("batch_holds_most_samples", channel=channel, most_samples=MOST_SAMPLES),
            value=channel,
        )
    for number in (*times_s, *values):
        if isinstance(number, bool) or not isinstance(number, int | float) or number != number or abs(number) > 1e12:
            raise BadDocument("samples_number", phrase("no_number", channel=channel, number=number), value=channel)
    if any(b < a for a, b in pairwise(times_s)):
        raise BadDocument("samples_order", phrase("times_run_forward_within_batch", channel=channel), value=channel)
    return [float(t) for t in times_s], [float(v) for v in values]
