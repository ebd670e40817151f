"""What is behind the modules: boards, and the case round them."""

from __future__ import annotations

from wingboard.core.changes.commands.boards import EditMounted, MountBoard, RemoveCase, SetCase, UnmountBoard
from wingboard.core.changes.handlers.steps import (
    Catalogue,
    carry_out,
    changes_in,
    edited,
    find_module,
    found,
    new_ident,
    replaced,
    with_changes,
    without,
)
from wingboard.core.changes.handlers.wire import check_controller
from wingboard.core.geometry.outline import area_of
from wingboard.core.record.design import Design
from wingboard.core.record.modules import Case, Module, Mounted, usual_on
from wingboard.core.record.usual import USUAL_CASE


def _with_boards(design: Design, module: Module, boards: tuple[Mounted, ...]) -> Design:
    return with_changes(design, modules=replaced(design.modules, edited(module, {"mounted": boards})))


@carry_out.register
def handle_mount_board(command: MountBoard, design: Design, catalogue: Catalogue) -> Design:
    module = find_module(design, command.module)
    if command.controller is not None:
        check_controller(design, command.controller, "controller")
    x0, y0, x1, y1 = area_of(module.outline.loop()).bounds
    said = command.model_dump(include=set(Mounted.model_fields), exclude_none=True)
    ident = new_ident(command.id, (b.id for b in module.mounted), "board-")
    middle = {"x": (x0 + x1) / 2, "y": (y0 + y1) / 2, "on": usual_on(design.stack_of(module))}
    board = Mounted.model_validate({**middle, **said, "id": ident})
    return _with_boards(design, module, (*module.mounted, board))


@carry_out.register
def handle_edit_mounted(command: EditMounted, design: Design, catalogue: Catalogue) -> Design:
    module = find_module(design, command.module)
    board = found(module.mounted, command.board, "board", "board")
    changed = edited(board, changes_in(command, "module", "board"))
    return _with_boards(design, module, replaced(module.mounted, changed))


@carry_out.register
def handle_unmount_board(command: UnmountBoard, design: Design, catalogue: Catalogue) -> Design:
    module = find_module(design, command.module)
    return _with_boards(design, module, without(module.mounted, command.board, "board", "board"))


@carry_out.register
def handle_set_case(command: SetCase, design: Design, catalogue: Catalogue) -> Design:
    module = find_module(design, command.module)
    before, changes = module.case or Case(), changes_in(command, "module")
    if command.made is not None and command.made != before.made:
        changes = {**USUAL_CASE[command.made], **changes}
    case = edited(before, changes)
    return with_changes(design, modules=replaced(design.modules, edited(module, {"case": case})))


@carry_out.register
def handle_remove_case(command: RemoveCase, design: Design, catalogue: Catalogue) -> Design:
    module = find_module(design, command.module)
    return with_changes(design, modules=replaced(design.modules, edited(module, {"case": None})))
