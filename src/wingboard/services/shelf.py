"""What all designs share: as a machine, a sheet, a supply or an own part is set in one, it is there for the others."""

from __future__ import annotations

import logging
import sqlite3
from collections.abc import Iterator, Mapping, Sequence
from typing import Any

from pydantic import TypeAdapter, ValidationError

from wingboard.core.changes.command import Command
from wingboard.core.changes.commands.parts import AdoptPart, CombineParts, CopyPart
from wingboard.core.changes.commands.workshop import AddMachine, AddStock, AddSupply
from wingboard.core.changes.handlers.steps import free_ident
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.base import Record
from wingboard.core.record.design import Design
from wingboard.core.record.part import Part
from wingboard.core.record.workshop import Machine, Stock, Supply, Workshop
from wingboard.store import shelf as table

log = logging.getLogger(__name__)


class Damaged(Record):
    """A document of the shelf that cannot be read."""

    kind: str
    id: str
    reason: str


class Shelf(Record):
    """Everything on the shelf."""

    machines: tuple[Machine, ...] = ()
    stock: tuple[Stock, ...] = ()
    supplies: tuple[Supply, ...] = ()
    parts: tuple[Part, ...] = ()
    damaged: tuple[Damaged, ...] = ()


_KINDS: Mapping[table.Kind, tuple[str, TypeAdapter[Any]]] = {
    "machine": ("machines", TypeAdapter(Machine)),
    "stock": ("stock", TypeAdapter(Stock)),
    "supply": ("supplies", TypeAdapter(Supply)),
    "part": ("parts", TypeAdapter(Part)),
}


def load_shelf(connection: sqlite3.Connection) -> Shelf:
    """The shelf as it is kept; what cannot be read is named instead."""
    found: dict[str, list[Any]] = {field: [] for field, _ in _KINDS.values()}
    damaged = []
    for kind, ident, document in table.documents(connection):
        field, adapter = _KINDS[kind]
        try:
            found[field].append(adapter.validate_json(document))
        except ValidationError as error:
            log.warning("shelf: %s %s cannot be read: %s", kind, ident, error)
            damaged.append(Damaged(kind=kind, id=ident, reason=error.errors()[0]["msg"]))
    return Shelf(**{field: tuple(things) for field, things in found.items()}, damaged=tuple(damaged))


def to_shelve(before: Design, after: Design) -> Iterator[tuple[table.Kind, str, str]]:
    """What a change set that other designs can use: kind, id and document."""
    for kind, field in (("machine", "machines"), ("stock", "stock"), ("supply", "supplies")):
        for thing in _changed(getattr(before.workshop, field), getattr(after.workshop, field)):
            yield kind, thing.id, _shared(thing).model_dump_json()  # type: ignore[misc]
    for part in _changed(before.parts, after.parts):
        if part.base or part.members:
            yield "part", part.id, part.model_dump_json()


def _shared(thing: Record) -> Record:
    """What of a thing holds in every design: not from which supply of this one another is made, nor what was read."""
    return thing.model_copy(update={"made_from": None, "measured": 0.0}) if isinstance(thing, Supply) else thing


def _changed(before: Sequence[Any], after: Sequence[Any]) -> list[Any]:
    known = {thing.id: thing for thing in before}
    return [thing for thing in after if known.get(thing.id) != thing]


def workshop_from(shelf: Shelf) -> Workshop:
    """A new design's workshop: as much of the shelf as it has room for."""
    room = {name: field.metadata[0].max_length for name, field in Workshop.model_fields.items()}
    return Workshop(
        machines=shelf.machines[: room["machines"]],
        stock=shelf.stock[: room["stock"]],
        supplies=shelf.supplies[: room["supplies"]],
    )


def completed(batch: Sequence[Command], design: Design, shelf: Shelf) -> tuple[Command, ...]:
    """The batch as it is kept, so that it can be replayed from the design alone.

    New things that all designs share get an id that is free on the shelf too; own parts of other designs that it
    names are brought in first.
    """
    own = {part.id: part for part in shelf.parts}
    taken = {
        "machines": {thing.id for thing in (*design.workshop.machines, *shelf.machines)},
        "stock": {thing.id for thing in (*design.workshop.stock, *shelf.stock)},
        "supplies": {thing.id for thing in (*design.workshop.supplies, *shelf.supplies)},
        "parts": {*(part.id for part in design.parts), *own, *catalogue()},
    }
    here = {part.id for part in design.parts}
    made: list[Command] = []
    for command in batch:
        for ident in _parts_named(command):
            if ident not in here and ident in own and ident not in catalogue():
                made.append(AdoptPart(part=own[ident]))
                here.add(ident)
        made.append(_with_ident(command, taken))
    return tuple(made)


def _parts_named(command: Command) -> tuple[str, ...]:
    several = getattr(command, "parts", ())
    one = getattr(command, "part", None)
    return (*several, one) if isinstance(one, str) else tuple(several)


def _with_ident(command: Command, taken: Mapping[str, set[str]]) -> Command:
    kind, stem = _new_thing(command)
    if kind is None or not isinstance(command, AddMachine | AddStock | AddSupply | CopyPart | CombineParts):
        return command
    ident = command.id or free_ident(taken[kind], stem)
    taken[kind].add(ident)
    return command if command.id else command.model_copy(update={"id": ident})


def _new_thing(command: Command) -> tuple[str | None, str]:
    """Which kind of shared thing a command makes, and the stem of its ids."""
    if isinstance(command, AddMachine):
        return "machines", f"{command.kind}-"
    if isinstance(command, AddStock):
        return "stock", "sheet-"
    if isinstance(command, AddSupply):
        return "supplies", "supply-"
    return ("parts", "my-part-") if isinstance(command, CopyPart | CombineParts) else (None, "")
