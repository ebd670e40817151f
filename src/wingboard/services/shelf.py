"""What all designs share: as a machine, a sheet, a supply or an own part is set in one, it is there for the others."""

from __future__ import annotations

import sqlite3
from collections.abc import Iterator, Sequence

from wingboard.core.changes.command import Command
from wingboard.core.changes.commands.brief import SetMachine, SetStock, SetSupply
from wingboard.core.record.base import Record
from wingboard.core.record.design import Design
from wingboard.core.record.part import Part
from wingboard.core.record.workshop import Machine, Stock, Supply
from wingboard.store import shelf as table


class Shelf(Record):
    """Everything on the shelf."""

    machines: tuple[Machine, ...] = ()
    stock: tuple[Stock, ...] = ()
    supplies: tuple[Supply, ...] = ()
    parts: tuple[Part, ...] = ()


def load_shelf(connection: sqlite3.Connection) -> Shelf:
    """The shelf as it is kept."""
    found: dict[table.Kind, list[str]] = {"machine": [], "stock": [], "supply": [], "part": []}
    for kind, document in table.documents(connection):
        found[kind].append(document)
    return Shelf(
        machines=tuple(Machine.model_validate_json(d) for d in found["machine"]),
        stock=tuple(Stock.model_validate_json(d) for d in found["stock"]),
        supplies=tuple(Supply.model_validate_json(d) for d in found["supply"]),
        parts=tuple(Part.model_validate_json(d) for d in found["part"]),
    )


def to_shelve(batch: Sequence[Command], before: Design, after: Design) -> Iterator[tuple[table.Kind, str, str]]:
    """What a batch set that other designs can use: kind, id and document."""
    for command in batch:
        if isinstance(command, SetMachine):
            yield "machine", command.machine.id, command.machine.model_dump_json()
        elif isinstance(command, SetStock):
            yield "stock", command.stock.id, command.stock.model_dump_json()
        elif isinstance(command, SetSupply):
            yield "supply", command.supply.id, command.supply.model_dump_json()
    known = {p.id: p for p in before.parts}
    for part in after.parts:
        if (part.base or part.members) and known.get(part.id) is not part:
            yield "part", part.id, part.model_dump_json()
