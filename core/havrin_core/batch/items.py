"""Entries as the items of the machine interface."""

from collections.abc import Mapping, Sequence
from typing import Any

from havrin_core.tape.entries import Abnormal, Action, Body, Code, Condition, Note, PlateValue, Proof, Reading, Said
from havrin_core.vocabulary.catalogue import SEEN, verdict_of
from havrin_core.vocabulary.measurands import LEAST_OF

_LEAST = frozenset(LEAST_OF.values())
# a lowest reading is said as a minimum of the quantity itself
_PLAIN_OF = {least: plain for plain, least in LEAST_OF.items()}


def item_of(body: Body, phase: str) -> dict[str, Any]:
    """Return one entry as an item."""
    match body:
        case Reading() if body.quantity == "event_s":
            return {"is": "event", "what": body.station or "", "seconds": body.value}
        case Reading():
            return _reading(body, phase)
        case Condition():
            verdict = SEEN if body.absent else verdict_of(body.part, body.condition)
            return {
                "is": "condition",
                "part": body.part,
                "condition": body.condition,
                "verdict": verdict,
                "place": body.place,
                "size_m": body.size_m,
                "method": body.method,
                "sure": body.sure,
                "under": list(body.under),
                "absent": body.absent,
                "seen": body.seen,
                "of": body.of,
            }
        case Action():
            return {
                "is": "action",
                "verb": body.verb,
                "part": body.part,
                "with": {"text": body.detail} if body.detail else {},
                "as": body.sense,
            }
        case Abnormal():
            return {
                "is": "abnormal",
                "how": body.how,
                "device": body.device,
                "found": body.found,
                "in": body.is_in,
                "on_purpose": body.on_purpose,
            }
        case Proof():
            return {
                "is": "proof",
                "what": body.what,
                "device": body.device,
                "passed": body.passed,
                "count": body.count,
                "outcome": body.outcome,
            }
        case Code():
            return {"is": "code", "patterns": [body.pattern]}
        case PlateValue():
            return {"is": "plate", "quantity": body.quantity, "values": list(body.values), "stage": body.stage}
        case Said():
            return _said(body)
        case Note():
            what = "side_note" if body.side else "note"
            return {"is": "said", "what": what, "text": body.text, "for_owner": body.for_owner}
    return {"is": "said", "what": "note", "text": str(body)}


def items_of(bodies: Sequence[Body], phases: Sequence[str]) -> list[dict[str, Any]]:
    """Return the items of a line, each of its phase; its codes stand together, newest first."""
    codes = [body.pattern for body in bodies if isinstance(body, Code)]
    both = zip(bodies, phases, strict=True)
    items = [item_of(body, phase) for body, phase in both if not isinstance(body, Code)]
    return [{"is": "code", "patterns": list(reversed(codes))}, *items] if codes else items


def _reading(body: Reading, phase: str) -> dict[str, Any]:
    minimum = body.quantity in _LEAST
    return {
        "is": "reading",
        "quantity": body.quantity,
        "value": body.value,
        "stage": body.stage,
        "phase": phase,
        "minimum": minimum,
        "maximum": False,
        "at_least": body.at_least,
        "leads": list(body.leads) if body.leads else None,
        "state": body.state,
        "station": body.station,
        "place": body.place,
        "under": [],
        "computed_from": dict(body.computed_from),
    }


def _said(body: Said) -> dict[str, Any]:
    item: dict[str, Any] = {"is": "said", "what": body.what, "text": body.text}
    more: Mapping[str, Any] = {
        "level": body.level,
        "state": body.state,
        "part": body.part,
        "condition": body.condition,
        "explains": body.explains,
        "told": list(body.told),
        "means": body.means,
        "until": body.until.isoformat() if body.until else None,
    }
    return item | {name: value for name, value in more.items() if value}
