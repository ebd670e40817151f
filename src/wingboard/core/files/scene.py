"""What is to be made on one sheet, free of any format: shapes, operations, depths. Lengths in mm, y up.

An export is three steps: a *scene* (resolved shapes by operation), a *sheet* (the scene on stock or paper), and one
writer a format. Writers return bytes, touch no files, and give the same bytes for the same input.
"""

from __future__ import annotations

from typing import Literal, NamedTuple

from wingboard.core.geometry.outline import Loop, Vertex, mirrored, moved, svg_line, svg_path

Operation = Literal["mask", "engrave", "pocket", "inner", "outline"]
OPERATIONS: tuple[Operation, ...] = ("mask", "engrave", "pocket", "inner", "outline")
"""In the order they are cut: the outline last, so that the piece stays held (common practice).

A mask is cut through a film that lies on the sheet, or in a film by itself: a kiss cut.
"""


class CirclePath(NamedTuple):
    """A full circle."""

    x: float
    y: float
    diameter: float


class Item(NamedTuple):
    """A path of one operation, closed unless ``open``. ``depth`` None goes through. ``label`` says whose it is.

    ``drill`` is the round hole that a path began with, before its notch was joined to it; ``graphic`` engraving is a
    line of a bracket, a box or a placard and no word.
    """

    operation: Operation
    path: CirclePath | Loop
    label: str
    depth: float | None = None
    open: bool = False
    drill: CirclePath | None = None
    graphic: bool = False

    @property
    def circle(self) -> CirclePath | None:
        """The round hole that it is, or began with; None for any other path."""
        return self.path if isinstance(self.path, CirclePath) else self.drill


class Scene(NamedTuple):
    """Everything on one sheet, its origin at the lower left corner of the piece."""

    title: str
    width: float
    height: float
    thickness: float
    items: tuple[Item, ...]

    def of(self, operation: Operation) -> tuple[Item, ...]:
        """The items of one operation, in their order."""
        return tuple(item for item in self.items if item.operation == operation)

    def with_margins(self, x0: float, y0: float, x1: float, y1: float) -> Scene:
        """The scene with its sheet from (x0, y0) to (x1, y1), its origin moved to that sheet's lower left corner."""
        if (x0, y0) == (0.0, 0.0):
            return self._replace(width=x1, height=y1)
        items = tuple(
            item._replace(
                path=_shifted(item.path, -x0, -y0),
                drill=item.drill and item.drill._replace(x=item.drill.x - x0, y=item.drill.y - y0),
            )
            for item in self.items
        )
        return self._replace(width=x1 - x0, height=y1 - y0, items=items)

    def seen_from_behind(self) -> Scene:
        """The scene turned over, left for right; doing it twice gives the scene again."""
        items = tuple(
            item._replace(
                path=_mirrored(item.path, self.width),
                drill=item.drill and item.drill._replace(x=self.width - item.drill.x),
            )
            for item in self.items
        )
        return self._replace(items=items)

    def quarter_turned(self) -> Scene:
        """The scene turned by 90° counter-clockwise, its lower left corner at the origin again."""
        items = tuple(
            item._replace(
                path=_quarter(item.path, self.height),
                drill=item.drill and item.drill._replace(x=self.height - item.drill.y, y=item.drill.x),
            )
            for item in self.items
        )
        return self._replace(items=items, width=self.height, height=self.width)

    def shifted(self, dx: float, dy: float) -> tuple[Item, ...]:
        """The items moved by (dx, dy) mm."""
        return tuple(
            item._replace(
                path=_shifted(item.path, dx, dy),
                drill=item.drill and item.drill._replace(x=item.drill.x + dx, y=item.drill.y + dy),
            )
            for item in self.items
        )


def path_data(item: Item) -> str:
    """The item's path as SVG path data, y up, for drawing."""
    if not isinstance(item.path, CirclePath):
        return svg_line(item.path) if item.open else svg_path(item.path)
    c, r = item.path, item.path.diameter / 2
    return svg_path((Vertex(c.x - r, c.y, 1.0), Vertex(c.x + r, c.y, 1.0)))


def _shifted(path: CirclePath | Loop, dx: float, dy: float) -> CirclePath | Loop:
    if isinstance(path, CirclePath):
        return path._replace(x=path.x + dx, y=path.y + dy)
    return moved(path, dx, dy)


def _quarter(path: CirclePath | Loop, height: float) -> CirclePath | Loop:
    if isinstance(path, CirclePath):
        return CirclePath(height - path.y, path.x, path.diameter)
    return tuple(Vertex(height - v.y, v.x, v.bulge) for v in path)


def _mirrored(path: CirclePath | Loop, width: float) -> CirclePath | Loop:
    if isinstance(path, CirclePath):
        return path._replace(x=width - path.x)
    return mirrored(path, width)


def polygon_loop(points: tuple[tuple[float, float], ...]) -> Loop:
    """A closed loop of straight edges."""
    return tuple(Vertex(x, y) for x, y in points)
