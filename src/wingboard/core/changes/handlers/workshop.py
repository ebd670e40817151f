"""Machines, sheets, supplies, parts on hand and hours."""

from __future__ import annotations

from typing import Any, TypeVar

from wingboard.core.changes.commands.workshop import (
    AddMachine,
    AddStock,
    AddSupply,
    AddWire,
    EditMachine,
    EditStock,
    EditSupply,
    EditWire,
    LogHours,
    RemoveFromWorkshop,
    SetOnHand,
)
from wingboard.core.changes.handlers.steps import (
    Catalogue,
    carry_out,
    changes_in,
    edited,
    found,
    free_ident,
    new_ident,
    replaced,
    with_changes,
    without,
)
from wingboard.core.record.base import Record
from wingboard.core.record.design import Design
from wingboard.core.record.errors import NotPossible, UnknownThing
from wingboard.core.record.harness import WireOnHand
from wingboard.core.record.workshop import Hours, Machine, OnHand, Stock, Supply

Thing = TypeVar("Thing", Machine, Stock, Supply, WireOnHand)


def _with(design: Design, kind: str, entries: tuple[Any, ...]) -> Design:
    """The design with other entries of one kind in its workshop."""
    return with_changes(design, workshop=design.workshop.model_copy(update={kind: entries}))


def _added(entries: tuple[Thing, ...], thing: type[Thing], command: Record, stem: str) -> tuple[Thing, ...]:
    ident = new_ident(getattr(command, "id", None), (e.id for e in entries), stem)
    made: Thing = thing.model_validate({**changes_in(command), "id": ident})
    return entries + (made,)


@carry_out.register
def handle_add_machine(command: AddMachine, design: Design, catalogue: Catalogue) -> Design:
    made = _added(design.workshop.machines, Machine, command, f"{command.kind}-")
    _refuse_without_bed(made[-1])
    return _with(design, "machines", made)


def _refuse_without_bed(machine: Machine) -> None:
    """:raises NotPossible: the margins leave nothing of the bed."""
    for field, size in (("bed_width", machine.bed_width), ("bed_height", machine.bed_height)):
        if size - 2 * machine.margin < LEAST_BED:
            raise NotPossible(
                f"A bed of {size:g} mm with a margin of {machine.margin:g} mm on both sides leaves nothing to cut on",
                field,
            )


LEAST_BED = 1.0
"""What a bed has at least between its margins (mm)."""


@carry_out.register
def handle_edit_machine(command: EditMachine, design: Design, catalogue: Catalogue) -> Design:
    machine = found(design.workshop.machines, command.machine, "machine", "machine")
    changed = edited(machine, changes_in(command, "machine"))
    _refuse_without_bed(changed)
    return _with(design, "machines", replaced(design.workshop.machines, changed))


@carry_out.register
def handle_add_stock(command: AddStock, design: Design, catalogue: Catalogue) -> Design:
    return _with(design, "stock", _added(design.workshop.stock, Stock, command, "sheet-"))


@carry_out.register
def handle_edit_stock(command: EditStock, design: Design, catalogue: Catalogue) -> Design:
    sheet = found(design.workshop.stock, command.stock, "sheet", "stock")
    changed = edited(sheet, changes_in(command, "stock"))
    return _with(design, "stock", replaced(design.workshop.stock, changed))


@carry_out.register
def handle_add_supply(command: AddSupply, design: Design, catalogue: Catalogue) -> Design:
    supplies = _added(design.workshop.supplies, Supply, command, "supply-")
    _refuse_without_source(supplies, supplies[-1])
    return _with(design, "supplies", supplies)


@carry_out.register
def handle_edit_supply(command: EditSupply, design: Design, catalogue: Catalogue) -> Design:
    supply = found(design.workshop.supplies, command.supply, "supply", "supply")
    changed = edited(supply, changes_in(command, "supply", nullable=("made_from",)))
    supplies = replaced(design.workshop.supplies, changed)
    _refuse_without_source(supplies, changed)
    return _with(design, "supplies", supplies)


def _refuse_without_source(supplies: tuple[Supply, ...], supply: Supply) -> None:
    """Refuse a supply that is made from none that there is, or, over others, from itself."""
    by_id = {s.id: s for s in supplies}
    above = supply.made_from
    while above is not None:
        if above not in by_id:
            raise UnknownThing(f"There is no supply “{above}” in the workshop", "made_from")
        if above == supply.id:
            raise NotPossible(f"{supply.name} would be made from itself", "made_from")
        above = by_id[above].made_from


@carry_out.register
def handle_add_wire(command: AddWire, design: Design, catalogue: Catalogue) -> Design:
    return _with(design, "wires", _added(design.workshop.wires, WireOnHand, command, "wire-"))


@carry_out.register
def handle_edit_wire(command: EditWire, design: Design, catalogue: Catalogue) -> Design:
    wire = found(design.workshop.wires, command.wire, "wire", "wire")
    changed = edited(wire, changes_in(command, "wire"))
    return _with(design, "wires", replaced(design.workshop.wires, changed))


@carry_out.register
def handle_remove_from_workshop(command: RemoveFromWorkshop, design: Design, catalogue: Catalogue) -> Design:
    kept = without(getattr(design.workshop, command.kind), command.id, f"entry among the {command.kind} called", "id")
    if command.kind == "supplies":
        kept = tuple(edited(s, {"made_from": None}) if s.made_from == command.id else s for s in kept)
    return _with(design, command.kind, kept)


@carry_out.register
def handle_set_on_hand(command: SetOnHand, design: Design, catalogue: Catalogue) -> Design:
    if command.part not in catalogue and all(p.id != command.part for p in design.parts):
        raise UnknownThing(f"There is no part “{command.part}” in the catalogue or in this design", "part")
    kept = tuple(p for p in design.workshop.parts if p.part != command.part)
    added = (OnHand(part=command.part, count=command.count),) if command.count else ()
    return _with(design, "parts", (*kept, *added))


@carry_out.register
def handle_log_hours(command: LogHours, design: Design, catalogue: Catalogue) -> Design:
    ident = free_ident((h.id for h in design.workshop.hours), "h")
    logged = Hours(id=ident, **command.model_dump(exclude={"do"}))
    return _with(design, "hours", (*design.workshop.hours, logged))
