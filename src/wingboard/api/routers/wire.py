"""Wire: boards, lines, the pin list, and solving."""

from __future__ import annotations

from fastapi import APIRouter, Response
from pydantic import BaseModel, Field

from wingboard.api.routers.common import DesignId, Key, OnDesk, Revision, WithJobs, as_json, download, file_of
from wingboard.api.routers.events import JobView, job_view
from wingboard.core.record.wiring import BoardKind
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.behind import ModuleBehind, modules_behind
from wingboard.core.wire.boards import boards
from wingboard.core.wire.export import wire_files
from wingboard.core.wire.pinlist import pin_list
from wingboard.services.solving import solving

router = APIRouter(prefix="/api/designs/{design_id}/wire", tags=["wire"])


class PinView(BaseModel):
    """A pin of a board and what hangs on it."""

    name: str
    can: tuple[str, ...]
    lines: list[str] = Field(description="One, or those of a bus that share it")
    bus: str | None


class BoardView(BaseModel):
    """A controller with its real pins."""

    id: str
    name: str
    board: BoardKind
    chip: str
    header: int = Field(description="Pins of its header in all")
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
    bus: str | None
    owner: str = Field(description="The function's id")
    via: str = Field(description="The network that reads or drives it; board and pin are then its own")


class BodyBehindView(BaseModel):
    """A part's body from behind: path data, and the middle and size of the box round it (mm)."""

    function: str
    name: str
    path: str
    x: float
    y: float
    width: float
    height: float


class EndView(BaseModel):
    """Where a line ends on its part (mm, from behind)."""

    line: str
    x: float
    y: float


class ModuleBehindView(BaseModel):
    """A module from behind, x from its right edge to the left."""

    id: str
    name: str
    path: str
    width: float
    height: float
    colour: str
    bodies: list[BodyBehindView]
    ends: list[EndView]


class WireView(BaseModel):
    """Everything the wire station shows."""

    revision: int
    modules: list[ModuleBehindView]
    boards: list[BoardView]
    rows: list[RowView]


class Solve(BaseModel):
    """Solve from a revision; ``afresh`` gives up what was solved before, pins set by hand stay."""

    base: Revision
    afresh: bool = False
    key: Key = None


@router.get("", responses={200: {"model": WireView}})
def wires(desk: OnDesk, design_id: DesignId) -> Response:
    """Boards and the pin list."""
    state = desk.open(design_id)
    rows = [RowView(**row._asdict()) for row in pin_list(state.resolved)]
    return as_json(
        WireView(
            revision=state.row.number,
            modules=[_behind(m) for m in modules_behind(state.resolved)],
            boards=_boards(state.resolved),
            rows=rows,
        )
    )


def _behind(module: ModuleBehind) -> ModuleBehindView:
    bodies = [BodyBehindView(**body._asdict()) for body in module.bodies]
    ends = [EndView(**end._asdict()) for end in module.ends]
    return ModuleBehindView(**{**module._asdict(), "bodies": bodies, "ends": ends})


def _boards(r: Resolved) -> list[BoardView]:
    given: dict[tuple[str, str], list[str]] = {}
    for choice in r.design.pins:
        given.setdefault((choice.controller, choice.pin), []).append(choice.line)
    found = []
    for controller in r.design.controllers:
        kind = boards()[controller.board]
        pins = [
            PinView(name=p.name, can=p.can(), lines=given.get((controller.id, p.name), []), bus=p.bus)
            for p in kind.pins
        ]
        found.append(
            BoardView(
                id=controller.id,
                name=controller.name,
                board=controller.board,
                chip=kind.chip,
                header=kind.header,
                pins=pins,
            )
        )
    return found


@router.post("/solve", status_code=202, responses={202: {"model": JobView}})
def solve_pins(desk: OnDesk, jobs: WithJobs, design_id: DesignId, asked: Solve) -> Response:
    """Start giving every line a pin; one sent twice starts one job; what it finds is kept as a revision."""
    desk.open(design_id, asked.base)
    work = solving(desk, design_id, asked.base, asked.afresh, asked.key)
    return as_json(job_view(jobs.start("pins", design_id, work, asked.key)), 202)


@router.get("/pins.csv", response_class=Response, responses=file_of("text/csv; charset=utf-8"))
def pins_csv(desk: OnDesk, design_id: DesignId) -> Response:
    """The pin list as CSV."""
    content = wire_files(desk.open(design_id).resolved)["wire/pins.csv"]
    return download(content, "text/csv; charset=utf-8", f"{design_id}-pins.csv")


@router.get("/pins.json", response_class=Response, responses=file_of("application/json"))
def pins_json(desk: OnDesk, design_id: DesignId) -> Response:
    """The pin list as JSON."""
    content = wire_files(desk.open(design_id).resolved)["wire/pins.json"]
    return download(content, "application/json", f"{design_id}-pins.json")
