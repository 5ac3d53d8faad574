"""An entry holds what belongs there, or it is refused: nothing of another kind ever reaches the tape."""

import json

import pytest
from hypothesis import given
from hypothesis import strategies as st

from havrin_core.errors import BadDocument, CoreError
from havrin_core.quantities.strict import MOST_TEXT, is_printable, misfitting_field
from havrin_core.tape.documents import body_from_dict, body_to_dict, entry_from_dict
from havrin_core.tape.entries import KINDS, Code, Condition, Correction, Note, Proof, Reading, Said
from havrin_core.wording.entries import echo

SOUND = (
    Reading("manifold_pa", 870.0, 3.5, "inWC", "only"),
    Condition("flame_rod", "dirty", size_m=0.01, seen=1, of=2, under=("hot",)),
    Proof("cycles", True, 3),
    Code("3 4"),
    Said("told", "the caretaker", told=("caretaker",)),
    Note("quiet"),
    Correction("7", Note("louder"), "left", "misheard"),
)
ANYTHING = st.recursive(
    st.none()
    | st.booleans()
    | st.integers(-(10**20), 10**20)
    | st.floats()
    | st.text(max_size=8)
    | st.just("\x00")
    | st.just("x" * (MOST_TEXT + 1)),
    lambda inner: st.lists(inner, max_size=3) | st.dictionaries(st.text(max_size=4), inner, max_size=3),
    max_leaves=6,
)


@pytest.mark.parametrize("body", SOUND, ids=lambda body: type(body).__name__)
def test_what_belongs_there_is_taken(body):
    assert misfitting_field(body) == ""


@given(st.sampled_from(SOUND), st.data())
def test_a_field_of_another_kind_is_refused_or_can_be_read_and_said(body, data):
    document = json.loads(json.dumps(body_to_dict(body)))
    field = data.draw(st.sampled_from(sorted(document)))
    document[field] = data.draw(ANYTHING)
    kind = next(kind for kind, cls in KINDS.items() if cls is type(body))
    try:
        made = body_from_dict(kind, document)
    except CoreError:
        return
    assert misfitting_field(made) == ""
    echo(made, "us")
    json.dumps(body_to_dict(made), allow_nan=False)


@pytest.mark.parametrize("text", ["a\x00b", "a\x07b", "\ud800"])
def test_what_cannot_be_printed_is_no_text(text):
    assert not is_printable(text)
    with pytest.raises(BadDocument):
        body_from_dict("note", {"text": text})


@pytest.mark.parametrize("year", ["0001", "1969", "2100", "9999"])
def test_a_clock_that_stands_wrong_writes_nothing(year):
    row = {"id": "1", "at": f"{year}-01-02T03:04:05+00:00", "kind": "note", "data": {"text": "x"}}
    with pytest.raises(BadDocument) as refused:
        entry_from_dict(row, "entries[0]")
    assert refused.value.code == "entry_time"
