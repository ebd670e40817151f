"""Places, words, modules and layers."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any, Literal

from wingboard.core.changes.commands.face import (
    AddModule,
    MoveItems,
    PlacePart,
    RemoveItems,
    RemoveModule,
    SetLayer,
    SetLegend,
    SetModule,
    SetModuleSize,
    SetPocket,
    TurnItems,
)
from wingboard.core.changes.handlers.steps import (
    Catalogue,
    carry_out,
    find_function,
    find_module,
    given,
    new_ident,
    with_changes,
    with_functions,
)
from wingboard.core.quantity import LONGEST
from wingboard.core.record.design import Design
from wingboard.core.record.errors import NotPossible, UnknownThing
from wingboard.core.record.functions import Function, Place
from wingboard.core.record.legends import Legend
from wingboard.core.record.modules import Module
from wingboard.core.record.outlines import RectOutline, stretched


@carry_out.register
def handle_place_part(command: PlacePart, design: Design, catalogue: Catalogue) -> Design:
    function = find_function(design, command.function)
    find_module(design, command.module)
    if function.part is None:
        raise NotPossible(f"Choose a part for “{function.name}” first, then place it", "function")
    if function.locked and function.place is not None:
        raise NotPossible(f"“{function.name}” is locked where it is; unlock it first", "function")
    place = Place(module=command.module, x=command.x, y=command.y, turn=command.turn)
    changes: dict[str, Any] = {"place": place}
    if function.place is None and function.legend is None:
        part = next(p for p in design.parts if p.id == function.part)
        side: Literal["above", "inside"] = "inside" if part.family == "caption" else "above"
        silent = part.family in ("fixing", "vent", "speaker", "blank", "placard")
        text = function.name.upper() if design.style.upper else function.name
        changes["legend"] = Legend(text="" if silent else text, side=side, hidden=silent)
    return with_functions(design, {function.id: function.model_copy(update=changes)})


def placed_functions(design: Design, idents: Sequence[str], even_locked: bool = False) -> list[tuple[Function, Place]]:
    """The functions of these ids with their places, each once.

    :raises NotPossible: one is not placed, or is locked there (unless ``even_locked``).
    """
    by_id = {f.id: f for f in design.functions}
    found = []
    for ident in dict.fromkeys(idents):
        function = by_id.get(ident) or find_function(design, ident, "functions")
        if function.place is None:
            raise NotPossible(f"“{function.name}” is not placed yet", "functions")
        if function.locked and not even_locked:
            raise NotPossible(f"“{function.name}” is locked where it is; unlock it first", "functions")
        found.append((function, function.place))
    return found


def moved_place(place: Place, dx: float, dy: float, by: float) -> Place:
    """The place shifted by (dx, dy) mm and turned by degrees. :raises NotPossible: out of all bounds."""
    x, y = round(place.x + dx, 4), round(place.y + dy, 4)
    if max(abs(x), abs(y)) > LONGEST:
        raise NotPossible(f"That would be further than {LONGEST:.0f} mm from the module's corner", "dx")
    return place.model_copy(update={"x": x, "y": y, "turn": round((place.turn + by) % 360, 4)})


@carry_out.register
def handle_move_items(command: MoveItems, design: Design, catalogue: Catalogue) -> Design:
    placed = placed_functions(design, command.functions)
    changed = {
        f.id: f.model_copy(update={"place": moved_place(place, command.dx, command.dy, 0)}) for f, place in placed
    }
    return with_functions(design, changed)


@carry_out.register
def handle_turn_items(command: TurnItems, design: Design, catalogue: Catalogue) -> Design:
    placed = placed_functions(design, command.functions)
    changed = {f.id: f.model_copy(update={"place": moved_place(place, 0, 0, command.by)}) for f, place in placed}
    return with_functions(design, changed)


@carry_out.register
def handle_remove_items(command: RemoveItems, design: Design, catalogue: Catalogue) -> Design:
    placed = placed_functions(design, command.functions)
    return with_functions(design, {f.id: f.model_copy(update={"place": None}) for f, _ in placed})


@carry_out.register
def handle_set_legend(command: SetLegend, design: Design, catalogue: Catalogue) -> Design:
    function = find_function(design, command.function)
    return with_functions(design, {function.id: function.model_copy(update={"legend": command.legend})})


@carry_out.register
def handle_set_pocket(command: SetPocket, design: Design, catalogue: Catalogue) -> Design:
    function = find_function(design, command.function)
    return with_functions(design, {function.id: function.model_copy(update={"pocket": command.depth})})


@carry_out.register
def handle_add_module(command: AddModule, design: Design, catalogue: Catalogue) -> Design:
    ident = new_ident(command.id, (p.id for p in design.modules), "module-")
    module = Module(id=ident, name=command.name, outline=command.outline, x=command.x, y=command.y)
    return with_changes(design, modules=(*design.modules, module))


def with_module(design: Design, changed: Module) -> Design:
    return with_changes(design, modules=tuple(changed if p.id == changed.id else p for p in design.modules))


@carry_out.register
def handle_set_module(command: SetModule, design: Design, catalogue: Catalogue) -> Design:
    module = find_module(design, command.module)
    changes = given(command, "name", "outline", "x", "y", "tolerance")
    if "fixings" in command.model_fields_set:
        changes["fixings"] = command.fixings
    return with_module(design, module.model_copy(update=changes))


@carry_out.register
def handle_set_module_size(command: SetModuleSize, design: Design, catalogue: Catalogue) -> Design:
    module = find_module(design, command.module)
    outline, size = module.outline, {"width": command.width, "height": command.height}
    rectangle = isinstance(outline, RectOutline)
    resized = outline.model_copy(update=size) if rectangle else stretched(outline, command.width, command.height)
    return with_module(design, module.model_copy(update={"outline": resized}))


@carry_out.register
def handle_remove_module(command: RemoveModule, design: Design, catalogue: Catalogue) -> Design:
    module = find_module(design, command.module)
    freed = {
        f.id: f.model_copy(update={"place": None}) for f in design.functions if f.place and f.place.module == module.id
    }
    return with_changes(
        with_functions(design, freed),
        modules=tuple(p for p in design.modules if p is not module),
        graphics=tuple(g for g in design.graphics if g.module != module.id),
        references=tuple(r for r in design.references if r.module != module.id),
    )


@carry_out.register
def handle_set_layer(command: SetLayer, design: Design, catalogue: Catalogue) -> Design:
    if all(layer.id != command.layer for layer in design.stack):
        raise UnknownThing(f"There is no layer “{command.layer}” in this stack", "layer")
    changes = given(command, "name", "material", "thickness", "colour")
    stack = tuple(s.model_copy(update=changes) if s.id == command.layer else s for s in design.stack)
    return with_changes(design, stack=stack)
