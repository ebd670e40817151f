"""SVG in true millimetres, one group an operation (SVG 1.1, W3C Recommendation)."""

from __future__ import annotations

from collections.abc import Mapping
from html import escape

from wingboard.core.files.scene import OPERATIONS, CirclePath, Item, Operation, Scene
from wingboard.core.geometry.outline import Loop, Vertex, svg_line, svg_path
from wingboard.core.quantity import short

Colours = Mapping[Operation, str]
STROKE: Colours = {
    "mask": "#8E3B8E", "engrave": "#4A5A63", "pocket": "#8A5A00", "inner": "#0B6B74", "outline": "#1E262B",
}  # fmt: skip
"""One colour an operation, so that a laser's driver can tell them apart; the groups' names say which is which."""


def write_svg(scene: Scene, colours: Colours = STROKE) -> bytes:
    """The scene as an SVG document whose width and height are in mm; y runs down, as SVG wants.

    :param colours: the colour of each operation's lines, ``#RRGGBB``.
    """
    lines = [
        '<?xml version="1.0" encoding="UTF-8"?>',
        f'<svg xmlns="http://www.w3.org/2000/svg" version="1.1" width="{short(scene.width)}mm" '
        f'height="{short(scene.height)}mm" viewBox="0 0 {short(scene.width)} {short(scene.height)}">',
        f"<title>{escape(scene.title)}</title>",
    ]
    for operation in OPERATIONS:
        if operation == "mask" and not scene.of("mask"):
            continue
        fill = colours[operation] if operation == "engrave" else "none"
        stroke = "none" if operation == "engrave" else colours[operation]
        lines.append(f'<g id="{operation}" fill="{fill}" fill-rule="nonzero" stroke="{stroke}" stroke-width="0.1">')
        lines += _group(scene, operation, colours)
        lines.append("</g>")
    return "\n".join([*lines, "</svg>", ""]).encode()


def _group(scene: Scene, operation: Operation, colours: Colours) -> list[str]:
    if operation != "engrave":
        return [_element(item, scene.height) for item in scene.of(operation)]
    together: dict[tuple[str, bool], list[str]] = {}
    circles = []
    for item in scene.of(operation):
        if isinstance(item.path, CirclePath):
            circles.append(_element(item, scene.height))
        else:
            flipped = _flipped(item.path, scene.height)
            path = svg_line(flipped) if item.open else svg_path(flipped)
            together.setdefault((item.label, item.open), []).append(path)
    return [
        *(_engraving("".join(paths), *key, colours["engrave"]) for key, paths in together.items()), *circles,
    ]  # fmt: skip


def _engraving(path: str, label: str, opened: bool, colour: str) -> str:
    """A filled outline, or the line of a single stroke, which is followed and not filled."""
    line = f' fill="none" stroke="{colour}"' if opened else ""
    return f'<path d="{path}" {_label(label)}{line}/>'


def _element(item: Item, height: float) -> str:
    depth = "" if item.depth is None else f' data-depth="{short(item.depth)}"'
    if isinstance(item.path, CirclePath):
        c = item.path
        place = f'cx="{short(c.x)}" cy="{short(height - c.y)}" r="{short(c.diameter / 2)}"'
        return f"<circle {place} {_label(item.label)}{depth}/>"
    path = svg_line(_flipped(item.path, height)) if item.open else svg_path(_flipped(item.path, height))
    return f'<path d="{path}" {_label(item.label)}{depth}/>'


def _label(label: str) -> str:
    return f'data-for="{escape(label)}"'


def _flipped(loop: Loop, height: float) -> Loop:
    return tuple(Vertex(v.x, height - v.y, -v.bulge) for v in loop)
