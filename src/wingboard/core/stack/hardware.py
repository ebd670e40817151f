"""Bolts, standoffs and sleeves: how long they have to be, and what is sold.

Clamped layers + washer + nut (0.8 d) + two threads, then the next stocked length (common practice).
"""

from __future__ import annotations

import math
from collections import Counter
from itertools import pairwise
from typing import Literal, NamedTuple

from wingboard.core.record.modules import Head, Layer, Mounted, Screw, is_plate
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule
from wingboard.core.resolved.pins import pinned
from wingboard.core.resolved.profile import thickness

WASHER: dict[Screw, float] = {"M2": 0.3, "M2.5": 0.5, "M3": 0.5, "M4": 0.8, "M5": 1.0, "M6": 1.6}
"""Thickness (mm): ISO 7089, from memory."""
PITCH: dict[Screw, float] = {"M2": 0.4, "M2.5": 0.45, "M3": 0.5, "M4": 0.7, "M5": 0.8, "M6": 1.0}
"""Coarse threads (mm): ISO 261."""
NUT = 0.8
"""Height of a nut, in diameters (common practice; ISO 4032 within 0.2 mm)."""
ENGAGED = 1.0
"""Thread that a bolt takes of a standoff, in diameters (common practice)."""
BOLTS = (4, 5, 6, 8, 10, 12, 16, 20, 25, 30, 35, 40, 45, 50, 55, 60, 65, 70, 80)
"""Lengths (mm) in which bolts are sold: nominal lengths of ISO 888, from memory."""
STANDOFFS = (5, 6, 8, 10, 12, 15, 18, 20, 25, 30, 35, 40, 50)
"""Lengths (mm) in which hexagonal standoffs are sold (common practice)."""
PINS = (4, 5, 6, 8, 10, 12, 14, 16, 18, 20, 24, 28, 30)
"""Lengths (mm) in which parallel pins are sold: ISO 2338, from memory."""
FOAM, WALL = 5.0, 3.0
"""How wide a strip of foam, or a wall of sheet, is that closes the room before a layer (mm, common practice)."""
EXACT = 0.05
"""A standoff within so much (mm) of what the design says is that one."""
CONE = 90.0
"""Degrees of a countersunk head: ISO 10642."""


def diameter(screw: Screw) -> float:
    """Nominal diameter (mm)."""
    return float(screw[1:])


def sold(length: float, stock: tuple[int, ...]) -> int | None:
    """The shortest length in stock that is no shorter (mm); None when none is long enough."""
    return next((n for n in stock if n >= length - 1e-6), None)


class Bolt(NamedTuple):
    """Bolts of one kind through a module: how long they have to be (mm) and why, the length sold, how many."""

    where: str
    screw: Screw
    head: Head
    many: int
    needed: float
    length: int | None
    adds: tuple[tuple[float, str], ...]
    nuts: bool

    @property
    def name(self) -> str:
        """“M3 × 16, countersunk”."""
        length = f"{self.length}" if self.length else f"over {BOLTS[-1]}"
        return f"{self.screw} × {length}{', countersunk' if self.head == 'countersunk' else ''}"


class Standoff(NamedTuple):
    """Standoffs, or sleeves without a thread, of one length: what the design says (mm), and whether that is sold."""

    where: str
    screw: Screw
    many: int
    needed: float
    length: int | None
    sleeve: bool

    @property
    def name(self) -> str:
        """“M3 hex standoff, 15 mm”."""
        kind = "sleeve" if self.sleeve else "hex standoff"
        return f"{self.screw} {kind}, {self.needed:g} mm"


class Pin(NamedTuple):
    """Registration pins: as long (mm) as the sheets they line up, and the next length sold."""

    where: str
    diameter: float
    many: int
    needed: float
    length: int | None

    @property
    def name(self) -> str:
        """“Dowel pin 3 × 8”."""
        return f"Dowel pin {self.diameter:g} × {self.length or f'over {PINS[-1]}'}"


class Edging(NamedTuple):
    """A strip of foam or of sheet that closes the room before a layer all round; lengths in mm."""

    where: str
    kind: Literal["foam", "wall"]
    wide: float
    high: float
    long: float

    @property
    def name(self) -> str:
        """“Foam strip 5 × 15, 860 mm long”."""
        what = "Foam strip" if self.kind == "foam" else "Wall strip"
        return f"{what} {self.wide:g} × {self.high:g}, {self.long:.0f} mm long"


class Hardware(NamedTuple):
    """What a module is bolted together with, lined up with and closed with."""

    bolts: tuple[Bolt, ...]
    standoffs: tuple[Standoff, ...]
    pins: tuple[Pin, ...] = ()
    edgings: tuple[Edging, ...] = ()


def hardware(module: ResolvedModule) -> Hardware:
    """The bolts and standoffs of a module's stack, and of the boards behind it; nothing where it has no screws."""
    bolts: list[Bolt] = []
    standoffs: list[Standoff] = []
    fixings = module.module.fixings
    count = len(module.fixings)
    boards = [layer for layer in module.stack if not is_plate(layer)]
    if fixings and count:
        bolts, standoffs = _of_stack(module, fixings.screw, fixings.head, count, boards)
    for board in module.module.mounted:
        if board.holes:
            bolts += _of_board(board)
            standoffs.append(_standoff(board.name, board.screw, len(board.holes), board.gap, sleeve=False))
    return Hardware(tuple(bolts), tuple(standoffs), _pins(module), edgings(module))


def _pins(module: ResolvedModule) -> tuple[Pin, ...]:
    if not module.pins or not module.module.fixings:
        return ()
    held = thickness(pinned(module.plates))
    return (Pin("the sheets lined up", module.module.fixings.pins, len(module.pins), held, sold(held, PINS)),)


def edgings(module: ResolvedModule) -> tuple[Edging, ...]:
    """What closes the room before its layers: the strips lie inside the edge of the smaller sheet."""
    made = []
    for before, layer in pairwise(module.stack):
        if layer.gap and layer.edge:
            wide = FOAM if layer.edge == "foam" else WALL
            ring = min((module.area_of(before), module.area_of(layer)), key=lambda a: float(a.area))
            made.append(Edging(f"before {layer.name.lower()}", layer.edge, wide, layer.gap, float(ring.length)))
    return tuple(made)


def _of_stack(
    module: ResolvedModule, screw: Screw, head: Head, count: int, boards: list[Layer]
) -> tuple[list[Bolt], list[Standoff]]:
    clamped = thickness(module.stack) + sum(b.thickness for b in boards if not b.gap)
    spaced = [b for b in boards if b.gap]
    bolts = [_bolt("the plate", screw, head, count, clamped, nuts=not spaced)]
    standoffs = []
    for layer in module.plates:
        if layer.gap:
            standoffs.append(_standoff(f"before {layer.name.lower()}", screw, count, layer.gap, sleeve=True))
    for layer in spaced:
        standoffs.append(_standoff(f"before {layer.name.lower()}", screw, count, layer.gap, sleeve=False))
    if spaced:
        bolts.append(_bolt(spaced[-1].name.lower(), screw, "pan", count, spaced[-1].thickness, nuts=False))
    return bolts, standoffs


def _of_board(board: Mounted) -> list[Bolt]:
    return [_bolt(board.name, board.screw, "pan", len(board.holes), board.thickness, nuts=False)]


def _bolt(where: str, screw: Screw, head: Head, count: int, clamped: float, nuts: bool) -> Bolt:
    d, washer = diameter(screw), WASHER[screw]
    parts = [(clamped, "clamped"), (washer, "washer")]
    parts += [(NUT * d, "nut"), (2 * PITCH[screw], "two threads")] if nuts else [(ENGAGED * d, "in the standoff")]
    needed = sum(value for value, _ in parts)
    return Bolt(where, screw, head, count, needed, sold(needed, BOLTS), tuple(parts), nuts)


def _standoff(where: str, screw: Screw, count: int, gap: float, sleeve: bool) -> Standoff:
    length = sold(gap, STANDOFFS)
    return Standoff(
        where, screw, count, gap, length if length is not None and abs(length - gap) < 0.05 else None, sleeve
    )


def next_standoff(gap: float) -> int | None:
    """The next standoff that is sold and no shorter (mm)."""
    return sold(gap, STANDOFFS)


def countersink_depth(head: float, hole: float) -> float:
    """How deep (mm) a 90° countersink for a head of that diameter goes, down to where it is as wide as the hole."""
    return (head - hole) / 2 / math.tan(math.radians(CONE / 2))


def hardware_list(r: Resolved) -> list[tuple[str, str, int]]:
    """What to buy for all modules: name, what it is for, how many; alike things together, in their order."""
    wanted: Counter[str] = Counter()
    purpose: dict[str, list[str]] = {}

    def add(name: str, count: int, where: str) -> None:
        wanted[name] += count
        if where not in purpose.setdefault(name, []):
            purpose[name].append(where)

    for module in r.modules.values():
        made = hardware(module)
        for bolt in made.bolts:
            add(f"Bolt {bolt.name}", bolt.many, bolt.where)
            add(f"Washer {bolt.screw}", bolt.many, "under each nut, or each head behind")
            if bolt.nuts:
                add(f"Nut {bolt.screw}", bolt.many, "behind the plate")
        for standoff in made.standoffs:
            add(standoff.name, standoff.many, standoff.where)
        for pin in made.pins:
            add(pin.name, pin.many, pin.where)
        for edging in made.edgings:
            add(edging.name, 1, edging.where)
    return [(name, ", ".join(purpose[name]), count) for name, count in sorted(wanted.items())]
