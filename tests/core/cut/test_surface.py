"""What is done to a face beside cutting it: words in film, masks, old holes, patches; coupons, drawings by hand."""

from __future__ import annotations

import io
import math
import re
from itertools import pairwise
from typing import Any

import pytest
import shapely
from PIL import Image

from building import found, offered, plate, settled
from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import BATCH
from wingboard.core.cut.again import marked
from wingboard.core.cut.beside import polygons, region_of
from wingboard.core.cut.bones import bones, cut_beyond, left_round
from wingboard.core.cut.byhand import jigs
from wingboard.core.cut.colours import colours_of
from wingboard.core.cut.coupons import DEPTHS, gauge
from wingboard.core.cut.export import cut_file, cut_file_names
from wingboard.core.cut.handdrawings import chains, jig_scene
from wingboard.core.cut.jobsheet import job_sheet
from wingboard.core.cut.lettered import WORDS, vinyl
from wingboard.core.cut.oldholes import judged_holes, read_holes
from wingboard.core.cut.operations import operations
from wingboard.core.cut.patches import abandoned
from wingboard.core.cut.pieces import pieces_of, whole_pieces
from wingboard.core.cut.plan import coupon_files, coupons, planned, program_files, verdict
from wingboard.core.cut.scenes import every_scene, layer_scene, lettering_items, module_scenes
from wingboard.core.cut.sheets import layout
from wingboard.core.files.read_gcode import read_gcode
from wingboard.core.files.scene import CirclePath, Item
from wingboard.core.geometry.outline import flattened, rounded_rectangle
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.cutting import Lettering
from wingboard.core.record.design import Design
from wingboard.core.resolved.design import Resolved

TOGGLE = "toggle-large-on-off"
NAMED = {"do": "edit_legend", "function": "f1", "text": "BOARD 8"}
TOOLS = [{"diameter": 3.175}, {"diameter": 1.0}, {"kind": "engraver", "diameter": 3.175, "angle": 30, "flat": 0.1}]


def made(start: Design, *commands: dict[str, Any]) -> Design:
    return apply(start, BATCH.validate_python(commands), catalogue())


def cutting(kind: str, *commands: dict[str, Any]) -> Design:
    add = {
        "do": "add_machine", "id": "it", "name": "It", "kind": kind, "bed_width": 400, "bed_height": 300, "depth": 12,
        "kerf": 0.2, "watts": 40, "spindle_rpm": 10_000, "tools": TOOLS if kind == "mill" else [],
    }  # fmt: skip
    return made(plate((TOGGLE, 60, 60), (TOGGLE, 120, 60)), NAMED, add, *commands)


def way(name: str | None) -> dict[str, Any]:
    return {"do": "set_lettering", "module": "plate", "way": name}


def closed(items: list[Item]) -> float:
    return float(region_of([i for i in items if not i.open]).area)


# ---- Words ----------------------------------------------------------------------------------------------------------


WAYS: tuple[tuple[Lettering, str | None, str | None], ...] = (
    ("mask", "mask", None), ("vinyl", None, "words-vinyl"), ("film", None, "words-film"), ("filled", "engrave", None),
)  # fmt: skip


def test_words_are_engraved_masked_cut_or_printed_and_never_twice() -> None:
    engraved = Resolved(cutting("laser"))
    module = engraved.modules["plate"]
    letters = closed([i for i in lettering_items(engraved, module) if "BOARD" in i.label])
    for name, on_face, own in WAYS:
        r = Resolved(cutting("laser", way(name)))
        scenes = module_scenes(r, r.modules["plate"])
        face = scenes["face"]
        assert {i.operation for i in face.items} - {"inner", "outline", "pocket"} == ({on_face} if on_face else set())
        assert [s for s in scenes if s.startswith("words")] == ([own] if own else [])
        shown = face if on_face else scenes[own or ""]
        words = [i for i in shown.items if i.operation in ("mask", "engrave") and "BOARD" in i.label]
        if name != "film":
            assert closed(words) == pytest.approx(letters, rel=1e-6)
        assert f"words: {WORDS[name]}" in job_sheet(r, [], every_scene(r))


def test_film_is_weeded_by_boxes_laid_by_guides_and_cut_counters_first() -> None:
    r = Resolved(cutting("laser", way("vinyl")))
    module = r.modules["plate"]
    scene = module_scenes(r, module)["words-vinyl"]
    boxes = [region_of([i]) for i in scene.items if i.label == "weeding box"]
    words = [i for i in scene.items if "BOARD" in i.label]
    assert words
    assert all(any(box.covers(region_of([i]).envelope) for box in boxes) for i in words if closed([i]))
    assert not any(a.intersects(b) for a, b in pairwise(boxes))
    guides = [i for i in scene.items if i.label == "guide line"]
    corners = {(round(v.x, 3), round(v.y, 3)) for i in guides for v in i.path}  # type: ignore[union-attr]
    width, height = module.size
    assert {(6.0, 6.0), (6.0 + width, 6.0), (6.0, 6.0 + height), (6.0 + width, 6.0 + height)} <= corners
    # Each counter of B, O, A, R, D and 8 before the letter that it falls out of.
    for n, item in enumerate(words):
        ring = shapely.LinearRing(flattened(item.path))  # type: ignore[arg-type]
        if not ring.is_ccw:
            inside = shapely.Polygon(ring).representative_point()
            around = [k for k, other in enumerate(words) if k != n
                      and shapely.Polygon(flattened(other.path)).contains(inside)]  # type: ignore[arg-type]  # fmt: skip
            assert min(around) > n
    assert cut_file(r, [], module, "words-vinyl-a4.pdf")
    assert vinyl([], module.loop, "nothing").of("outline")


def test_a_mask_is_cut_by_a_beam_at_little_power_and_stays_in_its_letters() -> None:
    r = Resolved(cutting("laser", way("mask")))
    sheet = next(s for s in layout(r).sheets if any(laid.piece.id == "plate/face" for laid in s.laid))
    kinds = [op.kind for op in planned(r, sheet)]
    assert kinds[0] == "mask"
    assert "words" not in kinds
    assert verdict(r, sheet).faults == ()
    mill = cutting("mill", way("mask"), {"do": "edit_machine", "machine": "it", "tools": TOOLS[:2]})
    assert found(mill, "cut.no-engraver") == []
    assert len(found(made(mill, way(None)), "cut.no-engraver")) == 1
    (finding,) = found(mill, "cut.mask-by-mill")
    assert found(settled(mill, finding), "cut.mask-by-mill") == []
    face = next(s for s in layout(Resolved(mill)).sheets if any(laid.piece.id == "plate/face" for laid in s.laid))
    assert any(op.kind == "mask" and op.left_out for op in planned(Resolved(mill), face))


def test_film_that_cannot_be_seen_or_weeded_is_spoken_of() -> None:
    hidden = cutting("laser", way("film"), {"do": "edit_layer", "layer": "face", "opacity": "opaque"})
    (finding,) = found(hidden, "cut.film-hidden")
    assert found(settled(hidden, finding), "cut.film-hidden") == []
    clear = cutting("laser", way("film"), {"do": "edit_layer", "layer": "face", "opacity": "clear", "paint": []})
    assert found(clear, "cut.film-hidden") == []
    small = cutting("laser", way("vinyl"), {**NAMED, "cap": 3.0})
    (thin,) = found(small, "cut.vinyl-thin")
    assert thin.measured
    assert thin.measured.value < 0.7
    assert found(settled(small, thin), "cut.vinyl-thin") == []


# ---- Old holes and patches ------------------------------------------------------------------------------------------


def test_each_old_hole_is_taken_up_hidden_or_named() -> None:
    holes, faults = read_holes("x;y;diameter;name\n60; 60; 10; old switch\n150;30;6\n70;60;12;beside\n199;60;6;edge")
    assert faults == ()
    design = made(cutting("laser"), {"do": "set_old_holes", "module": "plate",
                                     "holes": [h.model_dump() for h in holes]})  # fmt: skip
    r = Resolved(design)
    judged = judged_holes(r, r.modules["plate"])
    assert [(j.standing, j.by) for j in judged] == [
        ("reused", "F1"), ("covered", "the plate"), ("open", "F1"), ("open", "the plate's edge"),
    ]  # fmt: skip
    assert len(found(design, "cut.old-hole")) == 2
    # A hole half over the edge shows half its width, 2 of 6 mm of one that reaches 2 mm over it; F1 ends at x 66.
    halves = made(design, {"do": "set_old_holes", "module": "plate", "holes": [
        {"x": x, "y": y, "diameter": 6} for x, y in ((200, 60), (199, 90), (66, 60))]})  # fmt: skip
    over = judged_holes(Resolved(halves), Resolved(halves).modules["plate"])
    assert [round(j.gap, 1) for j in over] == [-3.0, -2.0, -3.0]
    patched = made(design, {"do": "add_patch", "module": "plate", "x": 194, "y": 60, "width": 20, "height": 16})
    assert len(found(patched, "cut.old-hole")) == 1
    assert [h.diameter for h in read_holes("10, 20, 1/2in\n30\t40\t5")[0]] == [12.7, 5]
    assert [(f.line, "diameter" in f.words or "length" in f.words) for f in read_holes("1,2,x\n3,4")[1]] == [
        (1, True), (2, True),
    ]  # fmt: skip


def test_words_that_do_not_fit_on_a_label_have_it_made_larger() -> None:
    eyes = {"do": "set_brief", "eye_distance": 710}
    label = {"do": "add_patch", "module": "plate", "x": 150, "y": 20, "width": 30, "height": 12}
    style = {"do": "set_style", "name_cap": 3.5}
    short = made(cutting("laser"), eyes, style, {**label, "text": "GATE"})
    assert found(short, "cut.patch-small") == []
    (small,) = found(made(short, {"do": "edit_patch", "patch": "patch-1", "text": "EMERGENCY GATE"}), "cut.patch-small")
    assert small.measured
    assert small.needed
    assert small.measured.value < 3.3 == round(small.needed.value, 1)  # MIL-STD-1472's figure at 710 mm
    long = made(short, {"do": "edit_patch", "patch": "patch-1", "text": "EMERGENCY GATE"})
    assert found(settled(long, small), "cut.patch-small") == []
    between = made(long, {"do": "edit_patch", "patch": "patch-1", "x": 83, "y": 60})
    (tight,) = found(between, "cut.patch-small")  # no room to grow there
    moved = settled(between, tight)
    assert found(moved, "cut.patch-small") == found(moved, "cut.patch-meets") == []
    assert moved.cutting.patches[0].x != 83


def test_an_opening_that_was_left_is_offered_a_patch_that_is_cut_with_the_others() -> None:
    start = cutting("laser")
    marks = [m.model_dump() for m in marked(Resolved(start), {p.id for p in pieces_of(Resolved(start))})]
    moved = made(start, {"do": "mark_cut", "pieces": marks}, {"do": "move", "functions": ["f2"], "dx": 30, "dy": 30})
    (left,) = abandoned(Resolved(moved))
    assert (left.name, left.x, left.y) == ("F2", 120, 60)
    assert left.margin == 4
    size = {"width": left.width + 2 * left.margin, "height": left.height + 2 * left.margin}
    # A part that moved only a little leaves a hole that a patch of less margin covers, or none.
    for far, margin in ((17.0, 3.0), (14.0, None)):
        near = made(start, {"do": "mark_cut", "pieces": marks}, {"do": "move", "functions": ["f2"], "dx": far})
        assert [a.margin for a in abandoned(Resolved(near))] == [margin]
    patch = {"do": "add_patch", "module": "plate", "x": left.x, "y": left.y, **size, "text": "SPARE", "screws": True}
    covered = made(moved, patch)
    assert abandoned(Resolved(covered)) == ()
    assert found(covered, "cut.patch-meets") == []
    r = Resolved(covered)
    piece = next(p for p in whole_pieces(r) if p.id == "plate/patch-1")
    assert len(piece.drawn.of("inner")) == 4
    assert region_of(piece.drawn.of("outline")).covers(region_of(piece.drawn.of("engrave")))
    assert any(laid.piece.id == "plate/patch-1" for sheet in layout(r).sheets for laid in sheet.laid)
    over = made(covered, {"do": "edit_patch", "patch": "patch-1", "x": 66, "y": 60})
    (meets,) = found(over, "cut.patch-meets")
    assert meets.severity == "must"
    assert offered(over, meets)


# ---- Coupons, ways round, drawings ----------------------------------------------------------------------------------


def test_the_ladder_is_as_deep_as_its_figures_and_the_gauge_as_wide() -> None:
    r = Resolved(cutting("mill"))
    sheet = layout(r).sheets[0]
    files = {f.name: f.content for f in coupon_files(r, sheet)}
    depths: dict[int, float] = {}
    for move in read_gcode(files["depth.nc"]):
        if not 1 <= move.operation <= len(DEPTHS):
            continue
        depths[move.operation] = min(depths.get(move.operation, 0.0), move.z1)
    assert [-depths[n] for n in sorted(depths)] == pytest.approx(DEPTHS)
    comb = region_of(gauge("Acrylic", 3.0).of("outline"))
    across = shapely.box(*comb.bounds).difference(comb)
    widths = sorted(g.bounds[2] - g.bounds[0] for g in polygons(across))
    assert widths == pytest.approx([2.8, 2.9, 3.0, 3.1, 3.2, 3.3])


@pytest.mark.parametrize(("watts", "feed", "rungs"), [(40, 18_000, DEPTHS), (5, 3000, DEPTHS), (150, 1200, (2.3,))])
def test_a_laser_engraves_as_deep_as_is_said_by_the_energy_on_its_way(
    watts: float, feed: float, rungs: tuple[float, ...]
) -> None:
    """In the written program: watts for each mm/s of a pace that is reached in small letters go with depth."""
    laser = cutting(
        "laser", {"do": "edit_machine", "machine": "it", "watts": watts, "feed": feed, "acceleration": 2500}
    )
    for depth in (0.3, 0.6):
        fit = {"do": "log_fit", "machine": "it", "material": "acrylic", "thickness": 2, "engraved": depth}
        r = Resolved(made(laser, fit))
        sheet = next(s for s in layout(r).sheets if any(laid.piece.id == "plate/face" for laid in s.laid))
        op = next(op for op in planned(r, sheet) if op.kind == "words")
        text = next(f.content for f in program_files(r, sheet) if "words" in f.name).decode("ascii")
        power, pace = int(re.findall(r"M3 S(\d+)", text)[0]) / 1000, float(re.findall(r"F([\d.]+)", text)[0]) / 60
        assert 0.05 <= power <= 0.25
        assert pace <= min(feed / 60, math.sqrt(2 * 2500 * 1.5))
        assert op.depth == pytest.approx(6 * power * watts / pace, rel=0.02)
        assert op.depth >= depth - 0.02
        if depth in rungs:
            assert op.depth == pytest.approx(depth, abs=0.02)
        deeper = found(r.design, "cut.engraves-deep")
        assert [f.measured and f.measured.value for f in deeper] == ([] if depth in rungs else [pytest.approx(2.25)])
    sheet = layout(r).sheets[0]
    words = {i.label for i in coupons(r, sheet)["depth"].of("engrave")}
    assert words == {f"depth {deep:g}" for deep in rungs}


def test_a_mill_goes_into_square_corners_until_it_touches_them_and_no_further() -> None:
    square, half = rounded_rectangle(30.0, 20.0, 0.0), 1.5875
    found_bones = bones(square, half)
    assert {(b.x, b.y) for b in found_bones} == {(0, 0), (30, 0), (30, 20), (0, 20)}
    for b in found_bones:  # its edge goes through the corner
        assert math.dist((b.x, b.y), (b.cx, b.cy)) == pytest.approx(half)
    beyond = cut_beyond(square, half).difference(shapely.box(0, 0, 30, 20)).bounds
    assert -beyond[0] == pytest.approx(half * (1 - math.sin(math.radians(45))), abs=0.02)
    assert sum(p.area for p in left_round(square, half)) == pytest.approx((4 - math.pi) * half**2, rel=0.02)
    eased = rounded_rectangle(30.0, 20.0, 0.8)  # roundings smaller than the cutter's are gone into as far as they go
    for b in bones(eased, half):
        assert shapely.Point(b.x, b.y).distance(shapely.Polygon(flattened(eased)).exterior) < 0.01
        assert math.dist((b.x, b.y), (b.cx, b.cy)) == pytest.approx(half)
    assert len(bones(eased, half)) == 4
    assert left_round(eased, half, gone_into=True) == left_round(square, half, gone_into=True) == []
    assert bones(rounded_rectangle(30.0, 20.0, 2.0), half) == ()
    slot = {"do": "add_feature", "module": "plate", "layer": "back", "reason": "screen", "x": 150, "y": 30,
            "shape": {"kind": "rect", "width": 30, "height": 20, "radius": 0}}  # fmt: skip
    thick = {"do": "edit_machine", "machine": "it", "tools": [{"diameter": 6}, TOOLS[2]]}
    start = cutting("mill", slot, thick)
    (round_one,) = found(start, "cut.corners-round")
    assert offered(start, round_one)
    squared = made(start, {"do": "edit_machine", "machine": "it", "bones": True})
    assert not any("screen" in f.detail for f in found(squared, "cut.corners-round"))
    for design in (start, squared):
        r = Resolved(design)
        assert [verdict(r, sheet).faults for sheet in layout(r).sheets] == [()] * len(layout(r).sheets)


def test_a_mill_goes_round_the_way_it_is_told() -> None:
    def turn(design: Design) -> set[bool]:
        r = Resolved(design)
        found = set()
        for sheet in layout(r).sheets:
            for op in operations(design, sheet):
                for cut in op.cuts if op.kind in ("inner", "outline") else ():
                    ring = [(cut.x, cut.y), *((s.x, s.y) for s in cut.steps)]
                    # Arcs turn as the whole does where there are any; else the area's sign tells.
                    bent = sum(s.bulge for s in cut.steps)
                    area = sum(a[0] * b[1] - b[0] * a[1] for a, b in pairwise(ring))
                    found.add(((bent or area) > 0) == (op.kind == "inner"))
        return found

    start = cutting("mill")
    assert turn(start) == {True}
    assert turn(made(start, {"do": "edit_machine", "machine": "it", "climb": False})) == {False}


def test_a_piece_that_lies_back_up_is_one_set_up_and_says_so() -> None:
    """Pockets of a sheet whose back is up are cut as it lies; those of a lettered face before it is turned over."""
    sunk = {"do": "set_pocket", "function": "f1", "depth": 1.0}
    alike = [{"do": "edit_layer", "layer": layer, "material": "acrylic", "thickness": 4} for layer in ("face", "back")]
    r = Resolved(cutting("mill", sunk, *alike))
    pocketed = [p for p in pieces_of(r) if p.pocketed]
    assert pocketed
    for sheet in layout(r).sheets:
        ops = planned(r, sheet)
        texts = {f.name: f.content.decode() for f in program_files(r, sheet)}
        backs = [laid for laid in sheet.laid if laid.piece.side == "behind"]
        if not any(laid.piece.turned_over for laid in sheet.laid):
            assert {op.side for op in ops} == {"front"}
            assert "all.nc" in texts
            assert ("THE FRONT IS UP" in texts["all.nc"].upper()) == (not backs)
            assert ("BACK" in texts["all.nc"].upper()) == bool(backs)
        first = [cut for op in ops if op.side == "behind" and op.kind == "pocket" for cut in op.cuts]
        turned = [i for laid in sheet.laid if laid.piece.turned_over for i in laid.items() if i.operation == "pocket"]
        assert bool(first) == bool(turned)
        assert verdict(r, sheet).faults == ()


def test_files_have_the_builders_colours_and_a_picture() -> None:
    design = cutting("laser", {"do": "set_colours", "inner": "#FF0000", "engrave": "#0000FF"})
    r = Resolved(design)
    module = r.modules["plate"]
    svg = (cut_file(r, [], module, "face.svg") or b"").decode()
    assert '<g id="inner" fill="none" fill-rule="nonzero" stroke="#FF0000"' in svg
    assert '<g id="engrave" fill="#0000FF"' in svg
    assert colours_of(made(design, {"do": "set_colours", "inner": None}))["inner"] == colours_of(plate())["inner"]
    picture = Image.open(io.BytesIO(cut_file(r, [], module, "preview.png") or b"")).convert("RGB")
    seen = {colour for _, colour in picture.getcolors(1 << 20) or ()}
    assert {(255, 0, 0), (0, 0, 255)} <= seen


def test_what_is_cut_by_hand_has_its_drawings() -> None:
    by_hand = plate((TOGGLE, 60, 60), ("readout-4-digits", 140, 60), ("emergency-stop-22", 100, 90))
    r = Resolved(made(by_hand, {"do": "set_fixings", "module": "plate", "screw": "M3"}))
    names = cut_file_names(r, r.modules["plate"])
    assert {"holes-from-behind-a4.pdf", "face-chain-drilling-a4.pdf"} <= set(names)
    face = next(p for p in whole_pieces(r) if p.id == "plate/face")
    drawing = chains(face)
    assert drawing
    holes = [i.path for i in drawing.of("inner") if "chain" in i.label]
    window = next(i for i in face.drawn.of("inner") if not isinstance(i.path, CirclePath))
    inside = region_of([window]).buffer(-0.9)
    assert all(inside.covers(shapely.Point(h.x, h.y).buffer(2.5)) for h in holes if isinstance(h, CirclePath))
    groups = jigs(r)
    scene = jig_scene("Test", groups)
    assert scene
    drawn = [i.path for i in scene.of("inner")]
    fences = [i.path[1] for i in scene.of("outline")]
    for hole, fence, jig in zip(drawn, fences, groups, strict=False):
        assert (hole.x - fence.x, hole.y - fence.y) == pytest.approx((jig.from_side, jig.from_end))  # type: ignore[union-attr]
    whole = layer_scene(r, r.modules["plate"], r.modules["plate"].stack[0])
    assert len(whole.of("inner")) > 4
