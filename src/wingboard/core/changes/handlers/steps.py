"""What every handler needs: finding things, changing the design, free ids; and the dispatch itself."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from functools import singledispatch
from typing import Any, Protocol, TypeVar

from pydantic import ValidationError

from wingboard.core.changes.command import Command
from wingboard.core.record.base import Record
from wingboard.core.record.design import Design
from wingboard.core.record.errors import NotPossible, UnknownThing
from wingboard.core.record.functions import Function
from wingboard.core.record.modules import Module
from wingboard.core.record.part import Part

Catalogue = Mapping[str, Part]
R = TypeVar("R", bound=Record)


class Identified(Protocol):
    """Anything with an id."""

    @property
    def id(self) -> str:
        """Unique among its kind in a design."""


I = TypeVar("I", bound=Identified)  # noqa: E741 - one thing of a list


@singledispatch
def carry_out(command: Command, design: Design, catalogue: Catalogue) -> Design:
    """Carry out one command by its handler: a pure function of the design and the parts that may be chosen.

    :raises DesignError: it cannot be carried out; its path is the command's field.
    """
    raise NotImplementedError(type(command).__name__)  # pragma: no cover - every command is registered, and tested so


def find_function(design: Design, ident: str, path: str = "function") -> Function:
    """The function with that id. :raises UnknownThing: there is none."""
    return found(design.functions, ident, "function", path)


def find_module(design: Design, ident: str, path: str = "module") -> Module:
    """The module with that id. :raises UnknownThing: there is none."""
    return found(design.modules, ident, "module", path)


def found(things: Iterable[I], ident: str, what: str, path: str) -> I:
    """The thing of that id among ``things``, which are called ``what``. :raises UnknownThing: there is none."""
    for thing in things:
        if thing.id == ident:
            return thing
    raise _unknown(what, ident, path)


def _unknown(what: str, ident: str, path: str) -> UnknownThing:
    error = UnknownThing(f"There is no {what} “{ident}” in this design", path)
    error.ident = ident
    return error


def replaced(things: Iterable[I], changed: I) -> tuple[I, ...]:
    """The things with one of them in the place of the one with its id."""
    return tuple(changed if thing.id == changed.id else thing for thing in things)


def without(things: Iterable[I], ident: str, what: str, path: str) -> tuple[I, ...]:
    """The things less one of them. :raises UnknownThing: it is not there."""
    gone = found(things := tuple(things), ident, what, path)
    return tuple(thing for thing in things if thing is not gone)


def with_changes(design: Design, **changes: Any) -> Design:
    """The design with other values of some of its fields; :func:`apply` validates what comes of a batch."""
    return design.model_copy(update=changes)


def with_functions(design: Design, changed: Mapping[str, Function]) -> Design:
    """The design with these functions, by id, in the place of the ones they were."""
    return with_changes(design, functions=tuple(changed.get(f.id, f) for f in design.functions))


def changes_in(command: Record, *leave: str, nullable: tuple[str, ...] = ()) -> dict[str, Any]:
    """The fields that a command sets, ``do`` and those to ``leave`` apart.

    None stands for “stays as it is”, except for the ``nullable`` ones.
    """
    names = command.model_fields_set - {"do", *leave}
    named = ((n, getattr(command, n)) for n in type(command).model_fields if n in names)
    return {n: value for n, value in named if value is not None or n in nullable}


def edited(thing: R, changes: Mapping[str, Any]) -> R:
    """The thing with other values of some of its fields, valid by itself.

    :raises NotPossible: the values do not go together; its path is the field.
    """
    if not changes:
        return thing
    kept = {name: getattr(thing, name) for name in type(thing).model_fields}
    try:
        return type(thing).model_validate({**kept, **changes})
    except ValidationError as error:
        first = error.errors()[0]
        path = str(first["loc"][0]) if first["loc"] else ""
        raise NotPossible(first["msg"].removeprefix("Value error, "), path) from error


def new_ident(asked: str | None, taken: Iterable[str], stem: str) -> str:
    """The id asked for, or a free one. :raises NotPossible: it is taken."""
    used = set(taken)
    if asked in used:
        raise NotPossible(f"“{asked}” is taken already", "id")
    return asked or free_ident(used, stem)


def free_ident(taken: Iterable[str], stem: str) -> str:
    """``stem`` with the first number that is not taken: ``f1``, ``f2`` …"""
    used, n = set(taken), 1
    while f"{stem}{n}" in used:
        n += 1
    return f"{stem}{n}"


def without_pins(design: Design, functions: set[str], only_solver: bool = False) -> Design:
    """The design without the pins of these functions' lines, or only without those that the solver gave."""
    kept = tuple(p for p in design.pins if p.line.split(".")[0] not in functions or (only_solver and p.stays))
    return design if len(kept) == len(design.pins) else with_changes(design, pins=kept)
