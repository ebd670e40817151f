"""Whether the sheets hold: boards' bridges, pieces that fall out, necks that break, plates that bend."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from wingboard.core.changes.commands.layers import EditLayer
from wingboard.core.changes.commands.modules import SetFixings
from wingboard.core.face.checks.spots import at, of
from wingboard.core.face.checks.webs import SNAPS
from wingboard.core.face.rules import bridge_needed
from wingboard.core.face.settle import move_to_settle
from wingboard.core.findings.facets import Facet
from wingboard.core.findings.finding import Finding, Fix, Measure
from wingboard.core.findings.limits import source_of
from wingboard.core.findings.registry import Check, check
from wingboard.core.quantity import VISIBLE
from wingboard.core.record.base import Source
from wingboard.core.record.materials import materials
from wingboard.core.record.modules import Layer, is_plate
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule
from wingboard.core.stack.bending import bends
from wingboard.core.stack.bridges import Bridge, thin_bridges
from wingboard.core.stack.necks import Neck, islands, necks

READS: tuple[Facet, ...] = ("brief", "wishes", "places", "parts", "modules", "stack", "limits")
"""What follows from the parts in their sheets, and how it is called."""
BEND = Source(
    kind="memory", note="Timoshenko, plates and shells: simply supported, a load at any point; less the openings"
)
SHEETS_SOLD = (2.0, 3.0, 4.0, 5.0, 6.0, 8.0, 10.0)
"""Thicknesses (mm) in which sheets are sold (common practice)."""


def _boards(module: ResolvedModule) -> list[Layer]:
    return [layer for layer in module.stack if not is_plate(layer)]


def _said(module: ResolvedModule, bridge: Bridge) -> str:
    other = "the edge" if bridge.b is None else module.owner_name(bridge.b)
    return f"{module.owner_name(bridge.a)} and {other}"


def _middle(bridge: Bridge) -> tuple[float, float]:
    return (bridge.start[0] + bridge.end[0]) / 2, (bridge.start[1] + bridge.end[1]) / 2


def _functions(module: ResolvedModule, bridges: Sequence[Bridge]) -> list[str]:
    owners = {o for b in bridges for o in (b.a, b.b) if o is not None and o >= 0}
    return [module.by_number[o].function.id for o in sorted(owners)]


@check(
    "stack.board-bridge",
    severity="must",
    title="Thin bridge in a board",
    measures="the web between two openings of a light or button board, or an opening and its edge; to judge when it "
    "holds at least half of what is needed",
    limits=("bridge-least", "bridge-acrylic", "bridge-fibre", "bridge-metal"),
    fixes="moves one part by the least that leaves a sound bridge",
    reads=READS,
)
def board_bridge(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Boards with too little between two openings; those of the plate are judged at Face."""
    for module in r.modules.values():
        for layer in _boards(module):
            need = bridge_needed(r.design, layer)
            for bridge in thin_bridges(r, module, layer):
                owners = [o for o in (bridge.a, bridge.b) if o is not None and o >= 0]
                if bridge.gap < 0 and (len(owners) == 2 or bridge.b is None):
                    continue  # two openings for bodies that run together are one; one over the edge is a notch
                movable = [module.by_number[o] for o in owners]
                yield rule.finding(
                    *([p.function.id for p in movable] or [module.module.id]),
                    detail=f"{layer.name}, between {_said(module, bridge)}",
                    spot=at(module, *_middle(bridge)),
                    measured=Measure(value=bridge.gap),
                    needed=Measure(value=need.value),
                    source=source_of(r.design, need.limit),
                    fix=lambda movable=movable: move_to_settle(r, movable, "boards"),  # type: ignore[misc]
                    extra=f"{module.module.id}-{layer.id}-{'edge' if bridge.b is None else _other(module, bridge)}",
                    severity="must" if bridge.gap < SNAPS * need.value else "judge",
                )


def _other(module: ResolvedModule, bridge: Bridge) -> str:
    names = [module.owner_name(o) for o in (bridge.a, bridge.b) if o is not None and o < 0]
    return "-".join(name.replace(" ", "-") for name in names)


@check(
    "stack.breaks-off",
    severity="must",
    title="A piece would break off",
    measures="the widest of the thin bridges that a piece of a sheet hangs by; to judge when each holds at least half "
    "of what is needed and every piece has enough screws of its own",
    limits=("fixings-least", "bridge-least", "bridge-acrylic", "bridge-fibre", "bridge-metal"),
    source=Source(kind="practice", note="each piece that a break leaves needs three screws"),
    reads=READS,
)
def breaks_off(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Pieces of a sheet that hang on the rest by nothing but bridges too thin for its material."""
    for module in r.modules.values():
        for layer in module.stack:
            for n, neck in enumerate(necks(r, module, layer)):
                yield _neck_finding(r, rule, module, layer, neck, n)


def _neck_finding(r: Resolved, rule: Check, module: ResolvedModule, layer: Layer, neck: Neck, n: int) -> Finding:
    need, least = bridge_needed(r.design, layer), rule.limit(r.design)
    snaps = neck.widest.gap < SNAPS * need.value or min(neck.piece.fixings, neck.rest.fixings) < least
    named = list(dict.fromkeys(_said(module, b) for b in neck.bridges))
    between = "; ".join(named[:3]) + (" …" if len(named) > 3 else "")
    return rule.finding(
        module.module.id,
        layer.id,
        *_functions(module, neck.bridges),
        detail=f"{materials()[layer.material].name} {layer.thickness:g}, {layer.name.lower()}, between {between}. "
        f"It would leave two pieces, with {neck.piece.fixings} and {neck.rest.fixings} screws",
        spot=at(module, *_middle(neck.widest)),
        measured=Measure(value=neck.widest.gap),
        needed=Measure(value=need.value),
        source=source_of(r.design, need.limit),
        severity="must" if snaps else "judge",
        extra=str(n) if n else "",
    )


@check(
    "stack.falls-out",
    severity="must",
    title="A piece falls out",
    measures="pieces of a sheet that nothing holds once its openings are cut",
    source=Source(kind="computed", note="the sheet less all its openings"),
    reads=READS,
)
def falls_out(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Islands between openings that run into each other."""
    for module in r.modules.values():
        for layer in module.stack:
            for n, piece in enumerate(islands(r, module, layer)):
                x0, y0, x1, y1 = piece.outline.bounds
                yield rule.finding(
                    module.module.id,
                    layer.id,
                    detail=f"{layer.name}, a piece of {x1 - x0:.0f} × {y1 - y0:.0f} mm",
                    spot=at(module, (x0 + x1) / 2, (y0 + y1) / 2),
                    extra=str(n) if n else "",
                )


@check(
    "stack.bends",
    severity="judge",
    title="It gives under a finger",
    measures="how far the plate gives under the control that is worst off, between the outermost screws",
    limits=("bend-most", "press-force", "hit-force"),
    source=BEND,
    fixes="takes a thicker sheet, from the back forwards",
    reads=READS,
)
def gives(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Plates that give too much under a button or a stop."""
    most = rule.limit(r.design)
    for module in r.modules.values():
        worst = next(iter(bends(r, module)), None)
        if worst is None or worst.sag <= most + VISIBLE:
            continue
        yield rule.finding(
            module.module.id,
            detail=f"{worst.placed.function.name}, under {worst.force:g} N, "
            f"{worst.across:.0f} × {worst.up:.0f} mm between screws, {worst.left:.0%} of it left beside openings",
            spot=of(worst.placed),
            measured=Measure(value=worst.sag),
            needed=Measure(value=most),
            most=True,
            fix=lambda module=module: _thicker(r, module, most),  # type: ignore[misc]
        )


def _thicker(r: Resolved, module: ResolvedModule, most: float) -> list[Fix]:
    """The back sheet, then the others, each in the next thicknesses that are sold."""
    own = module.module.id if module.module.stack is not None else None
    fixes = []
    for layer in reversed(module.plates):
        for thick in [t for t in SHEETS_SOLD if t > layer.thickness][:3]:
            fixes.append(
                Fix(
                    label=f"{layer.name} {thick:g} mm thick",
                    commands=(EditLayer(module=own, layer=layer.id, thickness=thick),),
                )
            )
    return fixes


@check(
    "stack.few-screws",
    severity="judge",
    title="Too few screws",
    measures="screws through a module, against three",
    limits=("fixings-least",),
    fixes="puts a screw into each corner",
    reads=READS,
)
def few_screws(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Modules of several sheets, or with a board, that fewer than three screws hold together."""
    for module in r.modules.values():
        glued = all(layer.join == "glue" for layer in module.stack[1:])
        if len(module.stack) > 1 and not glued and len(module.fixings) < rule.limit(r.design):
            yield rule.finding(
                module.module.id,
                detail=f"{module.module.name}, {len(module.stack)} sheets",
                measured=Measure(value=len(module.fixings), unit="screws"),
                needed=Measure(value=rule.limit(r.design), unit="screws"),
                fix=Fix(label="A screw in each corner", commands=(SetFixings(module=module.module.id, corners=True),)),
            )
