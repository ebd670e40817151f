"""What the face's views draw over a module, in its coordinates (mm): hands, behind, webs, eye, reference."""

from __future__ import annotations

from typing import Literal

import shapely
from fastapi import APIRouter, Response
from pydantic import BaseModel, Field
from shapely import Polygon, affinity

from wingboard.api.routers.common import DesignId, OnDesk, as_json
from wingboard.core.face.cables import cable_room
from wingboard.core.face.reach import cap_needed, sight, zones
from wingboard.core.face.reference import fit, laid_in, traced_holes
from wingboard.core.face.rules import behind_boxes, bridge_needed, spacing_needed
from wingboard.core.face.sweep import Sweep, off_direction, sweeps_on
from wingboard.core.findings.limits import limit
from wingboard.core.geometry.rounded import Rounded
from wingboard.core.record.errors import UnknownThing
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule
from wingboard.core.resolved.placed import Placed

router = APIRouter(prefix="/api/designs/{design_id}/face/views", tags=["face"])


class HandView(BaseModel):
    """What a hand touches, and the room round it that no other may touch."""

    function: str
    touched: str
    room: str
    guard: bool


class ZoneView(BaseModel):
    """A circle that a free hand reaches."""

    hand: str
    name: str
    x: float
    y: float
    radius: float


class StepView(BaseModel):
    """A step of a procedure: where, which way it points when off, and whether that is odd."""

    function: str
    x: float
    y: float
    off: float | None
    odd: bool


class SweepView(BaseModel):
    """A procedure over this module; ``broken`` names the steps before which it jumps or goes back."""

    procedure: str
    name: str
    steps: list[StepView]
    broken: list[int]


class BodyView(BaseModel):
    """A body behind, its depth from the front surface, and the room of its cable."""

    function: str
    name: str
    path: str
    x: float
    y: float
    width: float
    height: float
    depth: float
    cable: str
    short: bool


class BoxView(BaseModel):
    """A box in the way behind, and the depth it leaves."""

    name: str
    path: str
    x: float = Field(description="Its lower left corner on the module (mm)")
    y: float
    width: float
    height: float
    clear: float


class WebView(BaseModel):
    """The material between two openings, or an opening and the edge, where it is worst."""

    x0: float
    y0: float
    x1: float
    y1: float
    gap: float
    needed: float
    layer: str
    standing: Literal["must", "judge", "fine"] = Field(description="Less than half of what is needed, less, or enough")
    near: bool = Field(description="Near enough to what is needed to be said in figures")


class EyeView(BaseModel):
    """How the eye sees the panel: how high it looks, and the cap height it needs."""

    distance: float
    off_square: float
    foreshortening: float
    cap_needed: float


class HoleView(BaseModel):
    """A traced circle, and how far the hole of its function lies beside it."""

    id: str
    function: str | None
    x: float
    y: float
    diameter: float
    residual: float
    rough: bool = Field(description="It is less round than a trace should be")
    off_centre: float | None
    wider: float | None


class ReferenceView(BaseModel):
    """How a picture lies: ``matrix`` row by row from pixels to mm, and what it is worth."""

    id: str
    known: bool = Field(description="It was scaled or squared; else it is only laid into the plate")
    matrix: list[float]
    squared: bool
    residual: float
    misses: bool = Field(description="Its points miss by more than a trace should")
    worst: float
    one_pixel: float
    check: float | None
    check_misses: bool
    holes: list[HoleView]


class FaceViews(BaseModel):
    """Everything the views of one module draw."""

    hands: list[HandView]
    zones: list[ZoneView]
    sweeps: list[SweepView]
    bodies: list[BodyView]
    boxes: list[BoxView]
    webs: list[WebView]
    eye: EyeView | None
    references: list[ReferenceView]


@router.get("/{module}", responses={200: {"model": FaceViews}})
def views(desk: OnDesk, design_id: DesignId, module: DesignId) -> Response:
    """The views of one module."""
    r = desk.open(design_id).resolved
    found = r.modules.get(module)
    if found is None:
        raise UnknownThing(f"There is no module “{module}” in this design", "module")
    return as_json(
        FaceViews(
            hands=[_hand(r, p) for p in found.placed if p.part.hand],
            zones=_zones(r, found),
            sweeps=[_sweep(s) for s in sweeps_on(r, found)],
            bodies=[_body(r, p) for p in found.placed if p.behind],
            boxes=_boxes(r, found),
            webs=_webs(r, found),
            eye=_eye(r),
            references=_references(r, found),
        )
    )


def _path(shape: Polygon) -> str:
    points = [f"{x:.2f} {y:.2f}" for x, y in shape.exterior.coords]
    return f"M{'L'.join(points)}Z" if points else ""


def _hand(r: Resolved, p: Placed) -> HandView:
    shape = p.part.touched() or p.part.covered()
    there = shape.turned(p.place.turn).moved(p.place.x, p.place.y)
    need = spacing_needed(r.design, p, p)
    room = there.grown((need.value if need else 0.0) / 2).drawn()
    guard = p.part.guarded and p.part.family == "toggle"
    return HandView(function=p.function.id, touched=_path(there.drawn()), room=_path(room), guard=guard)


def _zones(r: Resolved, module: ResolvedModule) -> list[ZoneView]:
    return [
        ZoneView(hand=z.hand, name=z.name, x=z.x - module.module.x, y=z.y - module.module.y, radius=z.radius)
        for z in zones(r)
    ]


def _sweep(sweep: Sweep) -> SweepView:
    wrong = {pair[1].function.id for pair in (*sweep.back, *sweep.gaps)}
    steps = [
        StepView(function=p.function.id, x=p.place.x, y=p.place.y, off=off_direction(p), odd=p in sweep.odd)
        for p in sweep.steps
    ]
    broken = [n for n, p in enumerate(sweep.steps) if p.function.id in wrong]
    return SweepView(procedure=sweep.procedure.id, name=sweep.procedure.name, steps=steps, broken=broken)


def _body(r: Resolved, p: Placed) -> BodyView:
    cable, depth = cable_room(p), r.modules[p.place.module].depth(p)
    pieces = [p.frame.shape(s.outline()).drawn() for s in p.behind]
    drawn = shapely.unary_union(pieces)
    return BodyView(
        function=p.function.id,
        name=p.function.name,
        path="".join(_path(piece) for piece in pieces),
        x=(drawn.bounds[0] + drawn.bounds[2]) / 2,
        y=(drawn.bounds[1] + drawn.bounds[3]) / 2,
        width=drawn.bounds[2] - drawn.bounds[0],
        height=drawn.bounds[3] - drawn.bounds[1],
        depth=depth,
        cable=_path(cable.drawn()) if cable else "",
        short=depth > r.design.brief.depth,
    )


def _boxes(r: Resolved, module: ResolvedModule) -> list[BoxView]:
    found = []
    for k in behind_boxes(r.design):
        box = affinity.translate(Polygon([(0, 0), (k.width, 0), (k.width, k.height), (0, k.height)]), k.x, k.y)
        found.append(
            BoxView(
                name=k.name,
                path=_path(affinity.translate(box, -module.module.x, -module.module.y)),
                x=k.x - module.module.x,
                y=k.y - module.module.y,
                width=k.width,
                height=k.height,
                clear=k.clear,
            )
        )
    return found


SHOWN, SAID = 2.5, 1.6
"""Webs up to so many times what is needed are shown; and said in figures."""


def _webs(r: Resolved, module: ResolvedModule) -> list[WebView]:
    worst: dict[tuple[int, int], WebView] = {}
    for layer in module.plates:
        need, shapes = bridge_needed(r.design, layer).value, module.openings(layer.id)
        for near in shapes.closer_than(need * SHOWN):
            a, b = int(shapes.owners[near.a]), int(shapes.owners[near.b])
            key = (min(a, b), max(a, b))
            if key in worst and worst[key].gap / worst[key].needed <= near.gap / need:
                continue
            x0, y0, x1, y1 = _between(shapes.shape(near.a), shapes.shape(near.b))
            share = near.gap / need
            worst[key] = WebView(
                x0=x0,
                y0=y0,
                x1=x1,
                y1=y1,
                gap=near.gap,
                needed=need,
                layer=layer.name,
                standing="must" if share < 1 / 2 else "judge" if share < 1 else "fine",
                near=share < SAID,
            )
    return list(worst.values())


def _between(a: Rounded, b: Rounded) -> tuple[float, float, float, float]:
    (ax, ay), (bx, by) = shapely.shortest_line(a.core, b.core).coords
    way = ((bx - ax) ** 2 + (by - ay) ** 2) ** 0.5 or 1.0
    ux, uy = (bx - ax) / way, (by - ay) / way
    return ax + ux * a.radius, ay + uy * a.radius, bx - ux * b.radius, by - uy * b.radius


def _eye(r: Resolved) -> EyeView | None:
    seen = sight(r)
    if seen is None:
        return None
    need = cap_needed(seen, limit(r.design, "legend-angle"))
    return EyeView(
        distance=seen.distance, off_square=seen.off_square, foreshortening=seen.foreshortening, cap_needed=need
    )


def _references(r: Resolved, module: ResolvedModule) -> list[ReferenceView]:
    found = []
    most = limit(r.design, "trace-deviation")
    for reference in r.design.references:
        if reference.module != module.module.id:
            continue
        known = fit(reference)
        lies = known or laid_in(reference, *module.size)
        holes = [
            HoleView(
                id=h.id,
                function=h.function,
                x=h.circle.x,
                y=h.circle.y,
                diameter=h.circle.diameter,
                residual=h.circle.residual,
                rough=h.circle.residual > most,
                off_centre=h.off_centre,
                wider=h.wider,
            )
            for h in traced_holes(r, reference)
        ]
        found.append(
            ReferenceView(
                id=reference.id,
                known=known is not None,
                matrix=[float(v) for v in lies.matrix.flatten()],
                squared=lies.squared,
                residual=lies.residual,
                misses=lies.residual > most,
                worst=lies.worst,
                one_pixel=lies.one_pixel,
                check=lies.check,
                check_misses=lies.check is not None and abs(lies.check) > most,
                holes=holes,
            )
        )
    return found
