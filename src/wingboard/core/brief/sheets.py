"""Sheets of stock for the layers of the modules."""

from __future__ import annotations

import math

from wingboard.core.record.modules import Layer
from wingboard.core.record.workshop import Stock
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule


def same_sheet(sheet: Stock, layer: Layer) -> bool:
    """Whether a sheet in stock is of a layer's material and thickness (within 0.25 mm)."""
    return sheet.material == layer.material and abs(sheet.thickness - layer.thickness) < 0.25


def sheets_needed(r: Resolved, layer: Layer) -> int:
    """Sheets for one layer of every module that fits one, taken from the largest of its kind.

    1 a module when none is known; a module larger than the sheet is left out (:func:`too_large` tells which).
    """
    sheet = largest_sheet(r, layer)
    if sheet is None:
        return len(r.modules)
    many = [_per_sheet(m.size, sheet) for m in r.modules.values()]
    return math.ceil(math.fsum(1 / n for n in many if n) - 1e-9)


def largest_sheet(r: Resolved, layer: Layer) -> Stock | None:
    """The largest sheet in stock of a layer's material and thickness."""
    sheets = [s for s in r.design.workshop.stock if same_sheet(s, layer)]
    return max(sheets, key=lambda s: s.width * s.height, default=None)


def too_large(r: Resolved, layer: Layer) -> tuple[ResolvedModule, ...]:
    """The modules that no sheet in stock for a layer takes in one piece, at 0° or 90°."""
    sheets = [s for s in r.design.workshop.stock if same_sheet(s, layer)]
    if not sheets:
        return ()
    return tuple(m for m in r.modules.values() if not any(_per_sheet(m.size, s) for s in sheets))


def _per_sheet(size: tuple[float, float], sheet: Stock) -> int:
    w, h = size
    return max(int(sheet.width // w) * int(sheet.height // h), int(sheet.width // h) * int(sheet.height // w))
