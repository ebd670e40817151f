"""For measuring and testing: generated designs of any number of parts, and what others' solvers find."""

from __future__ import annotations

import math
from collections.abc import Sequence

from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import Command
from wingboard.core.changes.commands.functions import AddFunction
from wingboard.core.changes.commands.modules import AddModule
from wingboard.core.changes.commands.parts import ChoosePart
from wingboard.core.changes.commands.places import PlacePart
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.design import Design
from wingboard.core.record.outlines import RectOutline
from wingboard.core.record.space import Brief

PITCH = 48.0
"""Between parts (mm): enough for most pairs, too little for a few, so that the worklist has something to say."""
_MIX = (
    "toggle-large-on-off",
    "button-16-lit",
    "caption-two-lamp",
    "toggle-small-on-off-on",
    "potentiometer",
    "led-5-bezel",
    "button-22",
    "encoder-push",
)


def generated_design(parts: int, modules: int = 1, name: str = "Function") -> Design:
    """A design of that many placed parts, in rows, spread evenly over so many modules."""
    each = math.ceil(parts / modules)
    columns = math.ceil(math.sqrt(each * 1.6))
    rows = math.ceil(each / columns)
    width, height = (columns + 1) * PITCH, (rows + 1) * PITCH
    opening = RectOutline(width=min(5000.0, (width + 1) * modules + 1), height=height + 2)
    batch: list[Command] = [
        AddModule(
            id=f"plate-{k + 1}", name=f"Plate {k + 1}", outline=RectOutline(width=width, height=height), x=0.5, y=0.5
        )
        for k in range(modules)
    ]
    for n in range(parts):
        at, module = n % each, n // each
        x, y = (at % columns + 1) * PITCH, (at // columns + 1) * PITCH
        called, ident = f"{name} {n + 1}", f"f{n + 1}"
        batch += [
            AddFunction(id=ident, name=called, group=f"Group {at // columns + 1}"),
            ChoosePart(function=ident, part=_MIX[(n * 5 + n // 7) % len(_MIX)]),
            PlacePart(function=ident, module=f"plate-{module + 1}", x=x, y=y),
        ]
    return apply(Design(name=f"{parts} parts", brief=Brief(opening=opening)), batch, catalogue())


def routed(places: Sequence[tuple[float, float]]) -> float:
    """How long (mm) a way from 0, 0 through all places is that a routing solver finds in a fixed number of tries."""
    from ortools.constraint_solver import pywrapcp, routing_enums_pb2  # takes a while to load

    stops = [(0.0, 0.0), *places, (math.inf, 0.0)]  # the last is near to all: the way ends anywhere
    manager = pywrapcp.RoutingIndexManager(len(stops), 1, [0], [len(stops) - 1])
    routing = pywrapcp.RoutingModel(manager)

    def apart(a: int, b: int) -> int:
        one, other = stops[manager.IndexToNode(a)], stops[manager.IndexToNode(b)]
        return 0 if math.inf in (one[0], other[0]) else round(1000 * math.dist(one, other))

    routing.SetArcCostEvaluatorOfAllVehicles(routing.RegisterTransitCallback(apart))
    search = pywrapcp.DefaultRoutingSearchParameters()
    search.local_search_metaheuristic = routing_enums_pb2.LocalSearchMetaheuristic.GUIDED_LOCAL_SEARCH
    search.solution_limit = 400
    return float(routing.SolveWithParameters(search).ObjectiveValue()) / 1000
