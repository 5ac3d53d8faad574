"""A flue trace as SVG for paper."""

import numpy as np

from havrin_core.quantities.units import shown_unit
from havrin_core.traces.series import Series
from havrin_core.traces.steady import find_light_off, find_steady, reduce_for_drawing
from havrin_core.vocabulary.measurands import measurand

_WIDTH, _LANE, _LEFT = 680, 70, 70
_COLOURS = {"o2_dry_pct": "#1f6f8b", "co_ppm_dry": "#b3261e", "flue_temp_k": "#b8741a"}
_NAMES = {"o2_dry_pct": "O₂", "co_ppm_dry": "CO", "flue_temp_k": "Flue"}


def trace_svg(series: Series, system: str) -> str:
    """Return an SVG with one lane per channel, the steady window shaded and light-off marked."""
    seconds, channels = reduce_for_drawing(series, 300)
    lanes = [name for name in _COLOURS if name in channels and np.isfinite(channels[name]).any()]
    height = _LANE * len(lanes) + 24
    scale = (_WIDTH - _LEFT) / max(float(seconds[-1]), 1.0)
    parts = [
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {_WIDTH} {height}" font-family="Barlow" font-size="11">'
    ]
    steady, light_off = find_steady(series), find_light_off(series)
    if steady:
        x, width = _LEFT + steady.start_s * scale, (steady.end_s - steady.start_s) * scale
        parts.append(f'<rect x="{x:.1f}" y="0" width="{width:.1f}" height="{height - 20}" fill="#d5e6e8"/>')
    if light_off is not None:
        x = _LEFT + light_off * scale
        parts.append(
            f'<path d="M{x:.1f} 0V{height - 20}" stroke="#222" stroke-dasharray="2 2"/><text x="{x + 3:.1f}" y="{height - 8}">light-off</text>'
        )
    for index, name in enumerate(lanes):
        parts.append(_lane(name, seconds, channels[name], index, scale, system))
    parts.append(
        f'<text x="{_LEFT}" y="{height - 8}">0</text><text x="{_WIDTH - 40}" y="{height - 8}">{seconds[-1] / 60:.1f} min</text></svg>'
    )
    return "".join(parts)


def _lane(name: str, seconds: np.ndarray, values: np.ndarray, index: int, scale: float, system: str) -> str:
    unit = shown_unit(measurand(name).dimension, system)
    good = np.isfinite(values)
    shown = np.array([unit.from_si(float(v)) for v in values[good]])
    low, high = float(shown.min()), float(shown.max())
    span = max(high - low, 1e-6)
    top = index * _LANE + 8
    points = " ".join(
        f"{_LEFT + t * scale:.1f},{top + (_LANE - 20) * (1 - (v - low) / span):.1f}"
        for t, v in zip(seconds[good], shown, strict=True)
    )
    label = f'<text x="0" y="{top + 12}" fill="{_COLOURS[name]}" font-weight="600">{_NAMES[name]} {unit.symbol}</text>'
    ends = f'<text x="{_LEFT - 6}" y="{top + 10}" text-anchor="end">{high:.0f}</text><text x="{_LEFT - 6}" y="{top + _LANE - 18}" text-anchor="end">{low:.0f}</text>'
    return f'{label}{ends}<polyline points="{points}" fill="none" stroke="{_COLOURS[name]}" stroke-width="1.4"/>'
