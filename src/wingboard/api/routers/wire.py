"""Wire: boards, lines, the pin list, and solving."""

from __future__ import annotations

from fastapi import APIRouter, Response
from pydantic import BaseModel, Field

from wingboard.api.routers.common import DesignId, Key, OnDesk, Revision, WithJobs, as_json, download, file_of
from wingboard.api.routers.events import JobView, job_view
from wingboard.core.record.controllers import Board, board_of
from wingboard.core.record.wiring import OwnPin
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire import export
from wingboard.core.wire.behind import ModuleBehind, modules_behind
from wingboard.core.wire.harness.oflines import wires_of_lines
from wingboard.core.wire.harness.plugs import plugs, rows_of
from wingboard.core.wire.own_boards import pins_from
from wingboard.core.wire.pinlist import pin_list
from wingboard.services.solving import solving

router = APIRouter(prefix="/api/designs/{design_id}/wire", tags=["wire"])


class PinView(BaseModel):
    """A pin of a board and what hangs on it."""

    name: str
    can: tuple[str, ...]
    lines: list[str] = Field(description="One, or those of a bus that share it")
    bus: str | None


class SideView(BaseModel):
    """Two rows of pads that lie opposite each other, each from the USB plug on."""

    left: list[str]
    right: list[str]


class BoardView(BaseModel):
    """A controller with its real pins."""

    id: str
    name: str
    board: str
    chip: str
    header: int = Field(description="Pins of its header in all")
    volts: float = Field(description="Of its logic")
    pins: list[PinView]
    sides: list[SideView] = Field(description="Its pads as they lie, side by side; those that are no pins too")


class OfLineView(BaseModel):
    """The wire of a line, all its pieces together; plug and contact are empty where it goes through none."""

    colour: str
    stripe: str
    area: float = Field(description="mm²")
    length: float = Field(description="mm")
    said: bool
    plug: str
    plug_name: str
    contact: str
    lies: str
    soldered: bool


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
    kind: str = Field(description="In words: digital in, PWM, a bus …")
    milliamps: float = Field(description="Through its pin")
    boot: str = Field(description="What it does from power-up until a program speaks")
    common: str = Field(description="What its other end is joined with")
    wire: OfLineView | None = Field(description="None while it has no pin, or hangs on a chip")


class BodyBehindView(BaseModel):
    """A part's body from behind: path data, and the middle and size of the box round it (mm)."""

    function: str
    name: str
    path: str
    x: float
    y: float
    width: float
    height: float


class TerminalBehindView(BaseModel):
    """A terminal of a part as it is marked (mm, from behind); ``net`` is empty where no wire ends on it."""

    function: str
    name: str
    net: str
    x: float
    y: float


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
    terminals: list[TerminalBehindView]
    ends: list[EndView]


class PlugBehind(BaseModel):
    """A plug of a module: its contacts row by row."""

    id: str
    title: str
    module: str
    rows: list[list[int]]


class WireView(BaseModel):
    """Everything the wire station shows."""

    revision: int
    plugs: list[PlugBehind]
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
    of_lines = wires_of_lines(state.resolved)
    rows = [
        RowView(**row._asdict(), wire=OfLineView(**of._asdict()) if (of := of_lines.get(row.line)) else None)
        for row in pin_list(state.resolved)
    ]
    there = [
        PlugBehind(id=p.id, title=p.title, module=p.module, rows=[list(row) for row in rows_of(p)])
        for p in plugs(state.resolved)
    ]
    return as_json(
        WireView(
            revision=state.row.number,
            plugs=there,
            modules=[_behind(m) for m in modules_behind(state.resolved)],
            boards=_boards(state.resolved),
            rows=rows,
        )
    )


def _behind(module: ModuleBehind) -> ModuleBehindView:
    bodies = [BodyBehindView(**body._asdict()) for body in module.bodies]
    terminals = [TerminalBehindView(**t._asdict()) for t in module.terminals]
    ends = [EndView(**end._asdict()) for end in module.ends]
    return ModuleBehindView(**{**module._asdict(), "bodies": bodies, "terminals": terminals, "ends": ends})


def _boards(r: Resolved) -> list[BoardView]:
    given: dict[tuple[str, str], list[str]] = {}
    for choice in r.design.pins:
        given.setdefault((choice.controller, choice.pin), []).append(choice.line)
    found = []
    for controller in r.design.controllers:
        kind = board_of(r.design, controller.board)
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
                volts=kind.volts,
                pins=pins,
                sides=_sides(kind),
            )
        )
    return found


def _sides(kind: Board) -> list[SideView]:
    """The pads that wires end on: pins, supplies, grounds."""
    wanted = {*(p.name for p in kind.pins), *kind.rails, "GND", "AGND"}
    rows = {side: [pad for pad in pads if pad in wanted] for side, pads in kind.sides.items()}
    pairs = (("left", "right"), ("end_left", "end_right"))
    return [SideView(left=rows.get(a, []), right=rows.get(b, [])) for a, b in pairs if a in rows or b in rows]


class BoardText(BaseModel):
    """Pins of a board of one's own as they were typed or pasted, a line a pin."""

    text: str = Field(max_length=20_000)


class UnreadView(BaseModel):
    """A line (from 1) that was not understood, and why."""

    line: int
    why: str


class BoardTextView(BaseModel):
    """What was understood, and what was not."""

    pins: list[OwnPin]
    wrong: list[UnreadView]


@router.post("/board-text", responses={200: {"model": BoardTextView}})
def read_board_text(desk: OnDesk, design_id: DesignId, asked: BoardText) -> Response:
    """Pins from text; nothing is kept by this."""
    desk.open(design_id)
    pins, wrong = pins_from(asked.text)
    return as_json(BoardTextView(pins=list(pins), wrong=[UnreadView(**w._asdict()) for w in wrong]))


@router.post("/solve", status_code=202, responses={202: {"model": JobView}})
def solve_pins(desk: OnDesk, jobs: WithJobs, design_id: DesignId, asked: Solve) -> Response:
    """Start giving every line a pin; one sent twice starts one job; what it finds is kept as a revision."""
    desk.open(design_id, asked.base)
    work = solving(desk, design_id, asked.base, asked.afresh, asked.key)
    return as_json(job_view(jobs.start("pins", design_id, work, asked.key)), 202)


@router.get("/pins.csv", response_class=Response, responses=file_of("text/csv; charset=utf-8"))
def pins_csv(desk: OnDesk, design_id: DesignId) -> Response:
    """The pin list as CSV."""
    return download(export.pins_csv(desk.open(design_id).resolved), "text/csv; charset=utf-8", f"{design_id}-pins.csv")


@router.get("/pins.json", response_class=Response, responses=file_of("application/json"))
def pins_json(desk: OnDesk, design_id: DesignId) -> Response:
    """The pin list as JSON."""
    return download(export.pins_json(desk.open(design_id).resolved), "application/json", f"{design_id}-pins.json")
