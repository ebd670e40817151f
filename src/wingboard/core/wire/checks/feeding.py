"""Whether fuses, wires and regulators bear what flows, what is lost on the way, and what hangs on USB."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial

from wingboard.core.changes.commands.harness import SetHarness, SetUsb
from wingboard.core.changes.commands.modules import EditModule
from wingboard.core.changes.commands.workshop import EditSupply
from wingboard.core.findings.facets import Facet
from wingboard.core.findings.finding import Finding, Fix, Measure
from wingboard.core.findings.registry import Check, check
from wingboard.core.record.base import Source
from wingboard.core.record.workshop import Supply
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.checks.nets import READS
from wingboard.core.wire.drawn import from_usb
from wingboard.core.wire.harness.gauge import carries, gauge_for
from wingboard.core.wire.harness.laid import areas, losses
from wingboard.core.wire.harness.places import places
from wingboard.core.wire.netlist import supply_id
from wingboard.core.wire.nets import net_list
from wingboard.core.wire.power.flow import Fed, currents
from wingboard.core.wire.power.protection import protected
from wingboard.core.wire.power.tree import Node, every_node, fuse_for, heat_of, power_tree
from wingboard.core.wire.wires import names_of, runs

LAID: tuple[Facet, ...] = (*READS, "stack", "harness", "usb")
PRACTICE = Source(kind="practice")
COPPER = Source(kind="published", note="IEC 60028: 0.01724 Ω·mm²/m; a twentieth is too much, 3 % is usual")


def _supplies(r: Resolved) -> Iterator[tuple[Supply, Node]]:
    """The supplies that something hangs on, each with its place in the tree."""
    nodes = {n.id: n for n in every_node(power_tree(r))}
    for supply in r.design.workshop.supplies:
        node = nodes.get(supply_id(supply.id))
        if node is not None and node.full > 0:
            yield supply, node


@check(
    "wire.fuse-load",
    severity="judge",
    title="The fuse is too close to its load",
    measures="a supply's fuse against what everything behind it draws at once",
    limits=("breaker-factor",),
    fixes="takes the next rating that is large enough",
    reads=LAID,
)
def fuse_load(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Fuses that blow, or age, with everything on."""
    for supply, node in _supplies(r):
        need = rule.limit(r.design) * node.full
        if supply.fuse and supply.fuse < need - 1e-9:
            yield rule.finding(
                supply.id,
                detail=f"{supply.name}: {node.full:.3g} A with everything on",
                measured=Measure(value=supply.fuse, unit="A"),
                needed=Measure(value=need, unit="A"),
                severity="must" if supply.fuse < node.full else None,
                fix=partial(_fused, supply, node.full),
            )


def _fused(supply: Supply, amps: float) -> Fix:
    rating = fuse_for(amps)
    return Fix(label=f"A fuse of {rating:g} A", commands=(EditSupply(supply=supply.id, fuse=rating),))


@check(
    "wire.unfused",
    severity="judge",
    title="Wires without a fuse",
    measures="what a supply can give against what the thinnest wire on it carries, where no fuse or breaker is between",
    source=Source(kind="practice", note="a short burns the wire before the supply notices"),
    fixes="puts a fuse into its plus",
    reads=LAID,
)
def unfused(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Supplies that can give more than their thinnest wire without a fuse carries."""
    sizes = areas(r)
    for supply, node in _supplies(r):
        without = protected(r).bare(supply_id(supply.id))
        bare = [sizes[w.id] for w in runs(r) if w.id in without and w.how == "wire"]
        gives = supply.amps * supply.count
        if bare and carries(min(bare)) < gives - 1e-9:
            yield rule.finding(
                supply.id,
                detail=f"{supply.name} gives {gives:g} A; its thinnest wire is {min(bare):g} mm²",
                measured=Measure(value=carries(min(bare)), unit="A"),
                needed=Measure(value=gives, unit="A"),
                fix=partial(_fused, supply, node.full),
            )


@check(
    "wire.fuse-wire",
    severity="must",
    title="Fuse exceeds wire rating",
    measures="what each wire carries in a bundle against the fuse or breaker before it",
    source=Source(kind="memory", note="VDE 0298-4, half for a bundle"),
    fixes="lets supplies and loads be as thick as they must be",
    reads=LAID,
)
def fuse_wire(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Wires thinner than what protects them asks for: where one cross-section was set for all."""
    sizes, names, fuses = areas(r), names_of(r), protected(r).fuses()
    thin: dict[float, list[str]] = {}
    for wire in runs(r):
        fuse = fuses.get(wire.id)
        if fuse and wire.how == "wire" and carries(sizes[wire.id]) < fuse - 1e-9:
            thin.setdefault(fuse, []).append(wire.id)
    for fuse, wires in thin.items():
        least = min(sizes[w] for w in wires)
        first = next(w for w in runs(r) if w.id == wires[0])
        yield rule.finding(
            first.start.device.removeprefix("supply."),
            detail=f"{len(wires)} of {least:g} mm² behind {fuse:g} A, such as {names[first.start.device]} to "
            f"{names[first.end.device]}",
            measured=Measure(value=carries(least), unit="A"),
            needed=Measure(value=fuse, unit="A"),
            fix=_as_thick if r.design.harness.power_area is not None else None,
            extra=f"{fuse:g}",
        )


def _as_thick() -> Fix:
    return Fix(label="As thick as current and fuse ask", commands=(SetHarness(power_area=None),))


@check(
    "wire.overloaded",
    severity="must",
    title="More current than the wire carries",
    measures="the most that flows in each wire against what it carries in a bundle",
    source=Source(kind="memory", note="VDE 0298-4, half for a bundle"),
    fixes="lets supplies and loads be as thick as they must be",
    reads=LAID,
)
def overloaded(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Wires that get hot: where one cross-section was set for all, or no wire sold is thick enough."""
    sizes, names, amps = areas(r), names_of(r), currents(r)
    hot = [w for w in runs(r) if w.how == "wire" and amps.get(w.id, 0.0) > carries(sizes[w.id]) + 1e-9]
    if hot:
        worst = max(hot, key=lambda w: amps[w.id] / carries(sizes[w.id]))
        yield rule.finding(
            worst.start.device.removeprefix("supply."),
            detail=f"{len(hot)} in all; the worst from {names[worst.start.device]} to {names[worst.end.device]}, "
            f"{sizes[worst.id]:g} mm²",
            measured=Measure(value=amps[worst.id], unit="A"),
            needed=Measure(value=carries(sizes[worst.id]), unit="A"),
            most=True,
            fix=_as_thick if r.design.harness.power_area is not None else None,
        )


@check(
    "wire.drop",
    severity="judge",
    title="Too much is lost on the way",
    measures="volts lost on the wires to what is fed and back, everything on, of the volts of its supply",
    limits=("drop-most",),
    source=COPPER,
    fixes="runs the supplies of its module as a star, or takes thicker wire",
    reads=LAID,
)
def drop(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Parts and loads at the far end of long or thin wires; the worst of each module and supply."""
    worst: dict[tuple[str, str], tuple[float, Fed]] = {}
    for fed in losses(r):
        volts = net_list(r).devices[fed.source.device].value
        if not volts or fed.source.device.startswith("board."):
            continue
        key = places(r).home(fed.draw.into), fed.source.device
        share = 100 * fed.lost / volts
        if share > worst.get(key, (rule.limit(r.design), fed))[0] + 1e-9:
            worst[key] = share, fed
    for (module, source), (share, fed) in worst.items():
        name = names_of(r)[fed.draw.into.device]
        yield rule.finding(
            source.removeprefix("supply."),
            *([module] if module else []),
            detail=f"{names_of(r)[source]} to {name}: {fed.lost:.2g} V lost at {fed.draw.amps:.3g} A",
            measured=Measure(value=share, unit="%"),
            needed=Measure(value=rule.limit(r.design), unit="%"),
            most=True,
            fix=partial(_less_lost, r, module),
        )


def _less_lost(r: Resolved, module: str) -> Iterator[Fix]:
    """A star costs wire, thicker wire money: that is tried which keeps the wire that one has."""
    made = r.modules[module].module if module else None
    if made is not None and made.feeds == "bus":
        yield Fix(label="Run it as a star", commands=(EditModule(module=made.id, feeds="star", returns="star"),))
    h = r.design.harness
    for times in (2, 4, 8):
        area = gauge_for(times * max(h.area, h.power_area or 0.0)).area
        yield Fix(label=f"Supplies with {area:g} mm²", commands=(SetHarness(power_area=area),))


@check(
    "wire.inrush",
    severity="judge",
    title="Cold bulbs take too much at once",
    measures="what everything takes in the moment when it is switched on, cold bulbs ten times theirs, and the supply",
    source=Source(kind="practice", note="a supply gives half as much again for a moment; over that it starts anew"),
    reads=LAID,
)
def inrush(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Supplies that do not come up with all bulbs on: switch them on in groups, or put LEDs in their place."""
    for supply, node in _supplies(r):
        gives = 1.5 * supply.amps * supply.count
        if node.inrush > gives + 1e-9 and node.inrush > node.full + 1e-9:
            yield rule.finding(
                supply.id,
                detail=f"{supply.name}: {node.full:.3g} A once they are warm; switch them on in groups, or take LEDs",
                measured=Measure(value=node.inrush, unit="A"),
                needed=Measure(value=gives, unit="A"),
                most=True,
            )


HOTTEST = 1.0
"""Watts that a regulator in a TO-220 case gets rid of without a heat sink: 65 K over the air (from memory)."""


@check(
    "wire.regulator-hot",
    severity="judge",
    title="A regulator gets too hot",
    measures="what a regulator turns into heat with everything on: volts lost in it times amperes",
    source=Source(kind="memory", note="TO-220 case: 65 K a watt, bare"),
    fixes="takes a switched one",
    reads=LAID,
)
def regulator_hot(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Regulators that want a heat sink, or to be of the other kind."""
    by_id = {s.id: s for s in r.design.workshop.supplies}
    for supply, node in _supplies(r):
        before = by_id.get(supply.made_from or "")
        watts = heat_of(r, node, before.volts) if before else 0.0
        if before and watts > HOTTEST + 1e-9:
            switched = Fix(label="A switched one", commands=(EditSupply(supply=supply.id, linear=False),))
            yield rule.finding(
                supply.id,
                detail=f"{supply.name}, {before.volts:g} V to {supply.volts:g} V at {node.full:.3g} A: a heat sink"
                + (", or a switched one" if supply.linear else ""),
                measured=Measure(value=watts, unit="W"),
                needed=Measure(value=HOTTEST, unit="W"),
                most=True,
                fix=switched if supply.linear else None,
            )


@check(
    "wire.regulator-headroom",
    severity="must",
    title="A regulator cannot make these volts",
    measures="volts before a regulator against those that it gives",
    source=Source(kind="practice", note="a linear one wants 2 V more, a switched one of the usual kind 1 V"),
    reads=LAID,
)
def regulator_headroom(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Regulators fed by too few volts."""
    by_id = {s.id: s for s in r.design.workshop.supplies}
    for supply in r.design.workshop.supplies:
        before = by_id.get(supply.made_from or "")
        need = supply.volts + (2.0 if supply.linear else 1.0)
        if before and before.volts < need - 1e-9:
            yield rule.finding(
                supply.id,
                before.id,
                detail=f"{supply.name} from {before.name}",
                measured=Measure(value=before.volts, unit="V"),
                needed=Measure(value=need, unit="V"),
            )


USB = Source(kind="published", note="USB 2.0 specification")
UNPOWERED = 0.1
"""Amperes that a hub without a supply gives each of its ports (USB 2.0 specification, bus-powered hub)."""
LONGEST = 5000.0
"""Of a USB cable, mm (USB 2.0 specification, full speed)."""


@check(
    "wire.usb-ports",
    severity="judge",
    title="Not a USB port for every board",
    measures="boards against the ports of computer and hub",
    source=USB,
    fixes="adds a hub with a supply",
    reads=LAID,
)
def usb_ports(r: Resolved, rule: Check) -> Iterator[Finding]:
    """More boards than ports."""
    usb, boards = r.design.usb, len(r.design.controllers)
    ports = usb.ports if usb.hub == "none" else usb.ports - 1 + usb.hub_ports
    if boards > ports:
        sizes = [n for n in (4, 7, 10, 16, 32) if usb.ports - 1 + n >= boards]
        fix = [Fix(label=f"A hub of {n} ports with a supply", commands=(SetUsb(hub="powered", hub_ports=n),))
               for n in sizes[:1]]  # fmt: skip
        yield rule.finding(
            detail=f"{boards} boards; ports of the computer: {usb.ports}"
            + ("" if usb.hub == "none" else f", of its hub: {usb.hub_ports}"),
            measured=Measure(value=ports, unit="ports"),
            needed=Measure(value=boards, unit="ports"),
            fix=lambda: fix,
        )


@check(
    "wire.usb-hub",
    severity="judge",
    title="Too much for a hub without a supply",
    measures="what each board draws against the 100 mA of a port of such a hub",
    source=USB,
    fixes="gives the hub a supply",
    reads=LAID,
)
def usb_hub(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Boards on an unpowered hub that draw more than its ports give; those with the least stay on the computer's."""
    usb = r.design.usb
    if usb.hub != "unpowered":
        return
    taken = sorted(((from_usb(r, c.id).total, c) for c in r.design.controllers), key=lambda t: -t[0])
    for amps, controller in taken[max(0, usb.ports - 1) :]:  # the hungriest sit in the computer's other ports
        if amps > UNPOWERED + 1e-9:
            yield rule.finding(
                controller.id,
                detail=f"{controller.name} on a hub that feeds its ports from one of the computer's",
                measured=Measure(value=1000 * amps, unit="mA"),
                needed=Measure(value=1000 * UNPOWERED, unit="mA"),
                most=True,
                fix=Fix(label="A hub with a supply", commands=(SetUsb(hub="powered"),)),
            )


@check(
    "wire.usb-cable",
    severity="judge",
    title="The USB cable is too long",
    measures="the longest cable between computer, hub and boards",
    source=USB,
    reads=("usb", "controllers"),
)
def usb_cable(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Cables over five metres: boards drop out now and then; a hub between makes two of one."""
    if r.design.controllers and r.design.usb.cable > LONGEST + 1e-9:
        yield rule.finding(
            detail="boards drop out now and then; a hub in the middle makes two shorter ones of it",
            measured=Measure(value=r.design.usb.cable),
            needed=Measure(value=LONGEST),
            most=True,
        )


OVER, UNDER = 1.2, 0.5
"""Of the estimate: above it look, below it something is not connected (common practice)."""


@check(
    "wire.measured-off",
    severity="judge",
    title="The ammeter says otherwise",
    measures="amperes read with everything on against the estimate: over 120 %, or under 50 %",
    source=PRACTICE,
    reads=LAID,
)
def measured_off(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Supplies and boards whose measured current does not fit."""
    said = [(s.id, s.name, s.measured, node.full) for s, node in _supplies(r)]
    said += [(c.id, c.name, c.measured, from_usb(r, c.id).total) for c in r.design.controllers]
    for ident, name, measured, estimate in said:
        share = measured / estimate if measured and estimate else 1.0
        if share > OVER + 1e-9 or share < UNDER - 1e-9:
            high = share > 1
            yield rule.finding(
                ident,
                detail=f"{name}: "
                + ("a short, or a part that is not in the design" if high else "something is not connected"),
                measured=Measure(value=measured, unit="A"),
                needed=Measure(value=(OVER if high else UNDER) * estimate, unit="A"),
                most=high,
            )
