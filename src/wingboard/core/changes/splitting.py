"""Modules that fill an opening side by side, with a gap all round and seams between them."""

from __future__ import annotations

from collections.abc import Sequence
from math import hypot

from wingboard.core.geometry.offset import inset, strip
from wingboard.core.geometry.outline import Loop, area_of, moved
from wingboard.core.record.errors import NotPossible
from wingboard.core.record.lights import SHORTEST_STRIP, Backlight
from wingboard.core.record.modules import Fixings, Module, Mounted
from wingboard.core.record.outlines import RectOutline, path_of
from wingboard.core.record.space import Brief, fitting_opening

CORNER = 3.0
"""Radius (mm) of a rectangular module's corners."""
NARROWEST = 5.0
"""A module is no narrower than this (mm)."""


def split(brief: Brief, names: Sequence[str], shares: Sequence[float], seam: float) -> tuple[Module, ...]:
    """One module a name, left to right, each its share of the width that the gap and the seams leave.

    :raises NotPossible: the opening is too narrow, or too odd a shape, for that.
    """
    if shares and len(shares) != len(names):
        raise NotPossible(f"{len(names)} modules and {len(shares)} shares", "shares")
    parts = shares or [1.0] * len(names)
    try:
        room = inset(fitting_opening(brief).loop(), brief.gap)
    except ValueError as error:
        raise NotPossible(f"The opening cannot be drawn in by the gap: {error}", "shares") from error
    x0, _, x1, _ = area_of(room).bounds
    wide = x1 - x0 - seam * (len(names) - 1)
    if wide / sum(parts) * min(parts) < NARROWEST:
        raise NotPossible(f"That leaves a module narrower than {NARROWEST:g} mm", "names")
    made, x = [], x0
    for n, (name, share) in enumerate(zip(names, parts, strict=True), 1):
        width = wide * share / sum(parts)
        made.append(_module(f"module-{n}", name, room, x, x + width))
        x += width + seam
    return tuple(made)


def _module(ident: str, name: str, room: Loop, x0: float, x1: float) -> Module:
    try:
        piece = strip(room, x0, x1)
    except ValueError as error:
        raise NotPossible(str(error), "shares") from error
    left, low, right, high = area_of(piece).bounds
    if len(piece) == 4 and abs(area_of(piece).area - (right - left) * (high - low)) < 1:
        shape = RectOutline(width=round(right - left, 3), height=round(high - low, 3), radius=CORNER)
        return Module(id=ident, name=name, outline=shape, x=round(left, 3), y=round(low, 3))
    return Module(id=ident, name=name, outline=path_of(moved(piece, -left, -low)), x=round(left, 3), y=round(low, 3))


def split_module(
    module: Module, pieces: int, seam: float, taken: set[str], at: Sequence[float] | None = None
) -> tuple[Module, ...]:
    """A module as pieces with seams between; each keeps its layers, screws and tolerance.

    :param taken: ids of modules there are; the first piece keeps the module's own.
    :param at: the seams' middles (mm from the module's left edge); pieces of equal width when none are said.
    :raises NotPossible: a piece would be too narrow, or the outline cannot be cut there.
    """
    loop = module.outline.loop()
    x0, _, x1, _ = area_of(loop).bounds
    if at is not None and len(at) != pieces - 1:
        raise NotPossible(f"{pieces} pieces have {pieces - 1} seams between them, not {len(at)}", "at")
    width = (x1 - x0 - seam * (pieces - 1)) / pieces
    middles = sorted(x0 + x for x in at) if at else [x0 + n * (width + seam) - seam / 2 for n in range(1, pieces)]
    spans = list(zip([x0, *(x + seam / 2 for x in middles)], [*(x - seam / 2 for x in middles), x1], strict=True))
    if min(right - left for left, right in spans) < NARROWEST:
        raise NotPossible(f"That leaves a module narrower than {NARROWEST:g} mm", "at" if at else "pieces")
    made, ids = [], set(taken)
    for n, (left, right) in enumerate(spans):
        piece = _module(module.id, f"{module.name[:110]} {n + 1}", loop, left, right)
        ident = module.id if n == 0 else next(i for k in range(1, 999) if (i := f"module-{k}") not in ids)
        ids.add(ident)
        where = {"id": ident, "x": round(module.x + piece.x, 3), "y": round(module.y + piece.y, 3)}
        mine = {
            "fixings": _screws_between(module, left, right),
            "mounted": _boards_of(module, n, spans),
            "light": _light_between(module, left, right),
        }
        made.append(module.model_copy(update={**where, **mine, "name": piece.name, "outline": piece.outline}))
    return tuple(made)


def _screws_between(module: Module, left: float, right: float) -> Fixings | None:
    """The screws placed by hand between two cuts, in the coordinates of the piece; those of its corners are its own."""
    if module.fixings is None or not module.fixings.by_hand:
        return module.fixings
    kept = [s.model_copy(update={"x": s.x - left}) for s in module.fixings.by_hand if left <= s.x <= right]
    return module.fixings.model_copy(update={"by_hand": tuple(kept)})


def _light_between(module: Module, left: float, right: float) -> Backlight | None:
    """The lights behind a piece between two cuts, in its coordinates; a strip that crosses a cut is cut there too."""
    if module.light is None:
        return None
    strips = []
    for s in module.light.strips:
        span = s.x2 - s.x
        ends = sorted(((left - s.x) / span, (right - s.x) / span)) if span else [0.0, 1.0]
        a, b = max(0.0, ends[0]), min(1.0, ends[1])
        inside = span != 0 or left <= s.x <= right
        if inside and (b - a) * hypot(span, s.y2 - s.y) >= SHORTEST_STRIP:
            at = [(s.x + t * span - left, s.y + t * (s.y2 - s.y)) for t in (a, b)]
            (x, y), (x2, y2) = [(round(p, 3), round(q, 3)) for p, q in at]
            strips.append(s.model_copy(update={"x": x, "y": y, "x2": x2, "y2": y2}))
    leds = [led.model_copy(update={"x": led.x - left}) for led in module.light.leds if left <= led.x <= right]
    return module.light.model_copy(update={"strips": tuple(strips), "leds": tuple(leds)})


def _boards_of(module: Module, n: int, spans: Sequence[tuple[float, float]]) -> tuple[Mounted, ...]:
    """The boards behind the n-th piece: each goes with the one under its middle."""

    def under(x: float) -> int:
        return min(range(len(spans)), key=lambda k: max(spans[k][0] - x, x - spans[k][1]))

    left, _ = spans[n]
    return tuple(b.model_copy(update={"x": b.x - left}) for b in module.mounted if under(b.x) == n)
