"""Openings that overlap, bridges too thin, nut bores that meet, parts off the plate."""

from __future__ import annotations

from collections.abc import Iterator
from typing import NamedTuple

from wingboard.core.design.commands import MoveItems
from wingboard.core.design.model import Layer
from wingboard.core.design.profile import plates
from wingboard.core.design.resolved import Placed, Resolved, ResolvedPanel
from wingboard.core.face.checks.spots import at, between
from wingboard.core.face.rules import Need, bridge_needed
from wingboard.core.face.settle import move_to_settle
from wingboard.core.findings.finding import Finding, Fix, Measure, Spot, Weight
from wingboard.core.findings.limits import source_of
from wingboard.core.findings.registry import Check, check
from wingboard.core.geometry.shapeset import Near
from wingboard.core.quantity import VISIBLE

SNAPS = 0.5
"""A bridge below this share of what is needed, is taken to snap in the hand (common practice)."""


class Web(NamedTuple):
    """The thinnest material between two owners, over all layers."""

    layer: Layer
    near: Near
    need: Need
    spot: Spot
    nuts: bool


def thin_webs(r: Resolved, panel: ResolvedPanel) -> dict[tuple[int, int], Web]:
    """For each pair of owners with a web below need in some layer, the layer where it is worst."""

    def compute() -> dict[tuple[int, int], Web]:
        worst: dict[tuple[int, int], Web] = {}
        for layer in plates(r.design.stack):
            need, shapes = bridge_needed(r.design, layer), panel.openings(layer.id)
            for near in shapes.closer_than(need.value - VISIBLE):
                pair = (int(shapes.owners[near.a]), int(shapes.owners[near.b]))
                key = (min(pair), max(pair))
                if key not in worst or near.gap - need.value < worst[key].near.gap - worst[key].need.value:
                    nuts = panel.hides_nut(pair[0], layer.id) and panel.hides_nut(pair[1], layer.id)
                    worst[key] = Web(layer, near, need, between(panel, shapes, near), nuts)
        return worst

    return r.once(f"webs of {panel.panel.id}", compute)


def _movable(panel: ResolvedPanel, owners: tuple[int, int]) -> list[Placed]:
    return [panel.by_number[o] for o in owners if o >= 0]


def _pair_finding(r: Resolved, rule: Check, panel: ResolvedPanel, owners: tuple[int, int], web: Web) -> Finding | None:
    movable = _movable(panel, owners)
    if not movable:
        return None
    names = " to ".join(panel.owner_name(o) for o in owners)
    return rule.finding(
        *(p.function.id for p in movable),
        detail=f"{names}, {web.layer.name.lower()} layer",
        spot=web.spot,
        measured=Measure(value=web.near.gap),
        needed=Measure(value=web.need.value),
        source=source_of(r.design, web.need.limit),
        fix=move_to_settle(r, panel, movable, "openings"),
        extra="" if len(movable) == 2 else panel.owner_name(min(owners)).replace(" ", "-"),
        weight=_softened(web.near.gap, web.need) if rule.code == "face.bridge-thin" else None,
    )


def _softened(measured: float, need: Need) -> Weight:
    return "stop" if measured < SNAPS * need.value else "look"


def _pairs(r: Resolved) -> Iterator[tuple[ResolvedPanel, tuple[int, int], Web]]:
    for panel in r.panels.values():
        for owners, web in thin_webs(r, panel).items():
            yield panel, owners, web


@check(
    "face.holes-overlap",
    weight="stop",
    title="Openings overlap",
    measures="between two openings of one layer; negative where they run into each other",
    limits=("bridge-least",),
    fixes="moves one part by the least that leaves a sound bridge",
)
def holes_overlap(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Pairs whose openings run into each other in some layer."""
    for panel, owners, web in _pairs(r):
        if web.near.gap < 0 and not web.nuts:
            found = _pair_finding(r, rule, panel, owners, web)
            if found:
                yield found


@check(
    "face.nut-bores-collide",
    weight="stop",
    title="Nut bores run together",
    measures="between the clear bores of two nuts, in the layer that hides them",
    limits=("bridge-least",),
    fixes="moves one part by the least that leaves a sound bridge",
)
def nut_bores_collide(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Pairs whose hidden nuts would share one bore."""
    for panel, owners, web in _pairs(r):
        if web.near.gap < 0 and web.nuts:
            found = _pair_finding(r, rule, panel, owners, web)
            if found:
                yield found


@check(
    "face.bridge-thin",
    weight="stop",
    title="Thin bridge",
    measures="the web between two openings, or an opening and the edge, where it is worst over all layers; "
    "a look when it holds at least half of what is needed",
    limits=("bridge-least", "bridge-acrylic", "bridge-fibre", "bridge-metal"),
    fixes="moves one part by the least that leaves a sound bridge",
)
def bridge_thin(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Pairs with too little between them, and openings too near the edge."""
    for panel, owners, web in _pairs(r):
        if web.near.gap >= 0:
            found = _pair_finding(r, rule, panel, owners, web)
            if found:
                yield found
    for panel in r.panels.values():
        for placed, (layer, margin, need) in edge_margins(r, panel).items():
            if margin >= 0:
                yield _edge_finding(r, rule, panel, panel.by_number[placed], layer, margin, need)


@check(
    "face.off-panel",
    weight="stop",
    title="Off the plate",
    measures="from an opening to the plate's edge; negative when it reaches over",
    limits=("bridge-least",),
    fixes="moves the part inside",
)
def off_panel(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Parts with an opening that crosses the edge."""
    for panel in r.panels.values():
        for placed, (layer, margin, need) in edge_margins(r, panel).items():
            if margin < 0:
                yield _edge_finding(r, rule, panel, panel.by_number[placed], layer, margin, need)


Edge = tuple[Layer, float, Need]


def edge_margins(r: Resolved, panel: ResolvedPanel) -> dict[int, Edge]:
    """For each part with too little to the edge in some layer, where it is worst."""

    def compute() -> dict[int, Edge]:
        worst: dict[int, Edge] = {}
        for layer in plates(r.design.stack):
            need, shapes = bridge_needed(r.design, layer), panel.openings(layer.id)
            margins = shapes.margins_inside(panel.area)
            for i in (margins < need.value - VISIBLE).nonzero()[0]:
                owner, margin = int(shapes.owners[i]), float(margins[i])
                if owner >= 0 and (owner not in worst or margin - need.value < worst[owner][1] - worst[owner][2].value):
                    worst[owner] = (layer, margin, need)
        return worst

    return r.once(f"edges of {panel.panel.id}", compute)


def _edge_finding(
    r: Resolved, rule: Check, panel: ResolvedPanel, placed: Placed, layer: Layer, margin: float, need: Need
) -> Finding:
    return rule.finding(
        placed.function.id,
        detail=f"{placed.function.name} to the edge, {layer.name.lower()} layer",
        spot=at(panel, placed.place.x, placed.place.y),
        measured=Measure(value=margin),
        needed=Measure(value=need.value),
        source=source_of(r.design, need.limit),
        fix=move_to_settle(r, panel, [placed], "edge") or _to_the_middle(panel, placed),
        extra="edge",
        weight=_softened(margin, need) if rule.code == "face.bridge-thin" else None,
    )


def _to_the_middle(panel: ResolvedPanel, placed: Placed) -> Fix:
    """For a part far outside: bring it to the middle of the plate, where it can be seen."""
    x0, y0, x1, y1 = panel.area.bounds
    dx, dy = (x0 + x1) / 2 - placed.place.x, (y0 + y1) / 2 - placed.place.y
    command = MoveItems(functions=(placed.function.id,), dx=round(dx, 1), dy=round(dy, 1))
    return Fix(label=f"Bring {placed.function.name} to the middle", commands=(command,))
