"""A picture of a sheet as it will be made, for a glance: PNG, by Pillow."""

from __future__ import annotations

import io

import numpy as np
import numpy.typing as npt
import shapely
from PIL import Image, ImageDraw

from wingboard.core.cut.beside import disc
from wingboard.core.files.scene import CirclePath, Item, Operation, Scene
from wingboard.core.files.svg import STROKE, Colours
from wingboard.core.geometry.outline import flattened

Numbers = npt.NDArray[np.float64]
LONG = 400
"""Pixels along the longer side; drawn twice as fine."""
RIM = 8
FINER = 2


def preview(scene: Scene, colours: Colours = STROKE) -> bytes:
    """The scene as a PNG: letters filled, cuts as lines, paper white, front up."""
    scale = FINER * (LONG - 2 * RIM) / max(scene.width, scene.height, 1.0)
    size = round(scene.width * scale) + 2 * FINER * RIM, round(scene.height * scale) + 2 * FINER * RIM
    image = Image.new("RGB", size, "#FFFFFF")
    draw = ImageDraw.Draw(image)
    order: tuple[Operation, ...] = ("outline", "pocket", "inner", "mask", "engrave")
    for operation in order:
        drawn = [(item, _points(item)) for item in scene.of(operation)]
        filled = [operation == "engrave" and not item.open and len(points) > 2 for item, points in drawn]
        # What falls out of a letter runs clockwise: it is laid over its letter, white.
        falls = [fill and _clockwise(points) for fill, (_, points) in zip(filled, drawn, strict=True)]
        for n in sorted(range(len(drawn)), key=lambda n: falls[n]):
            item, points = drawn[n]
            if len(points) < 2:
                continue
            on = points * (scale, -scale) + (FINER * RIM, size[1] - FINER * RIM)
            line = [tuple(p) for p in on.tolist()]
            if filled[n]:
                draw.polygon(line, fill="#FFFFFF" if falls[n] else colours[operation])
            else:
                draw.line(line if item.open else [*line, line[0]], fill=colours[operation], width=FINER)
    stream = io.BytesIO()
    image.reduce(FINER).save(stream, "PNG", compress_level=3)
    return stream.getvalue()


def _points(item: Item) -> Numbers:
    path = item.path
    if isinstance(path, CirclePath):
        return shapely.get_coordinates(disc(path).exterior)
    if item.open or item.operation == "engrave":  # a letter's arcs are shorter than two pixels
        return np.array([(v.x, v.y) for v in path])
    return np.array(flattened(path), dtype=np.float64).reshape(-1, 2)


def _clockwise(points: Numbers) -> bool:
    x, y = points.T
    turned = x[:-1] @ y[1:] - y[:-1] @ x[1:] + x[-1] * y[0] - y[-1] * x[0]
    return bool(turned < 0)
