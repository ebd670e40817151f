"""Sheets of stock for the layers of the modules."""

from __future__ import annotations

import math

from wingboard.core.record.modules import Layer
from wingboard.core.record.workshop import Stock
from wingboard.core.resolved.design import Resolved


def same_sheet(sheet: Stock, layer: Layer) -> bool:
    """Whether a sheet in stock is of a layer's material and thickness (within 0.25 mm)."""
    return sheet.material == layer.material and abs(sheet.thickness - layer.thickness) < 0.25


def sheets_needed(r: Resolved, layer: Layer) -> int:
    """Sheets for one layer of every module, taken from the largest sheet of its kind; 1 a module when none is known."""
    sheets = [s for s in r.design.workshop.stock if same_sheet(s, layer)]
    if not sheets:
        return len(r.modules)
    sheet = max(sheets, key=lambda s: s.width * s.height)
    return math.ceil(math.fsum(1 / max(1, _per_sheet(p.size, sheet)) for p in r.modules.values()) - 1e-9)


def _per_sheet(size: tuple[float, float], sheet: Stock) -> int:
    w, h = size
    return max(int(sheet.width // w) * int(sheet.height // h), int(sheet.width // h) * int(sheet.height // w))
