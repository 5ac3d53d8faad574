"""Walks as the page shows them."""

from havrin_server.view_model import ViewModel


class WalkAnswerOut(ViewModel):
    """One answer: ``line`` is whole, or begun where ``begins``. ``asks``: it is read back before it is written."""

    label: str
    line: str
    level: int
    begins: bool
    done: bool
    said: str
    unit: str
    stage: str
    asks: bool


class WalkStopOut(ViewModel):
    """One stop; ``before`` is what earlier visits said there, ``limits`` what holds for what is read.

    ``begins`` is the line to begin at once where the stop still waits for a reading.
    """

    key: str
    name: str
    part: str
    station: str
    path: str
    limits: str
    before: str
    answers: list[WalkAnswerOut]
    not_here: WalkAnswerOut | None
    answered: bool
    begins: str


class WalkOut(ViewModel):
    """A walk with its stops in order; ``own``: the firm made it for this kind of unit."""

    key: str
    name: str
    own: bool
    stops: list[WalkStopOut]


class WalksOut(ViewModel):
    """The walks of a visit, the one for its reason first."""

    walks: list[WalkOut]
