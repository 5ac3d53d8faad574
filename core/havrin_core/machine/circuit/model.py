"""A control circuit: nodes, parts, what moves them, and how each can fail.

Electrical model, linear in each state, so that any circuit simulator can repeat it:
- source: an alternating (RMS, at ``angle_deg``) or direct voltage behind ``ohm``;
- transformer: ideal of ratio ``volts``/``primary_volts`` with ``ohm`` in series with the secondary and
  ``primary_ohm`` across the primary;
- switch: ``CLOSED_OHM`` when closed, no path when open; wire: ``WIRE_OHM``;
- load: ``ohm`` + j ``reactance_ohm``; stray: ``picofarad`` at 60 Hz, direct current does not pass;
- flame: a direct voltage behind ``ohm``, there while its condition holds.
"""

from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import lru_cache

CLOSED_OHM = 0.02  # a clean contact
WIRE_OHM = 0.01
LINE_HZ = 60.0
AIR, WATER, DISCHARGE = HEATS = ("air", "water", "discharge")
OPENS_AFTER_S = 12.0  # after the flame is proved on the shipped controls, before their blower starts
LOCKED_OUT = "lockout"  # said of a control that gave up, beside the circuit's own states
LEAST, MOST = HELD = "least", "most"  # said of volts that a meter held over the call, in place of a state

ELECTRICAL = ("source", "transformer", "switch", "wire", "load", "stray", "flame")


@dataclass(frozen=True, slots=True)
class Condition:
    """True when every term holds for ``lag_s``. Terms: "name", "!name", "quantity>number", "quantity<number".

    With ``keeps``, it stays true, once true, as long as those terms hold: a flame that was lit.
    """

    name: str
    terms: tuple[str, ...]
    lag_s: float = 0.0
    keeps: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class Measured:
    """A physical quantity of the unit: ``value`` while every driver holds, else ``rest``; SI.

    ``times`` are quantities it is proportional to, ``per`` those it is inverse to, both as shares of their ``value``.
    """

    name: str
    value: float
    drivers: tuple[str, ...] = ()
    rest: float = 0.0
    lag_s: float = 0.0
    times: tuple[str, ...] = ()
    per: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True, eq=False)
class FaultMode:
    """One way a part fails; itself and no other one like it. ``odds`` is its weight among the faults of the unit before anything is known."""

    key: str
    part: str
    name: str
    odds: float
    open: bool = False
    ohm: float | None = None  # added in series
    ohm_share: float = 1.0  # of a load: a shorted coil has next to nothing of its own
    volts_share: float = 1.0  # of a source
    sag_ohm: float = 0.0  # more inner resistance of a source or transformer
    stuck: str = ""  # "open", "closed": a switch that no longer follows; "inverted": wired to its other contact
    opens_when: tuple[str, ...] = ()  # a contact or wire that opens once these conditions held for OPENS_AFTER_S
    to_ground_ohm: float | None = None  # from the part's far end to ground
    reverses: bool = False  # hot and neutral of the line exchanged
    leak: float = 0.0  # air into the flue past a breach while the blower runs, share of the dry flue gas
    drawn_in: float = 0.0  # air into the sample at the probe, likewise
    sinks_s: float = 0.0  # how long its scale takes to come about while the unit runs; 0 for at once
    comes_and_goes: bool = False  # another call may go another way
    scale: Mapping[str, float] = field(default_factory=dict)  # quantity -> factor
    force: Mapping[str, bool] = field(default_factory=dict)  # condition -> held at
    shifts: float = 1.0  # a switch's own set point, from the quantity's rest on, × this
    like: tuple[str, ...] = ()  # what the part is said to be when it has this fault: conditions of the vocabulary

    @property
    def opened_contact(self) -> Condition:
        """Return the condition under which the contact is open: once opened, for as long as the call lasts."""
        return Condition(f"opened.{self.part}", self.opens_when, OPENS_AFTER_S, keeps=("call",))

    @property
    def is_electrical(self) -> bool:
        """Tell whether it changes the network itself, and not only what moves it."""
        return bool(self.changes_branches or self.stuck or self.opens_when)

    @property
    def changes_branches(self) -> bool:
        """Tell whether a part conducts, feeds or is joined otherwise, and not only its contact stands elsewhere."""
        bent = self.open or self.ohm is not None or self.ohm_share != 1.0 or self.volts_share != 1.0 or self.sag_ohm
        return bool(bent or self.to_ground_ohm is not None or self.reverses)


@dataclass(frozen=True, slots=True)
class Part:
    """One part. ``nodes`` is empty for what is no electrical thing (hose, vent, filter)."""

    key: str
    name: str
    kind: str  # of ELECTRICAL, or "thing"
    nodes: tuple[str, ...] = ()
    volts: float = 0.0
    primary_volts: float = 120.0
    direct: bool = False
    angle_deg: float = 0.0  # of an alternating source, against the first leg: 180 across a split phase, ±120 of three
    ohm: float = 0.0
    primary_ohm: float = 2000.0
    reactance_ohm: float = 0.0
    picofarad: float = 0.0
    closed_when: tuple[str, ...] = ()  # terms as in Condition
    latches: bool = False  # opened once, it stays open until reset by hand
    acts: str = ""  # the condition that this load makes true while it has its voltage
    pull_in_v: float = 0.0
    pull_in_a: float = 0.0  # for what acts by its current, like an igniter that glows
    polarity: bool = False  # a flame signal that needs the line's hot and neutral the right way round
    family: str = ""  # of part_families: which faults and tests it has
    feels: str = ""  # the quantity it answers to, for people


@dataclass(frozen=True, slots=True)
class Input:
    """What the control sees: volts between two nodes, or current through a part, at least ``least``."""

    name: str
    least: float
    nodes: tuple[str, str] | None = None
    part: str = ""


@dataclass(frozen=True, slots=True)
class Move:
    """A transition: when every term holds (inputs of the control), after ``after_s`` in this state."""

    to: str
    when: tuple[str, ...] = ()
    after_s: float = 0.0
    failure: bool = False  # it gave up here: this is where the unit stops


@dataclass(frozen=True, slots=True)
class ControlState:
    """One state of the control: outputs that are on, the code it shows, and how it goes on."""

    key: str
    name: str
    outputs: tuple[str, ...]
    moves: tuple[Move, ...]
    code: str = ""


@dataclass(frozen=True, slots=True)
class Milestone:
    """Something that a person sees or hears in the sequence, with its window after the call, s."""

    key: str
    name: str
    condition: str  # or "in.NAME": an input of the control is there
    earliest_s: float
    latest_s: float
    seen: bool = True  # without a meter: by eye or ear


@dataclass(frozen=True, slots=True)
class Control:
    """The timed state machine. ``tries`` failures lead to ``lockout``."""

    alive: str  # the condition that powers it; "" for a circuit without electronics
    inputs: tuple[Input, ...]
    states: tuple[ControlState, ...]
    milestones: tuple[Milestone, ...]
    tries: int
    lockout: str


@dataclass(frozen=True, slots=True)
class State:
    """A state of the unit in which a meter can be held on it: the conditions that hold then."""

    key: str
    name: str
    conditions: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Design:
    """How a sound unit burns. ``draft`` names the quantity that draws its air ("" where nothing is measured)."""

    fuel: str
    input_w: float  # gross
    heats: str  # of HEATS: what takes the heat up
    o2_pct: float = 0.0  # dry, in the flue
    stack_k: float = 0.0
    draft: str = ""

    @property
    def has_flue(self) -> bool:
        """Tell whether there is a flue to hold a probe in."""
        return self.heats != DISCHARGE


# A circuit is itself and no other one like it, and is asked for its parts some ten thousand times a search.
@lru_cache(maxsize=512)
def _parts_by_key(circuit: "Circuit") -> Mapping[str, Part]:
    return {part.key: part for part in circuit.parts}


@lru_cache(maxsize=512)
def _faults_by_key(circuit: "Circuit") -> Mapping[str, FaultMode]:
    return {fault.key: fault for fault in circuit.faults}


@dataclass(frozen=True, slots=True, eq=False)
class Circuit:
    """One circuit with its control and its physics, as read from a data file; itself and no other one like it."""

    key: str
    name: str
    ground: str
    common: str
    nodes: Mapping[str, str]  # key -> name for people
    parts: tuple[Part, ...]
    string: tuple[str, ...]  # keys of the parts in series that must be whole, from the supply on
    conditions: tuple[Condition, ...]
    quantities: tuple[Measured, ...]
    states: tuple[State, ...]
    control: Control
    faults: tuple[FaultMode, ...] = ()
    plant: Design | None = None

    @property
    def burning(self) -> str:
        """Return the condition that says the main burner burns."""
        known = {condition.name for condition in self.conditions}
        return "main_flame" if "main_flame" in known else "flame"

    def part(self, key: str) -> Part:
        """Return the part; KeyError for an unknown key."""
        return _parts_by_key(self)[key]

    def fault(self, key: str) -> FaultMode:
        """Return the fault mode; KeyError for an unknown key."""
        return _faults_by_key(self)[key]

    def state(self, key: str) -> State:
        """Return the state; KeyError for an unknown key."""
        return {state.key: state for state in self.states}[key]
