"""Which machine makes what, what a coupon showed, what is done."""

from __future__ import annotations

from typing import Any

from wingboard.core.changes.commands.cutting import ForgetFit, LogFit, MarkCut, SetCopies, SetJob, Tick, UnmarkCut
from wingboard.core.changes.handlers.steps import Catalogue, carry_out, found, with_changes
from wingboard.core.record.cutting import Copies, Fitted, Job
from wingboard.core.record.design import Design
from wingboard.core.record.errors import UnknownThing
from wingboard.core.record.workshop import Material


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
def handle_tick(command: Tick, design: Design, catalogue: Catalogue) -> Design:
    kept = tuple(step for step in design.cutting.done if step != command.step)
    return _with(design, done=(*kept, command.step) if command.done else kept)
