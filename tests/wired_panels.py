"""Random panels that are wired: parts, loads, supplies, stops, looms, plugs, light, a board or none (Hypothesis)."""

from __future__ import annotations

from typing import Any, get_args

from hypothesis import strategies as st

from building import plate
from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import BATCH
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.design import Design
from wingboard.core.record.functions import Scheme
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.pins.solve import solve

WIRED = tuple(p.id for p in catalogue().values() if p.lines or p.contacts or p.feed)
LOADS = st.fixed_dictionaries({
    "volts": st.sampled_from([5.0, 12.0, 24.0, 48.0, 110.0, 230.0]), "amps": st.sampled_from([0.0, 0.5, 6.0]),
    "through": st.sampled_from(["", "relay", "contactor", "transistor"]), "bus": st.sampled_from(["", "A", "B"]),
    "current": st.sampled_from(["", "AC", "DC"]), "driven": st.sampled_from(["contact", "controller"]),
    "seen": st.sampled_from(["", "pole", "auxiliary", "divider"]), "stays_on": st.booleans(),
})  # fmt: skip


PLUGS = st.sampled_from([None, "dsub", "header", "strip", "punch"])
LOOMS = st.fixed_dictionaries({
    "trunk": st.sampled_from(["across", "up"]), "leaves": st.sampled_from(["left", "right", "top", "bottom"]),
    "service": st.sampled_from([0.0, 120.0]), "signals": PLUGS, "power": PLUGS,
})  # fmt: skip


def made(start: Design, *commands: dict[str, Any]) -> Design:
    return apply(start, BATCH.validate_python(commands), catalogue())


@st.composite
def panels(draw: st.DrawFn) -> Design:
    """Some parts beside each other, loads on some of them, supplies or none, a board with its pins or none."""
    parts = draw(st.lists(st.sampled_from(WIRED), min_size=1, max_size=8))
    start = plate(*((part, 20.0 + 60 * n, 60.0) for n, part in enumerate(parts)))
    commands: list[dict[str, Any]] = []
    for n in range(1, len(parts) + 1):
        if draw(st.booleans()):
            commands.append({"do": "edit_function", "function": f"f{n}", **draw(LOADS)})
        if draw(st.booleans()):
            role = draw(st.sampled_from(["real", "power", "theatrical", None]))
            commands.append({"do": "edit_function", "function": f"f{n}", "stop_role": role})
        scheme = draw(st.sampled_from(get_args(Scheme)))
        commands.append({"do": "edit_function", "function": f"f{n}", "scheme": scheme})
    if draw(st.booleans()):
        commands.append({"do": "edit_module", "module": "plate", "returns": "star"})
    if draw(st.booleans()):
        commands.append({"do": "edit_module", "module": "plate", "feeds": "star"})
    commands.append({"do": "edit_loom", "module": "plate", **draw(LOOMS)})
    if draw(st.booleans()):
        kind = draw(st.sampled_from(["strip-60", "chain-60"]))
        commands.append({"do": "add_strip", "module": "plate", "kind": kind, "x": 10, "y": 20, "x2": 150, "y2": 20})
        commands.append({"do": "add_leds", "module": "plate", "at": [{"x": 20 + 15 * n, "y": 100} for n in range(4)]})
        commands.append({"do": "set_light", "module": "plate", "dimmer": draw(st.booleans())})
    for volts in draw(st.sets(st.sampled_from([5.0, 12.0, 24.0]))):
        commands.append({"do": "add_supply", "name": f"{volts:g} V", "volts": volts, "amps": 10})
    if draw(st.booleans()):
        commands.append({"do": "add_controller", "id": "it", "board": "atmega2560"})
    design = made(start, *commands) if commands else start
    if design.controllers:
        pins = solve(Resolved(design), seconds=2).pins
        design = design.model_copy(update={"pins": pins})
    return design
