"""Pieces parted to lie on a bed: where the seams go, what passes along them, what holds the parts. Lengths in mm.

A seam is straight across the piece. With tongues it carries rounded dovetails that both parts are cut by at once, so
that they fit as closely as kerf and cutter are known.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from functools import cached_property
from typing import Literal, NamedTuple

import numpy as np
import shapely
from shapely import Point, Polygon, box
from shapely.geometry.base import BaseGeometry

from wingboard.core.cut.beside import loop_of, polygons, region_of
from wingboard.core.files.scene import CirclePath, Item, Scene
from wingboard.core.geometry.cuts import free_cuts
from wingboard.core.geometry.outline import Loop, Vertex, flattened
from wingboard.core.record.cutting import Joint, Split

Axis = Literal["x", "y"]
JOINTS: dict[Joint, str] = {
    "straight": "glued to the sheet beside it", "strap": "a strap glued behind", "tongues": "tongues, cut with it",
    "dowels": "dowels in its edge",
}  # fmt: skip
TONGUE = (10.0, 15.0, 9.0)
"""A tongue: as wide at its neck and at its head, and as long (mm)."""
TONGUE_EVERY = 45.0
ROUNDED = 2.0
"""Radius of a tongue's corners (mm): a cutter of 3 mm reaches into them."""
RIM = 6.0
"""Left beside a tongue (mm)."""
STRAP = 30.0
"""Width of a strap behind a seam (mm): 15 of glue on either part."""
DOWELS = (4.0, 5.0, 6.0, 8.0, 10.0)
"""Dowels that are sold (mm, common practice); one is half the sheet at most."""
DOWEL_EVERY, DOWEL_END, DOWEL_DEEP = 80.0, 25.0, 20.0
"""From dowel to dowel at most, to the ends of the seam, into either part (mm, common practice)."""
MARK = 4.0
"""A mark of a dowel reaches so far (mm) from the seam."""
STAGGER = 20.0
"""Seams of two sheets that lie on each other keep so far apart (mm, common practice): each is the other's strap."""
LEAST = 30.0
"""No part is made narrower than this (mm)."""
MOST, MORE = 8, 1
"""Parts at the most, and how many more than the fewest are tried."""
FAR = 1e5
Thing = tuple[Item, BaseGeometry]


class Seam(NamedTuple):
    """A seam: where it is along its axis, and what is cut along it as an area, all that lies before it."""

    axis: Axis
    at: float
    before: BaseGeometry


class Parted:
    """A piece's drawing parted along its seams."""

    def __init__(
        self, drawn: Scene, split: Split, things: list[Thing] | None = None, marked: bool = True
    ) -> None:  # fmt: skip
        self.drawn, self.split, self.marked = drawn, split, marked
        self.things = things_of(drawn) if things is None else things
        """Everything in the piece that no seam may pass, with what it covers."""

    @cached_property
    def area(self) -> BaseGeometry:
        """The piece without its openings filled in: its outline."""
        return region_of([i for i in self.drawn.items if i.operation == "outline"])

    @property
    def at(self) -> tuple[float, ...]:
        """The seams that lie within the piece."""
        long = self.drawn.width if self.split.along == "x" else self.drawn.height
        return tuple(a for a in self.split.at if 0 < a < long)

    @cached_property
    def seams(self) -> tuple[Seam, ...]:
        """Each seam with its tongues, where it has room for them."""
        return tuple(self._seam(at) for at in self.at)

    def _seam(self, at: float) -> Seam:
        axis = self.split.along
        before: BaseGeometry = _turned(box(-FAR, -FAR, at, FAR), axis)
        if self.split.joint == "tongues":
            before = before.union(shapely.union_all(list(self._tongues(at))))
            for by in (-ROUNDED, 2 * ROUNDED, -ROUNDED):  # corners inside and outside alike
                before = before.buffer(by, quad_segs=16)
        return Seam(axis, at, before)

    def _tongues(self, at: float) -> Iterator[BaseGeometry]:
        neck, head, long = TONGUE
        taken = shapely.union_all([shape for _, shape in self.things]).buffer(RIM)
        inside = self.area.buffer(-RIM)
        for v in self._places(at, TONGUE_EVERY, head / 2 + RIM):
            corners = ((at - 1, v - neck / 2), (at, v - neck / 2), (at + long, v - head / 2),
                       (at + long, v + head / 2), (at, v + neck / 2), (at - 1, v + neck / 2))  # fmt: skip
            tongue = _turned(Polygon(corners), self.split.along)
            if inside.covers(tongue) and not taken.intersects(tongue):
                yield tongue

    def _places(self, at: float, every: float, end: float) -> Iterator[float]:
        """Places along a seam, evenly, no further apart than ``every``, the first and last ``end`` from its ends."""
        for low, high in self.runs(at):
            room = high - low - 2 * end
            if room < 0:
                continue
            many = max(1, round(room / every) + 1)
            yield from ((low + end + room * k / (many - 1) for k in range(many)) if many > 1 else ((low + high) / 2,))

    def runs(self, at: float) -> list[tuple[float, float]]:
        """From where to where a seam runs in material."""
        line = shapely.LineString([(at, -FAR), (at, FAR)])
        met = self.area.intersection(_turned(line, self.split.along))
        k = 1 if self.split.along == "x" else 0
        found = [g.bounds for g in getattr(met, "geoms", (met,)) if not g.is_empty]
        return sorted((b[k], b[k + 2]) for b in found)

    def regions(self) -> list[BaseGeometry]:
        """The areas of the parts, the first at the left or at the foot."""
        left, found = self.area, []
        for seam in self.seams:
            found.append(left.intersection(seam.before))
            left = left.difference(seam.before)
        return [*found, left]

    def nearest(self) -> list[tuple[float, str, float]]:
        """For each seam what it comes nearest to, and how near (mm); by how much it cuts through, as less than 0."""
        found = []
        shapes = np.array([shape for _, shape in self.things], dtype=object)
        for seam in self.seams:
            edge = seam.before.boundary.intersection(self.area)
            if edge.is_empty or not len(shapes):
                continue
            away = shapely.distance(shapes, edge)
            n = int(away.argmin())
            through = shapes[n].intersection(edge).length if away[n] == 0 else 0.0
            found.append((seam.at, self.things[n][0].label, float(-through if away[n] == 0 else away[n])))
        return found

    def crossed(self) -> list[str]:
        """What the seams run through, by name."""
        return [label for _, label, gap in self.nearest() if gap <= 0]

    def parts(self) -> list[tuple[Scene, tuple[float, float]]]:
        """Each part as a drawing of its own, and where its lower left corner lies in the whole piece.

        Dowels are marked at both edges, but not on a face, which is seen.
        """
        made = []
        dowels = [mark for at in self.at for mark in self._dowel_marks(at)] if self.marked else []
        many = len(self.at) + 1
        for n, region in enumerate(self.regions(), 1):
            if region.is_empty:
                continue
            x0, y0, x1, y1 = region.bounds
            mine = [item for item, shape in self.things if shape.representative_point().within(region)]
            rims = [Item("outline", loop_of(p.exterior), f"{_named(self.drawn)}, part {n}") for p in polygons(region)]
            marks = [m for m in dowels if Point(_middle(m)).distance(region) < 1e-6]
            title = f"{self.drawn.title}, part {n} of {many}"
            scene = Scene(title, self.drawn.width, self.drawn.height, self.drawn.thickness, (*mine, *marks, *rims))
            made.append((scene.with_margins(x0, y0, x1, y1), (x0, y0)))
        return made

    def dowels(self, at: float) -> list[float]:
        """Where along a seam dowels are bored: not into anything that is cut."""
        if self.split.joint != "dowels" or dowel(self.drawn.thickness) is None:
            return []
        taken = shapely.union_all([s for item, s in self.things if item.operation != "engrave"])
        found = []
        for v in self._places(at, DOWEL_EVERY, DOWEL_END):
            bore = _turned(box(at - DOWEL_DEEP, v - 5, at + DOWEL_DEEP, v + 5), self.split.along)
            if not taken.intersects(bore):
                found.append(v)
        return found

    def _dowel_marks(self, at: float) -> Iterator[Item]:
        for v in self.dowels(at):
            for way in (-1, 1):
                ends = [(at + way * 0.5, v), (at + way * MARK, v)]
                points = ends if self.split.along == "x" else [(y, x) for x, y in ends]
                yield Item("engrave", tuple(Vertex(x, y) for x, y in points), "dowel", open=True, graphic=True)

    def strap(self, at: float) -> Scene | None:
        """What is glued across a seam from behind; None for other joints."""
        if self.split.joint != "strap":
            return None
        long = max((high - low for low, high in self.runs(at)), default=0.0) - 2 * RIM
        if long < STRAP:
            return None
        wide, high = (STRAP, long) if self.split.along == "x" else (long, STRAP)
        rim = ((0.0, 0.0), (wide, 0.0), (wide, high), (0.0, high))
        title = f"{self.drawn.title}, strap behind the seam at {at:g}"
        name = f"{_named(self.drawn)}, strap"
        return Scene(title, wide, high, self.drawn.thickness, (Item("outline", tuple(Vertex(*c) for c in rim), name),))


def dowel(thickness: float) -> float | None:
    """The dowel (mm) for a sheet so thick; None where none is thin enough."""
    return max((d for d in DOWELS if d <= thickness / 2 + 1e-9), default=None)


def proposed(
    drawn: Scene, piece: str, beds: Sequence[tuple[float, float]], spans: dict[Axis, list[tuple[float, float]]],
    need: float, joint: Joint = "straight", things: list[Thing] | None = None,
) -> Split | None:  # fmt: skip
    """The fewest parts side by side that one of the beds takes, parted where nothing is in the way.

    :param beds: width and height (mm) that a part may have, lying either way. :param spans: what else seams keep
        off, by their axis, from where to where (mm). :param need: what has to be left beside openings (mm).
    None where no straight seams do.
    """
    best: Split | None = None
    things = things_of(drawn) if things is None else things
    for axis in ("x", "y"):
        long, wide = (drawn.width, drawn.height) if axis == "x" else (drawn.height, drawn.width)
        room = max((a for w, h in beds for a, b in ((w, h), (h, w)) if wide <= b + 1e-9), default=0.0)
        if room < LEAST:
            continue
        room -= TONGUE[2] if joint == "tongues" else 0.0
        taken = [_along(shape, axis) for _, shape in things] + spans[axis]
        fewest = max(2, math.ceil(long / room))
        for many in range(fewest, min(fewest + MORE, MOST) + 1):
            if best is not None and many > len(best.at):
                break
            at = free_cuts(long, taken, room, many, LEAST)
            if at is None:
                continue
            split = Split(piece=piece, along=axis, at=at, joint=joint)
            if all(gap >= need for _, _, gap in Parted(drawn, split, things).nearest()):
                best = split
                break
    return best


def things_of(drawn: Scene) -> list[Thing]:
    """Everything that is cut or written inside a piece, with what it covers; of letters the box round each."""
    return [(i, _covered(i)) for i in drawn.items if i.operation != "outline"]


def _covered(item: Item) -> BaseGeometry:
    if isinstance(item.path, CirclePath):
        return Point(item.path.x, item.path.y).buffer(item.path.diameter / 2, quad_segs=32)
    if item.operation in ("engrave", "mask") and len(item.path) > 2:
        xs, ys = [v.x for v in item.path], [v.y for v in item.path]
        return box(min(xs), min(ys), max(xs), max(ys))
    if item.open or len(item.path) < 2:
        return shapely.LineString([(v.x, v.y) for v in (*item.path, item.path[-1])])
    points = flattened(item.path)
    area = Polygon(points) if len(points) > 2 else shapely.LineString(points)
    return area if area.is_valid else area.buffer(0)


def _along(shape: BaseGeometry, axis: Axis) -> tuple[float, float]:
    x0, y0, x1, y1 = shape.bounds
    return (x0, x1) if axis == "x" else (y0, y1)


def _turned(shape: BaseGeometry, axis: Axis) -> BaseGeometry:
    """What is drawn for a seam across the width, for one across the height."""
    return shape if axis == "x" else shapely.transform(shape, lambda p: p[:, ::-1])


def _middle(item: Item) -> tuple[float, float]:
    path: Loop = item.path  # type: ignore[assignment]  # marks are lines
    return (path[0].x + path[-1].x) / 2, (path[0].y + path[-1].y) / 2


def _named(drawn: Scene) -> str:
    return drawn.title.rpartition(": ")[2]
