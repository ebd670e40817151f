"""What a machine, a sheet, a supply and a bar usually are: to begin with, every figure the builder's to correct."""

from __future__ import annotations

from wingboard.core.record.limits import LIMITS
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


def usual_gap(process: Process) -> float:
    """The fit gap (mm a side) of a plate whose edges are cut so."""
    return LIMITS["gap-hand" if process == "hand" else "gap-machine"].value
