"""Modules larger than the opening less the gap, and modules over each other."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial
from itertools import combinations

import shapely

from wingboard.core.changes.command import Command
from wingboard.core.changes.commands.modules import EditModule, ResizeModule
from wingboard.core.findings.finding import Finding, Fix, Measure, Spot
from wingboard.core.findings.registry import Check, check
from wingboard.core.geometry.outline import area_of
from wingboard.core.geometry.rounded import Rounded
from wingboard.core.geometry.rounded import gap as gap_between
from wingboard.core.quantity import VISIBLE
from wingboard.core.record.base import Source
from wingboard.core.record.outlines import RectOutline
from wingboard.core.record.space import fitting_opening
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule

GAP = Source(kind="practice", note="0.3–0.5 mm a side sawn and sanded, 0.2 laser or mill")


@check(
    "brief.module-too-large",
    severity="must",
    title="Will not go into the opening",
    measures="the least distance from a module's edge to the opening's; negative when it reaches over",
    source=GAP,
    fixes="moves or trims a rectangular module so that the gap is there on every side",
    reads=("brief", "modules", "stack", "workshop", "limits"),
)
def module_too_large(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Modules nearer to the opening's edge than the fit gap."""
    opening, gap = area_of(fitting_opening(r.design.brief).loop()), r.design.brief.gap
    for module in r.modules.values():
        placed = module.area_in_opening
        margin = _margin(placed, opening)
        if margin < gap - VISIBLE:
            x0, y0, x1, y1 = module.area.bounds
            yield rule.finding(
                module.module.id,
                detail=f"{module.module.name}, {x1 - x0:.1f} × {y1 - y0:.1f} mm, to the opening's edge",
                spot=Spot(module=module.module.id, x=(x0 + x1) / 2, y=(y0 + y1) / 2),
                measured=Measure(value=margin),
                needed=Measure(value=gap),
                fix=partial(_fitted, module, opening, gap),
            )


def _margin(module: shapely.Polygon, opening: shapely.Polygon) -> float:
    """Least distance (mm) inside the opening; negative by how far the module pokes out."""
    if opening.covers(module):
        return float(module.exterior.distance(opening.exterior))
    outside = module.difference(opening)
    points = shapely.points(shapely.get_coordinates(outside))
    return -float(shapely.distance(points, opening).max())


def _fitted(module: ResolvedModule, opening: shapely.Polygon, gap: float) -> Fix | None:
    """The plate trimmed and moved so that it keeps the gap, when it is a rectangle."""
    outline = module.module.outline
    if not isinstance(outline, RectOutline):
        return None
    x0, y0, x1, y1 = opening.bounds
    width = min(outline.width, x1 - x0 - 2 * gap)
    height = min(outline.height, y1 - y0 - 2 * gap)
    x = min(max(module.module.x, x0 + gap), x1 - gap - width)
    y = min(max(module.module.y, y0 + gap), y1 - gap - height)
    fitted = shapely.box(x, y, x + width, y + height)
    if min(width, height) <= 0 or _margin(fitted, opening) < gap - VISIBLE:
        return None
    commands: list[Command] = [EditModule(module=module.module.id, x=round(x, 2), y=round(y, 2))]
    if (width, height) != (outline.width, outline.height):
        commands.append(ResizeModule(module=module.module.id, width=round(width, 2), height=round(height, 2)))
    return Fix(label=f"Make it {width:.1f} × {height:.1f} mm, inside the gap", commands=tuple(commands))


@check(
    "brief.modules-overlap",
    severity="must",
    title="Modules over each other",
    measures="between two modules in the opening; negative where one is over the other",
    source=GAP,
    fixes="moves the second module aside",
    reads=("brief", "modules", "stack", "workshop", "limits"),
)
def modules_overlap(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Pairs of modules nearer than the fit gap."""
    gap = r.design.brief.gap
    for a, b in combinations(r.modules.values(), 2):
        first, second = a.extent_in_opening, b.extent_in_opening
        apart = gap_between(Rounded(first, 0.0), Rounded(second, 0.0))
        if apart < gap - VISIBLE:
            left, right = (a, b) if first.bounds[0] <= second.bounds[0] else (b, a)
            beyond = max(left.extent_in_opening.bounds[2], left.area_in_opening.bounds[2])
            x = right.module.x + beyond - right.extent_in_opening.bounds[0] + gap
            yield rule.finding(
                a.module.id,
                b.module.id,
                detail=f"{a.module.name} and {b.module.name}",
                measured=Measure(value=apart),
                needed=Measure(value=gap),
                fix=lambda: Fix(
                    label=f"Move {right.module.name} to x {x:.1f}",
                    commands=(EditModule(module=right.module.id, x=round(x, 2)),),
                ),
            )
