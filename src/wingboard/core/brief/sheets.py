"""Sheets of stock for the layers of the modules."""

from __future__ import annotations

import math
from typing import NamedTuple

from wingboard.core.record.modules import Layer
from wingboard.core.record.workshop import Material, Stock
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.layers import LayerUse
from wingboard.core.resolved.module import ResolvedModule

ALIKE = 0.25
"""Sheets whose thickness differs by less (mm) are of one kind."""


class Kind(NamedTuple):
    """Layers that are cut from sheets of one kind, whichever module they are for."""

    material: Material
    thickness: float
    uses: tuple[LayerUse, ...]

    @property
    def names(self) -> str:
        """The layers, as a person lists them."""
        return " and ".join(dict.fromkeys(use.layer.name for use in self.uses))


def kinds(r: Resolved) -> tuple[Kind, ...]:
    """Every kind of sheet that the plates are made of, in the order of the layers."""
    found: list[Kind] = []
    for use in r.layers:
        layer = use.layer
        same = next(
            (k for k in found if k.material == layer.material and abs(k.thickness - layer.thickness) < ALIKE), None
        )
        if same is None:
            found.append(Kind(layer.material, layer.thickness, (use,)))
        else:
            found[found.index(same)] = same._replace(uses=(*same.uses, use))
    return tuple(found)


def sheets_of(r: Resolved, kind: Kind) -> tuple[Stock, ...]:
    """The sheets in stock of a kind."""
    return tuple(
        s for s in r.design.workshop.stock if s.material == kind.material and abs(s.thickness - kind.thickness) < ALIKE
    )


def sheets_needed(r: Resolved, kind: Kind) -> int:
    """Sheets for all layers of a kind, taken from the largest of it.

    1 a layer of each module when none is known; what is larger than the sheet is left out (:func:`too_large` tells).
    """
    sheet = max(sheets_of(r, kind), key=lambda s: s.width * s.height, default=None)
    sizes = [size_of(r.modules[m], use.layer) for use in kind.uses for m in use.modules]
    if sheet is None:
        return len(sizes)
    many = [_per_sheet(size, sheet) for size in sizes]
    return math.ceil(math.fsum(1 / n for n in many if n) - 1e-9)


def size_of(module: ResolvedModule, layer: Layer) -> tuple[float, float]:
    """Width and height (mm) over all of one layer of a module."""
    x0, y0, x1, y1 = module.area_of(layer).bounds
    return x1 - x0, y1 - y0


def too_large(r: Resolved, kind: Kind) -> tuple[tuple[ResolvedModule, LayerUse], ...]:
    """The layers of modules that no sheet in stock of their kind takes in one piece, at 0° or 90°."""
    sheets = sheets_of(r, kind)
    if not sheets:
        return ()
    return tuple(
        (r.modules[m], use)
        for use in kind.uses
        for m in use.modules
        if not any(_per_sheet(size_of(r.modules[m], use.layer), s) for s in sheets)
    )


def _per_sheet(size: tuple[float, float], sheet: Stock) -> int:
    w, h = size
    return max(int(sheet.width // w) * int(sheet.height // h), int(sheet.width // h) * int(sheet.height // w))
