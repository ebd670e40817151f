"""Rule packs: what is commonly forgotten for each kind of panel, as data."""

from __future__ import annotations

import tomllib
from functools import cache
from importlib import resources
from typing import Literal

from pydantic import Field, TypeAdapter

from wingboard.core.changes.commands.functions import AddFunction
from wingboard.core.record.base import Ident, Record, Words
from wingboard.core.record.space import PanelKind

When = Literal["one row", "five rows", "three lights", "loads"]


class Expectation(Record):
    """One thing a panel of these kinds commonly has, how it is recognised, why, and the row that adds it."""

    id: Ident
    kinds: tuple[PanelKind, ...] = Field(min_length=1)
    when: When
    words: str = Field(description="A pattern over names and wishes of functions that do it already")
    title: Words
    why: str
    add: AddFunction


@cache
def expectations() -> tuple[Expectation, ...]:
    """Every expectation, in the order of the data file."""
    text = (resources.files(__name__) / "expected.toml").read_text("utf-8")
    return TypeAdapter(tuple[Expectation, ...]).validate_python(tomllib.loads(text)["expect"])
