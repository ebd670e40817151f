"""Bolts, standoffs and joints: lengths that nobody sells, heads too deep, what glue shuts in, what nothing holds."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import pairwise

from wingboard.core.changes.command import Command
from wingboard.core.changes.commands.layers import EditLayer
from wingboard.core.changes.commands.modules import SetFixings
from wingboard.core.findings.finding import Finding, Fix, Measure
from wingboard.core.findings.registry import Check, check
from wingboard.core.quantity import VISIBLE
from wingboard.core.record.base import Source
from wingboard.core.record.modules import Layer
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.layers import LayerUse
from wingboard.core.resolved.module import ResolvedModule
from wingboard.core.stack.checks.holding import READS
from wingboard.core.stack.hardware import BOLTS, STANDOFFS, countersink_depth, hardware, next_standoff

LINED_UP = 2
"""So many pins or screws hold sheets in line (common practice)."""
PIN = 3.0
"""Diameter of the registration pins that are proposed (mm, common practice: a drill rod or a nail)."""
UNDER_HEAD = 0.5
"""Sheet (mm) left under a countersunk head, so that the face does not crack (common practice)."""


def _edit(use: LayerUse, **changes: object) -> Command:
    return EditLayer.model_validate({"module": use.own, "layer": use.layer.id, **changes})


@check(
    "stack.bolt-not-sold",
    severity="judge",
    title="No bolt is long enough",
    measures="clamped layers + washer + nut + two threads, against the longest bolt in shops",
    source=Source(kind="memory", note="nominal lengths of ISO 888"),
    reads=READS,
)
def bolt_not_sold(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Stacks too thick for a bolt; threaded rod, or two lengths with a standoff between, hold them."""
    for module in r.modules.values():
        for bolt in hardware(module).bolts:
            if bolt.length is None:
                yield rule.finding(
                    module.module.id,
                    detail=f"{module.module.name}, through {bolt.where}: threaded rod, or standoffs between, instead",
                    measured=Measure(value=bolt.needed),
                    needed=Measure(value=BOLTS[-1]),
                    most=True,
                    extra=bolt.where.replace(" ", "-"),
                )


@check(
    "stack.standoff-not-sold",
    severity="judge",
    title="No such standoff",
    measures="the free room before a board, against the lengths in shops",
    source=Source(kind="practice", note="hexagonal standoffs of 5, 6, 8, 10, 12, 15, 18, 20, 25, 30, 35, 40 and 50 mm"),
    fixes="takes the next longer standoff",
    reads=("modules", "stack"),
)
def standoff_not_sold(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Gaps before a board that no standoff makes; sleeves between plates are sawn to length."""
    for use in r.layers:
        gap, length = use.layer.gap, next_standoff(use.layer.gap)
        if use.layer.role not in ("board", "buttons") or not gap or length is None or abs(length - gap) < VISIBLE:
            continue
        yield rule.finding(
            *use.subjects,
            detail=f"Before {use.layer.name.lower()}",
            measured=Measure(value=gap),
            needed=Measure(value=length),
            fix=Fix(label=f"Standoffs of {length} mm", commands=(_edit(use, gap=length),)),
        )
        assert length in STANDOFFS


@check(
    "stack.countersink-deep",
    severity="must",
    title="The countersink goes through",
    measures="a 90° countersink for the screws' heads with half a millimetre under it, against the first sheet",
    source=Source(kind="memory", note="ISO 10642: heads of 90°; (head − hole) / 2 deep"),
    fixes="takes pan heads",
    reads=("modules", "stack"),
)
def countersink_deep(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Faces too thin for the heads that are to lie in them."""
    for module in r.modules.values():
        fixings, screws = module.module.fixings, module.fixings
        if fixings is None or fixings.head != "countersunk" or not screws or not module.plates:
            continue
        needed, face = countersink_depth(screws[0].head, screws[0].hole) + UNDER_HEAD, module.plates[0]
        if face.thickness < needed - VISIBLE:
            yield rule.finding(
                module.module.id,
                detail=f"{module.module.name}, {fixings.screw} in {face.name.lower()}",
                measured=Measure(value=face.thickness),
                needed=Measure(value=needed),
                fix=Fix(label="Pan heads", commands=(SetFixings(module=module.module.id, head="pan"),)),
            )


@check(
    "stack.nut-shut-in",
    severity="judge",
    title="Nuts that glue shuts in",
    measures="parts whose nut lies in a sheet that is glued to the one before it",
    source=Source(kind="practice", note="a nut that is to be tightened, or parted from, is reached from the front"),
    fixes="bolts the two sheets instead",
    reads=READS,
)
def nut_shut_in(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Hidden nuts that nobody reaches any more once the face is glued on."""
    for use in (u for u in r.layers if u.layer.join == "glue"):
        placed = ((r.modules[m], p) for m in use.modules for p in r.modules[m].placed)
        mine = [p for module, p in placed if _nut_in(module, p.nut_layer) == use.layer.id]
        if mine:
            yield rule.finding(
                *use.subjects,
                detail=f"{use.layer.name}, glued to the sheet before it: {mine[0].function.name}"
                + (f" and {len(mine) - 1} more" if len(mine) > 1 else ""),
                measured=Measure(value=len(mine), unit="nuts"),
                needed=Measure(value=0, unit="nuts"),
                most=True,
                fix=Fix(label="Bolt them instead", commands=(_edit(use, join="screws"),)),
            )


def _nut_in(module: ResolvedModule, layer: int | None) -> str | None:
    return None if layer is None else module.plates[layer].id


@check(
    "stack.nothing-holds",
    severity="must",
    title="Nothing holds a sheet",
    measures="sheets held by their neighbours only, of which one is missing or keeps its distance",
    source=Source(kind="practice", note="a trapped sheet lies between two that are bolted or glued"),
    fixes="bolts it",
    reads=("modules", "stack"),
)
def nothing_holds(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Trapped sheets that are first or last of their plate, or lie loose in a gap."""
    for use in r.layers:
        stack = r.modules[use.modules[0]].stack if use.modules else r.design.stack
        plates = [layer for layer in stack if layer.role not in ("board", "buttons")]
        if use.layer.join != "trapped" or use.layer not in plates:
            continue
        at = plates.index(use.layer)
        after = plates[at + 1] if at + 1 < len(plates) else None
        if at == 0 or after is None or after.join == "trapped" or use.layer.gap or after.gap:
            yield rule.finding(
                *use.subjects,
                detail=f"{use.layer.name}: {_why_loose(at, after)}",
                fix=Fix(label="Bolt it to the others", commands=(_edit(use, join="screws"),)),
            )


def _why_loose(at: int, after: Layer | None) -> str:
    if at == 0:
        return "it is the first sheet"
    return "no sheet behind it presses it" if after is None else "it lies loose"


@check(
    "stack.glue-on-paint",
    severity="judge",
    title="Glue on paint",
    measures="glued joints with paint on one of the two surfaces",
    source=Source(kind="practice", note="the joint is as strong as the paint: mask what is glued"),
    fixes="bolts the two sheets instead",
    reads=("modules", "stack"),
)
def glue_on_paint(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Joints that would part with the paint."""
    for use in r.layers:
        stack = r.modules[use.modules[0]].stack if use.modules else r.design.stack
        before = next((a for a, b in pairwise(stack) if b == use.layer), None)
        if use.layer.join != "glue" or before is None:
            continue
        if _painted(before, "back") or _painted(use.layer, "front"):
            yield rule.finding(
                *use.subjects,
                detail=f"{use.layer.name} on {before.name.lower()}",
                fix=Fix(label="Bolt them instead", commands=(_edit(use, join="screws"),)),
            )


@check(
    "stack.glued-loose",
    severity="judge",
    title="Nothing lines the glued sheets up",
    measures="screws or registration pins through sheets that are glued",
    source=Source(kind="practice", note="wet glue is a lubricant: sheets slide until it has set"),
    fixes="drills two registration pins, placed so that they fit one way round only",
    reads=READS,
)
def glued_loose(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Modules with glued joints that fewer than two screws or pins go through."""
    for module in r.modules.values():
        through = len(module.fixings) + len(module.pins)
        if through < LINED_UP and any(layer.join == "glue" for layer in module.plates[1:]):
            changes = SetFixings(module=module.module.id, pins=PIN, corners=None if module.module.fixings else False)
            fix = Fix(label=f"Add two {PIN:g} mm pins", commands=(changes,))
            yield rule.finding(
                module.module.id,
                detail=module.module.name,
                measured=Measure(value=through, unit="pins or screws"),
                needed=Measure(value=LINED_UP, unit="pins or screws"),
                fix=fix if not (module.module.fixings and module.module.fixings.pins) else None,
            )


@check(
    "stack.pins-no-room",
    severity="judge",
    title="No room for registration pins",
    measures="places at opposite corners where a pin is clear of openings, screws and the edge",
    source=Source(kind="practice", note="two pins line sheets up; one lets them turn"),
    fixes="leaves the pins out where screws line the sheets up",
    reads=READS,
)
def pins_no_room(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Modules that want pins and have room for none: they are not drilled."""
    for module in r.modules.values():
        fixings = module.module.fixings
        if fixings and fixings.pins and not module.pins:
            without = SetFixings(module=module.module.id, pins=0)
            enough = len(module.fixings) >= LINED_UP
            yield rule.finding(
                module.module.id,
                detail=f"{module.module.name}: none is drilled",
                measured=Measure(value=0, unit="pins"),
                needed=Measure(value=LINED_UP, unit="pins"),
                fix=Fix(label="Leave the pins out", commands=(without,)) if enough else None,
            )


def _painted(layer: Layer, side: str) -> bool:
    return any(paint.side == side for paint in layer.paint)
