"""The one error tree of the core.

CoreError
├── NotUnderstood      text that could not be read as what it should be
├── WrongDimension     a unit of another kind (a temperature for a pressure)
├── OutOfDomain        a value that cannot be, or outside a formula's reach
├── UnknownName        a fuel, quantity, kind, rule set or station nobody defined
└── BadDocument        a bundle, unit description or log that breaks its form

Each carries a stable ``code`` for programs, what is ``said`` to people (wording/phrases.py has the words), and where it
applies the ``quantity`` and ``value`` that were refused.
"""

from typing import Any

from havrin_core.phrases import Phrase


class CoreError(Exception):
    """Base of every refusal by the core; ``code`` is stable, ``said`` is for people."""

    def __init__(self, code: str, said: Phrase, *, quantity: str | None = None, value: Any = None) -> None:
        super().__init__(f"{said.key} {dict(said.parts)}")
        self.code = code
        self.said = said
        self.quantity = quantity
        self.value = value


class NotUnderstood(CoreError):
    """The text is not a number, a quantity or a line that can be read."""


class WrongDimension(CoreError):
    """The unit belongs to another kind of quantity."""


class OutOfDomain(CoreError):
    """The value cannot be, or lies where the formula has no answer."""


class UnknownName(CoreError):
    """The name stands for nothing that is defined."""


class BadDocument(CoreError):
    """A document breaks the form that is published for it; ``value`` is the place."""
