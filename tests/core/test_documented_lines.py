"""Every line of docs/shorthand.md, on every kind: written, asked about or refused in words, and never the end of a visit."""

import re

import pytest

from havrin_core.batch.run import answer
from havrin_core.wording.manual import manual_text
from tests.core.rows import REFERENCE
from tests.core.trade import EVERY, sound_lines, visit_line

TEXT = (REFERENCE.parent.parent / "docs" / "shorthand.md").read_text(encoding="utf-8")
LINES = [
    piece.replace("…", "x")
    for row in TEXT.splitlines()
    if row.startswith("|")
    for piece in re.findall(r"`([^`]+)`", row)
]


def test_the_page_is_written_from_the_vocabulary_as_it_is():
    assert manual_text() == TEXT


def test_the_page_documents_its_lines():
    assert len(LINES) > 90


@pytest.mark.parametrize("kind", EVERY)
def test_a_documented_line_ends_no_visit(kind):
    said = answer(visit_line(kind, [*sound_lines(kind), *LINES]))
    assert "error" not in said
    for line, row in zip([*sound_lines(kind), *LINES], said["lines"], strict=True):
        assert row["kept_as"] in ("entries", "note", "asked", "refused"), line
        assert row["kept_as"] == "entries" or row["ask"] or row["unread"] or row["echo"], (line, row)


@pytest.mark.parametrize("kind", EVERY)
def test_each_documented_line_alone_can_be_judged(kind):
    for line in LINES:
        found = answer(visit_line(kind, [line]))["assessment"]
        # nothing else was shown; a unit that nobody touched is not judged at all
        assert found["level"] >= 3 or found["leaving"] == "not_touched", line
