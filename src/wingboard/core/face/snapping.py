"""Where what is dragged may catch: on centres, edges, the plate's middle and equal gaps; and what a measure catches."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from typing import Literal, NamedTuple

import shapely

from wingboard.core.face.graphics import graphics_on
from wingboard.core.quantity import TOUCH
from wingboard.core.record.errors import UnknownThing
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule
from wingboard.core.resolved.placed import Placed

Axis = Literal["x", "y"]
Kind = Literal["centre", "edge", "middle", "gap"]
Box = tuple[float, float, float, float]
WANTED: tuple[Kind, ...] = ("middle", "centre", "edge", "gap")
"""The order in which kinds are preferred where two catch at the same place."""


class Guide(NamedTuple):
    """A line that catches what is dragged, in the module's coordinates (mm).

    ``at`` is the coordinate that the leader has when it is caught, ``line`` the one of the line that is then drawn;
    ``low`` and ``high`` are what there is along the other axis. ``gap`` and ``gaps`` belong to equal gaps: their
    width, and where along the axis each begins, one of them that which comes to be. It holds only while what is
    dragged reaches into ``low`` … ``high``.
    """

    axis: Axis
    kind: Kind
    at: float
    line: float
    low: float
    high: float
    gap: float | None = None
    gaps: tuple[float, ...] = ()


class Guides(NamedTuple):
    """Everything that catches, and how far what is dragged reaches from the leader's place: left, down, right, up."""

    box: Box
    guides: tuple[Guide, ...]


class _Span(NamedTuple):
    """What a part covers along an axis, and along the other one."""

    low: float
    high: float
    centre: float
    across: tuple[float, float]


def covered_box(placed: Placed) -> Box:
    """What a part covers of its module: least x and y, greatest x and y (mm)."""
    return placed.frame.shape(placed.part.covered()).bounds


def guides_for(r: Resolved, lead: str, moving: Iterable[str]) -> tuple[str, Guides]:
    """What catches a leader that is dragged together with others, and the module it is on.

    :param lead: id of a placed function, or of a graphic.
    :param moving: ids of the functions and graphics that are dragged; the leader need not be among them.
    :raises UnknownThing: the leader is neither.
    """
    module, x, y = _leader(r, lead)
    ids = {lead, *moving}
    boxes = [covered_box(p) for p in module.placed if p.function.id in ids]
    drawn = graphics_on(r, module)
    boxes += [d.room for d in drawn if d.graphic.id in ids]
    whole = _round_all(boxes)
    others = [covered_box(p) for p in module.placed if p.function.id not in ids]
    others += [d.room for d in drawn if d.graphic.id not in ids]
    centres = [(p.place.x, p.place.y) for p in module.placed if p.function.id not in ids]
    alone = len(boxes) == 1 and any(p.function.id == lead for p in module.placed)
    found = [
        guide
        for axis in (0, 1)
        for guide in _along(
            axis, (x, y)[axis], whole, [_span(b, axis) for b in others], [c[axis] for c in centres], module, alone
        )
    ]
    reach = (whole[0] - x, whole[1] - y, whole[2] - x, whole[3] - y)
    return module.module.id, Guides(reach, _distinct(found))


def _leader(r: Resolved, lead: str) -> tuple[ResolvedModule, float, float]:
    for placed in r.placed:
        if placed.function.id == lead:
            return r.modules[placed.place.module], placed.place.x, placed.place.y
    for graphic in r.design.graphics:
        if graphic.id == lead:
            return r.modules[graphic.module], graphic.x, graphic.y
    raise UnknownThing("That is not on a module", "lead")


def _round_all(boxes: Sequence[Box]) -> Box:
    return (
        min(b[0] for b in boxes),
        min(b[1] for b in boxes),
        max(b[2] for b in boxes),
        max(b[3] for b in boxes),
    )


def _span(box: Box, axis: int) -> _Span:
    low, high = box[axis], box[axis + 2]
    return _Span(low, high, (low + high) / 2, (box[1 - axis], box[3 - axis]))


def _along(
    axis: int, lead: float, whole: Box, others: list[_Span], centres: list[float], module: ResolvedModule, alone: bool
) -> list[Guide]:
    """What catches along one axis; a part alone is caught by its centre, several by the middle of them all."""
    name: Axis = "x" if axis == 0 else "y"
    mine = _span(whole, axis)
    bounds = module.area.bounds
    side, middle = (bounds[1 - axis], bounds[3 - axis]), (bounds[axis] + bounds[axis + 2]) / 2
    hold = lead if alone else mine.centre
    found = [Guide(name, "middle", middle + lead - hold, middle, *side)]
    found += [
        Guide(name, "centre", c + lead - hold, c, *o.across)
        for o, c in zip(others, [*centres, *(o.centre for o in others[len(centres) :])], strict=True)
    ]
    for mine_at, their_ats in ((mine.low, [o.low for o in others]), (mine.high, [o.high for o in others])):
        found += [
            Guide(name, "edge", at + lead - mine_at, at, *o.across) for o, at in zip(others, their_ats, strict=True)
        ]
    return found + _equal_gaps(name, lead, mine, others)


def _equal_gaps(name: Axis, lead: float, mine: _Span, others: list[_Span]) -> list[Guide]:
    """Beside two neighbours at the distance that they have, and in the middle between them."""
    found = []
    size = mine.high - mine.low
    ordered = sorted(others, key=lambda o: o.low)
    for n, a in enumerate(ordered):
        b = next((o for o in ordered[n + 1 :] if o.low >= a.high - TOUCH and _meet(a.across, o.across)), None)
        if b is None:
            continue
        gap, low, high = b.low - a.high, max(a.across[0], b.across[0]), min(a.across[1], b.across[1])
        after, before = b.high + gap, a.low - gap
        found.append(Guide(name, "gap", after + lead - mine.low, after, low, high, gap, (a.high, b.high)))
        found.append(Guide(name, "gap", before + lead - mine.high, before, low, high, gap, (before, a.high)))
        room = (gap - size) / 2
        if room > TOUCH:
            at = a.high + room
            found.append(Guide(name, "gap", at + lead - mine.low, at, low, high, room, (a.high, b.low - room)))
    return found


def _meet(a: tuple[float, float], b: tuple[float, float]) -> bool:
    return min(a[1], b[1]) - max(a[0], b[0]) > TOUCH


def _distinct(found: Iterable[Guide]) -> tuple[Guide, ...]:
    """One guide for each place, with everything it passes; the preferred kind where several are one line."""
    joined: dict[tuple[object, ...], Guide] = {}
    for guide in sorted(found, key=lambda g: WANTED.index(g.kind)):
        apart = (guide.low, guide.high, guide.gaps) if guide.kind == "gap" else ()
        key = (guide.axis, round(guide.at, 2), round(guide.line, 2), guide.kind == "gap", apart)
        known = joined.get(key)
        low, high = (guide.low, guide.high) if known is None else (known.low, known.high)
        joined[key] = (known or guide)._replace(low=min(low, guide.low), high=max(high, guide.high))
    return tuple(joined.values())


class Caught(NamedTuple):
    """A point that a measure catches: where it is (mm), and what it is."""

    x: float
    y: float
    words: str


def caught_near(r: Resolved, module: ResolvedModule, x: float, y: float, within: float) -> Caught:
    """The centre, or else the edge, that is nearest to a point of a module within a distance (mm); else the point."""
    centres = [Caught(p.place.x, p.place.y, f"centre of {p.function.name}") for p in module.placed]
    centres += [Caught(f.x, f.y, f"screw {f.name}") for f in module.fixings]
    nearest = min(centres, key=lambda c: (c.x - x) ** 2 + (c.y - y) ** 2, default=None)
    if nearest is not None and (nearest.x - x) ** 2 + (nearest.y - y) ** 2 <= within**2:
        return nearest
    point = shapely.Point(x, y)
    edges = [(module.area.exterior, f"edge of {module.module.name}")]
    for placed in module.placed:
        x0, y0, x1, y1 = covered_box(placed)
        if x0 - within <= x <= x1 + within and y0 - within <= y <= y1 + within:
            edges.append(
                (placed.frame.shape(placed.part.covered()).drawn().exterior, f"edge of {placed.function.name}")
            )
    edge, words = min(edges, key=lambda e: float(e[0].distance(point)))
    if edge.distance(point) > within:
        return Caught(x, y, "")
    (on_x, on_y), _ = shapely.shortest_line(edge, point).coords
    return Caught(float(on_x), float(on_y), words)
