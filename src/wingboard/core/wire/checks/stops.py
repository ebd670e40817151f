"""Emergency stops: what each breaks, what stays on, whether its contacts carry it, and how it is reported."""

from __future__ import annotations

import math
from collections.abc import Iterator

from wingboard.core.changes.commands.functions import EditFunction
from wingboard.core.findings.finding import Finding, Fix, Measure
from wingboard.core.findings.registry import Check, check
from wingboard.core.parts.carriers import CONTACTS, smallest
from wingboard.core.record.base import Source
from wingboard.core.record.functions import Carrier, Function, Switched, emergency
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.placed import Placed
from wingboard.core.wire.checks.nets import READS
from wingboard.core.wire.netlist import Port
from wingboard.core.wire.nets import net_list
from wingboard.core.wire.power.draws import passages
from wingboard.core.wire.power.flow import flow
from wingboard.core.wire.power.protection import protected
from wingboard.core.wire.signals import signals
from wingboard.core.wire.stops import STOP_RELAY, breaks_power, real_stops
from wingboard.core.wire.wires import names_of

STANDARD = Source(kind="memory", note="ISO 13850, IEC 60204-1")
MEANS: dict[str, str] = {
    "": "not specified: real, theatrical or the power switch",
    "real": "its contacts break the power of every load that is not marked to stay on",
    "power": "its contacts break the plus of its supply",
    "theatrical": "no power is cut by it: mark it so on the panel",
}
"""What an emergency control does, by its role."""


@check(
    "wire.emergency-hard-wired",
    severity="note",
    title="Emergency stop is wired by hand",
    measures="emergency controls on the panel: a real one never passes a controller",
    source=STANDARD,
)
def emergency_hard_wired(r: Resolved, rule: Check) -> Iterator[Finding]:
    """A caution for each emergency control that is placed, and whether a controller reads its second contact."""
    for placed in r.placed:
        if emergency(placed.function, placed.part):
            yield rule.finding(
                placed.function.id,
                detail=f"{placed.function.name}: {means(r, placed)}. {reported(r, placed)}",
            )


def means(r: Resolved, placed: Placed) -> str:
    """What an emergency control does on this panel, in words."""
    if breaks_power(placed) and not _breaks_something(r, placed):
        return "no load of this panel is behind its contacts"
    return MEANS[placed.function.stop_role or ""]


def _breaks_something(r: Resolved, placed: Placed) -> bool:
    """Whether current passes a stop's own contacts, or the poles of its relay, with everything on."""
    passed, own = flow(r, "all").passed, (placed.function.id, f"{placed.function.id}{STOP_RELAY}")
    return any(passed.get((t.start, t.end), 0.0) > 0 for t in passages(r, "all") if t.device in own)


def reported(r: Resolved, placed: Placed) -> str:
    """How a controller learns that an emergency control is pressed, in a sentence."""
    lines = [s.line for s in signals(r) if s.line.function == placed.function.id and s.line.direction == "in"]
    pins = {p.line: p for p in r.design.pins}
    names = {c.id: c.name for c in r.design.controllers}
    on = [f"pin {pins[x.id].pin} of {names[pins[x.id].controller]}" for x in lines if x.id in pins]
    if on:
        return f"A second contact reports it to {', '.join(on)}"
    return "Its report contact has no pin yet" if lines else "No contact reports it to a controller"


@check(
    "wire.stop-idle",
    severity="judge",
    title="Emergency stop breaks nothing",
    measures="loads that an emergency stop takes off when it is pressed",
    source=Source(kind="computed", note="the net list, solved with the stop pressed"),
    reads=READS,
)
def stop_idle(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Real stops and power switches with no load behind them: enter the volts and amperes that they break."""
    for p in filter(breaks_power, r.placed):
        if not _breaks_something(r, p):
            yield rule.finding(
                p.function.id,
                detail=f"{p.function.name}: enter the volts and amperes that it breaks",
                measured=Measure(value=0, unit="loads"),
                needed=Measure(value=1, unit="loads"),
            )


@check(
    "wire.stop-leaves-on",
    severity="judge",
    title="Loads stay on after stop",
    measures="loads that still carry current with every emergency stop pressed",
    source=Source(kind="computed", note="the net list, solved with the stop pressed; IEC 60204-1 from memory"),
    reads=READS,
)
def stop_leaves_on(r: Resolved, rule: Check) -> Iterator[Finding]:
    """To judge where a stop is the power switch of another supply; a note for loads that are marked to stay on."""
    stops = [p for p in r.placed if breaks_power(p)]
    if not stops:
        return
    fed = dict.fromkeys(f.draw.of for f in flow(r, "stopped").fed if f.draw.what == "load")
    on = [r.functions[f] for f in fed]
    marked = [f for f in on if f.switches.stays_on and real_stops(r)]
    others = [f for f in on if f not in marked]
    for some, severity in ((others, "judge"), (marked, "note")):
        if some:
            yield rule.finding(
                stops[0].function.id,
                detail=f"{stops[0].function.name} leaves on: {', '.join(_named(f) for f in some[:6])}"
                + (f" and {len(some) - 6} more" if len(some) > 6 else ""),
                measured=Measure(value=len(some), unit="loads"),
                needed=Measure(value=0, unit="loads"),
                most=True,
                severity="note" if severity == "note" else None,
                extra=severity,
                fix=_make_real(stops[0].function, severity),
            )


def _named(f: Function) -> str:
    return f"{f.name} ({f.switches.volts:g} V, {f.switches.amps:g} A)"


def _make_real(f: Function, severity: str) -> Fix | None:
    if severity == "note" or f.stop_role == "real":
        return None
    carried: Carrier = f.switches.through or "contactor"
    command = EditFunction(function=f.id, stop_role="real", through=carried)
    return Fix(label=f"Break every load, through a {carried}", commands=(command,))


@check(
    "wire.stop-overloaded",
    severity="must",
    title="Load exceeds stop contact rating",
    measures="amperes and volts that an emergency stop breaks, against the rating of its contact or of its relay",
    source=Source(kind="computed", note="the net list with everything on; ratings from the part"),
    fixes="lets a relay or a contactor break the loads",
    reads=READS,
)
def stop_overloaded(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Stops whose contact may weld, so that pressing them stops nothing."""
    passed = flow(r, "all").passed
    for p in filter(breaks_power, r.placed):
        f = p.function
        for device in (f.id, f"{f.id}{STOP_RELAY}"):
            through = [t for t in passages(r, "all") if t.device == device]
            amps = max((passed.get((t.start, t.end), 0.0) for t in through), default=0.0)
            load = max((_load_on(r, t.start, amps) for t in through), key=lambda s: s.volts, default=Switched())
            for unit, there, most in _over(p, device, load):
                better = smallest(load)
                yield rule.finding(
                    f.id,
                    detail=f"{f.name}, {names_of(r)[device]}: breaks {amps:.3g} A at {load.volts:g} V {load.kind}",
                    measured=Measure(value=there, unit=unit),
                    needed=Measure(value=most, unit=unit),
                    most=True,
                    extra=f"{device} {unit.lower()}",
                    fix=_through(f, better) if better and better != f.switches.through else None,
                )


def _load_on(r: Resolved, port: Port, amps: float) -> Switched:
    """What a contact breaks, as one load: the volts of the supply that feeds it, with so many amperes."""
    nets = net_list(r)
    net = nets.by_port.get(port)
    behind = protected(r).nets.get(net.id) if net else None
    if behind is None:
        return Switched(amps=amps)
    supply = nets.devices[behind.source]
    return Switched(volts=supply.value, amps=amps, current="AC" if "L" in supply.ports else "DC")


def _over(placed: Placed, device: str, load: Switched) -> Iterator[tuple[str, float, float]]:
    """What is more than a stop's own contact, or its relay, may break: unit, the load's, the most."""
    rating, kind = placed.part.rating, CONTACTS.get(placed.function.switches.through)
    if device == placed.function.id:
        amps, volts = (rating.amps, rating.volts) if rating else (math.inf, math.inf)
    else:
        amps, volts = (kind.amps, kind.ac if load.alternating else kind.dc) if kind else (math.inf, math.inf)
    yield from ((u, there, most) for u, there, most in (("A", load.amps, amps), ("V", load.volts, volts))
                if there > most + 1e-9)  # fmt: skip


def _through(f: Function, carrier: Carrier) -> Fix:
    return Fix(label=f"Break the loads through a {carrier}", commands=(EditFunction(function=f.id, through=carrier),))
