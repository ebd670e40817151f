"""The schools of building a plate, and the layers that each of them makes (common practice)."""

from __future__ import annotations

from collections.abc import Sequence

from wingboard.core.record.modules import THREE_LAYERS, Layer, Paint, School

DARK, LIGHT, CARD, METAL = "#263033", "#F4F6F2", "#D9D5C8", "#B9BDBF"

SCHOOLS: dict[School, tuple[Layer, ...]] = {
    "three-layer": THREE_LAYERS,
    "two-layer": (
        Layer(id="face", name="Face", role="face", thickness=2, colour=DARK),
        Layer(id="back", name="Back", role="back", thickness=3, colour=CARD),
    ),
    "metal": (Layer(id="face", name="Plate", role="face", material="aluminium", thickness=2, colour=METAL),),
    "acrylic": (Layer(id="face", name="Plate", role="face", thickness=3, colour=DARK),),
    "reverse": (
        Layer(
            id="face", name="Clear face", role="face", thickness=3, colour=DARK, opacity="clear",
            paint=(Paint(side="back", coats=2, colour=DARK),),
        ),
        Layer(id="back", name="Back", role="back", thickness=3, colour=CARD, opacity="opaque"),
    ),
    "printed": (
        Layer(
            id="face", name="Printed face", role="face", material="pla", thickness=3, colour=DARK, opacity="opaque"
        ),
    ),
}  # fmt: skip
"""From the front. Three layers: face, diffuser that hides the nuts, back with the key slots; two: without a diffuser,
nuts on the face; reverse: engraved and painted from behind through a clear face; printed: text and body as two solids.
"""


def layers_of(school: School, kept: Sequence[Layer]) -> tuple[Layer, ...]:
    """The layers of a school; one that is there already in the same role and material stays as it is."""
    there = {layer.id: layer for layer in kept}

    def alike(layer: Layer) -> bool:
        known = there.get(layer.id)
        return known is not None and (known.role, known.material) == (layer.role, layer.material)

    return tuple(there[layer.id] if alike(layer) else layer for layer in SCHOOLS[school])
