"""Carrying out commands: each a pure function of a design and the catalogue that gives a new design or raises."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from functools import singledispatch
from typing import Any, Literal, TypeVar

from wingboard.core.design import commands as c
from wingboard.core.design.base import Record
from wingboard.core.design.errors import DesignError, NotPossible, Problem, UnknownThing
from wingboard.core.design.model import (
    Acceptance,
    Controller,
    Design,
    Function,
    Legend,
    LimitChoice,
    OutlinePoint,
    Panel,
    PathOutline,
    PinChoice,
    Place,
    RectOutline,
)
from wingboard.core.design.part import Part
from wingboard.core.geometry.outline import area_of
from wingboard.core.quantity import LONGEST

Catalogue = Mapping[str, Part]
R = TypeVar("R", Function, Panel)


def apply(design: Design, batch: Sequence[c.Command], catalogue: Catalogue) -> Design:
    """Carry out a batch in order, all of it or none.

    :param catalogue: the parts that may be chosen, by id; those of the design count too.
    :raises DesignError: the first command that cannot be carried out, its path ``commands[n]…``.
    """
    for n, command in enumerate(batch):
        try:
            design = _carry_out(command, design, catalogue)
        except DesignError as error:
            path = f"commands[{n}]" + (f".{error.path}" if error.path else "")
            raise type(error)(error.message, path, (Problem(path, error.message),)) from error
    return design


def find_function(design: Design, ident: str, path: str = "function") -> Function:
    """The function with that id. :raises UnknownThing: there is none."""
    return _find(design.functions, ident, "function", path)


def find_panel(design: Design, ident: str, path: str = "panel") -> Panel:
    """The panel with that id. :raises UnknownThing: there is none."""
    return _find(design.panels, ident, "panel", path)


def _find(items: Iterable[R], ident: str, what: str, path: str) -> R:
    for item in items:
        if item.id == ident:
            return item
    raise UnknownThing(f"There is no {what} “{ident}” in this design", path)


def _with(design: Design, **changes: Any) -> Design:
    return design.model_copy(update=changes)


def _with_functions(design: Design, changed: Mapping[str, Function]) -> Design:
    return _with(design, functions=tuple(changed.get(f.id, f) for f in design.functions))


def _given(command: Record, *names: str) -> dict[str, Any]:
    return {n: getattr(command, n) for n in names if n in command.model_fields_set and getattr(command, n) is not None}


def _free_ident(taken: Iterable[str], stem: str) -> str:
    used, n = set(taken), 1
    while f"{stem}{n}" in used:
        n += 1
    return f"{stem}{n}"


def _new_ident(asked: str | None, taken: Iterable[str], stem: str) -> str:
    used = set(taken)
    if asked in used:
        raise NotPossible(f"“{asked}” is taken already", "id")
    return asked or _free_ident(used, stem)


@singledispatch
def _carry_out(command: c.Command, design: Design, catalogue: Catalogue) -> Design:
    raise NotImplementedError(type(command).__name__)  # pragma: no cover - every command is registered, and tested so


@_carry_out.register
def _(command: c.Rename, design: Design, catalogue: Catalogue) -> Design:
    return _with(design, name=command.name)


@_carry_out.register
def _(command: c.SetBrief, design: Design, catalogue: Catalogue) -> Design:
    changes = _given(command, "title", "kind", "opening", "gap", "depth")
    return _with(design, brief=design.brief.model_copy(update=changes))


@_carry_out.register
def _(command: c.SetKeepOut, design: Design, catalogue: Catalogue) -> Design:
    kept = list(design.brief.keepouts)
    at = next((i for i, k in enumerate(kept) if k.id == command.keepout.id), len(kept))
    kept[at : at + 1] = [command.keepout]
    return _with(design, brief=design.brief.model_copy(update={"keepouts": tuple(kept)}))


@_carry_out.register
def _(command: c.RemoveKeepOut, design: Design, catalogue: Catalogue) -> Design:
    kept = tuple(k for k in design.brief.keepouts if k.id != command.keepout)
    if len(kept) == len(design.brief.keepouts):
        raise UnknownThing(f"There is no keep-out “{command.keepout}”", "keepout")
    return _with(design, brief=design.brief.model_copy(update={"keepouts": kept}))


@_carry_out.register
def _(command: c.AddFunction, design: Design, catalogue: Catalogue) -> Design:
    ident = _new_ident(command.id, (f.id for f in design.functions), "f")
    fields = command.model_dump(exclude={"do", "id"})
    return _with(design, functions=(*design.functions, Function(id=ident, **fields)))


@_carry_out.register
def _(command: c.EditFunction, design: Design, catalogue: Catalogue) -> Design:
    function = find_function(design, command.function)
    changes = _given(command, "name", "group", "want", "positions", "weight", "stop_role")
    changed = function.model_copy(update=changes)
    if changed.positions != function.positions:
        design = _without_pins(design, {function.id}, only_solver=True)
    return _with_functions(design, {function.id: changed})


@_carry_out.register
def _(command: c.RemoveFunction, design: Design, catalogue: Catalogue) -> Design:
    function = find_function(design, command.function)
    design = _without_pins(design, {function.id})
    return _with(design, functions=tuple(f for f in design.functions if f is not function))


def _without_pins(design: Design, functions: set[str], only_solver: bool = False) -> Design:
    kept = tuple(p for p in design.pins if p.signal.split(".")[0] not in functions or (only_solver and p.by == "hand"))
    return design if len(kept) == len(design.pins) else _with(design, pins=kept)


@_carry_out.register
def _(command: c.ChoosePart, design: Design, catalogue: Catalogue) -> Design:
    function = find_function(design, command.function)
    if command.part == function.part:
        return design
    design = _without_pins(design, {function.id})
    if command.part is None:
        return _with_functions(design, {function.id: function.model_copy(update={"part": None, "place": None})})
    design = _with_part(design, command.part, catalogue)
    return _with_functions(design, {function.id: function.model_copy(update={"part": command.part})})


def _with_part(design: Design, ident: str, catalogue: Catalogue) -> Design:
    if any(p.id == ident for p in design.parts):
        return design
    if ident not in catalogue:
        raise UnknownThing(f"There is no part “{ident}” in the catalogue or in this design", "part")
    return _with(design, parts=(*design.parts, catalogue[ident]))


@_carry_out.register
def _(command: c.PlacePart, design: Design, catalogue: Catalogue) -> Design:
    function = find_function(design, command.function)
    find_panel(design, command.panel)
    if function.part is None:
        raise NotPossible(f"Choose a part for “{function.name}” first, then place it", "function")
    place = Place(panel=command.panel, x=command.x, y=command.y, turn=command.turn)
    changes: dict[str, Any] = {"place": place}
    if function.place is None and function.legend is None:
        part = next(p for p in design.parts if p.id == function.part)
        side: Literal["above", "inside"] = "inside" if part.family == "caption" else "above"
        changes["legend"] = Legend(text=function.name.upper(), side=side)
    return _with_functions(design, {function.id: function.model_copy(update=changes)})


def _placed(design: Design, idents: Sequence[str]) -> list[tuple[Function, Place]]:
    by_id = {f.id: f for f in design.functions}
    found = []
    for ident in dict.fromkeys(idents):
        function = by_id.get(ident) or find_function(design, ident, "functions")
        if function.place is None:
            raise NotPossible(f"“{function.name}” is not on a panel yet", "functions")
        found.append((function, function.place))
    return found


def _moved(place: Place, dx: float, dy: float, by: float) -> Place:
    x, y = round(place.x + dx, 4), round(place.y + dy, 4)
    if max(abs(x), abs(y)) > LONGEST:
        raise NotPossible(f"That would be further than {LONGEST:.0f} mm from the panel's corner", "dx")
    return place.model_copy(update={"x": x, "y": y, "turn": round((place.turn + by) % 360, 4)})


@_carry_out.register
def _(command: c.MoveItems, design: Design, catalogue: Catalogue) -> Design:
    placed = _placed(design, command.functions)
    changed = {f.id: f.model_copy(update={"place": _moved(place, command.dx, command.dy, 0)}) for f, place in placed}
    return _with_functions(design, changed)


@_carry_out.register
def _(command: c.TurnItems, design: Design, catalogue: Catalogue) -> Design:
    placed = _placed(design, command.functions)
    changed = {f.id: f.model_copy(update={"place": _moved(place, 0, 0, command.by)}) for f, place in placed}
    return _with_functions(design, changed)


@_carry_out.register
def _(command: c.RemoveItems, design: Design, catalogue: Catalogue) -> Design:
    placed = _placed(design, command.functions)
    return _with_functions(design, {f.id: f.model_copy(update={"place": None}) for f, _ in placed})


@_carry_out.register
def _(command: c.SetLegend, design: Design, catalogue: Catalogue) -> Design:
    function = find_function(design, command.function)
    return _with_functions(design, {function.id: function.model_copy(update={"legend": command.legend})})


@_carry_out.register
def _(command: c.SetPocket, design: Design, catalogue: Catalogue) -> Design:
    function = find_function(design, command.function)
    return _with_functions(design, {function.id: function.model_copy(update={"pocket": command.depth})})


@_carry_out.register
def _(command: c.AddPanel, design: Design, catalogue: Catalogue) -> Design:
    ident = _new_ident(command.id, (p.id for p in design.panels), "panel-")
    panel = Panel(id=ident, name=command.name, outline=command.outline, x=command.x, y=command.y)
    return _with(design, panels=(*design.panels, panel))


def _with_panel(design: Design, changed: Panel) -> Design:
    return _with(design, panels=tuple(changed if p.id == changed.id else p for p in design.panels))


@_carry_out.register
def _(command: c.SetPanel, design: Design, catalogue: Catalogue) -> Design:
    panel = find_panel(design, command.panel)
    changes = _given(command, "name", "outline", "x", "y")
    if "fixings" in command.model_fields_set:
        changes["fixings"] = command.fixings
    return _with_panel(design, panel.model_copy(update=changes))


@_carry_out.register
def _(command: c.SetPanelSize, design: Design, catalogue: Catalogue) -> Design:
    panel = find_panel(design, command.panel)
    outline = panel.outline
    if isinstance(outline, RectOutline):
        resized: RectOutline | PathOutline = outline.model_copy(
            update={"width": command.width, "height": command.height}
        )
    else:
        resized = _stretched(outline, command.width, command.height)
    return _with_panel(design, panel.model_copy(update={"outline": resized}))


def _stretched(outline: PathOutline, width: float, height: float) -> PathOutline:
    x0, y0, x1, y1 = area_of(outline.loop()).bounds
    sx, sy = width / (x1 - x0), height / (y1 - y0)
    points = tuple(
        OutlinePoint(x=round((p.x - x0) * sx, 4), y=round((p.y - y0) * sy, 4), bulge=p.bulge) for p in outline.points
    )
    return PathOutline(points=points)


@_carry_out.register
def _(command: c.RemovePanel, design: Design, catalogue: Catalogue) -> Design:
    panel = find_panel(design, command.panel)
    freed = {
        f.id: f.model_copy(update={"place": None}) for f in design.functions if f.place and f.place.panel == panel.id
    }
    design = _with_functions(design, freed)
    return _with(design, panels=tuple(p for p in design.panels if p is not panel))


@_carry_out.register
def _(command: c.SetLayer, design: Design, catalogue: Catalogue) -> Design:
    if all(layer.id != command.layer for layer in design.stack):
        raise UnknownThing(f"There is no layer “{command.layer}” in this stack", "layer")
    changes = _given(command, "name", "material", "thickness", "colour")
    stack = tuple(s.model_copy(update=changes) if s.id == command.layer else s for s in design.stack)
    return _with(design, stack=stack)


@_carry_out.register
def _(command: c.AddController, design: Design, catalogue: Catalogue) -> Design:
    ident = _new_ident(command.id, (b.id for b in design.controllers), f"{command.board}-")
    name = command.name or f"{command.board.capitalize()} {ident.rsplit('-', 1)[-1]}"
    return _with(design, controllers=(*design.controllers, Controller(id=ident, name=name, board=command.board)))


def _check_controller(design: Design, ident: str, path: str) -> None:
    if all(b.id != ident for b in design.controllers):
        raise UnknownThing(f"There is no controller “{ident}” in this design", path)


@_carry_out.register
def _(command: c.RemoveController, design: Design, catalogue: Catalogue) -> Design:
    _check_controller(design, command.controller, "controller")
    return _with(
        design,
        controllers=tuple(b for b in design.controllers if b.id != command.controller),
        pins=tuple(p for p in design.pins if p.controller != command.controller),
    )


@_carry_out.register
def _(command: c.PinSignal, design: Design, catalogue: Catalogue) -> Design:
    _check_controller(design, command.controller, "controller")
    find_function(design, command.signal.split(".")[0], "signal")
    for other in design.pins:
        same_pin = (other.controller, other.pin) == (command.controller, command.pin)
        if same_pin and other.signal != command.signal and other.by == "hand":
            raise NotPossible(f"Pin {command.pin} is given to {other.signal} by hand; take that back first", "pin")
    choice = PinChoice(signal=command.signal, controller=command.controller, pin=command.pin, by="hand")
    kept = tuple(
        p
        for p in design.pins
        if p.signal != command.signal and (p.controller, p.pin) != (command.controller, command.pin)
    )
    return _with(design, pins=(*kept, choice))


@_carry_out.register
def _(command: c.UnpinSignals, design: Design, catalogue: Catalogue) -> Design:
    gone = set(command.signals)
    unknown = gone - {p.signal for p in design.pins}
    if unknown:
        raise UnknownThing(f"{min(unknown)} has no pin to take back", "signals")
    return _with(design, pins=tuple(p for p in design.pins if p.signal not in gone))


@_carry_out.register
def _(command: c.SetPins, design: Design, catalogue: Catalogue) -> Design:
    pins = (*(p for p in design.pins if p.by == "hand"), *command.pins)
    functions = {f.id for f in design.functions}
    signals: set[str] = set()
    taken: set[tuple[str, str]] = set()
    for choice in pins:
        _check_controller(design, choice.controller, "pins")
        if choice.signal.split(".")[0] not in functions:
            raise UnknownThing(f"There is no function for signal “{choice.signal}”", "pins")
        if choice.signal in signals or (choice.controller, choice.pin) in taken:
            raise NotPossible(f"{choice.signal}, or pin {choice.pin} of {choice.controller}, is given twice", "pins")
        signals.add(choice.signal)
        taken.add((choice.controller, choice.pin))
    return _with(design, pins=pins)


@_carry_out.register
def _(command: c.AcceptFinding, design: Design, catalogue: Catalogue) -> Design:
    others = tuple(a for a in design.accepted if a.finding != command.finding)
    acceptance = Acceptance(finding=command.finding, reason=command.reason, measured=command.measured)
    return _with(design, accepted=(*others, acceptance))


@_carry_out.register
def _(command: c.RetractAcceptance, design: Design, catalogue: Catalogue) -> Design:
    others = tuple(a for a in design.accepted if a.finding != command.finding)
    if len(others) == len(design.accepted):
        raise UnknownThing("That finding was not accepted", "finding")
    return _with(design, accepted=others)


@_carry_out.register
def _(command: c.SetLimit, design: Design, catalogue: Catalogue) -> Design:
    others = tuple(limit for limit in design.limits if limit.limit != command.limit)
    if command.value is None:
        return _with(design, limits=others)
    if not command.reason:
        raise NotPossible("Say why the limit is another one here", "reason")
    choice = LimitChoice(limit=command.limit, value=command.value, reason=command.reason)
    return _with(design, limits=(*others, choice))
