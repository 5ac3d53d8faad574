"""An independent route to node voltages: full modified nodal analysis with ideal sources, dense, by numpy."""

from math import pi

import numpy as np

from havrin_core.machine.circuit.meter import Wiring
from havrin_core.machine.circuit.model import Circuit, State


def dense_reading(circuit: Circuit, state: State, a: str, b: str, *, direct: bool = False) -> float:
    """Return what a meter of 10 MΩ shows between two nodes, the meter being a part of the network."""
    volts = dense_volts(circuit, state, direct=direct, meter=(a, b)) | {circuit.ground: 0j}
    return abs(volts[a] - volts[b])


def dense_volts(
    circuit: Circuit, state: State, *, direct: bool = False, meter: tuple[str, str] | None = None
) -> dict[str, complex]:
    """Return every node's voltage to ground with nothing shared with the product but the data.

    Sources and the transformer are ideal, with extra unknowns for their currents, behind real resistors.
    """
    closed = Wiring(circuit).closed
    nodes = [n for n in circuit.nodes if n != circuit.ground]
    internal = [f"{p.key}+" for p in circuit.parts if p.kind in ("source", "transformer", "flame")]
    at = {name: i for i, name in enumerate([*nodes, *internal])}
    ideal = [p for p in circuit.parts if p.kind in ("source", "transformer", "flame")]
    size = len(at) + len(ideal)
    a, b = np.zeros((size, size), complex), np.zeros(size, complex)

    def resistor(one: str, other: str, siemens: complex) -> None:
        for x, y, sign in ((one, one, 1), (other, other, 1), (one, other, -1), (other, one, -1)):
            if x in at and y in at:
                a[at[x], at[y]] += sign * siemens

    if meter is not None:
        resistor(*meter, 1e-7)
    for part in circuit.parts:
        on = closed(part, state.conditions)
        if part.kind == "wire":
            resistor(*part.nodes, 1 / 0.01)
        elif part.kind == "switch" and on:
            resistor(*part.nodes, 1 / 0.02)
        elif part.kind == "load":
            resistor(*part.nodes, 1 / complex(part.ohm, 0 if direct else part.reactance_ohm))
        elif part.kind == "stray" and not direct:
            resistor(*part.nodes, 2j * pi * 60 * part.picofarad * 1e-12)
        elif part.kind in ("source", "flame") and (on or part.kind == "source"):
            resistor(f"{part.key}+", part.nodes[0], 1 / part.ohm)
        elif part.kind == "transformer":
            resistor(f"{part.key}+", part.nodes[2], 1 / part.ohm)
            resistor(part.nodes[0], part.nodes[1], 1 / part.primary_ohm)
    for row, part in enumerate(ideal, len(at)):
        plus, minus = f"{part.key}+", part.nodes[3] if part.kind == "transformer" else part.nodes[1]
        for node, sign in ((plus, 1), (minus, -1)):
            if node in at:
                a[at[node], row] += sign
                a[row, at[node]] += sign
        if part.kind == "transformer":
            ratio = 0.0 if direct else part.volts / part.primary_volts
            for node, sign in ((part.nodes[0], 1), (part.nodes[1], -1)):
                if node in at:
                    a[row, at[node]] -= sign * ratio
                    a[at[node], row] -= sign * ratio
        elif closed(part, state.conditions) and (part.direct or part.kind == "flame") == direct:
            turned = 0.0 if direct else part.angle_deg * pi / 180
            b[row] = part.volts * np.exp(1j * turned)
    a[: len(at), : len(at)] += 1e-13 * np.eye(len(at))
    return {name: complex(np.linalg.solve(a, b)[i]) for name, i in at.items() if name in nodes}
