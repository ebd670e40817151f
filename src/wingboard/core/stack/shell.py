"""A printed case: one shell with the openings of its walls, a lip, a shelf for lamps and bosses for inserts, cut to
what a printer takes.

Coordinates are the case's: x to the right, y up, z towards the viewer; the inside's lower left corner at x = y = 0, the
outside of the back at z = 0. So it lies on the printer's bed as it stands here. Nothing overhangs by more than 45°
(common practice), but for the tops of openings in the walls.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator, Sequence
from itertools import product
from typing import Any, NamedTuple

from wingboard.core.brief.beds import usable
from wingboard.core.geometry.cuts import free_cuts
from wingboard.core.geometry.outline import Loop, flattened, rounded_rectangle
from wingboard.core.quantity import VISIBLE
from wingboard.core.record.modules import Screw
from wingboard.core.record.workshop import Machine, Material
from wingboard.core.resolved.module import ResolvedModule
from wingboard.core.stack.case import COVER, CaseMade, CasePiece

INSERT: dict[Screw, tuple[float, float]] = {
    "M2": (3.2, 5.0), "M2.5": (3.6, 6.0), "M3": (4.0, 7.0), "M4": (5.6, 9.0), "M5": (6.4, 10.5), "M6": (8.0, 13.5),
}  # fmt: skip
"""The bore for a heat-set insert, wide and deep (mm; from memory of makers' tables, and a millimetre for the melt)."""
AROUND = 2.0
"""Material (mm) round an insert's bore (common practice)."""
FAR = 25.0
"""A screw further than this (mm) from a wall gets no boss: it holds the layers only."""
PILOT = 2.5
"""Hole (mm) for the screws of the hatch's cover, which cut their own thread (common practice: 0.8 of the thread)."""
RIB = (14.0, 4.0)
"""Along a cut the wall is thicker: so wide and so much (mm), for glue and pins (common practice)."""
PIN = (1.9, 6.0)
"""A hole for a pin of 1.75 mm filament: wide, and deep in each piece (mm; common practice)."""
PIN_EDGE = 1.0
"""Material (mm) round a pin's hole, at least."""
DENSITY = {"pla": 1.24, "petg": 1.27, "abs": 1.04}
"""g/cm³, from memory of data sheets."""
LEAST_PIECE = 20.0


class Solid(NamedTuple):
    """A piece to print: corner points (mm), triangles as their numbers, outwards; its size and its volume (mm³)."""

    id: str
    name: str
    colour: str
    points: Any
    triangles: Any
    size: tuple[float, float, float]
    volume: float


def prism(loops: Iterable[Loop], height: float) -> Any:
    """What loops enclose, one inside another being a hole, ``height`` mm high from z = 0."""
    import manifold3d  # a mesh library, not needed at the start

    outlines = [flattened(loop) for loop in loops]
    return manifold3d.CrossSection(outlines, manifold3d.FillRule.EvenOdd).extrude(height)


def solid_of(ident: str, name: str, colour: str, body: Any) -> Solid:
    """A body of the mesh library as corner points and triangles."""
    mesh = body.to_mesh()
    x0, y0, z0, x1, y1, z1 = body.bounding_box()
    return Solid(
        ident, name, colour, mesh.vert_properties[:, :3], mesh.tri_verts, (x1 - x0, y1 - y0, z1 - z0), body.volume()
    )


def weight(solid: Solid, material: Material) -> float:
    """What a solid weighs (g) if it is printed without a hollow; a material of unknown weight counts as PLA."""
    return solid.volume / 1000 * DENSITY.get(material, DENSITY["pla"])


def shell_of(module: ResolvedModule, made: CaseMade) -> Any:
    """The whole shell in one piece, without its hatch's cover."""
    import manifold3d

    cube = manifold3d.Manifold.cube
    (wide, high, deep), t = made.inside, made.case.thickness
    tall = deep + t
    outer = cube([wide + 2 * t, high + 2 * t, tall]).translate([-t, -t, 0])
    body = outer - cube([wide, high, tall]).translate([0, 0, t])
    body += _ridges(made, module.thickness)
    bosses, bores = _bosses(module, made)
    body = (body + bosses) ^ outer.trim_by_plane([0, 0, -1], -tall)
    return body - bores - _openings(made)


def _frustum(made: CaseMade, low: float, high: float, below: float, above: float) -> Any:
    """The room within a ring: from ``below`` mm off the walls at z ``low`` to ``above`` at ``high``."""
    import manifold3d

    wide, tall, _ = made.inside
    base = [wide - 2 * below, tall - 2 * below]
    top = [(wide - 2 * above) / base[0], (tall - 2 * above) / base[1]]
    square = manifold3d.CrossSection.square(base, center=True)
    return square.extrude(high - low, scale_top=top).translate([wide / 2, tall / 2, low])


def _ring(made: CaseMade, low: float, high: float, below: float, above: float) -> Any:
    import manifold3d

    wide, tall, _ = made.inside
    slab = manifold3d.Manifold.cube([wide, tall, high - low]).translate([0, 0, low])
    return slab - _frustum(made, low, high, below, above)


def _ridges(made: CaseMade, plate: float) -> Any:
    """The lip that the plate lies on, and the shelf whose front turns lamps by 45° to the middle."""
    import manifold3d

    case, (wide, high, deep) = made.case, made.inside
    found = manifold3d.Manifold()
    front = deep + case.thickness - plate
    lip, shelf = min(case.lip, wide / 4, high / 4), min(case.shelf, wide / 4, high / 4) / math.sqrt(2)
    if lip:
        found += _ring(made, front - lip, front, 0.0, lip)
    top = front - lip - 2.0
    if shelf:
        found += _ring(made, top - shelf, top, shelf, 0.0)
        found += _ring(made, top - 2 * shelf, top - shelf, 0.0, shelf)
    return found.trim_by_plane([0, 0, 1], case.thickness) if lip or shelf else found


def _bosses(module: ResolvedModule, made: CaseMade) -> tuple[Any, Any]:
    """Bosses behind the plate's screws, each held by the wall next to it, and their bores."""
    import manifold3d

    bosses, bores = [manifold3d.Manifold()], [manifold3d.Manifold()]
    fixings, (wide, high, deep) = module.module.fixings, made.inside
    if fixings is None:
        return bosses[0], bores[0]
    bore, into = INSERT[fixings.screw]
    radius = bore / 2 + AROUND
    front = deep + made.case.thickness - module.thickness
    x0, y0, x1, y1 = module.area.bounds
    for f in module.fixings:
        x, y = f.x - (x0 + x1) / 2 + wide / 2, f.y - (y0 + y1) / 2 + high / 2
        away, foot = min(
            (x, (0.0, y)), (wide - x, (wide, y)), (y, (x, 0.0)), (high - y, (x, high)), key=lambda way: way[0]
        )
        if away > FAR:
            continue
        pad = manifold3d.Manifold.cylinder(into + AROUND, radius, radius, 48).translate([x, y, front - into - AROUND])
        low = front - into - AROUND - max(away - radius, 0.0) - 2 * radius  # 45° from the wall out to the far side
        root = manifold3d.Manifold.cube([2.0, 2.0, 1.0], center=True).translate([*foot, low])
        bosses.append(manifold3d.Manifold.batch_hull([pad, root]))
        bores.append(manifold3d.Manifold.cylinder(into + 1, bore / 2, bore / 2, 48).translate([x, y, front - into]))
    add = manifold3d.OpType.Add
    return manifold3d.Manifold.batch_boolean(bosses, add), manifold3d.Manifold.batch_boolean(bores, add)


def _openings(made: CaseMade) -> Any:
    """Everything that is open in the walls and the back, through them."""
    import manifold3d

    found = [manifold3d.Manifold()]
    for piece in made.pieces:
        matrix = _in_wall(piece, made)
        for opening in piece.openings if matrix else ():
            found.append(prism([opening.path], made.case.thickness + 2 + RIB[1]).transform(matrix))
    for x, y in _pilots(made):
        pilot = manifold3d.Manifold.cylinder(made.case.thickness + 2 + RIB[1], PILOT / 2, PILOT / 2, 32)
        found.append(pilot.translate([x, y, -1]))
    return manifold3d.Manifold.batch_boolean(found, manifold3d.OpType.Add)


def _in_wall(piece: CasePiece, made: CaseMade) -> list[list[float]] | None:
    """From a piece of sheet to the wall that it would be, from a millimetre outside of it inwards; None for no wall."""
    (wide, high, deep), t = made.inside, made.case.thickness
    ways: dict[str, list[list[float]]] = {
        "case-top": [[1, 0, 0, -t], [0, 0, -1, high + t + 1], [0, 1, 0, t]],
        "case-bottom": [[1, 0, 0, -t], [0, 0, 1, -t - 1], [0, -1, 0, t + deep]],
        "case-left": [[0, 0, 1, -t - 1], [0, 1, 0, 0], [-1, 0, 0, t + deep]],
        "case-right": [[0, 0, -1, wide + t + 1], [0, 1, 0, 0], [1, 0, 0, t]],
        "case-back": [[1, 0, 0, -t], [0, 1, 0, -t], [0, 0, 1, -1]],
    }
    return ways.get(piece.id)


def _pilots(made: CaseMade) -> Iterator[tuple[float, float]]:
    """Where the cover of the hatch is screwed to the back."""
    if made.hatch:
        wide, high, _ = made.inside
        dx, dy = (side / 2 + COVER / 2 for side in made.hatch)
        yield from product((wide / 2 - dx, wide / 2 + dx), (high / 2 - dy, high / 2 + dy))


class Cuts(NamedTuple):
    """Where a shell is cut (mm, in its coordinates), and for which printer; None: no printer takes its pieces."""

    printer: Machine | None
    x: tuple[float, ...]
    y: tuple[float, ...]
    z: tuple[float, ...]

    @property
    def pieces(self) -> int:
        """How many pieces that makes."""
        return (len(self.x) + 1) * (len(self.y) + 1) * (len(self.z) + 1)


def cuts_of(made: CaseMade, machines: Sequence[Machine]) -> Cuts:
    """The cuts that leave the fewest pieces, each within a printer's volume; none where there is no printer."""
    t = made.case.thickness
    best: Cuts | None = None
    for m, ways in _ways_to_cut(made, machines):
        if any(way is None for way in ways):
            continue
        shifted = [tuple(x - t for x in way or ()) for way in ways[:2]]
        found = Cuts(m, shifted[0], shifted[1], ways[2] or ())
        if best is None or found.pieces < best.pieces:
            best = found
    return best or Cuts(None, (), (), ())


def sides_uncut(made: CaseMade, machines: Sequence[Machine]) -> int:
    """On how many of its three sides no cut makes a case small enough, for the printer and the way that do best."""
    return min((sum(way is None for way in ways) for _, ways in _ways_to_cut(made, machines)), default=3)


def _ways_to_cut(
    made: CaseMade, machines: Sequence[Machine]
) -> Iterator[tuple[Machine, list[tuple[float, ...] | None]]]:
    """For each printer and both ways a case lies on it: the cuts along x, y and z; None where there is no place."""
    for m in machines:
        if m.kind != "printer":
            continue
        bed_x, bed_y = usable(m)
        for bed in ((bed_x, bed_y), (bed_y, bed_x)):
            ways = []
            for along, (length, most) in enumerate(zip(made.outside, (*bed, m.depth), strict=True)):
                many = math.ceil((length - VISIBLE) / most) if most > LEAST_PIECE else 0
                at: tuple[float, ...] | None = () if many == 1 else None
                if 1 < many <= 8:
                    at = free_cuts(length, _taken(made, along), most, many, LEAST_PIECE)
                ways.append(at)
            yield m, ways


def _taken(made: CaseMade, along: int) -> list[tuple[float, float]]:
    """From where to where (mm, along x, y or z from the outside) the walls are open; a hatch is cut through."""
    found = []
    for piece in made.pieces:
        matrix = _in_wall(piece, made)
        for opening in piece.openings if matrix else ():
            if opening.what != "hatch":
                box = prism([opening.path], made.case.thickness).transform(matrix).bounding_box()
                off = made.case.thickness if along < 2 else 0.0
                found.append((box[along] + off, box[along + 3] + off))
    return found


def printed_case(module: ResolvedModule, made: CaseMade, cuts: Cuts, colour: str) -> tuple[Solid, ...]:
    """The pieces of a printed case where each stands in the whole, back down; then the hatch's cover."""
    body = shell_of(module, made)
    planes = [(axis, c) for axis, at in enumerate((cuts.x, cuts.y, cuts.z)) for c in at]
    for axis, c in planes:
        if axis < 2:
            body += _rib(made, module.thickness, axis, c)
    body -= _openings(made)
    for axis, c in planes:
        if axis < 2:
            for pin in _pins(made, axis, c):
                body = _bored(body, pin)
    pieces = [body]
    for axis, c in planes:
        normal = [float(axis == n) for n in range(3)]
        halves = [half for piece in pieces for half in reversed(piece.split_by_plane(normal, c))]
        pieces = [half for half in halves if not half.is_empty()]  # a hatch may leave nothing of one
    many = len(pieces)
    solids = [
        solid_of(
            f"case-{n}" if many > 1 else "case", f"Case, piece {n} of {many}" if many > 1 else "Case", colour, piece
        )
        for n, piece in enumerate(pieces, 1)
    ]
    for piece in made.pieces:
        if piece.id == "case-hatch":
            loops = [_outline(piece), *(o.path for o in piece.openings)]
            solids.append(solid_of(piece.id, piece.name, colour, prism(loops, made.case.thickness)))
    return tuple(solids)


def _outline(piece: CasePiece) -> Loop:
    return rounded_rectangle(piece.width, piece.height, 0.0)


def _rib(made: CaseMade, plate: float, axis: int, c: float) -> Any:
    """The wall made thicker on both sides of a cut, up to what the plate leaves free."""
    import manifold3d

    (wide, high, deep), t = made.inside, made.case.thickness
    across, more = RIB
    tall = deep - plate - made.case.lip
    cube = manifold3d.Manifold.cube
    size, inner = [wide, high, tall], [wide, high, tall]
    size[axis] = across
    inner[axis], inner[1 - axis] = across + 2, size[1 - axis] - 2 * more
    at, inside = [0.0, 0.0, t], [0.0, 0.0, t + more]
    at[axis], inside[axis], inside[1 - axis] = c - across / 2, c - across / 2 - 1, more
    if tall <= 0:
        return manifold3d.Manifold()
    rib = cube(size).translate(at)
    return rib - cube(inner).translate(inside) if min(inner) > 0 else rib


def _pins(made: CaseMade, axis: int, c: float) -> Iterator[tuple[int, tuple[float, float, float]]]:
    """Where pins would go along a cut: in the thicker wall on both sides and the back, two in each."""
    (wide, high, deep), t = made.inside, made.case.thickness
    other = (wide, high)[1 - axis]
    mid = (t - RIB[1]) / 2
    spots = [(side, t + share * deep) for side in (-mid, other + mid) for share in (0.2, 0.6)]
    spots += [(share * other, (t + RIB[1]) / 2) for share in (0.15, 0.3, 0.5, 0.7, 0.85)]
    for along, z in spots:
        yield axis, ((c, along, z) if axis == 0 else (along, c, z))


def _bored(body: Any, pin: tuple[int, tuple[float, float, float]]) -> Any:
    """A body with a hole for a pin where there is material all round it; as it is elsewhere."""
    import manifold3d

    axis, at = pin
    turn = [0.0, 90.0, 0.0] if axis == 0 else [90.0, 0.0, 0.0]
    wide, deep = PIN

    def rod(radius: float, length: float) -> Any:
        made = manifold3d.Manifold.cylinder(2 * length, radius, radius, 24, center=True)
        return made.rotate(turn).translate(list(at))

    around = rod(wide / 2 + PIN_EDGE, RIB[0] / 2 - 0.5)
    return body - rod(wide / 2, min(deep, RIB[0] / 2)) if (around - body).volume() < 1e-3 else body
