"""The function list."""

from __future__ import annotations

from wingboard.core.changes.commands.functions import AddFunction, EditFunction, MoveFunctions, RemoveFunction
from wingboard.core.changes.handlers.layers import with_known_features
from wingboard.core.changes.handlers.steps import (
    Catalogue,
    carry_out,
    changes_in,
    edited,
    find_function,
    new_ident,
    with_changes,
    with_functions,
    without_pins,
)
from wingboard.core.record.design import Design
from wingboard.core.record.errors import NotPossible
from wingboard.core.record.functions import POOLED, Function, Switched, Wanted
from wingboard.core.record.legends import Graphic
from wingboard.core.record.pictures import Reference
from wingboard.core.record.procedures import Procedure


@carry_out.register
def handle_add_function(command: AddFunction, design: Design, catalogue: Catalogue) -> Design:
    ident = new_ident(command.id, (f.id for f in design.functions), "f")
    if command.of is not None:
        find_function(design, command.of, "of")
    fields = {name: getattr(command, name) for name in Wanted.model_fields}
    return with_changes(design, functions=(*design.functions, Function(id=ident, name=command.name, **fields)))


NULLABLE = ("stop_role", "duty", "of", "digits", "colour", "film")
SWITCHED = tuple(Switched.model_fields)


@carry_out.register
def handle_edit_function(command: EditFunction, design: Design, catalogue: Catalogue) -> Design:
    function = find_function(design, command.function)
    if command.of is not None:
        find_function(design, command.of, "of")
        if command.of == function.id:
            raise NotPossible(f"“{function.name}” cannot belong to itself", "of")
    changes = changes_in(command, "function", *SWITCHED, nullable=NULLABLE)
    load = changes_in(command, *(set(EditFunction.model_fields) - set(SWITCHED)))
    if load:
        changes["switches"] = edited(function.switches, load)
    changed = edited(function, changes)
    if _other_lines(design, function, changed):
        design = without_pins(design, {function.id}, only_solver=True)
    changed_design = with_functions(design, {function.id: changed})
    return _without_empty_network(changed_design, function) if changed.scheme != function.scheme else changed_design


def _other_lines(design: Design, was: Function, now: Function) -> bool:
    """Whether a function's lines are others after a change: another scheme, other ways of a selector in use. A word
    alone moves no pin."""
    if (was.scheme, was.tests_lamps) != (now.scheme, now.tests_lamps):
        return True
    part = next((p for p in design.parts if p.id == now.part), None)
    by_way = part is not None and any(line.each_position for line in part.lines)
    return by_way and len(was.positions) != len(now.positions)


def _without_empty_network(design: Design, was: Function) -> Design:
    """Without the solver's pins of what read or drove a function until now, when it reads and drives no other."""
    if was.place is None or was.scheme not in POOLED:
        return design
    module, scheme = was.place.module, was.scheme
    if any(f.scheme == scheme and f.place and f.place.module == module for f in design.functions):
        return design
    kinds = {"shift": ("shift-in", "shift-out"), "digits": ("digits", "pixels")}.get(scheme, (scheme,))
    gone = {f"~{kind}-{module}" for kind in kinds}
    return without_pins(design, gone, only_solver=True)


@carry_out.register
def handle_remove_function(command: RemoveFunction, design: Design, catalogue: Catalogue) -> Design:
    function = find_function(design, command.function)
    design = without_pins(design, {function.id})
    left = with_changes(
        design,
        functions=tuple(_without(f, function.id) for f in design.functions if f is not function),
        graphics=tuple(g for g in (_spans_less(g, function.id) for g in design.graphics) if g is not None),
        procedures=tuple(p for p in (_fewer_steps(p, function.id) for p in design.procedures) if p.steps),
        references=tuple(_shows_no(r, function.id) for r in design.references),
        controllers=tuple(
            edited(c, {"reserved": None}) if c.reserved == function.id else c for c in design.controllers
        ),
    )
    return with_known_features(left)


def _spans_less(graphic: Graphic, gone: str) -> Graphic | None:
    """The graphic without the function that is gone; None for a bracket that spanned nothing else."""
    if gone not in graphic.functions:
        return graphic
    left = tuple(i for i in graphic.functions if i != gone)
    if graphic.kind == "bracket" and not left and graphic.width <= 0:
        return None
    return graphic.model_copy(update={"functions": left})


def _shows_no(reference: Reference, gone: str) -> Reference:
    """The picture with no circle that shows the hole of the function that is gone."""
    if all(circle.function != gone for circle in reference.circles):
        return reference
    circles = (c.model_copy(update={"function": None}) if c.function == gone else c for c in reference.circles)
    return reference.model_copy(update={"circles": tuple(circles)})


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
