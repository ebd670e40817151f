"""The design: one document from which everything else follows. Lengths in mm, angles in degrees."""

from __future__ import annotations

from collections import Counter
from typing import Annotated, Literal

from pydantic import Field, model_validator

from wingboard.core.design.base import Angle, Colour, Ident, Length, Mm, Record, Size, Words
from wingboard.core.design.outlines import Outline
from wingboard.core.design.part import Part
from wingboard.core.design.space import Brief
from wingboard.core.design.words import Graphic, Legend, Procedure, Reference, Style
from wingboard.core.design.workshop import Material, Workshop

LayerRole = Literal["face", "diffuser", "back", "board"]
BoardKind = Literal["uno", "mega"]


class Place(Record):
    """Where a part sits on a panel, in that panel's coordinates."""

    panel: Ident
    x: Mm
    y: Mm
    turn: Angle = 0.0


Duty = Literal["control", "source", "protection", "indicator", "opening"]
State = Literal["wanted", "wired", "proven", "alias", "pending", "dummy"]
Hand = Literal["", "left", "right", "both"]
Moment = Literal["", "start", "run", "stop", "emergency", "service"]


class Switched(Record):
    """What a function switches: an event in the panel's logic, a load with volts and amperes, the bus it hangs on."""

    event: Words = ""
    volts: Annotated[float, Field(ge=0, le=1000)] = 0.0
    amps: Annotated[float, Field(ge=0, le=200)] = 0.0
    ac: bool = False
    bus: Words = ""


class Wanted(Record):
    """What is wanted of a function, as the brief lists it."""

    group: Words = ""
    want: Words = Field("", description="The kind of control or light wanted")
    positions: tuple[Words, ...] = Field((), max_length=24, description="A word for each position in use")
    switches: Switched = Switched()
    indicator: Words = Field("", description="The light that shows it, in words; empty for none")
    weight: Literal["normal", "guarded", "emergency"] = Field(
        "normal", description="guarded: cannot be undone, wants a guard or a key"
    )
    state: State = Field(
        "wanted",
        description="wired and proven as the builder marks them; dummy: does nothing on purpose; "
        "alias: another name of ``of``; pending: decided later",
    )
    duty: Duty | None = Field(None, description="Recognised from its words when None")
    of: Ident | None = Field(None, description="The function this one protects, shows or repeats")
    hand: Hand = Field("", description="The hand that works it")
    moment: Moment = Field("", description="When it is used")


class Function(Wanted):
    """One thing the panel does, and how far it has got."""

    id: Ident
    name: Words = Field(min_length=1)
    stop_role: Literal["real", "theatrical", "power"] | None = Field(
        None,
        description="What an emergency stop is: real (hard-wired, only reported here), for show, or the power switch",
    )
    scheme: Literal["direct", "ladder"] = Field(
        "direct", description="ladder: the positions of a rotary read as one voltage over equal resistors"
    )
    digits: Annotated[int, Field(ge=1, le=16)] | None = Field(None, description="Digits left showing; all when None")
    part: Ident | None = None
    place: Place | None = None
    legend: Legend | None = None
    locked: bool = Field(False, description="Stays where it is")
    pair: Ident | None = Field(None, description="The function this one mirrors, left for right")
    pocket: Length = Field(0.0, description="Depth of a seat cut from behind so that the thread reaches")


class Fixings(Record):
    """Corner screws through every layer."""

    screw: Literal["M2", "M2.5", "M3", "M4", "M5", "M6"] = "M3"
    inset: Size = 8.0


class Panel(Record):
    """One module: a plate with its own coordinates, origin at the lower left corner seen from the front."""

    id: Ident
    name: Words = Field(min_length=1)
    outline: Outline
    x: Mm = Field(0.0, description="Of its origin in the opening")
    y: Mm = 0.0
    fixings: Fixings | None = Fixings()
    tolerance: Length = Field(0.2, description="How far its width may come out off, either way")


class Layer(Record):
    """One sheet of the stack."""

    id: Ident
    name: Words
    role: LayerRole
    material: Material = "acrylic"
    thickness: Annotated[float, Field(gt=0, le=50)]
    colour: Colour = "#FFFFFF"


class Controller(Record):
    """A board on hand."""

    id: Ident
    name: Words = Field(min_length=1)
    board: BoardKind


class PinChoice(Record):
    """A signal's pin, chosen by hand or by the solver."""

    signal: Annotated[str, Field(pattern=r"^[a-z][a-z0-9-]{0,47}\.[a-z][a-z0-9-]{0,47}$")]
    controller: Ident
    pin: Annotated[str, Field(pattern=r"^[A-Z]?[0-9]{1,2}$")]
    by: Literal["hand", "solver"] = "solver"


class Acceptance(Record):
    """A finding the builder lives with, and why."""

    finding: Annotated[str, Field(max_length=200)]
    reason: Words = Field(min_length=1)
    measured: float | None = Field(None, description="What was measured when it was accepted")


class LimitChoice(Record):
    """A default limit overridden for this design."""

    limit: Annotated[str, Field(pattern=r"^[a-z]+(-[a-z0-9]+)*$", max_length=60)]
    value: Annotated[float, Field(ge=0, le=10_000)]
    reason: Words = Field(min_length=1)


THREE_LAYERS = (
    Layer(id="face", name="Face", role="face", thickness=2, colour="#263033"),
    Layer(id="diffuser", name="Diffuser", role="diffuser", thickness=3, colour="#F4F6F2"),
    Layer(id="back", name="Back", role="back", thickness=3, colour="#D9D5C8"),
)


class Design(Record):
    """A whole panel, as the application exports and imports it."""

    format: Literal["wingboard-design"] = "wingboard-design"
    version: Literal[1] = 1
    name: Words = Field(min_length=1)
    brief: Brief = Brief()
    functions: tuple[Function, ...] = Field((), max_length=2000)
    parts: tuple[Part, ...] = Field((), max_length=500, description="The types in use, so that the file stands alone")
    panels: tuple[Panel, ...] = Field((), max_length=50)
    stack: tuple[Layer, ...] = Field(THREE_LAYERS, min_length=1, max_length=8)
    controllers: tuple[Controller, ...] = Field((), max_length=32)
    pins: tuple[PinChoice, ...] = Field((), max_length=5000)
    accepted: tuple[Acceptance, ...] = Field((), max_length=5000)
    limits: tuple[LimitChoice, ...] = Field((), max_length=200)
    workshop: Workshop = Workshop()
    style: Style = Style()
    graphics: tuple[Graphic, ...] = Field((), max_length=500)
    procedures: tuple[Procedure, ...] = Field((), max_length=50)
    references: tuple[Reference, ...] = Field((), max_length=20)

    @model_validator(mode="after")
    def _names_are_unique_and_known(self) -> Design:
        for label, ids in self._idents().items():
            twice = [name for name, count in Counter(ids).items() if count > 1]
            if twice:
                raise ValueError(f"{label}: “{twice[0]}” is there twice")
        panels, parts = {p.id for p in self.panels}, {p.id for p in self.parts}
        functions = {f.id for f in self.functions}
        for n, function in enumerate(self.functions):
            if function.part is not None and function.part not in parts:
                raise ValueError(f"functions[{n}].part: no part “{function.part}” in this file")
            if function.place and function.place.panel not in panels:
                raise ValueError(f"functions[{n}].place.panel: no panel “{function.place.panel}”")
            if function.place and function.part is None:
                raise ValueError(f"functions[{n}].place: placed without a part")
            if function.pair is not None and function.pair not in functions:
                raise ValueError(f"functions[{n}].pair: no function “{function.pair}”")
            if function.of is not None and function.of not in functions:
                raise ValueError(f"functions[{n}].of: no function “{function.of}”")
        self._face_is_whole(functions, panels)
        return self

    def _face_is_whole(self, functions: set[str], panels: set[str]) -> None:
        for n, graphic in enumerate(self.graphics):
            if graphic.panel not in panels or not functions.issuperset(graphic.functions):
                raise ValueError(f"graphics[{n}]: on a panel, or over a function, that is not there")
        for n, procedure in enumerate(self.procedures):
            if not functions.issuperset(procedure.steps):
                raise ValueError(f"procedures[{n}].steps: a function that is not there")
        for n, reference in enumerate(self.references):
            if reference.panel not in panels:
                raise ValueError(f"references[{n}].panel: no panel “{reference.panel}”")

    def _idents(self) -> dict[str, list[str]]:
        boards = {c.id for c in self.controllers}
        unknown = [p for p in self.pins if p.controller not in boards]
        if unknown:
            raise ValueError(f"pins: no controller “{unknown[0].controller}”")
        return {
            "functions": [f.id for f in self.functions],
            "parts": [p.id for p in self.parts],
            "panels": [p.id for p in self.panels],
            "stack": [layer.id for layer in self.stack],
            "controllers": [c.id for c in self.controllers],
            "keepouts": [k.id for k in self.brief.keepouts],
            "graphics": [g.id for g in self.graphics],
            "procedures": [p.id for p in self.procedures],
            "references": [r.id for r in self.references],
            "machines": [m.id for m in self.workshop.machines],
            "stock": [m.id for m in self.workshop.stock],
            "supplies": [m.id for m in self.workshop.supplies],
            "hours": [h.id for h in self.workshop.hours],
            "parts on hand": [p.part for p in self.workshop.parts],
            "pins": [p.signal for p in self.pins],
            "pins of one controller": [f"{p.controller} {p.pin}" for p in self.pins],
        }
