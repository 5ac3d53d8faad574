"""A unit: its kind (stations, paths, ties, what must be shown) with its own data plate."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import cached_property

from havrin_core.errors import BadDocument
from havrin_core.machine.circuit.model import Circuit
from havrin_core.machine.traits import traits_of
from havrin_core.phrases import phrase
from havrin_core.physics.atmosphere import barometric_pressure_pa
from havrin_core.physics.fuels import FUEL_NAMES, Fuel, shipped_fuel

STAGE_LABELS = {"only": "", "low": "low", "high": "high"}
EXCHANGERS: Mapping[str, str] = {
    "tubular": "Tubular",
    "clamshell": "Clamshell",
    "drum": "Drum",
    "sectional": "Sectional",
    "tube_bundle": "Tube bundle",
}
# Fields of the plate that are one of a few words: field -> (name, {word: how it reads})
PLATE_CHOICES: Mapping[str, tuple[str, Mapping[str, str]]] = {
    "vent_category": (
        "Vent category",
        {
            "I": "I: under suction, dry",
            "II": "II: under suction, wet",
            "III": "III: under pressure, dry",
            "IV": "IV: under pressure, wet",
        },
    ),
    "igniter": (
        "Igniter",
        {
            "silicon_carbide": "silicon carbide, 120 V",
            "silicon_carbide_24": "silicon carbide, 24 V",
            "silicon_nitride": "silicon nitride, voltage not on the plate",
            "silicon_nitride_120": "silicon nitride, 120 V",
            "silicon_nitride_80": "silicon nitride, 80 V",
            "silicon_nitride_24": "silicon nitride, 24 V",
        },
    ),
    "exchanger": ("Heat exchanger", EXCHANGERS),
    "input_basis": ("Input on the plate", {"gross": "by the gross heating value", "net": "by the net heating value"}),
}


@dataclass(frozen=True, slots=True)
class Stage:
    """One firing stage as plated. None means the plate was not read yet."""

    key: str
    input_w: float | None = None  # gross, sea level
    manifold_pa: float | None = None
    switch_makes_pa: float | None = None  # stamped point of its pressure switch, sign of suction dropped


@dataclass(frozen=True, slots=True)
class Plate:
    """The data plate, confirmed by hand; None where it was not read yet."""

    fuel: str
    stages: tuple[Stage, ...]
    supply_min_pa: float | None = None
    supply_max_pa: float | None = None
    rise_min_k: float | None = None
    rise_max_k: float | None = None
    supply_air_max_k: float | None = None
    static_max_pa: float | None = None
    blower_full_load_a: float | None = None
    flame_min_a: float | None = None
    exchanger_cells: int = 1
    water_relief_pa: float | None = None  # the relief valve's rating, gauge
    water_max_k: float | None = None
    water_rise_min_k: float | None = None
    water_rise_max_k: float | None = None
    vent_category: str | None = None  # a key of PLATE_CHOICES, as are those below
    igniter: str | None = None
    exchanger: str | None = None
    input_basis: str | None = None  # None: gross, as plates count where inputs are in Btu/h


@dataclass(frozen=True, slots=True)
class Station:
    """A place where something is read or looked at."""

    key: str
    name: str
    path: str
    quantity: str | None = None
    stage: str | None = None
    between: tuple[str, str] | None = None  # nodes of the circuit, for volts across
    caution: str = ""
    base: str = ""  # its key without the stage: stations of one place at several stages share it


@dataclass(frozen=True, slots=True)
class Path:
    """A column of the unit's drawing; ``direction`` is up or down, stations from top to bottom."""

    key: str
    name: str
    direction: str
    hint: str
    stations: tuple[Station, ...]


@dataclass(frozen=True, slots=True)
class Kind:
    """What all units of a kind share."""

    key: str
    name: str
    condensing: bool
    o2_doubt_pct: tuple[float, float]
    safety_devices: tuple[str, ...]
    ties: tuple[tuple[str, str], ...]
    must_show: Mapping[str, tuple[str, ...]] = field(default_factory=dict)
    modulating: bool = False  # "low" and "high" are the ends of its range
    circuits: Mapping[str, str] = field(default_factory=dict)  # top stage -> key of its circuit
    exchanger: str = ""  # key of EXCHANGERS where the plate says nothing; "" for a kind without one
    draft_hood: bool = False  # the vent draws by itself, past an open hood that can spill
    second_source: bool = False  # a heat pump shares the house with it: two lock-outs by outdoor temperature


@dataclass(frozen=True, slots=True)
class ManualLimit:
    """A limit out of the model's manual, canonical unit; ``stage`` None for every stage, ``page`` where it stands."""

    quantity: str
    low: float | None = None
    high: float | None = None
    stage: str | None = None
    page: str = ""


@dataclass(frozen=True, slots=True)
class CodeMeaning:
    """One row of a code chart. ``state`` is the state of the circuit's control in which it is shown, where known."""

    pattern: str
    meaning: str
    state: str = ""


@dataclass(frozen=True)
class Unit:
    """One unit, ready to be judged: its kind, plate, drawing, altitude, circuit, and what its manual says."""

    name: str
    kind: Kind
    plate: Plate
    paths: tuple[Path, ...]
    altitude_m: float
    circuit: Circuit | None = None  # with the codes of this unit's chart
    manual: tuple[ManualLimit, ...] = ()
    codes: Mapping[str, str] = field(default_factory=dict)  # pattern -> meaning, as its chart says
    installed_year: int | None = None
    surroundings: tuple[str, ...] = ()  # keys of suspects/odds.json

    @property
    def fuel(self) -> Fuel:
        """The plate's fuel."""
        return shipped_fuel(self.plate.fuel)

    @property
    def baro_pa(self) -> float:
        """Standard barometric pressure at the unit's altitude, Pa."""
        return barometric_pressure_pa(self.altitude_m)

    def manual_limit(self, quantity: str, stage: str | None) -> ManualLimit | None:
        """Return what the manual says of ``quantity``; a limit of the very stage goes before one of all stages."""
        rows = [row for row in self.manual if row.quantity == quantity and row.stage in (None, stage)]
        return max(rows, key=lambda row: row.stage is not None, default=None)

    @cached_property
    def stage_keys(self) -> tuple[str, ...]:
        """Firing stages from low to high."""
        return tuple(stage.key for stage in self.plate.stages)

    def stage(self, key: str) -> Stage:
        """Return the plate's stage ``key``; KeyError for one that the unit has not."""
        return {stage.key: stage for stage in self.plate.stages}[key]

    @cached_property
    def traits(self) -> frozenset[str]:
        """What it is, in words by which parts and bounds know it (machine/traits.py)."""
        return traits_of(self)

    def stations(self) -> tuple[Station, ...]:
        """All stations, path by path."""
        return self._stations

    @cached_property
    def _stations(self) -> tuple[Station, ...]:
        return tuple(station for path in self.paths for station in path.stations)

    def station_at(self, base: str, stage: str | None) -> str:
        """Return the key of the station ``base`` at ``stage``, of its only one where it has no stages; "" where there is none."""
        rows = [station for station in self.stations() if station.base == base]
        own = [station for station in rows if station.stage == stage]
        return (own or rows)[0].key if rows else ""


def check_plate(plate: Plate) -> None:
    """Refuse a plate that contradicts itself. Raises BadDocument with the field in ``value``."""
    if plate.fuel not in FUEL_NAMES:
        raise BadDocument(
            "plate_fuel", phrase("plates_fuel_none", fuel=plate.fuel, fuel_names=", ".join(FUEL_NAMES)), value="fuel"
        )
    keys = tuple(stage.key for stage in plate.stages)
    if keys not in (("only",), ("low", "high")):
        raise BadDocument("plate_stages", phrase("stages_are_only_low_high", keys=keys), value="stages")
    for field_name, (name, words) in PLATE_CHOICES.items():
        chosen = getattr(plate, field_name)
        if chosen is not None and chosen not in words:
            message = phrase("one_not", name=name, words=", ".join(words), chosen=chosen)
            raise BadDocument("plate_choice", message, value=field_name)
    for low, high, name in (
        (plate.supply_min_pa, plate.supply_max_pa, "supply pressure"),
        (plate.rise_min_k, plate.rise_max_k, "temperature rise"),
        (plate.water_rise_min_k, plate.water_rise_max_k, "water rise"),
    ):
        if low is not None and high is not None and not low < high:
            raise BadDocument("plate_order", phrase("plates_least_not_below_its", name=name), value=name)
