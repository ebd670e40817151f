"""Parts: the catalogue, and what a part becomes in a design's stack."""

from __future__ import annotations

from fastapi import APIRouter, Response
from pydantic import BaseModel

from wingboard.api.routers.common import PROBLEMS, DesignId, OnDesk, as_json
from wingboard.core.design.model import Layer
from wingboard.core.design.part import Part, Shape
from wingboard.core.design.profile import cutouts, depth_behind_front, thread_needed
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.parts.side import SideBox, side_view

router = APIRouter(prefix="/api/designs/{design_id}/parts", tags=["parts"], responses=PROBLEMS)


class CutoutView(BaseModel):
    """An opening in one layer."""

    layer: str
    purpose: str
    shape: Shape
    x: float
    y: float
    turn: float


class PartSheet(BaseModel):
    """A part with what follows from it in this design's stack. Lengths in mm."""

    part: Part
    own: bool
    used_by: list[str]
    cutouts: list[CutoutView]
    side: list[SideBox]
    thread_needed: float
    depth_needed: float
    sources: dict[str, str]


class Drawer(BaseModel):
    """Every part that can be chosen, with what follows from it here."""

    sheets: list[PartSheet]
    stack: tuple[Layer, ...]
    free_depth: float


@router.get("", responses={200: {"model": Drawer}})
def drawer(desk: OnDesk, design_id: DesignId) -> Response:
    """The catalogue and the design's own parts, as they come out in its stack."""
    design = desk.open(design_id).design
    own = {p.id: p for p in design.parts}
    parts = {**catalogue(), **own}
    sheets = []
    for part in parts.values():
        users = [f.id for f in design.functions if f.part == part.id]
        made = [
            CutoutView(layer=c.layer, purpose=c.purpose, shape=c.shape, x=c.x, y=c.y, turn=c.turn)
            for c in cutouts(part, design.stack)
        ]
        sheets.append(
            PartSheet(
                part=part,
                own=part.id not in catalogue(),
                used_by=users,
                cutouts=made,
                side=list(side_view(part, design.stack)),
                thread_needed=thread_needed(part, design.stack),
                depth_needed=depth_behind_front(part, design.stack),
                sources={name: source.said() for name, source in part.sources.items()},
            )
        )
    return as_json(Drawer(sheets=sheets, stack=design.stack, free_depth=design.brief.depth))
