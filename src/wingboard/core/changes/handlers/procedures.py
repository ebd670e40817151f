"""Procedures: functions worked in an order."""

from __future__ import annotations

from collections.abc import Sequence

from wingboard.core.changes.commands.procedures import AddProcedure, EditProcedure, RemoveProcedure
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
    without,
)
from wingboard.core.record.design import Design
from wingboard.core.record.procedures import Procedure


def _check_steps(design: Design, steps: Sequence[str]) -> None:
    for ident in steps:
        find_function(design, ident, "steps")


@carry_out.register
def handle_add_procedure(command: AddProcedure, design: Design, catalogue: Catalogue) -> Design:
    _check_steps(design, command.steps)
    ident = new_ident(command.id, (p.id for p in design.procedures), "procedure-")
    made = Procedure(id=ident, name=command.name, steps=command.steps)
    return with_changes(design, procedures=(*design.procedures, made))


@carry_out.register
def handle_edit_procedure(command: EditProcedure, design: Design, catalogue: Catalogue) -> Design:
    _check_steps(design, command.steps or ())
    procedure = found(design.procedures, command.procedure, "procedure", "procedure")
    changed = edited(procedure, changes_in(command, "procedure"))
    return with_changes(design, procedures=replaced(design.procedures, changed))


@carry_out.register
def handle_remove_procedure(command: RemoveProcedure, design: Design, catalogue: Catalogue) -> Design:
    return with_changes(design, procedures=without(design.procedures, command.procedure, "procedure", "procedure"))
