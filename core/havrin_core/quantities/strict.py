"""What a field may hold: the kind of its annotation, numbers within bounds, text that can be printed."""

import math
import types
import unicodedata
from collections.abc import Callable, Mapping
from dataclasses import fields, is_dataclass
from datetime import date
from typing import Any, Union, get_args, get_origin, get_type_hints

MOST_TEXT = 4000
MOST_ITEMS = 500
_MOST_NUMBER = 1e15
_KEPT_CONTROLS = frozenset("\n\t\r")

Check = Callable[[Any], bool]


def misfitting_field(body: object) -> str:
    """Return the name of the first field of the dataclass ``body`` that holds what does not belong there; "" when all fit."""
    checks = _checks(type(body))
    return next((name for name, fits in checks.items() if not fits(getattr(body, name))), "")


def is_printable(text: str) -> bool:
    """Tell whether ``text`` has no NUL, no other control character and no lone half of a pair: it can be stored and printed."""
    return all(c in _KEPT_CONTROLS or unicodedata.category(c) not in ("Cc", "Cs") for c in text)


_CHECKS: dict[type, Mapping[str, Check]] = {}  # by class, made when it is met first


def _checks(cls: Any) -> Mapping[str, Check]:
    if cls not in _CHECKS:
        hints = get_type_hints(cls)
        _CHECKS[cls] = {field.name: _check(hints[field.name]) for field in fields(cls)}
    return _CHECKS[cls]


def _check(kind: Any) -> Check:
    """Return what tells whether a value is of the annotated ``kind``."""
    origin, inner = get_origin(kind), get_args(kind)
    if origin in (Union, types.UnionType):
        choices = [_check(one) for one in inner]
        return lambda value: any(fits(value) for fits in choices)
    if origin is tuple:
        return _check_tuple(inner)
    if is_dataclass(kind) or kind in (bool, date, type(None)):
        return lambda value: type(value) is kind
    return {str: _is_text, float: _is_number, int: _is_count}[kind]


def _check_tuple(inner: tuple[Any, ...]) -> Check:
    if inner[-1] is ...:
        each = _check(inner[0])
        return lambda value: isinstance(value, tuple) and len(value) <= MOST_ITEMS and all(map(each, value))
    checks = [_check(one) for one in inner]
    return lambda value: (
        isinstance(value, tuple)
        and len(value) == len(checks)
        and all(fits(one) for fits, one in zip(checks, value, strict=True))
    )


def _is_text(value: Any) -> bool:
    return isinstance(value, str) and len(value) <= MOST_TEXT and is_printable(value)


def _is_number(value: Any) -> bool:
    return (
        isinstance(value, int | float)
        and not isinstance(value, bool)
        and math.isfinite(value)
        and abs(value) < _MOST_NUMBER
    )


def _is_count(value: Any) -> bool:
    return isinstance(value, int) and not isinstance(value, bool) and abs(value) < _MOST_NUMBER
