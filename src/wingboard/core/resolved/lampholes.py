"""What lamps behind a plate want cut: pockets where they are sunk into its clear back, holes for wires in a board."""

from __future__ import annotations

import math
from collections.abc import Iterator
from itertools import takewhile
from typing import NamedTuple

import shapely

from wingboard.core.record.lights import Backlight
from wingboard.core.record.modules import Feature, Module, is_plate, opacity_of
from wingboard.core.record.shapes import Circle, Rect, Shape
from wingboard.core.resolved.boards import LAMP_TALL, LED_WIDE, STRIP_WIDE, board_front
from wingboard.core.resolved.profile import SEAT_ROOM, SHORTEST, Sheet
from wingboard.core.resolved.taken import Taken

WIRES = 5.0
"""Hole for the wires of a strip or an LED (mm, common practice: three wires and their insulation)."""
AWAY = 3.0
"""From the end of a lamp to the middle of its wires' hole (mm)."""
CLEAR = 5.0
"""Left between that hole and the next opening, a screw's hole or the edge (mm, common practice in fibre board)."""


class _Lamp(NamedTuple):
    """A strip or an LED: what it is called, its shape about its middle, its depth (mm), and where its wires may go."""

    name: str
    shape: Shape
    x: float
    y: float
    turn: float
    z: float | None
    wires: tuple[tuple[float, float], ...]


def _lamps(light: Backlight) -> Iterator[_Lamp]:
    for n, s in enumerate(light.strips, 1):
        long = math.hypot(s.x2 - s.x, s.y2 - s.y)
        along = ((s.x2 - s.x) / long, (s.y2 - s.y) / long)
        shape = Rect(width=long + SEAT_ROOM, height=STRIP_WIDE + SEAT_ROOM, radius=0)
        off = STRIP_WIDE / 2 + AWAY
        beside = [(s.x + side * off * -along[1], s.y + side * off * along[0]) for side in (1, -1)]
        wires = ((s.x - AWAY * along[0], s.y - AWAY * along[1]), *beside)
        turn = math.degrees(math.atan2(along[1], along[0]))
        yield _Lamp(f"strip {n}", shape, (s.x + s.x2) / 2, (s.y + s.y2) / 2, turn, s.z, wires)
    for n, led in enumerate(light.leds, 1):
        off = LED_WIDE / 2 + AWAY
        around = tuple((led.x + off * dx, led.y + off * dy) for dx, dy in ((1, 0), (0, 1), (-1, 0), (0, -1)))
        yield _Lamp(f"LED {n}", Circle(diameter=LED_WIDE + SEAT_ROOM), led.x, led.y, 0.0, led.z, around)


def lamp_pockets(module: Module, sheets: tuple[Sheet, ...]) -> Iterator[tuple[str, Feature]]:
    """The pockets of a module's lamps, each with its layer, in the clear sheets that end its plate.

    A lamp stands :data:`~wingboard.core.resolved.boards.LAMP_TALL` before its depth; sheets that it reaches into, or
    that lie behind it, are opened for it. No other sheet is: it would show, or let no light through.
    """
    if module.light is None:
        return
    front = board_front(tuple(s.layer for s in sheets))
    plate = [s for s in sheets if is_plate(s.layer)]
    clear = list(takewhile(lambda s: s.layer.role != "face" and opacity_of(s.layer) == "clear", reversed(plate)))
    for number, lamp in enumerate(_lamps(module.light), 1):
        foremost = (front if lamp.z is None else lamp.z) - LAMP_TALL
        for sheet in clear:
            sunk = sheet.z1 - foremost
            if sunk > SHORTEST:
                depth = None if sunk > sheet.layer.thickness - SHORTEST else sunk
                yield sheet.layer.id, _feature(module, f"Pocket of {lamp.name}", lamp, number, depth)


def lamp_wires(
    module: Module, area: shapely.Polygon, sheets: tuple[Sheet, ...], taken: dict[str, Taken]
) -> Iterator[tuple[str, Feature]]:
    """Holes for the lamps' wires in the board that they lie on, each with its layer; only where there is room.

    :param taken: what else is cut in each board.
    """
    if module.light is None:
        return
    front = board_front(tuple(s.layer for s in sheets))
    drilled: list[tuple[float, float]] = []
    inside = area.buffer(-CLEAR - WIRES / 2)
    for number, lamp in enumerate(_lamps(module.light), 1):
        z = front if lamp.z is None else lamp.z
        for sheet in sheets:
            if not is_plate(sheet.layer) and abs(sheet.z0 - z) < SHORTEST:
                spot = _room(lamp, inside, taken[sheet.layer.id], drilled)
                if spot is not None:
                    drilled.append(spot)
                    hole = lamp._replace(shape=Circle(diameter=WIRES), x=spot[0], y=spot[1], turn=0.0)
                    yield sheet.layer.id, _feature(module, f"Wires of {lamp.name}", hole, number, None)


def _room(
    lamp: _Lamp, inside: shapely.Polygon, taken: Taken, drilled: list[tuple[float, float]]
) -> tuple[float, float] | None:
    for x, y in lamp.wires:
        apart = CLEAR + WIRES / 2
        near = any(math.dist((x, y), other) < apart + WIRES / 2 for other in drilled)
        if inside.covers(shapely.Point(x, y)) and not near and taken.leaves(x, y, apart):
            return x, y
    return None


def _feature(module: Module, reason: str, lamp: _Lamp, number: int, depth: float | None) -> Feature:
    return Feature(
        id=f"lamp-{number}", module=module.id, reason=reason, shape=lamp.shape, x=round(lamp.x, 3), y=round(lamp.y, 3),
        turn=round(lamp.turn, 3), depth=depth,
    )  # fmt: skip
