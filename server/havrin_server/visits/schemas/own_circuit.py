"""What is said of the circuit of one very unit."""

from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

from havrin_core.machine.circuit.edit import Blank, Change, Insert, Move, Name

_Key = Annotated[str, Field(min_length=1, max_length=60)]
_Words = Annotated[str, Field(max_length=80)]


class _Said(BaseModel):
    model_config = ConfigDict(extra="forbid")


class InsertIn(_Said):
    """A device put into the string, before a part or behind it."""

    what: Literal["insert"]
    at: _Key
    family: _Key
    name: _Words
    behind: bool = False

    def change(self) -> Change:
        """Return it as the core makes it."""
        return Insert(self.at, self.family, self.name, self.behind)


class MoveIn(_Said):
    """One end of a part on another node."""

    what: Literal["move"]
    part: _Key
    end: Annotated[int, Field(ge=0, le=3)]
    node: _Key

    def change(self) -> Change:
        """Return it as the core makes it."""
        return Move(self.part, self.end, self.node)


class NameIn(_Said):
    """A node called by its wire colour, plug pin or terminal."""

    what: Literal["name"]
    node: _Key
    name: _Words

    def change(self) -> Change:
        """Return it as the core makes it."""
        return Name(self.node, self.name)


class BlankIn(_Said):
    """The string begun blank."""

    what: Literal["blank"]

    def change(self) -> Change:
        """Return it as the core makes it."""
        return Blank()


class ChooseIn(_Said):
    """Another circuit, shipped or of the firm, for this unit."""

    what: Literal["choose"]
    key: _Key

    def change(self) -> None:
        """Return that it is no change of the one before."""


class AsModelIn(_Said):
    """All that was changed on the spot taken back."""

    what: Literal["as_model"]

    def change(self) -> None:
        """Return that nothing of it stays."""


class CircuitChangeIn(_Said):
    """One change."""

    change: Annotated[InsertIn | MoveIn | NameIn | BlankIn | AsModelIn | ChooseIn, Field(discriminator="what")]

    @property
    def chosen(self) -> str:
        """The key of the circuit that was chosen instead; "" for none."""
        return self.change.key if isinstance(self.change, ChooseIn) else ""
