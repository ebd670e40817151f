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


def layers_of(school: School, kept: Sequence[Layer], before: School) -> tuple[Layer, ...]:
    """The layers of a school, with what was changed by hand in those of the school before, where both have them.

    A layer of another role or material is made anew.
    """
    there, usual = {layer.id: layer for layer in kept}, {layer.id: layer for layer in SCHOOLS[before]}
    return tuple(_with_changes(layer, there.get(layer.id), usual.get(layer.id)) for layer in SCHOOLS[school])


def _with_changes(layer: Layer, kept: Layer | None, usual: Layer | None) -> Layer:
    if kept is None or usual is None or (kept.role, kept.material) != (layer.role, layer.material):
        return layer
    changed = {n: getattr(kept, n) for n in Layer.model_fields if getattr(kept, n) != getattr(usual, n)}
    return layer.model_copy(update=changed)
