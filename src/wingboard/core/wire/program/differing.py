"""What a board's program does, thing by thing, in words that two revisions can be compared by."""

from __future__ import annotations

import zlib
from typing import Literal, NamedTuple

from wingboard.core.findings.limits import limit
from wingboard.core.light.kinds import STRIPS
from wingboard.core.light.power import strip_use
from wingboard.core.record.controllers import Board, board_of
from wingboard.core.record.lamps import wanted_colour
from wingboard.core.record.outputs import Lost
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.pinlist import places_in
from wingboard.core.wire.program.channels import Channel, channels
from wingboard.core.wire.schemes.chips import EXPANDER
from wingboard.core.wire.schemes.expander import address_words
from wingboard.core.wire.schemes.ladder import Ladder, ladder
from wingboard.core.wire.schemes.networks import networks
from wingboard.core.wire.schemes.shift import chip_count
from wingboard.core.wire.signals import Line, signals

LAMPS = ("lamp", "dimmed", "colour")
KINDS = {
    "pattern": "contacts", "selector": "selector", "binary": "selector in binary", "turn": "encoder",
    "level": "voltage", "ladder": "selector over resistors", "lamp": "lamp", "dimmed": "lamp, dimmed",
    "colour": "lamp of any colour",
    "sound": "sounder", "load": "load", "text": "read-out",
    "needle": "gauge",
}  # fmt: skip
"""Kinds of channels in words."""
LOST = {"hold": "stays as it is", "off": "goes dark", "on": "lights", "blink": "blinks"}


class Told(NamedTuple):
    """What a program does with one thing: what it is, where it is read or driven, and how, in words."""

    what: str
    where: str
    how: str


class Difference(NamedTuple):
    """A thing that is not as it was. ``was`` and ``now`` say only what differs; empty where it was not, or is gone."""

    name: str
    change: Literal["new", "gone", "renamed", "moved", "changed"]
    was: str
    now: str


def told(r: Resolved, controller: str) -> dict[str, Told]:
    """All that the program of a board reads and drives, by name."""
    return r.once(f"told of {controller}", lambda: _told(r, controller))


def _told(r: Resolved, controller: str) -> dict[str, Told]:
    pins = {p.line: p.pin for p in r.design.pins}
    spots: dict[str, tuple[str, str, str]] = {}
    expanders: dict[str, int] = {}
    homes = {p.line: p.controller for p in r.design.pins}
    for network in networks(r):
        home = homes.get(network.lines[0].id, "")
        first = expanders.get(home, 0)
        if network.kind == "expander":
            expanders[home] = first + chip_count(network, EXPANDER)
        ends = ", ".join(pins.get(line.id, "none") for line in network.lines)
        for line, (chip, place) in places_in(network).items():
            number = address_words(first, chip) if network.kind == "expander" else f"chip {chip}"
            spots[line] = (f"{number}, " if chip else "", place, f" of {network.name} (pins {ends})")
    mine = [c for c in channels(r).channels if c.controller == controller]
    return {c.name: Told(KINDS[c.kind], _where(c.lines, pins, spots), _how(r, c)) for c in mine}


def _where(of: tuple[Line, ...], pins: dict[str, str], spots: dict[str, tuple[str, str, str]]) -> str:
    """“pins 22, 23”, or places in networks: those of one chip, or of one matrix, together.

    :param spots: of a line its chip (empty for none), its place there, and which network that is.
    """
    alone = [pins[line.id] for line in of if line.id in pins]
    words = [f"{'pins' if len(alone) > 1 else 'pin'} {', '.join(alone)}"] if alone else []
    places: dict[tuple[str, str], list[str]] = {}
    for line in of:
        if line.id in spots:
            chip, place, network = spots[line.id]
            places.setdefault((chip, network), []).append(place)
    grouped = (f"{chip}{' / '.join(there)}{network}" for (chip, network), there in places.items())
    return "; ".join([*words, *grouped])


def _how(r: Resolved, c: Channel) -> str:
    """What it depends on beside its place."""
    words = []
    f = r.functions.get(c.function)
    if c.kind == "ladder":
        words.append(f"windows up to {', '.join(str(tap.high) for tap in ladder_of(r, c).taps)}")
    elif c.kind == "text":
        words.append(f"{c.digits} digits" + (f", {c.dark} dark" if c.dark else ""))
    elif f is None:
        leds = f"{leds_behind(r, c)} LEDs, " if c.kind == "colour" else ""
        words.append(f"{leds}{light_level(r, c) * 100:.0f} % at the most")
    elif c.kind == "colour":
        words.append(wanted_colour(f) or "white")
    elif any(line.divided for line in c.lines):
        words.append("closed is high")
    if tests_lamps(r, c):
        words.append("lights every lamp of the board")
    boot, lost = state_of(r, c)
    if (boot, lost) != (0, "hold"):
        words.append(f"{boot} at power-up, without a link it {LOST[lost]}")
    return "; ".join(words)


def state_of(r: Resolved, c: Channel) -> tuple[int, Lost]:
    """How bright a lamp is from power-up on, and what it does without a link, as its output is declared."""
    if c.kind not in LAMPS:
        return 0, "hold"
    f = r.functions.get(c.function)
    if f is None:
        light = r.modules[c.lines[0].module].module.light
        return (light.boot, light.lost) if light else (0, "hold")
    line = c.lines[0].id.removeprefix(f"{f.id}.")
    return next(((one.boot, one.lost) for one in f.declared if one.line == line), (f.boot, f.lost))


def tests_lamps(r: Resolved, c: Channel) -> bool:
    """Whether a contact makes the program light every lamp of its board."""
    f = r.functions.get(c.function)
    return f is not None and f.tests_by_program and c.kind == "pattern" and c.lines[0].id in _contacts(r)


def _contacts(r: Resolved) -> frozenset[str]:
    """The lines of contacts of controls; not of what tells whether a load is on."""
    return r.once("contacts", lambda: frozenset(s.id for s in signals(r) if s.told.does == "switch"))


def ladder_of(r: Resolved, c: Channel) -> Ladder:
    """The ladder of a selector, as its board's converter reads it."""
    f = r.functions[c.function]
    bits = kind_of(r, c.controller).bits
    return ladder(len(c.words), f.step, limit(r.design, "resistor-tolerance") / 100, f.steady, bits)


def kind_of(r: Resolved, controller: str) -> Board:
    """The kind of board that a controller is."""
    return board_of(r.design, next(c.board for c in r.design.controllers if c.id == controller))


def _board(r: Resolved, controller: str) -> str:
    """What of a board its program depends on."""
    kind = kind_of(r, controller)
    return f"{kind.chip}, {kind.bits} bits"


def leds_behind(r: Resolved, c: Channel) -> int:
    """How many addressable LEDs light a module from behind."""
    light = r.modules[c.lines[0].module].module.light
    return sum(strip_use(s).leds for s in light.strips if STRIPS[s.kind].chain) if light else 0


def light_level(r: Resolved, c: Channel) -> float:
    """How bright the design lets the light behind a module be, as a share."""
    light = r.modules[c.lines[0].module].module.light
    return light.level if light else 1.0


def fingerprint(r: Resolved, controller: str) -> str:
    """Four hexadecimal figures that differ where two programs of a board do something else, whatever their revision."""
    text = "\n".join(
        (_board(r, controller), *(" ".join((name, *one)) for name, one in sorted(told(r, controller).items())))
    )
    return f"{zlib.crc32(text.encode()) & 0xFFFF:04X}"


def differences(was: Resolved, now: Resolved, controller: str) -> tuple[Difference, ...]:
    """What the program of a board does otherwise in a design than it did in another revision; in the order of names.

    A board that one of the two does not have, has nothing there.
    """
    there = [any(c.id == controller for c in r.design.controllers) for r in (was, now)]
    old, new = (told(r, controller) if is_there else {} for r, is_there in zip((was, now), there, strict=True))
    found = []
    if all(there) and _board(was, controller) != _board(now, controller):
        found.append(Difference("the board", "changed", _board(was, controller), _board(now, controller)))
    called: dict[Told, list[str]] = {}
    for name in sorted(old.keys() - new.keys()):
        called.setdefault(old[name], []).append(name)
    renamed = {name: called[new[name]].pop(0) for name in sorted(new.keys() - old.keys()) if called.get(new[name])}
    for name in sorted({*old, *new} - set(renamed.values())):
        a, b = old.get(name), new.get(name)
        if a == b:
            continue
        if name in renamed:
            found.append(Difference(name, "renamed", renamed[name], name))
            continue
        if a is None or b is None:
            one = a or b
            words = f"{one.what}, {one.where}" if one else ""
            found.append(Difference(name, "gone" if b is None else "new", words if a else "", words if b else ""))
            continue
        parts = [(x, y) for x, y in zip(a, b, strict=True) if x != y]
        moved = a.where != b.where and len(parts) == 1
        was_words, now_words = ("; ".join(p[n] or "as usual" for p in parts) for n in (0, 1))
        found.append(Difference(name, "moved" if moved else "changed", was_words, now_words))
    return tuple(found)
