"""How a computed number came about: what the page shows behind it."""

from dataclasses import dataclass

from havrin_core.phrases import Saying


@dataclass(frozen=True, slots=True)
class Input:
    """One number that went in: its name for people, SI value, dimension of quantities.units."""

    name: Saying
    value: float
    dimension: str


@dataclass(frozen=True, slots=True)
class Why:
    """Formula, what went in, where the formula comes from, and what to mind."""

    formula: Saying
    inputs: tuple[Input, ...]
    source: Saying
    note: Saying = ""
