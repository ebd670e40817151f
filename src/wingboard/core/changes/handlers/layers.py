"""The layers of the modules: schools, sheets and named exceptions."""

from __future__ import annotations

from wingboard.core.changes.commands.layers import (
    AddFeature,
    AddLayer,
    EditLayer,
    RemoveFeature,
    RemoveLayer,
    SetSchool,
)
from wingboard.core.changes.handlers.steps import (
    Catalogue,
    carry_out,
    changes_in,
    edited,
    find_module,
    found,
    new_ident,
    replaced,
    with_changes,
    without,
)
from wingboard.core.changes.schools import layers_of
from wingboard.core.record.design import Design
from wingboard.core.record.errors import NotPossible
from wingboard.core.record.modules import THREE_LAYERS, Feature, Layer, LayerRole, is_plate

NULLABLE = ("outline",)


@carry_out.register
def handle_set_school(command: SetSchool, design: Design, catalogue: Catalogue) -> Design:
    if command.module is None:
        if command.school is None:
            raise NotPossible("The panel's layers are made by one of the schools", "school")
        return with_changes(design, school=command.school, stack=layers_of(command.school, design.stack, design.school))
    module = find_module(design, command.module)
    before = design.school if module.stack is None else module.school or design.school
    made = layers_of(command.school, design.stack_of(module), before) if command.school else None
    changed = edited(module, {"school": command.school, "stack": made})
    return with_changes(design, modules=replaced(design.modules, changed))


def _with_stack(design: Design, module: str | None, stack: tuple[Layer, ...]) -> Design:
    """The design with other usual layers, or with these for one module."""
    if module is None:
        return with_changes(design, stack=stack)
    changed = find_module(design, module)
    school = changed.school if changed.stack is not None else design.school
    changed = edited(changed, {"school": school, "stack": stack})
    return with_changes(design, modules=replaced(design.modules, changed))


def _layer(design: Design, module: str | None, ident: str) -> tuple[tuple[Layer, ...], Layer]:
    stack = design.stack if module is None else design.stack_of(find_module(design, module))
    return stack, found(stack, ident, "layer", "layer")


USUAL: dict[LayerRole, Layer] = {
    **{layer.role: layer for layer in THREE_LAYERS},
    "board": Layer(
        id="board", name="Light board", role="board", material="hardboard", thickness=3, colour="#B79466", gap=15,
        edge="foam", inset=1,
    ),
    "buttons": Layer(
        id="buttons", name="Button board", role="buttons", material="hardboard", thickness=1.6, colour="#2F6B4F", gap=8,
        inset=1,
    ),
}  # fmt: skip
"""A sheet more of each kind, as it is usually made (common practice): a light board of hardboard, 15 mm off, foam
all round."""


@carry_out.register
def handle_add_layer(command: AddLayer, design: Design, catalogue: Catalogue) -> Design:
    stack = design.stack if command.module is None else design.stack_of(find_module(design, command.module))
    usual = USUAL[command.role]
    taken = {layer.id for layer in stack}
    ident = new_ident(command.id or (None if usual.id in taken else usual.id), taken, f"{usual.id}-")
    said = changes_in(command, "module", "id", "after")
    added = edited(usual, {**said, "id": ident})
    if command.after is not None:
        at = stack.index(found(stack, command.after, "layer", "after")) + 1
    else:
        alike = [n for n, layer in enumerate(stack) if is_plate(layer) == is_plate(added)]
        at = alike[-1] + 1 if alike else len(stack)
    return _with_stack(design, command.module, (*stack[:at], added, *stack[at:]))


@carry_out.register
def handle_remove_layer(command: RemoveLayer, design: Design, catalogue: Catalogue) -> Design:
    stack, gone = _layer(design, command.module, command.layer)
    left = tuple(layer for layer in stack if layer is not gone)
    if not any(is_plate(layer) for layer in left):
        raise NotPossible("A module has a plate: its last layer cannot be removed", "layer")
    return _with_stack(design, command.module, left)


@carry_out.register
def handle_edit_layer(command: EditLayer, design: Design, catalogue: Catalogue) -> Design:
    stack, layer = _layer(design, command.module, command.layer)
    changed = edited(layer, changes_in(command, "layer", "module", nullable=NULLABLE))
    return _with_stack(design, command.module, replaced(stack, changed))


def _with_layer(design: Design, module: str, layer: Layer) -> Design:
    """The design with a layer of a module changed, which keeps the panel's usual layers if it had them."""
    own = find_module(design, module).stack is not None
    stack = design.stack_of(find_module(design, module))
    return _with_stack(design, module if own else None, replaced(stack, layer))


@carry_out.register
def handle_add_feature(command: AddFeature, design: Design, catalogue: Catalogue) -> Design:
    _, layer = _layer(design, command.module, command.layer)
    ident = new_ident(command.id, (f.id for f in layer.features), "x")
    said = command.model_dump(include=set(Feature.model_fields))
    features = (*layer.features, {**said, "id": ident})
    return _with_layer(design, command.module, edited(layer, {"features": features}))


@carry_out.register
def handle_remove_feature(command: RemoveFeature, design: Design, catalogue: Catalogue) -> Design:
    _, layer = _layer(design, command.module, command.layer)
    left = without(layer.features, command.feature, "exception", "feature")
    return _with_layer(design, command.module, edited(layer, {"features": left}))


def with_known_features(design: Design) -> Design:
    """The design without the exceptions of modules and functions that are gone."""
    modules, functions = {m.id for m in design.modules}, {None, *(f.id for f in design.functions)}

    def known(stack: tuple[Layer, ...]) -> tuple[Layer, ...]:
        left = [tuple(f for f in x.features if f.module in modules and f.without in functions) for x in stack]
        kept = (
            x if len(f) == len(x.features) else edited(x, {"features": f}) for x, f in zip(stack, left, strict=True)
        )
        return tuple(kept)

    own = tuple(m if m.stack is None else edited(m, {"stack": known(m.stack)}) for m in design.modules)
    return with_changes(design, stack=known(design.stack), modules=own)
