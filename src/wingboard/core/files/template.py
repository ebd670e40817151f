"""A 1:1 drilling template as PDF: centre marks, a scale bar, and tiles with overlap marks, through reportlab."""

from __future__ import annotations

import io
import math
from collections.abc import Iterator, Sequence
from functools import lru_cache
from itertools import groupby
from typing import Any, NamedTuple

import numpy as np
import numpy.typing as npt
from reportlab import rl_config
from reportlab.lib.units import mm
from reportlab.lib.utils import simpleSplit
from reportlab.pdfgen.canvas import FILL_NON_ZERO, Canvas
from reportlab.pdfgen.pathobject import PDFPathObject

from wingboard.core.files.papers import PAPERS, Paper
from wingboard.core.files.scene import CirclePath, Item, Scene
from wingboard.core.geometry.outline import Loop, Vertex

rl_config.useA85 = 0
"""Pages are kept as bytes: turning them into letters takes longer than drawing them."""

MARGIN = 10.0
FOOT = 22.0
OVERLAP = 10.0
QUARTER = math.tan(math.pi / 8) + 1e-9
"""The bulge of a quarter turn."""
BAR = 100.0
"""The scale bar (mm): measure it on paper before drilling."""


class Tile(NamedTuple):
    """One page: the part of the scene it shows, from (x, y), in mm."""

    row: int
    column: int
    x: float
    y: float


class Tiling(NamedTuple):
    """How a scene is spread over pages."""

    paper: tuple[float, float]
    rows: int
    columns: int
    window: tuple[float, float]

    def tiles(self) -> Iterator[Tile]:
        """The pages row by row from the lower left."""
        for row in range(self.rows):
            for column in range(self.columns):
                step_x, step_y = self.window[0] - OVERLAP, self.window[1] - OVERLAP
                yield Tile(row, column, column * step_x, row * step_y)


def tiling(width: float, height: float, paper: Paper) -> Tiling:
    """The orientation and grid that needs the fewest pages for a piece of that size (mm)."""
    choices = []
    for w, h in (PAPERS[paper], PAPERS[paper][::-1]):
        window = (w - 2 * MARGIN, h - 2 * MARGIN - FOOT)
        columns = _pages(width + 2, window[0])
        rows = _pages(height + 2, window[1])
        choices.append(Tiling((w, h), rows, columns, window))
    return min(choices, key=lambda t: t.rows * t.columns)


def _pages(length: float, window: float) -> int:
    return 1 if length <= window else 1 + math.ceil((length - window) / (window - OVERLAP) - 1e-9)


def write_template(
    scene: Scene, paper: Paper, notes: tuple[str, ...] = (), table: tuple[tuple[str, ...], ...] = ()
) -> bytes:
    """The scene at 1:1 over as many pages as it needs.

    :param notes: lines printed at the foot of the first page, such as what was left unsettled.
    :param table: rows of cells for pages of their own behind the drawing, the first of them the heading.
    """
    spread = tiling(scene.width, scene.height, paper)
    stream = io.BytesIO()
    canvas: Any = Canvas(stream, pagesize=(spread.paper[0] * mm, spread.paper[1] * mm), invariant=1, pageCompression=1)
    canvas.setTitle(scene.title)
    groups, boxes = _drawn(_Same(scene))
    for tile in spread.tiles():
        shown = [groups[n] for n in np.flatnonzero(_on(boxes, tile, spread))]
        _page(canvas, shown, spread, tile)
        _foot(canvas, scene, spread, tile, notes if tile.row == tile.column == 0 else ())
        canvas.showPage()
    _table(canvas, scene, spread, table)
    canvas.save()
    return stream.getvalue()


LINE, FIRST, CELL = 4.2, 78.0, 15.5
"""Height of a table's row, width of its first column and of the others (mm)."""


def _table(canvas: Any, scene: Scene, spread: Tiling, table: tuple[tuple[str, ...], ...]) -> None:
    """Rows of cells, as many pages as they need, the heading on each."""
    width, height = spread.paper
    rows, first = table[1:], FIRST - max(0.0, 2 * MARGIN + FIRST + CELL * (len(table[0]) - 1) - width) if table else 0.0
    a_page = int((height - 2 * MARGIN - 3 * LINE) / LINE)
    for start in range(0, len(rows), a_page):
        canvas.setFillGray(0)
        canvas.setFont("Helvetica-Bold", 8)
        canvas.drawString(MARGIN * mm, (height - MARGIN - 4) * mm, f"{_ascii(scene.title)}: holes, mm")
        for n, cells in enumerate((table[0], *rows[start : start + a_page])):
            y = (height - MARGIN - 4 - LINE * (n + 1.5)) * mm
            canvas.setFont("Helvetica-Bold" if n == 0 else "Helvetica", 7)
            canvas.drawString(MARGIN * mm, y, _ascii(cells[0]))
            for k, cell in enumerate(cells[1:], 1):
                canvas.drawRightString((MARGIN + first + CELL * k) * mm, y, _ascii(cell))
        canvas.showPage()


Box = tuple[float, float, float, float]
_ROUND = 8.0
"""Drawn this far (mm) beyond an item's own bounds at the most: its centre mark and its diameter."""


class _Same:
    """A scene by its identity: the same one is drawn for each paper."""

    def __init__(self, scene: Scene) -> None:
        self.scene = scene

    def __hash__(self) -> int:
        return id(self.scene)

    def __eq__(self, other: object) -> bool:
        return isinstance(other, _Same) and other.scene is self.scene


@lru_cache(maxsize=16)
def _drawn(same: _Same) -> tuple[list[tuple[Item, ...]], npt.NDArray[np.float64]]:
    """What is drawn together, and how far each reaches."""
    groups = _groups(same.scene.items)
    return groups, np.array([_bounds_of(group) for group in groups])


def _groups(items: Sequence[Item]) -> list[tuple[Item, ...]]:
    """The items as they are drawn: all filled outlines of one word or graphic together, so that a counter is a hole."""

    def together(numbered: tuple[int, Item]) -> object:
        n, item = numbered
        return item.label if _filled(item) and not isinstance(item.path, CirclePath) else n

    return [tuple(item for _, item in group) for _, group in groupby(enumerate(items), together)]


def _filled(item: Item) -> bool:
    return item.operation == "engrave" and not item.open


def _bounds_of(group: Sequence[Item]) -> Box:
    boxes = np.array([_bounds(item) for item in group])
    x0, y0 = boxes[:, :2].min(axis=0)
    x1, y1 = boxes[:, 2:].max(axis=0)
    return float(x0), float(y0), float(x1), float(y1)


def _bounds(item: Item) -> Box:
    """The least and greatest x and y (mm) of an item, arcs' bulges included generously."""
    if isinstance(item.path, CirclePath):
        r = item.path.diameter / 2
        return item.path.x - r, item.path.y - r, item.path.x + r, item.path.y + r
    loop = item.path
    xs, ys = [v.x for v in loop], [v.y for v in loop]
    edges = zip(loop, loop[1:] + loop[:1], strict=True)
    rise = max((abs(a.bulge) * math.hypot(b.x - a.x, b.y - a.y) / 2 for a, b in edges if a.bulge), default=0.0)
    return min(xs) - rise, min(ys) - rise, max(xs) + rise, max(ys) + rise


def _on(boxes: npt.NDArray[np.float64], tile: Tile, spread: Tiling) -> npt.NDArray[np.bool_]:
    """Of which boxes, one a row, any part can be seen on a page."""
    right, top = tile.x + spread.window[0] + _ROUND, tile.y + spread.window[1] + _ROUND
    within = (boxes[:, 0] < right) & (boxes[:, 1] < top)
    return within & (boxes[:, 2] > tile.x - _ROUND) & (boxes[:, 3] > tile.y - _ROUND)


def _page(canvas: Any, shown: list[tuple[Item, ...]], spread: Tiling, tile: Tile) -> None:
    canvas.saveState()
    frame = canvas.beginPath()
    frame.rect(MARGIN * mm, (MARGIN + FOOT) * mm, spread.window[0] * mm, spread.window[1] * mm)
    canvas.clipPath(frame, stroke=0, fill=0)
    canvas.translate((MARGIN + 1 - tile.x) * mm, (MARGIN + FOOT + 1 - tile.y) * mm)
    canvas.scale(mm, mm)
    canvas.setLineWidth(0.15)
    canvas.setFillGray(0.55)
    for group in shown:
        filled = _filled(group[0])
        canvas.drawPath(_path(group), stroke=0 if filled else 1, fill=1 if filled else 0, fillMode=FILL_NON_ZERO)
    canvas.setLineWidth(0.1)
    canvas.setFillGray(0.35)
    for group in shown:
        circle = group[0].circle
        if circle and not _filled(group[0]):
            _centre_mark(canvas, circle, named=not group[0].graphic)
    canvas.restoreState()
    _overlap_marks(canvas, spread, tile)


@lru_cache(maxsize=1 << 15)
def _path(group: tuple[Item, ...]) -> PDFPathObject:
    """The paths of a group in the writer's own form, made once for all pages and papers."""
    code: list[str] = []
    path: Any = PDFPathObject(code)
    for item in group:
        if isinstance(item.path, CirclePath):
            path.circle(item.path.x, item.path.y, item.path.diameter / 2)
        else:
            _follow(item.path, item.open, code)
    return path


def _follow(loop: Loop, opened: bool, code: list[str]) -> None:
    code.append(f"{_at(loop[0])} m")
    following = loop[1:] if opened else loop[1:] + loop[:1]
    # Written as the page's own code: letters have so many edges that the library's calls take most of the time.
    for start, end in zip(loop, following, strict=False):
        code.extend(_curves(start, end) if start.bulge else (f"{_at(end)} l",))
    if not opened:
        code.append("h")


def _curves(start: Vertex, end: Vertex) -> Iterator[str]:
    """An arc as Bézier curves of at most a quarter turn each, which stand less than 0.03 % of its radius off it.

    The handles are tangents, 4/3·tan(a quarter of the arc's angle) radii long (common practice). Over a chord c, a
    bulge b makes that (1 - b²)·c along the chord and 2·b·c across it, a third of each.
    """
    if abs(start.bulge) > QUARTER:
        middle, bulge = _halfway(start, end)
        yield from _curves(start._replace(bulge=bulge), middle)
        yield from _curves(middle._replace(bulge=bulge), end)
        return
    b, dx, dy = start.bulge, end.x - start.x, end.y - start.y
    ahead, aside = (1 - b * b) / 3, 2 * b / 3
    yield (
        f"{start.x + ahead * dx + aside * dy:.3f} {start.y + ahead * dy - aside * dx:.3f} "
        f"{end.x - ahead * dx + aside * dy:.3f} {end.y - ahead * dy - aside * dx:.3f} {end.x:.3f} {end.y:.3f} c"
    )


def _halfway(start: Vertex, end: Vertex) -> tuple[Vertex, float]:
    """The middle of an arc, which lies to the right of its chord, and the bulge of either half."""
    x, y = (start.x + end.x) / 2, (start.y + end.y) / 2
    rise = start.bulge / 2
    middle = Vertex(x + rise * (end.y - start.y), y - rise * (end.x - start.x))
    return middle, math.tan(math.atan(start.bulge) / 2)


def _at(v: Vertex) -> str:
    """A place to a micrometre."""
    return f"{v.x:.3f} {v.y:.3f}"


def _centre_mark(canvas: Any, circle: CirclePath, named: bool) -> None:
    """A cross at a hole's middle, and its diameter where it is not one of a row that is told of once."""
    reach = min(3.0, circle.diameter / 2 + 1.5)
    canvas.line(circle.x - reach, circle.y, circle.x + reach, circle.y)
    canvas.line(circle.x, circle.y - reach, circle.x, circle.y + reach)
    if not named:
        return
    canvas.setFont("Helvetica", 2.1)
    canvas.drawString(
        circle.x + circle.diameter * 0.36 + 0.4, circle.y + circle.diameter * 0.36 + 0.4, _diameter(circle)
    )


def _diameter(circle: CirclePath) -> str:
    return f"{circle.diameter:.2f}".rstrip("0").rstrip(".")


def _overlap_marks(canvas: Any, spread: Tiling, tile: Tile) -> None:
    """Dashed lines where the next page's edge comes, and corner crosses to lay them over each other."""
    x0, y0 = MARGIN * mm, (MARGIN + FOOT) * mm
    w, h, lap = spread.window[0] * mm, spread.window[1] * mm, OVERLAP * mm
    canvas.saveState()
    canvas.setLineWidth(0.3)
    canvas.setStrokeGray(0.5)
    canvas.setDash(3, 3)
    if tile.column + 1 < spread.columns:
        canvas.line(x0 + w - lap, y0, x0 + w - lap, y0 + h)
    if tile.column > 0:
        canvas.line(x0 + lap, y0, x0 + lap, y0 + h)
    if tile.row + 1 < spread.rows:
        canvas.line(x0, y0 + h - lap, x0 + w, y0 + h - lap)
    if tile.row > 0:
        canvas.line(x0, y0 + lap, x0 + w, y0 + lap)
    canvas.restoreState()


def _foot(canvas: Any, scene: Scene, spread: Tiling, tile: Tile, notes: tuple[str, ...]) -> None:
    x, y = MARGIN * mm, (MARGIN + 8) * mm
    canvas.setLineWidth(0.5)
    canvas.line(x, y, x + BAR * mm, y)
    for k in range(11):
        canvas.line(x + k * BAR / 10 * mm, y, x + k * BAR / 10 * mm, y + (3 if k % 5 == 0 else 1.8) * mm)
    canvas.setFillGray(0)
    canvas.setFont("Helvetica", 7)
    canvas.drawString(x, y - 9, "This bar must measure 100.0 mm. If it does not, print again without any scaling.")
    page = f"row {tile.row + 1} of {spread.rows}, column {tile.column + 1} of {spread.columns}"
    room = (spread.paper[0] - 2 * MARGIN - BAR - 8) * mm
    title = simpleSplit(f"{_ascii(scene.title)}: {page}", "Helvetica", 7, room)
    for n, line in enumerate(title[:3]):
        canvas.drawString(x + (BAR + 8) * mm, y + 2 - 9 * (n - (len(title) > 2)), line)
    for n, note in enumerate(notes[:5]):
        (line, *more) = simpleSplit(_ascii(note), "Helvetica", 7, (spread.paper[0] - 2 * MARGIN - 4) * mm) or [""]
        canvas.drawString(x, y + (5 + 3 * (min(len(notes), 5) - n - 1)) * mm, line + " ..." * bool(more))


def _ascii(text: str) -> str:
    return text.encode("cp1252", "replace").decode("cp1252")
