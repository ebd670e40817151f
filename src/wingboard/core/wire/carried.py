"""The loads of a function: which contact each belongs to, and whether a controller can drive and see them."""

from __future__ import annotations

from typing import NamedTuple

from wingboard.core.brief.wanted import duty_of
from wingboard.core.parts.carriers import CONTACTS
from wingboard.core.record.design import Design
from wingboard.core.record.functions import AC_UNLESS_SAID, Switched, emergency
from wingboard.core.record.lamps import apart_from_logic, lamp_supply, lights
from wingboard.core.record.part import PartLine
from wingboard.core.resolved.placed import Placed
from wingboard.core.wire.stops import breaking_lines, breaks_power
from wingboard.core.wire.terminals import Said, said

LEAST_DIVIDED = 5.0
"""Volts of a load that a divider makes a level of that every board here reads as high."""


class Carried(NamedTuple):
    """A load: ``id`` begins the names of all that belongs to it, ``contact`` is the one that it is switched with, None
    where a controller decides alone. ``at`` tells it from others of its function."""

    id: str
    contact: PartLine | None
    at: str


def has_load(placed: Placed) -> bool:
    """Whether a placed function switches a load that is wired; a breaker protects one and switches none."""
    f = placed.function
    if f.state in ("alias", "dummy") or duty_of(f, placed.part) == "protection":
        return False
    return not lights(f, placed.part)


def carried(placed: Placed) -> tuple[Carried, ...]:
    """The loads of a function that has some: one for each position, switched by the first contact that closes there."""
    f = placed.function
    if breaks_power(placed):
        return (Carried(f"{f.id}.out", None, ""),)
    more = {line.id for line in second_poles(placed)}
    contacts = [line for line in _contacts(placed) if line.id not in more]
    if not contacts and f.switches.driven == "controller":
        return (Carried(f"{f.id}.out", None, ""),)
    one = len(contacts) == 1
    return tuple(Carried(f"{f.id}.{line.id}", line, "" if one else f" at {line.terminal}") for line in contacts)


def _contacts(placed: Placed) -> list[PartLine]:
    return [line for line in said(placed.part).lines.values() if line.does == "switch" and not line.each_position]


def second_poles(placed: Placed) -> tuple[PartLine, ...]:
    """The contacts that close in the same positions as one before them, and share no terminal with it."""
    first: dict[tuple[str, ...], PartLine] = {}
    found = []
    for line in _contacts(placed):
        before = first.setdefault(line.closed, line)
        if before is not line and not {line.terminal, line.back} & {before.terminal, before.back}:
            found.append(line)
    return tuple(found)


def read_by_itself(placed: Placed, line: PartLine) -> bool:
    """Whether a contact of a function goes to a controller: not when it is in the circuit of its load or of the lamp
    test."""
    f = placed.function
    if line.does != "switch":
        return True
    if breaks_power(placed):
        return line.id not in breaking_lines(placed.part)
    if f.tests_lamps:
        return False
    if f.switches.amps <= 0:
        return True
    second = line.id in {pole.id for pole in second_poles(placed)}
    return not second if f.switches.driven == "controller" else second and f.switches.seen == "pole"


def unlit(placed: Placed, line: PartLine) -> str:
    """Why a lamp at a dangerous voltage, or on AC, cannot be wired; empty when it can, and for all other lines."""
    if line.does != "lamp":
        return ""
    supply = lamp_supply(placed.function, placed.part, line)
    if not apart_from_logic(supply):
        return ""
    volts = f"{supply.volts:g} V {supply.kind}"
    if not line.volts:
        return f"its LED is for a few volts DC: at {volts} choose a lamp that is made for it"
    if not line.back:
        return f"the other terminal of {line.terminal} is not specified: nothing is wired at {volts}"
    of_part = said(placed.part)
    others = {t for x in of_part.lines.values() if x.does != "lamp" for t in (x.terminal, x.back, *(x.ends or ()))}
    others |= {t for c in of_part.contacts for t in (c.a, c.b)}
    others |= {*of_part.feed.plus, *of_part.feed.minus} if of_part.feed else set()
    shared = {line.terminal, line.back} & others
    if shared:
        return f"{shared.pop()} is common to its lamp and to other lines: no lamp at {volts} there"
    return ""


def on_ground(told: Said, terminal: str) -> bool:
    """Whether something beside a contact has its ground on a terminal: a lamp, a divider, what feeds the part."""
    lows = {line.back for line in told.lines.values() if line.does != "switch"}
    lows |= {line.ends[0] for line in told.lines.values() if line.ends}
    return terminal in lows or (told.feed is not None and terminal in told.feed.minus)


def unthrown(placed: Placed, one: Carried) -> tuple[str, bool]:
    """Why a control's contact cannot switch a load, and whether what is said is wrong; empty when it can."""
    load, contact = placed.function.switches, one.contact
    if breaks_power(placed) or load.driven == "controller":
        return "", False
    if contact is None or not contact.back:
        return f"the other terminal of {contact.terminal if contact else 'its contact'} is not said", False
    apart = not load.through and (load.alternating or load.volts >= AC_UNLESS_SAID)
    if on_ground(said(placed.part), contact.back) and (apart or load.through == "transistor"):
        return f"{contact.back} of its contact is on ground: that cannot switch such a load", True
    return "", False


def unseen(placed: Placed, way: str) -> str:
    """Why a controller cannot see a load in that way; empty when it can."""
    load = placed.function.switches
    if way and breaks_power(placed):
        return "a stop that breaks power reports by a second contact of its own"
    if way == "pole" and load.driven == "controller":
        return "a controller that drives the load reads its control anyway"
    if way == "pole" and not second_poles(placed):
        return "its part has no second pole that closes with the first"
    if way == "auxiliary" and load.through not in ("relay", "contactor"):
        return "only a relay or a contactor has an auxiliary contact"
    if way == "divider" and (load.alternating or load.volts >= AC_UNLESS_SAID):
        return f"a divider is for DC under {AC_UNLESS_SAID:g} V: what is more never comes near a pin"
    if way == "divider" and load.volts < LEAST_DIVIDED:
        return f"a divider is for loads of {LEAST_DIVIDED:g} V and more: of less a pin may read nothing"
    return ""


def coil_volts(design: Design, load: Switched) -> float:
    """The volts of the coil that carries a load: the load's own where they are for one, else those of the highest
    supply on hand under 50 V, 24 where there is none."""
    if not load.alternating and 0 < load.volts < AC_UNLESS_SAID:
        return load.volts
    low = [s.volts for s in design.workshop.supplies if 5 < s.volts < AC_UNLESS_SAID]
    return max(low, default=24.0)


def stop_coil_volts(design: Design) -> float:
    """The volts of the coil of a relay that emergency stops hold on: as of any load that needs a coil of its own."""
    return coil_volts(design, Switched())


def coil_amps(design: Design, load: Switched) -> float:
    """What the coil draws that carries a load."""
    return CONTACTS[load.through].watts / coil_volts(design, load)


def undriven(placed: Placed) -> str:
    """Why a controller cannot drive a load as it is said to; empty when it can, or shall not."""
    f = placed.function
    if breaks_power(placed) and f.switches.through == "transistor":
        return "a transistor can fail closed: a stop breaks power by contacts"
    if f.switches.driven == "contact":
        return ""
    if not f.switches.through:
        return "a controller drives a load only through a relay, a contactor or a transistor: say which"
    high = f.switches.alternating or f.switches.volts >= AC_UNLESS_SAID
    if f.switches.through == "transistor" and high:
        return f"a transistor that a pin drives is for DC under {AC_UNLESS_SAID:g} V: take a relay"
    return "no program is between an emergency control and what it stops" if emergency(f, placed.part) else ""
