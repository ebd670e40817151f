"""The space, and what is in the way."""

from __future__ import annotations

from typing import Literal

from wingboard.core.changes.commands.brief import (
    AddKeepOut,
    EditKeepOut,
    MeasureOpening,
    RemoveKeepOut,
    RemoveSeat,
    Rename,
    ResizeOpening,
    SetBrief,
    SetEnvironment,
    SetSeat,
    SplitOpening,
)
from wingboard.core.changes.handlers.layers import with_known_features
from wingboard.core.changes.handlers.steps import (
    Catalogue,
    carry_out,
    changes_in,
    edited,
    found,
    new_ident,
    replaced,
    with_changes,
    with_functions,
    without,
)
from wingboard.core.changes.splitting import split
from wingboard.core.geometry.outline import area_of
from wingboard.core.record.design import Design
from wingboard.core.record.errors import NotPossible
from wingboard.core.record.outlines import ArchOutline, Outline, RectOutline, resized
from wingboard.core.record.space import Brief, KeepOut, Seat
from wingboard.core.record.usual import ARCH_RISE, usual_gap

NULLABLE = ("process", "eye_distance", "bought_price")


def with_brief(design: Design, brief: Brief) -> Design:
    """The design with another brief."""
    return with_changes(design, brief=brief)


@carry_out.register
def handle_rename(command: Rename, design: Design, catalogue: Catalogue) -> Design:
    return with_changes(design, name=command.name)


@carry_out.register
def handle_set_brief(command: SetBrief, design: Design, catalogue: Catalogue) -> Design:
    changes = changes_in(command, nullable=NULLABLE)
    if command.process is not None and "gap" not in changes:
        changes["gap"] = usual_gap(command.process)
    return with_brief(design, edited(design.brief, changes))


@carry_out.register
def handle_resize_opening(command: ResizeOpening, design: Design, catalogue: Catalogue) -> Design:
    outline = design.brief.opening
    if command.shape is not None and command.shape != outline.kind:
        outline = _shaped(outline, command.shape)
    if command.rise is not None and not isinstance(outline, ArchOutline):
        raise NotPossible("Only an arched top has a rise", "rise")
    if command.radius is not None and not isinstance(outline, RectOutline):
        raise NotPossible("Only a rectangle has rounded corners of one radius", "radius")
    extra = changes_in(command, "width", "height", "shape")
    shaped = edited(resized(outline, command.width, command.height), extra)
    return with_brief(design, edited(design.brief, {"opening": shaped}))


def _shaped(outline: Outline, shape: Literal["rect", "arch"]) -> Outline:
    low_x, low_y, high_x, high_y = area_of(outline.loop()).bounds
    width, height = high_x - low_x, high_y - low_y
    if shape == "rect":
        return RectOutline(width=width, height=height)
    return ArchOutline(width=width, height=height * (1 - ARCH_RISE), rise=min(height * ARCH_RISE, width / 2))


@carry_out.register
def handle_measure_opening(command: MeasureOpening, design: Design, catalogue: Catalogue) -> Design:
    readings: list[float] = list(getattr(design.brief, command.of))
    if command.of == "diagonals" and command.place > 2:
        raise NotPossible("An opening has two diagonals", "place")
    at = min(command.place - 1, len(readings))
    readings[at : at + 1] = [] if command.value is None else [command.value]
    return with_brief(design, edited(design.brief, {command.of: tuple(readings)}))


@carry_out.register
def handle_set_seat(command: SetSeat, design: Design, catalogue: Catalogue) -> Design:
    seat = edited(design.brief.seat or Seat(), changes_in(command))
    return with_brief(design, edited(design.brief, {"seat": seat}))


@carry_out.register
def handle_remove_seat(command: RemoveSeat, design: Design, catalogue: Catalogue) -> Design:
    return with_brief(design, edited(design.brief, {"seat": None}))


@carry_out.register
def handle_set_environment(command: SetEnvironment, design: Design, catalogue: Catalogue) -> Design:
    changed = edited(design.brief.environment, changes_in(command))
    return with_brief(design, edited(design.brief, {"environment": changed}))


@carry_out.register
def handle_add_keep_out(command: AddKeepOut, design: Design, catalogue: Catalogue) -> Design:
    boxes = design.brief.keepouts
    ident = new_ident(command.id, (k.id for k in boxes), f"{command.kind}-")
    made = KeepOut(**{**changes_in(command), "id": ident})
    return with_brief(design, design.brief.model_copy(update={"keepouts": (*boxes, made)}))


@carry_out.register
def handle_edit_keep_out(command: EditKeepOut, design: Design, catalogue: Catalogue) -> Design:
    box = found(design.brief.keepouts, command.keepout, "keep-out", "keepout")
    changed = replaced(design.brief.keepouts, edited(box, changes_in(command, "keepout")))
    return with_brief(design, design.brief.model_copy(update={"keepouts": changed}))


@carry_out.register
def handle_remove_keep_out(command: RemoveKeepOut, design: Design, catalogue: Catalogue) -> Design:
    kept = without(design.brief.keepouts, command.keepout, "keep-out", "keepout")
    return with_brief(design, design.brief.model_copy(update={"keepouts": kept}))


@carry_out.register
def handle_split_opening(command: SplitOpening, design: Design, catalogue: Catalogue) -> Design:
    modules = split(design.brief, command.names, command.shares, command.seam)
    freed = {f.id: f.model_copy(update={"place": None}) for f in design.functions if f.place}
    made = with_changes(with_functions(design, freed), modules=modules, graphics=(), references=())
    return with_known_features(made)
