"""Circuits that are not whole: loads without a breaker, sources without a switch, events nobody sees or makes."""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence
from typing import Literal

from wingboard.core.brief.danger import dangerous, touchable
from wingboard.core.brief.wanted import duty_of, family_of
from wingboard.core.changes.command import Command
from wingboard.core.changes.commands.functions import AddFunction, EditFunction
from wingboard.core.changes.commands.parts import ChoosePart
from wingboard.core.findings.finding import Finding, Fix, Measure
from wingboard.core.findings.limits import limit
from wingboard.core.findings.registry import Check, check
from wingboard.core.record.base import Source
from wingboard.core.record.functions import Function, Switched
from wingboard.core.record.lamps import lights
from wingboard.core.resolved.design import Resolved

RATINGS = (1, 2, 3, 5, 7.5, 10, 15, 20, 25, 30, 40, 50, 60, 80, 100, 125, 150, 200, 250)
"""Breakers on the market (A, common practice)."""
WHOLE = Source(kind="practice", note="each powered system wants switch, protection, feed, indicator and placard")


def breaker_for(amps: float, factor: float) -> float:
    """The next rating (A) at or above the load times ``factor`` (1.25: common practice)."""
    return next((a for a in RATINGS if a >= amps * factor - 1e-9), RATINGS[-1])


def _duty(r: Resolved, f: Function) -> str:
    return duty_of(f, r.parts.get(f.part or ""))


def _belonging(r: Resolved, to: Function, duty: str) -> bool:
    """Whether some function of that duty belongs to this one, or protects its bus."""
    bus = to.switches.bus.lower()
    return any(
        _duty(r, f) == duty and (f.of == to.id or (bus and duty == "protection" and f.switches.bus.lower() == bus))
        for f in r.design.functions
        if f is not to
    )


@check(
    "brief.load-unprotected",
    severity="judge",
    title="A load without a breaker",
    measures="functions that switch a load, with no breaker or fuse for them or for their bus",
    limits=("breaker-factor",),
    source=WHOLE,
    fixes="adds a breaker of the next rating over 1.25 times the load",
    reads=("brief", "wishes", "parts", "limits"),
)
def load_unprotected(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Loads that nothing protects."""
    for f in r.design.functions:
        if f.switches.amps <= 0 or _duty(r, f) in ("protection", "source") or f.state in ("alias", "dummy"):
            continue
        if f.part is not None and lights(f, r.parts[f.part]):
            continue  # it speaks of its own lamp
        if not _belonging(r, f, "protection"):
            rating = breaker_for(f.switches.amps, limit(r.design, "breaker-factor"))
            yield rule.finding(
                f.id,
                detail=f"{f.name} switches {f.switches.volts:g} V {f.switches.amps:g} A; no breaker or fuse is listed",
                fix=lambda: Fix(label=f"Add a {rating:g} A breaker", commands=(_breaker(f, rating),)),
            )


def _breaker(f: Function, rating: float) -> AddFunction:
    carried = Switched(volts=f.switches.volts, amps=f.switches.amps, current=f.switches.current, bus=f.switches.bus)
    return AddFunction(
        name=f"{f.name} breaker"[:120], group=f.group, want=f"breaker {rating:g} A", of=f.id, switches=carried
    )


@check(
    "brief.source-incomplete",
    severity="judge",
    title="A source of power is not whole",
    measures="sources without a switch, a protection or an indicator of their own",
    source=WHOLE,
    fixes="adds what is missing",
    reads=("brief", "wishes", "parts", "limits"),
)
def source_incomplete(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Each source (generator, charger, battery) is a circuit of its own."""
    wants = {"control": "toggle", "protection": "breaker", "indicator": "lamp"}
    for f in r.design.functions:
        if _duty(r, f) != "source":
            continue
        missing = [d for d in wants if not _belonging(r, f, d) and not (d == "indicator" and f.indicator)]
        if missing:
            yield rule.finding(
                f.id,
                detail=f"{f.name} has no {', no '.join(_CALLED[d] for d in missing)}",
                fix=lambda: Fix(
                    label=f"Add {' and '.join(_CALLED[d] for d in missing)}",
                    commands=tuple(_belonging_row(f, d, wants[d]) for d in missing),
                ),
            )


_CALLED = {"control": "switch", "protection": "breaker", "indicator": "lamp"}


def _belonging_row(f: Function, duty: str, want: str) -> AddFunction:
    """The row of a control, protection or indicator that belongs to a source."""
    duty_said: Literal["control"] | None = "control" if duty == "control" else None
    return AddFunction(name=f"{f.name} {_CALLED[duty]}"[:120], group=f.group, want=want, of=f.id, duty=duty_said)


PAIRED = Source(kind="practice", note="each event has a control and an indicator")
SHOWS_ITSELF = frozenset({"toggle", "rocker", "rotary", "key", "pot", "slider", "thumbwheel", "breaker", "emergency"})
"""Families whose lever, knob or key shows by its place what was chosen."""
_HEARD = re.compile(r"horn|gong|bell|chime|whistle|sounder|test|volume", re.I)


def _events(r: Resolved) -> dict[str, list[Function]]:
    """The functions of each event, by the event in small letters."""
    found: dict[str, list[Function]] = {}
    for f in r.design.functions:
        if f.switches.event and f.state not in ("dummy", "alias"):
            found.setdefault(f.switches.event.lower(), []).append(f)
    return found


def _shows(r: Resolved, f: Function) -> bool:
    """Whether the eye or the ear learns from a function what was done with its event."""
    part = r.parts.get(f.part or "")
    if _duty(r, f) == "indicator" or f.indicator or "lit" in f.want.lower().split():
        return True
    if part and any(line.does == "lamp" for line in part.lines):
        return True
    family = part.family if part else family_of(f, f.name)
    return family in SHOWS_ITSELF or bool(_HEARD.search(f"{f.name} {f.switches.event}"))


@check(
    "brief.event-unseen",
    severity="judge",
    title="Events that nothing shows",
    measures="events made by a control that springs back, without a lamp of its own or an indicator",
    source=PAIRED,
    fixes="adds a lamp for each",
    reads=("brief", "wishes", "parts", "limits", "accepted"),
)
def event_unseen(r: Resolved, rule: Check) -> Iterator[Finding]:
    """One finding over the controls of all such events."""
    unseen = [users[0] for users in _events(r).values() if not any(_shows(r, f) for f in users)]
    yield from rule.over(r, unseen, unit="unseen", fix=_lamps)


def _lamps(unseen: Sequence[Function]) -> Fix:
    return Fix(label="Add a lamp for each", commands=tuple(_lamp_row(f) for f in unseen))


def _lamp_row(f: Function) -> AddFunction:
    """The row of a lamp that shows a function's event."""
    event = f.switches.event
    return AddFunction(name=f"{event} lamp"[:120], group=f.group, want="lamp", switches=Switched(event=event))


@check(
    "brief.event-unmade",
    severity="note",
    title="Events that no control makes",
    measures="events that are only shown; right where the machine itself makes them",
    source=PAIRED,
    reads=("brief", "wishes", "parts", "limits", "accepted"),
)
def event_unmade(r: Resolved, rule: Check) -> Iterator[Finding]:
    """One finding over the indicators of all such events."""
    shown = [users[0] for users in _events(r).values() if all(_duty(r, f) == "indicator" for f in users)]
    yield from rule.over(r, shown, unit="only shown")


@check(
    "brief.control-idle",
    severity="note",
    title="Controls that switch nothing yet",
    measures="controls with neither an event nor a load, unless they are dummies",
    source=WHOLE,
    reads=("brief", "wishes", "parts", "limits", "accepted"),
)
def control_idle(r: Resolved, rule: Check) -> Iterator[Finding]:
    """One finding over all of them."""
    idle = [
        f
        for f in r.design.functions
        if f.state == "wanted" and not f.switches.event and not f.switches.amps and _duty(r, f) == "control"
    ]
    yield from rule.over(r, idle, unit="idle")


@check(
    "brief.irreversible-unguarded",
    severity="judge",
    title="Cannot be undone, and has no guard",
    measures="functions that cannot be undone, without guard, lock or key",
    source=Source(kind="practice", note="guard or key for the irreversible"),
    fixes="chooses a guarded toggle, or asks for one",
    reads=("brief", "wishes", "parts", "limits"),
)
def irreversible_unguarded(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Functions of risk “guarded” whose part, or wish, has no guard."""
    for f in r.design.functions:
        part = r.parts.get(f.part or "")
        if f.risk != "guarded" or (part.guarded if part else _asks_for_guard(f)):
            continue
        command: Command = EditFunction(function=f.id, want=f"guarded {f.want or 'toggle'}"[:120])
        if part and part.family == "toggle":
            command = ChoosePart(function=f.id, part="toggle-guarded")
        label = "Choose the guarded toggle" if part and part.family == "toggle" else "Ask for a guarded one"
        yield rule.finding(
            f.id,
            detail=f"{f.name}, {part.name if part else f.want or 'nothing chosen yet'}",
            fix=Fix(label=label, commands=(command,)) if not part or part.family == "toggle" else None,
        )


_GUARD = re.compile(r"\b(?:guard(?:ed)?|lock(?:ed|ing|able)?|keys?|key-?switch|cover(?:ed)?)\b", re.I)


def _asks_for_guard(f: Function) -> bool:
    return bool(_GUARD.search(f"{f.want} {f.name}"))


@check(
    "brief.licensed",
    severity="judge",
    title="For a licensed electrician",
    measures="volts of a load: 50 V AC or 120 V DC and more; from 50 V on it counts as AC unless DC is said",
    limits=("touch-ac", "touch-dc"),
    reads=("brief", "wishes", "parts", "limits"),
)
def licensed(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Loads at the voltages that a hobbyist may not wire, and above."""
    for f in r.design.functions:
        if dangerous(r.design, f.switches):
            kind, unsaid = f.switches.kind, "" if f.switches.current else " (DC is not said)"
            yield rule.finding(
                f.id,
                detail=f"{f.name}: {f.switches.volts:g} V {kind}{unsaid} can kill. "
                "Leave its wiring to a licensed electrician, with connectors and covers of its own and the plate "
                "earthed.",
                measured=Measure(value=f.switches.volts, unit=f"V {kind}"),
                needed=Measure(value=touchable(r.design, f.switches), unit=f"V {kind}"),
                below=True,
            )
