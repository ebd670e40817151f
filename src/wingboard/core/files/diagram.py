"""Diagrams: lines, boxes, dots and words in mm, y down, written as SVG and as pages of PDF; always the same bytes."""

from __future__ import annotations

import io
from collections.abc import Iterable, Sequence
from functools import cache
from typing import Any, Literal, NamedTuple
from xml.sax.saxutils import escape, quoteattr

from wingboard.core.files.pages import plain

INK, FAINT, PAPER = "#1E262B", "#5B666D", "#FFFFFF"
"""Of what is written, of what is said beside it, and of the ground."""
Point = tuple[float, float]


class Line(NamedTuple):
    """A line through points, closed and filled where ``fill`` is a colour."""

    points: tuple[Point, ...]
    width: float = 0.3
    colour: str = INK
    fill: str = ""
    dashed: bool = False


class Box(NamedTuple):
    """A box by its upper left corner, its corners rounded by ``radius``."""

    x: float
    y: float
    width: float
    height: float
    fill: str = PAPER
    colour: str = INK
    line: float = 0.3
    radius: float = 0.0


class Dot(NamedTuple):
    """A circle about its middle."""

    x: float
    y: float
    radius: float
    fill: str = PAPER
    colour: str = INK
    line: float = 0.3


class Words(NamedTuple):
    """A line of words, their foot at ``y``, so high (mm of the type's size)."""

    x: float
    y: float
    text: str
    size: float = 2.6
    anchor: Literal["start", "middle", "end"] = "start"
    bold: bool = False
    colour: str = INK


Shape = Line | Box | Dot | Words


class Diagram(NamedTuple):
    """A drawing of one page, in mm."""

    title: str
    width: float
    height: float
    shapes: tuple[Shape, ...]


def shortened(text: str, size: float, width: float) -> str:
    """Words that are too long for ``width`` mm at that size, cut with an ellipsis (half the size a letter)."""
    most = max(1, int(width / (0.52 * size)))
    return text if len(text) <= most else f"{text[: most - 1].rstrip()}…"


def svg(diagram: Diagram) -> bytes:
    """A diagram as SVG, in mm."""
    head = (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{diagram.width:g}mm" height="{diagram.height:g}mm" '
        f'viewBox="0 0 {diagram.width:g} {diagram.height:g}">'
    )
    body = "\n".join(_element(shape) for shape in diagram.shapes)
    ground = f'<rect width="{diagram.width:g}" height="{diagram.height:g}" fill="{PAPER}"/>'
    return f"{head}\n<title>{escape(diagram.title)}</title>\n{ground}\n{body}\n</svg>\n".encode()


def _element(shape: Shape) -> str:
    if isinstance(shape, Words):
        weight = ' font-weight="bold"' if shape.bold else ""
        return (
            f'<text x="{shape.x:.2f}" y="{shape.y:.2f}" font-family="sans-serif" font-size="{shape.size:g}"{weight} '
            f'text-anchor="{shape.anchor}" fill="{shape.colour}">{escape(shape.text)}</text>'
        )
    if isinstance(shape, Box):
        return (
            f'<rect x="{shape.x:.2f}" y="{shape.y:.2f}" width="{shape.width:.2f}" height="{shape.height:.2f}" '
            f'rx="{shape.radius:g}" fill="{shape.fill or "none"}" stroke="{shape.colour or "none"}" '
            f'stroke-width="{shape.line:g}"/>'
        )
    if isinstance(shape, Dot):
        return (
            f'<circle cx="{shape.x:.2f}" cy="{shape.y:.2f}" r="{shape.radius:g}" fill="{shape.fill or "none"}" '
            f'stroke="{shape.colour}" stroke-width="{shape.line:g}"/>'
        )
    points = " ".join(f"{x:.2f},{y:.2f}" for x, y in shape.points)
    kind = "polygon" if shape.fill else "polyline"
    dash = ' stroke-dasharray="1.2 1"' if shape.dashed else ""
    return (
        f"<{kind} points={quoteattr(points)} fill={quoteattr(shape.fill or 'none')} stroke={quoteattr(shape.colour)} "
        f'stroke-width="{shape.width:g}" stroke-linejoin="round" stroke-linecap="round"{dash}/>'
    )


MARGIN = 12.0
"""Of a page (mm)."""


def pdf(title: str, diagrams: Sequence[Diagram]) -> bytes:
    """Diagrams as pages of A4, each as large as it fits, lying where it is wider than high; never larger than drawn."""
    from reportlab import rl_config
    from reportlab.lib.units import mm
    from reportlab.pdfgen.canvas import Canvas

    rl_config.useA85 = 0
    stream = io.BytesIO()
    canvas: Any = Canvas(stream, invariant=1, pageCompression=1)
    canvas.setTitle(plain(title))
    for diagram in diagrams:
        lying = diagram.width > diagram.height
        wide, high = (297.0, 210.0) if lying else (210.0, 297.0)
        canvas.setPageSize((wide * mm, high * mm))
        scale = min(1.0, (wide - 2 * MARGIN) / diagram.width, (high - 2 * MARGIN) / diagram.height)
        canvas.translate(MARGIN * mm, (high - MARGIN) * mm)
        canvas.scale(scale * mm, scale * mm)
        _Drawing(canvas).draw(diagram.shapes)
        canvas.showPage()
    if not diagrams:
        canvas.showPage()
    canvas.save()
    return stream.getvalue()


@cache
def _colour(text: str) -> Any:
    """A colour as the writer has it: reading its figures anew takes longer than drawing a line."""
    from reportlab.lib.colors import HexColor

    return HexColor(text)


class _Drawing:
    """Shapes on a page, y turned up; what is set already is not set again."""

    def __init__(self, canvas: Any) -> None:
        self.canvas = canvas
        self._set: dict[str, Any] = {}
        canvas.setLineJoin(1)
        canvas.setLineCap(1)

    def draw(self, shapes: Iterable[Shape]) -> None:
        for shape in shapes:
            if isinstance(shape, Words):
                self._words(shape)
            else:
                self._shape(shape)

    def _to(self, what: str, value: Any) -> None:
        if self._set.get(what) != value:
            self._set[what] = value
            getattr(self.canvas, what)(_colour(value) if what.endswith("Color") else value)

    def _shape(self, shape: Line | Box | Dot) -> None:
        self._to("setLineWidth", shape.width if isinstance(shape, Line) else shape.line)
        stroke, fill = int(bool(shape.colour)), int(bool(shape.fill))
        if stroke:
            self._to("setStrokeColor", shape.colour)
        if fill:
            self._to("setFillColor", shape.fill)
        if isinstance(shape, Box):
            y = -shape.y - shape.height
            self.canvas.roundRect(shape.x, y, shape.width, shape.height, shape.radius, stroke=stroke, fill=fill)
        elif isinstance(shape, Dot):
            self.canvas.circle(shape.x, -shape.y, shape.radius, stroke=stroke, fill=fill)
        else:
            self._line(shape, stroke, fill)

    def _line(self, line: Line, stroke: int, fill: int) -> None:
        self._to("setDash", [1.2, 1.0] if line.dashed else [])
        path = self.canvas.beginPath()
        path.moveTo(line.points[0][0], -line.points[0][1])
        for x, y in line.points[1:]:
            path.lineTo(x, -y)
        if line.fill:
            path.close()
        self.canvas.drawPath(path, stroke=stroke, fill=fill)
        self._to("setDash", [])

    def _words(self, words: Words) -> None:
        font = "Helvetica-Bold" if words.bold else "Helvetica", words.size
        if self._set.get("font") != font:
            self._set["font"] = font
            self.canvas.setFont(*font)
        self._to("setFillColor", words.colour)
        draw = {
            "start": self.canvas.drawString,
            "middle": self.canvas.drawCentredString,
            "end": self.canvas.drawRightString,
        }
        draw[words.anchor](words.x, -words.y, plain(words.text))
