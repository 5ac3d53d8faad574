"""What the bar's lists offer can be read as it stands: every line, on every kind."""

import pytest

from havrin_core.batch.read import unit_in
from havrin_core.shorthand.reader import read_line
from havrin_server.api.present_words import pickable_lines
from tests.core.rows import situation
from tests.core.trade import EVERY, unit_of


@pytest.mark.parametrize("kind", EVERY)
def test_every_line_that_is_offered_can_be_written(kind):
    unit = unit_in({"unit": {"name": "U", **unit_of(kind)}})
    there, words = situation(unit), pickable_lines(unit)
    rows = [*words.done, *words.found, *words.jumpers]
    assert len(rows) > 1000
    for row in rows:
        line = f"{row.line}hose at the box" if row.line.endswith(" ") else row.line
        read = read_line(line, there)
        assert read.writable, (line, read)
        assert not read.unread, (line, read.unread)
