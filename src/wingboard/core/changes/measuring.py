"""What follows from calliper readings, and from two parts that share a hole."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from typing import Any

from wingboard.core.record.base import Source
from wingboard.core.record.errors import NotPossible
from wingboard.core.record.part import Part, PartLine, Slice
from wingboard.core.record.reading import Fit, Measured, Reading
from wingboard.core.record.shapes import Circle, Path, Rect, Shape

FIT: dict[Fit, float] = {"snug": 0.1, "free": 0.2, "painted": 0.4}
"""Room (mm) of a hole over the largest reading: snug 0.1, free 0.2, and 0.1 for each coated side (common practice)."""
SPANNER = 1.0
"""Room (mm) round a nut for a tube spanner (common practice)."""


def measured_part(part: Part, readings: Sequence[Reading]) -> Part:
    """The part with the dimensions that follow from the readings; others stay as they are.

    The hole is the largest reading and the fit, the thread the shortest reading, a key's radius the mean.

    :raises NotPossible: a reading of something this part does not have.
    """
    changes: dict[str, Any] = {"readings": tuple(readings)}
    sources = dict(part.sources)
    for reading in readings:
        field, value, formula = _follows(part.model_copy(update=changes), reading)
        changes[field] = value
        sources[field] = Source(kind="computed", note=formula[:120])
        bush = changes.get("bush", part.bush)
        if reading.of == "bush" and bush is not None:
            changes["bush"] = bush.model_copy(update={"diameter": reading.largest})
    return Part.model_validate(part.model_copy(update={**changes, "sources": sources}).model_dump())


def _follows(part: Part, reading: Reading) -> tuple[str, Any, str]:
    of, largest = reading.of, reading.largest
    listed = f"of {', '.join(f'{v:g}' for v in reading.values)}"
    if of == "bush":
        room = FIT[reading.fit]
        round_hole = Circle(diameter=round(largest + room, 2))
        hole = round_hole if isinstance(part.hole, Path) else _resized(part.hole, largest + room, None)
        return "hole", hole, f"largest {listed} + {room:g}, {reading.fit} fit"
    if of in ("nut", "depth", "cover", "body", "body_height"):
        return _outer(part, of, largest, listed)
    if part.bush is not None and of == "thread":
        return "bush", part.bush.model_copy(update={"length": min(reading.values)}), f"thread: least {listed}"
    if part.key is not None and of in ("key_radius", "key_width"):
        if of == "key_radius":
            mean = math.fsum(reading.values) / len(reading.values)
            return "key", part.key.model_copy(update={"radius": round(mean, 2)}), f"radius: mean {listed}"
        wide = round(largest + FIT[reading.fit], 2)
        return "key", part.key.model_copy(update={"width": wide}), f"width: largest {listed} + {FIT[reading.fit]:g}"
    raise NotPossible(f"“{part.name}” has no {of.replace('_', ' ')} to measure", "readings")


def _outer(part: Part, of: Measured, largest: float, listed: str) -> tuple[str, Any, str]:
    if of == "depth":
        return "depth", largest, f"largest {listed}"
    if of == "nut":
        if part.nut_bore is None:
            raise NotPossible(f"“{part.name}” hides no nut", "readings")
        return "nut_bore", Circle(diameter=round(largest + SPANNER, 2)), f"largest {listed} + {SPANNER:g} for a spanner"
    if of == "cover":
        return "cover", _resized(part.cover, largest, None), f"largest {listed}"
    width, height = (None, largest) if of == "body_height" else (largest, None)
    return "body", _resized(part.body, width, height), f"largest {listed}"


def _resized(shape: Shape, width: float | None, height: float | None) -> Shape:
    if isinstance(shape, Circle):
        return Circle(diameter=round(width or height or shape.diameter, 2))
    if isinstance(shape, Rect):
        changes = {"width": round(width or shape.width, 2), "height": round(height or shape.height, 2)}
        return shape.model_copy(update=changes)
    wide, high = shape.span
    return Rect(width=round(width or wide, 2), height=round(height or high, 2))


_FIELD: dict[Measured, str] = {
    "bush": "hole",
    "nut": "nut_bore",
    "key_radius": "key",
    "key_width": "key",
    "thread": "bush",
    "body": "body",
    "body_height": "body",
    "depth": "depth",
    "cover": "cover",
}


def with_cutout(part: Part, shape: Shape) -> Part:
    """The part with an imported hole, which stands until the hole is measured and again when that is withdrawn."""
    sources = {**part.sources, "hole": Source(kind="measure", note="imported cut-out")}
    return part.model_copy(update={"hole": shape, "imported": shape, "sources": sources})


def with_bezel(part: Part, shape: Shape) -> Part:
    """The part with a typed bezel, which stands until it is measured and again when that is withdrawn."""
    sources = {**part.sources, "cover": Source(kind="measure", note="bezel")}
    return part.model_copy(update={"cover": shape, "bezel": shape, "sources": sources})


def unmeasured(part: Part, base: Part) -> Part:
    """The part with what its readings gave put back to what was imported or typed, or else to what ``base`` says.

    A key keeps the angle it was turned to.
    """
    base = with_cutout(base, part.imported) if part.imported is not None else base
    base = with_bezel(base, part.bezel) if part.bezel is not None else base
    fields = {_FIELD[r.of] for r in part.readings}
    if any(r.of == "bush" for r in part.readings):
        fields.add("bush")  # its diameter is what was read
    changes: dict[str, Any] = {name: getattr(base, name) for name in fields}
    if base.key and part.key and "key" in fields:
        changes["key"] = base.key.model_copy(update={"angle": part.key.angle})
    sources = {**part.sources, **{n: base.sources[n] for n in fields if n in base.sources}}
    return part.model_copy(update={**changes, "readings": (), "sources": sources})


_SOURCE_OF: Mapping[Measured, str] = {
    "thread": "bush",
    "nut": "bush",
    "key_radius": "key",
    "key_width": "key",
    "body_height": "body",
}
"""The source of which field says where a dimension comes from, where they are not called the same."""


def sheet_value(part: Part, of: Measured) -> float | None:
    """What the data sheet says (mm) where a reading can be compared with it: the part as it was before measuring.

    A typical figure is none: what somebody else measured says nothing about this part.
    """
    source = part.sources.get(_SOURCE_OF.get(of, of))
    if source is None or source.kind not in ("published", "memory"):
        return None
    if of == "bush":
        return part.bush.diameter if part.bush else None
    if of == "thread":
        return part.bush.length if part.bush else None
    if of in ("key_radius", "key_width"):
        return (part.key.radius if of == "key_radius" else None) if part.key else None
    simple: Mapping[str, float] = {
        "depth": part.depth,
        "body": part.body.span[0],
        "body_height": part.body.span[1],
        "cover": part.cover.span[0],
    }
    return simple.get(of)


def measurable(part: Part) -> tuple[Measured, ...]:
    """What a calliper can read on this part, from the hole backwards."""
    found: list[Measured] = ["bush"] if part.mount != "window" else []
    found += ["nut"] if part.nut_bore else []
    found += ["key_radius", "key_width"] if part.key else []
    found += ["thread"] if part.bush else []
    found += ["body"] if isinstance(part.body, Circle) else ["body", "body_height"]
    return (*found, "depth", "cover")


def combined_part(parts: Sequence[Part], ident: str, name: str) -> Part:
    """Parts on one axis in one hole, the first in front (a rotary with an encoder through its shaft).

    Their depths and heights add, each with its own body behind the one before; hole and cover are the largest of
    them; each keeps its own lines.
    """
    rear = max(parts, key=lambda p: p.hole.span)
    stepped = next((p for p in parts if p.detents), rear)
    sources = {**{k: v for p in parts for k, v in p.sources.items()}, **rear.sources}
    sources["depth"] = Source(kind="computed", note="depths of the parts added")
    sources["body"] = Source(kind="computed", note="one behind the other")
    changes: dict[str, Any] = {
        "id": ident,
        "name": name,
        "base": None,
        "members": tuple(p.id for p in parts),
        "summary": " through ".join(p.name for p in parts)[:120],
        "body": parts[0].body,
        "body_to": parts[0].body_to or parts[0].depth,
        "steps": _one_behind_the_other(parts),
        "cover": _largest([p.cover for p in parts]),
        "hand": max((p.hand for p in parts if p.hand), key=lambda h: h.shape.span, default=None),
        "depth": sum(p.depth for p in parts),
        "plug": max(p.plug for p in parts),
        "height": sum(p.height for p in parts),
        "front": tuple(s for p in sorted(parts, key=lambda p: p.cover.span, reverse=True) for s in p.front)[:60],
        "detents": stepped.detents,
        "positions": stepped.positions,
        "lines": tuple(line for n, p in enumerate(parts, 1) for line in _own_lines(n, p)),
        "terminals": tuple(f"{n}: {t}"[:120] for n, p in enumerate(parts, 1) for t in p.terminals)[:64],
        "price": sum(p.price for p in parts),
        "readings": (),
        "sources": sources,
    }
    return Part.model_validate(rear.model_copy(update=changes).model_dump())


def _one_behind_the_other(parts: Sequence[Part]) -> tuple[Slice, ...]:
    """The bodies behind the first, each from where the one before it ends."""
    made, start = list(parts[0].steps), parts[0].depth
    for p in parts[1:]:
        end = start + (p.body_to or p.depth)
        made.append(Slice(z0=start, z1=end, shape=p.body, x=p.behind_x, y=p.behind_y))
        made += [s.model_copy(update={"z0": s.z0 + start, "z1": s.z1 + start}) for s in p.steps]
        start += p.depth
    return tuple(made[:20])


def _own_lines(n: int, part: Part) -> list[PartLine]:
    return [line.model_copy(update={"id": f"{'abcd'[n - 1]}-{line.id}"[:48]}) for line in part.lines]


def _largest(shapes: Sequence[Shape]) -> Shape:
    if all(isinstance(s, Circle) for s in shapes):
        return max(shapes, key=lambda s: s.span)
    return Rect(width=max(s.span[0] for s in shapes), height=max(s.span[1] for s in shapes))
