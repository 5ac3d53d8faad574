"""Nodal analysis: node voltages of a linear network, alternating (RMS phasors) or direct."""

from cmath import rect
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from heapq import heapify, heappop, heappush
from math import pi, radians

from havrin_core.machine.circuit.model import CLOSED_OHM, LINE_HZ, WIRE_OHM, FaultMode, Part

Row = dict[str, complex]


@dataclass(frozen=True, slots=True)
class Element:
    """A two-terminal branch: admittance, with a voltage source in series where there is one."""

    part: str
    a: str
    b: str
    siemens: complex
    volts: complex = 0.0  # a minus b, open circuit


@dataclass(frozen=True, slots=True)
class Coupled:
    """A transformer's coupling: weights w on four nodes carry the current (w·v)/ohm."""

    part: str
    weights: tuple[tuple[str, float], ...]
    siemens: float


Branch = Element | Coupled


class Solution:
    """The factored network. ``volts`` of any node to ground; resistance seen between two nodes."""

    def __init__(self, branches: Sequence[Branch], ground: str) -> None:
        self._ground = ground
        self._branches = branches
        self._island = _islands(branches, ground)
        matrix, self._rhs = _assembled(branches, ground, self._island)
        self._order, self._steps, self._upper = _eliminated(matrix)
        self._volts = self._solved(self._rhs)

    def volts(self, node: str) -> complex:
        """Return the node's voltage to ground, V; 0 for a node that touches nothing."""
        return self._volts.get(node, 0.0)

    def between(self, a: str, b: str) -> complex:
        """Return the open-circuit voltage of ``a`` against ``b``, V; 0 where no path joins them."""
        return self.volts(a) - self.volts(b) if self.joined(a, b) else 0.0

    def joined(self, a: str, b: str) -> bool:
        """Tell whether any path joins two nodes: without one no current can go through a meter, and it shows nothing."""
        return a == b or (self._island.get(a, a) == self._island.get(b, b))

    def thevenin_ohm(self, a: str, b: str) -> complex:
        """Return the impedance that a meter sees between two nodes, Ω."""
        rhs: Row = {}
        for node, amps in ((a, 1.0), (b, -1.0)):
            if node in self._upper:
                rhs[node] = rhs.get(node, 0.0) + amps
        seen = self._solved(rhs)
        return seen.get(a, 0.0) - seen.get(b, 0.0)

    def amps(self, part: str) -> complex:
        """Return the current through a part's first branch, A; 0 when it is open."""
        for branch in self._branches:
            if branch.part == part and isinstance(branch, Element):
                return (self.between(branch.a, branch.b) - branch.volts) * branch.siemens
        return 0.0

    def _solved(self, given: Row) -> Row:
        rhs = dict(given)
        for node, factors in self._steps:
            pivot = rhs.get(node, 0.0)
            if pivot:
                for other, factor in factors:
                    rhs[other] = rhs.get(other, 0.0) - factor * pivot
        volts: Row = {}
        for node in reversed(self._order):
            row = self._upper[node]
            known = sum((value * volts[other] for other, value in row.items() if other != node), complex(0))
            volts[node] = (rhs.get(node, 0.0) - known) / row[node]
        return volts


def branches_of(part: Part, *, closed: bool, live: bool, fault: FaultMode | None, direct: bool) -> list[Branch]:
    """Return the part's branches. ``live``: its condition holds (flame, thermocouple); ``direct``: for direct current."""
    if fault is not None and fault.open:
        return []
    a, b = part.nodes[:2]
    extra = fault.ohm or 0.0 if fault else 0.0
    match part.kind:
        case "wire":  # open only where a fault lets it go
            return [Element(part.key, a, b, 1 / (WIRE_OHM + extra))] if closed else []
        case "switch":
            return [Element(part.key, a, b, 1 / (CLOSED_OHM + extra))] if closed else []
        case "load":
            share = fault.ohm_share if fault else 1.0
            impedance = complex(part.ohm * share + extra, 0.0 if direct else part.reactance_ohm * share)
            return [Element(part.key, a, b, 1 / impedance)]
        case "stray":
            return [] if direct else [Element(part.key, a, b, 2j * pi * LINE_HZ * part.picofarad * 1e-12)]
        case "source":
            volts = (
                part.volts * (fault.volts_share if fault else 1.0) * (1 if direct else rect(1, radians(part.angle_deg)))
            )
            ohm = part.ohm + extra + (fault.sag_ohm if fault else 0.0)
            return [Element(part.key, a, b, 1 / ohm, volts if part.direct == direct and live else 0.0)]
        case "flame":
            return [Element(part.key, a, b, 1 / (part.ohm + extra), part.volts)] if live and direct else []
        case "transformer":
            volts = part.volts * (fault.volts_share if fault else 1.0)
            return _transformer(part, volts, extra + (fault.sag_ohm if fault else 0.0), direct=direct)
    return []


def _transformer(part: Part, volts: float, extra_ohm: float, *, direct: bool) -> list[Branch]:
    hot, neutral, secondary, common = part.nodes
    winding = Element(part.key, secondary, common, 1 / (part.ohm + extra_ohm))
    primary = Element(f"{part.key}.primary", hot, neutral, 1 / part.primary_ohm)
    if direct:
        return [winding, primary]
    ratio = volts / part.primary_volts
    weights = ((hot, ratio), (neutral, -ratio), (secondary, -1.0), (common, 1.0))
    return [Coupled(part.key, weights, 1 / (part.ohm + extra_ohm)), primary]


def _assembled(branches: Iterable[Branch], ground: str, islands: dict[str, str]) -> tuple[dict[str, Row], Row]:
    matrix: dict[str, Row] = {}
    rhs: Row = {}
    for branch in branches:
        if isinstance(branch, Element):
            weights: Sequence[tuple[str, float]] = ((branch.a, 1.0), (branch.b, -1.0))
            source = branch.volts * branch.siemens
        else:
            weights, source = branch.weights, 0.0
        for node, weight in weights:
            if node == ground:
                continue
            row = matrix.setdefault(node, {})
            for other, other_weight in weights:
                if other != ground:
                    row[other] = row.get(other, 0.0) + weight * other_weight * branch.siemens
            if source:
                rhs[node] = rhs.get(node, 0.0) + weight * source
    for node in {root: node for node, root in islands.items() if root != islands[ground]}.values():
        matrix[node][node] += 1.0  # no current flows here: it only gives the island a zero
    return matrix, rhs


def _islands(branches: Iterable[Branch], ground: str) -> dict[str, str]:
    """Return for every node that a branch touches, and for ground, the node that stands for all that it is joined with."""
    parent: dict[str, str] = {}

    def root(node: str) -> str:
        while parent.setdefault(node, node) != node:
            node = parent[node]
        return node

    for branch in branches:
        names = [branch.a, branch.b] if isinstance(branch, Element) else []
        # A transformer's windings carry no path from one to the other.
        pairs = [names] if names else [[n for n, _ in branch.weights[:2]], [n for n, _ in branch.weights[2:]]]  # type: ignore[union-attr]
        for first, second in pairs:
            parent[root(second)] = root(first)
    root(ground)
    return {node: root(node) for node in list(parent)}


def _eliminated(
    matrix: dict[str, Row],
) -> tuple[list[str], list[tuple[str, list[tuple[str, complex]]]], dict[str, Row]]:
    rows = {node: dict(row) for node, row in matrix.items()}
    left = set(rows)
    order: list[str] = []
    steps: list[tuple[str, list[tuple[str, complex]]]] = []
    waiting = [(len(row), node) for node, row in rows.items()]
    heapify(waiting)
    while left:
        neighbours, node = heappop(waiting)  # fewest first: hardly any fill-in
        if node not in left or neighbours != len(rows[node]):
            continue  # stands further on with what it has by now
        left.remove(node)
        order.append(node)
        row = rows[node]
        pivot = row[node]
        factors: list[tuple[str, complex]] = []
        for other in [n for n in row if n in left]:
            target = rows[other]
            factor = target.pop(node) / pivot
            factors.append((other, factor))
            for column, value in row.items():
                if column != node:
                    target[column] = target.get(column, 0.0) - factor * value
            heappush(waiting, (len(target), other))
        steps.append((node, factors))
    return order, steps, rows
