"""Whether strips and LEDs lie where they can, at a pitch that does not show, on a supply that carries them."""

from __future__ import annotations

import math
from collections.abc import Iterator
from functools import partial
from typing import NamedTuple

import shapely

from wingboard.core.changes.commands.layers import EditLayer
from wingboard.core.changes.commands.lights import EditLed, EditStrip
from wingboard.core.face.checks.spots import at
from wingboard.core.findings.facets import Facet
from wingboard.core.findings.finding import Finding, Fix, Measure
from wingboard.core.findings.registry import Check, check
from wingboard.core.light.checks.legends import lit_from_behind
from wingboard.core.light.kinds import STRIPS
from wingboard.core.light.power import power_of, strip_use
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
                spot = met.representative_point()
                x0, y0, x1, y1 = met.bounds
                yield rule.finding(
                    module.module.id,
                    lamp.thing.id,
                    detail=f"{lamp.name} of {module.module.name} and {_whose(module, spot)}",
                    spot=at(module, spot.x, spot.y),
                    measured=Measure(value=-min(x1 - x0, y1 - y0)),
                    needed=Measure(value=0.0),
                    fix=partial(_elsewhere, module, scene, lamp),
                )


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
            spot, (x0, y0, x1, y1) = met.representative_point(), met.bounds
            yield rule.finding(
                module.module.id,
                lamp.thing.id,
                detail=f"{lamp.name} of {module.module.name}, under the wires of {name}"
                + (f" and {len(over) - 1} more" if len(over) > 1 else ""),
                spot=at(module, spot.x, spot.y),
                measured=Measure(value=-min(x1 - x0, y1 - y0)),
                needed=Measure(value=0.0),
                fix=partial(_elsewhere, module, scene, lamp),
            )


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
    free = free_for(module, scene, lamp.depth, STRIP_WIDE if isinstance(thing, Strip) else LED_WIDE)
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
        return _further_back(module, least - lamp.depth) if lamp.thing.z is None else []
    on_board = (
        EditStrip(module=module.module.id, strip=lamp.thing.id, z=None)
        if isinstance(lamp.thing, Strip)
        else EditLed(module=module.module.id, led=lamp.thing.id, z=None)
    )
    return [Fix(label="Lay it on the board", commands=(on_board,))]


@check(
    "light.strip-spots",
    severity="judge",
    title="The strip shows as spots",
    measures="from LED to LED of a strip, against its distance to what spreads its light",
    limits=("led-pitch",),
    fixes="takes a strip with more LEDs, or longer standoffs for the board",
    reads=READS,
)
def strip_spots(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Strips whose LEDs are further apart than they are from the diffuser."""
    for module in r.modules.values():
        light = module.module.light
        way = way_through(module.stack, module.plates)
        if light is None or not way.lit:
            continue
        front = board_front(module.stack)
        for kind in dict.fromkeys(s.kind for s in light.strips):
            mine = [s for s in light.strips if s.kind == kind]
            nearest = min(depth - way.plane_of(depth) for depth in (front if s.z is None else s.z for s in mine))
            most = rule.limit(r.design) * nearest
            pitch = STRIPS[kind].pitch
            if pitch > most + VISIBLE and nearest > 0:
                yield rule.finding(
                    module.module.id,
                    kind,
                    detail=f"{STRIPS[kind].name}, {nearest:.1f} mm behind the diffuser of {module.module.name}",
                    measured=Measure(value=pitch),
                    needed=Measure(value=most),
                    most=True,
                    fix=partial(_denser, r, module, mine, pitch / rule.limit(r.design) - nearest),
                )


def _further_back(module: ResolvedModule, lacks: float) -> list[Fix]:
    """The board that the lamps lie on, on the next longer standoffs that there are."""
    boards = [layer for layer in module.stack if not is_plate(layer)]
    longer = [n for n in STANDOFFS if boards and n >= boards[-1].gap + lacks - VISIBLE]
    if not longer:
        return []
    own = module.module.id if module.module.stack is not None else None
    command = EditLayer(module=own, layer=boards[-1].id, gap=longer[0])
    return [Fix(label=f"Standoffs of {longer[0]} mm", commands=(command,))]


def _denser(r: Resolved, module: ResolvedModule, strips: list[Strip], lacks: float) -> list[Fix]:
    found = _further_back(module, lacks) if all(s.z is None for s in strips) else []
    twice = {"strip-60": "strip-120", "chain-30": "chain-60"}.get(strips[0].kind)
    if twice:
        commands = [EditStrip.model_validate({"do": "edit_strip", "module": module.module.id, "strip": s.id,
                                              "kind": twice}) for s in strips]  # fmt: skip
        found.insert(0, Fix(label="A strip with twice as many", commands=tuple(commands)))
    return found


@check(
    "light.off-cut",
    severity="note",
    title="A strip ends before its run",
    measures="what of a strip's run stays dark, for strips are cut at their marks only",
    source=Source(kind="practice", note="12 V strips are cut every 3 LEDs"),
    fixes="ends the run at the last mark",
    reads=("modules",),
)
def off_cut(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Strips whose run is more than half an LED's pitch longer than the last cut mark."""
    for module in r.modules.values():
        for n, s in enumerate(module.module.light.strips if module.module.light else (), 1):
            use, kind = strip_use(s), STRIPS[s.kind]
            if use.over > kind.pitch / 2:
                share = (use.cut + 0.005) / use.run
                ends = EditStrip(
                    module=module.module.id, strip=s.id, x2=round(s.x + (s.x2 - s.x) * share, 3),
                    y2=round(s.y + (s.y2 - s.y) * share, 3),
                )  # fmt: skip
                yield rule.finding(
                    module.module.id,
                    s.id,
                    detail=f"strip {n} of {module.module.name}: {use.cut:.0f} of {use.run:.0f} mm, {use.leds} LEDs",
                    measured=Measure(value=use.over),
                    needed=Measure(value=round(kind.pitch / 2, 2)),
                    most=True,
                    fix=Fix(label=f"End it at {use.cut:.0f} mm", commands=(ends,)) if use.leds else None,
                )


@check(
    "light.chain-long",
    severity="judge",
    title="A chain fed from one end",
    measures="addressable LEDs of a module in a row, against where power has to be fed in again",
    limits=("chain-run",),
    reads=("modules", "limits"),
)
def chain_long(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Chains so long that their far end turns dim and red: power is to be fed in at both ends, or more often."""
    for module in r.modules.values():
        light = module.module.light
        leds = sum(strip_use(s).leds for s in light.strips if STRIPS[s.kind].chain) if light else 0
        if leds > rule.limit(r.design):
            feeds = math.ceil(leds / rule.limit(r.design))
            yield rule.finding(
                module.module.id,
                detail=f"{module.module.name}: feed power in at {feeds} places",
                measured=Measure(value=leds, unit="LEDs"),
                needed=Measure(value=rule.limit(r.design), unit="LEDs"),
                most=True,
            )


@check(
    "light.much-current",
    severity="judge",
    title="More than a USB port gives",
    measures="what strips on 5 V take at full brightness, all modules together",
    limits=("usb-supply",),
    reads=("modules", "limits"),
)
def much_current(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Addressable strips that want a supply of their own, with a fuse."""
    lit = [(m, power_of(m.light)) for m in r.design.modules if m.light is not None]
    amps = sum(load.amps for _, power in lit for load in power.loads if load.volts == 5)
    if amps > rule.limit(r.design):
        names = ", ".join(m.name for m, power in lit if any(load.volts == 5 for load in power.loads))
        yield rule.finding(
            detail=f"{names}: a 5 V supply of their own, with a fuse",
            measured=Measure(value=amps, unit="A"),
            needed=Measure(value=rule.limit(r.design), unit="A"),
            most=True,
        )
