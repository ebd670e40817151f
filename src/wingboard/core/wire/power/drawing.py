"""The tree of power as a drawing: from the left, where current comes from, to the right, where it goes."""

from __future__ import annotations

from collections.abc import Iterator
from typing import NamedTuple

from wingboard.core.files.diagram import FAINT, Box, Diagram, Line, Shape, Words, pdf, shortened, svg
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.power.draws import STATES
from wingboard.core.wire.power.tree import Node, power_tree

COLUMN, WIDE, ROW, HIGH, TOP = 58.0, 48.0, 11.0, 9.0, 16.0
"""From one column to the next, a box, from one row to the next, a box, above the first row (mm)."""
FILLED = "#D9EAEA"
OVER = "#E9C9C4"


class Spot(NamedTuple):
    """A node with its column and row."""

    node: Node
    column: int
    row: float


def spots(roots: tuple[Node, ...]) -> Iterator[Spot]:
    """Every node, leaves a row each, the others half way between the first and the last that hang on them."""
    row = 0.0

    def laid(node: Node, column: int) -> list[Spot]:
        nonlocal row
        below = [spot for child in node.children for spot in laid(child, column + 1)]
        mine = [spot for spot in below if spot.column == column + 1]
        if mine:
            return [Spot(node, column, (mine[0].row + mine[-1].row) / 2), *below]
        row += 1
        return [Spot(node, column, row - 1), *below]

    for root in roots:
        yield from laid(root, 0)


def power_diagram(r: Resolved) -> Diagram:
    """The whole tree, with the most that each branch takes and of what."""
    placed = list(spots(power_tree(r)))
    at = {spot.node.id: spot for spot in placed}
    shapes: list[Shape] = [Words(0, 6, f"{r.design.name}: power", 4.2, bold=True)]
    states = ", ".join(STATES[s] for s in ("lamps", "all"))
    shapes.append(Words(0, 11, f"Amperes in the state that takes most ({states}); boxes fill with the share.", 2.6,
                        colour=FAINT))  # fmt: skip
    for spot in placed:
        for child in spot.node.children:
            shapes.append(_link(spot, at[child.id]))
    for spot in placed:
        shapes += _box(spot)
    columns = 1 + max((s.column for s in placed), default=0)
    rows = 1 + max((s.row for s in placed), default=0)
    return Diagram(f"{r.design.name}: power", columns * COLUMN, TOP + rows * ROW + 4, tuple(shapes))


def _corner(spot: Spot) -> tuple[float, float]:
    return spot.column * COLUMN, TOP + spot.row * ROW


def _link(one: Spot, other: Spot) -> Line:
    (x, y), (x2, y2) = _corner(one), _corner(other)
    knee = x + WIDE + (COLUMN - WIDE) / 2
    wide = 0.25 + min(1.2, 0.25 * other.node.full)
    return Line(((x + WIDE, y + HIGH / 2), (knee, y + HIGH / 2), (knee, y2 + HIGH / 2), (x2, y2 + HIGH / 2)), wide)


def _box(spot: Spot) -> Iterator[Shape]:
    node, (x, y) = spot.node, _corner(spot)
    share = node.full / node.most if node.most else 0.0
    yield Box(x, y, WIDE, HIGH, radius=1.0)
    if share > 0:
        yield Box(x + 0.2, y + HIGH - 1.6, (WIDE - 0.4) * min(1.0, share), 1.4, OVER if share > 1 else FILLED, "")
    yield Words(x + 1.5, y + 3.4, shortened(node.name, 2.6, WIDE - 3), 2.6, bold=node.most > 0)
    most = f" of {node.most:.3g} A" if node.most else " A"
    figures = f"{node.full:.3g}{most} at {node.volts:g} V"
    if node.inrush > 1.05 * node.full:
        figures += f", {node.inrush:.3g} A cold"
    yield Words(x + 1.5, y + 6.7, figures, 2.3, colour=FAINT)


def power_svg(r: Resolved) -> bytes:
    """The tree as SVG."""
    return svg(power_diagram(r))


def power_pdf(r: Resolved) -> bytes:
    """The tree as PDF, on one page."""
    return pdf(f"{r.design.name}: power", [power_diagram(r)])
