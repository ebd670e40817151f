"""A module as light sees it: its lamps, what stands before them, the plate they shine on."""

from __future__ import annotations

import math
from typing import NamedTuple

from wingboard.core.light.emission import Grid, Lamp, grid_over, strip
from wingboard.core.light.kinds import LEDS, STRIPS
from wingboard.core.light.shadows import Bodies, Body
from wingboard.core.light.through import Way, way_through
from wingboard.core.light.wires import wires_behind
from wingboard.core.record.lights import Backlight, Led, Strip
from wingboard.core.record.modules import is_plate
from wingboard.core.resolved.boards import board_front, boards_behind
from wingboard.core.resolved.module import ResolvedModule
from wingboard.core.resolved.profile import seated

STEP = 2.0
"""From one point of the map to the next, unless it is asked finer (mm)."""
FINER = 0.5
"""From one point of a finer map to the next (mm): a letter's stroke has its own."""
BESIDE = 100.0
"""Lamps further than this (mm) beside a module light nothing of it."""
MOST_POINTS = 400_000
"""A map is made coarser rather than with more points than this."""


class Group(NamedTuple):
    """A strip or a single LED with its lamps."""

    id: str
    lamps: tuple[Lamp, ...]


class Scene(NamedTuple):
    """What a map is computed from; equal scenes have equal maps."""

    grid: Grid
    way: Way
    groups: tuple[Group, ...]
    bodies: Bodies
    """What throws shadows, wires too."""
    solid: Bodies
    """What no lamp can lie in."""
    white: float
    """What walls and board throw back, on the mean: of a side that is open nothing comes back."""
    inside: float
    """Of the box between plate and board (mm²): both and the walls round them."""
    mean: float
    """What all that is inside throws back, the plate too."""


def lamps_of_strip(s: Strip, depth: float) -> tuple[Lamp, ...]:
    """The LEDs of a strip, each where it lies and shining as the strip is tilted."""
    kind = STRIPS[s.kind]
    length = math.dist((s.x, s.y), (s.x2, s.y2))
    left = ((s.y - s.y2) / length, (s.x2 - s.x) / length)
    lean = math.sin(math.radians(s.tilt))
    one = Lamp(0, 0, 0, kind.intensity, 1.0, (left[0] * lean, left[1] * lean))
    return tuple(strip((s.x, s.y), (s.x2, s.y2), depth if s.z is None else s.z, kind.pitch, one, kind.cut))


def lamp_of_led(led: Led, depth: float) -> Lamp:
    """A single LED as a lamp that shines forward."""
    kind = LEDS[led.kind]
    return Lamp(led.x, led.y, depth if led.z is None else led.z, kind.intensity * led.level, kind.exponent)


def groups_of(light: Backlight, depth: float) -> tuple[Group, ...]:
    """Every strip and LED with its lamps, strips first."""
    strips = [Group(s.id, lamps_of_strip(s, depth)) for s in light.strips]
    return (*strips, *(Group(led.id, (lamp_of_led(led, depth),)) for led in light.leds))


def wires_of(module: ResolvedModule) -> tuple[tuple[str, Body], ...]:
    """The wires behind a plate, each with the name of its part's function."""
    found = ((p.function.name, wires_behind(p)) for p in module.placed)
    return tuple((name, wires) for name, wires in found if wires is not None and wires.z1 > module.thickness)


def bodies_before(module: ResolvedModule) -> tuple[Body, ...]:
    """What is solid behind a plate: of its parts, wires apart, and the boards behind."""
    found = []
    for p in module.placed:
        for piece in seated(p.part, p.stack, p.function.pocket):
            if piece.kind not in ("front", "plug") and piece.z1 > module.thickness:
                found.append(Body(p.frame.shape(piece.outline()).drawn(), piece.z0, piece.z1))
    found += [Body(b.outline.drawn(), b.z0, b.z1) for b in boards_behind(module.module, module.stack)]
    return tuple(found)


def scene_of(module: ResolvedModule, light: Backlight, step: float = STEP) -> Scene:
    """A module lit by these lamps, looked at every ``step`` mm."""
    x0, y0, x1, y1 = module.area.bounds
    finest = math.sqrt((x1 - x0) * (y1 - y0) / MOST_POINTS)
    grid = grid_over(x0, y0, x1, y1, max(step, finest))
    way = way_through(module.stack, module.plates)
    depth = board_front(module.stack)
    near = module.area.envelope.buffer(BESIDE, join_style="mitre").bounds
    groups = tuple(
        Group(g.id, tuple(p for p in g.lamps if near[0] <= p.x <= near[2] and near[1] <= p.y <= near[3]))
        for g in groups_of(light, depth)
    )
    walls = 2 * (x1 - x0 + y1 - y0) * max(0.0, depth - way.plane)
    inside = 2 * module.area.area + walls
    white = light.white * (module.area.area / (inside - module.area.area) if open_sides(module) else 1.0)
    mean = white + module.area.area / inside * (way.back - white)
    solid = bodies_before(module)
    bodies = Bodies((*solid, *(wires for _, wires in wires_of(module))))
    return Scene(grid, way, groups, bodies, Bodies(solid), white, inside, mean)


def open_sides(module: ResolvedModule) -> bool:
    """Whether the room before a module's last board is open all round; a case closes it, a console is too far away."""
    boards = [layer for layer in module.stack if not is_plate(layer) and layer.gap]
    return bool(boards) and not boards[-1].edge and module.module.case is None
