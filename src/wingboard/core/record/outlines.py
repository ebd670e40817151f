"""Closed outlines as a design states them: rectangle, arched top, or any path of lines and arcs. Lengths in mm."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, field_validator, model_validator

from wingboard.core.geometry.outline import Loop, Vertex, area_of, at_origin, rounded_rectangle, simple_loop
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
    rise: Size = Field(description="No more than half the width: a half circle")

    @model_validator(mode="after")
    def _rises_no_higher_than_a_half_circle(self) -> ArchOutline:
        if self.rise > self.width / 2:
            raise ValueError(f"An arch {self.width:g} mm wide rises {self.width / 2:g} mm at most")
        return self

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


def _points_of(loop: Loop) -> tuple[OutlinePoint, ...]:
    """Corners as a design keeps them: to a tenth of a micrometre."""
    return tuple(
        OutlinePoint(x=round(v.x, 4) + 0.0, y=round(v.y, 4) + 0.0, bulge=round(v.bulge, 6) + 0.0) for v in loop
    )


def _loop_of(points: tuple[OutlinePoint, ...]) -> Loop:
    return tuple(Vertex(p.x, p.y, p.bulge) for p in points)


def simple_points(points: tuple[OutlinePoint, ...], to_origin: bool = False) -> tuple[OutlinePoint, ...]:
    """Corners walked counter-clockwise, with their lower left at the origin where asked.

    :raises ValueError: they make no outline that could be cut.
    """
    loop = _loop_of(points)
    made = simple_loop(loop)
    made = at_origin(made) if to_origin else made
    return points if made is loop else _points_of(made)


class PathOutline(Record):
    """Any closed outline of lines and arcs: simple, counter-clockwise, its lower left at the origin.

    Made so when it enters; one that encloses nothing or crosses itself is refused.
    """

    kind: Literal["path"] = "path"
    points: tuple[OutlinePoint, ...] = Field(min_length=3, max_length=2000)

    @field_validator("points", mode="after")
    @classmethod
    def _made_simple(cls, points: tuple[OutlinePoint, ...]) -> tuple[OutlinePoint, ...]:
        return simple_points(points, to_origin=True)

    def loop(self) -> Loop:
        """The outline as points and bulges."""
        return _loop_of(self.points)


Outline = Annotated[RectOutline | ArchOutline | PathOutline, Field(discriminator="kind")]


def path_of(loop: Loop) -> PathOutline:
    """A loop as a design keeps it.

    :raises ValidationError: it makes no outline that could be cut.
    """
    return PathOutline(points=_points_of(loop))


def resized(
    outline: RectOutline | ArchOutline | PathOutline, width: float | None, height: float | None
) -> RectOutline | ArchOutline | PathOutline:
    """The outline ``width`` wide and ``height`` high over all (mm); what is None stays as it is.

    An arch keeps its rise: ``height`` is that of its sides. A free outline is stretched.
    """
    if isinstance(outline, PathOutline):
        x0, y0, x1, y1 = area_of(outline.loop()).bounds
        return outline if width is None and height is None else stretched(outline, width or x1 - x0, height or y1 - y0)
    changes = {name: value for name, value in (("width", width), ("height", height)) if value is not None}
    return type(outline).model_validate({**outline.model_dump(), **changes})


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
