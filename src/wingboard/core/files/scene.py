"""What is to be made on one sheet, free of any format: shapes, operations, depths. Lengths in mm, y up.

An export is three steps: a *scene* (resolved shapes by operation), a *sheet* (the scene on stock or paper), and one
writer a format. Writers return bytes, touch no files, and give the same bytes for the same input.
"""

from __future__ import annotations

from typing import Literal, NamedTuple

from wingboard.core.geometry.outline import Loop, Vertex, mirrored

Operation = Literal["engrave", "pocket", "inner", "outline"]
OPERATIONS: tuple[Operation, ...] = ("engrave", "pocket", "inner", "outline")
"""In the order they are cut: the outline last, so that the piece stays held (common practice)."""


class CirclePath(NamedTuple):
    """A full circle."""

    x: float
    y: float
    diameter: float


class Item(NamedTuple):
    """A path of one operation, closed unless ``open``. ``depth`` None goes through. ``label`` says whose it is.

    ``drill`` is the round hole that a path began with, before its notch was joined to it.
    """

    operation: Operation
    path: CirclePath | Loop
    label: str
    depth: float | None = None
    open: bool = False
    drill: CirclePath | None = None

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


def _mirrored(path: CirclePath | Loop, width: float) -> CirclePath | Loop:
    if isinstance(path, CirclePath):
        return path._replace(x=width - path.x)
    return mirrored(path, width)


def polygon_loop(points: tuple[tuple[float, float], ...]) -> Loop:
    """A closed loop of straight edges."""
    return tuple(Vertex(x, y) for x, y in points)
