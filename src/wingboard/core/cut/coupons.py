"""Coupons: a row of holes round a part's own size, and a few words, to be cut before the piece. Lengths in mm."""

from __future__ import annotations

from collections import Counter

from wingboard.core.face.lettering import run, stroke_lines
from wingboard.core.files.scene import CirclePath, Item, Scene, polygon_loop
from wingboard.core.geometry.outline import rounded_rectangle
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


def figures(text: str, x: float, y: float, height: float) -> list[Item]:
    """Words in single strokes, their middle over ``x`` and their foot at ``y``."""
    line = run(text, height, "single-stroke")
    dx = x - line.width / 2
    return [
        Item("engrave", polygon_loop(tuple((px + dx, py + y) for px, py in stroke)), f"coupon, {text}", open=True)
        for stroke in stroke_lines(line)
        if len(stroke) > 1
    ]
