"""Parts for a function, ranked by what each costs on this panel: pins, wires, depth, money, room; and misfits."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from typing import Literal, NamedTuple

from wingboard.core.brief.wanted import family_of, ways_wanted
from wingboard.core.findings.limits import limit
from wingboard.core.parts.surroundings import unsuited
from wingboard.core.quantity import VISIBLE
from wingboard.core.record.functions import Function
from wingboard.core.record.lamps import COLOURS, takes_colours
from wingboard.core.record.part import Family, Part
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.profile import depth_behind_front, thickness, thread_needed

Scheme = Literal["direct", "ladder"]
RELATED: Mapping[Family, tuple[Family, ...]] = {
    "toggle": ("rocker", "button", "key"),
    "button": ("rocker", "toggle"),
    "rocker": ("toggle", "button"),
    "key": ("toggle",),
    "emergency": (),
    "rotary": ("encoder", "thumbwheel"),
    "encoder": ("thumbwheel", "rotary", "pot"),
    "pot": ("slider", "encoder"),
    "slider": ("pot",),
    "thumbwheel": ("encoder", "rotary"),
    "lamp": ("caption",),
    "caption": ("lamp",),
    "readout": ("display", "gauge"),
    "display": ("readout",),
    "gauge": ("readout", "display"),
}
"""Families that can do the same work, nearest first (common practice)."""


class Candidate(NamedTuple):
    """One way to make a function, and what it costs. Lengths in mm, money in minor units."""

    part: Part
    scheme: Scheme
    pins: int
    analogue: int
    wires: int
    depth: float
    depth_left: float
    room: float
    money: int
    misfits: tuple[str, ...]
    score: float


def candidates(r: Resolved, function: Function, parts: Iterable[Part], most: int = 12) -> tuple[Candidate, ...]:
    """The parts that could make the function, best first, those that do not fit last.

    Money and parts come first in the ranking only among equals in fit: a pin weighs as much as 100 minor units, a
    wire as 40, a millimetre of hand room as 4 (common practice of counting what an hour of soldering costs).
    """
    chosen = r.parts.get(function.part or "")
    wanted = family_of(function, function.name) or (chosen.family if chosen else None)
    families = (wanted, *RELATED.get(wanted, ())) if wanted else ()
    found = [
        _candidate(r, function, part, scheme, families)
        for part in parts
        if not families or part.family in families
        for scheme in _schemes(part)
    ]
    return tuple(sorted(found, key=lambda c: (bool(c.misfits), c.score, c.part.id)))[:most]


def _schemes(part: Part) -> tuple[Scheme, ...]:
    return ("direct", "ladder") if any(line.each_position for line in part.lines) else ("direct",)


def pins_of(part: Part, positions: int, scheme: Scheme) -> tuple[int, int]:
    """Digital and analogue pins a part uses: a ladder reads all positions of a rotary on one analogue pin."""
    digital = analogue = 0
    for line in part.lines:
        many = positions if line.each_position else 1
        if line.does == "analogue" or (line.each_position and scheme == "ladder"):
            analogue += 1
        else:
            digital += many
    return digital, analogue


def wires_of(part: Part, pins: int, scheme: Scheme) -> int:
    """Wires to solder: a pin each, a common, and the supply of what has one (a ladder needs both its ends fed)."""
    if not part.lines:
        return len(part.terminals)
    fed = part.feed is not None or any(line.does == "analogue" for line in part.lines) or scheme == "ladder"
    return pins + (2 if fed else 1)


def _candidate(
    r: Resolved, function: Function, part: Part, scheme: Scheme, families: tuple[Family | None, ...]
) -> Candidate:
    positions = ways_wanted(function) or part.ways
    digital, analogue = pins_of(part, positions, scheme)
    wires = wires_of(part, digital + analogue, scheme)
    depth = depth_behind_front(part, r.stack_for(function))
    room = _room(r, part)
    extra = 35 if scheme == "ladder" else 0
    money = part.price + extra
    away = families.index(part.family) if part.family in families else 0
    score = away * 5000 + money + 100 * (digital + analogue) + 40 * wires + 4 * room + _unlike(function, part)
    fits = _misfits(r, function, part)
    left = r.design.brief.depth - depth
    return Candidate(part, scheme, digital, analogue, wires, depth, left, room, money, fits, score)


def _room(r: Resolved, part: Part) -> float:
    """Width (mm) the part takes in a row of its kind: what is touched, or seen, and the least distance to the next."""
    if part.hand is None:
        return part.cover.span[0] + limit(r.design, "bridge-least")
    kind = "button" if part.hand.kind == "emergency" else part.hand.kind
    return part.hand.shape.span[0] + limit(r.design, f"{kind}-spacing")


def _unlike(function: Function, part: Part) -> float:
    """How far the part's words are from those wanted: 600 for each wish they do not meet, 3000 for a figure.

    A colour is met by what can be had in any.
    """
    colours = COLOURS if takes_colours(part) else ()
    has = f"{part.name} {part.summary} {part.colour} {part.action}".lower()
    wishes = [w for w in function.want.lower().replace(",", " ").split() if len(w) > 2 or w.isdigit()]
    said = set(has.replace(",", " ").split())
    missing = sum(600 for w in wishes if not w.isdigit() and w not in colours and w.rstrip("s") not in has)
    missing += sum(3000 for w in wishes if w.isdigit() and w not in said)
    lit = any(line.does == "lamp" for line in part.lines) and part.family in ("button", "rocker")
    wants_light = "lit" in wishes or bool(function.indicator)
    ways = ways_wanted(function)
    spare = max(0, part.ways - ways) * 60 if ways else 0
    return missing + (800 if lit != wants_light and part.family in ("button", "rocker") else 0) + spare


def _misfits(r: Resolved, function: Function, part: Part) -> tuple[str, ...]:
    """Why a part does not fit here, in words with figures."""
    why = []
    ways = ways_wanted(function)
    if ways > part.ways and (part.ways or ways > 1):
        why.append(f"{part.ways} positions, {ways} wanted")
    need = thread_needed(part, r.stack_for(function))
    if part.bush and need > part.bush.length + VISIBLE:
        why.append(f"thread {need - part.bush.length:.1f} mm short in this stack")
    depth = depth_behind_front(part, r.stack_for(function))
    if depth > r.design.brief.depth + VISIBLE:
        why.append(f"{depth - r.design.brief.depth:.1f} mm too deep")
    solid = thickness(r.stack_for(function))
    if part.sheet and not part.sheet.takes(solid):
        why.append(f"takes {part.sheet.least:g} to {part.sheet.most:g} mm of sheet, the stack is {solid:g}")
    s = function.switches
    if part.rating and s.amps > part.rating.amps:
        why.append(f"switches {part.rating.amps:g} A, the load draws {s.amps:g}; a relay would")
    if part.rating and s.volts > part.rating.volts:
        why.append(f"for {part.rating.volts:g} V, the load has {s.volts:g}")
    if function.risk == "guarded" and not part.guarded and part.hand is not None:
        why.append("has no guard")
    return (*why, *unsuited(part, r.design.brief.environment).values())
