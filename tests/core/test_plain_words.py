"""What lifts a reason, for those who read papers: no line that is typed, and still a sentence."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from havrin_core.vocabulary.findings import FINDINGS
from havrin_core.wording.plain_words import plain_words
from tests.core.rows import SOUND, judge

WRITTEN = (
    [f"found {finding.words[0]}" for finding in FINDINGS if finding.level]
    + ["found jumper rollout", "alter blower speed", "shut down x", "cannot y", "temporary tape", "temporary tape until 3 May", "spill 400"]
    + ["register 30", "room 50", "lel 4", "leak bad", "fails limit", "unjump rollout", "unjump call", "mp 5", "draft .4", "ua .2", "rise 90"]
)  # fmt: skip


@settings(max_examples=150, deadline=None)
@given(st.lists(st.sampled_from(WRITTEN), max_size=6))
def test_no_reason_keeps_a_line_to_type(lines):
    for reason in judge(*SOUND, *lines).reasons:
        plain = plain_words(reason.lifts)
        assert "“" not in plain, reason.lifts
        assert "rite ." not in plain
        assert ", ." not in plain
        assert " ." not in plain, plain


@pytest.mark.parametrize(
    ("lifts", "plain"),
    [
        ("Clear it, look again and write “vent ok”.", "Clear it, look again."),
        ("Change the valve, then prove that it holds: “tight …” or “leak ok”.", "Change the valve, then prove that it holds."),
        ("Make it lasting, “lasting …”, by 03 May 2026.", "Make it lasting by 03 May 2026."),
        ("Clean it, look again; write “found crack …” or “exchanger ok …”.", "Clean it, look again."),
        ("Watch three light-offs (“cycles 3”) and write “flame ok”.", "Watch three light-offs."),
        ("Name the cause (vent, draft), repeat the test, write “spill …” again.", "Name the cause (vent, draft), repeat the test."),
        ("Find the cause, then read it again.", "Find the cause, then read it again."),
    ],
)  # fmt: skip
def test_a_line_is_taken_out_and_the_sentence_stays(lifts, plain):
    assert plain_words(lifts) == plain
