"""Lines without a pin, pins that cannot do what is asked, pins, ports and chips overloaded, too few in reserve."""

from __future__ import annotations

import math
from collections.abc import Iterator

from wingboard.core.changes.commands.functions import EditFunction
from wingboard.core.changes.commands.wire import UnpinLines
from wingboard.core.findings.finding import Finding, Fix, Measure
from wingboard.core.findings.limits import limit
from wingboard.core.findings.registry import Check, check
from wingboard.core.record.base import Source
from wingboard.core.record.controllers import BUS_NAMES, Board, Pin, board_of, open_controllers
from wingboard.core.record.lamps import lights
from wingboard.core.record.wiring import Controller
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.lines import bare_functions, lines, serves
from wingboard.core.wire.signals import Line

BOARDS = Source(kind="published", note="pin tables of the boards' variant headers")


@check(
    "wire.no-pin",
    severity="note",
    title="Without a pin",
    measures="lines of placed parts that no pin is given to",
    source=Source(kind="computed", note="lines of the placed parts"),
)
def no_pin(r: Resolved, rule: Check) -> Iterator[Finding]:
    """One finding over all lines without a pin."""
    given = {p.line for p in r.design.pins}
    bare = [s for s in lines(r) if s.id not in given]
    if bare:
        without = bare_functions(r)
        functions = tuple(f.id for f in r.design.functions if f.id in without)
        names = list(dict.fromkeys(s.name for s in bare))
        yield rule.finding(
            detail=", ".join(names[:4]) + (" …" if len(names) > 4 else ""),
            measured=Measure(value=len(bare), unit="lines"),
            needed=Measure(value=0, unit="left"),
            most=True,
        ).model_copy(update={"subjects": functions})


@check(
    "wire.pin-incapable",
    severity="must",
    title="This pin cannot do that",
    measures="what a line needs, against what its pin can do",
    source=BOARDS,
    fixes="takes the pin back, for the solver to choose another",
)
def pin_incapable(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Pins that do not exist, are kept for USB, or cannot read a voltage."""
    wanted = {s.id: s for s in lines(r)}
    controllers = {c.id: c for c in r.design.controllers}
    for choice in r.design.pins:
        line, owner = wanted.get(choice.line), controllers[choice.controller]
        if line is None or serves(line, board_of(r.design, owner.board).pin(choice.pin)):
            continue
        why = _why(line, board_of(r.design, owner.board), choice.pin)
        yield rule.finding(
            line.function or line.module,
            detail=f"{line.name}, {line.terminal}: pin {choice.pin} of {owner.name} {why}",
            fix=Fix(label="Take the pin back", commands=(UnpinLines(lines=(choice.line,)),)),
            extra=choice.line,
        )


def _why(line: Line, board: Board, name: str) -> str:
    """Why a pin does not serve a line."""
    right = board.bus_pin(line.bus) if line.bus else None
    if board.pin(name) is None:
        return "is not there, or carries the USB line"
    pin = board.pin(name)
    if line.coder or (pin and pin.coder):
        return "takes an input coder and nothing else" if pin and pin.coder else "takes no input coder"
    if line.bus and right:
        return f"is not {BUS_NAMES[line.bus]}; pin {right.name} is"
    if line.bus:
        return f"is not {BUS_NAMES[line.bus]}; this board has none"
    if line.analogue:
        return "cannot read a voltage; an analogue pin (A…) can"
    return "drives nothing: it is an input only" if line.direction == "out" else "reads no contact"


@check(
    "wire.pin-left-over",
    severity="judge",
    title="Pin for nothing",
    measures="pins given to lines that are no longer there",
    source=Source(kind="computed", note="lines of the placed parts"),
    fixes="takes those pins back",
)
def pin_left_over(r: Resolved, rule: Check) -> Iterator[Finding]:
    """One finding over pins whose line went away."""
    wanted = {s.id for s in lines(r)}
    stale = [p.line for p in r.design.pins if p.line not in wanted]
    if stale:
        yield rule.finding(
            detail=", ".join(stale[:5]) + (" …" if len(stale) > 5 else ""),
            measured=Measure(value=len(stale), unit="pins"),
            needed=Measure(value=0, unit="pins"),
            most=True,
            fix=lambda: Fix(label="Take them back", commands=(UnpinLines(lines=tuple(stale)),)),
        )


@check(
    "wire.pin-current",
    severity="must",
    title="Too much for one pin",
    measures="current through a pin: over what to plan with, to judge; over what it ever carries, to fix",
    limits=("pin-current", "pin-current-most", "drive-current"),
    fixes="drives it through a transistor",
)
def pin_current(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Lamps and coils that want a transistor."""
    each = {line.id: board.each for _, board, given in _given(r) for line, _ in given}
    for line in lines(r):
        own = each.get(line.id)
        plan, most = own or (rule.limit(r.design), rule.limit(r.design, 1))
        if line.pin_current > plan + 1e-9:
            over = line.pin_current > most + 1e-9
            command = EditFunction(function=line.function, through="transistor")
            its_own = line.function in r.functions and _speaks_of_lamp(r, line.function)
            yield rule.finding(
                line.function or line.module,
                detail=f"{line.name}, {line.terminal}: put a transistor between pin and load",
                measured=Measure(value=line.pin_current * 1000, unit="mA"),
                needed=Measure(value=(most if over else plan) * 1000, unit="mA"),
                most=True,
                severity=None if over else "judge",
                fix=Fix(label="Drive it through a transistor", commands=(command,)) if its_own else None,
                extra=line.id,
            )


def _speaks_of_lamp(r: Resolved, function: str) -> bool:
    """Whether what is said of a function is of its lamp, not of a load that its contact switches."""
    f = r.functions[function]
    return f.part is None or lights(f, r.parts[f.part])


@check(
    "wire.chip-current",
    severity="must",
    title="Too much for the chip",
    measures="current of all lamps and coils driven by one controller at once: over what to plan with, to judge; over "
    "what it ever carries, to fix",
    limits=("chip-current", "chip-current-most", "drive-current"),
)
def chip_current(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Controllers whose lamps together overload the chip."""
    for controller, board, given in _given(r):
        drawn = math.fsum(line.chip_current for line, _ in given)
        plan, most = board.whole or (rule.limit(r.design), rule.limit(r.design, 1))
        if drawn > plan + 1e-9:
            over = drawn > most + 1e-9
            yield rule.finding(
                controller.id,
                detail=f"All lamps of {controller.name} lit at once, as in a lamp test",
                measured=Measure(value=drawn * 1000, unit="mA"),
                needed=Measure(value=(most if over else plan) * 1000, unit="mA"),
                most=True,
                severity=None if over else "judge",
            )


@check(
    "wire.port-current",
    severity="must",
    title="Too much for some of its ports",
    measures="current of all lamps and coils on ports that share a limit",
    source=Source(kind="memory", note="ATmega328P and ATmega2560 data sheets, sums over ports"),
)
def port_current(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Controllers whose lamps crowd on ports that share a limit."""
    for controller, board, given in _given(r):
        for n, group in enumerate(board.groups):
            drawn = math.fsum(line.pin_current for line, pin in given if pin.port in group.ports)
            if drawn > group.most + 1e-9:
                yield rule.finding(
                    controller.id,
                    detail=f"{controller.name}, {group.name}: spread the lamps over other pins, or use transistors",
                    measured=Measure(value=drawn * 1000, unit="mA"),
                    needed=Measure(value=group.most * 1000, unit="mA"),
                    most=True,
                    extra=f"group-{n + 1}",
                )


def _given(r: Resolved) -> list[tuple[Controller, Board, list[tuple[Line, Pin]]]]:
    """The lines of each controller with their pins."""
    by_id = {line.id: line for line in lines(r)}
    given = []
    for controller in r.design.controllers:
        board = board_of(r.design, controller.board)
        mine = [(by_id.get(p.line), board.pin(p.pin)) for p in r.design.pins if p.controller == controller.id]
        given.append((controller, board, [(line, pin) for line, pin in mine if line and pin]))
    return given


@check(
    "wire.strap-pin",
    severity="judge",
    title="This pin is read at power-up",
    measures="lines on pins whose level at power-up chooses how the chip starts",
    source=Source(kind="memory", note="ESP32 data sheet: strapping pins 0, 2, 5, 12, 15"),
    fixes="takes the pin back, for the solver to choose another",
)
def strap_pin(r: Resolved, rule: Check) -> Iterator[Finding]:
    """A switch left closed, or a lamp, may keep the board from starting."""
    for controller, _, given in _given(r):
        for line, pin in given:
            if pin.strap:
                yield rule.finding(
                    line.function or line.module,
                    detail=f"{line.name}, {line.terminal}: pin {pin.name} of {controller.name} must be free then, or "
                    "the board may not start",
                    fix=Fix(label="Take the pin back", commands=(UnpinLines(lines=(line.id,)),)),
                    extra=line.id,
                )


@check(
    "wire.radio-pin",
    severity="judge",
    title="It measures only while the radio is off",
    measures="voltages read by the converter that the radio uses",
    source=Source(kind="memory", note="ESP32 data sheet: ADC2 and the radio"),
    fixes="takes the pin back, for the solver to choose another",
)
def radio_pin(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Potentiometers and ladders that stand still as soon as the network is used."""
    for controller, _, given in _given(r):
        for line, pin in given:
            if pin.radio and line.analogue:
                yield rule.finding(
                    line.function or line.module,
                    detail=f"{line.name}, {line.terminal}: pin {pin.name} of {controller.name}",
                    fix=Fix(label="Take the pin back", commands=(UnpinLines(lines=(line.id,)),)),
                    extra=line.id,
                )


@check(
    "wire.levels",
    severity="must",
    title="5 V meets a 3.3 V pin",
    measures="parts fed by more than the volts of the board whose pins their signals are on",
    source=Source(kind="memory", note="data sheets: a pin bears its supply and 0.3 V; logic wants 0.7 of its supply"),
)
def levels(r: Resolved, rule: Check) -> Iterator[Finding]:
    """What gives its supply's volts to a pin kills it; what only takes signals may not understand them."""
    fed = {p.function.id: p.part.feed.volts for p in r.placed if p.part.feed}
    for controller, board, given in _given(r):
        over: dict[str, list[Line]] = {}
        for line, _ in given:
            signal = not (line.lamp or line.analogue or line.transistor or line.network)
            for function in (
                line.members
                if line.network.startswith(("~digits-", "~pixels-"))
                else (line.function,)
                if signal
                else ()
            ):
                if fed.get(function, 0.0) > board.volts + 0.3:
                    over.setdefault(function, []).append(line)
        for function, some in over.items():
            gives = any(line.direction != "out" for line in some)
            takes = "a level shifter, or a part for the board's volts"
            yield rule.finding(
                function,
                detail=f"{r.functions[function].name} on {controller.name}: "
                + (f"its pins are killed; {takes}" if gives else f"it may not understand; {takes}"),
                measured=Measure(value=fed[function], unit="V"),
                needed=Measure(value=board.volts, unit="V"),
                most=True,
                severity=None if gives else "judge",
                extra=controller.id,
            )


@check(
    "wire.reserve",
    severity="judge",
    title="No pins in reserve",
    measures="share of all pins still free once every line has one",
    limits=("pin-reserve",),
)
def reserve(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Boards so full that the next idea needs a new one."""
    total = sum(len(board_of(r.design, c.board).pins) for c in open_controllers(r.design))
    given = {p.line: f"{p.controller} {p.pin}" for p in r.design.pins}
    wanted = len({given.get(line.id, line.bus or line.id) for line in lines(r)})
    need = limit(r.design, "pin-reserve")
    if total and wanted and (total - wanted) / total * 100 < need - 1e-9:
        yield rule.finding(
            detail=f"{wanted} wanted of {total} pins",
            measured=Measure(value=max(0.0, (total - wanted) / total * 100), unit="%"),
            needed=Measure(value=need, unit="%"),
        )
