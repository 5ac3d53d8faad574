"""What the interface says of gas, draft, air and water: computed figures and the tools that go with them."""

from havrin_server.figures.schemas import Explained, Shown
from havrin_server.view_model import ViewModel


class StageFigures(ViewModel):
    """The figures of one stage; "" for those of the whole unit."""

    stage: str
    label: str
    figures: list[Explained]


class DialOut(ViewModel):
    """A meter's dial and, by stage, the seconds of one turn at the rated input."""

    volume: str
    unit: str
    seconds: dict[str, float]


class LadderRung(ViewModel):
    """A rung of the pressure ladder; bounds and values as shares of the ladder's height."""

    station: str
    name: str
    shown: Shown | None
    limit: str
    state: str
    value: float | None
    found: float | None
    low: float | None
    high: float | None
    starter: str


class SwitchOut(ViewModel):
    """A pressure switch: its stamp and the suction read at it, as shares of a scale that ends at twice the stamp."""

    stage: str
    label: str
    point: Shown
    read: Shown | None
    found: Shown | None
    wanted_share: float
    read_share: float | None
    state: str
    starter: str


class VentOut(ViewModel):
    """The vent as it was measured."""

    height: Shown | None
    outdoor: Shown | None
    flue: Shown | None
    draft: Shown | None
    theoretical: Shown | None
    spillage: Shown | None
    spillage_state: str
    spillage_rule: str  # how long spillage may last, in words
    natural: bool


class WorkingsOut(ViewModel):
    """Everything that the Gas, Draft and Air or Water views draw beside the page."""

    gas: list[StageFigures]
    draft: list[StageFigures]
    air: list[StageFigures]
    water: list[StageFigures]
    dials: list[DialOut]
    ladder: list[LadderRung]
    switches: list[SwitchOut]
    vent: VentOut
    mind: dict[str, str]  # by view, what to mind while reading
    more: dict[str, list[str]]  # by view, the beginnings of lines that no station offers
