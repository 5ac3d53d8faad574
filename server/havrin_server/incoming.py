"""The base of what calls take: what nobody can store, print or judge is refused before it goes any further."""

import json
from collections.abc import Iterator
from datetime import date
from typing import Annotated, Any, Literal

from django.http import HttpRequest
from ninja.parser import Parser
from pydantic import AfterValidator, AwareDatetime, BaseModel, ConfigDict, Field, model_validator

from havrin_core.quantities.strict import is_printable
from havrin_core.tape.documents import is_plausible

MOST_NESTED = 40


class Incoming(BaseModel):
    """What a call takes. A field that nobody knows is refused, not left out: a word misspelt would be lost without a trace."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)

    @model_validator(mode="before")
    @classmethod
    def _texts_are_printable(cls, data: Any) -> Any:
        if not all(map(is_printable, _texts(data))):
            raise ValueError("a text holds a character that cannot be stored or printed")
        return data


def _texts(data: Any) -> Iterator[str]:
    """Yield every text in what was sent, names of fields too."""
    if isinstance(data, str):
        yield data
    elif isinstance(data, dict):
        for name, value in data.items():
            yield from _texts(name)
            yield from _texts(value)
    elif isinstance(data, list):
        for value in data:
            yield from _texts(value)


def _near(at: Any) -> Any:
    if not is_plausible(at):
        raise ValueError(f"{at} is far from today: does the clock of the device stand right?")
    return at


StageKey = Literal["only", "low", "high"]
Phase = Literal["found", "left", "trial"]
Number = Annotated[int, Field(ge=0, le=2**31 - 1)]  # of a thing, or a count: what the database has room for
Seconds = Annotated[float, Field(ge=-1e9, le=1e9)]
Key = Annotated[str, Field(max_length=80)]  # of a quantity, a stage, a kind
Moment = Annotated[AwareDatetime, AfterValidator(_near)]
Day = Annotated[date, AfterValidator(_near)]


class StrictParser(Parser):
    """JSON as the standard has it: no NaN, and no deeper than anything that is meant."""

    def parse_body(self, request: HttpRequest) -> Any:
        """Return the body. Raises ValueError, which the interface answers as a request that cannot be read."""
        try:
            data = json.loads(request.body, parse_constant=_no_constant)
        except RecursionError:
            raise ValueError("nested too deep") from None
        if _depth(data) > MOST_NESTED:
            raise ValueError("nested too deep")
        return data


def _no_constant(name: str) -> float:
    raise ValueError(f"{name} is no number")


def _depth(data: Any) -> int:
    """Return how deep lists and objects are nested, without recursion."""
    depth, level = 0, [data]
    while level:
        inner = [one.values() if isinstance(one, dict) else one for one in level if isinstance(one, dict | list)]
        depth += bool(inner)
        level = [value for values in inner for value in values]
        if depth > MOST_NESTED:
            break
    return depth
