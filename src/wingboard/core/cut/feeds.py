"""Speeds and feeds: what a cutter or a beam is set to, from the material, the tool and what the machine can do.

Milling: n = 1000 · vc / (π · D) turns a minute, feed = n · z · fz (any machining handbook; vc in m/min, D and fz in
mm). A laser's cut goes at k · P / t mm/s, k the material's, P its power in watts, t the thickness (common practice:
energy a length and thickness stays the same).
"""

from __future__ import annotations

import math
from typing import NamedTuple

from wingboard.core.record.materials import materials
from wingboard.core.record.workshop import Machine, Material, Tool

RPM = 10_000
"""Taken for a spindle whose speed is not said (turns a minute; common practice: a small router)."""
WATTS = 40.0
"""Taken for a laser whose power is not said (common practice: a small CO2 tube)."""
SHARE = 0.03
"""No tooth takes more than this share of its cutter's diameter (common practice: small cutters break)."""
PLUNGE = 0.3
"""Downwards a mill feeds at this share of what it feeds sideways (common practice)."""
SLOWEST = 2.0
"""A laser that would have to go slower than this (mm/s) takes several passes (common practice: it chars)."""
MOST_PASSES = 20
"""… but no more than these."""
ENGRAVING = 200.0
"""A laser engraves at so many mm/s at the most (common practice)."""
UP_TO_SPEED = 1.5
"""… and at no more than it reaches within so much (mm): slower in corners, it would burn deeper there."""
BURNS = 1 / 6
"""Joules for each mm of way and each mm of depth (from memory: 40 W at a quarter, 200 mm/s, 0.3 mm into acrylic)."""
BURNING = 0.05, 0.25
"""Shares of its power at which a laser engraves: below it may not fire, above it melts edges (common practice)."""
THROUGH = 0.2
"""A cutter goes so much (mm) deeper than the sheet, into the waste board (common practice)."""


class Feeds(NamedTuple):
    """What a tool is set to: turns a minute, feed sideways and down (mm/min), depth of a pass (mm), and what results.

    ``vc`` is the surface speed reached (m/min), ``fz`` what a tooth takes (mm); both 0 for a laser, of whose full power
    ``power`` is the share that is used.
    """

    rpm: float
    feed: float
    plunge: float
    step: float
    vc: float = 0.0
    fz: float = 0.0
    power: float = 1.0


def surface_speed(diameter: float, rpm: float) -> float:
    """How fast (m/min) the edge of a cutter of that diameter (mm) moves: π · D · n / 1000."""
    return math.pi * diameter * rpm / 1000


def milling(material: Material, tool: Tool, machine: Machine) -> Feeds:
    """Feeds of an end mill or a drill in a material: the middle of what is usual, within what the machine can.

    :raises ValueError: the material is not milled.
    """
    usual = materials()[material].milling
    if usual is None:
        raise ValueError(f"{material} is not milled")
    most = machine.spindle_rpm or RPM
    rpm = min(most, 1000 * (usual.vc[0] + usual.vc[1]) / 2 / (math.pi * tool.diameter))
    rpm = max(1.0, round(rpm, -2) if rpm > 200 else round(rpm))
    fz = min((usual.fz[0] + usual.fz[1]) / 2, SHARE * tool.diameter)
    feed = max(1.0, float(math.floor(min(machine.feed, rpm * tool.flutes * fz))))
    step = usual.depth * tool.diameter
    vc = surface_speed(tool.diameter, rpm)
    return Feeds(rpm, feed, max(1.0, round(feed * PLUNGE)), step, vc, feed / (rpm * tool.flutes))


def engraving(material: Material, tool: Tool, machine: Machine, depth: float) -> Feeds:
    """Feeds of a pointed cutter at a depth (mm): as fast as the spindle turns, the least that a tooth should take."""
    usual = materials()[material].milling
    if usual is None:
        raise ValueError(f"{material} is not milled")
    rpm = float(machine.spindle_rpm or RPM)
    width = engraved_width(tool, depth)
    fz = min(usual.fz[0], width / 4)
    feed = max(1.0, float(math.floor(min(machine.feed, rpm * tool.flutes * fz))))
    return Feeds(rpm, feed, max(1.0, round(feed * PLUNGE)), depth, surface_speed(width, rpm), feed / rpm / tool.flutes)


def engraved_width(tool: Tool, depth: float) -> float:
    """How wide (mm) a pointed cutter engraves so deep: w = 2 · d · tan(tip / 2) + flat (geometry)."""
    return min(tool.diameter, 2 * depth * math.tan(math.radians(tool.angle / 2)) + tool.flat)


def engraved_depth(tool: Tool, width: float) -> float:
    """How deep (mm) a pointed cutter goes to engrave so wide: the formula above, turned round; 0 where its flat is."""
    return max(0.0, (width - tool.flat) / (2 * math.tan(math.radians(tool.angle / 2))))


def lasering(material: Material, thickness: float, machine: Machine) -> tuple[Feeds, int]:
    """Feed of a laser's cut through a sheet (mm thick), and how many passes.

    :raises ValueError: a laser does not cut the material.
    """
    known = materials()[material].lasering
    if known is None:
        raise ValueError(f"no laser cuts {material}")
    watts = machine.watts or WATTS
    speed = known * watts / thickness
    passes = max(1, min(MOST_PASSES, math.ceil(SLOWEST / speed - 1e-9)))
    feed = max(1.0, float(math.floor(min(machine.feed, 60 * speed * passes))))
    return Feeds(0.0, feed, feed, thickness / passes), passes


USUAL_DEPTH = 0.3
"""How deep (mm) words are engraved where no coupon said (common practice)."""


def burning(machine: Machine, depth: float) -> tuple[Feeds, float]:
    """Feed and power of a laser that engraves so deep (mm), and how deep it then engraves.

    Depth goes with the energy on each mm of the way, power / speed (to be tuned on a coupon). The speed is one that the
    machine keeps in small letters; where its least power is too much for that, it goes as fast as it can, and may
    engrave deeper than was asked.
    """
    watts = machine.watts or WATTS
    least, most = (share * watts for share in BURNING)
    fastest = min(machine.feed / 60, ENGRAVING)
    needed = BURNS * depth
    kept = min(fastest, math.sqrt(2 * machine.acceleration * UP_TO_SPEED))
    speed = min(fastest, max(min(kept, most / needed), least / needed))
    speed = max(1.0, math.floor(60 * speed)) / 60  # as the file says it
    power = round(min(most, max(least, needed * speed)) / watts, 3)
    feeds = Feeds(0.0, 60 * speed, 60 * speed, 0.0, power=power)
    return feeds, power * watts / speed / BURNS
