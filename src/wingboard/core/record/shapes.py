"""Shapes of openings and outlines, each about its own origin: circle, rectangle, or any path."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, field_validator

from wingboard.core.geometry.outline import Loop, Vertex, area_of, rounded_rectangle
from wingboard.core.geometry.rounded import Rounded, disc, polygon, slab
from wingboard.core.record.base import Length, Record, Size
from wingboard.core.record.outlines import OutlinePoint, simple_points


class Circle(Record):
    """A round shape."""

    kind: Literal["circle"] = "circle"
    diameter: Size

    @property
    def span(self) -> tuple[float, float]:
        """Width and height."""
        return self.diameter, self.diameter

    def rounded(self) -> Rounded:
        """The shape about the origin."""
        return disc(self.diameter)

    def grown(self, by: float) -> Circle:
        """The shape with ``by`` mm more all round."""
        return Circle(diameter=self.diameter + 2 * by)


class Rect(Record):
    """A rectangle, its corners rounded by ``radius``."""

    kind: Literal["rect"] = "rect"
    width: Size
    height: Size
    radius: Length = 0.0

    @property
    def span(self) -> tuple[float, float]:
        """Width and height."""
        return self.width, self.height

    def rounded(self) -> Rounded:
        """The shape about the origin."""
        return slab(self.width, self.height, self.radius)

    def grown(self, by: float) -> Rect:
        """The shape with ``by`` mm more all round."""
        return Rect(width=self.width + 2 * by, height=self.height + 2 * by, radius=self.radius + by)

    def loop(self) -> Loop:
        """The outline about the origin."""
        return rounded_rectangle(self.width, self.height, self.radius, -self.width / 2, -self.height / 2)


class Path(Record):
    """Any closed outline of lines and arcs, counter-clockwise, as imported for a cut-out."""

    kind: Literal["path"] = "path"
    points: tuple[OutlinePoint, ...] = Field(min_length=3, max_length=400)

    @field_validator("points", mode="after")
    @classmethod
    def _made_simple(cls, points: tuple[OutlinePoint, ...]) -> tuple[OutlinePoint, ...]:
        return simple_points(points)

    @property
    def span(self) -> tuple[float, float]:
        """Width and height."""
        x0, y0, x1, y1 = area_of(self.loop()).bounds
        return x1 - x0, y1 - y0

    def rounded(self) -> Rounded:
        """The shape about the origin."""
        return Rounded(area_of(self.loop()), 0.0)

    def grown(self, by: float) -> Path:
        """The shape with ``by`` mm more all round, its corners rounded, as straight pieces."""
        wider = polygon(area_of(self.loop()).buffer(by, quad_segs=8).simplify(0.005))
        points = tuple(OutlinePoint(x=round(x, 4), y=round(y, 4)) for x, y in wider.exterior.normalize().coords[:-1])
        return Path(points=points[:400])

    def loop(self) -> Loop:
        """The outline about the origin."""
        return tuple(Vertex(p.x, p.y, p.bulge) for p in self.points)


Shape = Annotated[Circle | Rect | Path, Field(discriminator="kind")]
