"""The design: one document from which everything else follows. Lengths in mm, angles in degrees."""

from __future__ import annotations

from collections import Counter
from typing import Literal

from pydantic import Field, model_validator

from wingboard.core.geometry.outline import area_of
from wingboard.core.record.base import Record, Words
from wingboard.core.record.cutting import Cutting
from wingboard.core.record.functions import Function
from wingboard.core.record.harness import Harness, Usb
from wingboard.core.record.judgement import Acceptance, LimitChoice
from wingboard.core.record.legends import Graphic, Style
from wingboard.core.record.modules import MOST_LAYERS, THREE_LAYERS, Layer, Module, School
from wingboard.core.record.part import BUS_LINES, Part
from wingboard.core.record.pictures import Reference
from wingboard.core.record.procedures import Procedure
from wingboard.core.record.space import Brief
from wingboard.core.record.trials import MOST_TRIALS, LampTrial
from wingboard.core.record.wiring import CHIPS, Controller, OwnBoard, PinChoice, WireName
from wingboard.core.record.workshop import Workshop


def _nothing_left(module: Module, inset: float) -> bool:
    left = area_of(module.outline.loop()).buffer(-inset, join_style="mitre")
    return left.is_empty or left.geom_type != "Polygon"


class Design(Record):
    """A whole panel, as the application exports and imports it."""

    format: Literal["wingboard-design"] = "wingboard-design"
    version: Literal[19] = 19
    name: Words = Field(min_length=1)
    brief: Brief = Brief()
    functions: tuple[Function, ...] = Field((), max_length=2000)
    parts: tuple[Part, ...] = Field((), max_length=500, description="The types in use, so that the file stands alone")
    modules: tuple[Module, ...] = Field((), max_length=50)
    school: School = Field("three-layer", description="That made the usual stack")
    stack: tuple[Layer, ...] = Field(
        THREE_LAYERS,
        min_length=1,
        max_length=MOST_LAYERS,
        description="The usual layers, of modules without their own",
    )
    boards: tuple[OwnBoard, ...] = Field((), max_length=50, description="Boards that the builder described")
    controllers: tuple[Controller, ...] = Field((), max_length=32)
    pins: tuple[PinChoice, ...] = Field((), max_length=5000)
    soldered: tuple[WireName, ...] = Field(
        (), max_length=20_000, description="Wires that are soldered, by their two ends"
    )
    harness: Harness = Harness()
    usb: Usb = Usb()
    accepted: tuple[Acceptance, ...] = Field((), max_length=5000)
    limits: tuple[LimitChoice, ...] = Field((), max_length=200)
    workshop: Workshop = Workshop()
    cutting: Cutting = Cutting()
    style: Style = Style()
    graphics: tuple[Graphic, ...] = Field((), max_length=500)
    procedures: tuple[Procedure, ...] = Field((), max_length=50)
    references: tuple[Reference, ...] = Field((), max_length=20)
    trials: tuple[LampTrial, ...] = Field((), max_length=MOST_TRIALS, description="Of lamps, the latest last")

    @model_validator(mode="after")
    def _names_are_unique_and_known(self) -> Design:
        for label, ids in self._idents().items():
            twice = [name for name, count in Counter(ids).items() if count > 1]
            if twice:
                raise ValueError(f"{label}: “{twice[0]}” is there twice")
        modules, parts = {p.id for p in self.modules}, {p.id for p in self.parts}
        functions = {f.id for f in self.functions}
        for n, function in enumerate(self.functions):
            if function.part is not None and function.part not in parts:
                raise ValueError(f"functions[{n}].part: no part “{function.part}” in this file")
            if function.place and function.place.module not in modules:
                raise ValueError(f"functions[{n}].place.module: no module “{function.place.module}”")
            if function.place and function.part is None:
                raise ValueError(f"functions[{n}].place: placed without a part")
            if function.pair is not None and function.pair not in functions:
                raise ValueError(f"functions[{n}].pair: no function “{function.pair}”")
            if function.of is not None and function.of not in functions:
                raise ValueError(f"functions[{n}].of: no function “{function.of}”")
        self._face_is_whole(functions, modules)
        self._layers_are_there()
        self._supplies_come_from_somewhere()
        return self

    def _layers_are_there(self) -> None:
        for module in self.modules:
            for layer in self.stack_of(module):
                if layer.inset > 0 and layer.outline is None and _nothing_left(module, layer.inset):
                    raise ValueError(f"{module.name}: nothing is left of {layer.name} {layer.inset:g} mm further in")

    def _supplies_come_from_somewhere(self) -> None:
        source = {s.id: s.made_from for s in self.workshop.supplies}
        for n, supply in enumerate(self.workshop.supplies):
            above, seen = supply.made_from, {supply.id}
            while above is not None:
                if above not in source or above in seen:
                    raise ValueError(f"workshop.supplies[{n}].made_from: no supply “{above}” before it")
                seen.add(above)
                above = source[above]

    def _face_is_whole(self, functions: set[str], modules: set[str]) -> None:
        for n, graphic in enumerate(self.graphics):
            if graphic.module not in modules or not functions.issuperset(graphic.functions):
                raise ValueError(f"graphics[{n}]: on a module, or over a function, that is not there")
        for layer in (layer for stack in (self.stack, *(m.stack or () for m in self.modules)) for layer in stack):
            for feature in layer.features:
                if feature.module not in modules or feature.without not in {None, *functions}:
                    raise ValueError(f"features of {layer.id}: on a module, or of a function, that is not there")
        for n, procedure in enumerate(self.procedures):
            if not functions.issuperset(procedure.steps):
                raise ValueError(f"procedures[{n}].steps: a function that is not there")
        for n, reference in enumerate(self.references):
            if reference.module not in modules:
                raise ValueError(f"references[{n}].module: no module “{reference.module}”")

    def bus_lines(self) -> dict[str, str]:
        """Every line that is one of a bus, and which, such as ``sda``: those alike share their pin."""
        parts = {p.id: found for p in self.parts if (found := [x for x in p.lines if x.does in BUS_LINES])}
        of_parts = ((f"{f.id}.{x.id}", x.does) for f in self.functions for x in parts.get(f.part or "", ()))
        of_chips = ((f"~expander-{m.id}.{bus}", bus) for m in self.modules for bus in ("sda", "scl"))
        return {**dict(of_parts), **dict(of_chips)}

    def stack_of(self, module: Module | None) -> tuple[Layer, ...]:
        """The layers of a module, from the front: its own, or the usual ones."""
        return self.stack if module is None or module.stack is None else module.stack

    def _idents(self) -> dict[str, list[str]]:
        boards, bus = {c.id for c in self.controllers}, self.bus_lines()
        unknown = [p for p in self.pins if p.controller not in boards]
        if unknown:
            raise ValueError(f"pins: no controller “{unknown[0].controller}”")
        kinds = {*CHIPS, *(b.id for b in self.boards)}
        strange = [c for c in self.controllers if c.board not in kinds]
        if strange:
            raise ValueError(f"controllers: no kind of board “{strange[0].board}”")
        mounted = [b.controller for m in self.modules for b in m.mounted if b.controller is not None]
        if not boards.issuperset(mounted):
            raise ValueError("mounted: a controller that is not there")
        return {
            "controllers behind": mounted,
            "functions": [f.id for f in self.functions],
            "parts": [p.id for p in self.parts],
            "modules": [p.id for p in self.modules],
            "stack": [layer.id for layer in self.stack],
            "controllers": [c.id for c in self.controllers],
            "boards": [*CHIPS, *(b.id for b in self.boards)],
            **{f"pins of {b.name}": [p.name for p in b.pins] for b in self.boards},
            "keepouts": [k.id for k in self.brief.keepouts],
            "graphics": [g.id for g in self.graphics],
            "procedures": [p.id for p in self.procedures],
            "references": [r.id for r in self.references],
            "trials": [t.id for t in self.trials],
            "machines": [m.id for m in self.workshop.machines],
            "stock": [m.id for m in self.workshop.stock],
            "supplies": [m.id for m in self.workshop.supplies],
            "wire on hand": [w.id for w in self.workshop.wires],
            "hours": [h.id for h in self.workshop.hours],
            "parts on hand": [p.part for p in self.workshop.parts],
            "pins": [p.line for p in self.pins],
            "pins of one controller": [
                f"{controller} {pin}"
                for controller, pin, _ in {(p.controller, p.pin, bus.get(p.line, p.line)) for p in self.pins}
            ],
        }
