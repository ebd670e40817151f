"""The light behind a module as it is wired: strips, addressable chains with their data, rows of single LEDs.

Strips of 12 V hang side by side on their supply; an addressable chain runs from strip to strip with power fed in again
where it gets long; single LEDs stand in rows of up to three with one resistor (light/power). Lengths in mm, amperes.
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import Literal, NamedTuple

from wingboard.core.findings.limits import limit
from wingboard.core.light.kinds import LEDS, STRIPS
from wingboard.core.light.power import IN_A_ROW, SINGLE_SUPPLY, strip_use
from wingboard.core.light.resistor import next_e24
from wingboard.core.parts.carriers import DIMMER
from wingboard.core.record.lights import Backlight, Led, LedKind
from wingboard.core.record.modules import Module
from wingboard.core.resolved.boards import board_front
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.netlist import GROUND, Device, Joining, Port, board_id
from wingboard.core.wire.rails import Rails
from wingboard.core.wire.signals import Line


class Lit(NamedTuple):
    """A strip or a single LED on a module: its device, place (mm), amperes when fully lit, and the terminals that feed
    it (one LED of a row is fed by the one before)."""

    device: str
    module: str
    x: float
    y: float
    z: float
    amps: float
    level: float
    plus: tuple[str, ...]
    minus: tuple[str, ...]


class Row(NamedTuple):
    """LEDs one behind the other with one resistor; ``amps`` through all of them."""

    id: str
    module: str
    leds: tuple[Led, ...]
    ohms: float
    amps: float
    level: float


def owner_of(module: str) -> str:
    """What the small parts of a module's light belong to."""
    return f"light.{module}"


def light_lines(r: Resolved) -> Iterator[Line]:
    """A line for the data of each module's addressable chain, and one that dims what else lights it."""
    for module in r.design.modules:
        if module.light and any(STRIPS[s.kind].chain and strip_use(s).leds for s in module.light.strips):
            yield _line(module, "data", "light data", None)
        if module.light and dimmed(module.light):
            yield _line(module, "dim", "light dimmer", "PWM")


def _line(module: Module, end: str, terminal: str, prefers: Literal["PWM"] | None) -> Line:
    ident = f"~light-{module.id}"
    return Line(
        id=f"{ident}.{end}", function="", name=f"{module.name}, light", terminal=terminal, module=module.id,
        direction="out", analogue=False, prefers=prefers, current=0.0, drop=0.0, volts=0.0, lamp=False, bus=None,
        pin_current=0.0, chip_current=0.0, transistor=False, network=ident,
    )  # fmt: skip


def plain(light: Backlight) -> bool:
    """Whether something lights a module that no data dims."""
    return bool(light.leds) or any(not STRIPS[s.kind].chain and strip_use(s).leds for s in light.strips)


def dimmed(light: Backlight) -> bool:
    """Whether a pin dims the light of a module, and there is some that it can dim."""
    return light.dimmer and plain(light)


def lit(r: Resolved) -> tuple[Lit, ...]:
    """Every strip and LED that lights a module from behind."""
    return r.once("lit from behind", lambda: tuple(_lit(r)))


def _lit(r: Resolved) -> Iterator[Lit]:
    for module in r.design.modules:
        light = module.light
        if light is None:
            continue
        front = board_front(r.design.stack_of(module))
        fed = _fed_in(r, light)
        for s in light.strips:
            use = strip_use(s)
            if use.leds:
                more = tuple(f"+{n}" for n in fed.get(s.id, ())), tuple(f"-{n}" for n in fed.get(s.id, ()))
                yield Lit(f"light.{module.id}.{s.id}", module.id, s.x, s.y, front if s.z is None else s.z, use.amps,
                          light.level, ("+", *more[0]), ("-", *more[1]))  # fmt: skip
        for led in light.leds:
            z = front if led.z is None else led.z
            yield Lit(f"light.{module.id}.{led.id}", module.id, led.x, led.y, z, 0.0, light.level, (), ())


def _fed_in(r: Resolved, light: Backlight) -> dict[str, list[int]]:
    """By addressable strip the LEDs before which power is fed in again, counted along the strip from 1."""
    chain = [s for s in light.strips if STRIPS[s.kind].chain and strip_use(s).leds]
    many = sum(strip_use(s).leds for s in chain)
    if not many:
        return {}
    each = math.ceil(many / math.ceil(many / max(limit(r.design, "chain-run"), 1.0)))
    found: dict[str, list[int]] = {}
    before = 0
    for s in chain:
        leds = strip_use(s).leds
        found[s.id] = [n - before + 1 for n in range(each, many, each) if before < n < before + leds]
        before += leds
    return found


def rows(r: Resolved) -> tuple[Row, ...]:
    """The single LEDs of every module in rows: alike ones, each with the nearest that is left."""
    there = [(m.id, m.light) for m in r.design.modules if m.light]
    return r.once("rows of LEDs", lambda: tuple(row for ident, light in there for row in _rows(ident, light)))


def _rows(module: str, light: Backlight) -> Iterator[Row]:
    alike: dict[tuple[LedKind, float], list[Led]] = {}
    for led in light.leds:
        alike.setdefault((led.kind, led.level), []).append(led)
    number = 0
    for (kind, level), left in sorted(alike.items()):
        what = LEDS[kind]
        while left:
            row = [left.pop(0)]
            while left and len(row) < IN_A_ROW:
                here = row[-1]
                nearest = min(left, key=lambda led: math.dist((here.x, here.y), (led.x, led.y)))
                left.remove(nearest)
                row.append(nearest)
            number += 1
            amps = what.amps * level
            ohms = next_e24((SINGLE_SUPPLY - len(row) * what.drop) / amps)
            yield Row(f"light.{module}.row-{number}", module, tuple(row), ohms, amps, light.level)


def join_lights(r: Resolved, joining: Joining, rails: Rails) -> None:
    """Join the light of every module with its supply, and its data with the pin that it has."""
    pins = {p.line: Port(board_id(p.controller), p.pin) for p in r.design.pins}
    ends: dict[str, str] = {}
    for module in r.design.modules:
        if module.light:
            if dimmed(module.light):
                ends[module.id] = _dimmer(joining, module, pins)
            there = {x.device: x for x in lit(r)}
            _strips(joining, rails, module.id, module.light, there, pins, ends.get(module.id))
    for row in rows(r):
        _row(joining, rails, row, ends.get(row.module))


AT_GATE, HOLDS_DARK = 150.0, 10_000.0
"""Ohms between pin and gate, and from gate to ground: it stays dark while the pin floats (common practice)."""


def _dimmer(joining: Joining, module: Module, pins: dict[str, Port]) -> str:
    """A transistor between the light of a module and ground; gives the net that the light returns on."""
    line, of = f"~light-{module.id}.dim", owner_of(module.id)
    name = f"dims the light behind {module.name}"
    q = joining.add(Device(f"{of}.q", "mosfet", name, ("G", "D", "S"), DIMMER.amps, of, module.id))
    gate, dark = (
        joining.add(Device(f"{of}.{ident}", "resistor", words, ("1", "2"), ohms, of, module.id))
        for ident, words, ohms in (
            ("q-rg", "at the gate of the dimmer", AT_GATE), ("q-off", "keeps the light dark", HOLDS_DARK),
        )
    )  # fmt: skip
    joining.join(line, Port(gate.id, "1"), *([pins[line]] if line in pins else []))
    joining.join(f"{of}.gate", Port(gate.id, "2"), Port(q.id, "G"), Port(dark.id, "1"))
    joining.join(GROUND, Port(q.id, "S"), Port(dark.id, "2"), kind="ground")
    return joining.join(f"{of}.dimmed", Port(q.id, "D"), kind="load")


def _strips(
    joining: Joining, rails: Rails, module: str, light: Backlight, there: dict[str, Lit], pins: dict[str, Port],
    end: str | None,
) -> None:  # fmt: skip
    data = f"~light-{module}.data"
    before: Port | None = pins.get(data)
    for n, s in enumerate(light.strips, 1):
        spot, kind = there.get(f"light.{module}.{s.id}"), STRIPS[s.kind]
        if spot is None:
            continue
        ports = (*spot.plus, *spot.minus, *(("DIN", "DOUT") if kind.chain else ()))
        joining.add(Device(spot.device, "light", f"light strip {n}", ports, of=owner_of(module), module=module))
        joining.join(rails.volts(kind.volts), *(Port(spot.device, t) for t in spot.plus), kind="supply")
        back = end if end and not kind.chain else rails.back(kind.volts)
        joining.join(back, *(Port(spot.device, t) for t in spot.minus), kind="ground" if back != end else "load")
        if kind.chain:
            link = [Port(spot.device, "DIN"), *([before] if before else [])]
            joining.join(data if before is None or before == pins.get(data) else f"{spot.device}.data", *link)
            before = Port(spot.device, "DOUT")


def _row(joining: Joining, rails: Rails, row: Row, end: str | None) -> None:
    of = owner_of(row.module)
    name = f"in series with {len(row.leds)} LEDs behind" if len(row.leds) > 1 else "in series with an LED behind"
    made = joining.add(Device(f"{row.id}-r", "resistor", name, ("1", "2"), row.ohms, of, row.module))
    joining.join(rails.volts(SINGLE_SUPPLY), Port(made.id, "1"), kind="supply")
    before = Port(made.id, "2")
    for led in row.leds:
        device = Device(f"light.{row.module}.{led.id}", "light", f"LED {led.id}", ("anode", "cathode"), of=of,
                        module=row.module)  # fmt: skip
        joining.add(device)
        joining.join(f"{device.id}.on", before, Port(device.id, "anode"))
        before = Port(device.id, "cathode")
    joining.join(end or rails.back(SINGLE_SUPPLY), before, kind="load" if end else "ground")


def light_at(r: Resolved, volts: float) -> float:
    """What all light behind takes from a supply of so many volts, fully lit."""
    strips = (use for m in r.design.modules if m.light for use in map(strip_use, m.light.strips))
    singles = sum(row.amps for row in rows(r)) if volts == SINGLE_SUPPLY else 0.0
    return math.fsum(use.amps for use in strips if use.volts == volts) + singles
