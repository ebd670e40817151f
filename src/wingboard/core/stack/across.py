"""The true section along a line across a module: sheets, parts, screws, standoffs, boards, bars, and the depth left."""

from __future__ import annotations

import math
from collections.abc import Iterator
from itertools import pairwise
from typing import Literal, NamedTuple

from shapely import LineString, Point

from wingboard.core.face.rules import behind_boxes
from wingboard.core.geometry.frame import Frame
from wingboard.core.record.modules import is_plate
from wingboard.core.resolved.boards import LAMP_TALL, LED_WIDE, STRIP_WIDE, board_front
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule
from wingboard.core.resolved.pins import pinned
from wingboard.core.resolved.profile import Solid, sheets, thickness
from wingboard.core.resolved.section import Span, module_section, spans_along
from wingboard.core.stack.boards import behind
from wingboard.core.stack.hardware import FOAM, NUT, WALL, WASHER, diameter, hardware

Kind = Solid | Literal["sheet", "screw", "washer", "standoff", "lamp", "board", "tall", "bar", "edging", "pin"]
PAN = 0.6
"""Height of a pan head, in diameters (ISO 7045 within 0.2 mm, from memory)."""
WASHER_WIDE = 7 / 3
"""A washer's width in diameters (ISO 7089 within 0.2 mm up to M5: 7 mm for M3)."""
HEX = 1.8
"""Across the flats of a hexagonal standoff, in diameters (common practice: 5.5 mm for M3)."""


class Across(NamedTuple):
    """A rectangle of a section: along the line from ``t0`` to ``t1``, in depth from ``z0`` to ``z1`` (mm)."""

    kind: Kind
    t0: float
    t1: float
    z0: float
    z1: float
    name: str
    colour: str | None = None


class Section(NamedTuple):
    """A section: its pieces, the line's length, the deepest of its pieces, and what is free behind (mm)."""

    pieces: tuple[Across, ...]
    length: float
    deepest: float
    free: float
    plate: float


def section_of(r: Resolved, module: ResolvedModule, start: Span, end: Span) -> Section:
    """The section of a module along a line between two of its points, in its own coordinates.

    z runs backwards from the front surface of the face.
    """
    line = LineString([start, end])
    layers = {layer.id: layer for layer in module.stack}
    names = {p.function.id: p.function.name for p in module.placed}
    made = [
        Across(p.kind, p.t0, p.t1, p.z0, p.z1, layers[p.layer].name, layers[p.layer].colour)
        if p.layer
        else Across(p.kind, p.t0, p.t1, p.z0, p.z1, names.get(p.owner or "", ""))
        for p in module_section(module, start, end)
    ]
    made += _screws(module, line)
    for b in behind(r, module):
        for t0, t1 in spans_along(b.outline.drawn(), line):
            made.append(Across("board", t0, t1, b.z0, b.back, b.board.name))
            if b.z1 > b.back:
                made.append(Across("tall", t0, t1, b.back, b.z1, b.board.name))
    made += _lamps(module, line)
    made += _edgings(module, line)
    made += _pins(module, line)
    deepest = max((p.z1 for p in made), default=module.thickness)
    bars = []
    for box in behind_boxes(r.design):
        area = Frame(-module.module.x, -module.module.y).shape(box.area()).drawn()
        name = box.name or box.kind
        bars += [Across("bar", t0, t1, box.clear, box.clear, name) for t0, t1 in spans_along(area, line)]
    free = min([r.design.brief.depth - deepest, *(bar.z0 - _deepest_over(made, bar) for bar in bars)])
    return Section((*made, *bars), line.length, deepest, free, thickness(module.stack))


def usual_line(module: ResolvedModule) -> tuple[Span, Span]:
    """The line across a module that meets most parts, the lowest of those that do; across the middle without parts."""
    x0, y0, x1, y1 = module.area.bounds
    heights = sorted({round(p.place.y, 1) for p in module.placed})
    reach = [(p.place.y, max(p.part.cover.span) / 2) for p in module.placed]
    met = {y: sum(abs(y - at) < half for at, half in reach) for y in heights}
    best = max(heights, key=lambda y: (met[y], -y), default=round((y0 + y1) / 2, 1))
    return (x0, best), (x1, best)


def _deepest_over(pieces: list[Across], bar: Across) -> float:
    """The depth of the deepest piece that a bar lies behind."""
    return max((p.z1 for p in pieces if p.t0 < bar.t1 and bar.t0 < p.t1), default=0.0)


def _screws(module: ResolvedModule, line: LineString) -> Iterator[Across]:
    """Screws that the line meets: head, shank and nut, or the standoffs that carry the boards."""
    fixings = module.module.fixings
    if fixings is None:
        return
    d = diameter(fixings.screw)
    back = thickness(module.stack)
    bolts, spaced = hardware(module).bolts, [s for s in sheets(module.stack) if s.layer.gap and not is_plate(s.layer)]
    length = (bolts[0].length or bolts[0].needed) if bolts else back
    head = 0.0 if fixings.head == "countersunk" else PAN * d
    for screw in module.fixings:
        away = line.distance(Point(screw.x, screw.y))
        at = line.project(Point(screw.x, screw.y))

        if away >= d / 2:
            continue
        yield _round("screw", at, away, d, 0.0, length, screw.name)
        if head:
            yield _round("screw", at, away, screw.head, -head, 0.0, screw.name)
        if not spaced:
            under = back + WASHER[fixings.screw]
            yield _round("washer", at, away, WASHER_WIDE * d, back, under, f"washer of {screw.name}")
            yield _round("nut", at, away, screw.head, under, under + NUT * d, screw.name)
        for sheet in spaced:
            name = f"{sheet.layer.gap:g} mm standoff"
            yield _round("standoff", at, away, HEX * d, sheet.z0 - sheet.layer.gap, sheet.z0, name)


def _lamps(module: ResolvedModule, line: LineString) -> Iterator[Across]:
    """Strips and LEDs that the line meets, on what they lie on."""
    light = module.module.light
    if light is None:
        return
    front = board_front(module.stack)
    found = [
        (f"strip {n}", s.z, LineString([(s.x, s.y), (s.x2, s.y2)]).buffer(STRIP_WIDE / 2, cap_style="flat"))
        for n, s in enumerate(light.strips, 1)
    ]
    found += [(f"LED {n}", s.z, Point(s.x, s.y).buffer(LED_WIDE / 2)) for n, s in enumerate(light.leds, 1)]
    for name, z, area in found:
        at = front if z is None else z
        for t0, t1 in spans_along(area, line):
            yield Across("lamp", t0, t1, at - LAMP_TALL, at, name)


def _edgings(module: ResolvedModule, line: LineString) -> Iterator[Across]:
    """Foam or walls that close the room before a layer, where the line crosses the edge of the smaller sheet."""
    for before, sheet in pairwise(sheets(module.stack)):
        layer = sheet.layer
        if not layer.gap or not layer.edge:
            continue
        wide = FOAM if layer.edge == "foam" else WALL
        ring = min((module.area_of(before.layer), module.area_of(layer)), key=lambda a: float(a.area))
        for t0, t1 in spans_along(ring.difference(ring.buffer(-wide)), line):
            yield Across("edging", t0, t1, before.z1, sheet.z0, f"{layer.edge} before {layer.name.lower()}")


def _pins(module: ResolvedModule, line: LineString) -> Iterator[Across]:
    """Registration pins that the line meets, through the sheets that they line up."""
    fixings, held = module.module.fixings, {layer.id for layer in pinned(module.plates)}
    depths = [(s.z0, s.z1) for s in sheets(module.stack) if s.layer.id in held]
    for n, spot in enumerate(module.pins if fixings and depths else (), 1):
        away = line.distance(Point(spot))
        if fixings and away < fixings.pins / 2:
            at = line.project(Point(spot))
            yield _round("pin", at, away, fixings.pins, depths[0][0], depths[-1][1], f"Registration pin {n}")


def _round(kind: Kind, at: float, away: float, wide: float, z0: float, z1: float, name: str) -> Across:
    """What a line meets of something round, ``away`` mm from its axis."""
    half = math.sqrt(max(0.0, (wide / 2) ** 2 - away**2))
    return Across(kind, at - half, at + half, z0, z1, name)
