"""The flue of a stage, computed."""

from havrin_server.figures.schemas import Explained
from havrin_server.view_model import ViewModel, Words


class FlueOut(ViewModel):
    """The flue of one stage, computed."""

    stage: str
    label: str
    phase: str
    o2_dry_pct: float | None
    co2_dry_pct: float | None
    o2_half_width: float
    co2_half_width: float
    figures: list[Explained]
    says: list[str]
    cannot_say: list[str]
    doubts: list[Words]


class FuelLine(ViewModel):
    """The O2-CO2 line of a fuel: from (0, co2_max) to (20.946, 0)."""

    name: str
    co2_max_dry_pct: float
