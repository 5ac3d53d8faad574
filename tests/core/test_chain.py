"""The chain over a tape: no change anywhere goes unseen, and no form of the same JSON is a change."""

import copy
import hashlib
import json

import pytest
from hypothesis import given
from hypothesis import strategies as st

from havrin_core.tape.chain import BEGIN, canonical, first_break, link, links
from havrin_core.tape.proof import check

TEXT = st.text(st.characters(exclude_categories=("Cs",)), max_size=12)
SCALARS = st.none() | st.booleans() | st.integers(-(10**12), 10**12) | st.floats(-1e12, 1e12) | TEXT
DATA = st.dictionaries(TEXT, SCALARS | st.lists(SCALARS, max_size=4), max_size=4)
TAPES = st.lists(st.fixed_dictionaries({"id": st.uuids().map(str), "kind": TEXT, "data": DATA}), min_size=1, max_size=6)


def test_a_link_is_the_digest_of_what_was_before_and_of_the_record():
    record = {"b": 1, "a": "µ"}
    text = BEGIN + "\n" + '{"a":"µ","b":1.0}'
    assert link(BEGIN, record) == hashlib.sha256(text.encode()).hexdigest()
    assert list(links([record, record])) == [link(BEGIN, record), link(link(BEGIN, record), record)]


@given(TAPES)
def test_a_whole_chain_holds(tape):
    assert first_break(tape, list(links(tape))) is None


@given(TAPES)
def test_it_does_not_matter_who_wrote_the_json(tape):
    again = json.loads(json.dumps(tape, indent=3, sort_keys=True))
    assert list(links(again)) == list(links(tape))
    assert canonical({"v": 5}) == canonical({"v": 5.0})
    assert canonical({"v": 1e22}) == canonical({"v": 10**22})
    assert canonical({"v": True}) != canonical({"v": 1})


@given(TAPES, st.data())
def test_a_record_that_was_changed_breaks_it_at_its_place(tape, draw):
    stated, at = list(links(tape)), draw.draw(st.integers(0, len(tape) - 1))
    changed = copy.deepcopy(tape)
    changed[at]["data"]["\ue000new"] = draw.draw(SCALARS)
    found = first_break(changed, stated)
    assert found is not None
    assert (found.number, found.entry) == (at + 1, tape[at]["id"])


@given(TAPES, st.data())
def test_a_record_left_out_put_in_or_moved_breaks_it(tape, draw):
    stated, at = list(links(tape)), draw.draw(st.integers(0, len(tape) - 1))
    left_out = tape[:at] + tape[at + 1 :]
    assert first_break(left_out, stated) is not None
    put_in = [*tape[:at], {"id": "x", "kind": "note", "data": {}}, *tape[at:]]
    assert first_break(put_in, stated) is not None
    if len(tape) > 1 and canonical(tape[0]) != canonical(tape[-1]):
        assert first_break([tape[-1], *tape[1:-1], tape[0]], stated) is not None


@given(TAPES)
def test_a_link_that_was_changed_or_cut_off_breaks_it(tape):
    stated = list(links(tape))
    assert first_break(tape, [*stated[:-1], "0" * 64]) is not None
    assert first_break(tape, stated[:-1]) is not None
    assert first_break(tape, [*stated, "0" * 64]) is not None


def test_an_empty_tape_holds():
    assert first_break([], []) is None
    assert first_break([], ["0" * 64]) is not None


@pytest.mark.parametrize(
    "bundle",
    [
        None,
        [],
        {},
        {"proof": None},
        {"proof": {}},
        {"proof": {"records": [], "links": [], "names": {}}},
        {"proof": {"records": [{}], "links": ["x"], "names": {}}, "visit": {"entries": [{}]}},
        {"proof": {"records": "x", "links": 5, "names": []}, "visit": {"entries": []}},
        {"proof": {"records": [], "links": [], "names": {}, "seal": 5}, "visit": {"entries": []}},
    ],
    ids=str,
)
def test_a_proof_that_is_none_is_said_and_never_holds(bundle):
    verdict = check(bundle, lambda text, seal: True)
    assert not verdict.holds
    assert verdict.flaws
