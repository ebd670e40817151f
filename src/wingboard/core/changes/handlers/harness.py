"""Looms, plugs, colours, places outside, USB."""

from __future__ import annotations

from wingboard.core.changes.commands.harness import EditLoom, ForgetStanding, SetHarness, SetUsb, StandOutside
from wingboard.core.changes.handlers.modules import with_module
from wingboard.core.changes.handlers.steps import Catalogue, carry_out, changes_in, edited, find_module, with_changes
from wingboard.core.record.design import Design
from wingboard.core.record.errors import UnknownThing
from wingboard.core.record.harness import Standing


@carry_out.register
def handle_set_harness(command: SetHarness, design: Design, catalogue: Catalogue) -> Design:
    changes = changes_in(command, nullable=("power_area",))
    return with_changes(design, harness=edited(design.harness, changes))


@carry_out.register
def handle_edit_loom(command: EditLoom, design: Design, catalogue: Catalogue) -> Design:
    module = find_module(design, command.module)
    changes = changes_in(command, "module", nullable=("at", "signals", "power"))
    return with_module(design, edited(module, {"loom": edited(module.loom, changes)}))


@carry_out.register
def handle_stand(command: StandOutside, design: Design, catalogue: Catalogue) -> Design:
    made = Standing(**command.model_dump(exclude={"do"}))
    kind, _, ident = made.device.partition(".")
    there = {
        "board": {c.id for c in design.controllers},
        "supply": {s.id for s in design.workshop.supplies},
    }.get(kind)
    known = ident in there if there is not None else bool(ident) and any(f.id == kind for f in design.functions)
    if not known:
        raise UnknownThing(f"There is nothing called “{made.device}” that could stand somewhere", "device")
    kept = tuple(s for s in design.harness.standing if s.device != made.device)
    return with_changes(design, harness=edited(design.harness, {"standing": (*kept, made)}))


@carry_out.register
def handle_forget_standing(command: ForgetStanding, design: Design, catalogue: Catalogue) -> Design:
    kept = tuple(s for s in design.harness.standing if s.device != command.device)
    if len(kept) == len(design.harness.standing):
        raise UnknownThing(f"Nobody said where “{command.device}” stands", "device")
    return with_changes(design, harness=edited(design.harness, {"standing": kept}))


@carry_out.register
def handle_set_usb(command: SetUsb, design: Design, catalogue: Catalogue) -> Design:
    return with_changes(design, usb=edited(design.usb, changes_in(command)))
