"""Wire: power as a tree, and what is lost on the way."""

from __future__ import annotations

from typing import Literal

from fastapi import APIRouter, Response
from pydantic import BaseModel, Field

from wingboard.api.routers.common import DesignId, OnDesk, as_json, download, file_of
from wingboard.core.findings.limits import limit
from wingboard.core.record.functions import StopRole, emergency
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.checks.stops import means, reported
from wingboard.core.wire.harness.laid import losses
from wingboard.core.wire.nets import net_list
from wingboard.core.wire.power.drawing import power_pdf, power_svg
from wingboard.core.wire.power.draws import STATES, State
from wingboard.core.wire.power.tree import Node, NodeKind, every_node, heat_of, power_tree
from wingboard.core.wire.sheet_pdf import live_cautions
from wingboard.core.wire.stops import breaks_power
from wingboard.core.wire.wires import names_of

router = APIRouter(prefix="/api/designs/{design_id}/wire", tags=["wire"])


class NodeView(BaseModel):
    """A place in the tree of power, with what hangs on it."""

    id: str
    kind: NodeKind
    name: str
    volts: float
    function: str = Field(description="Whose it is; empty where it is nobody's")
    amps: dict[State, float] = Field(description="By state")
    most: float = Field(description="What it gives or lets through, A; 0: not known")
    inrush: float = Field(description="A in the moment when everything comes on, cold bulbs counted")
    heat: float = Field(description="W that a regulator turns into heat; 0 for others")
    measured: float = Field(description="A, as read from an ammeter; 0: not yet")
    children: list[NodeView]


class StateView(BaseModel):
    """A state that is reckoned with."""

    state: State
    name: str


class LossView(BaseModel):
    """What is lost of a supply's volts on the wires to what loses most: V, and % of its volts."""

    source: str
    name: str
    function: str
    volts: float
    lost: float
    share: float


class StopView(BaseModel):
    """An emergency stop, what it is said to be, and what that means here."""

    function: str
    name: str
    role: StopRole | Literal[""]
    means: str


class PowerView(BaseModel):
    """Where current comes from and goes to."""

    revision: int
    states: list[StateView]
    roots: list[NodeView]
    losses: list[LossView]
    stops: list[StopView]
    lost_most: float = Field(description="% of a source's volts that may be lost on the way")
    close: float = Field(description="The share of what a branch bears from which on it is loaded to its limit")
    cautions: list[str] = Field(description="What stands first where something here can kill")


def _node(r: Resolved, node: Node, before: float) -> NodeView:
    supplies = {f"supply.{s.id}": s.measured for s in r.design.workshop.supplies}
    boards = {f"board.{c.id}": c.measured for c in r.design.controllers}
    return NodeView(
        id=node.id,
        kind=node.kind,
        name=node.name,
        volts=node.volts,
        function=node.function,
        amps=node.amps,
        most=node.most,
        inrush=node.inrush,
        heat=heat_of(r, node, before) if node.kind == "regulator" else 0.0,
        measured={**supplies, **boards}.get(node.id, 0.0),
        children=[_node(r, child, node.volts) for child in node.children],
    )


def _losses(r: Resolved) -> list[LossView]:
    """The worst of each source, the most lost first."""
    worst: dict[str, LossView] = {}
    names = names_of(r)
    for fed in losses(r):
        source = fed.source.device
        volts = net_list(r).devices[source].value
        if volts and (source not in worst or fed.lost > worst[source].lost):
            worst[source] = LossView(
                source=names[source],
                name=names[fed.draw.into.device],
                function=fed.draw.of if fed.draw.of in r.functions else "",
                volts=volts,
                lost=fed.lost,
                share=100 * fed.lost / volts,
            )
    return sorted(worst.values(), key=lambda loss: -loss.share)


def _stops(r: Resolved) -> list[StopView]:
    return [
        StopView(
            function=p.function.id,
            name=p.function.name,
            role=p.function.stop_role or "",
            means=f"{means(r, p)}. {reported(r, p)}",
        )
        for p in r.placed
        if emergency(p.function, p.part)
    ]


@router.get("/power", responses={200: {"model": PowerView}})
def power(desk: OnDesk, design_id: DesignId) -> Response:
    """The tree of power with amperes by state, losses, emergency stops."""
    state = desk.open(design_id)
    r = state.resolved
    roots = power_tree(r)
    tests = any(f.tests_lamps for f in r.design.functions)
    lights = any(node.kind == "light" for node in every_node(roots))
    left_out = {"lamp test": not tests, "white": not lights, "stopped": not any(map(breaks_power, r.placed))}
    view = PowerView(
        revision=state.row.number,
        states=[StateView(state=s, name=name) for s, name in STATES.items() if not left_out.get(s)],
        roots=[_node(r, root, 0.0) for root in roots],
        losses=_losses(r),
        stops=_stops(r),
        lost_most=limit(r.design, "drop-most"),
        close=1 / limit(r.design, "breaker-factor"),
        cautions=list(live_cautions(r)),
    )
    return as_json(view)


@router.get("/power.svg", response_class=Response, responses=file_of("image/svg+xml"))
def power_drawn(desk: OnDesk, design_id: DesignId) -> Response:
    """The tree of power as a drawing."""
    return download(power_svg(desk.open(design_id).resolved), "image/svg+xml", f"{design_id}-power.svg")


@router.get("/power.pdf", response_class=Response, responses=file_of("application/pdf"))
def power_to_print(desk: OnDesk, design_id: DesignId) -> Response:
    """The tree of power to print."""
    return download(power_pdf(desk.open(design_id).resolved), "application/pdf", f"{design_id}-power.pdf")
