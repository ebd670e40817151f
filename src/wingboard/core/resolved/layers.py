"""The layers of the modules: their outlines, and which modules share a sheet of the same kind."""

from __future__ import annotations

from typing import NamedTuple

from wingboard.core.geometry.offset import inset
from wingboard.core.geometry.outline import Loop, Vertex, area_of, moved
from wingboard.core.geometry.rounded import polygon
from wingboard.core.record.design import Design
from wingboard.core.record.modules import Layer


def layer_loop(module: Loop, layer: Layer) -> Loop:
    """The outline of a layer in its module's coordinates: its own, or the module's drawn in by the layer's inset.

    Arcs stay arcs; where an arc would vanish, the outline is of straight pieces. The record refuses an inset that
    leaves nothing.
    """
    if layer.outline is not None:
        return moved(layer.outline.loop(), layer.x, layer.y)
    if not layer.inset:
        return module
    try:
        return inset(module, layer.inset)
    except ValueError:
        left = polygon(area_of(module).buffer(-layer.inset, join_style="mitre").simplify(0.005).normalize())
        return tuple(Vertex(x, y) for x, y in reversed(left.exterior.coords[1:]))


class LayerUse(NamedTuple):
    """A layer of the usual stack, or of one module's own, and the modules made with it."""

    layer: Layer
    modules: tuple[str, ...]
    own: str | None

    @property
    def subjects(self) -> tuple[str, ...]:
        """What a finding about it is about: the layer, and the module whose own it is."""
        return (self.layer.id,) if self.own is None else (self.own, self.layer.id)


def layer_uses(design: Design) -> tuple[LayerUse, ...]:
    """Every layer that is made: of the usual stack unless every module has its own, then of each own stack."""
    usual = tuple(m.id for m in design.modules if m.stack is None)
    made = [LayerUse(layer, usual, None) for layer in design.stack] if usual or not design.modules else []
    made += [LayerUse(layer, (m.id,), m.id) for m in design.modules for layer in m.stack or ()]
    return tuple(made)
