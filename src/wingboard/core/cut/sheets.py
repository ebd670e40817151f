"""Which machine makes which piece, and the sheets as they lie on its bed. Lengths in mm.

A sheet's origin is its own lower left corner: the one that is marked on the bed.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import NamedTuple

from wingboard.core.brief.beds import bed_fit, usable
from wingboard.core.cut.nest import Blank, Box, Put, Want, nested, rest
from wingboard.core.cut.pieces import Piece, Side, pieces_of
from wingboard.core.files.scene import Item, Scene
from wingboard.core.quantity import VISIBLE
from wingboard.core.record.design import Design
from wingboard.core.record.materials import materials
from wingboard.core.record.workshop import Machine, Material, Stock
from wingboard.core.resolved.design import Resolved

EDGE = 3.0
"""Nothing is laid nearer to the edge of a sheet (mm, common practice: clamps, and edges that are not true)."""
APART = 3.0
"""Between two pieces (mm) a laser leaves so much, a mill so much more than its cutter (common practice)."""
PIN_EDGE = 8.0
"""The two holes that a sheet is turned over by are so far inside its left and right edge (mm, common practice)."""
CLEARANCE = 3.0
"""Old holes are kept clear of by so much (mm, common practice)."""


@dataclass(frozen=True)
class Coupon:
    """A coupon in a piece's place: its drawing, seen from the front."""

    scene: Scene
    id: str = "coupon"
    name: str = "Coupon"
    layer: None = None
    side: Side = "front"
    turned_over: bool = False

    @property
    def width(self) -> float:
        """From its left to its right (mm)."""
        return self.scene.width

    @property
    def height(self) -> float:
        """From its foot to its head (mm)."""
        return self.scene.height


class Laid(NamedTuple):
    """A piece on its sheet: which of its copies, its lower left corner, and whether it is turned by 90°."""

    piece: Piece | Coupon
    copy: int
    x: float
    y: float
    turned: bool

    def scene(self) -> Scene:
        """Its drawing as it lies."""
        scene = self.piece.scene
        return scene.quarter_turned() if self.turned else scene

    def items(self) -> tuple[Item, ...]:
        """What is cut, on the sheet."""
        return self.scene().shifted(self.x, self.y)


class Sheet(NamedTuple):
    """A sheet on the bed of a machine.

    ``at`` is where its lower left corner lies on the bed; ``stock`` what it is of (none: to be bought); ``rest``
    the largest rectangle left of it; ``pins`` the places of two holes by which it is turned over, where it is.
    """

    machine: Machine
    number: int
    material: Material
    thickness: float
    width: float
    height: float
    at: tuple[float, float]
    stock: Stock | None
    laid: tuple[Laid, ...]
    rest: Box | None
    pins: tuple[tuple[float, float], ...]
    taken: tuple[Box, ...]

    @property
    def id(self) -> str:
        """Its machine, material, thickness and number."""
        return f"{self.machine.id}-{self.material}-{self.thickness:g}-{self.number}".replace(".", "_")


class Unlaid(NamedTuple):
    """A piece that no machine cuts, and why; ``over``: it is so much (mm) too long for the bed that comes nearest."""

    piece: Piece
    why: str
    over: float = 0.0


class Layout(NamedTuple):
    """All sheets in the order in which they are cut, and the pieces left over."""

    sheets: tuple[Sheet, ...]
    unlaid: tuple[Unlaid, ...]


def layout(r: Resolved) -> Layout:
    """The sheets of a design."""
    return r.once("sheets to cut", lambda: _layout(r))


def _layout(r: Resolved) -> Layout:
    unlaid: list[Unlaid] = []
    groups: dict[tuple[str, Material, float], list[Piece]] = {}
    machines = {m.id: m for m in r.design.workshop.machines}
    for piece in pieces_of(r):
        found = machine_for(r.design, piece)
        if isinstance(found, Machine):
            groups.setdefault((found.id, piece.material, piece.thickness), []).append(piece)
        else:
            unlaid.append(found)
    sheets: list[Sheet] = []
    order = {m.id: n for n, m in enumerate(r.design.workshop.machines)}
    for (ident, material, thickness), pieces in sorted(groups.items(), key=lambda g: (order[g[0][0]], g[0][1:])):
        made, left = _on_sheets(r.design, machines[ident], material, thickness, pieces)
        sheets += made
        unlaid += left
    return Layout(tuple(sheets), tuple(unlaid))


def machine_for(design: Design, piece: Piece) -> Machine | Unlaid:
    """The machine that makes a piece: the builder's choice, else the first that takes it whole; or why none does."""
    able = [m for m in design.workshop.machines if can(m, piece)]
    chosen = next((j.machine for j in design.cutting.jobs if j.piece == piece.id), None)
    for machine in able:
        if machine.id == chosen:
            return machine
    machines = [m for m in design.workshop.machines if m.kind in ("laser", "mill")]
    if not able:
        return Unlaid(piece, _why_not(machines, piece))
    width, height = piece.width, piece.height
    whole = [m for m in able if bed_fit(width, height, m).whole]
    if whole:
        return whole[0]
    nearest = min(able, key=lambda m: bed_fit(width, height, m).least)
    over = bed_fit(width, height, nearest).least
    return Unlaid(piece, f"{over:.1f} mm too long for {nearest.name}", over)


def meant(r: Resolved) -> tuple[tuple[Machine, Piece], ...]:
    """Every piece with the machine that makes it, or would if the piece were not too large for its bed."""
    return r.once("machines meant", lambda: tuple(_meant(r)))


def _meant(r: Resolved) -> Iterator[tuple[Machine, Piece]]:
    for piece in pieces_of(r):
        found = machine_for(r.design, piece)
        able = [m for m in r.design.workshop.machines if can(m, piece)]
        if isinstance(found, Machine):
            yield found, piece
        elif able:
            yield able[0], piece


def can(machine: Machine, piece: Piece) -> bool:
    """Whether a machine cuts the material, so thick, and pockets where there are any."""
    if machine.kind not in ("laser", "mill") or materials()[piece.material].under(machine.kind) != "cuts":
        return False
    return piece.thickness <= machine.depth + VISIBLE and (machine.kind == "mill" or not piece.pocketed)


def _why_not(machines: Sequence[Machine], piece: Piece) -> str:
    if not machines:
        return "by hand: the workshop has no laser and no mill"
    known = materials()[piece.material]
    if all(known.under(m.kind) != "cuts" for m in machines):
        return f"by hand: no machine here cuts {known.name.lower()}"
    if all(piece.thickness > m.depth + VISIBLE for m in machines):
        return f"by hand: no machine here cuts {piece.thickness:g} mm"
    return "by hand: its pockets want a mill"


def cutter(machine: Machine) -> float:
    """Width of what cuts outlines (mm): the kerf, or the thickest end mill."""
    if machine.kind == "mill":
        return max((t.diameter for t in machine.tools if t.kind == "mill"), default=0.0)
    return machine.kerf


def _on_sheets(
    design: Design, machine: Machine, material: Material, thickness: float, pieces: Sequence[Piece]
) -> tuple[list[Sheet], list[Unlaid]]:
    by = cutter(machine)
    by_name = {f"{p.id} {n}": (p, n) for p in pieces for n in range(p.many)}
    wants = [
        Want(name, p.width + by, p.height + by, _ways(design, material, thickness)) for name, (p, _) in by_name.items()
    ]
    turns = any(p.turned_over for p in pieces)
    stock = [s for s in design.workshop.stock if s.material == material and abs(s.thickness - thickness) < VISIBLE]
    blanks: dict[str, tuple[Blank, Stock | None, tuple[float, float], tuple[float, float]]] = {}
    for s in stock:
        if s.count > 0:
            blanks[s.id] = _blank(machine, s, s.width, s.height, turns)
    blanks[""] = _blank(machine, None, machine.bed_width, machine.bed_height, turns)  # to be bought
    filled, left = nested(wants, [b for b, _, _, _ in blanks.values()], APART)
    sheets = []
    for number, f in enumerate(filled, 1):
        blank, of, size, at = blanks[f.blank.name]
        laid = tuple(_laid(put, *by_name[put.want.name], by) for put in f.puts)
        pins = _pins(size) if turns else ()
        sheets.append(
            Sheet(
                machine, number, material, thickness, *size, at, of, laid, rest(f, APART), pins, blank.taken
            )
        )  # fmt: skip
    return sheets, [_over(by_name[w.name][0], w, machine) for w in left]


def _laid(put: Put, piece: Piece, copy: int, by: float) -> Laid:
    return Laid(piece, copy, put.x + by / 2, put.y + by / 2, put.turned)


def _over(piece: Piece, want: Want, machine: Machine) -> Unlaid:
    wide, high = usable(machine)
    over = min(max(w - wide, h - high) for w, h in ((want.width, want.height), (want.height, want.width)))
    if over > 0:
        return Unlaid(piece, f"with its cutter {over:.1f} mm too long for {machine.name}", over)
    return Unlaid(piece, f"no sheet has room for it on {machine.name}", 0.0)


def _ways(design: Design, material: Material, thickness: float) -> tuple[bool, ...]:
    """Which way pieces lie: where a sheet's grain is said, with their width along it; else either way."""
    grains = {
        s.grain
        for s in design.workshop.stock
        if s.grain != "none" and s.material == material and abs(s.thickness - thickness) < VISIBLE
    }
    return (grains == {"across"},) if grains else (False, True)


def _pins(size: tuple[float, float]) -> tuple[tuple[float, float], ...]:
    return (PIN_EDGE, size[1] / 2), (size[0] - PIN_EDGE, size[1] / 2)


def _blank(
    machine: Machine, stock: Stock | None, width: float, height: float, turns: bool
) -> tuple[Blank, Stock | None, tuple[float, float], tuple[float, float]]:
    """What of a sheet lies on the bed: all of it, or sawn to the bed's size; with what is taken of it."""
    bed = machine.bed_width, machine.bed_height
    size = min(width, bed[0]), min(height, bed[1])
    free = usable(machine)
    at = tuple(
        0.0 if side > most + VISIBLE else (whole - most) / 2 for side, most, whole in zip(size, free, bed, strict=True)
    )
    x0, y0 = max(machine.margin - at[0], EDGE), max(machine.margin - at[1], EDGE)
    x1 = min(bed[0] - machine.margin - at[0], size[0] - EDGE)
    y1 = min(bed[1] - machine.margin - at[1], size[1] - EDGE)
    taken = [Box(c.x - at[0], c.y - at[1], c.width, c.height) for c in machine.clamps]
    many = 10_000
    if stock is not None:
        reach = [(h.x, h.y, h.diameter / 2 + CLEARANCE) for h in stock.holes]
        taken += [Box(x - half, y - half, 2 * half, 2 * half) for x, y, half in reach]
        each = 1 if stock.holes else max(
            _times(stock.width, stock.height, *size), _times(stock.height, stock.width, *size)
        )  # fmt: skip
        many = stock.count * each
    if turns:
        taken += [Box(x - 3, y - 3, 6, 6) for x, y in _pins(size)]
    name = stock.id if stock else ""
    blank = Blank(name, Box(x0, y0, max(0.0, x1 - x0), max(0.0, y1 - y0)), tuple(taken), many)
    return blank, stock, size, (at[0], at[1])


def _times(width: float, height: float, wide: float, high: float) -> int:
    """How many blanks of a size a sheet gives."""
    return max(1, int((width + VISIBLE) // wide) * int((height + VISIBLE) // high))
