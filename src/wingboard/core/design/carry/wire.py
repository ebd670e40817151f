"""Boards and pins."""

from __future__ import annotations

from wingboard.core.design import commands as c
from wingboard.core.design.carry.steps import (
    Catalogue,
    carry_out,
    find_function,
    new_ident,
    with_changes,
)
from wingboard.core.design.errors import NotPossible, UnknownThing
from wingboard.core.design.model import Controller, Design, PinChoice


@carry_out.register
def _(command: c.AddController, design: Design, catalogue: Catalogue) -> Design:
    ident = new_ident(command.id, (b.id for b in design.controllers), f"{command.board}-")
    name = command.name or f"{command.board.capitalize()} {ident.rsplit('-', 1)[-1]}"
    return with_changes(design, controllers=(*design.controllers, Controller(id=ident, name=name, board=command.board)))


def check_controller(design: Design, ident: str, path: str) -> None:
    if all(b.id != ident for b in design.controllers):
        raise UnknownThing(f"There is no controller “{ident}” in this design", path)


@carry_out.register
def _(command: c.RemoveController, design: Design, catalogue: Catalogue) -> Design:
    check_controller(design, command.controller, "controller")
    return with_changes(
        design,
        controllers=tuple(b for b in design.controllers if b.id != command.controller),
        pins=tuple(p for p in design.pins if p.controller != command.controller),
    )


@carry_out.register
def _(command: c.PinSignal, design: Design, catalogue: Catalogue) -> Design:
    check_controller(design, command.controller, "controller")
    find_function(design, command.signal.split(".")[0], "signal")
    for other in design.pins:
        same_pin = (other.controller, other.pin) == (command.controller, command.pin)
        if same_pin and other.signal != command.signal and other.by == "hand":
            raise NotPossible(f"Pin {command.pin} is given to {other.signal} by hand; take that back first", "pin")
    choice = PinChoice(signal=command.signal, controller=command.controller, pin=command.pin, by="hand")
    kept = tuple(
        p
        for p in design.pins
        if p.signal != command.signal and (p.controller, p.pin) != (command.controller, command.pin)
    )
    return with_changes(design, pins=(*kept, choice))


@carry_out.register
def _(command: c.UnpinSignals, design: Design, catalogue: Catalogue) -> Design:
    gone = set(command.signals)
    unknown = gone - {p.signal for p in design.pins}
    if unknown:
        raise UnknownThing(f"{min(unknown)} has no pin to take back", "signals")
    return with_changes(design, pins=tuple(p for p in design.pins if p.signal not in gone))


@carry_out.register
def _(command: c.SetPins, design: Design, catalogue: Catalogue) -> Design:
    pins = (*(p for p in design.pins if p.by == "hand"), *command.pins)
    functions = {f.id for f in design.functions}
    signals: set[str] = set()
    taken: set[tuple[str, str]] = set()
    for choice in pins:
        check_controller(design, choice.controller, "pins")
        if choice.signal.split(".")[0] not in functions:
            raise UnknownThing(f"There is no function for signal “{choice.signal}”", "pins")
        if choice.signal in signals or (choice.controller, choice.pin) in taken:
            raise NotPossible(f"{choice.signal}, or pin {choice.pin} of {choice.controller}, is given twice", "pins")
        signals.add(choice.signal)
        taken.add((choice.controller, choice.pin))
    return with_changes(design, pins=pins)
