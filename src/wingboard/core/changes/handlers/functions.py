"""The function list."""

from __future__ import annotations

from wingboard.core.changes.commands.functions import AddFunction, EditFunction, MoveFunctions, RemoveFunction
from wingboard.core.changes.handlers.steps import (
    Catalogue,
    carry_out,
    find_function,
    given,
    new_ident,
    with_changes,
    with_functions,
    without_pins,
)
from wingboard.core.record.design import Design
from wingboard.core.record.errors import NotPossible
from wingboard.core.record.functions import Function, Wanted
from wingboard.core.record.procedures import Procedure


@carry_out.register
def handle_add_function(command: AddFunction, design: Design, catalogue: Catalogue) -> Design:
    ident = new_ident(command.id, (f.id for f in design.functions), "f")
    if command.of is not None:
        find_function(design, command.of, "of")
    fields = {name: getattr(command, name) for name in Wanted.model_fields}
    return with_changes(design, functions=(*design.functions, Function(id=ident, name=command.name, **fields)))


NULLABLE = ("stop_role", "duty", "of", "digits")


@carry_out.register
def handle_edit_function(command: EditFunction, design: Design, catalogue: Catalogue) -> Design:
    function = find_function(design, command.function)
    if command.of is not None:
        find_function(design, command.of, "of")
        if command.of == function.id:
            raise NotPossible(f"“{function.name}” cannot belong to itself", "of")
    changes = given(command, *(n for n in EditFunction.model_fields if n not in ("do", "function")))
    changes |= {n: getattr(command, n) for n in NULLABLE if n in command.model_fields_set}
    changed = function.model_copy(update=changes)
    if (changed.positions, changed.scheme) != (function.positions, function.scheme):
        design = without_pins(design, {function.id}, only_solver=True)
    return with_functions(design, {function.id: changed})


@carry_out.register
def handle_remove_function(command: RemoveFunction, design: Design, catalogue: Catalogue) -> Design:
    function = find_function(design, command.function)
    design = without_pins(design, {function.id})
    return with_changes(
        design,
        functions=tuple(_without(f, function.id) for f in design.functions if f is not function),
        graphics=tuple(
            g.model_copy(update={"functions": tuple(i for i in g.functions if i != function.id)})
            if function.id in g.functions
            else g
            for g in design.graphics
        ),
        procedures=tuple(p for p in (_fewer_steps(p, function.id) for p in design.procedures) if p.steps),
    )


def _without(f: Function, gone: str) -> Function:
    """The function with nothing that names the one that is gone."""
    changes = {name: None for name in ("of", "pair") if getattr(f, name) == gone}
    return f.model_copy(update=changes) if changes else f


def _fewer_steps(procedure: Procedure, gone: str) -> Procedure:
    if gone not in procedure.steps:
        return procedure
    return procedure.model_copy(update={"steps": tuple(s for s in procedure.steps if s != gone)})


@carry_out.register
def handle_move_functions(command: MoveFunctions, design: Design, catalogue: Catalogue) -> Design:
    moving = set(command.functions)
    for ident in (*command.functions, *([command.before] if command.before else [])):
        find_function(design, ident, "functions")
    if command.before in moving:
        raise NotPossible("Rows cannot be moved before themselves", "before")
    taken = [f for f in design.functions if f.id in moving]
    rest = [f for f in design.functions if f.id not in moving]
    at = next((i for i, f in enumerate(rest) if f.id == command.before), len(rest))
    return with_changes(design, functions=(*rest[:at], *taken, *rest[at:]))
