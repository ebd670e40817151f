"""Layers: schools, a stack of its own for a module, edges of their own, named exceptions; and what follows."""

from __future__ import annotations

from itertools import product
from typing import Any, get_args

import pytest
import shapely

from building import found, made_files, plate
from wingboard.core.changes.apply import apply
from wingboard.core.changes.commands.functions import RemoveFunction
from wingboard.core.changes.commands.layers import AddFeature, EditLayer, RemoveFeature, SetSchool
from wingboard.core.changes.commands.modules import AddModule, RemoveModule, ResizeModule
from wingboard.core.changes.schools import SCHOOLS
from wingboard.core.cut.scenes import module_scenes
from wingboard.core.geometry.outline import area_of, moved
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.design import Design
from wingboard.core.record.document import read_design, write_design
from wingboard.core.record.errors import NotPossible, UnknownThing
from wingboard.core.record.modules import School
from wingboard.core.record.outlines import ArchOutline, RectOutline
from wingboard.core.record.shapes import Circle
from wingboard.core.resolved.design import Resolved

SECOND = AddModule(id="second", name="Second", outline=RectOutline(width=60, height=60), x=0, y=0)
VIEW = AddFeature(module="plate", layer="face", reason="view hole", shape=Circle(diameter=4), x=150, y=60)


def after(design: Design, *commands: Any) -> Design:
    return apply(design, commands, catalogue())


def names(design: Design, module: str = "plate") -> list[tuple[str, float]]:
    stack = design.stack_of(next(m for m in design.modules if m.id == module))
    return [(layer.id, layer.thickness) for layer in stack]


@pytest.mark.parametrize(("school", "own"), list(product(get_args(School), (False, True))))
def test_every_school_makes_layers_that_all_stations_can_use(school: School, own: bool) -> None:
    start = plate(("toggle-large-on-off", 50, 60), ("button-22", 120, 60), ("readout-4-digits", 60, 100))
    design = after(start, SetSchool(module="plate" if own else None, school=school))
    assert names(design) == [(layer.id, layer.thickness) for layer in SCHOOLS[school]]
    assert (design.stack == start.stack) is (own or school == "three-layer")
    r = Resolved(design)
    files = made_files(r, ())
    for layer in SCHOOLS[school]:
        assert f"cut/plate/{layer.id}.dxf" in files
        assert {c.owner for c in r.modules["plate"].cutouts(layer.id)} >= {"f1", "f2", "f3"}
    assert read_design(write_design(design), catalogue()) == design


def test_a_school_keeps_layers_of_the_same_kind_and_the_panels_come_back() -> None:
    thick = after(plate(), EditLayer(layer="back", thickness=4), SetSchool(school="two-layer"))
    assert names(thick) == [("face", 2), ("back", 4)]
    assert names(after(thick, SetSchool(school="metal"))) == [("face", 2)]  # of another material: made anew
    own = after(thick, SECOND, SetSchool(module="second", school="acrylic"))
    assert (names(own), names(own, "second")) == ([("face", 2), ("back", 4)], [("face", 3)])
    assert names(after(own, SetSchool(module="second", school=None)), "second") == [("face", 2), ("back", 4)]
    with pytest.raises(NotPossible):
        after(own, SetSchool(school=None))


def test_parts_are_judged_in_the_layers_of_their_own_module() -> None:
    # The thread of a small toggle is 8.8 mm long; washer, nut and one turn of it take 3.235 (by hand).
    start = plate(("toggle-small-on-off", 60, 60), commands=(SECOND,))
    thick = EditLayer(layer="back", thickness=6)
    assert found(after(start, thick), "parts.bush-short")[0].measured
    assert found(after(start, thick.model_copy(update={"module": "second"})), "parts.bush-short") == []
    mine = found(after(start, thick.model_copy(update={"module": "plate"})), "parts.bush-short")
    assert [(f.measured and f.measured.value, f.needed and round(f.needed.value, 6)) for f in mine] == [(8.8, 9.235)]
    # A finding about a layer of one module's own is told apart from that of the panel's.
    both = after(
        start, EditLayer(layer="face", material="pvc"), EditLayer(module="second", layer="back", material="pvc")
    )
    subjects = {f.subjects for f in found(both, "cut.unsafe-material")}
    assert subjects == {("face",), ("second", "face"), ("second", "back")}


@pytest.mark.parametrize(
    ("outline", "inset"),
    [
        (RectOutline(width=200, height=120, radius=6), 2.0),
        (RectOutline(width=200, height=120, radius=6), 9.0),
        (RectOutline(width=200, height=120), -3.0),
        (ArchOutline(width=200, height=120, rise=30), 5.0),
    ],
)
def test_a_layer_with_its_edge_inside_the_modules_is_cut_so_and_judged_so(outline: Any, inset: float) -> None:
    start = plate(("button-22", 100, 20), commands=(EditLayer(layer="back", inset=inset),))
    design = start.model_copy(update={"modules": (start.modules[0].model_copy(update={"outline": outline}),)})
    module = Resolved(design).modules["plate"]
    back = next(layer for layer in module.plates if layer.id == "back")
    # Against shapely's own offset of the flattened outline; corners stay sharp outside.
    wanted = area_of(outline.loop()).buffer(-inset, join_style="mitre")
    assert module.area_of(back).symmetric_difference(wanted).area < 2e-4 * wanted.area
    assert module.area_of(module.plates[0]).equals(module.area)
    scene = module_scenes(Resolved(design), module)["back"]
    (item,) = scene.of("outline")
    out = max(0.0, -inset)  # a plate that reaches beyond the module has its own corner for origin
    assert item.path == moved(module.loop_of(back), out, out)
    assert (scene.width, scene.height) == pytest.approx((module.size[0] + 2 * out, module.size[1] + 2 * out))
    (hole,) = [i.circle for i in scene.of("inner") if i.label.startswith("F1")]
    assert hole
    assert (hole.x, hole.y) == pytest.approx((100 + out, 20 + out))
    edge = 20 - 22.3 / 2 - inset  # from the hole's rim to the back's lower edge, by hand
    near = [*found(design, "face.bridge-thin"), *found(design, "face.off-module")]
    margins = [f.measured.value for f in near if f.measured and f.subjects == ("f1",)]
    assert margins == ([pytest.approx(edge, abs=0.01)] if edge < 3 else [])


def test_an_inset_that_leaves_nothing_is_refused_where_it_was_asked() -> None:
    inset = after(plate(), EditLayer(layer="back", inset=20))
    for command in (EditLayer(layer="back", inset=60), ResizeModule(module="plate", height=39)):
        with pytest.raises(NotPossible, match="nothing is left of Back"):
            after(inset, command)


def test_a_layer_of_its_own_outline_is_that_outline_until_it_is_taken_back() -> None:
    round_back = EditLayer(layer="back", outline=RectOutline(width=100, height=80, radius=5), x=50, y=20)
    design = after(plate(("button-22", 60, 30)), round_back)
    module = Resolved(design).modules["plate"]
    assert module.area_of(module.plates[-1]).bounds == (50, 20, 150, 100)
    assert found(design, "face.off-module")[0].measured
    again = after(design, EditLayer(layer="back", outline=None))
    module = Resolved(again).modules["plate"]
    assert module.area_of(module.plates[-1]).equals(module.area)


def test_an_exception_adds_an_opening_or_leaves_one_out_and_says_why() -> None:
    start = plate(("button-22", 100, 60), commands=(SECOND,))
    design = after(start, VIEW, AddFeature(module="plate", layer="back", reason="blind", without="f1"))
    module = Resolved(design).modules["plate"]
    added = [c for c in module.cutouts("face") if c.purpose == "feature"]
    assert [(c.owner, c.x, c.y) for c in added] == [("view hole", 150, 60)]
    assert [c.owner for c in module.cutouts("back") if c.owner == "f1"] == []
    assert design.modules[0].stack is None  # the layers are still the panel's
    # The web from the new hole to the button, by shapely on the whole drawing.
    near = after(design, VIEW.model_copy(update={"x": 114.0, "reason": "another"}))
    (thin,) = found(near, "face.bridge-thin")
    gap = shapely.Point(100, 60).buffer(11.15, 256).distance(shapely.Point(114, 60).buffer(2, 256))
    assert thin.measured
    assert thin.measured.value == pytest.approx(gap, abs=0.01)
    assert "another" in thin.detail
    edge = after(design, VIEW.model_copy(update={"x": 2.5, "reason": "at the edge"}))
    assert [f.detail for f in found(edge, "face.bridge-thin")] == ["at the edge to the edge, face layer"]


def test_exceptions_go_with_what_they_are_of() -> None:
    start = after(plate(("button-22", 100, 60)), SECOND, VIEW)
    start = after(start, AddFeature(module="second", layer="back", reason="blind", without="f1"))
    gone = after(start, RemoveFunction(function="f1"), RemoveModule(module="plate"))
    assert [layer.features for layer in gone.stack] == [(), (), ()]
    assert after(start, RemoveFeature(module="plate", layer="face", feature="x1")).stack[0].features == ()
    for wrong in (
        RemoveFeature(module="plate", layer="face", feature="x9"),
        VIEW.model_copy(update={"layer": "none"}),
        VIEW.model_copy(update={"module": "none"}),
    ):
        with pytest.raises(UnknownThing):
            after(start, wrong)
    for wrong in (VIEW.model_copy(update={"shape": None}), VIEW.model_copy(update={"without": "f1"})):
        with pytest.raises(NotPossible):
            after(start, wrong)
