"""Commands: every one carried out or refused at its place, and any number of them undone to the same bytes."""

import tempfile
from pathlib import Path
from typing import Any, get_args

import jsonpatch
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from building import every_command, plate
from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import COMMANDS, Command
from wingboard.core.changes.commands.functions import AddFunction, RemoveFunction
from wingboard.core.changes.commands.legends import EditLegend
from wingboard.core.changes.commands.modules import EditModule
from wingboard.core.changes.commands.parts import ChoosePart
from wingboard.core.changes.commands.places import MoveItems, PlacePart, RemoveItems, TurnItems
from wingboard.core.changes.commands.wire import AddController, PinLine
from wingboard.core.changes.handlers.steps import carry_out
from wingboard.core.changes.wording import phrase_of
from wingboard.core.geometry.outline import area_of
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.design import Design
from wingboard.core.record.errors import DesignError, NotPossible, UnknownThing
from wingboard.core.record.legends import Legend
from wingboard.core.record.outlines import RectOutline
from wingboard.core.record.patches import patch_between, patched
from wingboard.services.desk import Desk
from wingboard.store.database import Database

BASE = plate(("toggle-large-on-off", 40, 40), ("button-22", 100, 60))
EVERY = every_command()


def test_every_command_is_in_the_list_here_and_has_a_verb() -> None:
    kinds = set(get_args(get_args(Command)[0]))
    assert {type(command) for command in EVERY} == kinds
    assert kinds <= set(carry_out.registry)
    assert all(phrase_of(command, BASE) for command in EVERY)


def test_every_command_can_be_carried_out_in_turn_and_its_patch_gives_the_same_design() -> None:
    design = BASE
    for command in EVERY:
        after = apply(design, (command,), catalogue())
        assert patched(design, patch_between(design, after)) == after
        assert Design.model_validate_json(after.model_dump_json()) == after
        design = after


REFUSALS: list[tuple[dict[str, Any], type[DesignError], str]] = [
    ({"do": "move", "functions": ["nobody"], "dx": 1}, UnknownThing, "commands[0].functions"),
    ({"do": "move", "functions": ["f1"], "dx": 5000}, NotPossible, "commands[0].dx"),
    ({"do": "choose_part", "function": "f1", "part": "no-such"}, UnknownThing, "commands[0].part"),
    ({"do": "place", "function": "f1", "module": "no-such", "x": 1, "y": 1}, UnknownThing, "commands[0].module"),
    ({"do": "add_function", "id": "f1", "name": "Again"}, NotPossible, "commands[0].id"),
    ({"do": "pin", "line": "f1.on", "controller": "atmega328p-9", "pin": "2"}, UnknownThing, "commands[0].controller"),
    ({"do": "edit_layer", "layer": "no-such", "thickness": 2}, UnknownThing, "commands[0].layer"),
    ({"do": "retract", "finding": "never accepted"}, UnknownThing, "commands[0].finding"),
    ({"do": "set_limit", "limit": "bridge-least", "value": 1}, NotPossible, "commands[0].reason"),
    ({"do": "remove_keepout", "keepout": "bar"}, UnknownThing, "commands[0].keepout"),
    ({"do": "unpin", "lines": ["f1.on"]}, UnknownThing, "commands[0].lines"),
    ({"do": "set_split", "piece": "plate/face", "at": [60, 70]}, NotPossible, "commands[0].at"),
    ({"do": "edit_patch", "patch": "patch-9", "x": 1}, UnknownThing, "commands[0].patch"),
]


@pytest.mark.parametrize(("raw", "kind", "path"), REFUSALS, ids=[r[0]["do"] for r in REFUSALS])
def test_a_refusal_names_its_place(raw: dict[str, Any], kind: type[DesignError], path: str) -> None:
    with pytest.raises(kind) as refused:
        apply(BASE, (COMMANDS.validate_python(raw),), catalogue())
    assert refused.value.path == path


def test_a_batch_is_carried_out_whole_or_not_at_all() -> None:
    good = MoveItems(functions=("f1",), dx=5)
    with pytest.raises(UnknownThing) as refused:
        apply(BASE, (good, RemoveFunction(function="nobody")), catalogue())
    assert refused.value.path == "commands[1].function"
    assert BASE.functions[0].place is not None
    assert BASE.functions[0].place.x == 40


def test_placing_takes_the_name_as_legend_once_and_another_part_gives_its_pins_back() -> None:
    assert BASE.functions[0].legend == Legend(text="F1")
    pinned = apply(
        BASE,
        (AddController(board="atmega328p"), PinLine(line="f1.on", controller="atmega328p-1", pin="4")),
        catalogue(),
    )
    assert [p.line for p in pinned.pins] == ["f1.on"]
    assert apply(pinned, (ChoosePart(function="f1", part="button-16"),), catalogue()).pins == ()


ids = st.sampled_from(["f1", "f2", "f3", "f4"])
lengths = st.floats(min_value=-300, max_value=300).map(lambda v: round(v, 2))
any_command = st.one_of(
    st.builds(lambda f, x, y: MoveItems(functions=(f,), dx=x, dy=y), ids, lengths, lengths),
    st.builds(lambda f, by: TurnItems(functions=(f,), by=by), ids, st.floats(-360, 360)),
    st.builds(lambda f: RemoveItems(functions=(f,)), ids),
    st.builds(lambda f: RemoveFunction(function=f), ids),
    st.builds(lambda n: AddFunction(name=n), st.sampled_from(["Gong", "Horn"])),
    st.builds(lambda f, p: ChoosePart(function=f, part=p), ids, st.sampled_from([None, "rotary-12", "led-3-bare"])),
    st.builds(lambda f, x, y: PlacePart(function=f, module="plate", x=x, y=y), ids, lengths, lengths),
    st.builds(lambda f, t: EditLegend(function=f, text=t), ids, st.text("ABC ä", max_size=5)),
    st.builds(lambda w: EditModule(module="plate", outline=RectOutline(width=w, height=90)), st.floats(20, 400)),
    st.builds(lambda b: AddController(board=b), st.sampled_from(["atmega328p", "atmega2560"])),
)


@settings(max_examples=25)
@given(st.lists(any_command, max_size=14))
def test_any_commands_and_as_many_undos_give_the_same_bytes(batch: list[Command]) -> None:
    with tempfile.TemporaryDirectory() as folder:
        desk = Desk(Database(Path(folder) / "w.db"))
        state = desk.add(BASE, "Start")
        start, ident, states = state.design.model_dump_json(), state.design_id, [state]
        for command in batch:
            try:
                after = desk.command(ident, states[-1].row.number, (command,)).state
            except DesignError:
                continue
            states += [after] if after.row.number > states[-1].row.number else []  # what changes nothing is not kept
        newest = states[-1]
        head = newest.row.number
        for _ in states[1:]:
            head = desk.undo(ident, head).state.row.number
        fresh = Desk(desk.database).open(ident)  # rebuilt from patches, not from memory
        assert fresh.design.model_dump_json() == start
        assert not fresh.row.undo_to
        for _ in states[1:]:
            head = desk.redo(ident, head).state.row.number
        assert Desk(desk.database).open(ident).design == newest.design


def test_patches_are_rfc_6902_and_skip_what_did_not_change() -> None:
    after = apply(BASE, (MoveItems(functions=("f2",), dx=1),), catalogue())
    operations = patch_between(BASE, after)
    assert operations == [{"op": "replace", "path": "/functions/1/place/x", "value": 101.0}]
    assert jsonpatch.apply_patch(BASE.model_dump(mode="json"), operations) == after.model_dump(mode="json")


def test_what_is_not_said_of_lamps_and_of_an_opening_takes_its_usual_place() -> None:
    lamps = tuple(COMMANDS.validate_python({"do": do, "module": "plate"}) for do in ("add_strip", "add_leds"))
    lit = apply(BASE, lamps, catalogue())
    light = lit.modules[0].light
    assert light is not None
    x0, y0, x1, y1 = area_of(lit.modules[0].outline.loop()).bounds
    (strip,), (led,) = light.strips, light.leds
    assert x0 < strip.x < led.x < strip.x2 < x1
    assert y0 < strip.y == strip.y2 == led.y < y1

    other, before = BASE, area_of(BASE.brief.opening.loop()).bounds
    for shape in ("arch", "rect", "arch"):  # whatever its shape, it is over its sides as wide and as high as it was
        other = apply(other, (COMMANDS.validate_python({"do": "resize_opening", "shape": shape}),), catalogue())
        assert other.brief.opening.kind == shape
        assert area_of(other.brief.opening.loop()).bounds == pytest.approx(before)
