"""The ledger: everything left abnormal on a unit, from its entry to its put-back."""

from havrin_core.facts.facts import Facts
from havrin_core.standing.model import LedgerRow
from havrin_core.tape.entries import JumperIn, JumperOut
from havrin_core.vocabulary.abnormal import abnormal, device_name, restored_line, still_open
from havrin_core.vocabulary.actions import deed, is_deed


def ledger_of(facts: Facts) -> list[LedgerRow]:
    """Return the rows in the order in which they came to be, what is still open and what was made good."""
    rows = [*_of_entries(facts), *_of_deeds(facts)]
    return sorted(rows, key=lambda row: row.since)


def _of_entries(facts: Facts) -> list[LedgerRow]:
    rows: list[LedgerRow] = []
    open_: dict[tuple[str, str], LedgerRow] = {}
    for entry in facts.entries:
        body = entry.body
        if isinstance(body, JumperIn):
            text = still_open(body.how, body.device)
            row = LedgerRow(text, restored_line(body.how, body.device), entry.at, entry.author, body.found)
            open_.setdefault((body.how, body.device), row)
        elif isinstance(body, JumperOut) and (row_in := open_.pop((body.how, body.device), None)):
            said = f"{abnormal(body.how).said_in}: {device_name(body.device)}."
            rows.append(LedgerRow(said, row_in.put_back, row_in.since, row_in.by, row_in.found, entry.at, entry.author))
    return [*rows, *open_.values()]


def _of_deeds(facts: Facts) -> list[LedgerRow]:
    rows = []
    for entry, body in facts.deeds():
        off = deed(body.action).leaves_off if is_deed(body.action) else ""
        if not off:
            continue
        back = [e for e, b in facts.checks("put_back", entry.at) if b.device in ("", body.action)]
        until, by = (back[0].at, back[0].author) if back else (None, "")
        rows.append(
            LedgerRow(f"{off}: {deed(body.action).text.lower()}.", "putback", entry.at, entry.author, False, until, by)
        )
    return rows
