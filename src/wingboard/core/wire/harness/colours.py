"""The colour of every wire, by rule: what it carries, then the figures of the colour code."""

from __future__ import annotations

from wingboard.core.record.harness import NetClass, WireColour
from wingboard.core.record.part import BUS_LINES, PartLine
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.harness.apart import dangerous_net
from wingboard.core.wire.netlist import Net
from wingboard.core.wire.nets import net_list

CODES: dict[WireColour, str] = {
    "black": "BK", "brown": "BN", "red": "RD", "orange": "OG", "yellow": "YE", "green": "GN", "blue": "BU",
    "violet": "VT", "grey": "GY", "white": "WH", "pink": "PK", "turquoise": "TQ", "green-yellow": "GNYE",
}  # fmt: skip
"""Short names of the colours (IEC 60757)."""
FIGURES: tuple[WireColour, ...] = (
    "black", "brown", "red", "orange", "yellow", "green", "blue", "violet", "grey", "white",
)  # fmt: skip
"""The figures 0 to 9 in the colour code of resistors (IEC 60062)."""
RULES: dict[NetClass, WireColour | None] = {
    "ground": "black", "3.3 V": "orange", "5 V": "red", "12 V": "yellow", "24 V": "violet", "other supplies": "pink",
    "earth": "green-yellow", "line": "brown", "neutral": "blue", "loads": "white", "lamps": None,
    "contacts": None, "analogue": None, "buses": None,
}  # fmt: skip
"""The colour of each class: common practice for low voltage, IEC 60446 for line and neutral; None: by figures."""
FREE: tuple[WireColour, ...] = (
    "brown", "orange", "yellow", "green", "blue", "violet", "grey", "white", "pink", "turquoise",
)  # fmt: skip
"""For signals, in the order of the code, as far as they mean nothing else in the design."""
GROUPS: tuple[WireColour, ...] = ("white", "red", "black", "yellow", "violet")
MEMBERS: tuple[WireColour, ...] = ("blue", "orange", "green", "brown", "grey")
"""The two colours of each of 25 pairs: five groups of five (common practice; the last is called slate)."""


def class_of(r: Resolved, net: Net) -> NetClass:
    """What a net's wires are coloured by."""
    if net.kind == "ground":
        return "ground"
    if net.kind == "earth":
        return "earth"
    if net.kind in ("supply", "load"):
        return _supplied(r, net)
    kinds = {line.does for p in net.ports for line in _lines(r, p.device) if line.terminal == p.terminal}
    if kinds & BUS_LINES:
        return "buses"
    return "analogue" if "analogue" in kinds else "lamps" if kinds & {"lamp", "driver"} else "contacts"


def _lines(r: Resolved, device: str) -> tuple[PartLine, ...]:
    f = r.functions.get(device)
    part = r.parts.get(f.part) if f and f.part else None
    return part.lines if part else ()


def _supplied(r: Resolved, net: Net) -> NetClass:
    if dangerous_net(r, net):
        return "neutral" if net.id.startswith("return") else "line"
    if net.kind == "load":
        return "loads"
    volts = net.id.partition(" ")[0]
    named: dict[str, NetClass] = {"3.3": "3.3 V", "5": "5 V", "12": "12 V", "24": "24 V"}
    return named.get(volts, "other supplies")


def colour_of(r: Resolved, net: Net, figure: int) -> WireColour:
    """The colour of a net's wires: the design's own rule, else the usual one, else by a figure counted from 0."""
    free = r.once("free colours", lambda: [c for c in FREE if c not in reserved_colours(r)]) or FREE
    return _ruled(r, class_of(r, net)) or free[figure % len(free)]


def _ruled(r: Resolved, what: NetClass) -> WireColour | None:
    return next((rule.colour for rule in r.design.harness.colours if rule.net == what), None) or RULES[what]


def free_colour(r: Resolved, net: Net) -> bool:
    """Whether a net's wires may have any colour that means nothing else."""
    return _ruled(r, class_of(r, net)) is None


def reserved_colours(r: Resolved) -> frozenset[WireColour]:
    """The colours that mean something in this design."""
    used: set[NetClass] = {class_of(r, net) for net in net_list(r).nets} | {"ground", "5 V"}
    return frozenset(colour for what in used if (colour := _ruled(r, what)))


def pair_colours(contact: int) -> tuple[WireColour, WireColour]:
    """Base and stripe of the wire of a contact (1 to 50) of 25 pairs: odd ones lead, even ones follow."""
    pair, second = divmod(contact - 1, 2)
    group, member = GROUPS[pair // 5], MEMBERS[pair % 5]
    return (member, group) if second else (group, member)
