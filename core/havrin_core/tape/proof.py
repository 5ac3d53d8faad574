"""Checking a bundle by what it proves of itself: the chain over its tape, and the seal that its visit was closed under.

The proof stands beside the visit: ``records`` as they are stored, ``links`` of the chain, and, of a closed visit, a
``seal``: a ``statement`` (what was closed, and how), the ``signature`` of its canonical form, and the ``key`` for it.
"""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from havrin_core.errors import CoreError
from havrin_core.phrases import Phrase, phrase
from havrin_core.tape.chain import canonical, first_break
from havrin_core.tape.documents import body_from_dict, time_of

FORM = "havrin-seal-1"
SignatureHolds = Callable[[bytes, Mapping[str, Any]], bool]


@dataclass(frozen=True, slots=True)
class Verdict:
    """What a proof is worth: ``flaws`` are empty where it holds. ``sealed``: the visit was closed under a signature."""

    flaws: tuple[Phrase, ...]
    entries: int
    head: str
    sealed: bool

    @property
    def holds(self) -> bool:
        """Tell whether nothing was found wrong."""
        return not self.flaws


def signed_form(statement: Mapping[str, Any]) -> bytes:
    """Return what is signed of a statement."""
    return FORM.encode() + b"\n" + canonical(statement)


def check(bundle: Any, signature_holds: SignatureHolds) -> Verdict:
    """Return what the proof of a bundle (parsed JSON) is worth. Never raises for what stands in it."""
    try:
        return _checked(bundle, signature_holds)
    except (KeyError, TypeError, AttributeError, ValueError):
        return Verdict((phrase("proof_cannot_read"),), 0, "", False)


def _checked(bundle: Mapping[str, Any], signature_holds: SignatureHolds) -> Verdict:
    proof = bundle.get("proof")
    if not isinstance(proof, Mapping):
        return Verdict((phrase("proof_missing"),), 0, "", False)
    records, links, entries = proof["records"], proof["links"], bundle["visit"]["entries"]
    head, sealed = (links[-1] if links else ""), proof.get("seal") is not None
    flaws = [*_chain_flaws(records, links), *_entry_flaws(entries, records, proof["names"])]
    if sealed:
        flaws += _seal_flaws(proof["seal"], proof, head, signature_holds)
    return Verdict(tuple(flaws), len(records), head, sealed)


def _chain_flaws(records: Sequence[Mapping[str, Any]], links: Sequence[str]) -> list[Phrase]:
    found = first_break(records, links)
    return [phrase("chain_breaks", number=found.number, entry=found.entry or "-")] if found else []


def _entry_flaws(entries: Sequence[Any], records: Sequence[Any], names: Mapping[str, Any]) -> list[Phrase]:
    """Return where the entries, as they are read, do not say what their records say."""
    by_id = {record["id"]: record for record in records}
    flaws = [phrase("entry_not_in_chain", entry=row["id"]) for row in entries if row["id"] not in by_id]
    there = {row["id"] for row in entries}
    flaws += [phrase("entry_left_out", number=record["number"]) for record in records if record["id"] not in there]
    told = (row for row in entries if row["id"] in by_id)
    return flaws + [
        phrase("entry_differs", number=by_id[row["id"]]["number"]) for row in told if not _same(row, by_id, names)
    ]


def _same(row: Mapping[str, Any], by_id: Mapping[str, Any], names: Mapping[str, Any]) -> bool:
    record = by_id[row["id"]]
    try:
        said = body_from_dict(row["kind"], row["data"], schema=row["schema"])
        stored = body_from_dict(record["kind"], record["data"], schema=record["schema"])
    except CoreError:
        said, stored = row["data"], record["data"]  # neither can be read: they are compared as they stand
    instrument = names["instruments"].get(str(record["instrument"]), "")
    return (
        said == stored
        and row["phase"] == record["phase"]
        and row["group"] == record["group"]
        and row["author"] == names["people"][str(record["author"])]
        and row["instrument"] == instrument
        and bool(row.get("out_of_calibration")) == record["out_of_calibration"]
        and time_of(row["at"], "at") == time_of(record["at"], "at")
    )


def _seal_flaws(
    seal: Mapping[str, Any], proof: Mapping[str, Any], head: str, signature_holds: SignatureHolds
) -> list[Phrase]:
    statement = seal["statement"]
    flaws = [] if signature_holds(signed_form(statement), seal) else [phrase("signature_does_not_hold")]
    if statement["head"] != head:
        flaws.append(phrase("head_is_not_the_sealed_one"))
    if statement["names"] != proof["names"]:
        flaws.append(phrase("names_are_not_the_sealed_ones"))
    return flaws
