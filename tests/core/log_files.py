"""Log files as instruments, phones and spreadsheets might write them, made from a truth that the reader does not see."""

import random
from dataclasses import dataclass, field

NAMES = {
    "o2_dry_pct": ("O2", "Oxygen", "O₂", "Sauerstoff", "Flue O2", "O2 dry", "Oxygène", "Ossigeno", "Tlen"),
    "co_ppm_dry": ("CO", "Carbon monoxide", "Kohlenmonoxid", "Monoxyde de carbone", "CO measured"),
    "co2_dry_pct": ("CO2", "CO₂", "Carbon dioxide", "Kohlendioxid"),
    "flue_temp_k": (
        "T flue",
        "Flue temp",
        "Stack temperature",
        "Abgastemperatur",
        "Temp fumées",
        "T spalin",
        "Temperatura fumi",
    ),
    "air_temp_k": ("T air", "Combustion air", "Ambient temp", "Verbrennungsluft", "Temp aire", "T powietrza"),
    "draft_pa": ("Draft", "Draught", "Zug", "Tirage", "Tiraggio"),
}
UNITS = {
    "o2_dry_pct": (("%", 1.0, 0.0, 1), ("Vol.-%", 1.0, 0.0, 2)),
    "co_ppm_dry": (("ppm", 1.0, 0.0, 0), ("mg/m³", 1.2497, 0.0, 1)),
    "co2_dry_pct": (("%", 1.0, 0.0, 1),),
    "flue_temp_k": (("°C", 1.0, -273.15, 1), ("°F", 1.8, -459.67, 1), ("K", 1.0, 0.0, 1)),
    "air_temp_k": (("°C", 1.0, -273.15, 1), ("°F", 1.8, -459.67, 0)),
    "draft_pa": (
        ("Pa", 1.0, 0.0, 1),
        ("hPa", 0.01, 0.0, 3),
        ("inWC", 1 / 249.08891, 0.0, 4),
        ("mmH2O", 1 / 9.80665, 0.0, 2),
    ),
}
NOTHINGS = ("", "-", "---", "n/a", "--")
OVERS = ("OVR", "OL", ">4000", "Over")
BESIDE = (
    "CO limit",
    "CO corr.",
    "CO undiluted",
    "Ambient CO",
    "T net",
    "Dew point",
    "Status",
    "Lambda",
    "Loss",
    "Efficiency",
    "Pump",
    "O2 ref",
)


@dataclass
class File:
    """A file with its truth: canonical values by quantity and row (None where nothing was written), seconds, rows over range."""

    text: str
    raw: bytes
    truth: dict[str, list[float | None]]
    seconds: list[float]
    over: list[int] = field(default_factory=list)
    how: dict[str, object] = field(default_factory=dict)


def make(seed: int) -> File:
    """Return one file; everything about it is drawn by ``seed``."""
    draw = random.Random(seed)
    delimiter = draw.choice([";", ",", "\t", "|"])
    comma = delimiter != "," and draw.random() < 0.5
    thousands = draw.random() < 0.3
    said = draw.choice(["brackets", "behind", "row", "cells", "none"])
    quantities = [
        "o2_dry_pct",
        "co_ppm_dry",
        *draw.sample(["co2_dry_pct", "flue_temp_k", "air_temp_k", "draft_pa"], draw.randint(1, 4)),
    ]
    rows = draw.randint(2, 40)
    units = {q: draw.choice(UNITS[q]) for q in quantities}
    truth: dict[str, list[float | None]] = {q: [] for q in quantities}
    usual = {
        "o2_dry_pct": 6.5,
        "co_ppm_dry": draw.choice([40.0, 1500.0]),
        "co2_dry_pct": 8.2,
        "flue_temp_k": 420.0,
        "air_temp_k": 294.0,
        "draft_pa": -12.0,
    }
    names = {q: draw.choice(NAMES[q]) for q in quantities}
    beside = draw.sample(BESIDE, draw.randint(0, 3))
    time = draw.choice(["clock", "iso", "seconds", "two columns", "am pm"])
    columns = [*_time_heads(time), *quantities, *beside]
    order = (
        columns
        if draw.random() < 0.5
        else [*_time_heads(time), *draw.sample([*quantities, *beside], len(quantities) + len(beside))]
    )
    heads, unit_row = [], []
    for column in order:
        unit = units[column][0] if column in quantities else ""
        name = names.get(column, column)
        heads.append({"brackets": f"{name} [{unit}]", "behind": f"{name} {unit}"}.get(said, name) if unit else name)
        unit_row.append(f"[{unit}]" if unit else "")
    every = draw.choice([1, 2, 5])
    body, over = [], []
    for row in range(rows):
        cells = []
        for column in order:
            if column in _time_heads(time):
                cells.append(_moment(time, column, row * every, comma))
            elif column in quantities:
                value = usual[column] * (1 + draw.uniform(-0.03, 0.03))
                unit, scale, offset, decimals = units[column]
                if draw.random() < 0.03 and row:
                    cells.append(draw.choice(NOTHINGS))
                    truth[column].append(None)
                elif column == "co_ppm_dry" and draw.random() < 0.02:
                    cells.append(draw.choice(OVERS))
                    over.append(row)
                    truth[column].append(None)
                else:
                    shown = round(value * scale + offset, decimals)
                    truth[column].append((shown - offset) / scale)
                    text = _number(shown, decimals, comma, thousands and delimiter != ",")
                    cells.append(f"{text} {unit}" if said == "cells" else text)
            elif column == "Status":
                cells.append("OK")
            else:
                cells.append(_number(draw.uniform(20, 90), 1, comma, False))
        body.append(cells)
    lines = ["Report of a measurement", f"Unit{delimiter}F-1", ""] if draw.random() < 0.5 else []
    lines.append(delimiter.join(heads))
    if said == "row":
        lines.append(delimiter.join(unit_row))
    for index, cells in enumerate(body):
        if index and draw.random() < 0.03:
            lines.append(delimiter.join(heads))
        lines.append(delimiter.join(cells) + (delimiter if draw.random() < 0.0 else ""))
    if draw.random() < 0.3:
        lines.append("End of record")
    text = draw.choice(["\n", "\r\n"]).join(lines) + "\n"
    encoding = draw.choice(["utf-8", "utf-8-sig", "utf-16", "utf-8"])
    how = {"delimiter": delimiter, "comma": comma, "said": said, "time": time, "units": units, "beside": beside}
    return File(text, text.encode(encoding), truth, [float(row * every) for row in range(rows)], over, how)


def _time_heads(time: str) -> list[str]:
    return ["Date", "Clock"] if time == "two columns" else ["Time"]


def _moment(time: str, column: str, seconds: int, comma: bool) -> str:
    start = 23 * 3600 + 59 * 60 + 30 + seconds
    day, clock = divmod(start, 86_400)
    hour, minute, second = clock // 3600, clock // 60 % 60, clock % 60
    if time == "seconds":
        return f"{seconds}{',' if comma else '.'}0"
    if time == "iso":
        return f"2026-01-{14 + day}T{hour:02d}:{minute:02d}:{second:02d}"
    if time == "am pm":
        return f"{hour % 12 or 12}:{minute:02d}:{second:02d} {'AM' if hour < 12 else 'PM'}"
    if column == "Date":
        return f"{14 + day}.01.2026"
    return f"{hour:02d}:{minute:02d}:{second:02d}"


def _number(value: float, decimals: int, comma: bool, thousands: bool) -> str:
    text = f"{value:,.{decimals}f}" if thousands else f"{value:.{decimals}f}"
    return text.translate(str.maketrans({",": ".", ".": ","})) if comma else text
