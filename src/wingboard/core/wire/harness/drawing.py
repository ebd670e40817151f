"""The looms as a drawing, seen from behind as they are tied: trunk and drops, ties, thicknesses, plugs."""

from __future__ import annotations

from collections.abc import Callable, Iterator

from wingboard.core.files.diagram import FAINT, Box, Diagram, Dot, Line, Point, Shape, Words, pdf, shortened, svg
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.behind import modules_behind
from wingboard.core.wire.harness.bundles import LoomPlan, looms
from wingboard.core.wire.harness.plugs import plugs

TRUNK, DROP = "#1F4E54", "#5C8488"
HEAD = 16.0
"""Above a module (mm)."""


def loom_diagrams(r: Resolved) -> tuple[Diagram, ...]:
    """A drawing for each module with a loom, at 1:1."""
    return r.once("loom drawings", lambda: tuple(_one(r, loom) for loom in looms(r)))


def _one(r: Resolved, loom: LoomPlan) -> Diagram:
    width, height = r.modules[loom.module].size
    name = r.modules[loom.module].module.name
    exits = [p.title for p in plugs(r) if p.module == loom.module]

    def at(point: Point) -> Point:
        return width - point[0], HEAD + height - point[1]

    shapes: list[Shape] = [
        Words(0, 5, f"{name}, loom seen from behind", 4.2, bold=True),
        Words(0, 10, _figures(loom), 2.8, colour=FAINT),
        Box(0, HEAD, width, height, "#F7F5EF", "#A7A294"),
    ]
    for body in next((m.bodies for m in modules_behind(r) if m.id == loom.module), ()):
        y = HEAD + height - body.y - body.height / 2
        shapes.append(Box(body.x - body.width / 2, y, body.width, body.height, "#E4E8E8", "#A9B4B6", 0.2))
    shapes += _wires(loom, at)
    x, y = at(loom.exit.end)
    beside = x + 2 + loom.exit.thick / 2, min(max(y, HEAD + 4), HEAD + height + 5)
    shapes.append(Words(*beside, " and ".join(exits) or f"{loom.exit.wires} wires leave here", 2.8, bold=True))
    return Diagram(f"{r.design.name}: {name}, loom", max(width, 120.0), HEAD + height + 9, tuple(shapes))


def _figures(loom: LoomPlan) -> str:
    return (
        f"{loom.metres:.1f} m of wire; {loom.thickest:.1f} mm thick at most: no bend tighter than {loom.bend:.0f} mm; "
        f"{len(loom.ties)} ties"
    )


def _wires(loom: LoomPlan, at: Callable[[Point], Point]) -> Iterator[Shape]:
    for drop in loom.drops:
        yield Line((at(drop.at), at(drop.joins)), max(0.3, 0.4 * drop.thick), DROP)
    for section in (*loom.sections, loom.exit):
        if section.wires:
            yield Line((at(section.start), at(section.end)), section.thick, TRUNK)
    for drop in loom.drops:
        if drop.owner.startswith("light."):
            continue  # they are many, and named on the sheet
        x, y = at(drop.at)
        yield Words(x, y - 0.8, shortened(f"{drop.name} {drop.wires}", 2.0, 24), 2.0, "middle")
    for tie in loom.ties:
        x, y = at(tie)
        yield Dot(x, y, 2.0, "#FFFFFF", "#1E262B", 0.5)


def looms_svg(r: Resolved) -> bytes:
    """All looms on one drawing, one below the other."""
    drawn = loom_diagrams(r)
    shapes: list[Shape] = []
    y = 0.0
    for one in drawn:
        shapes += (_moved(shape, y) for shape in one.shapes)
        y += one.height + 6
    return svg(Diagram(f"{r.design.name}: looms", max((d.width for d in drawn), default=100.0), max(y, 10.0),
                       tuple(shapes)))  # fmt: skip


def _moved(shape: Shape, y: float) -> Shape:
    if isinstance(shape, Line):
        return shape._replace(points=tuple((px, py + y) for px, py in shape.points))
    return shape._replace(y=shape.y + y)


def looms_pdf(r: Resolved) -> bytes:
    """The looms as PDF, a page a module."""
    return pdf(f"{r.design.name}: looms", loom_diagrams(r))
