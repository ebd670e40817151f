"""The programs of a design's boards: what each reads and drives by name, its files, what it takes."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Annotated, Literal

from fastapi import APIRouter, Query, Response
from pydantic import BaseModel, Field

from wingboard.api.routers.common import DesignId, OnDesk, as_json, download, file_of
from wingboard.core.record.controllers import board_of
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.program.channels import READ, Kind, Unserved, channels, meanings, programmed
from wingboard.core.wire.program.differing import told
from wingboard.core.wire.program.identity import State
from wingboard.core.wire.program.sketch import homeless
from wingboard.core.wire.program.tables import letter_of
from wingboard.core.wire.schemes.networks import NetworkKind, networks
from wingboard.services.programs import folder, on_board, program, size_of

router = APIRouter(prefix="/api/designs/{design_id}/wire", tags=["wire"])


class ChannelView(BaseModel):
    """Something that a program reads or drives, and what it is called over the link."""

    name: str
    kind: Kind
    reads: bool
    function: str
    pins: list[str] = Field(description="Of its lines, those that have one of their own")
    where: str = Field(description="Where all of it is read or driven, chips and matrices too")
    how: str = Field(description="What it does at power-up and without a link, where that is said, and the like")
    by: NetworkKind | None = Field(description="The network that reads or drives it; none for pins of its own")
    values: list[str] = Field(description="What each value means, such as “1 pressed”")


class SourceView(BaseModel):
    """A file of a program."""

    name: str
    text: str


class UnservedView(BaseModel):
    """A line that no program reads or drives, and why."""

    name: str
    terminal: str
    why: str


class ProgramView(BaseModel):
    """The program of one board."""

    board: str
    name: str
    letter: str
    chip: str
    folder: str
    channels: list[ChannelView]
    files: list[SourceView]
    unserved: list[UnservedView]


class ProgramsView(BaseModel):
    """The programs of all boards that take one."""

    revision: int
    programs: list[ProgramView]
    without: list[UnservedView] = Field(description="Lines that are on no board")


class SizeView(BaseModel):
    """Bytes that a program takes, and that its chip has; ``cannot``: why it was not compiled, ``partly``: why not
    wholly, and what could be done."""

    flash: int
    flash_of: int
    ram: int
    ram_of: int
    over: str
    cannot: str
    partly: str


class DifferenceView(BaseModel):
    """A thing that a board's program does otherwise than the design says now."""

    name: str
    change: Literal["new", "gone", "renamed", "moved", "changed"]
    was: str
    now: str


class OnBoardView(BaseModel):
    """What a board's answer to ``hello`` means for a design."""

    state: State
    board: str = Field(description="Which of the design's; empty for none")
    words: str
    differences: list[DifferenceView]


@router.get("/on-board", responses={200: {"model": OnBoardView}})
def board_s_program(desk: OnDesk, design_id: DesignId, said: Annotated[str, Query(max_length=400)] = "") -> Response:
    """Whether the program on a board does what the design says, from the board's answer to ``hello``; what differs."""
    found = on_board(desk, design_id, said)
    lines = [DifferenceView(**one._asdict()) for one in found.differences]
    return as_json(OnBoardView(state=found.state, board=found.board, words=found.words, differences=lines))


@router.get("/programs", responses={200: {"model": ProgramsView}})
def programs(desk: OnDesk, design_id: DesignId) -> Response:
    """What each board's program reads and drives, with its files."""
    state = desk.open(design_id)
    made = [_view(state.resolved, board, state.row.number) for board in programmed(state.resolved)]
    without = _told(homeless(state.resolved))
    return as_json(ProgramsView(revision=state.row.number, programs=made, without=without))


@router.get("/program.zip", response_class=Response, responses=file_of("application/zip"))
def program_folder(desk: OnDesk, design_id: DesignId, board: str = "") -> Response:
    """The folder of one board's program; of the first where none is named."""
    state = desk.open(design_id)
    made = program(state.resolved, _named(state.resolved, board), state.row.number)
    return download(folder(made), "application/zip", f"{made.folder}.zip")


@router.get("/program-size", responses={200: {"model": SizeView}})
def program_size(desk: OnDesk, design_id: DesignId, board: str = "") -> Response:
    """What one board's program takes on its chip, as the tools of this machine say."""
    state = desk.open(design_id)
    ident = _named(state.resolved, board)
    made = program(state.resolved, ident, state.row.number)
    return as_json(SizeView(**size_of(state.resolved, made, ident)._asdict()))


def _named(r: Resolved, board: str) -> str:
    return board or next(iter(programmed(r)), "")


def _view(r: Resolved, board: str, revision: int) -> ProgramView:
    made = program(r, board, revision)
    controller = next(c for c in r.design.controllers if c.id == board)
    pins = {p.line: p.pin for p in r.design.pins}
    by = {s.id: network.kind for network in networks(r) for s in network.signals}
    there = [
        ChannelView(
            name=c.name,
            kind=c.kind,
            reads=c.kind in READ,
            function=c.function,
            pins=[pins[line.id] for line in c.lines if line.id in pins],
            where=told(r, board)[c.name].where,
            how="" if c.kind == "ladder" else told(r, board)[c.name].how,
            by=by.get(c.lines[0].id),
            values=[f"{value} {word}" for value, word in meanings(r, c)],
        )
        for c in channels(r).channels
        if c.controller == board
    ]
    return ProgramView(
        board=board,
        name=controller.name,
        letter=letter_of(r, board),
        chip=board_of(r.design, controller.board).chip,
        folder=made.folder,
        channels=there,
        files=[SourceView(name=name, text=text) for name, text in made.files.items()],
        unserved=_told(made.unserved),
    )


def _told(of: Iterable[Unserved]) -> list[UnservedView]:
    return [UnservedView(name=u.line.name, terminal=u.line.terminal, why=u.why) for u in of]
