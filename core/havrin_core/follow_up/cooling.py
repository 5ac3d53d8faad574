"""How a building cools without heat: its rooms and its structure as two nodes, least and most of what is not known.

A single time constant is too hopeful: the air and what stands in the rooms cool in an hour or two down to the walls, and
only from there as slowly as these. Figures per floor area, Havrin's judgement for guidance, from common building stock.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from math import exp, inf, sqrt

MASSES: Mapping[str, float] = {"light": 110e3, "medium": 200e3, "heavy": 370e3}  # structure, J/(m2 K) of floor
INSULATION: Mapping[str, float] = {"poor": 1.2, "average": 0.6, "good": 0.3}  # of the envelope, W/(m2 K)
DRAUGHTS: Mapping[str, float] = {"draughty": 1.2, "average": 0.6, "tight": 0.25}  # changes of air per hour
USUAL_FLOOR_M2 = 140.0
_BUILT = ((1980, "poor"), (2005, "average"))  # before that year
_CEILING_M, _AIR_WH_M3_K = 2.5, 0.34
_ROOM_J_M2_K = 25e3  # air, furniture, the skin of the walls
_BETWEEN_W_M2_K = 12.0  # rooms to structure, of floor
# What is not known of a building of which all this was said: factors at the worse and at the better end
_WORSE = {"envelope": 1.3, "draught": 1.5, "mass": 0.75}
_BETTER = {"envelope": 0.75, "draught": 0.7, "mass": 1.25}
_FREEZES_K = 273.15
WALL_PIPE_SHARE = 0.67  # of the difference from outdoors to the room that a pipe in an outer wall has
_LONGEST_S = 30 * 86_400.0


@dataclass(frozen=True, slots=True)
class Building:
    """As far as it was said: floor, m2, and keys of MASSES, INSULATION, DRAUGHTS."""

    floor_m2: float = USUAL_FLOOR_M2
    mass: str = "medium"
    insulation: str = "average"
    draughts: str = "average"


@dataclass(frozen=True, slots=True)
class Nodes:
    """Per floor area: capacities, J/(m2 K), and conductances, W/(m2 K): rooms to outdoors, to structure, structure to outdoors."""

    room_j: float
    structure_j: float
    draught_w: float
    between_w: float
    envelope_w: float


def insulation_of(year: int) -> str:
    """Return how a house built in ``year`` is usually insulated."""
    return next((word for before, word in _BUILT if year < before), "good")


def nodes_of(building: Building, factors: Mapping[str, float]) -> Nodes:
    """Return the two nodes of ``building`` with ``factors`` on envelope, draught and mass."""
    envelope_m2 = 2.0 + 4 * _CEILING_M / sqrt(building.floor_m2)  # floor, roof and four walls, per floor area
    return Nodes(
        _ROOM_J_M2_K,
        factors["mass"] * MASSES[building.mass],
        factors["draught"] * DRAUGHTS[building.draughts] * _CEILING_M * _AIR_WH_M3_K,
        _BETWEEN_W_M2_K,
        factors["envelope"] * INSULATION[building.insulation] * envelope_m2,
    )


def seconds_until(nodes: Nodes, indoor_k: float, outdoor_k: float, room_k: float) -> float:
    """Return how long it takes until the rooms are down at ``room_k``, s; inf where they stay above it for a month.

    Rooms and structure start at ``indoor_k``. Solved exactly: the slower and the faster of the two modes.
    """
    if indoor_k <= room_k:
        return 0.0
    if outdoor_k >= room_k:
        return inf
    a = (nodes.draught_w + nodes.between_w) / nodes.room_j
    b, c = nodes.between_w / nodes.room_j, nodes.between_w / nodes.structure_j
    d = (nodes.between_w + nodes.envelope_w) / nodes.structure_j
    middle, root = 0.5 * (a + d), sqrt(0.25 * (a - d) ** 2 + b * c)
    fast, slow = middle + root, middle - root
    over = indoor_k - outdoor_k
    rate = -(a - b) * over  # of the rooms at the start
    of_slow = (rate + fast * over) / (fast - slow)
    of_fast = over - of_slow
    wanted = room_k - outdoor_k
    low, high = 0.0, _LONGEST_S
    if of_slow * exp(-slow * high) + of_fast * exp(-fast * high) > wanted:
        return inf
    while high - low > 1.0:
        half = 0.5 * (low + high)
        above = of_slow * exp(-slow * half) + of_fast * exp(-fast * half) > wanted
        low, high = (half, high) if above else (low, half)
    return high


def hours_to_frost(building: Building, indoor_k: float, outdoor_k: float) -> tuple[float, float]:
    """Return the hours until pipes freeze, least and most.

    The least is a pipe in an outer wall of the worse building, which freezes while the room is well above freezing; the
    most a pipe inside the better one. inf: not at all in a month.

    >>> least, most = hours_to_frost(Building(), 293.15, 263.15)
    >>> 5 < least < 20 < most
    True
    """
    in_the_wall = outdoor_k + (_FREEZES_K - outdoor_k) / WALL_PIPE_SHARE if outdoor_k < _FREEZES_K else _FREEZES_K
    least = seconds_until(nodes_of(building, _WORSE), indoor_k, outdoor_k, in_the_wall)
    most = seconds_until(nodes_of(building, _BETTER), indoor_k, outdoor_k, _FREEZES_K)
    return least / 3600, most / 3600
