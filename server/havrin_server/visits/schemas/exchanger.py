"""A unit's exchanger: drawing, findings in their places, coverage, evidence."""

from havrin_server.view_model import ViewModel


class ZoneOut(ViewModel):
    """A place on a part."""

    key: str
    x: float
    y: float


class ExchangerPartOut(ViewModel):
    """One part with its outline in drawing units; ``state`` in (seen), none (not seen), near or out (something found)."""

    key: str
    outline: list[list[float]]
    closed: bool
    zones: list[ZoneOut]
    state: str


class PlacedOut(ViewModel):
    """A finding in its place; ``x`` null where the words name no part."""

    entry_id: str
    text: str
    place: str
    detail: str
    x: float | None
    y: float | None
    level: int


class CoverageOut(ViewModel):
    """What was seen by one method, and what share of real breaches that would have found."""

    says: str
    finds_pct: float


class SignOut(ViewModel):
    """One sign: ``weight`` in words like "× 8", ``against`` for those that speak against a breach."""

    text: str
    weight: str
    against: bool


class NextLookOut(ViewModel):
    """A further look and the odds after either outcome."""

    text: str
    minutes: int
    starter: str
    if_found: str
    if_not: str


class EvidenceOut(ViewModel):
    """The combined odds. ``state`` in, near (suspected) or out (seen)."""

    says: str
    prior: str
    signs: list[SignOut]
    looks: list[NextLookOut]
    state: str
    source: str


class FindingChoice(ViewModel):
    """A kind of finding that can be placed."""

    starter: str
    name: str
    level: int


class ExchangerOut(ViewModel):
    """The whole view."""

    form: str
    name: str
    width: float
    height: float
    parts: list[ExchangerPartOut]
    placed: list[PlacedOut]
    coverage: list[CoverageOut]
    evidence: EvidenceOut
    findings: list[FindingChoice]
    methods: list[str]
    surenesses: list[str]
    sizes: list[str]
    whole: str
