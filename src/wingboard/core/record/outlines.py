"""Closed outlines as a design states them: rectangle, arched top, or any path of lines and arcs. Lengths in mm."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from wingboard.core.geometry.outline import Loop, Vertex, area_of, rounded_rectangle
from wingboard.core.record.base import Length, Mm, Record, Size


class RectOutline(Record):
    """A rectangle with its lower left corner at the origin."""

    kind: Literal["rect"] = "rect"
    width: Size
    height: Size
    radius: Length = 0.0

    def loop(self) -> Loop:
        """The outline as points and bulges."""
        return rounded_rectangle(self.width, self.height, self.radius)


class ArchOutline(Record):
    """A rectangle whose top is one arc: ``height`` at the sides, ``rise`` more in the middle."""

    kind: Literal["arch"] = "arch"
    width: Size
    height: Size
    rise: Size

    def loop(self) -> Loop:
        """The outline as points and bulges. The bulge of an arc is its rise over half its chord (DXF Reference)."""
        bulge = self.rise / (self.width / 2)
        return (
            Vertex(0.0, 0.0),
            Vertex(self.width, 0.0),
            Vertex(self.width, self.height, bulge),
            Vertex(0.0, self.height),
        )


class OutlinePoint(Record):
    """A corner; ``bulge`` is the tangent of a quarter of the angle of the arc that follows (0: straight)."""

    x: Mm
    y: Mm
    bulge: Annotated[float, Field(ge=-10, le=10)] = 0.0


class PathOutline(Record):
    """Any closed outline of lines and arcs, counter-clockwise."""

    kind: Literal["path"] = "path"
    points: tuple[OutlinePoint, ...] = Field(min_length=3, max_length=2000)

    def loop(self) -> Loop:
        """The outline as points and bulges."""
        return tuple(Vertex(p.x, p.y, p.bulge) for p in self.points)


Outline = Annotated[RectOutline | ArchOutline | PathOutline, Field(discriminator="kind")]


def path_of(loop: Loop, places: int = 4) -> PathOutline:
    """A loop as a design keeps it, rounded to a tenth of a micrometre."""
    points = (
        OutlinePoint(x=round(v.x, places) + 0.0, y=round(v.y, places) + 0.0, bulge=round(v.bulge, 6) + 0.0)
        for v in loop
    )
    return PathOutline(points=tuple(points))


def stretched(outline: RectOutline | ArchOutline | PathOutline, width: float, height: float) -> PathOutline:
    """The outline's bounds made ``width`` × ``height`` mm, its lower left at the origin; arcs stay arcs."""
    loop = outline.loop()
    x0, y0, x1, y1 = area_of(loop).bounds
    sx, sy = width / (x1 - x0), height / (y1 - y0)
    made = []
    for a, b in zip(loop, loop[1:] + loop[:1], strict=True):
        # The middle of an arc stands off its chord by half the chord times the bulge, to the right of the way along it.
        off_x, off_y = (b.y - a.y) / 2 * a.bulge * sx, -(b.x - a.x) / 2 * a.bulge * sy
        dx, dy = (b.x - a.x) * sx, (b.y - a.y) * sy
        chord = dx * dx + dy * dy
        bulge = 2 * (off_x * dy - off_y * dx) / chord if chord else 0.0
        made.append(Vertex((a.x - x0) * sx, (a.y - y0) * sy, bulge))
    return path_of(tuple(made))
