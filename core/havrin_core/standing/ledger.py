"""The ledger: everything left abnormal on a unit, from its entry to its put-back."""

from havrin_core.rules.context import Context
from havrin_core.standing.model import LedgerRow
from havrin_core.tape.corrections import Line
from havrin_core.tape.entries import Abnormal
from havrin_core.vocabulary.catalogue import part


def ledger_of(context: Context) -> list[LedgerRow]:
    """Return the rows in the order in which they came to be, what is still open and what was made good."""
    return sorted([*_of_entries(context), *_of_actions(context)], key=lambda row: row.since)


def _of_entries(context: Context) -> list[LedgerRow]:
    rows = [_row(put_in, body, out) for out, body, put_in in context.facts.made_good()]
    for still in context.facts.still_abnormal():
        assert isinstance(still.line.body, Abnormal)
        rows.append(_row(still.line, still.line.body, None))
    return rows


def _row(put_in: Line, body: Abnormal, out: Line | None) -> LedgerRow:
    first = put_in.body
    found = isinstance(first, Abnormal) and first.found
    disabled = isinstance(first, Abnormal) and first.on_purpose
    until, by = (out.moment.at, out.entry.author) if out else (None, "")
    return LedgerRow(body.how, body.device, put_in.moment.at, put_in.entry.author, found, until, by, disabled)


def _of_actions(context: Context) -> list[LedgerRow]:
    rows = []
    for line, body in context.facts.actions():
        leaves = part(body.part).leaves.get(body.verb, "") if body.part else ""
        if not leaves:
            continue
        back = [out for out, _ in context.facts.proofs("put_back") if out.moment.at >= line.moment.at]
        until, by = (back[0].moment.at, back[0].entry.author) if back else (None, "")
        rows.append(LedgerRow(leaves, body.part, line.moment.at, line.entry.author, False, until, by))
    return rows
