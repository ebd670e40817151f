"""A part as slices of the panel's depth, and what each layer has to leave open for them.

Everything that asks how deep a part is, whether its nut hides, where its body is or what it cuts, reads these slices.
z runs backwards from the front surface of the face (mm). Where the slices lie follows from the school (common
practice): a part behind seats on the back of the plate, its nut hidden in a clear bore of the diffuser; what has its
flange on the face goes through every layer; a module behind a window seats on the back of the face.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from itertools import accumulate
from math import cos, radians, sin
from typing import Literal, NamedTuple

from wingboard.core.geometry.rounded import Rounded
from wingboard.core.record.modules import Layer, is_plate
from wingboard.core.record.part import Part
from wingboard.core.record.shapes import Circle, Rect, Shape

Purpose = Literal["hole", "nut", "key", "window", "recess", "pocket", "wiring", "fixing", "feature", "derived"]
Solid = Literal["front", "bush", "nut", "key", "body", "plug"]
"""What stands before the face, the thread, the nut with its washer, the pip, what lies behind, its wires' room."""
WIRE_ROOM = 2.0
"""Added all round the body where a board behind has to clear it and its wires (mm, common practice)."""
SEAT_ROOM = 0.5
"""Added all round a body that sits in a pocket (mm, common practice)."""
NUT_ROOM = 1.0
"""Room of a nut's clear bore for a tube spanner, in diameter (mm, common practice)."""
NUT_RIM = 4.0
"""By how much a nut is wider than its thread where nothing else is known (mm, common practice)."""
CABLE = 6.0
"""Width of the slot that a flat cable or a plug's wires pass through (mm, common practice)."""
CORNER = 0.5
"""Rounding of that slot's corners (mm)."""
SIDES: Mapping[str, tuple[int, int]] = {"left": (-1, 0), "right": (1, 0), "top": (0, 1), "bottom": (0, -1)}
"""Which way from the middle the side lies that a cable leaves at, the front seen."""
SHORTEST = 1e-6
"""Slices and layers that meet by less than this (mm) only touch."""


class Cutout(NamedTuple):
    """An opening in one layer, in the part's coordinates. ``depth`` None goes through; else it is cut from behind."""

    layer: str
    purpose: Purpose
    shape: Shape
    x: float = 0.0
    y: float = 0.0
    turn: float = 0.0
    depth: float | None = None


class Seated(NamedTuple):
    """A slice of a seated part: what it fills between the depths ``z0`` and ``z1``, in the part's coordinates."""

    kind: Solid
    z0: float
    z1: float
    shape: Shape
    x: float = 0.0
    y: float = 0.0
    turn: float = 0.0

    def outline(self) -> Rounded:
        """Its outline about the middle of the part's hole, the part not turned."""
        return self.shape.rounded().turned(self.turn).moved(self.x, self.y)


class Sheet(NamedTuple):
    """A layer with the depths (mm) of its front and its back."""

    layer: Layer
    z0: float
    z1: float


def sheets(stack: tuple[Layer, ...]) -> tuple[Sheet, ...]:
    """Every layer at its depth, with the free room that standoffs leave before it."""
    ends = list(accumulate(layer.gap + layer.thickness for layer in stack))
    return tuple(Sheet(layer, end - layer.thickness, end) for layer, end in zip(stack, ends, strict=True))


def plates(stack: tuple[Layer, ...]) -> tuple[Layer, ...]:
    """The layers screwed together as one plate: all but the boards on standoffs."""
    return tuple(layer for layer in stack if is_plate(layer))


def thickness(stack: tuple[Layer, ...]) -> float:
    """Thickness (mm) of the plate."""
    return sum(layer.gap + layer.thickness for layer in plates(stack))


def nut_layer(part: Part, stack: tuple[Layer, ...]) -> int | None:
    """Index in :func:`plates` of the layer that hides the part's nut; None when its nut lies on a surface."""
    if part.mount != "behind" or part.nut_bore is None:
        return None
    diffusers = [i for i, layer in enumerate(plates(stack)) if layer.role == "diffuser"]
    return diffusers[-1] if diffusers else None


def clamped(part: Part, stack: tuple[Layer, ...], pocket: float = 0.0) -> float:
    """Thickness (mm) between the part's nut and its seat, less the seat's pocket; 0 for a part without a thread."""
    if part.bush is None:
        return 0.0
    hidden = nut_layer(part, stack)
    behind = plates(stack)[(hidden + 1) if hidden is not None else 0 :]
    return thickness(behind) - pocket


def thread_needed(part: Part, stack: tuple[Layer, ...], pocket: float = 0.0) -> float:
    """Length (mm) the bush needs: clamped layers + washer + nut + one full thread (common practice)."""
    if part.bush is None:
        return 0.0
    return clamped(part, stack, pocket) + part.bush.washer + part.bush.nut + part.bush.pitch


def seat_depth(part: Part, stack: tuple[Layer, ...], pocket: float = 0.0) -> float:
    """Depth (mm) of the surface that the part lies against."""
    if part.mount == "behind":
        return thickness(stack) - pocket
    return plates(stack)[0].thickness if part.mount == "window" and plates(stack) else 0.0


def seated(part: Part, stack: tuple[Layer, ...], pocket: float = 0.0) -> tuple[Seated, ...]:
    """The part as slices, where they come to lie in a stack, from the front backwards.

    The body of a part with its flange on the face begins behind the plate: what is before it goes through the hole.
    """
    back, seat = thickness(stack), seat_depth(part, stack, pocket)
    start = max(seat, back) if part.mount == "front" else seat
    end = max(start, seat + part.depth)
    made = [Seated("front", -part.height, 0.0, part.cover, part.cover_x, part.cover_y)] if part.height > 0 else []
    made += _threaded(part, stack, pocket, seat, back)
    if part.key is not None:
        made.append(_pip(part, seat))
    turned_in = min(end, max(start, seat + part.body_to)) if part.body_to is not None else end
    if turned_in > start:
        made.append(Seated("body", start, turned_in, body_shape(part), part.behind_x, part.behind_y))
    made += [Seated("body", seat + s.z0, seat + s.z1, s.shape, s.x, s.y, s.turn) for s in part.steps]
    if part.plug > 0:
        deepest = max([end, *(seat + s.z1 for s in part.steps)])
        made.append(Seated("plug", deepest, deepest + part.plug, part.body, part.behind_x, part.behind_y))
    return tuple(made)


def body_shape(part: Part) -> Shape:
    """The outline of a part's body, with the room for its clamps."""
    return part.body.grown(part.clamp) if part.clamp else part.body


def _threaded(part: Part, stack: tuple[Layer, ...], pocket: float, seat: float, back: float) -> list[Seated]:
    bush = part.bush
    if bush is None:
        return []
    thread, high = Circle(diameter=bush.diameter), bush.washer + bush.nut
    wide = max(min(part.nut_bore.span) - NUT_ROOM if part.nut_bore else 0.0, 0.0) or bush.diameter + NUT_RIM
    nut = Circle(diameter=wide)
    if part.mount == "front":
        return [Seated("bush", 0.0, bush.length, thread), Seated("nut", back, back + high, nut)]
    under = seat - clamped(part, stack, pocket)
    return [Seated("bush", seat - bush.length, seat, thread), Seated("nut", under - high, under, nut)]


def _pip(part: Part, seat: float) -> Seated:
    """The pip against turning: before the body of a part behind, behind the flange of one on the face."""
    key = part.key
    assert key is not None
    slot = Rect(width=key.length, height=key.width, radius=min(key.width, key.length) * 0.25)
    x, y = key.radius * cos(radians(key.angle)), key.radius * sin(radians(key.angle))
    z0, z1 = (seat, seat + key.height) if part.mount == "front" else (seat - key.height, seat)
    return Seated("key", z0, z1, slot, x, y, key.angle)


def behind(part: Part, stack: tuple[Layer, ...], pocket: float = 0.0) -> tuple[Seated, ...]:
    """The slices of a part's body and steps that reach behind the plate; the wires' room belongs to the deepest."""
    back = thickness(stack)
    solid = [s for s in seated(part, stack, pocket) if s.kind == "body" and s.z1 > back + SHORTEST]
    if not solid:
        return (Seated("body", back, back + part.plug, body_shape(part), part.behind_x, part.behind_y),)
    deepest = max(s.z1 for s in solid)
    return tuple(s._replace(z1=s.z1 + part.plug) if s.z1 == deepest else s for s in solid)


def depth_behind_front(part: Part, stack: tuple[Layer, ...], pocket: float = 0.0) -> float:
    """How far (mm) the part reaches behind the panel's front surface, wires' bend included."""
    return max(s.z1 for s in behind(part, stack, pocket))


def cutouts(part: Part, stack: tuple[Layer, ...], pocket: float = 0.0, digits: int | None = None) -> tuple[Cutout, ...]:
    """Every opening the part needs, layer by layer from the front; ``digits`` of a read-out are left showing."""
    slices = seated(part, stack, pocket)
    made: list[Cutout] = []
    hidden = nut_layer(part, stack)
    solid = [s for s in sheets(stack) if is_plate(s.layer)]
    for i, sheet in enumerate(solid):
        if part.mount == "window":
            made += _behind_window(part, sheet, slices, digits, first=i == 0)
        elif i == hidden and part.nut_bore is not None:
            made.append(Cutout(sheet.layer.id, "nut", part.nut_bore))
        else:
            made.append(Cutout(sheet.layer.id, "hole", part.hole))
        made += [Cutout(sheet.layer.id, "hole", e.shape, e.x, e.y, e.turn) for e in part.extras]
        made += [_slot(sheet.layer, s) for s in slices if s.kind == "key" and _meets(s, sheet)]
        made += _pockets(part, sheet, slices)
    for sheet in sheets(stack):
        if not is_plate(sheet.layer):
            made += _through_board(sheet, slices)
    return tuple(made)


def _meets(s: Seated, sheet: Sheet) -> bool:
    return s.z0 < sheet.z1 - SHORTEST and s.z1 > sheet.z0 + SHORTEST


def _slot(layer: Layer, s: Seated) -> Cutout:
    return Cutout(layer.id, "key", s.shape, s.x, s.y, s.turn)


def _pockets(part: Part, sheet: Sheet, slices: tuple[Seated, ...]) -> Iterator[Cutout]:
    """The seats that bodies behind are sunk into, cut from behind as deep as the body goes in."""
    if part.mount != "behind":
        return
    for s in slices:
        if s.kind == "body" and _meets(s, sheet):
            depth = sheet.z1 - s.z0
            through = None if s.z0 <= sheet.z0 + SHORTEST else depth
            yield Cutout(sheet.layer.id, "pocket", s.shape.grown(SEAT_ROOM), s.x, s.y, s.turn, through)


def _through_board(sheet: Sheet, slices: tuple[Seated, ...]) -> Iterator[Cutout]:
    for s in slices:
        if s.kind in ("body", "nut", "plug") and _meets(s, sheet):
            yield Cutout(sheet.layer.id, "wiring", s.shape.grown(WIRE_ROOM), s.x, s.y, s.turn)


def _behind_window(
    part: Part, sheet: Sheet, slices: tuple[Seated, ...], digits: int | None, first: bool
) -> Iterator[Cutout]:
    """The window, the room of what lies behind it, and where a sheet holds it from behind, its cable's way out."""
    if first or part.recess is None:
        shape, right = part.window(digits)
        yield Cutout(sheet.layer.id, "window", shape, right)
    elif part.cable in SIDES and all(s.z1 <= sheet.z0 + SHORTEST for s in slices if s.kind == "body"):
        yield _cable_pass(part, part.recess, sheet.layer)
    else:
        yield Cutout(sheet.layer.id, "recess", part.recess, part.behind_x, part.behind_y)


def _cable_pass(part: Part, recess: Shape, layer: Layer) -> Cutout:
    """A slot over the edge that the cable leaves at, half as long as that, so that the rest of the sheet holds it."""
    wide, high = recess.span
    across, up = SIDES[part.cable]
    size = (CABLE, high / 2) if across else (wide / 2, CABLE)
    x, y = part.behind_x + across * (wide - CABLE) / 2, part.behind_y + up * (high - CABLE) / 2
    slot = Rect(width=max(size[0], CABLE), height=max(size[1], CABLE), radius=CORNER)
    return Cutout(layer.id, "wiring", slot, x, y)
