"""How sure a figure of a trace is, where its samples remember each other: generalised least squares over kinds of wandering.

What a channel wanders by is not known beforehand. So every kind that cells, gauges, hunting valves and wind make is tried,
each counts for as much as the samples speak for it, and the figure's error is spread over all of them.
Source: docs/formulas.md section 13.
"""

from dataclasses import dataclass
from functools import lru_cache
from math import log

import numpy as np

from havrin_core.quantities.student import certainty
from havrin_core.traces.series import Floats

_MEMORIES_S = (0.0, 0.7, 1.5, 3.0, 6.0, 12.0, 25.0)
_WHITE_SHARES = (0.0, 0.3, 0.7)  # of the variance: what each sample has for itself
_PERIODS_S = (4.0, 6.0, 9.0, 13.0, 19.0, 28.0)  # of hunting
_MOST_SAMPLES = 60
_LEAST_WEIGHT = 1e-4
_PLAIN_PRIOR, _HUNT_PRIOR = 10.0, 0.4


@dataclass(frozen=True, slots=True)
class Kind:
    """One kind of wandering: its memory, s, the white share of its variance, and its period, s, where it hunts."""

    memory_s: float
    white: float
    period_s: float = 0.0


KINDS = (
    Kind(0.0, 1.0),
    *(Kind(memory, white) for memory in _MEMORIES_S[1:] for white in _WHITE_SHARES),
    *(Kind(4 * period, white, period) for period in _PERIODS_S for white in (0.1, 0.5)),
)


# before any sample is seen, plain noise is as likely as all that remembers, and hunting a fifth as likely as the rest
_PRIOR = np.log([_PLAIN_PRIOR if kind.memory_s == 0 else _HUNT_PRIOR if kind.period_s else 1.0 for kind in KINDS])


@dataclass(frozen=True, slots=True)
class Fit:
    """Estimates of one coefficient under each kind of wandering, with errors and weights (their sum is 1).

    ``hunting`` is the weight of the kinds that come and go with a period; ``spread`` the scatter about the fit.
    """

    estimates: Floats
    errors: Floats
    weights: Floats
    freedom: float
    hunting: float
    spread: float
    likelihood: float

    @property
    def estimate(self) -> float:
        """The mean over all kinds."""
        return float(self.weights @ self.estimates)

    def confidence(self, value: float = 0.0) -> float:
        """Return the probability, 0 to 1, that the coefficient is not ``value`` by chance (two-sided)."""
        beyond = sum(
            weight * self._above(estimate, error, value)
            for estimate, error, weight in zip(self.estimates, self.errors, self.weights, strict=True)
        )
        return min(float(abs(2 * beyond - 1)), 1.0)

    def half_width(self, confidence: float = 0.95) -> float:
        """Return half the width of the interval around the estimate that holds the truth with ``confidence``."""
        low, high = 0.0, 60.0 * float(self.errors.max()) + 1e-15
        for _ in range(45):
            middle = 0.5 * (low + high)
            if self._within(middle) < confidence:
                low = middle
            else:
                high = middle
        return 0.5 * (low + high)

    def _within(self, half: float) -> float:
        centre = self.estimate
        return sum(
            float(weight) * (self._above(estimate, error, centre - half) - self._above(estimate, error, centre + half))
            for estimate, error, weight in zip(self.estimates, self.errors, self.weights, strict=True)
        )

    def _above(self, estimate: float, error: float, value: float) -> float:
        """Return the probability that a coefficient estimated so lies over ``value``."""
        t = (estimate - value) / max(error, 1e-15)
        two_sided = certainty(abs(t), self.freedom)
        return 0.5 * (1 + two_sided) if t >= 0 else 0.5 * (1 - two_sided)


def thinned(seconds: Floats, values: Floats) -> tuple[Floats, Floats]:
    """Return samples averaged in groups of neighbours, where there are more than a fit needs."""
    group = -(-len(seconds) // _MOST_SAMPLES)
    if group <= 1:
        return seconds, values
    count = len(seconds) // group * group
    shape = (-1, group)
    return seconds[:count].reshape(shape).mean(1), values[:count].reshape(shape).mean(1)


def fit(seconds: Floats, values: Floats, design: Floats, column: int, extra_variance: float = 0.0) -> Fit:
    """Return coefficient ``column`` of ``design`` (samples by coefficients), with its error under every kind of wandering.

    ``extra_variance`` is what the coefficient's error has besides: steps of the readout. Needs more samples than coefficients.
    """
    freedom = float(len(values) - design.shape[1])
    # a readout that never moves still has the scatter of its last digit
    floor = 1e-9 * (1.0 + float(np.abs(values).max()))
    columns = np.column_stack((design, values))
    rows = [
        _under(whitener, columns, column, floor) for whitener in _whiteners(np.round(seconds - seconds[0], 3).tobytes())
    ]
    found = np.array(rows)
    logs = found[:, 2] + _PRIOR
    logs -= logs.max()
    weights = np.exp(logs) / np.exp(logs).sum()
    weights = np.where(weights < _LEAST_WEIGHT, 0.0, weights)
    weights /= weights.sum()
    hunting = float(sum(w for w, kind in zip(weights, KINDS, strict=True) if kind.period_s))
    used = weights > 0
    return Fit(
        found[used, 0],
        np.sqrt(found[used, 1] + extra_variance),
        weights[used],
        freedom,
        hunting,
        float(np.sqrt(weights @ found[:, 3])),
        float(found[:, 2].max()),
    )


def _under(
    whitener: tuple[Floats | None, float], columns: Floats, column: int, floor: float
) -> tuple[float, float, float, float]:
    """Return (estimate, its variance, log likelihood of the residuals, variance of the samples) under one kind of wandering."""
    matrix, log_determinant = whitener
    scaled = columns if matrix is None else matrix @ columns
    known = columns.shape[1] - 1
    basis, triangle = np.linalg.qr(scaled[:, :known])
    target = scaled[:, known]
    inverse = np.linalg.inv(triangle)
    coefficients = inverse @ (basis.T @ target)
    left = float(np.sum((target - scaled[:, :known] @ coefficients) ** 2)) + floor * floor
    freedom = len(columns) - known
    variance = left / freedom
    likelihood = -0.5 * log_determinant - float(np.log(np.abs(np.diag(triangle))).sum()) - 0.5 * freedom * log(left)
    return float(coefficients[column]), variance * float(np.sum(inverse[column] ** 2)), likelihood, variance


@lru_cache(maxsize=8)
def _whiteners(seconds: bytes) -> tuple[tuple[Floats | None, float], ...]:
    """Return for every kind the matrix that takes its memory off samples at these seconds, and its log determinant.

    Kept, because the channels of one instrument share their seconds, and every one is fitted more than once.
    """
    times = np.frombuffer(seconds)
    apart = np.abs(times[:, None] - times[None, :])
    return tuple(_whitener(kind, apart) for kind in KINDS)


def _whitener(kind: Kind, apart: Floats) -> tuple[Floats | None, float]:
    if kind.memory_s == 0:
        return None, 0.0
    together = np.exp(-apart / kind.memory_s)
    if kind.period_s:
        together = together * np.cos(2 * np.pi * apart / kind.period_s)
    covariance = (1 - kind.white) * together
    covariance[np.diag_indices_from(covariance)] = 1.0 + 1e-6
    lower = np.linalg.cholesky(covariance)
    inverse: Floats = np.linalg.inv(lower)
    return inverse, 2 * float(np.log(np.diag(lower)).sum())
