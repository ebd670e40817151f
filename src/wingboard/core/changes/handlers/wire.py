"""Boards and pins."""

from __future__ import annotations

from typing import Literal

from wingboard.core.changes.commands.wire import (
    AddController,
    EditController,
    PinLine,
    RemoveBoard,
    RemoveController,
    SetBoard,
    SetPins,
    SetSoldered,
    UnpinLines,
)
from wingboard.core.changes.handlers.steps import (
    Catalogue,
    carry_out,
    changes_in,
    edited,
    find_function,
    found,
    new_ident,
    replaced,
    with_changes,
)
from wingboard.core.record.design import Design
from wingboard.core.record.errors import NotPossible, UnknownThing
from wingboard.core.record.modules import Mounted
from wingboard.core.record.wiring import CHIPS, Controller, PinChoice


@carry_out.register
def handle_add_controller(command: AddController, design: Design, catalogue: Catalogue) -> Design:
    ident = new_ident(command.id, (b.id for b in design.controllers), f"{command.board}-")
    kinds: dict[str, str] = {str(kind): chip for kind, chip in CHIPS.items()}
    kinds |= {own.id: own.name for own in design.boards}
    if command.board not in kinds:
        raise UnknownThing(f"There is no kind of board “{command.board}”", "board")
    name = command.name or f"{kinds[command.board]} {ident.rsplit('-', 1)[-1]}"
    if command.reserved is not None:
        find_function(design, command.reserved, "reserved")
    made = Controller(id=ident, name=name, board=command.board, reserved=command.reserved)
    return with_changes(design, controllers=(*design.controllers, made))


@carry_out.register
def handle_edit_controller(command: EditController, design: Design, catalogue: Catalogue) -> Design:
    controller = found(design.controllers, command.controller, "controller", "controller")
    if command.reserved is not None:
        find_function(design, command.reserved, "reserved")
    changed = edited(controller, changes_in(command, "controller", nullable=("reserved",)))
    design = with_changes(design, controllers=replaced(design.controllers, changed))
    if changed.reserved is None:
        return design
    kept = tuple(p for p in design.pins if p.controller != changed.id or p.stays)
    return with_changes(design, pins=kept)


def check_controller(design: Design, ident: str, path: str) -> None:
    if all(b.id != ident for b in design.controllers):
        raise UnknownThing(f"There is no controller “{ident}” in this design", path)


def _check_line(design: Design, line: str, path: str) -> None:
    """That a line is of a function, or of what reads or drives those of a module together."""
    owner = line.split(".")[0]
    known = (
        any(owner.endswith(f"-{m.id}") for m in design.modules)
        if owner.startswith("~")
        else any(f.id == owner for f in design.functions)
    )
    if not known:
        raise UnknownThing(f"There is no function for line “{line}”", path)


@carry_out.register
def handle_remove_controller(command: RemoveController, design: Design, catalogue: Catalogue) -> Design:
    check_controller(design, command.controller, "controller")

    def unknown(board: Mounted) -> Mounted:
        return edited(board, {"controller": None}) if board.controller == command.controller else board

    modules = tuple(edited(m, {"mounted": tuple(map(unknown, m.mounted))}) if m.mounted else m for m in design.modules)
    return with_changes(
        design,
        modules=modules,
        controllers=tuple(b for b in design.controllers if b.id != command.controller),
        pins=tuple(p for p in design.pins if p.controller != command.controller),
    )


@carry_out.register
def handle_set_board(command: SetBoard, design: Design, catalogue: Catalogue) -> Design:
    own = command.board
    if own.id in CHIPS:
        raise NotPossible(f"“{own.id}” is a kind that comes with the program", "board.id")
    names = [pin.name for pin in own.pins]
    twice = next((name for name in names if names.count(name) > 1), None)
    if twice:
        raise NotPossible(f"Pin {twice} is there twice", "board.pins")
    if all(b.id != own.id for b in design.boards):
        return with_changes(design, boards=(*design.boards, own))
    return with_changes(design, boards=tuple(own if b.id == own.id else b for b in design.boards))


@carry_out.register
def handle_remove_board(command: RemoveBoard, design: Design, catalogue: Catalogue) -> Design:
    if all(b.id != command.board for b in design.boards):
        raise UnknownThing(f"There is no board “{command.board}” of your own", "board")
    for controller in design.controllers:
        if controller.board == command.board:
            design = handle_remove_controller(RemoveController(controller=controller.id), design, catalogue)
    return with_changes(design, boards=tuple(b for b in design.boards if b.id != command.board))


@carry_out.register
def handle_pin_line(command: PinLine, design: Design, catalogue: Catalogue) -> Design:
    check_controller(design, command.controller, "controller")
    _check_line(design, command.line, "line")
    bus = design.bus_lines()

    def in_the_way(other: PinChoice) -> bool:
        same_pin = (other.controller, other.pin) == (command.controller, command.pin)
        return same_pin and other.line != command.line and bus.get(other.line, other.line) != bus.get(command.line)

    for other in design.pins:
        if in_the_way(other) and other.stays:
            raise NotPossible(f"Pin {command.pin} is given to {other.line} by hand; take that back first", "pin")
    by: Literal["found", "hand"] = "found" if command.found else "hand"
    choice = PinChoice(line=command.line, controller=command.controller, pin=command.pin, by=by)
    kept = tuple(p for p in design.pins if p.line != command.line and not in_the_way(p))
    return with_changes(design, pins=(*kept, choice))


@carry_out.register
def handle_unpin_lines(command: UnpinLines, design: Design, catalogue: Catalogue) -> Design:
    gone = set(command.lines)
    unknown = gone - {p.line for p in design.pins}
    if unknown:
        raise UnknownThing(f"{min(unknown)} has no pin to take back", "lines")
    return with_changes(design, pins=tuple(p for p in design.pins if p.line not in gone))


@carry_out.register
def handle_set_pins(command: SetPins, design: Design, catalogue: Catalogue) -> Design:
    pins = (*(p for p in design.pins if p.stays), *command.pins)
    lines: set[str] = set()
    taken: dict[tuple[str, str], str] = {}
    bus = design.bus_lines()
    for choice in pins:
        check_controller(design, choice.controller, "pins")
        _check_line(design, choice.line, "pins")
        user = bus.get(choice.line, choice.line)
        if choice.line in lines or taken.get((choice.controller, choice.pin), user) != user:
            raise NotPossible(f"{choice.line}, or pin {choice.pin} of {choice.controller}, is given twice", "pins")
        lines.add(choice.line)
        taken[choice.controller, choice.pin] = user
    return with_changes(design, pins=pins)


@carry_out.register
def handle_set_soldered(command: SetSoldered, design: Design, catalogue: Catalogue) -> Design:
    said = dict.fromkeys(command.wires)
    kept = tuple(wire for wire in design.soldered if wire not in said)
    return with_changes(design, soldered=(*kept, *said) if command.soldered else kept)
