"""The wiring sheet: every wire with both its ends, in the order of the work."""

from __future__ import annotations

from typing import Literal

from fastapi import APIRouter, Response
from pydantic import BaseModel, Field

from wingboard.api.routers.common import DesignId, OnDesk, as_json, download, file_of
from wingboard.core.parts.tags import TagKind
from wingboard.core.wire.sheet import missing, sheet_csv, small_parts, wiring_sheet
from wingboard.core.wire.sheet_pdf import cautions, wiring_pdf
from wingboard.core.wire.wires import How

router = APIRouter(prefix="/api/designs/{design_id}/wire", tags=["wire"])


class EndWords(BaseModel):
    """An end of a wire: what it is on, the terminal as it is marked, its module, the function that it belongs to."""

    device: str
    terminal: str
    module: str
    owner: str
    lies: str = Field(description="Where the terminal lies, seen from behind")
    label: str = Field(description="On the sleeve at this end")
    fixed: TagKind


class JointView(BaseModel):
    """A wire, the leg of a small part or a bridge (``how``), from end to end; ``done`` once soldered."""

    id: str
    number: str = Field(description="Of its group and its own, as on the sheet")
    start: EndWords
    end: EndWords
    net: str
    kind: Literal["signal", "ground", "supply", "load"]
    how: How
    done: bool
    colour: str
    stripe: str = Field(description="The second colour of one of 25 pairs; empty for others")
    area: float = Field(description="mm²")
    awg: int
    length: float = Field(description="As it is cut, mm; 0 where nothing is cut")
    amps: float = Field(description="The most that it carries, besides signals")
    said: bool = Field(description="Whether its length follows from the record; else it is to be measured")


class StepView(BaseModel):
    """A group of wires that are soldered together, and the test that ends it."""

    id: str
    title: str
    module: str
    joints: list[JointView]
    test: str


class SmallView(BaseModel):
    """A small part by its mark, what it is and for what; ``ohms`` is 0 for what is no resistor."""

    mark: str
    kind: str
    name: str
    ohms: float
    module: str


class WiringSheetView(BaseModel):
    """The wiring sheet: the work in its order, the small parts, what the record does not say, what to mind first."""

    revision: int
    steps: list[StepView]
    small: list[SmallView]
    unsaid: list[str]
    cautions: list[str]


@router.get("/sheet", responses={200: {"model": WiringSheetView}})
def sheet(desk: OnDesk, design_id: DesignId) -> Response:
    """The wiring sheet to solder from."""
    state = desk.open(design_id)
    r = state.resolved
    steps = [
        StepView(
            id=s.id, title=s.title, module=s.module, test=s.test,
            joints=[
                JointView.model_validate(
                    {**j._asdict(), "start": EndWords(**j.start._asdict()), "end": EndWords(**j.end._asdict())}
                )
                for j in s.joints
            ],
        )
        for s in wiring_sheet(r)
    ]  # fmt: skip
    small = [SmallView(**s._asdict()) for s in small_parts(r)]
    view = WiringSheetView(
        revision=state.row.number, steps=steps, small=small, unsaid=list(missing(r)), cautions=list(cautions(r))
    )
    return as_json(view)


@router.get("/wiring-sheet.pdf", response_class=Response, responses=file_of("application/pdf"))
def wiring_to_print(desk: OnDesk, design_id: DesignId) -> Response:
    """The wiring sheet to print."""
    return download(wiring_pdf(desk.open(design_id).resolved), "application/pdf", f"{design_id}-wiring-sheet.pdf")


@router.get("/wiring-sheet.csv", response_class=Response, responses=file_of("text/csv; charset=utf-8"))
def wiring_csv(desk: OnDesk, design_id: DesignId) -> Response:
    """The wiring sheet as CSV."""
    content = sheet_csv(desk.open(design_id).resolved)
    return download(content, "text/csv; charset=utf-8", f"{design_id}-wiring-sheet.csv")
