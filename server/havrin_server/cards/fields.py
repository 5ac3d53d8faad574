"""A field of a card: what it is called, what it takes, and how what was typed or imported becomes what is stored."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from datetime import date
from decimal import Decimal, InvalidOperation
from math import isfinite
from typing import Any, Literal

from havrin_core.quantities.strict import is_printable
from havrin_core.quantities.units import shown_unit
from havrin_server.errors import ServerError
from havrin_server.people.models import Person

Sort = Literal["text", "long", "number", "whole", "price", "date", "choice", "choices", "site"]
Choices = Callable[[Person], Mapping[str, str]]


class BadField(ValueError):
    """What was given for one field cannot be taken; the message says why, for the place where it was entered."""


class Taking:
    """Taking in values for one person: in their units, with the choices there are, asked for once."""

    def __init__(self, person: Person) -> None:
        self.person = person
        self._choices: dict[str, Mapping[str, str]] = {}
        self._by_name: dict[str, dict[str, str]] = {}

    def choices(self, field: "CardField") -> Mapping[str, str]:
        """Return what a field can be: keys with their names."""
        if field.key not in self._choices:
            self._choices[field.key] = field.choices(self.person) if field.choices else {}
        return self._choices[field.key]

    def key_of(self, field: "CardField", text: str) -> str | None:
        """Return the key that ``text`` is, or is the name of; None for neither, and for a name that several have."""
        known = self.choices(field)
        if text in known:
            return text
        if field.key not in self._by_name:
            names = [name.casefold() for name in known.values()]
            rows = {name.casefold(): key for key, name in known.items() if names.count(name.casefold()) == 1}
            self._by_name[field.key] = rows
        return self._by_name[field.key].get(text.casefold())


class BadFields(ServerError):
    """Some fields of a card cannot be taken: ``fields`` says which, and why."""

    code, status = "fields", 422

    def __init__(self, fields: Mapping[str, str]) -> None:
        super().__init__(next(iter(fields.values())), details=list(fields.values()))
        self.fields = dict(fields)


@dataclass(frozen=True, slots=True)
class CardField:
    """One field. ``least`` and ``most`` bound a number (as stored) or the length of a text; ``dimension`` is a number's."""

    key: str
    label: str
    sort: Sort = "text"
    required: bool = False
    least: float = 0
    most: float = 120
    dimension: str = ""
    choices: Choices | None = None
    hint: str = ""
    get: Callable[[Any], Any] | None = None
    put: Callable[[Any, Any], None] | None = None

    def value_of(self, thing: Any) -> Any:
        """Return what ``thing`` has, as it is stored in a version: plain enough for JSON."""
        value = self.get(thing) if self.get else getattr(thing, self.key)
        if isinstance(value, date):
            return value.isoformat()
        return str(value) if isinstance(value, Decimal) else value

    def put_on(self, thing: Any, value: Any) -> None:
        """Give ``thing`` a value that ``taken`` returned or that ``value_of`` once said."""
        if self.put:
            self.put(thing, value)
        elif self.sort == "date":
            setattr(thing, self.key, date.fromisoformat(value) if value else None)
        elif self.sort == "price":
            setattr(thing, self.key, Decimal(value) if value is not None else None)
        else:
            setattr(thing, self.key, value)

    def unit(self, person: Person) -> str:
        """Return the symbol of the unit in which ``person`` gives the number; "" for what has none."""
        return shown_unit(self.dimension, person.unit_system).symbol if self.dimension else ""

    def shown(self, value: Any, person: Person) -> Any:
        """Return a stored value as ``person`` is shown it: numbers in the person's units."""
        if value is None or not self.dimension:
            return value
        unit = shown_unit(self.dimension, person.unit_system)
        return round(unit.from_si(value), unit.decimals)

    def taken(self, given: Any, by: Taking) -> Any:
        """Return what is stored for what was given, a JSON value or a cell's text. Raises BadField."""
        if given is None or given == "" or given == []:
            if self.required:
                raise BadField(f"{self.label}: this is needed.")
            return _EMPTY[self.sort]
        return _TAKES[self.sort](self, given, by)


_EMPTY: Mapping[str, Any] = {
    "text": "",
    "long": "",
    "choice": "",
    "choices": [],
    "number": None,
    "whole": None,
    "price": None,
    "date": None,
    "site": None,
}


def _text(field: CardField, given: Any, by: Taking) -> str:
    if not isinstance(given, str | int | float) or isinstance(given, bool):
        raise BadField(f"{field.label}: a text belongs here.")
    text = " ".join(str(given).split()) if field.sort == "text" else str(given).strip()
    if not is_printable(text):
        raise BadField(f"{field.label}: it holds a character that cannot be stored or printed.")
    if len(text) > field.most:
        raise BadField(f"{field.label}: at most {field.most:.0f} characters, these are {len(text)}.")
    if field.required and not text:
        raise BadField(f"{field.label}: this is needed.")
    return text


def _number(field: CardField, given: Any, by: Taking) -> float:
    value = _plain_number(field, given)
    unit = shown_unit(field.dimension, by.person.unit_system) if field.dimension else None
    stored = unit.to_si(value) if unit else value
    if not field.least <= stored <= field.most:
        low, high = (unit.from_si(bound) if unit else bound for bound in (field.least, field.most))
        symbol = f" {unit.symbol}" if unit else ""
        raise BadField(f"{field.label}: between {low:.0f} and {high:.0f}{symbol}, not {value:g}.")
    return round(stored, 6)


def _whole(field: CardField, given: Any, by: Taking) -> int:
    value = _number(field, given, by)
    if value != int(value):
        raise BadField(f"{field.label}: a whole number, not {value:g}.")
    return int(value)


def _plain_number(field: CardField, given: Any) -> float:
    try:
        value = float(str(given).strip().replace(",", ".")) if not isinstance(given, bool) else float("nan")
    except ValueError:
        value = float("nan")
    if not isfinite(value):
        raise BadField(f"{field.label}: “{given}” is no number.")
    return value


def _price(field: CardField, given: Any, by: Taking) -> str:
    try:
        value = Decimal(str(given).strip().replace(",", ".")).quantize(Decimal("0.01"))
    except InvalidOperation:
        raise BadField(f"{field.label}: “{given}” is no amount.") from None
    if not 0 <= value < Decimal(10) ** 8:
        raise BadField(f"{field.label}: “{given}” is no price.")
    return str(value)


def _date(field: CardField, given: Any, by: Taking) -> str:
    try:
        day = date.fromisoformat(str(given).strip())
    except ValueError:
        raise BadField(f"{field.label}: “{given}” is no day; write it like 2027-04-30.") from None
    if not 1950 <= day.year <= 2100:
        raise BadField(f"{field.label}: {day} is far from today.")
    return day.isoformat()


def _choice(field: CardField, given: Any, by: Taking) -> str:
    text = str(given).strip()
    key = by.key_of(field, text)
    if key is None:
        names = list(by.choices(field).values())
        raise BadField(f"{field.label}: “{text}” is not one of {', '.join(names[:6])}{' …' if len(names) > 6 else ''}.")
    return key


def _choices(field: CardField, given: Any, by: Taking) -> list[str]:
    items = given if isinstance(given, list) else [part for part in str(given).split(";") if part.strip()]
    return list(dict.fromkeys(_choice(field, item, by) for item in items))


def _link(field: CardField, given: Any, by: Taking) -> int:
    key = by.key_of(field, str(given).strip())
    if key is None:
        raise BadField(f"{field.label}: “{given}” was not found, or several have that name.")
    return int(key)


_TAKES: Mapping[str, Callable[[CardField, Any, Taking], Any]] = {
    "text": _text,
    "long": _text,
    "number": _number,
    "whole": _whole,
    "price": _price,
    "date": _date,
    "choice": _choice,
    "choices": _choices,
    "site": _link,
}
