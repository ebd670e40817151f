"""Openings that overlap, bridges too thin, nut bores that meet, parts off the plate."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial
from typing import NamedTuple

from wingboard.core.changes.commands.places import MoveItems
from wingboard.core.face.checks.spots import at, between
from wingboard.core.face.rules import RoomNeeded, bridge_needed
from wingboard.core.face.settle import move_to_settle
from wingboard.core.findings.finding import Finding, Fix, Measure, Severity
from wingboard.core.findings.limits import source_of
from wingboard.core.findings.registry import Check, check
from wingboard.core.geometry.shapeset import Near
from wingboard.core.quantity import VISIBLE
from wingboard.core.record.modules import Layer
from wingboard.core.resolved.design import Placed, Resolved, ResolvedModule
from wingboard.core.resolved.profile import plates

SNAPS = 0.5
"""A bridge below this share of what is needed, is taken to snap in the hand (common practice)."""


class Web(NamedTuple):
    """The thinnest material between two owners, over all layers."""

    layer: Layer
    near: Near
    need: RoomNeeded
    nuts: bool


def thin_webs(r: Resolved, module: ResolvedModule) -> dict[tuple[int, int], Web]:
    """For each pair of owners with a web below need in some layer, the layer where it is worst."""

    def compute() -> dict[tuple[int, int], Web]:
        worst: dict[tuple[int, int], Web] = {}
        for layer in plates(r.design.stack):
            need, shapes = bridge_needed(r.design, layer), module.openings(layer.id)
            for near in shapes.closer_than(need.value - VISIBLE):
                pair = (int(shapes.owners[near.a]), int(shapes.owners[near.b]))
                key = (min(pair), max(pair))
                if key not in worst or near.gap - need.value < worst[key].near.gap - worst[key].need.value:
                    nuts = module.hides_nut(pair[0], layer.id) and module.hides_nut(pair[1], layer.id)
                    worst[key] = Web(layer, near, need, nuts)
        return worst

    return r.once(f"webs of {module.module.id}", compute)


def _movable(module: ResolvedModule, owners: tuple[int, int]) -> list[Placed]:
    return [module.by_number[o] for o in owners if o >= 0]


def _pair_finding(
    r: Resolved, rule: Check, module: ResolvedModule, owners: tuple[int, int], web: Web
) -> Finding | None:
    movable = _movable(module, owners)
    if not movable:
        return None
    names = " to ".join(module.owner_name(o) for o in owners)
    return rule.finding(
        *(p.function.id for p in movable),
        detail=f"{names}, {web.layer.name.lower()} layer",
        spot=between(module, module.openings(web.layer.id), web.near),
        measured=Measure(value=web.near.gap),
        needed=Measure(value=web.need.value),
        source=source_of(r.design, web.need.limit),
        fix=partial(move_to_settle, r, module, movable, "openings"),
        extra="" if len(movable) == 2 else module.owner_name(min(owners)).replace(" ", "-"),
        severity=_softened(web.near.gap, web.need) if rule.code == "face.bridge-thin" else None,
    )


def _softened(measured: float, need: RoomNeeded) -> Severity:
    return "must" if measured < SNAPS * need.value else "judge"


def _pairs(r: Resolved) -> Iterator[tuple[ResolvedModule, tuple[int, int], Web]]:
    for module in r.modules.values():
        for owners, web in thin_webs(r, module).items():
            yield module, owners, web


@check(
    "face.holes-overlap",
    severity="must",
    title="Openings overlap",
    measures="between two openings of one layer; negative where they run into each other",
    limits=("bridge-least",),
    fixes="moves one part by the least that leaves a sound bridge",
)
def holes_overlap(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Pairs whose openings run into each other in some layer."""
    for module, owners, web in _pairs(r):
        if web.near.gap < 0 and not web.nuts:
            found = _pair_finding(r, rule, module, owners, web)
            if found:
                yield found


@check(
    "face.nut-bores-collide",
    severity="must",
    title="Nut bores run together",
    measures="between the clear bores of two nuts, in the layer that hides them",
    limits=("bridge-least",),
    fixes="moves one part by the least that leaves a sound bridge",
)
def nut_bores_collide(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Pairs whose hidden nuts would share one bore."""
    for module, owners, web in _pairs(r):
        if web.near.gap < 0 and web.nuts:
            found = _pair_finding(r, rule, module, owners, web)
            if found:
                yield found


@check(
    "face.bridge-thin",
    severity="must",
    title="Thin bridge",
    measures="the web between two openings, or an opening and the edge, where it is worst over all layers; "
    "to judge when it holds at least half of what is needed",
    limits=("bridge-least", "bridge-acrylic", "bridge-fibre", "bridge-metal"),
    fixes="moves one part by the least that leaves a sound bridge",
)
def bridge_thin(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Pairs with too little between them, and openings too near the edge."""
    for module, owners, web in _pairs(r):
        if web.near.gap >= 0:
            found = _pair_finding(r, rule, module, owners, web)
            if found:
                yield found
    for module in r.modules.values():
        for placed, (layer, margin, need) in edge_margins(r, module).items():
            if margin >= 0:
                yield _edge_finding(r, rule, module, module.by_number[placed], layer, margin, need)


@check(
    "face.off-module",
    severity="must",
    title="Off the plate",
    measures="from an opening to the plate's edge; negative when it reaches over",
    limits=("bridge-least",),
    fixes="moves the part inside",
)
def off_module(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Parts with an opening that crosses the edge."""
    for module in r.modules.values():
        for placed, (layer, margin, need) in edge_margins(r, module).items():
            if margin < 0:
                yield _edge_finding(r, rule, module, module.by_number[placed], layer, margin, need)


Edge = tuple[Layer, float, RoomNeeded]


def edge_margins(r: Resolved, module: ResolvedModule) -> dict[int, Edge]:
    """For each part with too little to the edge in some layer, where it is worst."""

    def compute() -> dict[int, Edge]:
        worst: dict[int, Edge] = {}
        for layer in plates(r.design.stack):
            need, shapes = bridge_needed(r.design, layer), module.openings(layer.id)
            margins = shapes.margins_inside(module.area)
            for i in (margins < need.value - VISIBLE).nonzero()[0]:
                owner, margin = int(shapes.owners[i]), float(margins[i])
                if owner >= 0 and (owner not in worst or margin - need.value < worst[owner][1] - worst[owner][2].value):
                    worst[owner] = (layer, margin, need)
        return worst

    return r.once(f"edges of {module.module.id}", compute)


def _edge_finding(
    r: Resolved, rule: Check, module: ResolvedModule, placed: Placed, layer: Layer, margin: float, need: RoomNeeded
) -> Finding:
    return rule.finding(
        placed.function.id,
        detail=f"{placed.function.name} to the edge, {layer.name.lower()} layer",
        spot=at(module, placed.place.x, placed.place.y),
        measured=Measure(value=margin),
        needed=Measure(value=need.value),
        source=source_of(r.design, need.limit),
        fix=lambda: move_to_settle(r, module, [placed], "edge") or _to_the_middle(module, placed),
        extra="edge",
        severity=_softened(margin, need) if rule.code == "face.bridge-thin" else None,
    )


def _to_the_middle(module: ResolvedModule, placed: Placed) -> Fix:
    """For a part far outside: bring it to the middle of the plate, where it can be seen."""
    x0, y0, x1, y1 = module.area.bounds
    dx, dy = (x0 + x1) / 2 - placed.place.x, (y0 + y1) / 2 - placed.place.y
    command = MoveItems(functions=(placed.function.id,), dx=round(dx, 1), dy=round(dy, 1))
    return Fix(label=f"Bring {placed.function.name} to the middle", commands=(command,))
