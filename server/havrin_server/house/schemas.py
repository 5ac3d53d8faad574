"""House rules: questions, answers, limits, and the dry run."""

from datetime import date
from typing import Any

from pydantic import Field

from havrin_server.incoming import Incoming
from havrin_server.view_model import ViewModel


class AnswerOut(ViewModel):
    """One school's answer, with its reason."""

    key: str
    reason: str


class QuestionOut(ViewModel):
    """One question on which practitioners differ."""

    key: str
    name: str
    chosen: str
    answers: list[AnswerOut]


class HouseLimitOut(ViewModel):
    """One house limit."""

    key: str
    name: str
    value: float
    least: float
    most: float
    unit: str


class PresetOut(ViewModel):
    """A set of answers with a name."""

    name: str
    rules: dict[str, Any]


class HouseRulesOut(ViewModel):
    """The firm's rules, and who may change them."""

    name: str
    writable: bool
    questions: list[QuestionOut]
    limits: list[HouseLimitOut]
    presets: list[PresetOut]


class HouseRulesIn(Incoming):
    """Rules as the page sends them: key to answer; ``reason`` is why, kept with their version."""

    rules: dict[str, Any]
    reason: str = Field(default="", max_length=300)


class ChangedVisitOut(ViewModel):
    """A visit that other rules would have judged otherwise."""

    id: int
    unit: str
    day: date
    before: int
    after: int
    before_title: str
    after_title: str
    says: list[str]


class DryRunOut(ViewModel):
    """What other rules would have made of the last visits; ``by_rule`` counts visits for each changed answer alone."""

    looked_at: int
    changed: list[ChangedVisitOut]
    by_rule: dict[str, int]
