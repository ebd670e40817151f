"""What every command needs: finding things, changing the design, free ids; and the dispatch itself."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from functools import singledispatch
from typing import Any, TypeVar

from wingboard.core.changes.command import Command
from wingboard.core.record.base import Record
from wingboard.core.record.design import Design
from wingboard.core.record.errors import NotPossible, UnknownThing
from wingboard.core.record.functions import Function
from wingboard.core.record.modules import Module
from wingboard.core.record.part import Part

Catalogue = Mapping[str, Part]
R = TypeVar("R", Function, Module)


@singledispatch
def carry_out(command: Command, design: Design, catalogue: Catalogue) -> Design:
    raise NotImplementedError(type(command).__name__)  # pragma: no cover - every command is registered, and tested so


def find_function(design: Design, ident: str, path: str = "function") -> Function:
    """The function with that id. :raises UnknownThing: there is none."""
    return _find(design.functions, ident, "function", path)


def find_module(design: Design, ident: str, path: str = "module") -> Module:
    """The module with that id. :raises UnknownThing: there is none."""
    return _find(design.modules, ident, "module", path)


def _find(items: Iterable[R], ident: str, what: str, path: str) -> R:
    for item in items:
        if item.id == ident:
            return item
    raise UnknownThing(f"There is no {what} “{ident}” in this design", path)


def with_changes(design: Design, **changes: Any) -> Design:
    return design.model_copy(update=changes)


def with_functions(design: Design, changed: Mapping[str, Function]) -> Design:
    return with_changes(design, functions=tuple(changed.get(f.id, f) for f in design.functions))


def given(command: Record, *names: str) -> dict[str, Any]:
    return {n: getattr(command, n) for n in names if n in command.model_fields_set and getattr(command, n) is not None}


def new_ident(asked: str | None, taken: Iterable[str], stem: str) -> str:
    used = set(taken)
    if asked in used:
        raise NotPossible(f"“{asked}” is taken already", "id")
    return asked or free_ident(used, stem)


def free_ident(taken: Iterable[str], stem: str) -> str:
    used, n = set(taken), 1
    while f"{stem}{n}" in used:
        n += 1
    return f"{stem}{n}"


def without_pins(design: Design, functions: set[str], only_solver: bool = False) -> Design:
    kept = tuple(p for p in design.pins if p.line.split(".")[0] not in functions or (only_solver and p.by == "hand"))
    return design if len(kept) == len(design.pins) else with_changes(design, pins=kept)
