"""What the control's codes mean, as its chart says."""

from havrin_core.machine.circuit.model import Circuit


def code_chart(circuit: Circuit) -> dict[str, str]:
    """Return each code the control can show, with its meaning; "" keys (no code) are left out."""
    return {state.code: state.name for state in circuit.control.states if state.code}
