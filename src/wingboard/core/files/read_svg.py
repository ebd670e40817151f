"""Outlines out of an SVG drawing, through svgelements; circular arcs stay arcs, other curves become short chords."""

from __future__ import annotations

import io
import math
import re
from collections.abc import Iterator
from itertools import pairwise
from typing import Any

import svgelements
from defusedxml import ElementTree
from defusedxml.common import DefusedXmlException

from wingboard.core.files.drawn import SCALE, Edge, Import, NotAnOutline, Unit, outlines_of

PX = 25.4 / 96
"""One CSS pixel in mm (CSS Values and Units, absolute lengths)."""
LARGEST = 100_000.0
"""No figure of a drawing may be further from its origin (mm)."""
CHORDS = 48
MOST_SHAPES = 5000


def read_svg_outlines(content: bytes, unit: Unit = "as drawn") -> Import:
    """The closed outlines of an SVG file, in mm, y up.

    :param unit: what one unit of the drawing's own coordinates is, when its width in mm shall not count.
    :raises NotAnOutline: not an SVG file, nothing closed, or an outline that cannot be used.
    """
    try:
        root = ElementTree.fromstring(content)
    except (ElementTree.ParseError, DefusedXmlException, ValueError, LookupError) as error:
        raise NotAnOutline(f"It cannot be read as SVG ({str(error)[:80] or 'entities are not read'})") from error
    if not str(root.tag).endswith("svg"):
        raise NotAnOutline("This XML file is not an SVG drawing")
    measured = bool(re.search(r"(mm|cm|in)\s*$", root.get("width", "")))
    scale, notes = PX, [] if measured or unit != "as drawn" else ["Its width has no unit; 96 pixels an inch are taken"]
    if unit != "as drawn":
        scale = SCALE[unit] / _user_unit(root)
    loops: list[list[Edge]] = []
    loose: list[Edge] = []
    elements = sum(1 for _ in root.iter())
    if elements > 4 * MOST_SHAPES:
        raise NotAnOutline(f"It holds {elements} elements; more than {4 * MOST_SHAPES} are not read")
    shapes = _shapes(content)
    if len(shapes) > MOST_SHAPES:
        raise NotAnOutline(f"It holds {len(shapes)} shapes; more than {MOST_SHAPES} are not read")
    for shape in shapes:
        for edges in _subpaths(shape, scale):
            closed = edges and math.dist(edges[0].start, edges[-1].end) < 1e-6
            (loops.append(edges) if closed else loose.extend(edges))
    return outlines_of(loops, loose, unit if unit != "as drawn" else "mm", notes)


def _user_unit(root: Any) -> float:
    """Pixels that svgelements makes of one unit of the drawing's own coordinates."""
    box = [float(v) for v in re.split(r"[\s,]+", (root.get("viewBox") or "").strip()) if re.fullmatch(r"-?[\d.]+", v)]
    width = svgelements.Length(root.get("width", "0")).value(ppi=96) if root.get("width") else 0.0
    return float(width) / box[2] if len(box) == 4 and box[2] > 0 and width else 1.0


def _shapes(content: bytes) -> list[Any]:
    try:
        parsed = svgelements.SVG.parse(io.BytesIO(content), reify=True, ppi=96)
        return [e for e in parsed.elements() if isinstance(e, svgelements.Shape)]
    except (
        ValueError,
        TypeError,
        AttributeError,
        KeyError,
        IndexError,
        RecursionError,
        ArithmeticError,
        LookupError,
    ) as error:
        raise NotAnOutline(f"Its shapes cannot be read ({str(error)[:80] or type(error).__name__})") from error


def _subpaths(shape: Any, scale: float) -> Iterator[list[Edge]]:
    for subpath in svgelements.Path(*shape.segments(transformed=True)).as_subpaths():
        edges = [edge for segment in subpath for edge in _edges(segment, scale)]
        if edges:
            yield edges


def _edges(segment: Any, scale: float) -> Iterator[Edge]:
    if isinstance(segment, svgelements.Move) or segment.start is None or segment.end is None:
        return
    start, end = _mm(segment.start, scale), _mm(segment.end, scale)
    if not all(abs(v) <= LARGEST for v in (*start, *end)):
        raise NotAnOutline("A line of it lies nowhere, or too far off. Is the unit right?")
    if isinstance(segment, svgelements.Line | svgelements.Close):
        if math.dist(start, end) > 1e-9:
            yield Edge(start, end)
    elif isinstance(segment, svgelements.Arc) and abs(float(segment.rx) - float(segment.ry)) < 1e-6 * float(segment.rx):
        yield from _arc(segment, scale)
    else:
        points = [_mm(segment.point(n / CHORDS), scale) for n in range(CHORDS + 1)]
        yield from (Edge(a, b) for a, b in pairwise(points) if math.dist(a, b) > 1e-9)


def _arc(segment: Any, scale: float) -> Iterator[Edge]:
    """In pieces of at most half a turn; y is turned over, so the way round changes."""
    sweep = float(segment.sweep)
    pieces = max(1, math.ceil(abs(sweep) / math.pi - 1e-9))
    points = [_mm(segment.point(n / pieces), scale) for n in range(pieces + 1)]
    bulge = math.tan(-sweep / pieces / 4)
    yield from (Edge(a, b, bulge) for a, b in pairwise(points))


def _mm(point: Any, scale: float) -> tuple[float, float]:
    return float(point.x) * scale, -float(point.y) * scale
