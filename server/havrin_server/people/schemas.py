"""Who is signed in, and what a person prefers."""

from typing import Literal

from pydantic import BaseModel

from havrin_server.view_model import ViewModel


class Me(ViewModel):
    """The person who is signed in."""

    name: str
    username: str
    role: str
    firm: str
    zone: str  # the firm's, an IANA name
    unit_system: Literal["us", "metric"]


class SignIn(BaseModel):
    """Name and password."""

    username: str
    password: str


class Preferences(BaseModel):
    """What a person may choose for their own screen."""

    unit_system: Literal["us", "metric"]
