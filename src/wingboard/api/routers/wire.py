"""Wire: boards, lines, the pin list, and solving."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter, Response
from pydantic import BaseModel, Field

from wingboard.api.routers.common import PROBLEMS, DesignId, OnDesk, as_json
from wingboard.api.views import DesignView, changed_view
from wingboard.core.changes.commands.wire import AddController, SetPins
from wingboard.core.record.wiring import BoardKind
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.boards import boards
from wingboard.core.wire.export import wire_files
from wingboard.core.wire.pinlist import pin_list
from wingboard.core.wire.solve import boards_that_would_fit, solve
from wingboard.services.desk import Kept

router = APIRouter(prefix="/api/designs/{design_id}/wire", tags=["wire"], responses=PROBLEMS)


class PinView(BaseModel):
    """A pin of a board and what hangs on it."""

    name: str
    can: tuple[str, ...]
    line: str | None


class BoardView(BaseModel):
    """A controller with its real pins."""

    id: str
    name: str
    board: BoardKind
    chip: str
    pins: list[PinView]


class RowView(BaseModel):
    """A row of the pin list; pin and board are empty where none is given."""

    board: str
    pin: str
    direction: str
    function: str
    terminal: str
    module: str
    note: str
    line: str
    controller: str
    by: str


class WireView(BaseModel):
    """Everything the wire station shows."""

    revision: int
    boards: list[BoardView]
    rows: list[RowView]


class Solve(BaseModel):
    """Solve from a revision; ``afresh`` gives up what was solved before, pins set by hand stay."""

    base: Annotated[int, Field(ge=1)]
    afresh: bool = False


class UnfitView(BaseModel):
    """A function that got no pins, and why."""

    function: str
    name: str
    reason: str


class Solved(BaseModel):
    """What the solver did: the design after it, who got nothing and why, and what would make them fit."""

    view: DesignView
    unfit: list[UnfitView]
    optimal: bool
    would_fit: list[AddController]


@router.get("", responses={200: {"model": WireView}})
def wires(desk: OnDesk, design_id: DesignId) -> Response:
    """Boards and the pin list."""
    state = desk.open(design_id)
    rows = [RowView(**row._asdict()) for row in pin_list(state.resolved)]
    return as_json(WireView(revision=state.row.number, boards=_boards(state.resolved), rows=rows))


def _boards(r: Resolved) -> list[BoardView]:
    given = {(p.controller, p.pin): p.line for p in r.design.pins}
    found = []
    for controller in r.design.controllers:
        kind = boards()[controller.board]
        pins = [PinView(name=p.name, can=p.can(), line=given.get((controller.id, p.name))) for p in kind.pins]
        found.append(
            BoardView(id=controller.id, name=controller.name, board=controller.board, chip=kind.chip, pins=pins)
        )
    return found


@router.post("/solve", responses={200: {"model": Solved}})
def solve_pins(desk: OnDesk, design_id: DesignId, asked: Solve) -> Response:
    """Give every line a pin, keep the result, and say what did not fit."""
    state = desk.open(design_id, asked.base)
    found = solve(state.resolved, keep=not asked.afresh)
    command = SetPins(pins=found.pins)
    unchanged = set(found.pins) == {p for p in state.design.pins if p.by == "solver"}
    kept = Kept(state, state) if unchanged else desk.command(design_id, asked.base, (command,))
    more = boards_that_would_fit(state.resolved) if found.unfit else ()
    return as_json(
        Solved.model_construct(
            view=changed_view(kept),
            unfit=[UnfitView(**left._asdict()) for left in found.unfit],
            optimal=found.optimal,
            would_fit=[AddController(board=c.board) for c in more],
        )
    )


@router.get("/pins.csv")
def pins_csv(desk: OnDesk, design_id: DesignId) -> Response:
    """The pin list as CSV."""
    return _download(desk.open(design_id).resolved, design_id, "csv", "text/csv; charset=utf-8")


@router.get("/pins.json")
def pins_json(desk: OnDesk, design_id: DesignId) -> Response:
    """The pin list as JSON."""
    return _download(desk.open(design_id).resolved, design_id, "json", "application/json")


def _download(r: Resolved, design_id: str, ending: str, media: str) -> Response:
    headers = {"content-disposition": f'attachment; filename="{design_id}-pins.{ending}"'}
    return Response(wire_files(r)[f"wire/pins.{ending}"], media_type=media, headers=headers)
