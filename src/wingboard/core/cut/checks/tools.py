"""Whether the cutters of a mill go into what they have to cut out."""

from __future__ import annotations

from collections.abc import Iterator
from functools import lru_cache, partial
from typing import NamedTuple

from wingboard.core.changes.commands.workshop import EditMachine
from wingboard.core.cut.beside import inside
from wingboard.core.cut.bones import bones
from wingboard.core.cut.checks.machines import READS
from wingboard.core.cut.cutters import DRILLS, PLAY, ROUNDING, unreached
from wingboard.core.cut.sheets import meant
from wingboard.core.files.scene import CirclePath
from wingboard.core.findings.finding import Finding, Fix, Measure
from wingboard.core.findings.registry import Check, check
from wingboard.core.geometry.outline import Loop
from wingboard.core.record.base import Source
from wingboard.core.record.shapes import Circle, Shape
from wingboard.core.record.workshop import Machine, Tool
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import PlacedCutout

SOLD = (3.175, 3.0, 2.5, 2.0, 1.5, 1.0, 0.8)
"""Diameters (mm) in which small end mills are sold (common practice)."""
REACH = 4.0
"""A cutter goes no deeper than so many times its diameter (common practice: longer ones bend and break)."""


def _path(shape: Shape) -> CirclePath | Loop:
    return CirclePath(0.0, 0.0, shape.diameter) if isinstance(shape, Circle) else shape.loop()


@lru_cache(maxsize=20_000)
def goes_in(shape: Shape, diameter: float) -> bool:
    """Whether a cutter goes into an opening at all, with a little play."""
    return bool(inside(_path(shape), diameter / 2 + PLAY))


@lru_cache(maxsize=20_000)
def left_in(shape: Shape, diameter: float) -> float:
    """How far (mm) from the furthest corner of an opening a cutter stays."""
    return unreached(_path(shape), diameter + 2 * PLAY)


class Milled(NamedTuple):
    """Openings of one shape and depth that a mill makes in sheets of one thickness: one of them, and how many."""

    machine: Machine
    cut: PlacedCutout
    layer: str
    thickness: float
    many: int

    def said(self, r: Resolved) -> str:
        """Whose it is, in words."""
        name = next((f.name for f in r.design.functions if f.id == self.cut.owner), self.cut.owner)
        more = f" and {self.many - 1} more like it" if self.many > 1 else ""
        return f"{name}, {self.cut.purpose}, {self.layer.lower()}{more}"


def _milled(r: Resolved) -> tuple[Milled, ...]:
    """Every kind of opening and pocket that a mill with a cutter makes."""
    return r.once("openings to mill", lambda: _found(r))


def _found(r: Resolved) -> tuple[Milled, ...]:
    found: dict[tuple[str, int, float | None, float], Milled] = {}
    for machine, piece in meant(r):
        layer = piece.layer
        if layer is None or machine.kind != "mill" or all(t.kind != "mill" for t in machine.tools):
            continue
        for cut in piece.module.cutouts(layer.id):
            if not piece.has(cut.x, cut.y):
                continue
            key = machine.id, id(cut.shape), cut.depth, piece.thickness
            before = found.get(key)
            if before is None:
                found[key] = Milled(machine, cut, layer.name, piece.thickness, 1)
            else:
                found[key] = before._replace(many=before.many + 1)
    return tuple(found.values())


def _drilled(machine: Machine, cut: PlacedCutout) -> bool:
    return (
        isinstance(cut.shape, Circle)
        and cut.depth is None
        and any(t.kind == "drill" and abs(t.diameter - cut.shape.diameter) <= DRILLS for t in machine.tools)
    )


def _fitting(machine: Machine, cut: PlacedCutout) -> list[float]:
    return [t.diameter for t in machine.tools if t.kind == "mill" and goes_in(cut.shape, t.diameter)]


@check(
    "cut.no-tool",
    severity="must",
    title="No cutter goes in",
    measures="openings and pockets that are narrower than the thinnest end mill of their machine, and no drill fits",
    source=Source(kind="computed", note="the outline half a cutter further in leaves nothing"),
    fixes="adds the thickest end mill that is sold and goes in",
    reads=READS,
)
def no_tool(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Openings that are left out of the programs for want of a thin cutter, machine by machine."""
    lost: dict[str, list[Milled]] = {}
    for one in _milled(r):
        if not _drilled(one.machine, one.cut) and not _fitting(one.machine, one.cut):
            lost.setdefault(one.machine.id, []).append(one)
    for kinds in lost.values():
        machine = kinds[0].machine
        thick = next((d for d in SOLD if all(goes_in(k.cut.shape, d) for k in kinds)), None)
        more = " …" if len(kinds) > 3 else ""
        yield rule.finding(
            machine.id,
            detail=f"{machine.name}: {'; '.join(k.said(r) for k in kinds[:3])}{more}",
            measured=Measure(value=sum(k.many for k in kinds), unit="openings"),
            needed=Measure(value=0, unit="openings"),
            most=True,
            fix=_with(machine, thick),
        )


def _with(machine: Machine, diameter: float | None) -> Fix | None:
    if diameter is None:
        return None
    tools = (*machine.tools, Tool(diameter=diameter))
    return Fix(label=f"An end mill of {diameter:g} mm", commands=(EditMachine(machine=machine.id, tools=tools),))


@check(
    "cut.corners-round",
    severity="judge",
    title="Corners stay round",
    measures="how far from its furthest corner the best cutter of the mill stays in an opening",
    source=Source(kind="computed", note="r (1 / sin(half the corner) − 1), 0.41 r in a square one"),
    fixes="adds the thickest end mill that is sold and reaches far enough; or goes into the corners until it touches",
    reads=READS,
)
def corners_round(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Openings whose corners a round cutter does not reach: a square part would not seat; file them, or cut deeper."""
    round_ones: dict[str, list[tuple[float, Milled]]] = {}
    for one in _milled(r):
        left = min((left_in(one.cut.shape, d) for d in _fitting(one.machine, one.cut)), default=0.0)
        if left > ROUNDING and not _gone_into(one):
            round_ones.setdefault(one.machine.id, []).append((left, one))
    for kinds in round_ones.values():
        machine, left = kinds[0][1].machine, max(by for by, _ in kinds)
        reaches = next((d for d in SOLD if all(left_in(k.cut.shape, d) <= ROUNDING for _, k in kinds)), None)
        more = " …" if len(kinds) > 2 else ""
        yield rule.finding(
            machine.id,
            detail=f"{machine.name}: {'; '.join(k.said(r) for _, k in kinds[:2])}{more}",
            measured=Measure(value=left),
            needed=Measure(value=ROUNDING),
            most=True,
            fix=partial(_square, machine, _with(machine, reaches)),
        )


def _gone_into(one: Milled) -> bool:
    """Whether the mill goes into the corners of an opening, which have to be square for that."""
    fitting, shape = _fitting(one.machine, one.cut), one.cut.shape
    if isinstance(shape, Circle) or one.cut.depth is not None or not one.machine.bones:
        return False
    return bool(bones(shape.loop(), min(fitting) / 2))


def _square(machine: Machine, thinner: Fix | None) -> list[Fix]:
    """A thinner cutter; or excursions of the one that is there into the corners."""
    bones = Fix(label="Go into the corners", commands=(EditMachine(machine=machine.id, bones=True),))
    return [*([thinner] if thinner else []), bones]


@check(
    "cut.too-deep",
    severity="judge",
    title="Deeper than a thin cutter goes",
    measures="thickness of a sheet over the diameter of the thickest end mill that goes into an opening",
    source=Source(kind="practice", note="four times its diameter; longer ones bend and break"),
    reads=READS,
)
def too_deep(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Narrow openings in thick sheets, for which only a thin cutter is there."""
    worst: dict[str, tuple[float, Milled]] = {}
    for one in _milled(r):
        fitting = _fitting(one.machine, one.cut)
        if not fitting or _drilled(one.machine, one.cut):
            continue
        times = (one.cut.depth or one.thickness) / max(fitting)
        if times > REACH and (one.machine.id not in worst or times > worst[one.machine.id][0]):
            worst[one.machine.id] = times, one
    for times, one in worst.values():
        machine = one.machine
        yield rule.finding(
            machine.id,
            detail=f"{machine.name}: {one.said(r)}",
            measured=Measure(value=round(times, 2), unit="× its diameter"),
            needed=Measure(value=REACH, unit="× its diameter"),
            most=True,
        )
