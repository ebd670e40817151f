"""Whether what is read or driven together can be so, and is read right."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial

from wingboard.core.changes.commands.functions import EditFunction
from wingboard.core.changes.commands.wire import UnpinLines
from wingboard.core.findings.finding import Finding, Fix, Measure
from wingboard.core.findings.limits import limit
from wingboard.core.findings.registry import Check, check
from wingboard.core.record.base import Source
from wingboard.core.record.functions import Scheme
from wingboard.core.record.lamps import lights
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.checks.nets import READS
from wingboard.core.wire.schemes.chips import CHIPS, EXPANDER, ON_ONE_BUS
from wingboard.core.wire.schemes.choosing import take_up
from wingboard.core.wire.schemes.ladder import Ladder, ladder
from wingboard.core.wire.schemes.matrix import ghosts
from wingboard.core.wire.schemes.networks import Network, networks
from wingboard.core.wire.schemes.shift import chip_count, places
from wingboard.core.wire.signals import Signal, pooled, signals

USUAL_STEP = 1000.0
"""Ohms of a ladder's resistors that suit any converter here (common practice)."""
SHEETS = Source(kind="memory", note="data sheets of 74HC165, 74HC595 and MCP23017")


@check(
    "wire.scheme-misfit",
    severity="note",
    title="It cannot be read so",
    measures="functions of which no terminal can be part of the scheme chosen for them",
    source=Source(kind="computed", note="what each terminal is"),
    reads=READS,
)
def scheme_misfit(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Functions with a scheme that are wired by themselves all the same."""
    for ident, some in _by_function(r).items():
        if all(s.why for s in some):
            why = dict.fromkeys(f"{s.line.terminal}: {s.why}" for s in some)
            yield rule.finding(
                ident,
                detail=f"{some[0].line.name}, {'; '.join(list(why)[:3])}",
                measured=Measure(value=len(some), unit="lines by themselves"),
                needed=Measure(value=0, unit="lines by themselves"),
                most=True,
            )


def _by_function(r: Resolved) -> dict[str, list[Signal]]:
    found: dict[str, list[Signal]] = {}
    for s in signals(r):
        found.setdefault(s.line.function, []).append(s)
    return found


def _with(r: Resolved, scheme: Scheme, label: str, functions: tuple[str, ...]) -> Fix:
    return Fix(label=label, commands=take_up(r, functions, scheme))


@check(
    "wire.ghosting",
    severity="judge",
    title="A matrix shows what is not pressed",
    measures="ways in which three closed contacts of a matrix without diodes show a fourth",
    source=Source(kind="practice", note="current goes backwards through closed contacts: a diode at each stops it"),
    fixes="puts a diode at each contact",
    reads=READS,
)
def ghosting(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Matrices without diodes in which a rectangle can be closed but for one corner."""
    for network in networks(r):
        if network.kind != "matrix-bare":
            continue
        many, first = 0, None
        for ghost in ghosts(network.grid):
            many, first = many + 1, first or ghost
        if first is not None:
            closed = ", ".join(s.line.name for s in first.closed)
            yield rule.finding(
                network.module,
                detail=f"{network.name}: {closed} closed show {first.seen.line.name} as well",
                measured=Measure(value=many, unit="ways"),
                needed=Measure(value=0, unit="ways"),
                most=True,
                fix=partial(_with, r, "matrix", "A diode at each contact", _members(network)),
            )


def _members(network: Network) -> tuple[str, ...]:
    return tuple(dict.fromkeys(s.line.function for s in network.signals))


@check(
    "wire.chip-load",
    severity="must",
    title="Too much for a chip that drives lamps",
    measures="current of all lamps on one 74HC595 or MCP23017, lit at once, and through one output",
    source=SHEETS,
    fixes="drives the lamps through transistors",
    reads=READS,
)
def chip_load(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Chips whose outputs together, or one alone, carry more than they ever may."""
    for network in networks(r):
        chip = CHIPS.get(network.kind)
        if chip is None:
            continue
        where = places(network, chip)
        for n in sorted({n for n, _ in where.values()}):
            mine = [s for s in network.signals if where[s.id][0] == n]
            total, each = sum(s.line.chip_current for s in mine), max(s.line.pin_current for s in mine)
            over = total > chip.most + 1e-9
            if over or each > chip.each + 1e-9:
                own = (s for s in mine if s.line.chip_current and lights(s.placed.function, s.placed.part))
                lamps = tuple(dict.fromkeys(s.line.function for s in own))
                yield rule.finding(
                    network.module,
                    detail=f"{network.name}: {chip.name} {n} of {max(k for k, _ in where.values())}, "
                    + ("all lit" if over else "through one output"),
                    measured=Measure(value=1000 * (total if over else each), unit="mA"),
                    needed=Measure(value=1000 * (chip.most if over else chip.each), unit="mA"),
                    most=True,
                    fix=partial(_through_transistors, lamps) if lamps else None,
                    extra=f"{network.kind}-{n}",
                )


def _through_transistors(lamps: tuple[str, ...]) -> Fix:
    commands = tuple(EditFunction(function=f, through="transistor") for f in lamps)
    return Fix(label="Through transistors", commands=commands)


@check(
    "wire.expanders-alike",
    severity="must",
    title="More expanders than addresses",
    measures="MCP23017 that one bus can tell apart",
    source=SHEETS,
    reads=READS,
)
def expanders_alike(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Buses on which two expanders would answer to one address."""
    homes = {p.line: p.controller for p in r.design.pins}
    counted: dict[str, int] = {}
    for network in networks(r):
        if network.kind == "expander":
            home = homes.get(network.lines[0].id, "")
            counted[home] = counted.get(home, 0) + chip_count(network, EXPANDER)
    names = {c.id: c.name for c in r.design.controllers}
    for home, many in counted.items():
        if many > ON_ONE_BUS:
            yield rule.finding(
                *([home] if home else []),
                detail=f"{names.get(home, 'One bus')}: give some modules another board, or read some of it in a chain",
                measured=Measure(value=many, unit="expanders"),
                needed=Measure(value=ON_ONE_BUS, unit="expanders"),
                most=True,
            )


@check(
    "wire.network-split",
    severity="must",
    title="Driven by two boards at once",
    measures="boards on which the lines of one matrix, chain or bus of expanders end",
    source=Source(kind="computed", note="the pins given to its lines"),
    fixes="takes those pins back, for the solver to give them on one board",
    reads=READS,
)
def network_split(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Networks of which no program has all lines."""
    homes = {p.line: p.controller for p in r.design.pins}
    for network in networks(r):
        given = {line.id: homes[line.id] for line in network.lines if line.id in homes}
        if len(set(given.values())) > 1:
            yield rule.finding(
                network.module,
                detail=f"{network.name}: one board cannot read what another one drives",
                measured=Measure(value=len(set(given.values())), unit="boards"),
                needed=Measure(value=1, unit="board"),
                most=True,
                fix=Fix(label="Take its pins back", commands=(UnpinLines(lines=tuple(given)),)),
                extra=network.kind,
            )


def _ladders(r: Resolved) -> Iterator[tuple[Signal, Ladder]]:
    for some in _by_function(r).values():
        mine = [s for s in some if s.by == "ladder"]
        if len(mine) > 1:
            f, tolerance = mine[0].placed.function, limit(r.design, "resistor-tolerance") / 100
            yield mine[0], ladder(len(mine), f.step, tolerance, f.steady)


@check(
    "wire.ladder-source",
    severity="must",
    title="Ladder reads wrong here",
    measures="resistance that an analogue pin sees at the middle tap of a ladder",
    limits=("ladder-source",),
    fixes="takes smaller resistors, or holds the voltage at the pin by a capacitor",
    reads=READS,
)
def ladder_source(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Ladders of resistors so large that the converter does not charge in its time."""
    for signal, found in _ladders(r):
        f, most = signal.placed.function, rule.limit(r.design)
        if found.source > most + 1e-6 and not f.steady:
            fixes = [
                Fix(label="1 kΩ steps instead", commands=(EditFunction(function=f.id, step=USUAL_STEP),)),
                Fix(label="100 nF at the pin", commands=(EditFunction(function=f.id, steady=True),)),
            ]
            yield rule.finding(
                f.id,
                detail=f"{f.name}: steps of {f.step / 1000:g} kΩ, the converter is not charged in its time",
                measured=Measure(value=found.source / 1000, unit="kΩ"),
                needed=Measure(value=most / 1000, unit="kΩ"),
                most=True,
                fix=partial(list, fixes),
            )


@check(
    "wire.ladder-window",
    severity="judge",
    title="Positions of a ladder run into each other",
    measures="how far resistors off by their tolerance move a tap, against half a step",
    limits=("resistor-tolerance",),
    reads=READS,
)
def ladder_window(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Ladders with so many ways that resistors of this tolerance mix them up."""
    for signal, found in _ladders(r):
        if found.off > found.half + 1e-9:
            yield rule.finding(
                signal.line.function,
                detail=f"{signal.line.name}, {len(found.taps)} positions: take resistors of 1 %, or fewer positions",
                measured=Measure(value=100 * found.off, unit="%"),
                needed=Measure(value=100 * found.half, unit="%"),
                most=True,
            )


@check(
    "wire.lamp-not-dimmed",
    severity="note",
    title="A lamp that cannot be dimmed here",
    measures="lamps that are to be dimmed, on chips that only switch",
    source=SHEETS,
    fixes="gives it a pin of its own",
    reads=READS,
)
def lamp_not_dimmed(r: Resolved, rule: Check) -> Iterator[Finding]:
    """One finding a module over the lamps that a chip switches on and off."""
    for network in networks(r):
        dims = [s for s in network.signals if s.line.lamp and s.line.prefers == "PWM" and pooled(s)]
        if dims:
            names = list(dict.fromkeys(s.line.name for s in dims))
            owners = tuple(dict.fromkeys(s.line.function for s in dims))
            yield rule.finding(
                network.module,
                detail=", ".join(names[:4]) + (" …" if len(names) > 4 else ""),
                measured=Measure(value=len(dims), unit="lamps"),
                needed=Measure(value=0, unit="lamps"),
                most=True,
                fix=partial(_with, r, "direct", "Pins of their own", owners),
                extra=network.kind,
            )
