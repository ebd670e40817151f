"""Whether it holds: necks, bending, bolts, sections, boards behind; against tables, handbooks and shapely."""

from __future__ import annotations

from itertools import combinations, groupby, pairwise
from typing import Any

import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st
from pydantic import ValidationError
from shapely import LineString, Point, box
from shapely.geometry.base import BaseGeometry

from building import found, offered, plate
from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import BATCH
from wingboard.core.cut.export import cut_file, cut_file_names, cut_files
from wingboard.core.cut.scenes import module_scenes
from wingboard.core.cut.sections import section_scene
from wingboard.core.face.rules import bridge_needed
from wingboard.core.files.scene import CirclePath
from wingboard.core.geometry.outline import area_of
from wingboard.core.overview.review import review
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.design import Design
from wingboard.core.record.materials import materials
from wingboard.core.record.modules import Layer
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.screws import SCREW_HOLE
from wingboard.core.stack.across import section_of
from wingboard.core.stack.assembly import assembly
from wingboard.core.stack.bending import bends, deflection, rigidity
from wingboard.core.stack.boards import behind, free_spots, meetings, of_controller
from wingboard.core.stack.bridges import every_thin_bridge, shown_bridges, solid
from wingboard.core.stack.case import case_of, in_place, outline_of, vent_area
from wingboard.core.stack.console import frame_list, frame_of
from wingboard.core.stack.hardware import BOLTS, PITCH, WASHER, hardware, sold
from wingboard.core.stack.holds import held
from wingboard.core.stack.necks import necks
from wingboard.core.stack.screws import proposed_screws, usual_span

Raw = dict[str, Any]
TOGGLE, STOP = "toggle-large-on-off", "emergency-stop-22"


def made(start: Design, *commands: Raw) -> Design:
    return apply(start, BATCH.validate_python(commands), catalogue()) if commands else start


def slot(layer: str, x: float, y: float, width: float, height: float) -> Raw:
    shape = {"kind": "rect", "width": width, "height": height, "radius": 0}
    return {"do": "add_feature", "module": "plate", "layer": layer, "reason": "slot", "x": x, "y": y, "shape": shape}


# ---- Necks ----------------------------------------------------------------------------------------------------------


def necked(width: float) -> Design:
    """A hardboard back of 3 mm, 200 × 120, cut across its middle but for a neck so wide; two screws at either side."""
    low, high = (120 - width) / 2, (120 + width) / 2
    return made(
        plate(),
        {"do": "edit_layer", "layer": "back", "material": "hardboard"},
        slot("back", 100, low / 2 - 1, 2, low + 2),
        slot("back", 100, (high + 121) / 2 + 0.5, 2, 121 + 1 - high),
    )


def test_a_neck_of_a_millimetre_and_a_half_in_hardboard_breaks_and_both_pieces_are_counted() -> None:
    (finding,) = found(necked(1.5), "stack.breaks-off")
    assert finding.severity == "must"  # 1.5 × 3 mm are needed (common practice): less than half is there
    assert finding.measured
    assert finding.needed
    assert [finding.measured.value, finding.needed.value] == pytest.approx([1.5, 4.5])
    assert "with 2 and 2 screws" in finding.detail
    assert finding.spot
    assert [finding.spot.x, finding.spot.y] == pytest.approx([100, 60], abs=1.1)
    assert found(necked(4.52), "stack.breaks-off") == []
    (wide,) = found(necked(4.48), "stack.breaks-off")
    assert wide.severity == "must"  # wide enough to be judged, but the pieces have two screws each
    three = [{"do": "add_screw", "module": "plate", "x": x, "y": 60} for x in (30, 170)]
    (held_well,) = found(made(necked(4.48), *three), "stack.breaks-off")
    assert held_well.severity == "judge"
    assert "with 3 and 3 screws" in held_well.detail


def test_a_slot_breaks_a_board_at_both_of_its_ends() -> None:
    board = made(
        plate(),
        {"do": "edit_layer", "layer": "back", "material": "hardboard"},
        slot("back", 100, (1.5 + 120 - 1.8) / 2, 2, 120 - 1.5 - 1.8),
    )
    r = Resolved(board)
    layer = next(layer for layer in r.modules["plate"].stack if layer.id == "back")
    assert sorted(round(b.gap, 2) for b in every_thin_bridge(r, r.modules["plate"], layer)) == [1.5, 1.8]
    (finding,) = found(board, "stack.breaks-off")
    assert finding.measured
    assert finding.measured.value == pytest.approx(1.8)  # the wider one gives last
    assert "with 2 and 2 screws" in finding.detail


CUTS = st.lists(
    st.tuples(st.floats(20, 180), st.floats(15, 105), st.floats(2, 90), st.floats(2, 110)), min_size=1, max_size=4
)


@settings(max_examples=40, deadline=None)
@given(CUTS)
def test_a_board_that_comes_apart_when_it_is_thinned_has_necks(cuts: list[tuple[float, float, float, float]]) -> None:
    """Against another way to see it: all that is narrower than a bridge taken off the board at once, by erosion."""
    features = [slot("back", *(round(v, 2) for v in cut)) for cut in cuts]
    board = made(plate(), {"do": "edit_layer", "layer": "back", "material": "hardboard"}, *features)
    r = Resolved(board)
    module = r.modules["plate"]
    layer = next(layer for layer in module.stack if layer.id == "back")
    need = bridge_needed(board, layer).value
    whole = solid(r, module, layer)
    thick = whole.buffer(-need / 2 * 0.98, quad_segs=16).buffer(need / 2 * 0.98, quad_segs=16)

    def pieces(geometry: BaseGeometry) -> int:
        return sum(g.area > 60 for g in getattr(geometry, "geoms", (geometry,)))

    # What is whole and stays whole when thinned, breaks nowhere into pieces that count.
    if pieces(thick) > pieces(whole):
        assert every_thin_bridge(r, module, layer)
    if not every_thin_bridge(r, module, layer):
        assert necks(r, module, layer) == ()
        assert pieces(thick) <= pieces(whole)


def test_nut_bores_that_touch_are_found_in_the_diffuser_only() -> None:
    # Nut bores of 17 mm, toggles 17.5 mm apart: half a millimetre is left in the diffuser, 5.5 in the other sheets.
    codes = {f.code: f for f in review(Resolved(plate((TOGGLE, 60, 60), (TOGGLE, 77.5, 60)))) if "bridge" in f.code}
    assert "diffuser layer" in codes["face.bridge-thin"].detail
    r = Resolved(plate((TOGGLE, 60, 60), (TOGGLE, 77.5, 60)))
    least = {h.layer.id: h.least.gap for h in held(r, r.modules["plate"]) if h.least}
    assert least["diffuser"] == pytest.approx(0.5)
    assert min(least["face"], least["back"]) > 3


def test_bridges_are_the_shortest_lines_through_material() -> None:
    r = Resolved(plate((TOGGLE, 40, 60), ("button-22", 90, 80), ("readout-4-digits", 140, 40)))
    module = r.modules["plate"]
    for layer in module.stack:
        whole = solid(r, module, layer)
        for bridge in shown_bridges(r, module, layer):
            line = LineString([bridge.start, bridge.end])
            assert line.length == pytest.approx(bridge.gap, abs=1e-6)
            assert line.length - line.intersection(whole).length < 0.02


# ---- Bending --------------------------------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("ratio", "alpha"), [(1.0, 0.01160), (1.2, 0.01353), (1.4, 0.01484), (1.6, 0.01570), (1.8, 0.01620), (2.0, 0.01651)]
)
def test_a_plate_gives_as_the_handbook_says(ratio: float, alpha: float) -> None:
    # Timoshenko and Woinowsky-Krieger, table 23: w = α F a² / D, simply supported, the load in the middle (memory).
    assert deflection(150, 150 * ratio, 75, 75 * ratio, 2e5, 50) == pytest.approx(alpha * 50 * 150**2 / 2e5, rel=0.003)
    # The check, about its limit: what gives by so much is found when less is allowed, not when more is.
    design = made(plate((STOP, 100, 60)), {"do": "set_school", "school": "acrylic"})
    r = Resolved(design)
    sag = bends(r, r.modules["plate"])[0].sag
    for most, findings in ((sag - 0.02, 1), (sag + 0.02, 0)):
        command = {"do": "set_limit", "limit": "bend-most", "value": most, "reason": "here"}
        assert len(found(made(design, command), "stack.bends")) == findings
    (finding,) = found(
        made(design, {"do": "set_limit", "limit": "bend-most", "value": sag / 2, "reason": "x"}), "stack.bends"
    )
    fix = offered(made(design, {"do": "set_limit", "limit": "bend-most", "value": sag / 2, "reason": "x"}), finding)
    assert fix is None or "mm thick" in fix.label


def sheet(thickness: float, **changes: Any) -> Layer:
    return Layer(id="a", name="A", role="back", thickness=thickness, **changes)


def test_bolted_sheets_add_up_and_glued_ones_are_one() -> None:
    known = materials()["acrylic"].stiff
    three = known.e * 1000 * 3**3 / 12 / (1 - known.nu**2)
    assert rigidity([sheet(3)]) == pytest.approx(three)
    assert rigidity([sheet(3), sheet(3)]) == pytest.approx(2 * three)
    assert rigidity([sheet(3), sheet(3, join="glue")]) == pytest.approx(8 * three)  # (2t)³ = 8 t³


# ---- Bolts and boards -----------------------------------------------------------------------------------------------


def test_bolts_are_as_long_as_the_sum_and_sold_so() -> None:
    # Layers 2 + 3 + 3, washer 0.5 (ISO 7089), nut 0.8 × 3, two threads of 0.5 (ISO 261): 11.9, next sold 12 (ISO 888).
    r = Resolved(plate())
    (bolt,) = hardware(r.modules["plate"]).bolts
    assert [bolt.needed, bolt.length, bolt.many] == pytest.approx([11.9, 12, 4])
    # Holes: ISO 273, medium series.
    assert SCREW_HOLE == {"M2": 2.4, "M2.5": 2.9, "M3": 3.4, "M4": 4.5, "M5": 5.5, "M6": 6.6}
    assert [sold(n, BOLTS) for n in (11.9, 12.0, 12.1, 79, 81)] == [12, 12, 16, 80, None]
    assert set(PITCH) == set(WASHER) == set(SCREW_HOLE)
    boarded = Resolved(made(plate(), {"do": "add_layer", "role": "board"}))
    made_of = hardware(boarded.modules["plate"])
    assert [b.needed for b in made_of.bolts] == pytest.approx([11.5, 6.5])
    assert [b.length for b in made_of.bolts] == [12, 8]
    assert [(s.needed, s.length, s.many) for s in made_of.standoffs] == [(15, 15, 4)]


def test_a_board_behind_has_its_holes_in_the_back_and_finds_room() -> None:
    start = plate((TOGGLE, 40, 60), (STOP, 160, 90), commands=())
    width, height, holes = of_controller("atmega328p", ())
    r = Resolved(start)
    board = {
        "do": "mount_board", "module": "plate", "name": "Controller", "width": width, "height": height,
        "holes": [{"id": f"h{n}", "x": x, "y": y} for n, (x, y) in enumerate(holes)],
    }  # fmt: skip
    wrong = made(start, {**board, "x": 60, "y": 60})
    (finding,) = found(wrong, "stack.board-meets")
    assert finding.measured
    assert finding.measured.value < 0
    fix = offered(wrong, finding)
    assert fix is not None
    settled = apply(wrong, fix.commands, catalogue())
    assert found(settled, "stack.board-meets") == []
    r = Resolved(settled)
    module = r.modules["plate"]
    back = [c for c in module.cutouts("back") if c.purpose == "derived"]
    assert len(back) == len(holes)
    assert module.cutouts("face")[0].purpose == "hole"
    assert not [c for c in module.cutouts("face") if c.purpose == "derived"]
    mounted = module.module.mounted[0]
    for x, y, turn in free_spots(r, module, mounted):
        wide, high = (width, height) if turn == 0 else (height, width)
        around = box(x - wide / 2, y - high / 2, x + wide / 2, y + high / 2)
        for placed in module.placed:
            for piece in placed.behind:
                assert around.distance(placed.frame.shape(piece.outline()).drawn()) >= 3 - 0.05
    assert meetings(r, module, behind(r, module)[0]) == []


# ---- The section ----------------------------------------------------------------------------------------------------


def test_a_section_is_what_shapely_cuts() -> None:
    design = made(plate((TOGGLE, 60, 60), ("button-22", 140, 60), depth=90), {"do": "add_layer", "role": "board"})
    r = Resolved(design)
    module = r.modules["plate"]
    start, end = (10.0, 55.0), (190.0, 65.0)
    line = LineString([start, end])
    made_of = section_of(r, module, start, end)
    for layer in module.stack:
        mine = [p for p in made_of.pieces if p.kind == "sheet" and p.name == layer.name]
        assert sum(p.t1 - p.t0 for p in mine) == pytest.approx(
            line.intersection(solid(r, module, layer)).length, abs=0.05
        )
    body = max(p.z1 for p in made_of.pieces if p.kind in ("body", "plug"))
    assert made_of.deepest == pytest.approx(body)
    assert made_of.free == pytest.approx(90 - body)
    # A line through a corner's screw meets its shank over its diameter, and the standoff behind it.
    screw = module.fixings[0]
    across = section_of(r, module, (0, screw.y), (200, screw.y))
    shank = next(p for p in across.pieces if p.kind == "screw")
    assert shank.t1 - shank.t0 == pytest.approx(3)
    standoff = next(p for p in across.pieces if p.kind == "standoff")
    assert (standoff.z0, standoff.z1) == (8, 23)


def test_the_printed_section_names_each_part_with_its_depth() -> None:
    r = Resolved(plate((TOGGLE, 30, 60), (TOGGLE, 60, 60), (TOGGLE, 90, 60)))
    module = r.modules["plate"]
    scene = section_scene(r, module)
    words = [i for i in scene.items if i.label.endswith("its name and depth")]
    assert {i.label.split(",")[0] for i in words} == {p.function.name for p in module.placed}
    boxes = {label: box(*shapely.MultiPoint([(v.x, v.y) for i in group for v in i.path]).bounds)  # type: ignore[union-attr]
             for label, group in groupby(words, key=lambda i: i.label)}  # fmt: skip
    assert not any(a.intersects(b) for a, b in combinations(boxes.values(), 2))
    whole = box(0, 0, scene.width, scene.height).buffer(0.01)
    assert all(whole.contains(b) for b in boxes.values())
    below = next(i for i in scene.items if i.label == "deepest, dimension")
    assert below.path[0].y - below.path[1].y == pytest.approx(max(module.depth(p) for p in module.placed))  # type: ignore[union-attr]


def test_the_order_says_what_is_forgotten() -> None:
    design = made(
        plate((TOGGLE, 60, 60), ("readout-4-digits", 140, 60)),
        {"do": "add_layer", "role": "board"},
        {"do": "edit_layer", "layer": "back", "join": "glue"},
        {"do": "set_case", "module": "plate", "shelf": 15},
    )
    words = [f"{s.words} {s.mind}" for s in assembly(Resolved(design).modules["plate"])]
    order = [
        "Dry fit",
        "Glue back",
        "before the nut is tightened",
        "Tighten",
        "Put light board on",
        "Glue the case",
        "no light passes round it",
        "shelves in at 45°",
        "Tie each one down",
        "Close the hatch",
        "Peel the film",
    ]
    at = [next(n for n, text in enumerate(words) if what in text) for what in order]
    assert at == sorted(at)


def test_screws_are_proposed_where_nothing_is_in_their_way() -> None:
    start = plate((TOGGLE, 100, 20), ("button-22", 60, 100), ("readout-4-digits", 130, 70))
    r = Resolved(start)
    module = r.modules["plate"]
    made_of = proposed_screws(r, module, 80)
    assert made_of.spots
    assert usual_span(module) == 300  # 60 × 8 mm, and no more than 300
    metal = Resolved(made(start, {"do": "set_school", "school": "metal"}))
    assert usual_span(metal.modules["plate"]) == 200  # 100 × 2 mm
    before = {f.id for f in review(r)}
    screws = [{"do": "add_screw", "module": "plate", "x": x, "y": y} for x, y in made_of.spots]
    after = Resolved(made(start, *screws))
    assert {f.code for f in review(after) if f.id not in before} <= {"brief.stock-short"}
    rim = sorted(f.x for f in after.modules["plate"].fixings if f.y < 20)
    gaps = [b - a for a, b in pairwise(rim)]
    assert max(gaps) <= 80 + 20 or made_of.no_room
    assert proposed_screws(r, module, 400).spots == ()


def test_a_board_is_cut_bought_and_drawn_like_every_sheet() -> None:
    # Two bodies whose openings share a light board's: one path; a third over its edge: a notch of the outline.
    design = made(
        plate((TOGGLE, 60, 60), (TOGGLE, 80.5, 60), (TOGGLE, 150, 13)),
        {"do": "add_layer", "role": "board", "material": "plywood"},
        {"do": "add_stock", "material": "plywood", "thickness": 3, "width": 10, "height": 10},
    )
    r = Resolved(design)
    module = r.modules["plate"]
    scene = module_scenes(r, module)["board"]
    (outline,) = scene.of("outline")
    assert not isinstance(outline.path, CirclePath)
    drawn = area_of(outline.path).difference(
        shapely.unary_union([area_of(i.path) for i in scene.of("inner") if not isinstance(i.path, CirclePath)])
    )
    left = solid(r, module, module.stack[-1])
    assert drawn.symmetric_difference(left).area < 0.5
    assert len(scene.of("inner")) == 1 + 4  # the shared opening and the screws' holes
    assert {"board.svg", "board.dxf"} <= set(cut_file_names(r, module))
    assert "198.0 × 118.0 mm: 3 mm plywood" in found(design, "brief.sheet-too-small")[0].detail


def test_a_case_holds_the_plate_and_its_pieces_make_the_box() -> None:
    start = plate((TOGGLE, 60, 60), ("caption-two-lamp", 130, 60))
    design = made(start, {"do": "set_case", "module": "plate", "shelf": 15, "exits": [{"wall": "left", "along": 40}]})
    r = Resolved(design)
    module = r.modules["plate"]
    box_made = case_of(r, module)
    assert box_made is not None
    # The plate is 200 × 120 with 0.3 mm all round; a toggle reaches 45 mm deep, 25 for wires; walls of 6 mm.
    assert box_made.inside == pytest.approx((200.6, 120.6, 70.0))
    assert box_made.outside == pytest.approx((212.6, 132.6, 76.0))
    pieces = {p.id: p for p in box_made.pieces}
    volume = sum(p.width * p.height * 6 for p in box_made.pieces if p.at is not None)
    assert volume == pytest.approx(212.6 * 132.6 * 76 - 200.6 * 120.6 * 70)  # the shell: nothing overlaps or is missing
    assert pieces["case-lip-short"].height == 10
    left = pieces["case-left"]
    assert area_of(left.openings[0].path).bounds == pytest.approx((29, 34, 41, 46), abs=0.01)
    spread = [area_of(in_place(p, outline_of(p))) for p in box_made.pieces if p.at is not None]
    for one, other in combinations(spread, 2):
        assert one.intersection(other).area < 1e-6  # unfolded, they lie side by side
    for piece in box_made.pieces:
        for opening in piece.openings:
            assert area_of(outline_of(piece)).contains(area_of(opening.path))
    # Half a watt that rises 90 mm: 0.6 √(2 · 9.81 · 0.09 · 10 / 300) = 0.1456 m/s; 0.5 / 12060 m³/s: 285 mm².
    assert vent_area(0.5, 90) == pytest.approx(285, abs=1)
    scenes = module_scenes(r, module)
    assert scenes["case-back"].thickness == 6
    listed = cut_file(r, (), module, "case-cutting-list.csv")
    assert listed is not None
    assert listed.decode().splitlines()[1].startswith("Top wall,1,212.6,70.0,6,plywood")


def test_a_frame_under_an_arch_is_sawn_along_it() -> None:
    # A chord of 400 that rises 50 is cut from a circle of radius (200² + 50²) / 100 = 425.
    arch = {"kind": "arch", "width": 400, "height": 200, "rise": 50}
    design = made(plate(), {"do": "set_brief", "opening": arch}, {"do": "set_frame", "wide": 30, "ledge": 8})
    frame = frame_of(Resolved(design))
    assert frame is not None
    top, left = frame.battens[0], frame.battens[2]
    corner = 250 - 425 + (417**2 - 192**2) ** 0.5
    assert (top.y0, top.y1, left.y1) == pytest.approx((corner, 250 - 8 + 30, corner))
    assert frame.clear == pytest.approx((384, corner - 8))
    inner = area_of(design.brief.opening.loop()).buffer(-8, quad_segs=64)
    covered = shapely.unary_union([b.area() for b in frame.battens])
    assert covered.intersection(inner.buffer(-0.05)).area < 0.5
    assert inner.buffer(0.1).exterior.difference(covered).length < 2
    assert all(covered.buffer(-14.9).distance(Point(spot)) < 15 for b in frame.battens for spot in b.screws)
    circle = Point(200, 250 - 425).buffer(417 + 15, quad_segs=512).boundary
    assert sum(circle.distance(Point(spot)) < 0.1 for spot in top.screws) == len(top.screws) - 2
    assert "sawn along the arch" in frame_list(frame)[0][-1]
    assert not found(design, "stack.frame-carries")
    corners = [(0, 0), (400, 0), (400, 200), (200, 300), (0, 200)]
    gable = {"kind": "path", "points": [{"x": x, "y": y} for x, y in corners]}
    pointed = made(plate(), {"do": "set_brief", "opening": gable}, {"do": "set_frame", "wide": 30, "ledge": 8})
    assert found(pointed, "stack.frame-carries")


def test_a_frame_is_square_carries_the_seams_and_is_screwed_outside_the_opening() -> None:
    right = {"kind": "rect", "width": 200, "height": 120}
    design = made(
        plate(),
        {"do": "resize_opening", "width": 402},
        {"do": "add_module", "id": "right", "name": "Right", "outline": right, "x": 201.5, "y": 0.5},
        {"do": "set_frame", "wide": 30, "ledge": 8, "screws": 100},
    )
    made_of = frame_of(Resolved(design))
    assert made_of is not None
    # Opening 402 × 121: 386 × 105 clear inside, battens of 30 mm round it, one under the seam.
    assert made_of.clear == pytest.approx((386, 105))
    assert made_of.diagonal == pytest.approx((386**2 + 105**2) ** 0.5)
    lengths = {b.name: b.length for b in made_of.battens}
    assert lengths == pytest.approx(
        {"Top batten": 446, "Bottom batten": 446, "Left batten": 105, "Right batten": 105, "Seam batten 1": 105}
    )
    seam = made_of.battens[-1]
    assert (seam.x0 + seam.x1) / 2 == pytest.approx(201)
    assert made_of.from_edge == 30 / 2 - 8
    for one, other in combinations([b.area() for b in made_of.battens], 2):
        assert one.intersection(other).area < 1e-6
    for batten in made_of.battens:
        gaps = [abs(b[0] - a[0]) + abs(b[1] - a[1]) for a, b in pairwise(batten.screws)]
        assert max(gaps) <= 100 + 1e-6
        assert all(batten.area().contains(Point(spot)) for spot in batten.screws)
    # The two may differ by what the gap on both sides leaves: a parallelogram that leans by 0.6 mm.
    d, e = ((386 + 0.6) ** 2 + 105**2) ** 0.5, ((386 - 0.6) ** 2 + 105**2) ** 0.5
    assert made_of.differ == pytest.approx(d - e, rel=0.02)
    files = {f.name: f.content for f in cut_files(Resolved(design), ())}
    assert b"Seam batten 1,105.0,30,20," in files["cut/frame-cutting-list.csv"]
    assert {"cut/frame.svg", "cut/frame-a4.pdf"} <= set(files)


def test_narrower_battens_clear_a_body_beside_a_seam() -> None:
    # A body's edge at 13.5 mm in the opening, battens that reach 8 mm in: as they are clear; the ledge alone decides.
    crowded = made(plate((TOGGLE, 16.5, 60)), {"do": "set_frame"})
    (finding,) = found(crowded, "stack.frame-meets")
    assert offered(crowded, finding) is None  # no width of the battens changes how far they reach in
    right = {"kind": "rect", "width": 200, "height": 120}
    seam = made(
        plate((TOGGLE, 180, 60)),
        {"do": "resize_opening", "width": 402},
        {"do": "add_module", "id": "right", "name": "Right", "outline": right, "x": 201.5, "y": 0.5},
        {"do": "set_frame", "wide": 30},
    )
    (finding,) = found(seam, "stack.frame-meets")
    fix = offered(seam, finding)
    assert fix is not None
    assert fix.label == "Battens 20 mm wide"  # from the body's edge at 189.5 to the seam's middle at 201: 11.5


def test_absurd_cases_and_frames_are_refused_or_still_whole() -> None:
    for wrong in ({"do": "set_frame", "screws": 0.001}, {"do": "set_case", "module": "plate", "lip": 5000}):
        with pytest.raises(ValidationError):
            made(plate(), wrong)
    exits = [{"wall": wall, "along": 4000, "diameter": 900} for wall in ("left", "top", "back")]
    case = {"do": "set_case", "module": "plate", "lip": 200, "shelf": 200, "room": 0, "exits": exits}
    r = Resolved(made(plate(), case, {"do": "set_frame", "ledge": 200, "wide": 5000, "screws": 20}))
    box_made, frame = case_of(r, r.modules["plate"]), frame_of(r)
    assert box_made is not None
    assert frame is not None
    assert all(p.width > 0 and p.height > 0 for p in box_made.pieces)
    for piece in box_made.pieces:
        for opening in piece.openings:
            assert area_of(outline_of(piece)).contains(area_of(opening.path))
    assert min(frame.clear) > 0
    assert sum(len(b.screws) for b in frame.battens) < 5000
    assert not [f for f in review(r) if f.title.startswith("Not judged")]
