"""The box behind a module, as pieces of sheet: butt joints, the side walls between top and bottom, the back over all.

Its inside is the plate with the fit gap all round, and as deep as whatever reaches deepest plus room for wires. The
plate lies on a lip inside the walls, so that no light passes between. Vents are as large as warm air needs that is ten
degrees warmer than the room: A = Q / v, Q = P / (ρ c ΔT), v = 0.6 √(2 g H ΔT / T), H from the lower slots to the upper.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from typing import NamedTuple

from wingboard.core.brief.beds import usable
from wingboard.core.geometry.outline import Loop, Vertex, moved, rounded_rectangle
from wingboard.core.record.lamps import lamp_volts
from wingboard.core.record.modules import Case, Wall
from wingboard.core.record.workshop import Machine
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule
from wingboard.core.resolved.profile import sheets
from wingboard.core.stack.boards import behind

SLOT = (4.0, 40.0)
"""A vent: so wide and long (mm); no finger passes (common practice)."""
SLOT_PITCH = 9.0
WARMER = 10.0
"""Kelvin."""
ROOM = 300.0
"""Kelvin."""
AIR = 1.2 * 1005
"""What a cubic metre of air takes up for a degree (J)."""
CONTROLLER = 0.5
"""Watts that a controller gives off (common practice)."""
LEAST_DEEP = 20.0
"""No vents in walls less deep (mm)."""
RIM = 3.0
"""Left (mm) between a cable's exit and the end of its wall."""
HATCH = 0.6
"""The hatch takes so much of the back, each way; less where its cover would not lie on a printer's bed."""
LEAST_HATCH = 40.0
"""A hatch is at least so large each way (mm): two fingers."""
COVER = 12.0
"""How far (mm) the hatch's cover reaches over its opening."""
HATCH_SCREW = 3.4


class Opening(NamedTuple):
    """An opening of a piece, in the piece's coordinates."""

    what: str
    path: Loop


class CasePiece(NamedTuple):
    """A piece of sheet: its size (mm), how many alike, what is cut in it, and how it goes in.

    ``x``, ``y`` are where it lies in the box unfolded, its back in the middle; None for strips and covers.
    """

    id: str
    name: str
    many: int
    width: float
    height: float
    openings: tuple[Opening, ...]
    note: str
    at: tuple[float, float] | None = None


class CaseMade(NamedTuple):
    """A case: its inside and outside (width, height, depth; mm), its pieces, its heat (W), its vents (mm²)."""

    case: Case
    inside: tuple[float, float, float]
    outside: tuple[float, float, float]
    pieces: tuple[CasePiece, ...]
    heat: float
    vent_needed: float
    vent_made: float
    hatch: tuple[float, float] | None
    """Width and height (mm) of the hatch's opening."""


def deepest(r: Resolved, module: ResolvedModule) -> float:
    """How far (mm) anything of a module reaches behind its front surface."""
    ends = [module.depth(p) for p in module.placed]
    ends += [s.z1 for s in sheets(module.stack)]
    ends += [b.z1 for b in behind(r, module)]
    return max(ends, default=module.thickness)


def heat(r: Resolved, module: ResolvedModule) -> float:
    """What the lamps and displays of a module, and the controllers behind it, turn into heat (W), all of them on."""
    lit = sum(
        line.current * max(lamp_volts(p.function, p.part) or line.volts, 5.0)
        for p in module.placed
        for line in p.part.lines
    )
    return lit + CONTROLLER * sum(b.board.controller is not None for b in behind(r, module))


def vent_area(watts: float, rise: float) -> float:
    """Open area (mm²) below, and as much above, that carries heat away with ``rise`` mm between the two."""
    if watts <= 0 or rise <= 0:
        return 0.0
    flow = watts / (AIR * WARMER)
    speed = 0.6 * math.sqrt(2 * 9.81 * rise / 1000 * WARMER / ROOM)
    return flow / speed * 1e6


def case_of(r: Resolved, module: ResolvedModule) -> CaseMade | None:
    """The case of a module; None where it has none."""
    case = module.module.case
    if case is None:
        return None
    t, gap = case.thickness, r.design.brief.gap
    wide, high = module.size[0] + 2 * gap, module.size[1] + 2 * gap
    deep = round(deepest(r, module) + case.room, 1)
    watts = heat(r, module)
    needed = vent_area(watts, 0.75 * high)
    wanted = math.ceil(needed / (SLOT[0] * SLOT[1])) if case.vents and deep > LEAST_DEEP else 0
    slots = max(0, min(wanted, int((wide - 20) / SLOT_PITCH)))
    hatch = _hatch(case, wide + 2 * t, high + 2 * t, r.design.workshop.machines)
    pieces = [
        _wall(case, "top", wide + 2 * t, deep, slots, (-t, high + t)),
        _wall(case, "bottom", wide + 2 * t, deep, slots, (-t, -t - deep)),
        _wall(case, "left", deep, high, 0, (-t - deep, 0.0)),
        _wall(case, "right", deep, high, 0, (wide + t, 0.0)),
        _back(case, wide + 2 * t, high + 2 * t, (-t, -t), hatch),
        *_inside(case, wide, high, module.thickness, hatch),
    ]
    made = slots * SLOT[0] * SLOT[1]
    return CaseMade(
        case, (wide, high, deep), (wide + 2 * t, high + 2 * t, deep + t), tuple(pieces), watts, needed, made,
        hatch,
    )  # fmt: skip


def _rectangle(x: float, y: float, width: float, height: float) -> Loop:
    return rounded_rectangle(width, height, 0.0, x, y)


def _round(x: float, y: float, diameter: float) -> Loop:
    return Vertex(x - diameter / 2, y, 1.0), Vertex(x + diameter / 2, y, 1.0)


def _exits(case: Case, wall: Wall, width: float, height: float) -> Iterator[Opening]:
    """Cable exits of a wall: along it, and in the middle of its other way."""
    for out in case.exits:
        if out.wall == wall:
            upright = wall in ("left", "right")
            wide = min(out.diameter, min(width, height) - 2 * RIM)
            if wide <= 0:
                continue
            low, high = RIM + wide / 2, (height if upright else width) - RIM - wide / 2
            along = min(max(out.along, low), high)
            x, y = (width / 2, along) if upright else (along, height / 2)
            yield Opening(f"cable, {wide:g} mm", _round(x, y, wide))


def _wall(case: Case, wall: Wall, width: float, height: float, slots: int, at: tuple[float, float]) -> CasePiece:
    """A wall, its front edge away from the back when the box lies unfolded."""
    openings = list(_exits(case, wall, width, height))
    first = (width - (slots - 1) * SLOT_PITCH) / 2
    for n in range(slots):
        x = first + n * SLOT_PITCH - SLOT[0] / 2
        y = (height - min(SLOT[1], height - 10)) / 2
        openings.append(Opening("vent", _rectangle(x, y, SLOT[0], min(SLOT[1], height - 10))))
    note = "over the side walls" if wall in ("top", "bottom") else "between top and bottom"
    return CasePiece(f"case-{wall}", f"{wall.capitalize()} wall", 1, width, height, tuple(openings), note, at)


def _hatch(case: Case, width: float, height: float, machines: Sequence[Machine]) -> tuple[float, float] | None:
    """Width and height (mm) of the hatch in a back of that size; of a printed one, as its cover fits a bed."""
    if not case.hatch:
        return None
    wide, high = width * HATCH, height * HATCH
    beds = [usable(m) for m in machines if m.kind == "printer"] if case.made == "printed" else []
    ways = [(min(wide, w - 2 * COVER), min(high, h - 2 * COVER)) for bed in beds for w, h in (bed, bed[::-1])]
    best = max(ways, key=lambda way: way[0] * way[1], default=(wide, high))
    return best if min(best) >= min(LEAST_HATCH, wide, high) else None


def _back(
    case: Case, width: float, height: float, at: tuple[float, float], hatch: tuple[float, float] | None
) -> CasePiece:
    openings = list(_exits(case, "back", width, height))
    if hatch:
        wide, high = hatch
        openings.append(Opening("hatch", _rectangle((width - wide) / 2, (height - high) / 2, wide, high)))
    return CasePiece("case-back", "Back", 1, width, height, tuple(openings), "over all four walls", at)


def _inside(
    case: Case, wide: float, high: float, plate: float, hatch: tuple[float, float] | None
) -> Iterator[CasePiece]:
    if hatch:
        width, height = hatch[0] + 2 * COVER, hatch[1] + 2 * COVER
        spots = [(x, y) for x in (COVER / 2, width - COVER / 2) for y in (COVER / 2, height - COVER / 2)]
        holes = tuple(Opening("screw", _round(x, y, HATCH_SCREW)) for x, y in spots)
        yield CasePiece("case-hatch", "Cover of the hatch", 1, width, height, holes, "screwed over the back's opening")
    lip, shelf = min(case.lip, wide / 4, high / 4), min(case.shelf, wide / 4, high / 4)
    if lip:
        behind_front = f"its front {plate:g} mm behind the walls' front edge: the plate lies on it"
        yield CasePiece("case-lip-long", "Lip, along top and bottom", 2, wide, lip, (), behind_front)
        yield CasePiece("case-lip-short", "Lip, along the sides", 2, high - 2 * lip, lip, (), behind_front)
    if shelf:
        note = "at 45° into the corner of lip and wall, ends mitred; lamps on it shine on the diffuser"
        yield CasePiece("case-shelf-long", "Lamp shelf, top and bottom", 2, wide, shelf, (), note)
        yield CasePiece("case-shelf-short", "Lamp shelf, sides", 2, high, shelf, (), note)


CUTTING_LIST = ("piece", "pieces", "width", "height", "thickness", "material", "openings", "how it goes in")


def cutting_list(made: CaseMade) -> list[tuple[str, ...]]:
    """The pieces as cells under :data:`CUTTING_LIST`."""
    return [
        (
            p.name, str(p.many), f"{p.width:.1f}", f"{p.height:.1f}", f"{made.case.thickness:g}", made.case.material,
            str(len(p.openings)), p.note,
        )
        for p in made.pieces
    ]  # fmt: skip


def in_place(piece: CasePiece, loop: Loop) -> Loop:
    """A path of a piece where it lies in the box unfolded."""
    x, y = piece.at or (0.0, 0.0)
    return moved(loop, x, y)


def outline_of(piece: CasePiece) -> Loop:
    """A piece's own outline, its lower left at the origin."""
    return _rectangle(0.0, 0.0, piece.width, piece.height)
