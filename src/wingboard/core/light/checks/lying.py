"""Whether strips and LEDs lie where they can: in no body, on no other lamp, under no wires, inside the plate."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial
from typing import NamedTuple

import shapely
from shapely.geometry.base import BaseGeometry

from wingboard.core.changes.commands.layers import EditLayer
from wingboard.core.changes.commands.lights import EditLed, EditStrip
from wingboard.core.face.checks.spots import at
from wingboard.core.findings.facets import Facet
from wingboard.core.findings.finding import Finding, Fix, Measure
from wingboard.core.findings.registry import Check, check
from wingboard.core.light.checks.legends import lit_from_behind
from wingboard.core.light.room import free_for, taken_at
from wingboard.core.light.scene import Scene, scene_of, wires_of
from wingboard.core.light.through import way_through
from wingboard.core.quantity import VISIBLE
from wingboard.core.record.base import Source
from wingboard.core.record.lights import Led, Strip
from wingboard.core.record.modules import is_plate
from wingboard.core.resolved.boards import LAMP_TALL, LED_WIDE, STRIP_WIDE, board_front
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule
from wingboard.core.stack.hardware import STANDOFFS

READS: tuple[Facet, ...] = ("places", "parts", "modules", "stack", "brief", "limits")


class Lying(NamedTuple):
    """A strip or an LED where it lies: what it covers, how deep (mm), and what it is called."""

    thing: Strip | Led
    shape: shapely.Polygon
    depth: float
    name: str


def lying(module: ResolvedModule) -> tuple[Lying, ...]:
    """Everything that lights a module from behind."""
    light = module.module.light
    if light is None:
        return ()
    front = board_front(module.stack)
    made = []
    for n, s in enumerate(light.strips, 1):
        shape = shapely.LineString([(s.x, s.y), (s.x2, s.y2)]).buffer(STRIP_WIDE / 2, cap_style="flat")
        made.append(Lying(s, shape, front if s.z is None else s.z, f"strip {n}"))
    for n, led in enumerate(light.leds, 1):
        shape = shapely.Point(led.x, led.y).buffer(LED_WIDE / 2)
        made.append(Lying(led, shape, front if led.z is None else led.z, f"LED {n}"))
    return tuple(made)


def _lit(r: Resolved) -> Iterator[tuple[ResolvedModule, Scene]]:
    for module in r.modules.values():
        light = module.module.light
        if light is not None and lit_from_behind(module):
            yield module, r.once(f"scene of {module.module.id}", partial(scene_of, module, light))


def _reaches(
    rule: Check, module: ResolvedModule, scene: Scene, mover: Lying, met: BaseGeometry, detail: str, *subjects: str
) -> Finding:
    """A lamp that lies in what it must not, by the narrower way of what both cover; it moves to where it is free.

    :param subjects: what it is about, where that is not the lamp alone.
    """
    spot, (x0, y0, x1, y1) = met.representative_point(), met.bounds
    return rule.finding(
        module.module.id,
        *(subjects or (mover.thing.id,)),
        detail=detail,
        spot=at(module, spot.x, spot.y),
        measured=Measure(value=-min(x1 - x0, y1 - y0)),
        needed=Measure(value=0.0),
        fix=partial(_elsewhere, module, scene, mover),
    )


@check(
    "light.meets-body",
    severity="must",
    title="A lamp lies in a part's body",
    measures="strips and LEDs against the bodies behind, at their depth; negative by how far it reaches in",
    source=Source(kind="computed", note="strips count as 10 mm wide, LEDs with their joints as 6"),
    fixes="moves it to the nearest place where it is free",
    reads=READS,
)
def meets_body(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Strips and LEDs that run through a body."""
    for module, scene in _lit(r):
        lamps = lying(module)
        taken = {depth: taken_at(scene, depth) for depth in {lamp.depth for lamp in lamps}}
        for lamp in lamps:
            met = shapely.intersection(taken[lamp.depth], lamp.shape)
            if met.area > 0.5:
                whose = _whose(module, met.representative_point())
                yield _reaches(rule, module, scene, lamp, met, f"{lamp.name} of {module.module.name} and {whose}")


@check(
    "light.lamps-meet",
    severity="must",
    title="Two lamps at one place",
    measures="from strip or LED to the next one at its depth; negative by how far they reach into each other",
    source=Source(kind="computed", note="strips count as 10 mm wide, LEDs with their joints as 6"),
    fixes="moves one to the nearest place where it is free",
    reads=READS,
)
def lamps_meet(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Strips and LEDs that cannot both lie where they are said to."""
    for module, scene in _lit(r):
        lamps = lying(module)
        tree = shapely.STRtree([lamp.shape for lamp in lamps])
        for b, a in sorted(tree.query([lamp.shape for lamp in lamps], predicate="intersects").T.tolist()):
            first, second = lamps[a], lamps[b]
            met = shapely.intersection(first.shape, second.shape)
            if a >= b or met.area < 0.5 or abs(first.depth - second.depth) >= LAMP_TALL:
                continue
            # Of a strip and an LED the LED moves: its light is that of one, and it finds room more easily.
            mover = first if isinstance(first.thing, Led) and isinstance(second.thing, Strip) else second
            both = f"{first.name} and {second.name} of {module.module.name}"
            yield _reaches(rule, module, scene, mover, met, both, first.thing.id, second.thing.id)


@check(
    "light.wires-cross",
    severity="judge",
    title="Wires cross a strip",
    measures="from a strip to wires that leave a part at its depth or before it; negative by how far they cross it",
    source=Source(kind="practice", note="a wire before a strip throws a shadow; as many wires as there are terminals"),
    fixes="moves the strip to where no wires are",
    reads=READS,
)
def wires_cross(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Strips on which wires lie, or that they would have to go through."""
    for module, scene in _lit(r):
        for lamp in lying(module):
            if isinstance(lamp.thing, Led):
                continue
            over = [
                (n, w) for n, w in wires_of(module) if w.z0 < lamp.depth and shapely.intersects(w.outline, lamp.shape)
            ]
            if not over:
                continue
            name, wires = max(over, key=lambda found: shapely.intersection(found[1].outline, lamp.shape).area)
            met = shapely.intersection(wires.outline, lamp.shape)
            under = f"{lamp.name} of {module.module.name}, under the wires of {name}"
            more = f" and {len(over) - 1} more" if len(over) > 1 else ""
            yield _reaches(rule, module, scene, lamp, met, under + more)


def _whose(module: ResolvedModule, spot: shapely.Point) -> str:
    for p in module.placed:
        if any(shapely.distance(b.outline.core, _from(p.place.x, p.place.y, spot)) <= b.outline.radius + VISIBLE
               for b in module.templates.bodies(p)):  # fmt: skip
            return f"the body of {p.function.name}"
    return "a board behind"


def _from(x: float, y: float, spot: shapely.Point) -> shapely.Point:
    return shapely.Point(spot.x - x, spot.y - y)


def _elsewhere(module: ResolvedModule, scene: Scene, lamp: Lying) -> list[Fix]:
    thing = lamp.thing
    wires = shapely.union_all([w.outline for _, w in wires_of(module) if w.z0 < lamp.depth])
    wide = STRIP_WIDE if isinstance(thing, Strip) else LED_WIDE
    others = [o.shape for o in lying(module) if o.thing.id != thing.id and abs(o.depth - lamp.depth) < LAMP_TALL]
    taken = shapely.union_all(others).buffer(wide / 2 + 0.1)
    free = free_for(module, scene, lamp.depth, wide).difference(taken)
    if isinstance(thing, Led):
        if free.is_empty:
            return []
        near = shapely.ops.nearest_points(free, shapely.Point(thing.x, thing.y))[0]
        there = EditLed(module=module.module.id, led=thing.id, x=round(near.x, 1), y=round(near.y, 1))
        return [Fix(label=f"Move it to x {near.x:.0f}, y {near.y:.0f}", commands=(there,))]
    line = shapely.LineString([(thing.x, thing.y), (thing.x2, thing.y2)])
    free = free.difference(wires.buffer(STRIP_WIDE / 2 + 0.5))
    found = []
    across = (-(thing.y2 - thing.y) / line.length, (thing.x2 - thing.x) / line.length)
    for n in range(1, 61):
        for way in (n, -n):
            dx, dy = round(across[0] * way, 2), round(across[1] * way, 2)
            if free.covers(shapely.transform(line, lambda p, dx=dx, dy=dy: p + (dx, dy))):  # type: ignore[misc]
                found.append((dx, dy))
        if found:
            break
    return [
        Fix(
            label=f"Move it by {abs(dx + dy):.0f} mm",
            commands=(
                EditStrip(
                    module=module.module.id, strip=thing.id, x=thing.x + dx, y=thing.y + dy, x2=thing.x2 + dx,
                    y2=thing.y2 + dy,
                ),
            ),
        )
        for dx, dy in found
    ]  # fmt: skip


@check(
    "light.off-plate",
    severity="must",
    title="A lamp lies beside the module",
    measures="how far strips and LEDs reach over the plate's edge",
    source=Source(kind="computed", note="strips count as 10 mm wide, LEDs with their joints as 6"),
    reads=READS,
)
def off_plate(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Strips and LEDs beyond the edge."""
    for module in r.modules.values():
        for lamp in lying(module):
            out = shapely.difference(lamp.shape, module.area)
            if out.area > 0.5:
                far = max(shapely.distance(shapely.Point(c), module.area) for c in shapely.get_coordinates(out))
                spot = out.representative_point()
                yield rule.finding(
                    module.module.id,
                    lamp.thing.id,
                    detail=f"{lamp.name} of {module.module.name}",
                    spot=at(module, spot.x, spot.y),
                    measured=Measure(value=far),
                    needed=Measure(value=0.0),
                    most=True,
                )


@check(
    "light.too-near",
    severity="must",
    title="A lamp reaches too far into the plate",
    measures="how far behind the front strips and LEDs lie, against where the clear sheets at the plate's back begin",
    source=Source(kind="computed", note="a lamp is 2 mm tall, and may be sunk in a clear back"),
    fixes="lays it on the board, or takes longer standoffs for that",
    reads=READS,
)
def too_near(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Strips and LEDs whose own depth puts them in sheets that are not clear."""
    for module in r.modules.values():
        least = way_through(module.stack, module.plates).spreader + LAMP_TALL
        for lamp in lying(module):
            if lamp.depth < least - VISIBLE:
                yield rule.finding(
                    module.module.id,
                    lamp.thing.id,
                    detail=f"{lamp.name} of {module.module.name}",
                    measured=Measure(value=lamp.depth),
                    needed=Measure(value=least),
                    fix=partial(_behind, module, lamp, least),
                )


def _behind(module: ResolvedModule, lamp: Lying, least: float) -> list[Fix]:
    front = board_front(module.stack)
    if lamp.thing.z is None or front < least - VISIBLE:
        return further_back(module, least - lamp.depth) if lamp.thing.z is None else []
    on_board = (
        EditStrip(module=module.module.id, strip=lamp.thing.id, z=None)
        if isinstance(lamp.thing, Strip)
        else EditLed(module=module.module.id, led=lamp.thing.id, z=None)
    )
    return [Fix(label="Lay it on the board", commands=(on_board,))]


def further_back(module: ResolvedModule, lacks: float) -> list[Fix]:
    """The board that the lamps lie on, on the next longer standoffs that there are."""
    boards = [layer for layer in module.stack if not is_plate(layer)]
    longer = [n for n in STANDOFFS if boards and n >= boards[-1].gap + lacks - VISIBLE]
    if not longer:
        return []
    own = module.module.id if module.module.stack is not None else None
    command = EditLayer(module=own, layer=boards[-1].id, gap=longer[0])
    return [Fix(label=f"Standoffs of {longer[0]} mm", commands=(command,))]
