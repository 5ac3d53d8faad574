"""Phrases in words: each by its key from data/*.toml, English as the source of every translation."""

import tomllib
from collections.abc import Mapping
from functools import cache
from importlib import resources
from typing import Any

from havrin_core.phrases import Phrase, Saying
from havrin_core.wording.language import text


@cache
def sentences() -> Mapping[str, str]:
    """Return every sentence by its key."""
    found: dict[str, str] = {}
    for file in (resources.files("havrin_core.wording") / "data").iterdir():
        if file.name.endswith(".toml"):
            rows = tomllib.loads(file.read_text(encoding="utf-8"))
            twice = rows.keys() & found.keys()
            assert not twice, f"{file.name}: {twice} stand in two files"
            found |= rows
    return found


def words(said: Saying) -> str:
    """Return ``said`` in words; a plain string is a name, and goes through the catalogue as it stands.

    Raises KeyError for a key that has no words.
    """
    if isinstance(said, str):
        return text(said)
    if not said.key:
        return "".join(str(_part(value)) for _, value in said.parts)
    source = sentences()[said.key]
    return text(source, **{name: _part(value) for name, value in said.parts})


def _part(value: Any) -> Any:
    return words(value) if isinstance(value, Phrase) else value
