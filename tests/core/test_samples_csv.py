"""Samples as CSV: what goes out comes in again."""

import io

import pytest
from hypothesis import given
from hypothesis import strategies as st

from havrin_core.errors import BadDocument
from havrin_core.traces.samples_csv import chunks, read_samples, write_samples

ROWS = st.lists(st.tuples(st.integers(-10_000, 10_000_000), st.floats(-1e6, 1e6)), min_size=1, max_size=60)


@given(ROWS)
def test_what_goes_out_comes_in_again(rows):
    rows = sorted(rows, key=lambda row: row[0])
    channels = {"draft_pa": ([ms / 1000 for ms, _ in rows], [float(f"{v:.7g}") for _, v in rows])}
    file = io.StringIO()
    write_samples(file, channels)
    back = read_samples(io.StringIO(file.getvalue()))
    assert back["draft_pa"][0] == pytest.approx(channels["draft_pa"][0])
    assert back["draft_pa"][1] == channels["draft_pa"][1]


def test_rows_out_of_order_are_put_in_order():
    back = read_samples(["quantity,seconds,value", "draft_pa,3,30", "draft_pa,1,10", "", "volts_across_v@3-C,1,26"])
    assert back == {"draft_pa": ([1.0, 3.0], [10.0, 30.0]), "volts_across_v@3-C": ([1.0], [26.0])}


def test_chunks_hold_all_samples_once():
    times = [n / 10 for n in range(25)]
    parts = list(chunks(times, times, 10))
    assert [len(values) for _, values in parts] == [10, 10, 5]
    assert [ms for milliseconds, _ in parts for ms in milliseconds] == [100 * n for n in range(25)]


@pytest.mark.parametrize(
    "text", ["", "a,b\n", "quantity,seconds,value\ndraft_pa,1,inf\n", "quantity,seconds,value\n\x00,1,2\n"]
)
def test_nonsense_is_answered(text):
    with pytest.raises(BadDocument):
        read_samples(io.StringIO(text))
