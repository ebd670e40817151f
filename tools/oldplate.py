"""A photograph of an old plate, as the demo's builder would have taken one: drawn, worn a little, and seen askew."""

from __future__ import annotations

import io
import math

import numpy as np
import numpy.typing as npt
from PIL import Image, ImageDraw, ImageFilter

from wingboard.core.record.pictures import Known, PicturePoint, Reference, Traced

SIZE = (1200, 900)
HOLES = {"f29": (27.3, 40.2), "f30": (63.2, 39.8), "f28": (98.6, 40.3), "f26": (134.5, 39.7), "f27": (171.6, 40.1)}
"""The functions whose old holes show, and where their centres were (mm): up to 0.6 mm beside the new ones."""
BORE = 22.6
LEVELS = ((98, 124), (142, 124), (186, 124))
KNOWN = ((8.0, 8.0), (235.0, 8.0), (235.0, 180.0), (8.0, 180.0))
"""A rectangle of screws whose places are known (mm)."""
SEEN = ((95.0, 800.0), (1120.0, 735.0), (1035.0, 130.0), (190.0, 85.0))
"""Where the photograph has them (pixels, y downwards)."""


def _projection() -> npt.NDArray[np.float64]:
    rows, right = [], []
    for (x, y), (u, v) in zip(KNOWN, SEEN, strict=True):
        rows += [[x, y, 1, 0, 0, 0, -u * x, -u * y], [0, 0, 0, x, y, 1, -v * x, -v * y]]
        right += [u, v]
    return np.append(np.linalg.solve(np.array(rows), np.array(right)), 1.0).reshape(3, 3)


def _seen(x: float, y: float) -> tuple[float, float]:
    u, v, w = _projection() @ (x, y, 1.0)
    return float(u / w), float(v / w)


def _ring(x: float, y: float, diameter: float, points: int = 48) -> list[tuple[float, float]]:
    turns = [2 * math.pi * k / points for k in range(points)]
    return [_seen(x + diameter / 2 * math.cos(t), y + diameter / 2 * math.sin(t)) for t in turns]


def photograph() -> bytes:
    """The picture as PNG."""
    picture = Image.new("RGB", SIZE, "#7d6d5a")
    draw = ImageDraw.Draw(picture)
    draw.polygon([_seen(*c) for c in ((0, 0), (243, 0), (243, 190), (0, 190))], fill="#8f979b")
    for k in range(90):  # scratches
        x, y = (k * 67.0) % 240, (k * 41.0) % 188
        draw.line([_seen(x, y), _seen(x + 4 + k % 9, y + k % 3 - 1)], fill="#a3abaf", width=2)
    for x, y in HOLES.values():
        draw.polygon(_ring(x, y, BORE + 5), fill="#7b8488")
        draw.polygon(_ring(x, y, BORE), fill="#1c1f21")
    for x, y in LEVELS:
        draw.polygon(_ring(x, y, 9.6), fill="#1c1f21")
    for x, y in KNOWN:
        draw.polygon(_ring(x, y, 6), fill="#c8ced1")
        draw.line([_seen(x - 2, y), _seen(x + 2, y)], fill="#555c60", width=3)
    stream = io.BytesIO()
    picture.filter(ImageFilter.GaussianBlur(1.2)).save(stream, "PNG")
    return stream.getvalue()


def reference(picture: str, module: str = "right") -> Reference:
    """How the photograph lies under the module: squared by the four screws, the five old holes traced."""
    points = tuple(Known(x=u, y=v, at_x=x, at_y=y) for (x, y), (u, v) in zip(KNOWN, SEEN, strict=True))
    traced = tuple(
        Traced(id=f"hole-{n}", function=ident, points=tuple(PicturePoint(x=u, y=v) for u, v in _ring(x, y, BORE, 8)))
        for n, (ident, (x, y)) in enumerate(HOLES.items(), 1)
    )
    return Reference(
        id="old-plate", module=module, picture=picture, width=SIZE[0], height=SIZE[1], points=points, circles=traced
    )
