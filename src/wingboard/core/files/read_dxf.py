"""Outlines out of a DXF drawing, through ezdxf: lines, arcs, circles, polylines; curves become short chords."""

from __future__ import annotations

import io
import math
from collections import Counter
from collections.abc import Iterator
from itertools import pairwise

from ezdxf import path as ezpath
from ezdxf.entities.dxfgfx import DXFGraphic
from ezdxf.filemanagement import read
from ezdxf.lldxf.const import DXFError

from wingboard.core.files.drawn import SCALE, Edge, Import, NotAnOutline, Unit, outlines_of

UNITS: dict[int, Unit] = {1: "in", 4: "mm", 5: "cm", 6: "m"}
"""$INSUNITS (DXF Reference, header variables); 0 says nothing, and millimetres are taken."""
SAG = 0.01
LARGEST = 100_000.0
"""No figure of a drawing may be further from its origin (mm)."""


def read_dxf_outlines(content: bytes, unit: Unit = "as drawn") -> Import:
    """The closed outlines of a DXF file's model space, in mm.

    :param unit: what the figures mean, when the file's own word on it shall not count.
    :raises NotAnOutline: not a DXF file, nothing closed, or an outline that cannot be used.
    """
    try:
        drawing = read(io.StringIO(content.decode("utf-8", "surrogateescape")))
    except (DXFError, OSError, ValueError, IndexError, KeyError, TypeError, AttributeError) as error:
        raise NotAnOutline(f"It cannot be read as DXF text ({str(error)[:80] or type(error).__name__})") from error
    said = UNITS.get(int(drawing.header.get("$INSUNITS", 0)))
    taken: Unit = unit if unit != "as drawn" else said or "mm"
    notes = [] if said or unit != "as drawn" else ["The file does not say its unit; millimetres are taken"]
    loops: list[list[Edge]] = []
    loose: list[Edge] = []
    aside: Counter[str] = Counter()
    for entity in drawing.modelspace():
        edges = list(_edges(entity, SCALE[taken]))
        if not edges:
            aside[entity.dxftype()] += 1
        elif math.dist(edges[0].start, edges[-1].end) < 1e-6:
            loops.append(edges)
        else:
            loose += edges
    notes += [f"{many} × {kind} left aside" for kind, many in sorted(aside.items())]
    return outlines_of(loops, loose, taken, notes)


def _edges(entity: DXFGraphic, scale: float) -> Iterator[Edge]:
    kind = entity.dxftype()
    if kind == "LWPOLYLINE":
        points = [(x * scale, y * scale, b) for x, y, b in entity.get_points("xyb")]  # type: ignore[attr-defined]
        yield from _polyline(points, entity.closed)  # type: ignore[attr-defined]
    elif kind in ("CIRCLE", "ARC") and not 0 < abs(entity.dxf.radius * scale) <= LARGEST:
        raise NotAnOutline(f"It holds a circle of radius {entity.dxf.radius * scale:g} mm; is the unit right?")
    elif kind == "CIRCLE":
        x, y, r = (v * scale for v in (entity.dxf.center.x, entity.dxf.center.y, entity.dxf.radius))
        yield Edge((x - r, y), (x + r, y), 1.0)
        yield Edge((x + r, y), (x - r, y), 1.0)
    elif kind == "ARC":
        yield _arc(entity, scale)
    elif kind == "LINE":
        a, b = entity.dxf.start, entity.dxf.end
        yield Edge((a.x * scale, a.y * scale), (b.x * scale, b.y * scale))
    elif kind in ("POLYLINE", "SPLINE", "ELLIPSE"):
        chords = _chords(entity, scale)
        yield from (Edge(a, b) for a, b in pairwise(chords) if math.dist(a, b) > 1e-9)


def _chords(entity: DXFGraphic, scale: float) -> list[tuple[float, float]]:
    """A curve as points no further than :data:`SAG` apart from it. :raises NotAnOutline: it is none."""
    try:
        path = ezpath.make_path(entity)
        ends = [v for p in path.control_vertices() for v in (p.x * scale, p.y * scale)]
        if not all(math.isfinite(v) and abs(v) <= LARGEST for v in ends):
            raise NotAnOutline(f"A {entity.dxftype().lower()} of it lies nowhere, or too far off; is the unit right?")
        return [(p.x * scale, p.y * scale) for p in path.flattening(SAG / scale)]
    except (ArithmeticError, ValueError, TypeError) as error:
        raise NotAnOutline(f"A {entity.dxftype().lower()} of it cannot be drawn: {error}") from error


def _polyline(points: list[tuple[float, float, float]], closed: bool) -> Iterator[Edge]:
    following = points[1:] + points[:1] if closed else points[1:]
    for (x, y, bulge), (u, v, _) in zip(points, following, strict=False):
        if math.hypot(u - x, v - y) > 1e-9:
            yield Edge((x, y), (u, v), bulge)


def _arc(entity: DXFGraphic, scale: float) -> Edge:
    c, r = entity.dxf.center, entity.dxf.radius
    start, end = math.radians(entity.dxf.start_angle), math.radians(entity.dxf.end_angle)
    sweep = (end - start) % (2 * math.pi)
    ends = [((c.x + r * math.cos(t)) * scale, (c.y + r * math.sin(t)) * scale) for t in (start, end)]
    return Edge(ends[0], ends[1], math.tan(sweep / 4))
