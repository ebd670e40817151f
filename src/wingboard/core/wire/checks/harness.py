"""Whether plugs fit and cannot be mistaken, looms get out of their module, and wire on hand is enough."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial

from wingboard.core.changes.commands.boards import SetCase
from wingboard.core.changes.commands.harness import EditLoom
from wingboard.core.findings.finding import Finding, Fix, Measure
from wingboard.core.findings.registry import Check, check
from wingboard.core.record.base import Source
from wingboard.core.record.controllers import logic_of
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.backlights import light_lines
from wingboard.core.wire.checks.feeding import LAID
from wingboard.core.wire.checks.nets import READS
from wingboard.core.wire.earth import EARTH
from wingboard.core.wire.harness.apart import dangerous_net
from wingboard.core.wire.harness.bundles import looms
from wingboard.core.wire.harness.laid import areas, laid
from wingboard.core.wire.harness.places import places
from wingboard.core.wire.harness.plugs import KINDS, Plug, plugs
from wingboard.core.wire.harness.totals import totals
from wingboard.core.wire.live import live_supply
from wingboard.core.wire.nets import net_list
from wingboard.core.wire.wires import runs

PLUGS = Source(kind="practice", note="plugs of one panel differ, or are keyed")


@check(
    "wire.plugs-alike",
    severity="judge",
    title="Two plugs go into each other's places",
    measures="plugs of one kind and size without a free contact to close against each other",
    source=PLUGS,
    fixes="keeps more contacts free, so that each can be keyed",
    reads=LAID,
)
def plugs_alike(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Alike plugs that cannot be keyed, for all their contacts are in use."""
    alike: dict[tuple[str, int], list[Plug]] = {}
    for plug in plugs(r):
        alike.setdefault((plug.kind, plug.size), []).append(plug)
    for some in alike.values():
        bare = [plug for plug in some if plug.key is None]
        if len(some) > 1 and len(bare) > 1:
            yield rule.finding(
                *dict.fromkeys(plug.module for plug in bare),
                detail=f"{', '.join(plug.title for plug in bare)}: mark them, and make one of them another kind",
                measured=Measure(value=0, unit="free contacts"),
                needed=Measure(value=1, unit="free contacts"),
                extra=some[0].title,
            )


@check(
    "wire.plug-thick",
    severity="judge",
    title="The wire does not fit its plug",
    measures="cross-section of what ends on each plug against what its contacts take",
    source=Source(kind="practice", note="solder cups and crimps of such plugs"),
    fixes="takes a terminal strip",
    reads=LAID,
)
def plug_thick(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Plugs with wires that are too thick for their contacts."""
    widest: dict[str, float] = {}
    for piece in laid(r):
        for port in (piece.wire.start, piece.wire.end):
            if piece.wire.how == "wire":
                widest[port.device] = max(widest.get(port.device, 0.0), piece.area)
    for plug in plugs(r):
        most = KINDS[plug.kind].area
        if widest.get(plug.id, 0.0) > most + 1e-9:
            yield rule.finding(
                plug.module,
                detail=plug.title,
                measured=Measure(value=widest[plug.id], unit="mm²"),
                needed=Measure(value=most, unit="mm²"),
                most=True,
                fix=partial(_strip, plug) if plug.kind != "strip" else None,
                extra=plug.name,
            )


def _strip(plug: Plug) -> Fix:
    field = "signals" if plug.carries == "signals" else "power"
    command = EditLoom.model_validate({"module": plug.module, field: "strip"})
    return Fix(label="A terminal strip", commands=(command,))


@check(
    "wire.mains-wiring",
    severity="note",
    title="Dangerous voltage on this panel",
    measures="wires at 50 V or more, or on AC: how many, and the thinnest; where protective earth goes",
    limits=("mains-area",),
    reads=LAID,
)
def mains_wiring(r: Resolved, rule: Check) -> Iterator[Finding]:
    """A caution with the figures that an electrician asks for."""
    nets, sizes = net_list(r), areas(r)
    wires = [w for w in runs(r) if dangerous_net(r, nets.by_id[w.net]) and w.how == "wire"]
    if wires:
        supplies = sorted({d.name.removeprefix("a supply of ") for d in nets.devices.values() if live_supply(d)})
        earth = nets.by_id.get(EARTH)
        ends = len([p for p in earth.ports if nets.devices[p.device].kind != "supply"]) if earth else 0
        yield rule.finding(
            detail=f"{', '.join(supplies)}: {len(wires)} wires; protective earth ends at {ends} metal parts or loads. "
            "A licensed electrician wires and tests this",
            measured=Measure(value=min(sizes[w.id] for w in wires), unit="mm²"),
            needed=Measure(value=rule.limit(r.design), unit="mm²"),
        )


@check(
    "wire.dangerous-loom",
    severity="judge",
    title="Dangerous voltage among signals",
    measures="wires of dangerous voltage that leave a module without a terminal strip of their own",
    source=Source(kind="memory", note="IEC 60364-5-52: circuits of different voltage run apart"),
    fixes="gives the module a strip for supplies, and one apart for these",
    reads=LAID,
)
def dangerous_loom(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Modules whose mains leave beside signals: their own strip, covered, and a licensed electrician for it."""
    where = places(r)
    for module in r.modules.values():
        ident = module.module.id
        bad = [w for w in runs(r) if ident in (where.home(w.start), where.home(w.end)) and w.how == "wire"
               and dangerous_net(r, net_list(r).by_id[w.net])]  # fmt: skip
        others = any(w.kind == "signal" and ident in (where.home(w.start), where.home(w.end)) for w in runs(r))
        if bad and others and module.module.loom.power is None:
            yield rule.finding(
                ident,
                detail=f"{module.module.name}: a strip of their own with a cover, a way of their own, and a licensed "
                "electrician",
                measured=Measure(value=len(bad), unit="wires"),
                needed=Measure(value=0, unit="wires"),
                most=True,
                fix=Fix(label="A strip of its own", commands=(EditLoom(module=ident, power="strip"),)),
            )


@check(
    "wire.exit-tight",
    severity="judge",
    title="The loom does not go through its hole",
    measures="how thick the loom is where it leaves against the largest cable hole of its case",
    source=Source(kind="practice", note="a hole is filled to four fifths of its diameter at most"),
    fixes="makes the hole larger",
    reads=LAID,
)
def exit_tight(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Cases whose cable holes are too small for what leaves them."""
    if all(m.module.case is None for m in r.modules.values()):
        return
    for loom in looms(r):
        case = r.modules[loom.module].module.case
        widest = max((e.diameter for e in case.exits), default=0.0) if case else 0.0
        need = loom.exit.thick / 0.8
        if case and loom.exit.wires and widest < need - 1e-9:
            yield rule.finding(
                loom.module,
                detail=f"{r.modules[loom.module].module.name}: {loom.exit.wires} wires, {loom.exit.thick:.1f} mm thick",
                measured=Measure(value=widest),
                needed=Measure(value=need),
                fix=partial(_wider, r, loom.module, need),
            )


def _wider(r: Resolved, module: str, need: float) -> Fix | None:
    case = r.modules[module].module.case
    if case is None or not case.exits:
        return None
    size = float(-(-need // 1))
    exits = (case.exits[0].model_copy(update={"diameter": size}), *case.exits[1:])
    command = SetCase.model_validate({"module": module, "exits": exits})
    return Fix(label=f"A hole of {size:g} mm", commands=(command,))


@check(
    "wire.wire-short",
    severity="note",
    title="Wire is to be bought",
    measures="metres that are cut against those on hand, of each colour and cross-section",
    source=Source(kind="computed", note="the longest first, from the shortest piece it fits on"),
    reads=LAID,
)
def wire_short(r: Resolved, rule: Check) -> Iterator[Finding]:
    """What the wire on hand does not reach for; only where the workshop lists some."""
    if not r.design.workshop.wires:
        return
    short = [w for w in totals(r).wire if w.to_buy > 0]
    if short:
        named = ", ".join(f"{w.to_buy:.1f} m {w.colour} {w.area:g} mm²" for w in short[:4])
        yield rule.finding(
            detail=named + (f" and {len(short) - 4} more" if len(short) > 4 else ""),
            measured=Measure(value=sum(w.to_buy for w in short), unit="metres to buy"),
            needed=Measure(value=0, unit="metres to buy"),
            most=True,
        )


@check(
    "wire.length-guessed",
    severity="note",
    title="Lengths that are guesses",
    measures="wires to boards, supplies and loads of which nobody said where they stand",
    source=Source(kind="computed", note="from the module's exit on as much as the harness says"),
    reads=LAID,
)
def length_guessed(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Wires whose length follows from no place: say where the boards and supplies stand, or measure before cutting."""
    many = sum(piece.wire.how == "wire" and not piece.said for piece in laid(r))
    if many:
        yield rule.finding(
            detail=f"{r.design.harness.away:g} mm is reckoned from each exit on; say where boards, supplies and loads "
            "stand, or measure before you cut",
            measured=Measure(value=many, unit="wires"),
            needed=Measure(value=0, unit="wires"),
            most=True,
        )


@check(
    "wire.chain-level",
    severity="judge",
    title="3.3 V is low for the chain's data",
    measures="volts of the board that drives a chain on 5 V against what its LEDs take for high",
    source=Source(kind="memory", note="data sheets of addressable LEDs: high is 0.7 of their supply"),
    reads=READS,
)
def chain_level(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Chains that flicker, or stay dark, for their data is too low."""
    given = {p.line: p.controller for p in r.design.pins}
    for line in (line for line in light_lines(r) if line.id.endswith(".data")):
        volts = logic_of(r.design, given.get(line.id))
        if r.design.controllers and volts < 0.7 * 5.0 - 1e-9:
            yield rule.finding(
                line.module,
                detail=f"{line.name}: a level shifter (one gate of a 74HCT) between",
                measured=Measure(value=volts, unit="V"),
                needed=Measure(value=3.5, unit="V"),
            )
