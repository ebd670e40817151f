"""What two neighbours need between them, on the face, in every layer and behind. Symmetric in the two."""

from __future__ import annotations

from typing import NamedTuple

from wingboard.core.findings.limits import limit
from wingboard.core.record.design import Design
from wingboard.core.record.functions import emergency
from wingboard.core.record.materials import materials
from wingboard.core.record.modules import Layer
from wingboard.core.record.space import KeepOut
from wingboard.core.resolved.placed import Placed


class RoomNeeded(NamedTuple):
    """A distance (mm) and the limit it comes from."""

    value: float
    limit: str


def spacing_needed(design: Design, a: Placed, b: Placed) -> RoomNeeded | None:
    """Edge-to-edge room for fingers between two controls; None when one of them is not touched.

    Two of a kind take their kind's figure, a mixed pair the larger; an emergency control stands apart by the
    emergency factor (MIL-STD-1472, from memory; the rule for mixed pairs is common practice).
    """
    if a.part.hand is None or b.part.hand is None:
        return None
    kinds = {a.part.hand.kind, b.part.hand.kind}
    kinds |= {"emergency"} if emergency(a.function, a.part) or emergency(b.function, b.part) else set()
    usual = kinds - {"emergency"} or {"button"}
    needs = [RoomNeeded(limit(design, f"{kind}-spacing"), f"{kind}-spacing") for kind in sorted(usual)]
    most = max(needs)
    if "emergency" in kinds:
        return RoomNeeded(most.value * limit(design, "emergency-factor"), "emergency-factor")
    return most


def widest_spacing(design: Design) -> float:
    """No pair of controls needs more than this (mm)."""
    usual = max(limit(design, f"{kind}-spacing") for kind in ("toggle", "button", "knob"))
    return usual * max(1.0, limit(design, "emergency-factor"))


def bridge_needed(design: Design, layer: Layer) -> RoomNeeded:
    """The least web (mm) between two openings, or an opening and the edge, in a layer (common practice)."""
    name = materials()[layer.material].bridge
    if name == "bridge-metal":
        return RoomNeeded(limit(design, name), name)
    by_thickness = RoomNeeded(limit(design, name) * layer.thickness, name)
    return max(by_thickness, RoomNeeded(limit(design, "bridge-least"), "bridge-least"))


def behind_boxes(design: Design) -> tuple[KeepOut, ...]:
    """The boxes in the way behind the opening."""
    return tuple(k for k in design.brief.keepouts if k.side == "behind")
