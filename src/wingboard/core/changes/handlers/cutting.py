"""Which machine makes what, what a coupon showed, what is done."""

from __future__ import annotations

from itertools import pairwise
from typing import Any

from wingboard.core.changes.commands.cutting import (
    AddPatch,
    EditPatch,
    ForgetFit,
    LogFit,
    MarkCut,
    RemovePatch,
    SetColours,
    SetCopies,
    SetJob,
    SetLettering,
    SetOldHoles,
    SetSplit,
    Tick,
    UnmarkCut,
)
from wingboard.core.changes.handlers.steps import (
    Catalogue,
    carry_out,
    changes_in,
    edited,
    find_module,
    found,
    free_ident,
    replaced,
    with_changes,
    without,
)
from wingboard.core.record.cutting import Colours, Copies, Fitted, Job, Lettered, OldHoles, Patch, Split
from wingboard.core.record.design import Design
from wingboard.core.record.errors import NotPossible, UnknownThing
from wingboard.core.record.workshop import Material

LEAST_PART = 20.0
"""No part of a split piece is narrower than this (mm, common practice: there is nothing to hold)."""


def _with(design: Design, **fields: Any) -> Design:
    return with_changes(design, cutting=design.cutting.model_copy(update=fields))


def _refuse_unknown(design: Design, piece: str) -> None:
    """:raises UnknownThing: no module of that name is there; its layers come and go with its school."""
    module = piece.partition("/")[0]
    if all(m.id != module for m in design.modules):
        raise UnknownThing(f"There is no module “{module}” to make a piece of", "piece")


@carry_out.register
def handle_set_job(command: SetJob, design: Design, catalogue: Catalogue) -> Design:
    _refuse_unknown(design, command.piece)
    kept = tuple(j for j in design.cutting.jobs if j.piece != command.piece)
    if command.machine is not None:
        found(design.workshop.machines, command.machine, "machine", "machine")
        kept += (Job(piece=command.piece, machine=command.machine),)
    return _with(design, jobs=kept)


@carry_out.register
def handle_set_copies(command: SetCopies, design: Design, catalogue: Catalogue) -> Design:
    _refuse_unknown(design, command.piece)
    kept = tuple(c for c in design.cutting.copies if c.piece != command.piece)
    more = (Copies(piece=command.piece, many=command.many),) if command.many > 1 else ()
    return _with(design, copies=kept + more)


def _sheet(entry: LogFit | ForgetFit | Fitted) -> tuple[str, Material, float]:
    return entry.machine, entry.material, entry.thickness


@carry_out.register
def handle_log_fit(command: LogFit, design: Design, catalogue: Catalogue) -> Design:
    found(design.workshop.machines, command.machine, "machine", "machine")
    before = next((f for f in design.cutting.fitted if _sheet(f) == _sheet(command)), None)
    known = before.model_dump() if before else {}
    now = Fitted.model_validate({**known, **command.model_dump(exclude={"do"}, exclude_none=True)})
    kept = tuple(f for f in design.cutting.fitted if f is not before)
    return _with(design, fitted=(*kept, now))


@carry_out.register
def handle_forget_fit(command: ForgetFit, design: Design, catalogue: Catalogue) -> Design:
    kept = tuple(f for f in design.cutting.fitted if _sheet(f) != _sheet(command))
    if len(kept) == len(design.cutting.fitted):
        raise UnknownThing("No coupon was logged for that machine and sheet", "machine")
    return _with(design, fitted=kept)


@carry_out.register
def handle_mark_cut(command: MarkCut, design: Design, catalogue: Catalogue) -> Design:
    for piece in command.pieces:
        _refuse_unknown(design, piece.piece)
    now = {p.piece: p for p in (*design.cutting.cut, *command.pieces)}
    return _with(design, cut=tuple(now.values()))


@carry_out.register
def handle_unmark_cut(command: UnmarkCut, design: Design, catalogue: Catalogue) -> Design:
    kept = tuple(p for p in design.cutting.cut if p.piece not in command.pieces)
    if len(kept) == len(design.cutting.cut):
        raise UnknownThing("None of these pieces was marked as cut", "pieces")
    return _with(design, cut=kept)


@carry_out.register
def handle_set_split(command: SetSplit, design: Design, catalogue: Catalogue) -> Design:
    _refuse_unknown(design, command.piece)
    if any(b - a < LEAST_PART for a, b in pairwise((0.0, *command.at))):
        raise NotPossible(f"Seams follow each other, at least {LEAST_PART:g} mm apart", "at")
    kept = tuple(s for s in design.cutting.splits if s.piece != command.piece)
    if command.at:
        kept += (Split(piece=command.piece, along=command.along, at=command.at, joint=command.joint),)
    return _with(design, splits=kept)


@carry_out.register
def handle_set_lettering(command: SetLettering, design: Design, catalogue: Catalogue) -> Design:
    find_module(design, command.module)
    kept = tuple(entry for entry in design.cutting.lettered if entry.module != command.module)
    if command.way is not None:
        kept += (Lettered(module=command.module, way=command.way),)
    return _with(design, lettered=kept)


@carry_out.register
def handle_set_old_holes(command: SetOldHoles, design: Design, catalogue: Catalogue) -> Design:
    find_module(design, command.module)
    kept = tuple(entry for entry in design.cutting.old if entry.module != command.module)
    if command.holes:
        kept += (OldHoles(module=command.module, holes=command.holes),)
    return _with(design, old=kept)


@carry_out.register
def handle_add_patch(command: AddPatch, design: Design, catalogue: Catalogue) -> Design:
    find_module(design, command.module)
    ident = free_ident({p.id for p in design.cutting.patches}, "patch-")
    made = Patch(id=ident, **command.model_dump(exclude={"do"}))
    return _with(design, patches=(*design.cutting.patches, made))


@carry_out.register
def handle_edit_patch(command: EditPatch, design: Design, catalogue: Catalogue) -> Design:
    before = found(design.cutting.patches, command.patch, "patch", "patch")
    return _with(design, patches=replaced(design.cutting.patches, edited(before, changes_in(command, "patch"))))


@carry_out.register
def handle_remove_patch(command: RemovePatch, design: Design, catalogue: Catalogue) -> Design:
    return _with(design, patches=without(design.cutting.patches, command.patch, "patch", "patch"))


@carry_out.register
def handle_set_colours(command: SetColours, design: Design, catalogue: Catalogue) -> Design:
    said = changes_in(command, nullable=tuple(Colours.model_fields))
    return _with(design, colours=edited(design.cutting.colours, said))


@carry_out.register
def handle_tick(command: Tick, design: Design, catalogue: Catalogue) -> Design:
    kept = tuple(step for step in design.cutting.done if step != command.step)
    return _with(design, done=(*kept, command.step) if command.done else kept)
