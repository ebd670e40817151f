"""A module as one sees it with the iron in hand: from behind, with the end of every line on its part."""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

import shapely
from shapely import affinity
from shapely.geometry import MultiPolygon, Polygon

from wingboard.core.geometry.outline import mirrored, svg_path
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule
from wingboard.core.resolved.placed import Placed
from wingboard.core.wire.lines import lines
from wingboard.core.wire.signals import Line, pooled, signals

BETWEEN = 2.54
"""mm from one end to the next: the pitch of most headers."""


class BodyBehind(NamedTuple):
    """A part's body: path data, and the middle and size of the box round it (mm)."""

    function: str
    name: str
    path: str
    x: float
    y: float
    width: float
    height: float


class End(NamedTuple):
    """Where a line ends on its part (mm)."""

    line: str
    x: float
    y: float


class ModuleBehind(NamedTuple):
    """A module from behind: its own coordinates with x from its right edge to the left."""

    id: str
    name: str
    path: str
    width: float
    height: float
    colour: str
    bodies: tuple[BodyBehind, ...]
    ends: tuple[End, ...]


def modules_behind(r: Resolved) -> tuple[ModuleBehind, ...]:
    """Every module from behind, in the order of the design."""
    by_function: dict[str, tuple[Line, ...]] = {}
    for line in (*lines(r), *(s.line for s in signals(r) if pooled(s))):
        if not line.network:  # those of a network end on its chips, or on several parts
            by_function[line.function] = (*by_function.get(line.function, ()), line)
    return tuple(_behind(module, by_function) for module in r.modules.values())


def _behind(module: ResolvedModule, by_function: dict[str, tuple[Line, ...]]) -> ModuleBehind:
    width, height = module.size
    bodies: list[BodyBehind] = []
    ends: list[End] = []
    for placed in module.placed:
        body = _body(placed, width)
        if placed.behind:
            bodies.append(body)
        ends += _ends(body, by_function.get(placed.function.id, ()))
    return ModuleBehind(
        id=module.module.id,
        name=module.module.name,
        path=svg_path(mirrored(module.loop, width)),
        width=width,
        height=height,
        colour=module.plates[-1].colour,
        bodies=tuple(bodies),
        ends=tuple(ends),
    )


def _body(placed: Placed, width: float) -> BodyBehind:
    pieces = [placed.frame.shape(s.outline()).drawn() for s in placed.behind]
    seen = affinity.affine_transform(shapely.unary_union(pieces), (-1, 0, 0, 1, width, 0))
    x0, y0, x1, y1 = (
        seen.bounds if pieces else (width - placed.place.x, placed.place.y, width - placed.place.x, placed.place.y)
    )
    return BodyBehind(
        function=placed.function.id,
        name=placed.function.name,
        path=_path(seen),
        x=(x0 + x1) / 2,
        y=(y0 + y1) / 2,
        width=x1 - x0,
        height=y1 - y0,
    )


def _path(shape: shapely.Geometry) -> str:
    pieces = shape.geoms if isinstance(shape, MultiPolygon) else (shape,)
    rings = [piece.exterior.coords for piece in pieces if isinstance(piece, Polygon) and not piece.is_empty]
    return "".join("M" + "L".join(f"{x:.2f} {y:.2f}" for x, y in ring) + "Z" for ring in rings)


def _ends(body: BodyBehind, of: Sequence[Line]) -> list[End]:
    """The ends in rows about the body's middle, first at the upper left: the record names a part's terminals, it does
    not say where they are."""
    if not of:
        return []
    in_a_row = min(len(of), max(1, int(0.8 * body.width / BETWEEN) + 1))
    rows = -(-len(of) // in_a_row)
    found = []
    for n, line in enumerate(of):
        row, column = divmod(n, in_a_row)
        here = min(in_a_row, len(of) - row * in_a_row)
        x = body.x + (column - (here - 1) / 2) * BETWEEN
        y = body.y - (row - (rows - 1) / 2) * BETWEEN
        found.append(End(line.id, x, y))
    return found
