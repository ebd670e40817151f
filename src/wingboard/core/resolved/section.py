"""What a line across a plate meets: sheets with their openings, and the slices of the parts that sit in them.

``t`` runs along the line from its start, z backwards from the front surface of the face (mm).
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from itertools import pairwise
from typing import Literal, NamedTuple

import shapely
from shapely import LineString

from wingboard.core.geometry.frame import Frame
from wingboard.core.geometry.rounded import Rounded
from wingboard.core.record.modules import Layer
from wingboard.core.record.part import Part
from wingboard.core.resolved.module import ResolvedModule
from wingboard.core.resolved.profile import Cutout, Solid, cutouts, seated, sheets

FINE = 64
"""Straight pieces a quarter turn, where a line meets something round: within 0.01 % of its width."""
Span = tuple[float, float]
HERE = Frame(0.0, 0.0)


class Piece(NamedTuple):
    """A rectangle of the section: from ``t0`` to ``t1`` along the line, from ``z0`` to ``z1`` in depth."""

    kind: Solid | Literal["sheet"]
    t0: float
    t1: float
    z0: float
    z1: float
    layer: str | None = None
    owner: str | None = None


class InPlace(NamedTuple):
    """A part in a stack, and where it lies on the plate."""

    part: Part
    frame: Frame
    pocket: float = 0.0
    digits: int | None = None


def module_section(module: ResolvedModule, start: Span, end: Span) -> tuple[Piece, ...]:
    """The section of a module along a line between two of its points: its sheets with everything that is cut in them,
    screws' holes and exceptions too, then what the parts fill."""
    line = LineString([start, end])
    made: list[Piece] = []
    for sheet in sheets(module.stack):
        cuts = [
            (HERE, Cutout(sheet.layer.id, c.purpose, c.shape, c.x, c.y, c.turn, c.depth))
            for c in module.cutouts(sheet.layer.id)
        ]
        made += _sheet(sheet.layer, sheet.z0, sheet.z1, spans_along(module.area_of(sheet.layer), line), cuts, line)
    for p in module.placed:
        made += _filled(InPlace(p.part, p.frame, p.function.pocket), module.stack, line, p.function.id)
    return tuple(made)


def _filled(p: InPlace, stack: tuple[Layer, ...], line: LineString, owner: str | None = None) -> Iterator[Piece]:
    for s in seated(p.part, stack, p.pocket):
        for t0, t1 in spans_along(_drawn(p.frame.shape(s.outline())), line):
            yield Piece(s.kind, t0, t1, s.z0, s.z1, None, owner)


def section(
    stack: tuple[Layer, ...], area: shapely.Polygon, parts: Sequence[InPlace], start: Span, end: Span
) -> tuple[Piece, ...]:
    """The section of a plate with its parts along a line between two of its points.

    :param area: the plate, in the coordinates that the parts' frames lead to.
    :returns: the sheets from the front, each in the pieces that are left beside its openings, then what the parts fill.
    """
    line = LineString([start, end])
    cuts = [(p.frame, cut) for p in parts for cut in cutouts(p.part, stack, p.pocket, p.digits)]
    made: list[Piece] = []
    for sheet in sheets(stack):
        mine = [(frame, cut) for frame, cut in cuts if cut.layer == sheet.layer.id]
        made += _sheet(sheet.layer, sheet.z0, sheet.z1, spans_along(area, line), mine, line)
    for p in parts:
        made += _filled(p, stack, line)
    return tuple(made)


def _sheet(
    layer: Layer, z0: float, z1: float, solid: list[Span], cuts: Sequence[tuple[Frame, Cutout]], line: LineString
) -> Iterator[Piece]:
    """A sheet in bands of depth: a pocket cut from behind opens only the last of them."""
    floors = sorted({z0, z1, *(z1 - cut.depth for _, cut in cuts if cut.depth is not None)})
    for front, back in pairwise(f for f in floors if z0 <= f <= z1):
        gone = [
            span
            for frame, cut in cuts
            if cut.depth is None or z1 - cut.depth <= front
            for span in spans_along(_drawn(_opening(frame, cut)), line)
        ]
        for t0, t1 in _less(solid, gone):
            yield Piece("sheet", t0, t1, front, back, layer.id)


def _opening(frame: Frame, cut: Cutout) -> Rounded:
    return frame.shape(cut.shape.rounded().turned(cut.turn).moved(cut.x, cut.y))


def _drawn(shape: Rounded) -> shapely.Geometry:
    return shape.core.buffer(shape.radius, quad_segs=FINE)


def spans_along(area: shapely.Geometry, line: LineString) -> list[Span]:
    """Where a line is inside an area, from its start (mm)."""
    met = shapely.intersection(area, line)
    pieces = [g for g in getattr(met, "geoms", (met,)) if isinstance(g, LineString) and not g.is_empty]
    spans = (sorted(line.project(shapely.Point(c)) for c in (g.coords[0], g.coords[-1])) for g in pieces)
    return [(t0, t1) for t0, t1 in spans]


def _less(solid: Iterable[Span], gone: Iterable[Span]) -> list[Span]:
    """What is left of spans."""
    left = list(solid)
    for g0, g1 in gone:
        left = [piece for s0, s1 in left for piece in ((s0, min(s1, g0)), (max(s0, g1), s1)) if piece[1] > piece[0]]
    return left
