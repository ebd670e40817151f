"""What each layer of a module holds: how many openings of each kind, its least bridge, what it weighs."""

from __future__ import annotations

from collections import Counter
from typing import NamedTuple

from wingboard.core.face.rules import RoomNeeded, bridge_needed
from wingboard.core.record.modules import Layer, engraved_behind
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule
from wingboard.core.resolved.profile import Purpose, sheets
from wingboard.core.stack.bridges import Bridge, shown_bridges

WORDS: dict[Purpose, tuple[str, str]] = {
    "hole": ("hole", "holes"),
    "nut": ("nut bore", "nut bores"),
    "key": ("key slot", "key slots"),
    "window": ("window", "windows"),
    "recess": ("recess", "recesses"),
    "pocket": ("pocket", "pockets"),
    "wiring": ("body opening", "body openings"),
    "fixing": ("screw hole", "screw holes"),
    "feature": ("exception", "exceptions"),
    "derived": ("hole for lamps, pins or boards", "holes for lamps, pins or boards"),
}


class Held(NamedTuple):
    """A layer of a module, between the depths ``z0`` and ``z1`` (mm), with what is cut in it."""

    layer: Layer
    z0: float
    z1: float
    counts: tuple[tuple[Purpose, int], ...]
    least: Bridge | None
    need: RoomNeeded

    def said(self) -> str:
        """“7 nut bores, 17 holes”; of a face that is worked from behind, that its file for it is left for right."""
        counted = ", ".join(f"{n} {WORDS[purpose][n != 1]}" for purpose, n in self.counts)
        return f"{counted}; engraved from behind, left for right" if engraved_behind(self.layer) else counted


def held(r: Resolved, module: ResolvedModule) -> tuple[Held, ...]:
    """Every layer of a module, from the front."""
    made = []
    for sheet in sheets(module.stack):
        counts = Counter(cut.purpose for cut in module.cutouts(sheet.layer.id))
        least = next(iter(shown_bridges(r, module, sheet.layer)), None)
        in_order = tuple((purpose, counts[purpose]) for purpose in WORDS if counts[purpose])
        made.append(Held(sheet.layer, sheet.z0, sheet.z1, in_order, least, bridge_needed(r.design, sheet.layer)))
    return tuple(made)
