"""Boards behind: what they meet, how deep they reach, whether anything holds them."""

from __future__ import annotations

from collections.abc import Iterator

from wingboard.core.changes.commands.boards import EditMounted
from wingboard.core.changes.commands.layers import EditLayer
from wingboard.core.face.checks.spots import at
from wingboard.core.findings.finding import Finding, Fix, Measure
from wingboard.core.findings.registry import Check, check
from wingboard.core.quantity import VISIBLE
from wingboard.core.record.base import Source
from wingboard.core.record.modules import is_plate
from wingboard.core.resolved.boards import BoardBehind
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule
from wingboard.core.resolved.profile import sheets
from wingboard.core.stack.boards import behind, free_spots, meetings
from wingboard.core.stack.checks.holding import READS
from wingboard.core.stack.hardware import STANDOFFS

SUM = Source(kind="computed", note="layers, standoffs, board and what stands on it, one behind the other")


@check(
    "stack.board-meets",
    severity="must",
    title="A board meets something",
    measures="from a board behind to bodies, screws, bars and other boards at its depth",
    limits=("board-clearance",),
    fixes="moves the board to where it is free",
    reads=READS,
)
def board_meets(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Boards behind that run into what else is there, or come too near; what is nearest is named."""
    for module in r.modules.values():
        for board in behind(r, module):
            found = meetings(r, module, board)
            if found:
                yield rule.finding(
                    module.module.id,
                    board.board.id,
                    detail=f"{board.board.name} to {found[0].name}"
                    + (f" and {len(found) - 1} more" if len(found) > 1 else ""),
                    spot=at(module, board.board.x, board.board.y),
                    measured=Measure(value=found[0].apart),
                    needed=Measure(value=rule.limit(r.design)),
                    fix=lambda module=module, board=board: _to_a_free_spot(r, module, board),  # type: ignore[misc]
                )


def _to_a_free_spot(r: Resolved, module: ResolvedModule, board: BoardBehind) -> list[Fix]:
    fixes = []
    for x, y, turn in free_spots(r, module, board.board, most=3):
        command = EditMounted(module=module.module.id, board=board.board.id, x=round(x, 1), y=round(y, 1), turn=turn)
        fixes.append(Fix(label=f"Move {board.board.name} to x {x:.0f}, y {y:.0f}", commands=(command,)))
    return fixes


@check(
    "stack.too-deep",
    severity="must",
    title="Boards reach too deep",
    measures="from the panel's front surface to the back of a board with what stands on it, against the free depth",
    source=SUM,
    fixes="takes shorter standoffs",
    reads=READS,
)
def too_deep(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Boards of the stack, and boards behind, beyond the free depth."""
    depth = r.design.brief.depth
    for use in r.layers:
        ends = {s.layer.id: s.z1 for s in sheets(r.modules[use.modules[0]].stack)} if use.modules else {}
        deep = ends.get(use.layer.id, 0.0)
        if not is_plate(use.layer) and deep > depth + VISIBLE:
            shorter = [n for n in STANDOFFS if n <= use.layer.gap - (deep - depth) + VISIBLE]
            command = EditLayer(module=use.own, layer=use.layer.id, gap=shorter[-1]) if shorter else None
            yield rule.finding(
                *use.subjects,
                detail=use.layer.name,
                measured=Measure(value=deep),
                needed=Measure(value=depth),
                most=True,
                fix=Fix(label=f"Standoffs of {shorter[-1]} mm", commands=(command,)) if command else None,
            )
    for module in r.modules.values():
        for board in behind(r, module):
            if board.z1 > depth + VISIBLE:
                yield rule.finding(
                    module.module.id,
                    board.board.id,
                    detail=board.board.name,
                    spot=at(module, board.board.x, board.board.y),
                    measured=Measure(value=board.z1),
                    needed=Measure(value=depth),
                    most=True,
                )


@check(
    "stack.board-loose",
    severity="judge",
    title="A board without screws",
    measures="holes of a board behind, against two",
    source=Source(kind="practice", note="two screws at least, at opposite corners; tape lets go in the heat"),
    reads=("modules",),
)
def board_loose(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Boards behind that fewer than two screws hold."""
    for module in r.modules.values():
        for board in module.module.mounted:
            if len(board.holes) < 2:
                yield rule.finding(
                    module.module.id,
                    board.id,
                    detail=board.name,
                    spot=at(module, board.x, board.y),
                    measured=Measure(value=len(board.holes), unit="screws"),
                    needed=Measure(value=2, unit="screws"),
                )
