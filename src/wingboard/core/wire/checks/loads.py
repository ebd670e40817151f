"""Whether what carries a load bears it, and whether a program alone decides about what can hurt somebody."""

from __future__ import annotations

from collections.abc import Iterator

from wingboard.core.brief.danger import dangerous
from wingboard.core.changes.commands.functions import EditFunction
from wingboard.core.changes.commands.lights import SetLight
from wingboard.core.changes.commands.wire import UnpinLines
from wingboard.core.findings.finding import Finding, Fix, Measure
from wingboard.core.findings.limits import limit
from wingboard.core.findings.registry import Check, check
from wingboard.core.parts.carriers import bears, smallest, transistor_for
from wingboard.core.record.base import Source
from wingboard.core.record.controllers import board_of
from wingboard.core.record.functions import Carrier, Function
from wingboard.core.record.lamps import made_for
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.backlights import plain
from wingboard.core.wire.carried import has_load
from wingboard.core.wire.checks.nets import READS
from wingboard.core.wire.harness.apart import live_nets
from wingboard.core.wire.lines import lines
from wingboard.core.wire.netlist import Net, NetList
from wingboard.core.wire.nets import net_list

SIZES = Source(
    kind="memory", note="common sizes of relays, contactors and transistors: look at the data sheet of yours"
)


@check(
    "wire.carrier-small",
    severity="must",
    title="What carries the load is too small for it",
    measures="amperes and volts of each load against what its relay, contactor or transistor bears",
    limits=("drive-current",),
    source=SIZES,
    fixes="takes the relay or contactor that bears it",
    reads=READS,
)
def carrier_small(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Contacts that weld, transistors that burn."""
    for placed in r.placed:
        f, load = placed.function, placed.function.switches
        if not has_load(placed) or not load.through or (load.through == "transistor" and load.alternating):
            continue  # that a transistor is on AC is said at Parts
        amps, volts = bears(load.through, load, rule.limit(r.design))
        for unit, there, most in (("A", load.amps, amps), ("V", load.volts, volts)):
            if there > most + 1e-9:
                better = smallest(load)
                yield rule.finding(
                    f.id,
                    detail=f"{f.name}: a {load.through} for {load.volts:g} V {load.kind}, {load.amps:g} A"
                    + ("" if better else "; none here bears it: one made for it, wired by an electrician"),
                    measured=Measure(value=there, unit=unit),
                    needed=Measure(value=most, unit=unit),
                    most=True,
                    extra=unit.lower(),
                    fix=_through(f, better) if better else None,
                )


def _through(f: Function, carrier: Carrier) -> Fix:
    return Fix(label=f"Let a {carrier} carry it", commands=(EditFunction(function=f.id, through=carrier),))


@check(
    "wire.transistor-hot",
    severity="judge",
    title="Its transistor gets hot",
    measures="watts in a transistor that carries a load, against what it bears without a heat sink",
    source=SIZES,
    fixes="takes a relay instead",
    reads=READS,
)
def transistor_hot(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Transistors that want a heat sink."""
    for placed in r.placed:
        f, load = placed.function, placed.function.switches
        if not has_load(placed) or load.through != "transistor" or load.alternating:
            continue
        kind = transistor_for(load.amps, limit(r.design, "drive-current"))
        if kind.lost * load.amps > kind.watts + 1e-9:
            yield rule.finding(
                f.id,
                detail=f"{f.name}: {kind.name}, {kind.lost:g} V over it at {load.amps:g} A; a heat sink, or a relay",
                measured=Measure(value=kind.lost * load.amps, unit="W"),
                needed=Measure(value=kind.watts, unit="W"),
                most=True,
                fix=_through(f, better) if (better := smallest(load)) else None,
            )


@check(
    "wire.load-by-program",
    severity="judge",
    title="A program alone decides about this load",
    measures="loads at a dangerous voltage, or guarded ones, that a controller drives and no contact interrupts",
    source=Source(kind="practice", note="a program that hangs leaves a load on"),
    fixes="lets the control's own contact drive the relay",
    reads=READS,
)
def load_by_program(r: Resolved, rule: Check) -> Iterator[Finding]:
    """What can hurt somebody wants a contact of its own that takes it off without a program."""
    for placed in r.placed:
        f = placed.function
        if not has_load(placed) or f.switches.driven != "controller":
            continue
        risky = f.risk != "normal"
        if risky or dangerous(r.design, f.switches):
            why = "it cannot be undone" if risky else f"{f.switches.volts:g} V {f.switches.kind}"
            yield rule.finding(
                f.id,
                detail=f"{f.name}: {why}. A switch that takes its power off must not pass the controller",
                fix=Fix(
                    label="Let its own contact drive it",
                    commands=(EditFunction(function=f.id, driven="contact"),),
                ),
            )


@check(
    "wire.load-at-reset",
    severity="must",
    title="The load comes on while the board starts",
    measures="loads driven by pins that flash at reset",
    source=Source(kind="practice", note="hazardous loads never hang on a pin that flashes at reset"),
    fixes="takes the pin back, for the solver to choose another",
)
def load_at_reset(r: Resolved, rule: Check) -> Iterator[Finding]:
    """A must where the load is dangerous or cannot be undone, else to judge."""
    by_id = {line.id: line for line in lines(r)}
    for choice in r.design.pins:
        line = by_id.get(choice.line)
        if line is None or not choice.line.endswith("-drive"):
            continue
        controller = next(c for c in r.design.controllers if c.id == choice.controller)
        pin = board_of(r.design, controller.board).pin(choice.pin)
        f = r.functions[line.function]
        if pin and pin.flashes:
            hazard = f.risk != "normal" or dangerous(r.design, f.switches)
            yield rule.finding(
                f.id,
                detail=f"{f.name}: pin {pin.name} of {controller.name} flashes at reset",
                severity="must" if hazard else "judge",
                fix=Fix(label="Take the pin back", commands=(UnpinLines(lines=(choice.line,)),)),
                extra=choice.line,
            )


@check(
    "wire.light-undimmed",
    severity="judge",
    title="Nothing dims this light",
    measures="modules whose light behind is planned at less than full, with strips or LEDs that no pin dims",
    source=Source(kind="computed", note="the net list"),
    fixes="puts a transistor that a pin drives between the light and ground",
)
def light_undimmed(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Lights that would be brighter than planned."""
    for module in r.design.modules:
        light = module.light
        if light and light.level < 1 and plain(light) and not light.dimmer:
            yield rule.finding(
                module.id,
                detail=f"{module.name}: planned at {100 * light.level:.0f} %; let a pin dim it, or plan it at full",
                measured=Measure(value=100, unit="%"),
                needed=Measure(value=100 * light.level, unit="%"),
                most=True,
                fix=Fix(label="Let a pin dim it", commands=(SetLight(module=module.id, dimmer=True),)),
            )


@check(
    "wire.danger-beside-logic",
    severity="must",
    title="Dangerous voltage beside controller lines",
    measures="parts with a terminal at 50 V or more, or on AC, while another terminal of theirs goes to a controller",
    source=Source(kind="practice", note="one loose strand, or a burnt contact, puts it on the computer"),
    fixes="lets a relay carry the load: the part then has low voltage only",
    reads=READS,
)
def danger_beside_logic(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Second poles, lamps and stops of switches for mains."""
    nets, live = net_list(r), live_nets(r)
    for placed in r.placed:
        f = placed.function
        on = [net for net in nets.nets if any(port.device == f.id for port in net.ports)]
        hot = [net for net in on if net.id in live]
        if not hot or not any(_of_controller(nets, net) for net in on if net.id not in live):
            continue
        feeding = max((d for net in hot for p in net.ports if (d := nets.devices[p.device]).value), default=None,
                      key=lambda d: d.value if d.kind in ("supply", "load") else 0.0)  # fmt: skip
        volts = feeding.value if feeding and feeding.kind in ("supply", "load") else f.switches.volts
        bare = has_load(placed) and not f.switches.through
        carrier = smallest(f.switches) if bare else None
        yield rule.finding(
            f.id,
            detail=f"{f.name}, {made_for(f, placed.part).name}: {volts:g} V beside lines of a controller",
            measured=Measure(value=volts, unit="V"),
            fix=_through(f, carrier) if carrier else None,
        )


def _of_controller(nets: NetList, net: Net) -> bool:
    """Whether a net ends on a controller, or is the ground that all of them share, or has a line's small parts."""
    return net.kind == "ground" or any(nets.devices[p.device].kind in ("controller", "chip") for p in net.ports)
