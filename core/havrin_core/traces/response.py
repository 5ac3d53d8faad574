"""How late a channel follows: the dead time of its hose and the lag of its cell, read from a light-off or taken as usual."""

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from havrin_core.traces.series import Floats


@dataclass(frozen=True, slots=True)
class Response:
    """A channel is still as it was for ``dead_s``, then nears what it reads with the time constant ``lag_s``.

    ``measured``: a light-off showed it; ``borrowed``: that of another cell of the same instrument.
    """

    dead_s: float
    lag_s: float
    measured: bool = False
    borrowed: bool = False

    @property
    def settled_s(self) -> float:
        """When all but a fiftieth of a step is through."""
        return self.dead_s + 4 * self.lag_s


# Where nothing tells: pumped cells with a hose, probes of a thermocouple, gauges on a tube, meters
USUAL: Mapping[str, Response] = {
    "o2_dry_pct": Response(5.0, 7.0),
    "co_ppm_dry": Response(5.0, 9.0),
    "co2_dry_pct": Response(5.0, 7.0),
    "room_co_ppm": Response(5.0, 15.0),
    "flue_temp_k": Response(0.5, 8.0),
    "air_temp_k": Response(0.5, 8.0),
    "draft_pa": Response(0.05, 0.3),
}
_AT_ONCE = Response(0.0, 0.1)
_AHEAD_S, _AFTER_S, _LEAST_AFTER_S, _LEAST_DROP_PCT, _FRESH_O2_PCT = 15.0, 120.0, 15.0, 4.0, 19.0
_DRIFTS_S = 60.0  # only so long a fall shows a drift beside it
_DEADS_S = np.arange(0.0, 15.1, 0.5)
_LAGS_S = np.geomspace(0.4, 30.0, 40)


def usual_response(channel: str) -> Response:
    """Return how late ``channel`` usually follows."""
    return USUAL.get(channel.split("@")[0], _AT_ONCE)


def oxygen_response(seconds: Floats, oxygen: Floats, lit_s: float | None, until_s: float = np.inf) -> Response | None:
    """Return the response of an oxygen cell as a light-off shows it; None where the trace holds none.

    Dead time and lag are those whose first-order fall is nearest to the samples (least squares, with a drift beside it
    where it is long) until something else happens at ``until_s``. Without a known moment of light-off the dead time is
    as usual.
    """
    begin = lit_s if lit_s is not None else _first_drop(seconds, oxygen)
    if begin is None:
        return None
    before = oxygen[(seconds >= begin - _AHEAD_S) & (seconds < begin)]
    window = (seconds >= begin) & (seconds <= min(begin + _AFTER_S, until_s))
    times, values = seconds[window] - begin, oxygen[window]
    if len(before) < 2 or len(values) < 8 or times[-1] < _LEAST_AFTER_S:
        return None
    high = float(np.median(before))
    if high < _FRESH_O2_PCT or high - float(np.median(values[-max(len(values) // 4, 3) :])) < _LEAST_DROP_PCT:
        return None
    dead, lag = _nearest(times, values, high)
    return Response(USUAL["o2_dry_pct"].dead_s if lit_s is None else dead, lag, True)


def _nearest(times: Floats, values: Floats, high: float) -> tuple[float, float]:
    """Return dead time and lag of the fall from ``high`` that lies nearest to the samples: over a net, then finer ones."""
    dead, lag = _least(times, values - high, _DEADS_S[times[-1] > _DEADS_S], _LAGS_S)
    for finer in (0.25, 0.06):
        deads = np.maximum(dead + np.linspace(-2, 2, 9) * finer, 0.0)
        dead, lag = _least(times, values - high, deads, np.maximum(lag * (1 + np.linspace(-0.5, 0.5, 9) * finer), 0.3))
    return dead, lag


def _least(times: Floats, off: Floats, deads: Floats, lags: Floats) -> tuple[float, float]:
    """Return the pair that leaves the least sum of squares; the fall's depth, and a drift of a long one, are free."""
    gone = 1 - np.exp(-np.maximum(times - deads[:, None, None], 0) / lags[:, None])
    explained = _share(gone, off)
    if times[-1] > _DRIFTS_S:
        drift = gone * times
        drift -= (np.sum(drift * gone, -1) / np.sum(gone**2, -1))[..., None] * gone
        explained = explained + _share(drift, off)
    index = np.unravel_index(int(np.argmax(explained)), explained.shape)
    return float(deads[index[0]]), float(lags[index[1]])


def _share(column: Floats, off: Floats) -> Floats:
    """Return how much of the sum of squares of ``off`` each column takes."""
    taken: Floats = (column @ off) ** 2 / np.maximum(np.sum(column**2, -1), 1e-12)
    return taken


def _first_drop(seconds: Floats, oxygen: Floats) -> float | None:
    fresh = oxygen >= 19.5
    gone = np.flatnonzero(fresh[:-1] & (oxygen[1:] < 19.5))
    return float(seconds[gone[0]]) - 3.0 if len(gone) else None
