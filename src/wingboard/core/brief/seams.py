"""Where a module is best cut in pieces: between its parts and their words, as near to equal widths as that allows."""

from __future__ import annotations

from math import copysign, cos, radians

from wingboard.core.geometry.cuts import free_cuts
from wingboard.core.geometry.rounded import Rounded
from wingboard.core.geometry.shapeset import ShapeSet
from wingboard.core.record.legends import Style
from wingboard.core.record.part import Part
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule
from wingboard.core.resolved.placed import Placed

LETTER = 0.8
"""The width of a letter with its gap, in cap heights: near enough to keep a seam off a word (our own estimate)."""
LEAST = 30.0
"""A piece is not made narrower than this (mm): it takes two screws side by side (common practice)."""
SIDEWAYS = 0.3
"""A position word stands beside its part when its direction's cosine is over this."""


def seams_between(
    r: Resolved, module: ResolvedModule, widest: float, pieces: int, seam: float
) -> tuple[float, ...] | None:
    """The middles (mm from the left edge) of the seams that part a module in so many pieces, none over ``widest``.

    Each keeps as far as it can from what is cut, covered, written or standing behind; of equally good ones the nearest
    to equal widths counts. None where pieces so wide do not reach.
    """
    width, _ = module.size
    return free_cuts(width, _taken(r, module), widest, pieces, LEAST, seam)


def _taken(r: Resolved, module: ResolvedModule) -> list[tuple[float, float]]:
    """From where to where (mm) things stand on a module: what is cut, covered, written, and what stands behind."""
    shapes: list[Rounded] = []
    at: list[tuple[float, float]] = []
    spans: list[tuple[float, float]] = []
    for p in module.placed:
        cover = module.templates.envelope(p, "cover")
        mine = [*([cover] if cover else []), *(body.outline for body in module.templates.bodies(p))]
        shapes += mine
        at += [(p.place.x, p.place.y)] * len(mine)
        spans += _words(r.design.style, p)
    sets = [ShapeSet(shapes, range(len(shapes)), at), *(module.openings(layer.id) for layer in module.plates)]
    return spans + [(low, high) for one in sets if len(one) for low, _, high, _ in one.bounds.tolist()]


def _words(style: Style, placed: Placed) -> list[tuple[float, float]]:
    """From where to where (mm) the words of a part reach, near enough; its position words beside it too."""
    f, x = placed.function, placed.place.x
    legend = f.legend
    if legend is None or legend.hidden:
        return []
    cap = legend.cap or style.name_cap
    half = max(map(len, legend.text.split("|"))) * cap * LETTER / 2
    found = [(x + legend.dx - half, x + legend.dx + half)] if legend.text else []
    angles = placed.part.angles(len(f.positions)) if f.positions else ()
    for word, angle in zip(f.positions, angles, strict=False):
        way = cos(radians(angle + placed.place.turn))
        if word and abs(way) > SIDEWAYS:
            start = (legend.radius or _half(placed.part)) * way
            end = start + copysign(len(word) * style.position_cap * LETTER, way)
            found.append((x + min(start, end), x + max(start, end)))
    return found


def _half(part: Part) -> float:
    """Half of how wide a part covers the face (mm)."""
    low, _, high, _ = part.covered().bounds
    return (high - low) / 2
