"""The frame of a console as a drawing at 1:1 and a cutting list."""

from __future__ import annotations

from wingboard.core.files.scene import CirclePath, Item, Scene
from wingboard.core.files.tables import write_csv
from wingboard.core.geometry.outline import moved
from wingboard.core.resolved.design import Resolved
from wingboard.core.stack.console import FRAME_LIST, frame_list, frame_of

SCREW = 4.0
"""Diameter (mm) in which a screw is drawn."""


def frame_scene(r: Resolved) -> Scene | None:
    """The battens with their screws round the opening, its lower left at the frame's own; None without a frame."""
    made = frame_of(r)
    if made is None:
        return None
    left, low = min(b.x0 for b in made.battens), min(b.y0 for b in made.battens)
    right, high = max(b.x1 for b in made.battens), max(b.y1 for b in made.battens)
    items = [Item("inner", moved(r.design.brief.opening.loop(), -left, -low), "opening")]
    for b in made.battens:
        items.append(Item("outline", moved(b.loop(), -left, -low), b.name))
        items += [Item("inner", CirclePath(x - left, y - low, SCREW), f"{b.name}, screw") for x, y in b.screws]
    return Scene(f"{r.design.name}: frame of the console", right - left, high - low, made.frame.deep, tuple(items))


def frame_csv(r: Resolved) -> bytes:
    """The cutting list of the frame as CSV; its heading alone without a frame."""
    made = frame_of(r)
    return write_csv(FRAME_LIST, frame_list(made) if made else [])
