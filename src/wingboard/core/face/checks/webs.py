"""Openings that overlap, bridges too thin, nut bores that meet, parts off the plate."""

from __future__ import annotations

import math
from collections.abc import Iterator
from functools import partial
from typing import NamedTuple

import shapely
import shapely.ops

from wingboard.core.changes.command import Command
from wingboard.core.changes.commands.modules import EditScrew, SetFixings
from wingboard.core.changes.commands.places import MoveItems
from wingboard.core.face.checks.spots import at, between, of
from wingboard.core.face.rules import RoomNeeded, bridge_needed
from wingboard.core.face.settle import move_to_settle
from wingboard.core.findings.finding import Finding, Fix, FixMaker, Measure, Severity, Spot
from wingboard.core.findings.limits import source_of
from wingboard.core.findings.registry import Check, check
from wingboard.core.geometry.shapeset import Near
from wingboard.core.quantity import VISIBLE
from wingboard.core.record.modules import Layer
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule
from wingboard.core.resolved.placed import Placed

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
        for layer in module.plates:
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


def _pair_finding(r: Resolved, rule: Check, module: ResolvedModule, owners: tuple[int, int], web: Web) -> Finding:
    movable = _movable(module, owners)
    subjects = [p.function.id for p in movable] or [module.module.id]
    screws = [module.owner_name(o).replace(" ", "-") for o in sorted(owners) if o < 0]
    names = " to ".join(module.owner_name(o) for o in owners)
    return rule.finding(
        *subjects,
        detail=f"{names}, {web.layer.name.lower()} layer",
        spot=between(module, module.openings(web.layer.id), web.near),
        measured=Measure(value=web.near.gap),
        needed=Measure(value=web.need.value),
        source=source_of(r.design, web.need.limit),
        fix=partial(move_to_settle, r, movable, "openings"),
        extra="-".join(screws),
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
            yield _pair_finding(r, rule, module, owners, web)


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
            yield _pair_finding(r, rule, module, owners, web)


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
            yield _pair_finding(r, rule, module, owners, web)
    for module in r.modules.values():
        for owner, edge in edge_margins(r, module).items():
            if edge[1] >= 0:
                yield _edge_finding(r, rule, module, owner, edge)


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
        for owner, edge in edge_margins(r, module).items():
            if edge[1] < 0:
                yield _edge_finding(r, rule, module, owner, edge)


Edge = tuple[Layer, float, RoomNeeded]


def edge_margins(r: Resolved, module: ResolvedModule) -> dict[int, Edge]:
    """For each part or screw with too little to the edge in some layer, by its owner number, where it is worst."""

    def compute() -> dict[int, Edge]:
        worst: dict[int, Edge] = {}
        for layer in module.plates:
            need, shapes = bridge_needed(r.design, layer), module.openings(layer.id)
            margins = shapes.margins_inside(module.area_of(layer))
            for i in (margins < need.value - VISIBLE).nonzero()[0]:
                owner, margin = int(shapes.owners[i]), float(margins[i])
                if owner not in worst or margin - need.value < worst[owner][1] - worst[owner][2].value:
                    worst[owner] = (layer, margin, need)
        return worst

    return r.once(f"edges of {module.module.id}", compute)


def _edge_finding(r: Resolved, rule: Check, module: ResolvedModule, owner: int, edge: Edge) -> Finding:
    layer, margin, need = edge
    fix: FixMaker | None
    if owner >= 0:
        spot, subject, fix, extra = _of_part(r, module, owner)
    elif module.is_screw(owner):
        spot, subject, fix, extra = _of_screw(module, owner, need)
    else:
        spot, subject, fix, extra = _of_feature(module, owner)
    return rule.finding(
        subject,
        detail=f"{module.owner_name(owner)} to the edge, {layer.name.lower()} layer",
        spot=spot,
        measured=Measure(value=margin),
        needed=Measure(value=need.value),
        source=source_of(r.design, need.limit),
        fix=fix,
        extra=extra,
        severity=_softened(margin, need) if rule.code == "face.bridge-thin" else None,
    )


def _of_part(r: Resolved, module: ResolvedModule, owner: int) -> tuple[Spot, str, FixMaker, str]:
    placed = module.by_number[owner]

    def inside() -> Iterator[Fix]:
        if not placed.function.locked:
            yield from move_to_settle(r, [placed], "edge")
            yield _to_the_middle(module, placed)

    return of(placed), placed.function.id, inside, "edge"


def _of_feature(module: ResolvedModule, owner: int) -> tuple[Spot, str, FixMaker | None, str]:
    """An opening that was added by hand: it stays where its builder wants it."""
    feature = module.feature(owner)
    return at(module, feature.x, feature.y), module.module.id, None, f"{feature.id}-edge"


def _of_screw(module: ResolvedModule, owner: int, need: RoomNeeded) -> tuple[Spot, str, FixMaker, str]:
    """A screw too near the edge: further in, along its corner's diagonal or, placed by hand, the shortest way."""
    screw = module.screw(owner)
    least = need.value + screw.hole / 2

    def further_in() -> Fix | None:
        if screw.by_hand is None:
            inset = math.ceil(least * 10 - 1e-6) / 10
            command: Command = SetFixings(module=module.module.id, inset=inset)
            return Fix(label=f"Set the corner screws {inset:g} mm in", commands=(command,))
        room = module.area.buffer(-least - VISIBLE)
        if room.is_empty:
            return None
        spot = shapely.ops.nearest_points(room, shapely.Point(screw.x, screw.y))[0]
        command = EditScrew(module=module.module.id, screw=screw.by_hand, x=round(spot.x, 2), y=round(spot.y, 2))
        return Fix(label=f"Move {screw.name} in", commands=(command,))

    return at(module, screw.x, screw.y), module.module.id, further_in, f"{screw.name.replace(' ', '-')}-edge"


def _to_the_middle(module: ResolvedModule, placed: Placed) -> Fix:
    """For a part far outside: bring it to the middle of the plate, where it can be seen."""
    x0, y0, x1, y1 = module.area.bounds
    dx, dy = (x0 + x1) / 2 - placed.place.x, (y0 + y1) / 2 - placed.place.y
    command = MoveItems(functions=(placed.function.id,), dx=round(dx, 1), dy=round(dy, 1))
    return Fix(label=f"Bring {placed.function.name} to the middle", commands=(command,))
