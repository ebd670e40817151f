"""The case behind a module: its pieces of sheet, or what is printed of it and a picture of that."""

from __future__ import annotations

from fastapi import APIRouter, Response
from pydantic import BaseModel, Field

from wingboard.api.routers.common import DesignId, OnDesk, file_of
from wingboard.core.cut.printed import case_solids
from wingboard.core.geometry.outline import svg_path
from wingboard.core.record.errors import UnknownThing
from wingboard.core.record.modules import Case
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule
from wingboard.core.stack.case import CaseMade, case_of, in_place, outline_of
from wingboard.core.stack.shell import cuts_of, weight

router = APIRouter(prefix="/api/designs/{design_id}/stack", tags=["stack"])


class CasePieceView(BaseModel):
    """A piece of a case; ``path`` is where it lies in the box unfolded, with its openings, or empty."""

    id: str
    name: str
    many: int
    width: float
    height: float
    openings: int
    note: str
    path: str


class PrintedPieceView(BaseModel):
    """A piece that is printed: its size (mm), and its weight (g) if it is solid."""

    id: str
    name: str
    size: list[float]
    grams: float


class CaseView(BaseModel):
    """A case: inside and outside (width, height, depth; mm), heat (W), vents (mm²), and its pieces.

    Of a printed one ``printed`` says what to print, on ``printer``; of one of sheet ``pieces`` says what to cut.
    """

    case: Case
    inside: list[float]
    outside: list[float]
    heat: float
    vent_needed: float
    vent_made: float
    pieces: list[CasePieceView]
    printed: list[PrintedPieceView]
    printer: str | None = Field(description="The workshop's printer that takes its pieces; none: none does")


def case_view(r: Resolved, module: ResolvedModule) -> CaseView | None:
    """What the page shows of a module's case; None where it has none."""
    made = case_of(r, module)
    if made is None:
        return None
    printer = cuts_of(made, r.design.workshop.machines).printer
    printed = [
        PrintedPieceView(id=s.id, name=s.name, size=list(s.size), grams=weight(s, made.case.material))
        for s in case_solids(r, module)
    ]
    return CaseView(
        case=made.case,
        inside=list(made.inside),
        outside=list(made.outside),
        heat=made.heat,
        vent_needed=made.vent_needed,
        vent_made=made.vent_made,
        pieces=[] if printed else _pieces(made),
        printed=printed,
        printer=printer and printer.name,
    )


def _pieces(made: CaseMade) -> list[CasePieceView]:
    return [
        CasePieceView(
            id=p.id, name=p.name, many=p.many, width=p.width, height=p.height, openings=len(p.openings), note=p.note,
            path="".join(svg_path(in_place(p, loop)) for loop in (outline_of(p), *(o.path for o in p.openings)))
            if p.at else "",
        )
        for p in made.pieces
    ]  # fmt: skip


@router.get("/{module}/case.png", response_class=Response, responses=file_of("image/png"))
def case_png(desk: OnDesk, design_id: DesignId, module: str) -> Response:
    """What is printed of a module's case as a picture, clear where there is nothing."""
    from wingboard.core.stack.portrait import portrait  # Pillow is not needed at the start

    r = desk.open(design_id).resolved
    found = r.modules.get(module)
    solids = case_solids(r, found) if found else ()
    if not solids:
        raise UnknownThing("This module has no printed case", "module")
    pieces = [s for s in solids if s.id != "case-hatch"]
    return Response(portrait(pieces), media_type="image/png", headers={"cache-control": "no-cache"})
