"""Coupons, to be cut before the piece: holes round a part's size, depths, slots, light through paint. In mm."""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Sequence

from wingboard.core.cut.feeds import burning
from wingboard.core.face.lettering import run, stroke_lines
from wingboard.core.files.scene import CirclePath, Item, Scene, polygon_loop
from wingboard.core.geometry.outline import rounded_rectangle
from wingboard.core.record.workshop import Machine
from wingboard.core.resolved.design import Resolved

STEPS = (-0.3, -0.2, -0.1, 0.0, 0.1, 0.2)
"""Sizes of the ladder round the hole that most parts have (mm, common practice)."""
USUAL = 12.0
"""The hole of a design without parts (mm)."""
BETWEEN = 5.0
WORDS = 3.0
"""Height of the figures (mm)."""


def usual_hole(r: Resolved) -> float:
    """The diameter (mm) that most of the placed parts' round holes have."""
    found = Counter(
        round(p.part.hole.diameter, 2) for p in r.placed if p.part.hole.kind == "circle" and p.part.hole.diameter >= 4
    )
    return found.most_common(1)[0][0] if found else USUAL


DEPTHS = (0.1, 0.2, 0.3, 0.4, 0.5, 0.6)
"""The ladder of engraving (mm), in steps of a tenth (common practice)."""
STEP = 0.1
SLOTS = (-0.2, -0.1, 0.0, 0.1, 0.2, 0.3)
"""Widths of the gauge's slots round the sheet's own thickness (mm, common practice)."""
SLOT = 12.0
"""A slot is so deep (mm): a tab or a clip is pushed in from the edge."""
COATS = (0, 1, 2, 3)
FIELD = 22.0
"""Side of a field of the paint sample (mm)."""


def rungs(machine: Machine) -> tuple[float, ...]:
    """The depths of the ladder that a machine can engrave: those over what a laser's least power comes to."""
    if machine.kind != "laser":
        return DEPTHS
    reached = {depth: burning(machine, depth)[1] for depth in DEPTHS}
    able = tuple(depth for depth, deep in reached.items() if deep < depth + STEP / 4)
    return able or (math.ceil(reached[DEPTHS[-1]] / STEP) * STEP,)


def depths(material: str, thickness: float, rungs: Sequence[float] = DEPTHS) -> Scene:
    """The ladder of engraving: each figure is engraved as deep as it says, with a square beside it to feel."""
    items: list[Item] = []
    pitch = 14.0
    for n, deep in enumerate(rungs):
        x = BETWEEN + pitch * (n + 0.5)
        items += figures(f"{deep:g}", x, BETWEEN, WORDS, f"depth {deep:g}")
        square = rounded_rectangle(8.0, 5.0, 0.0, x - 4, BETWEEN + WORDS + 2)
        items.append(Item("engrave", square, f"depth {deep:g}"))
    width, height = pitch * len(rungs) + 2 * BETWEEN, WORDS + 7 + 2 * BETWEEN
    items.append(Item("outline", rounded_rectangle(width, height, 2.0), "coupon"))
    return Scene(f"Depths of engraving: {material} {thickness:g} mm", width, height, thickness, tuple(items))


def gauge(material: str, thickness: float) -> Scene:
    """A comb of slots round the thickness of the sheet: what a tab of it, or a clip, sits in without play."""
    pitch = max(10.0, thickness + 8.0)
    width, height = pitch * len(SLOTS) + BETWEEN, SLOT + WORDS + 3 * BETWEEN
    corners = [(0.0, 0.0), (width, 0.0), (width, height)]
    items: list[Item] = []
    for n in reversed(range(len(SLOTS))):
        wide = thickness + SLOTS[n]
        x = BETWEEN / 2 + pitch * (n + 0.5)
        corners += [(x + wide / 2, height), (x + wide / 2, height - SLOT), (x - wide / 2, height - SLOT),
                    (x - wide / 2, height)]  # fmt: skip
        items += figures(f"{wide:.2f}".rstrip("0").rstrip("."), x, BETWEEN, WORDS)
    corners.append((0.0, height))
    items.append(Item("outline", polygon_loop(tuple(corners)), "coupon"))
    title = f"Gauge for tabs and clips: {material} {thickness:g} mm"
    return Scene(title, width, height, thickness, tuple(items))


def coats(material: str, thickness: float) -> Scene:
    """Four fields for no coat to three, each with letters: laid over a lamp, they show what passes and what reads."""
    width, height = FIELD * len(COATS) + 2 * BETWEEN, FIELD + WORDS + 3 * BETWEEN
    items: list[Item] = []
    for n, many in enumerate(COATS):
        x = BETWEEN + FIELD * n
        items += figures(f"{many} COAT{'' if many == 1 else 'S'}", x + FIELD / 2, BETWEEN, WORDS * 0.8)
        items += figures("LIT", x + FIELD / 2, BETWEEN * 2 + WORDS + FIELD / 3, 5.0, f"coats {many}")
        if n:
            edge = polygon_loop(((x, 2 * BETWEEN + WORDS), (x, height - BETWEEN)))
            items.append(Item("engrave", edge, "coupon, edge of a field", open=True, graphic=True))
    items.append(Item("outline", rounded_rectangle(width, height, 2.0), "coupon"))
    return Scene(f"Light through paint: {material} {thickness:g} mm", width, height, thickness, tuple(items))


def coupon(r: Resolved, material: str, thickness: float) -> Scene:
    """The ladder of holes for a kind of sheet, each with its size engraved under it; the outline is cut last."""
    hole = usual_hole(r)
    pitch = hole + max(STEPS) + BETWEEN
    width, height = pitch * len(STEPS) + BETWEEN, hole + WORDS + 3 * BETWEEN
    items: list[Item] = []
    for n, more in enumerate(STEPS):
        size = hole + more
        x = BETWEEN + pitch * n + (hole + max(STEPS)) / 2
        items += figures(f"{size:.2f}".rstrip("0").rstrip("."), x, BETWEEN, WORDS)
        items.append(Item("inner", CirclePath(x, height - BETWEEN - hole / 2, size), f"coupon, {size:.2f} mm"))
    items.append(Item("outline", rounded_rectangle(width, height, 2.0), "coupon"))
    return Scene(f"Coupon: {material} {thickness:g} mm, round {hole:g} mm", width, height, thickness, tuple(items))


def figures(text: str, x: float, y: float, height: float, label: str = "") -> list[Item]:
    """Words in single strokes, their middle over ``x`` and their foot at ``y``."""
    line = run(text, height, "single-stroke")
    dx, name = x - line.width / 2, label or f"coupon, {text}"
    return [
        Item("engrave", polygon_loop(tuple((px + dx, py + y) for px, py in stroke)), name, open=True)
        for stroke in stroke_lines(line)
        if len(stroke) > 1
    ]
