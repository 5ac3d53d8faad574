"""Which entries are struck only with a reason: those that say a danger."""

from havrin_core.limits.table import most
from havrin_core.tape.entries import UNREADABLE, Abnormal, Body, Condition, Proof, Reading, Said
from havrin_core.vocabulary.catalogue import DANGER, verdict_of

_DANGEROUS_ABOVE = {
    "room_co_ppm": "room_co.source",
    "intake_co_ppm": "room_co.source",
    "supply_air_co_ppm": "register_co.least",
    "gas_lel_pct": "gas.none",
    "spillage_s": "spillage.most",
    "gas_leak_m3_s": "gas_leak.most",
}


def wants_a_reason(body: Body) -> bool:
    """Tell whether striking ``body`` wants a reason; it stays visible on the paper."""
    match body:
        case Condition():
            return not body.absent and verdict_of(body.part, body.condition) == DANGER
        case Reading():
            return body.quantity in _DANGEROUS_ABOVE and body.value > most(_DANGEROUS_ABOVE[body.quantity])
        case Proof():
            return not body.passed and body.what in ("leak", "device")
        case Abnormal():
            return body.is_in and body.found
        case Said():
            return body.what in ("cannot", UNREADABLE) or (body.what == "leaves" and body.state == "made_safe")
    return False
