"""The whole shopping list: parts, screws, the resistors of lamps, boards and sheets."""

from __future__ import annotations

import math
from collections import Counter, defaultdict

from wingboard.core.brief.sheets import kinds, sheets_needed, sheets_of
from wingboard.core.cut.printed import case_solids, is_printed, plate_solids
from wingboard.core.cut.scenes import layer_scene
from wingboard.core.light.indicators import lamps_of
from wingboard.core.light.kinds import LEDS, STRIPS
from wingboard.core.light.power import power_of, strip_use
from wingboard.core.light.resistor import USUAL_RATING
from wingboard.core.light.screens import screens_of
from wingboard.core.parts.carriers import DIMMER, TRANSISTORS
from wingboard.core.parts.counting import shopping_rows
from wingboard.core.record.controllers import board_of
from wingboard.core.record.lights import Backlight
from wingboard.core.record.materials import materials
from wingboard.core.record.workshop import Material
from wingboard.core.resolved.design import Resolved
from wingboard.core.stack.case import case_of
from wingboard.core.stack.console import frame_of
from wingboard.core.stack.hardware import hardware_list
from wingboard.core.stack.shell import weight
from wingboard.core.wire.carried import coil_volts
from wingboard.core.wire.harness.plugs import KINDS, plugs
from wingboard.core.wire.harness.totals import MORE, totals
from wingboard.core.wire.helpers import ACROSS
from wingboard.core.wire.netlist import Device, DeviceKind
from wingboard.core.wire.nets import IN_SERIES
from wingboard.core.wire.schemes.coder import NAME as CODER
from wingboard.core.wire.wires import helpers as wired_in

SPARE = 0.1
"""Share of screws and resistors that is bought on top (common practice: they get lost and burnt)."""


def shopping_list(r: Resolved) -> list[tuple[str, ...]]:
    """Everything that is to be bought, as cells under :data:`~wingboard.core.parts.counting.SHOPPING`."""
    kinds = (_screws, _resistors, _wired_in, _lights, _harness, _boards, _sheets, _cases, _filament, _films, _battens)
    return [*shopping_rows(r), *(row for rows in kinds for row in rows(r))]


def _row(name: str, summary: str, used: int, on_hand: int | None, to_buy: int) -> tuple[str, ...]:
    have = "" if on_hand is None else str(on_hand)
    return (name, summary, str(used), str(used), have, str(to_buy), "", "", "", "")


def _small(name: str, summary: str, used: int) -> tuple[str, ...]:
    """Something small that gets lost: a few more than are used."""
    needed = used + math.ceil(used * SPARE)
    return (name, summary, str(used), str(needed), "", str(needed), "", "", "", "")


def _screws(r: Resolved) -> list[tuple[str, ...]]:
    return [_small(name, purpose, n) for name, purpose, n in hardware_list(r)]


def _resistors(r: Resolved) -> list[tuple[str, ...]]:
    wanted: Counter[tuple[float, float]] = Counter()
    for lamp in lamps_of(r):
        if lamp.ohms is not None and r.functions[lamp.function].state not in ("dummy", "alias"):
            wanted[lamp.ohms, max(USUAL_RATING, lamp.buy)] += 1
    for light in _lit(r):
        wanted.update({(x.ohms, x.watts): x.many for x in power_of(light).resistors})
    return [
        _small(f"Resistor {ohms:g} Ω", f"in series with lamps, E24, {watts:g} W", n)
        for (ohms, watts), n in sorted(wanted.items())
    ]


def _wired_in(r: Resolved) -> list[tuple[str, ...]]:
    """What is soldered between parts and pins, but for the resistors of lamps, by what it is."""
    found: Counter[tuple[str, str]] = Counter()
    for device in wired_in(r):
        if device.kind == "resistor":
            if not device.id.endswith(IN_SERIES):  # those, of lamps and of the light behind, are above
                found[f"Resistor {device.value:g} Ω", _for_resistor(device)] += 1
        elif device.kind == "chip":
            name = device.name.split(",")[0]
            found[name, "on the tags of a selector" if name == CODER else "with a socket"] += 1
        elif device.kind == "diode" and device.id.endswith(ACROSS):
            found[_across(r, device)] += 1
        elif device.kind == "transistor":
            kind = next((t for t in TRANSISTORS if t.amps >= device.value), TRANSISTORS[-1])
            found[kind.name, "its base on a pin or a contact: look at its data sheet"] += 1
        elif device.kind == "relay":
            carrier = r.functions[device.of].switches
            name = f"{carrier.through.capitalize()}, its contact for {carrier.volts:g} V {carrier.kind}"
            spare = ", with an auxiliary contact" if carrier.seen == "auxiliary" else ""
            found[f"{name}, {carrier.amps:g} A{spare}", f"coil for {coil_volts(r.design, carrier):g} V"] += 1
        else:
            found[_KINDS[device.kind]] += 1
    return [_small(name, summary, n) for (name, summary), n in sorted(found.items())]


_KINDS: dict[DeviceKind, tuple[str, str]] = {
    "capacitor": ("Capacitor 100 nF, ceramic", "beside chips, and at the pins of ladders"),
    "diode": ("Signal diode, 100 mA", "at contacts"),
    "mosfet": (DIMMER.name, "dims the light behind; fully on at the volts of its board"),
    "high side": ("High-side switch", "for lamps that share their return"),
}


def _across(r: Resolved, device: Device) -> tuple[str, str]:
    """The diode across a coil or a load: it carries for a moment what that draws."""
    load = r.functions[device.of].switches
    amps = load.amps if device.id.endswith("-load-d") else 0.0
    return ("Rectifier diode, 1 A" if amps <= 1 else "Rectifier diode, 5 A"), "across a coil, or a load that may be one"


def _for_resistor(device: Device) -> str:
    return "all of one batch, 1 %: between ways" if ".r" in device.id else "at bases, pull-ups of chips"


def _harness(r: Resolved) -> list[tuple[str, ...]]:
    """Wire by the metre, plugs in pairs, fuses, and what ends, covers and ties the wires."""
    made = totals(r)
    wire = [
        _row(f"Wire {w.colour}, {w.area:g} mm²", f"{w.metres:.1f} m in {w.pieces} pieces", math.ceil(w.metres),
             math.floor(w.metres - w.to_buy / MORE + 1e-9), math.ceil(w.to_buy - 1e-9))
        for w in made.wire
    ]  # fmt: skip
    kinds = Counter(f"{KINDS[plug.kind].name}, {plug.size} contacts".capitalize() for plug in plugs(r))
    paired = [_row(name, "both halves", n, None, n) for name, n in kinds.items()]
    fuses = Counter(s.fuse for s in r.design.workshop.supplies if s.fuse)
    fused = [_small(f"Fuse {amps:g} A", "in the plus of a supply, with its holder", n) for amps, n in fuses.items()]
    small = (
        ("Ferrule", "under screws", made.ends.get("screw", 0)),
        ("Receptacle, 6.3 mm", "on flat tabs: measure yours", made.ends.get("tab", 0)),
        ("Crimp contact, 2.54 mm", "on headers and boards", made.ends.get("header", 0)),
        ("Sleeve, 20 mm", "over soldered joints", made.sleeves),
        ("Cable tie with a mount", "along the looms", made.ties),
    )
    return [*wire, *paired, *fused, *(_small(name, says, n) for name, says, n in small if n)]


def _lit(r: Resolved) -> list[Backlight]:
    return [m.light for m in r.design.modules if m.light is not None]


def _lights(r: Resolved) -> list[tuple[str, ...]]:
    """Strips by the metre, and single LEDs, behind all modules."""
    runs = [(strip.kind, strip_use(strip).cut) for light in _lit(r) for strip in light.strips]
    rows = []
    for kind in dict.fromkeys(kind for kind, _ in runs):
        cut = [length for other, length in runs if other == kind and length > 0]
        if cut:
            metres = sum(cut) / 1000
            says = f"{metres:.2f} m, by the metre"
            rows.append(_row(f"{STRIPS[kind].name}", says, len(cut), None, math.ceil(metres)))
    leds = Counter(led.kind for light in _lit(r) for led in light.leds)
    return rows + [_small(LEDS[kind].name, "white, behind the plates", n) for kind, n in leds.items()]


def _cases(r: Resolved) -> list[tuple[str, ...]]:
    """What the cases are made of, by the square metre."""
    areas: dict[tuple[Material, float], list[float]] = {}
    for module in r.modules.values():
        made = case_of(r, module)
        for piece in made.pieces if made and made.case.made == "sheet" else ():
            kind = made.case.material, made.case.thickness  # type: ignore[union-attr]
            areas.setdefault(kind, []).extend([piece.width * piece.height / 1e6] * piece.many)
    return [
        _row(f"{materials()[m].name}, {t:g} mm, for cases", f"{sum(a):.2f} m² in {len(a)} pieces", len(a), None, 1)
        for (m, t), a in areas.items()
    ]


def _filament(r: Resolved) -> list[tuple[str, ...]]:
    """What is printed, by its weight as if it were solid; plates and cases."""
    grams: dict[Material, float] = {}
    for module in r.modules.values():
        case = module.module.case
        for solid in case_solids(r, module):
            material = case.material if case else "pla"
            grams[material] = grams.get(material, 0.0) + weight(solid, material)
        for layer in module.plates:
            if is_printed(layer):
                for solid in plate_solids(layer, layer_scene(r, module, layer)):
                    grams[layer.material] = grams.get(layer.material, 0.0) + weight(solid, layer.material)
    return [
        _row(f"{materials()[m].name}: filament", f"{g:.0f} g if solid, supports and failures apart", 1, None, 1)
        for m, g in grams.items()
    ]


def _films(r: Resolved) -> list[tuple[str, ...]]:
    """What lies over read-outs and screens, by its colour."""
    cut: dict[str, list[tuple[float, float]]] = {}
    for screen in screens_of(r):
        if screen.film is not None:
            cut.setdefault(screen.film, []).append(screen.size)
    return [
        _row(f"Film, {film}", ", ".join(f"{w:.0f} × {h:.0f} mm" for w, h in sizes), len(sizes), None, 1)
        for film, sizes in cut.items()
    ]


def _battens(r: Resolved) -> list[tuple[str, ...]]:
    """The battens of a console's frame, by the metre."""
    made = frame_of(r)
    if made is None:
        return []
    widths: defaultdict[float, list[float]] = defaultdict(list)
    for b in made.battens:
        widths[made.frame.wide if b.sawn is None or b.upright else math.ceil(b.wide)].append(b.length / 1000)
    return [
        _row(
            f"Batten {wide:g} × {made.frame.deep:g} mm", f"{sum(lengths):.2f} m, by the metre", len(lengths), None,
            math.ceil(sum(lengths)),
        )
        for wide, lengths in sorted(widths.items())
    ]  # fmt: skip


def _boards(r: Resolved) -> list[tuple[str, ...]]:
    wanted = Counter(c.board for c in r.design.controllers)
    return [
        _row(f"Board with {board.chip}", f"{board.header} pins", n, None, n)
        for board, n in ((board_of(r.design, kind), n) for kind, n in wanted.items())
    ]


def _sheets(r: Resolved) -> list[tuple[str, ...]]:
    rows = []
    for kind in kinds(r):
        need, have = sheets_needed(r, kind), sum(s.count for s in sheets_of(r, kind))
        name = materials()[kind.material].name
        rows.append(_row(f"Sheet of {name}, {kind.thickness:g} mm", "", need, have, max(0, need - have)))
    return rows
