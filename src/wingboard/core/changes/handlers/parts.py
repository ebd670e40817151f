"""Choosing parts, and the builder's own measured ones."""

from __future__ import annotations

from collections.abc import Sequence

from wingboard.core.changes.commands.parts import (
    AdoptPart,
    ChoosePart,
    CombineParts,
    CopyPart,
    EditPart,
    MeasurePart,
    RemovePart,
)
from wingboard.core.changes.handlers.steps import (
    Catalogue,
    carry_out,
    changes_in,
    find_function,
    new_ident,
    with_changes,
    with_functions,
    without_pins,
)
from wingboard.core.changes.measuring import combined_part, measured_part, unmeasured, with_bezel, with_cutout
from wingboard.core.record.design import Design
from wingboard.core.record.errors import NotPossible, UnknownThing
from wingboard.core.record.lamps import with_lamps
from wingboard.core.record.part import Part, PartTag

LAMP = ("lamp", "lamp_volts", "lamp_amps")
OF_THE_OLD_PART = {"pocket": 0.0, "digits": None}
"""What belonged to the part that a function had, and goes with it."""


@carry_out.register
def handle_choose_part(command: ChoosePart, design: Design, catalogue: Catalogue) -> Design:
    function = find_function(design, command.function)
    if command.part == function.part:
        return design
    design = without_pins(design, {function.id})
    if command.part is None:
        return with_functions(design, {function.id: function.model_copy(update={"part": None, "place": None})})
    design = with_part(design, command.part, catalogue)
    return with_functions(design, {function.id: function.model_copy(update={"part": command.part, **OF_THE_OLD_PART})})


def with_part(design: Design, ident: str, catalogue: Catalogue) -> Design:
    if any(p.id == ident for p in design.parts):
        return design
    if ident not in catalogue:
        raise UnknownThing(f"There is no part “{ident}” in the catalogue or in this design", "part")
    return with_changes(design, parts=(*design.parts, catalogue[ident]))


def _any_part(design: Design, ident: str, catalogue: Catalogue, path: str = "part") -> Part:
    found = next((p for p in design.parts if p.id == ident), None) or catalogue.get(ident)
    if found is None:
        raise UnknownThing(f"There is no part “{ident}” in the catalogue or in this design", path)
    return found


def _own_part(design: Design, ident: str, catalogue: Catalogue) -> Part:
    found = _any_part(design, ident, catalogue)
    if found.base is None and not found.members:
        raise NotPossible(f"“{found.name}” is a part of the catalogue; copy it first, then measure the copy", "part")
    return found


def _new_part_ident(design: Design, asked: str | None, catalogue: Catalogue) -> str:
    return new_ident(asked, (*catalogue, *(p.id for p in design.parts)), "my-part-")


def _replaced(design: Design, part: Part) -> Design:
    return with_changes(design, parts=tuple(part if p.id == part.id else p for p in design.parts))


@carry_out.register
def handle_adopt_part(command: AdoptPart, design: Design, catalogue: Catalogue) -> Design:
    if any(p.id == command.part.id for p in design.parts):
        raise NotPossible(f"“{command.part.id}” is taken already", "part.id")
    return with_changes(design, parts=(*design.parts, command.part))


@carry_out.register
def handle_copy_part(command: CopyPart, design: Design, catalogue: Catalogue) -> Design:
    base = _any_part(design, command.part, catalogue)
    ident = _new_part_ident(design, command.id, catalogue)
    changes = {"id": ident, "name": command.name, "base": base.base or base.id}
    return with_changes(design, parts=(*design.parts, base.model_copy(update=changes)))


@carry_out.register
def handle_combine_parts(command: CombineParts, design: Design, catalogue: Catalogue) -> Design:
    parts = [_any_part(design, ident, catalogue, "parts") for ident in command.parts]
    if any(p.mount == "window" for p in parts):
        raise NotPossible("A module behind a window shares its hole with nothing", "parts")
    made = combined_part(parts, _new_part_ident(design, command.id, catalogue), command.name)
    return with_changes(design, parts=(*design.parts, made))


@carry_out.register
def handle_measure_part(command: MeasurePart, design: Design, catalogue: Catalogue) -> Design:
    part = _own_part(design, command.part, catalogue)
    if len({r.of for r in command.readings}) < len(command.readings):
        raise NotPossible("A dimension is given twice", "readings")
    start = _any_part(design, part.base, catalogue) if part.base else part
    return _replaced(design, measured_part(unmeasured(part, start), command.readings))


@carry_out.register
def handle_edit_part(command: EditPart, design: Design, catalogue: Catalogue) -> Design:
    part = _own_part(design, command.part, catalogue)
    changes = changes_in(command, "do", "part", "key_angle", "cutout", "bezel", *LAMP)
    if command.key_angle is not None:
        if part.key is None:
            raise NotPossible(f"“{part.name}” has no key to turn", "key_angle")
        changes["key"] = part.key.model_copy(update={"angle": command.key_angle})
    if command.tags is not None:
        _check_tags(part, command.tags)
    changed = part.model_copy(update=changes)
    if any(getattr(command, name) is not None for name in LAMP):
        if not any(line.does == "lamp" for line in part.lines):
            raise NotPossible(f"“{part.name}” has no lamp", "lamp")
        changed = with_lamps(changed, command.lamp, command.lamp_volts, command.lamp_amps)
    changed = with_cutout(changed, command.cutout) if command.cutout is not None else changed
    return _replaced(design, with_bezel(changed, command.bezel) if command.bezel is not None else changed)


def _check_tags(part: Part, tags: Sequence[PartTag]) -> None:
    known, said = part.marked, [tag.terminal for tag in tags]
    unknown = next((name for name in said if name not in known), None)
    if unknown is not None:
        raise NotPossible(f"“{part.name}” has no terminal {unknown}", "tags")
    if len(set(said)) < len(said):
        raise NotPossible("A terminal lies in two places", "tags")


@carry_out.register
def handle_remove_part(command: RemovePart, design: Design, catalogue: Catalogue) -> Design:
    part = _own_part(design, command.part, catalogue)
    users = [f.name for f in design.functions if f.part == part.id]
    if users:
        raise NotPossible(f"“{part.name}” is used by {users[0]}; choose another part there first", "part")
    return with_changes(design, parts=tuple(p for p in design.parts if p.id != part.id))
