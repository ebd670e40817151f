"""A module as one sees it with the iron in hand: from behind, with every terminal and the end of every line."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import NamedTuple

import shapely
from shapely import affinity
from shapely.geometry import MultiPolygon, Polygon

from wingboard.core.geometry.outline import mirrored, svg_path
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule
from wingboard.core.resolved.placed import Placed
from wingboard.core.wire.harness.places import places
from wingboard.core.wire.lines import lines
from wingboard.core.wire.netlist import Port
from wingboard.core.wire.nets import net_list
from wingboard.core.wire.signals import Line, pooled, signals

BETWEEN = 2.54
"""mm from one end to the next where they have no terminal of their own: the pitch of most headers."""
NEAREST = 0.8
"""mm between two ends that can still be told apart."""


class BodyBehind(NamedTuple):
    """A part's body: path data, and the middle and size of the box round it (mm)."""

    function: str
    name: str
    path: str
    x: float
    y: float
    width: float
    height: float


class TerminalBehind(NamedTuple):
    """A terminal of a part as it is marked, and where it lies (mm); ``net`` is empty where no wire ends on it."""

    function: str
    name: str
    net: str
    x: float
    y: float


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
    terminals: tuple[TerminalBehind, ...]
    ends: tuple[End, ...]


def modules_behind(r: Resolved) -> tuple[ModuleBehind, ...]:
    """Every module from behind, in the order of the design."""
    by_function: dict[str, tuple[Line, ...]] = {}
    marked = {s.line.id: s.terminal for s in signals(r)}
    for line in (*lines(r), *(s.line for s in signals(r) if pooled(s))):
        if not line.network:  # those of a network end on its chips, or on several parts
            by_function[line.function] = (*by_function.get(line.function, ()), line)
    return tuple(_behind(r, module, by_function, marked) for module in r.modules.values())


def _behind(
    r: Resolved, module: ResolvedModule, by_function: dict[str, tuple[Line, ...]], marked: dict[str, str]
) -> ModuleBehind:
    width, height = module.size
    bodies: list[BodyBehind] = []
    terminals: list[TerminalBehind] = []
    ends: list[End] = []
    for placed in module.placed:
        body = _body(placed, width)
        if placed.behind:
            bodies.append(body)
        mine = tuple(_terminals(r, placed.function.id, width))
        terminals += mine
        ends += _ends(body, mine, by_function.get(placed.function.id, ()), marked)
    return ModuleBehind(
        id=module.module.id,
        name=module.module.name,
        path=svg_path(mirrored(module.loop, width)),
        width=width,
        height=height,
        colour=module.plates[-1].colour,
        bodies=tuple(bodies),
        terminals=tuple(terminals),
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


def _terminals(r: Resolved, function: str, width: float) -> Iterator[TerminalBehind]:
    """Those of a part, also the ones that no wire ends on."""
    nets, device = net_list(r), net_list(r).devices.get(function)
    for name in device.ports if device else ():
        port = Port(function, name)
        spot, net = places(r).spot(port), nets.by_port.get(port)
        yield TerminalBehind(function, name, net.id if net else "", width - spot.x, spot.y)


def _ends(
    body: BodyBehind, terminals: Sequence[TerminalBehind], of: Sequence[Line], marked: dict[str, str]
) -> Iterator[End]:
    """Each at its terminal; what has none, as the tap of a ladder or what drives a load, in a row at the body's lower
    edge, where the small parts are that it ends on."""
    at = {t.name: (t.x, t.y) for t in terminals}
    taken: list[tuple[float, float]] = []
    others = [line for line in of if marked.get(line.id) not in at]
    for line in of:
        x, y = at.get(marked.get(line.id, ""), (0.0, 0.0))
        if line in others:
            x = body.x + (others.index(line) - (len(others) - 1) / 2) * BETWEEN
            y = body.y - body.height / 2
        while any(abs(x - a) < NEAREST and abs(y - b) < NEAREST for a, b in taken):
            x += BETWEEN / 2
        taken.append((x, y))
        yield End(line.id, x, y)
