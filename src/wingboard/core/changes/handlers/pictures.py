"""Reference pictures under a module, and the circles traced on them."""

from __future__ import annotations

from wingboard.core.changes.commands.pictures import (
    AddReference,
    AssignCircle,
    EditReference,
    RemoveCircle,
    RemoveReference,
    TraceCircle,
)
from wingboard.core.changes.handlers.steps import (
    Catalogue,
    carry_out,
    changes_in,
    edited,
    find_function,
    find_module,
    found,
    new_ident,
    replaced,
    with_changes,
    without,
)
from wingboard.core.record.design import Design
from wingboard.core.record.pictures import Reference, Traced

NULLABLE = ("scale", "check")


def _find(design: Design, ident: str) -> Reference:
    return found(design.references, ident, "reference", "reference")


def _with(design: Design, reference: Reference) -> Design:
    return with_changes(design, references=replaced(design.references, reference))


def _with_circles(design: Design, reference: Reference, circles: tuple[Traced, ...]) -> Design:
    return _with(design, edited(reference, {"circles": circles}))


@carry_out.register
def handle_add_reference(command: AddReference, design: Design, catalogue: Catalogue) -> Design:
    find_module(design, command.module)
    ident = new_ident(command.id, (r.id for r in design.references), "picture-")
    made = Reference.model_validate({**changes_in(command), "id": ident})
    return with_changes(design, references=(*design.references, made))


@carry_out.register
def handle_edit_reference(command: EditReference, design: Design, catalogue: Catalogue) -> Design:
    if command.module is not None:
        find_module(design, command.module)
    changes = changes_in(command, "reference", nullable=NULLABLE)
    return _with(design, edited(_find(design, command.reference), changes))


@carry_out.register
def handle_remove_reference(command: RemoveReference, design: Design, catalogue: Catalogue) -> Design:
    return with_changes(design, references=without(design.references, command.reference, "reference", "reference"))


@carry_out.register
def handle_trace_circle(command: TraceCircle, design: Design, catalogue: Catalogue) -> Design:
    reference = _find(design, command.reference)
    if command.function is not None:
        find_function(design, command.function)
    ident = new_ident(command.id, (c.id for c in reference.circles), "circle-")
    made = Traced(id=ident, points=command.points, function=command.function)
    return _with_circles(design, reference, (*reference.circles, made))


@carry_out.register
def handle_assign_circle(command: AssignCircle, design: Design, catalogue: Catalogue) -> Design:
    reference = _find(design, command.reference)
    if command.function is not None:
        find_function(design, command.function)
    circle = found(reference.circles, command.circle, "circle", "circle")
    changed = circle.model_copy(update={"function": command.function})
    return _with_circles(design, reference, replaced(reference.circles, changed))


@carry_out.register
def handle_remove_circle(command: RemoveCircle, design: Design, catalogue: Catalogue) -> Design:
    reference = _find(design, command.reference)
    return _with_circles(design, reference, without(reference.circles, command.circle, "circle", "circle"))
