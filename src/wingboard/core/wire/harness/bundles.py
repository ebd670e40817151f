"""Looms: how thick each piece of a trunk is, which drops leave it where, where it is tied, how tight it bends. mm."""

from __future__ import annotations

import math
from itertools import pairwise
from typing import NamedTuple

from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.harness.gauge import BEND, bundle, gauge_for
from wingboard.core.wire.harness.laid import Laid, laid
from wingboard.core.wire.harness.places import places
from wingboard.core.wire.harness.plugs import plug_of
from wingboard.core.wire.harness.routes import NEAR, Point, Trunk, trunks
from wingboard.core.wire.netlist import Port
from wingboard.core.wire.nets import net_list


class Section(NamedTuple):
    """A piece of a trunk between two drops, with so many wires, so thick."""

    start: Point
    end: Point
    wires: int
    thick: float


class Drop(NamedTuple):
    """Where the wires of a part, a board or a strip board come to the trunk."""

    owner: str
    name: str
    at: Point
    joins: Point
    wires: int
    thick: float


class LoomPlan(NamedTuple):
    """The loom of a module. ``ties``: where it is tied to the plate; ``exit``: what leaves; ``bend``: its least radius;
    ``metres``: of wire behind this module."""

    module: str
    trunk: Trunk
    sections: tuple[Section, ...]
    drops: tuple[Drop, ...]
    ties: tuple[Point, ...]
    exit: Section
    metres: float

    @property
    def thickest(self) -> float:
        """Of all its pieces."""
        return max((s.thick for s in (*self.sections, self.exit)), default=0.0)

    @property
    def bend(self) -> float:
        """The least radius (mm) to bend it with."""
        return BEND * self.thickest


def looms(r: Resolved) -> tuple[LoomPlan, ...]:
    """The loom of every module with wires on it."""
    return r.once("looms", lambda: tuple(_loom(r, trunk) for trunk in trunks(r).values()))


class _Run(NamedTuple):
    """A wire on a trunk: from one place along it to another (or to the exit), so thick."""

    start: float
    end: float
    leaves: bool
    outside: float


def _loom(r: Resolved, trunk: Trunk) -> LoomPlan:
    on: list[_Run] = []
    drops: dict[str, list[tuple[Point, Point, float]]] = {}
    names: dict[str, str] = {}
    length = 0.0
    for piece in laid(r):
        ends = [(p, spot) for p in (piece.wire.start, piece.wire.end)
                if (spot := _spot(r, trunk.module, p)) is not None]  # fmt: skip
        if piece.wire.how != "wire" or not ends or _straight(r, piece):
            continue
        thick = gauge_for(piece.area).outside
        length += piece.length if places(r).home(ends[0][0]) == trunk.module else 0.0
        for port, at in ends:
            owner, name = _owner(r, port)
            names[owner] = name
            drops.setdefault(owner, []).append((at, trunk.meets(*at), thick))
        joins = [_along(trunk, trunk.meets(*at)) for _, at in ends]
        out = _along(trunk, trunk.exit)
        on.append(_Run(joins[0], joins[1] if len(joins) == 2 else out, len(joins) == 1, thick))
    leaving = [run.outside for run in on if run.leaves]
    knees = trunk.meets(*trunk.exit)
    return LoomPlan(
        trunk.module, trunk, _sections(trunk, on), tuple(_drop(o, names[o], some) for o, some in drops.items()),
        _ties(r, trunk), Section(knees, trunk.exit, len(leaving), bundle(leaving)), length / 1000,
    )  # fmt: skip


def _spot(r: Resolved, module: str, port: Port) -> Point | None:
    """The place of a terminal behind a module; None for those elsewhere, and for contacts of plugs."""
    if plug_of(r, port.device) or places(r).inside(port) != module:
        return None
    spot = places(r).spot(port)
    return spot.x, spot.y


def _straight(r: Resolved, piece: Laid) -> bool:
    """Whether a wire goes from neighbour to neighbour, beside the loom."""
    one, other = places(r).inside(piece.wire.start), places(r).inside(piece.wire.end)
    if not one or one != other:
        return False
    a, b = places(r).spot(piece.wire.start), places(r).spot(piece.wire.end)
    return abs(a.x - b.x) + abs(a.y - b.y) <= NEAR


def _owner(r: Resolved, port: Port) -> tuple[str, str]:
    """Whose drop a terminal is on: a part with what is at its terminals, a board, a strip board, a lamp behind."""
    device = net_list(r).devices[port.device]
    if device.of in r.functions:
        return device.of, r.functions[device.of].name
    return device.id, device.name


def _along(trunk: Trunk, point: Point) -> float:
    return point[0] if trunk.across else point[1]


def _point(trunk: Trunk, along: float) -> Point:
    return (along, trunk.at) if trunk.across else (trunk.at, along)


def _sections(trunk: Trunk, on: list[_Run]) -> tuple[Section, ...]:
    knots = sorted({round(x, 3) for run in on for x in (run.start, run.end)})
    made = []
    for a, b in pairwise(knots):
        here = [run.outside for run in on if min(run.start, run.end) < (a + b) / 2 < max(run.start, run.end)]
        if here:
            made.append(Section(_point(trunk, a), _point(trunk, b), len(here), bundle(here)))
    return tuple(made)


def _drop(owner: str, name: str, some: list[tuple[Point, Point, float]]) -> Drop:
    at = _mean([a for a, _, _ in some])
    return Drop(owner, name, at, _mean([j for _, j, _ in some]), len(some), bundle([thick for _, _, thick in some]))


def _mean(points: list[Point]) -> Point:
    return sum(x for x, _ in points) / len(points), sum(y for _, y in points) / len(points)


def _ties(r: Resolved, trunk: Trunk) -> tuple[Point, ...]:
    """Both ends of the trunk and evenly between, no further apart than the design says."""
    a, b = _along(trunk, trunk.start), _along(trunk, trunk.end)
    many = max(1, math.ceil(abs(b - a) / r.design.harness.ties - 1e-9))
    return tuple(_point(trunk, a + (b - a) * n / many) for n in range(many + 1))
