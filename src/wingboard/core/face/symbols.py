"""Our own symbols, drawn with a few strokes in a square of 10 × 10 and scaled to the lens or the cap height.

Each is a list of strokes (lines with round ends, one unit wide unless said otherwise), circles and filled shapes; they
become closed outlines, so that every writer can engrave them.
"""

from __future__ import annotations

import math
from functools import cache, lru_cache
from typing import NamedTuple

from shapely import LineString, MultiPolygon, Point, Polygon, unary_union
from shapely.geometry.base import BaseGeometry
from shapely.geometry.polygon import orient

from wingboard.core.geometry.outline import Loop, Vertex

PEN = 1.0
"""Width of a stroke, in tenths of the symbol."""


def _line(*points: tuple[float, float], pen: float = PEN) -> BaseGeometry:
    return LineString(points).buffer(pen / 2, quad_segs=6)


def _ring(x: float, y: float, radius: float, pen: float = PEN) -> BaseGeometry:
    return (
        Point(x, y)
        .buffer(radius + pen / 2, quad_segs=16)
        .difference(Point(x, y).buffer(radius - pen / 2, quad_segs=16))
    )


def _dot(x: float, y: float, radius: float) -> BaseGeometry:
    return Point(x, y).buffer(radius, quad_segs=10)


def _arc(x: float, y: float, radius: float, start: float, end: float, pen: float = PEN) -> BaseGeometry:
    steps = [math.radians(start + (end - start) * k / 24) for k in range(25)]
    return _line(*((x + radius * math.cos(t), y + radius * math.sin(t)) for t in steps), pen=pen)


def _box(x0: float, y0: float, x1: float, y1: float) -> BaseGeometry:
    return _line((x0, y0), (x1, y0), (x1, y1), (x0, y1), (x0, y0))


def _lamp() -> list[BaseGeometry]:
    return [_ring(0, 0, 4), _line((-2.6, -2.6), (2.6, 2.6), pen=0.8), _line((-2.6, 2.6), (2.6, -2.6), pen=0.8)]


def _pump() -> list[BaseGeometry]:
    return [_ring(0, 0, 4), Polygon([(-2.2, -2.8), (3.2, 0), (-2.2, 2.8)])]


def _fan() -> list[BaseGeometry]:
    blade = Polygon([(0, 0.6), (1.6, 1.6), (1.8, 3.6), (0, 4.5), (-1.2, 3.2), (-0.8, 1.2)])
    made: list[BaseGeometry] = [_dot(0, 0, 1.0)]
    for k in range(3):
        c, s = math.cos(k * 2 * math.pi / 3), math.sin(k * 2 * math.pi / 3)
        made.append(Polygon([(x * c - y * s, x * s + y * c) for x, y in blade.exterior.coords]))
    return made


def _horn() -> list[BaseGeometry]:
    return [
        Polygon([(-4.5, -1.2), (-2.2, -1.2), (1.5, -3.6), (1.5, 3.6), (-2.2, 1.2), (-4.5, 1.2)]),
        _arc(0.5, 0, 3.6, -38, 38),
    ]


def _door() -> list[BaseGeometry]:
    return [_box(-2.6, -4.4, 2.6, 4.4), _dot(1.1, 0, 0.8)]


def _battery() -> list[BaseGeometry]:
    return [
        _box(-4.4, -3, 4.4, 2.2), _line((-2.6, 3), (-2.6, 3.9)), _line((2.6, 3), (2.6, 3.9)),
        _line((-3.2, -0.3), (-1.4, -0.3), pen=0.8), _line((1.4, -0.3), (3.2, -0.3), pen=0.8),
        _line((2.3, -1.2), (2.3, 0.6), pen=0.8),
    ]  # fmt: skip


def _wiper() -> list[BaseGeometry]:
    return [_arc(0, -3.8, 7.0, 50, 130), _line((0, -3.8), (2.8, 2.4)), _dot(0, -3.8, 0.9)]


def _heat() -> list[BaseGeometry]:
    waves = []
    for x in (-2.8, 0.0, 2.8):
        points = [(x + 0.9 * math.sin(t * 2 * math.pi / 5), -2.6 + t) for t in (k * 0.25 for k in range(25))]
        waves.append(_line(*points))
    return [*waves, _line((-4.4, -4.2), (4.4, -4.2))]


def _beam() -> list[BaseGeometry]:
    half = Polygon([(-0.6, -3.6), (0.9, -3.2), (2.6, -1.6), (3.2, 0), (2.6, 1.6), (0.9, 3.2), (-0.6, 3.6)])
    return [half, *(_line((-4.6, y), (-1.6, y), pen=0.8) for y in (-2.4, 0, 2.4))]


def _bell() -> list[BaseGeometry]:
    return [
        Polygon([(-3.6, -2.2), (-2.4, -0.8), (-2.2, 1.6), (-1, 3.2), (1, 3.2), (2.2, 1.6), (2.4, -0.8), (3.6, -2.2)]),
        _dot(0, -3.4, 1.0), _dot(0, 3.8, 0.7),
    ]  # fmt: skip


def _warning() -> list[BaseGeometry]:
    return [
        _line((-4.2, -3.4), (4.2, -3.4), (0, 4), (-4.2, -3.4)),
        _line((0, 1.4), (0, -0.7), pen=1.1),
        _dot(0, -2.1, 0.6),
    ]


def _brake() -> list[BaseGeometry]:
    return [
        _ring(0, 0, 3), _arc(0, 0, 4.7, 125, 235, pen=0.8), _arc(0, 0, 4.7, -55, 55, pen=0.8),
        _line((0, 1.6), (0, -0.3)), _dot(0, -1.6, 0.6),
    ]  # fmt: skip


def _up() -> list[BaseGeometry]:
    return [_line((0, -4), (0, 3.6)), _line((-2.8, 0.8), (0, 3.8), (2.8, 0.8))]


def _down() -> list[BaseGeometry]:
    return [_line((0, 4), (0, -3.6)), _line((-2.8, -0.8), (0, -3.8), (2.8, -0.8))]


def _power() -> list[BaseGeometry]:
    return [_arc(0, -0.4, 3.8, 125, 415), _line((0, 0), (0, 4.2))]


def _lock() -> list[BaseGeometry]:
    return [Polygon([(-3.4, -4.2), (3.4, -4.2), (3.4, 0.4), (-3.4, 0.4)]), _arc(0, 0.6, 2.3, 0, 180)]


def _speech() -> list[BaseGeometry]:
    return [_line((-4.2, 3.4), (4.2, 3.4), (4.2, -1.4), (-0.6, -1.4), (-3, -4), (-3, -1.4), (-4.2, -1.4), (-4.2, 3.4))]


def _drop() -> list[BaseGeometry]:
    return [
        Polygon(
            [(0, 4.4), (2.4, 0.6), (3, -1), (2.6, -2.8), (1.2, -4), (-1.2, -4), (-2.6, -2.8), (-3, -1), (-2.4, 0.6)]
        )
    ]


_DRAWN = {
    "lamp": _lamp, "pump": _pump, "fan": _fan, "horn": _horn, "door": _door, "battery": _battery, "wiper": _wiper,
    "heat": _heat, "beam": _beam, "bell": _bell, "warning": _warning, "brake": _brake, "up": _up, "down": _down,
    "power": _power, "lock": _lock, "speech": _speech, "water": _drop,
}  # fmt: skip
SYMBOLS: tuple[str, ...] = tuple(_DRAWN)
"""The names of all symbols."""


class DrawnSymbol(NamedTuple):
    """A symbol about its own middle (mm): closed outlines to fill by the even-odd rule, and the same as path data."""

    loops: tuple[Loop, ...]
    path: str


@cache
def _whole(name: str) -> tuple[tuple[tuple[float, float], ...], ...]:
    merged = unary_union(_DRAWN[name]())
    pieces = [
        orient(g) for g in (merged.geoms if isinstance(merged, MultiPolygon) else [merged]) if isinstance(g, Polygon)
    ]
    rings = [ring for piece in pieces for ring in (piece.exterior, *piece.interiors)]
    return tuple(tuple((float(x), float(y)) for x, y in ring.simplify(0.02).coords[:-1]) for ring in rings)


@lru_cache(maxsize=512)
def symbol(name: str, size: float) -> DrawnSymbol:
    """A symbol ``size`` mm wide and high. :raises KeyError: there is none of that name."""
    k = size / 10
    loops = tuple(tuple(Vertex(round(x * k, 4), round(y * k, 4)) for x, y in ring) for ring in _whole(name))
    path = "".join("M" + "L".join(f"{v.x:g} {v.y:g}" for v in loop) + "Z" for loop in loops)
    return DrawnSymbol(loops, path)
