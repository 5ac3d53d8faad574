"""Which column holds which quantity: all are scored by their headers; where two fit, or one only nearly, it is asked."""

import re
import tomllib
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cache
from importlib import resources

from havrin_core.logs.units import parted, unit_named
from havrin_core.vocabulary.channels import VOLTS, leads_of, quantity_of, volts_between

DIMENSIONS: Mapping[str, str] = {
    "o2_dry_pct": "percent",
    "co_ppm_dry": "ppm",
    "co2_dry_pct": "percent",
    "flue_temp_k": "temperature",
    "air_temp_k": "temperature",
    "draft_pa": "pressure",
    "manifold_pa": "pressure",
    "supply_running_pa": "pressure",
    "flame_current_a": "current_small",
    "blower_current_a": "current",
    "inducer_current_a": "current",
    "room_co_ppm": "ppm",
}
TIME, SESSION = "time", "session"
_NODES = re.compile(
    r"(?P<word>volts?|voltage|spannung|tension|tensione|voltaje|napi[eę]cie|spanning|[uv])?[ (_]*"
    r"(?P<one>[a-z0-9]{1,5}) ?(?:-|–|→|/| to ) ?(?P<other>[a-z0-9]{1,5})\)?",
    re.IGNORECASE,
)
_VOLTS = ("V", "mV")
_APART = re.compile(r"[_.\-/#:()\[\]@,]+|(?<=[a-z])(?=[A-Z])")
_EXACT, _WORDS = 3, 2


@dataclass(frozen=True, slots=True)
class Candidates:
    """The columns that may hold a quantity: those that fit plainly, best first, and those whose header says something else, too."""

    plain: tuple[int, ...]
    qualified: tuple[int, ...]


@cache
def _table() -> Mapping[str, Mapping[str, tuple[str, ...]]]:
    text = (resources.files("havrin_core.logs") / "data" / "columns.toml").read_text(encoding="utf-8")
    return {name: {key: tuple(words) for key, words in row.items()} for name, row in tomllib.loads(text).items()}


def dimension_of(quantity: str) -> str:
    """Return the dimension of a channel that a log may hold. KeyError for one that it may not."""
    return "voltage" if leads_of(quantity) else DIMENSIONS[quantity]


def is_channel(quantity: str) -> bool:
    """Tell whether a log may hold ``quantity``: one that is known, or volts between two nodes."""
    return quantity in DIMENSIONS or (quantity_of(quantity) == VOLTS and leads_of(quantity) is not None)


def volts_in(headers: Sequence[str], units: Sequence[str]) -> Mapping[str, int]:
    """Return the columns whose header names two nodes and says that it is volts: by a word, its unit or the units row."""
    found: dict[str, int] = {}
    for index, header in enumerate(headers):
        name, said = parted(header)
        match = _NODES.fullmatch(name.strip())
        unit = unit_named(said or (units[index] if index < len(units) else ""), "voltage")
        if match and (match["word"] or unit in _VOLTS) and match["one"] != match["other"]:
            found.setdefault(volts_between(match["one"], match["other"]), index)
    return found


def candidates(headers: Sequence[str]) -> Mapping[str, Candidates]:
    """Return the columns of each quantity of time, and of the appliance's name, as far as the headers tell."""
    plain_names = [_plain(header) for header in headers]
    return {name: _of(name, plain_names) for name in (*DIMENSIONS, TIME, SESSION)}


def _of(quantity: str, names: Sequence[str]) -> Candidates:
    row = _table()[quantity]
    scored = [(_score(name, row), index) for index, name in enumerate(names)]
    fitting = [(score, index) for score, index in scored if score]
    qualified = tuple(index for _, index in fitting if _is_qualified(names[index], row))
    plain = [(score, index) for score, index in fitting if index not in qualified]
    best = max((score for score, _ in plain), default=0)
    return Candidates(tuple(index for score, index in plain if score == best), qualified)


def _plain(header: str) -> str:
    name = _APART.sub(" ", parted(header)[0].replace("₂", "2")).lower()
    return " ".join(name.replace(" %", "%").split())


def _score(name: str, row: Mapping[str, tuple[str, ...]]) -> int:
    if name in row["exact"]:
        return _EXACT
    return _WORDS if any(_stands_in(words, name) for words in row["words"]) else 0


def _is_qualified(name: str, row: Mapping[str, tuple[str, ...]]) -> bool:
    """Tell whether a header says more than the quantity's own name and a few harmless words: a limit, a net value, another place."""
    if name in row["exact"]:
        return False
    own = max((words for words in row["words"] if _stands_in(words, name)), key=len, default="")
    rest = f" {name} ".replace(f" {own} ", " ", 1).split()
    return any(word not in _table()["harmless"]["words"] for word in rest)


def _stands_in(words: str, name: str) -> bool:
    return f" {words} " in f" {name} "
