"""What a machine, a sheet, a supply and a bar usually are: to begin with, every figure the builder's to correct."""

from __future__ import annotations

from wingboard.core.record.limits import LIMITS
from wingboard.core.record.outlines import RectOutline
from wingboard.core.record.space import KeepOutFields
from wingboard.core.record.workshop import MachineFields, Process, StockFields, SupplyFields, Tool

MACHINES: dict[Process, MachineFields] = {
    "laser": MachineFields(name="Laser", kind="laser", bed_width=300, bed_height=200, kerf=0.18, depth=6),
    "mill": MachineFields(
        name="Mill", kind="mill", bed_width=300, bed_height=180, depth=12, spindle_rpm=10000,
        tools=(Tool(diameter=3.175, flutes=1),),
    ),
    "printer": MachineFields(name="Printer", kind="printer", bed_width=220, bed_height=220, depth=200),
    "hand": MachineFields(
        name="Drill and saw", kind="hand", bed_width=1000, bed_height=600, margin=0, depth=20,
        tools=(Tool(diameter=3, flutes=2),),
    ),
}  # fmt: skip
"""Hobby machines of common sizes (common practice)."""
SHEET = StockFields(material="acrylic", thickness=3, width=600, height=400)
SUPPLY = SupplyFields(name="5 V supply", volts=5, amps=4)


USUAL_CASE: dict[str, dict[str, object]] = {
    "sheet": {"material": "plywood", "thickness": 6.0},
    "printed": {"material": "pla", "thickness": 3.0},
}
"""What walls are made of, by the way a case is made (mm, common practice)."""
ARCH_RISE = 0.15
"""What an arched top takes of a whole height at first (our own guess, to be dragged)."""
STRIP_INSET = 15.0
"""How far (mm) a strip across a module ends from its edges at first: room for a standoff (common practice)."""
THROWN_BACK = {"bare wood": 0.5, "painted white": 0.8}
"""The share of light that walls and boards throw back (from memory of paint makers' tables)."""
BAR = {"height": 12.0, "clear": 30.0}
"""A bar behind a panel, across its whole opening at half its height (mm, common practice)."""
MODULE = RectOutline(width=120, height=80, radius=3)
"""A further module; as high as the opening where that is known."""


def usual_bar(width: float, height: float) -> KeepOutFields:
    """A bar across an opening of that size (mm)."""
    return KeepOutFields(name="bar", x=0.0, y=round(height / 2), width=width, **BAR)


def usual_module(height: float, gap: float) -> RectOutline:
    """The outline of a further module of an opening so high, with a fit gap (mm)."""
    return MODULE.model_copy(update={"height": max(20.0, round(height - 2 * gap, 1))})


def usual_gap(process: Process) -> float:
    """The fit gap (mm a side) of a plate whose edges are cut so."""
    return LIMITS["gap-hand" if process == "hand" else "gap-machine"].value
