"""What a pair of hands needs: which bit for which hole in which order, large openings, jigs for equal edges.

Everything here is common practice of the workshop: no hole saw in acrylic, a pilot before a thick bit, smallest first.
Lengths in mm.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Sequence
from typing import NamedTuple

from wingboard.core.cut.chains import WITHIN, chain
from wingboard.core.cut.cutters import tool_for
from wingboard.core.cut.pieces import Piece, pieces_of
from wingboard.core.cut.sheets import meant
from wingboard.core.cut.work import fit_of
from wingboard.core.files.scene import CirclePath, Item, Scene
from wingboard.core.files.tables import write_csv
from wingboard.core.geometry.outline import flattened, way_round
from wingboard.core.record.materials import materials
from wingboard.core.record.workshop import Machine, Material
from wingboard.core.resolved.design import Resolved

WIDEST = 35.0
"""No bit makes a larger hole: it is chain-drilled and filed, or sawn."""
PILOT = 3.0
ALIKE = 0.1
"""Edges at distances that differ by no more are one setting of a jig."""
JIG = 3
"""So many holes or more are worth one."""


class Bit(NamedTuple):
    """What a hole is made with: the bit, its pilot's diameter (0: none), what to mind."""

    name: str
    pilot: float
    mind: str


class HandWork(NamedTuple):
    """Holes of one size, or one large opening, of a piece: what with, how many, what to mind."""

    piece: str
    what: str
    diameter: float
    many: int
    bit: str
    pilot: float
    mind: str
    depth: float | None


class Jig(NamedTuple):
    """Holes at the same distances from two edges, whatever plate they are in: one setting of a jig."""

    from_side: float
    from_end: float
    diameter: float
    many: int
    pieces: tuple[str, ...]


def bit_for(material: Material, diameter: float, deep: float | None = None) -> Bit:
    """The bit for a round hole in a material; ``deep`` of one that does not go through."""
    pilot = PILOT if diameter > 2 * PILOT else 0.0
    if materials()[material].conducts:
        if diameter <= 10:
            return Bit("twist drill", pilot, "centre punch, cutting oil, deburr both sides")
        return Bit("step drill", pilot, "up to the step, slowly; deburr both sides")
    if deep is not None:
        return Bit("Forstner bit, flat-bottomed", 0.0, f"a mark on it at {deep:g} mm; try the depth in waste first")
    if materials()[material].brittle:
        if diameter <= 6:
            return Bit(
                "twist drill for plastics", 0.0, "support under the hole, film left on, slowly as it comes through"
            )
        if diameter <= 12:
            return Bit("step drill", pilot, "no hole saw; support under the hole, film left on")
        return Bit("Forstner bit", 0.0, "no hole saw; clamped on waste wood, slow, lift often: it melts")
    if diameter <= 12:
        return Bit("brad-point drill", 0.0, "waste wood under it")
    return Bit("Forstner bit", 0.0, "waste wood under it; from both sides when the point shows")


def hand_work(r: Resolved) -> tuple[HandWork, ...]:
    """All holes and openings of all pieces, piece by piece, the smallest first, large openings last."""
    return tuple(work for piece in pieces_of(r) for work in _of_piece(piece))


def _of_piece(piece: Piece) -> Iterator[HandWork]:
    counted: dict[tuple[float, float | None], int] = {}
    large: list[Item] = []
    for item in (*piece.scene.of("inner"), *piece.scene.of("pocket")):
        if isinstance(item.path, CirclePath) and item.path.diameter <= WIDEST:
            key = round(item.path.diameter, 2), item.depth
            counted[key] = counted.get(key, 0) + 1
        else:
            large.append(item)
    for (diameter, deep), many in sorted(counted.items(), key=lambda entry: (entry[0][0], entry[0][1] or 0.0)):
        bit = bit_for(piece.material, diameter, deep)
        what = "hole" if deep is None else "pocket"
        yield HandWork(piece.name, what, diameter, many, bit.name, bit.pilot, bit.mind, deep)
    for item in large:
        holes = chain(item)
        drill = item.drill
        if drill is not None and drill.diameter <= WIDEST:
            bit = bit_for(piece.material, drill.diameter, item.depth)
            yield HandWork(
                piece.name, f"{item.label}: its round part", drill.diameter, 1, bit.name, bit.pilot,
                f"{bit.mind}; then its notch by file", item.depth,
            )  # fmt: skip
        elif item.depth is None:
            yield _chained(piece.name, item.label, holes)
        else:
            yield HandWork(
                piece.name, item.label, 0.0, 1, "router or chisel", 0.0, f"{item.depth:g} mm deep, from behind",
                item.depth,
            )  # fmt: skip


def _chained(piece: str, label: str, holes: Sequence[CirclePath]) -> HandWork:
    if not holes:
        return HandWork(piece, label, 0.0, 1, "fret saw, file", 0.0, "too narrow for a chain of holes", None)
    mind = f"{len(holes)} holes {WITHIN:g} mm inside the line, sawn through, filed to the line"
    return HandWork(piece, label, holes[0].diameter, len(holes), "chain of holes, file", 0.0, mind, None)


def _jig_key(c: CirclePath, width: float, height: float) -> tuple[int, int, float]:
    """The setting of a jig that drills a hole: its distances from the nearer edges, in :data:`ALIKE`, its diameter."""
    side, end = min(c.x, width - c.x), min(c.y, height - c.y)
    return round(side / ALIKE), round(end / ALIKE), round(c.diameter, 2)


def jigs(r: Resolved) -> tuple[Jig, ...]:
    """Groups of holes that one setting of a jig drills: equal edges, whatever corner and whatever plate."""
    return r.once("jigs", lambda: _jigs(r))


def _jigs(r: Resolved) -> tuple[Jig, ...]:
    found: dict[tuple[int, int, float], list[str]] = {}
    for piece in pieces_of(r):
        for item in piece.scene.of("inner"):
            if not isinstance(item.path, CirclePath):
                continue
            found.setdefault(_jig_key(item.path, piece.width, piece.height), []).append(piece.name)
    made = [
        Jig(side * ALIKE, end * ALIKE, diameter, len(names), tuple(dict.fromkeys(names)))
        for (side, end, diameter), names in found.items()
        if len(names) >= JIG
    ]
    return tuple(sorted(made, key=lambda j: (-j.many, j.from_side, j.from_end)))


TABLE = ("hole", "left, x", "foot, y", "diameter", "right", "head", "jig")


def holes_of(r: Resolved, scene: Scene) -> tuple[tuple[str, ...], ...]:
    """The round holes of one sheet for its paper, under :data:`TABLE`: from every edge, and which jig drills it."""
    groups = {
        (round(j.from_side / ALIKE), round(j.from_end / ALIKE), round(j.diameter, 2)): f"{n}"
        for n, j in enumerate(jigs(r), 1)
    }
    rows = []
    for item in scene.of("inner"):
        c = item.circle
        if c is not None:
            edges = c.x, c.y, c.diameter, scene.width - c.x, scene.height - c.y
            rows.append((item.label[:44], *map(_f, edges), groups.get(_jig_key(c, scene.width, scene.height), "")))
    return tuple(rows)


HOLES = (
    "piece",
    "material",
    "thick",
    "what",
    "x",
    "y",
    "diameter",
    "from_left",
    "from_right",
    "from_foot",
    "from_head",
    "depth",
    "line",
)


def hole_table(r: Resolved) -> bytes:
    """Every round hole and pocket as CSV, from the piece's lower left corner as it is cut, and from every edge.

    ``line`` is the diameter of the way that the middle of the beam or cutter goes, kerf and fit counted; empty where no
    machine makes the piece, or where its own software moves the line.
    """
    rows = []
    machines = {piece.id: machine for machine, piece in meant(r)}
    for piece in pieces_of(r):
        goes = _way_of_the_middle(r, piece, machines.get(piece.id))
        for item in (*piece.scene.of("inner"), *piece.scene.of("pocket")):
            c = item.circle
            if c is not None:
                ends = c.x, piece.width - c.x, c.y, piece.height - c.y
                rows.append(
                    (
                        piece.name, materials()[piece.material].name, f"{piece.thickness:g}", item.label, _f(c.x),
                        _f(c.y), _f(c.diameter), *(_f(e) for e in ends),
                        "through" if item.depth is None else _f(item.depth),
                        goes(c.diameter) if item.depth is None else "",
                    )
                )  # fmt: skip
    return write_csv(HOLES, rows)


def _way_of_the_middle(r: Resolved, piece: Piece, machine: Machine | None) -> Callable[[float], str]:
    """From a hole's diameter to that of the line along which it is cut (mm)."""
    if machine is None or machine.offsets:
        return lambda diameter: ""
    fit = fit_of(r.design, machine, piece.material, piece.thickness)

    def goes(diameter: float) -> str:
        if machine.kind == "laser":
            return _f(diameter - fit.kerf + fit.wider)
        found = tool_for(machine, CirclePath(0.0, 0.0, diameter), piece.thickness)
        return _f(diameter - found[1].diameter + fit.wider) if found else ""

    return goes


PIECES = ("piece", "material", "thick", "width", "height", "round_it", "many", "machine", "sheet")


def cut_list(r: Resolved, lies: dict[str, tuple[str, str]]) -> bytes:
    """Every piece as CSV.

    :param lies: by a piece's id the machine and the sheet that it is cut on.
    """
    rows = []
    for piece in pieces_of(r):
        around = sum(_round_it(i) for i in piece.scene.of("outline"))
        rows.append(
            (
                piece.name, materials()[piece.material].name, f"{piece.thickness:g}", _f(piece.width), _f(piece.height),
                _f(around), str(piece.many), *lies.get(piece.id, ("by hand", "")),
            )
        )  # fmt: skip
    return write_csv(PIECES, rows)


def _round_it(item: Item) -> float:
    if isinstance(item.path, CirclePath):
        return math.pi * item.path.diameter
    return way_round(item.path) if len(flattened(item.path)) > 1 else 0.0


def _f(value: float) -> str:
    return f"{value:.2f}"


WORK = ("piece", "what", "diameter", "many", "bit", "pilot", "depth", "mind")


def work_table(work: Sequence[HandWork]) -> bytes:
    """The drill schedule as CSV, in the order of the work."""
    return write_csv(
        WORK,
        [
            (
                w.piece, w.what, _f(w.diameter), str(w.many), w.bit, f"{w.pilot:g}" if w.pilot else "",
                "through" if w.depth is None else _f(w.depth), w.mind,
            )
            for w in work
        ],
    )  # fmt: skip
