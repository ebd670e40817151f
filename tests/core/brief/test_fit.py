"""Whether it goes in: measured openings, tolerance chains, beds, sheets, knees, what stands in front; splitting."""

from __future__ import annotations

import math
from itertools import pairwise
from typing import Any

import pytest
from shapely import affinity, box

from building import adding, found, plate, settled
from wingboard.core.brief.beds import bed_fit
from wingboard.core.brief.chain import chain
from wingboard.core.brief.seams import seams_between
from wingboard.core.brief.sheets import kinds, sheets_needed
from wingboard.core.brief.side import LEG, at, elevation, eye_point
from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import BATCH, Command
from wingboard.core.changes.commands.brief import MeasureOpening, SetBrief, SetSeat, SplitOpening
from wingboard.core.changes.commands.layers import EditLayer
from wingboard.core.changes.commands.modules import AddModule, EditModule, ResizeModule
from wingboard.core.changes.commands.places import TurnItems
from wingboard.core.changes.commands.workshop import AddStock
from wingboard.core.changes.splitting import split
from wingboard.core.geometry.cuts import CLEAR
from wingboard.core.geometry.outline import area_of, moved
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.design import Design
from wingboard.core.record.errors import NotPossible
from wingboard.core.record.outlines import ArchOutline, RectOutline
from wingboard.core.record.space import Brief, KeepOut, Seat, fitting_opening
from wingboard.core.record.workshop import Machine
from wingboard.core.resolved.design import Resolved


def with_brief(design: Design, **changes: Any) -> Design:
    """The design with another brief; widths, heights and the seat by the commands of their own."""
    commands: list[Command] = []
    if "seat" in changes:
        commands.append(SetSeat(**changes.pop("seat")))
    for measured in ("widths", "heights", "diagonals"):
        for place, value in enumerate(changes.pop(measured, ()), 1):
            entry = {"of": measured, "place": place, "value": value}
            commands.append(MeasureOpening.model_validate(entry))
    return apply(design, (*commands, SetBrief.model_validate(changes)), catalogue())


def laser(**changes: Any) -> Machine:
    """A laser of 300 × 200 with a margin of 5."""
    return Machine.model_validate(
        {"id": "laser", "name": "Laser", "kind": "laser", "bed_width": 300, "bed_height": 200, **changes}
    )


@pytest.mark.parametrize(("leans", "speaks"), [(0.5, False), (0.7, True), (-0.7, True), (30.0, True)])
def test_an_opening_out_of_square_has_so_much_less_width(leans: float, speaks: bool) -> None:
    # The corners of a parallelogram of 201 × 121 mm whose top is shifted: its diagonals by their distances.
    corners = [(0, 0), (201, 0), (201 + leans, 121 - 1e-9), (leans, 121 - 1e-9)]
    height = math.sqrt(121**2 - leans**2)
    corners = [(x, height if y else 0) for x, y in corners]
    diagonals = (math.dist(corners[0], corners[2]), math.dist(corners[1], corners[3]))
    design = with_brief(plate(), diagonals=diagonals)
    findings = found(design, "brief.out-of-square")
    assert bool(findings) is speaks
    if findings:
        assert findings[0].measured is not None
        assert findings[0].measured.value == pytest.approx(abs(leans), abs=1e-6)
    x0, _, x1, _ = area_of(fitting_opening(design.brief).loop()).bounds
    assert x1 - x0 == pytest.approx(201 - abs(leans), abs=1e-6)
    assert bool(found(design, "brief.module-too-large")) is (abs(leans) > 0.4)  # the plate is 200 wide, the gap 0.3


BEDS = [
    ("lies as it is", 290, 190, 0, 1, 0),
    ("a little too wide", 291, 100, 0, 2, 1),
    ("goes in turned", 150, 280, 90, 1, -10),
    ("neither way", 200, 250, 0, 2, 10),
    ("a little too large both ways, fewer pieces turned", 300, 200, 90, 2, 10),
    ("twice the bed is three pieces once margins count", 600, 150, 0, 3, 310),
    ("four pieces", 500, 380, 0, 4, 210),
    ("exactly twice the usable bed", 580, 190, 0, 2, 290),
]


@pytest.mark.parametrize(
    ("width", "height", "turn", "pieces", "least"), [b[1:] for b in BEDS], ids=[b[0] for b in BEDS]
)
def test_a_plate_on_a_bed(width: float, height: float, turn: int, pieces: int, least: float) -> None:
    fit = bed_fit(width, height, laser())
    assert (fit.turn, fit.pieces, fit.least) == (turn, pieces, least)
    assert fit.whole is (fit.short <= 0.01)


def test_a_bed_without_room_takes_nothing() -> None:
    assert not bed_fit(10, 10, laser(margin=150)).whole


def test_a_module_larger_than_every_bed_is_said_with_its_pieces() -> None:
    small, large = laser(bed_width=150), laser(id="mill", name="Mill", kind="mill", bed_width=400, bed_height=300)
    design = plate(commands=(adding(small),))
    (finding,) = found(design, "brief.bed-too-small")
    assert "2 pieces on Laser (140 × 190 usable)" in finding.detail
    assert finding.measured is not None
    assert finding.measured.value == pytest.approx(10)  # turned: 200 on 190
    assert found(apply(design, (adding(large),), catalogue()), "brief.bed-too-small") == []


def test_a_layer_thicker_than_any_machine_cuts() -> None:
    design = plate(commands=(adding(laser(depth=2.5)),))
    assert {f.detail for f in found(design, "brief.too-thick")} == {"Diffuser, acrylic", "Back, acrylic"}


@pytest.mark.parametrize(("least", "clear"), [(201.0, True), (200.4, False)])
def test_the_least_of_three_widths_counts(least: float, clear: bool) -> None:
    design = with_brief(plate(), widths=[201.4, least, 201.2], heights=[121])
    assert (found(design, "brief.module-too-large") == []) is clear


@pytest.mark.parametrize(
    ("widths", "speaks"), [((), False), ((201,), False), ((201, 201.9, 201), False), ((201, 202.2, 201), True)]
)
def test_an_opening_that_is_not_square_is_said(widths: tuple[float, ...], speaks: bool) -> None:
    assert bool(found(with_brief(plate(), widths=widths), "brief.opening-uneven")) is speaks


@pytest.mark.parametrize(
    ("process", "gap", "need"),
    [("hand", 0.2, 0.3), ("laser", 0.1, 0.2), ("hand", 0.3, None), ("mill", 0.2, None), (None, 0, None)],
)
def test_the_gap_suits_how_edges_are_cut(process: str | None, gap: float, need: float | None) -> None:
    design = with_brief(plate(), process=process, gap=gap)
    findings = found(design, "brief.gap-tight")
    assert [f.needed.value if f.needed else None for f in findings] == ([need] if need else [])
    if findings:
        assert settled(design, findings[0]).brief.gap == need


def row(tolerance: float, *widths: float) -> Design:
    """Modules side by side in an opening of 300, each with that tolerance."""
    design = Design(name="Row", brief=Brief(opening=RectOutline(width=300, height=100), gap=0.2))
    x = 0.2
    commands: list[Command] = []
    for n, width in enumerate(widths, 1):
        outline = RectOutline(width=width, height=99)
        commands += [
            AddModule(id=f"m{n}", name=f"M{n}", outline=outline, x=x, y=0.5),
            EditModule(module=f"m{n}", tolerance=tolerance),
        ]
        x += width + 0.2
    return apply(design, commands, catalogue())


@pytest.mark.parametrize(
    ("tolerance", "severities"), [(0.1, []), (0.25, []), (0.3, ["judge"]), (0.5, ["must"]), (0.45, ["judge"])]
)
def test_the_chain_is_judged_by_its_sum_and_by_the_root_of_squares(tolerance: float, severities: list[str]) -> None:
    design = row(tolerance, 99.7, 99.7, 99.8)
    found_chain = chain(Resolved(design))
    assert found_chain is not None
    assert found_chain.clear == pytest.approx(0.8)
    assert found_chain.worst == pytest.approx(3 * tolerance)
    assert found_chain.likely == pytest.approx(tolerance * math.sqrt(3))
    findings = found(design, "brief.chain-too-wide")
    assert [f.severity for f in findings] == severities
    for finding in findings:
        assert found(settled(design, finding), "brief.chain-too-wide") == []


def test_a_module_above_another_is_no_link_of_the_chain() -> None:
    above = AddModule(name="Above", outline=RectOutline(width=290, height=20), x=5, y=100.5)
    found_chain = chain(Resolved(apply(row(0.1, 99, 99), (above,), catalogue())))
    assert found_chain is not None
    assert [p.module.name for p in found_chain.modules] == ["Above"]
    assert chain(Resolved(Design(name="None"))) is None


STOCK = {"id": "s", "material": "acrylic", "thickness": 3, "width": 600, "height": 400}


@pytest.mark.parametrize(
    ("count", "width", "missing"), [(1, 600, 0), (0, 600, 3), (2, 210, 0), (1, 210, 0), (1, 100, 0)]
)
def test_layers_of_one_kind_share_the_sheets_in_stock(count: int, width: float, missing: int) -> None:
    command = AddStock.model_validate({**STOCK, "count": count, "width": width})
    design = plate(commands=(command, EditLayer(layer="face", thickness=3)))
    short = [f for f in found(design, "brief.stock-short") if f.measured and f.needed]
    assert len(short) == (1 if missing else 0)
    assert all(f.measured and f.measured.value == count for f in short)


def test_without_any_stock_nothing_is_said_and_another_material_is_none() -> None:
    assert found(plate(), "brief.stock-short") == []
    command = AddStock.model_validate({**STOCK, "material": "plywood"})
    design = plate(commands=(command,))
    assert len(found(design, "brief.stock-short")) == 2  # of 2 and of 3 mm
    r = Resolved(design)
    assert sheets_needed(r, kinds(r)[0]) == 1


@pytest.mark.parametrize("pitch", [-40, 0, 28, 60, 90])
def test_the_side_view_keeps_lengths_and_right_angles(pitch: float) -> None:
    up, behind = at(pitch, 100, 0), at(pitch, 0, 50)
    assert math.hypot(*up) == pytest.approx(100)
    assert math.hypot(*behind) == pytest.approx(50)
    assert up[0] * behind[0] + up[1] * behind[1] == pytest.approx(0, abs=1e-9)


def test_a_wall_stands_upright_and_a_table_lies() -> None:
    assert at(0, 100, 0) == pytest.approx((0, 100))
    assert at(0, 0, 50) == pytest.approx((50, 0))
    assert at(90, 100, 0) == pytest.approx((100, 0))
    assert at(90, 0, 50) == pytest.approx((0, -50))


def test_the_eye_is_where_the_tape_says() -> None:
    brief = Brief(eye_distance=500, eye_height=300, pitch=30)
    eye = eye_point(brief, 200)
    assert eye is not None
    middle = at(30, 100, 0)
    assert math.dist(eye, middle) == pytest.approx(500)
    assert eye[1] - middle[1] == pytest.approx(300)
    assert eye[0] < middle[0]
    assert eye_point(Brief(), 200) is None


@pytest.mark.parametrize(("knee", "severities"), [(600, []), (690, ["judge"]), (760, ["must"])])
def test_knees_are_kept_from_plate_and_bodies(knee: float, severities: list[str]) -> None:
    seat = Seat(edge_height=700, knee_height=knee, knee_reach=40, clear=20)
    design = with_brief(plate(("button-22", 100, 30)), pitch=20, seat=seat.model_dump())
    findings = found(design, "brief.knee-clearance")
    assert [f.severity for f in findings] == severities
    clearance = elevation(Resolved(design)).clearance
    assert clearance is not None
    bare = elevation(Resolved(with_brief(plate(), pitch=20, seat=seat.model_dump()))).clearance
    assert bare is not None
    assert clearance <= bare + 1e-9
    assert elevation(Resolved(plate())).clearance is None
    assert LEG == 65


BOX = {
    "id": "wall",
    "name": "side wall",
    "kind": "neighbour",
    "side": "front",
    "x": 80,
    "y": 40,
    "width": 50,
    "height": 50,
}


@pytest.mark.parametrize(
    ("clear", "part", "speaks"),
    [(10, "toggle-large-on-off", True), (60, "toggle-large-on-off", False), (10, "led-5-bezel", False)],
)
def test_levers_are_kept_from_what_stands_in_front(clear: float, part: str, speaks: bool) -> None:
    box = KeepOut.model_validate({**BOX, "clear": clear})
    design = plate((part, 100, 60), commands=(adding(box),))
    assert bool(found(design, "brief.hits-in-front")) is speaks
    assert found(design, "face.keep-out") == []


def test_a_box_behind_is_no_box_in_front() -> None:
    box = KeepOut.model_validate({**BOX, "side": "behind", "clear": 20})
    design = plate(("button-22", 100, 60), commands=(adding(box),))
    assert found(design, "brief.hits-in-front") == []
    assert found(design, "face.keep-out")


OPENINGS = {
    "rectangle": RectOutline(width=740, height=200),
    "rounded": RectOutline(width=740, height=200, radius=20),
    "arched": ArchOutline(width=740, height=190, rise=40),
}


@pytest.mark.parametrize("name", OPENINGS)
@pytest.mark.parametrize("shares", [(), (1, 2, 1), (3, 1, 2)])
def test_a_split_opening_is_filled_less_gap_and_seams(name: str, shares: tuple[float, ...]) -> None:
    brief = Brief(opening=OPENINGS[name], gap=0.5)
    modules = split(brief, ("L", "C", "R"), shares, 0.8)
    opening = area_of(brief.opening.loop())
    placed = [area_of(moved(p.outline.loop(), p.x, p.y)) for p in modules]
    for piece in placed:
        assert opening.covers(piece)
        assert opening.exterior.distance(piece.exterior) == pytest.approx(0.5, abs=0.01)
    for left, right in pairwise(placed):
        assert left.distance(right) == pytest.approx(0.8, abs=0.01)
    taken = sum(p.area for p in placed)
    room = opening.buffer(-0.5, join_style="mitre").area - 2 * 0.8 * 180
    assert taken == pytest.approx(room, rel=0.002)
    design = apply(
        Design(name="S", brief=brief), (SplitOpening(names=("L", "C", "R"), shares=shares, seam=0.8),), catalogue()
    )
    assert found(design, "brief.module-too-large") == []


@pytest.mark.parametrize(
    ("names", "shares"), [(("A", "B"), (1,)), (tuple("ABCDEFGHIJKL"), ()), (("A", "B"), (1000, 0.1))]
)
def test_a_split_that_makes_no_sense_is_refused(names: tuple[str, ...], shares: tuple[float, ...]) -> None:
    with pytest.raises(NotPossible):
        split(Brief(opening=RectOutline(width=50, height=40)), names, shares, 0.4)


def test_the_fitting_opening_keeps_an_arch() -> None:
    arch = ArchOutline(width=740, height=190, rise=40)
    drawn_in = fitting_opening(Brief(opening=arch, widths=(739.0, 739.6), heights=(229.0,)))
    x0, y0, x1, y1 = area_of(drawn_in.loop()).bounds
    assert (x1 - x0, y1 - y0) == pytest.approx((739.0, 229.0), abs=0.01)
    assert any(v.bulge for v in drawn_in.loop())
    assert fitting_opening(Brief(opening=arch)) is arch


@pytest.mark.parametrize(
    ("width", "height", "over"),
    [(200, 120, None), (120, 200, None), (199.9, 150, 0.1), (120, 199, 1.0), (100, 100, 100)],
)
def test_a_plate_larger_than_every_sheet_is_said_and_not_counted_as_fitting(
    width: float, height: float, over: float | None
) -> None:
    # The plate is 200 × 120 mm; the least it stands over at 0° or 90°, by hand.
    stock = AddStock(material="acrylic", thickness=2, width=width, height=height, count=5)
    design = apply(plate(), (stock,), catalogue())
    findings = found(design, "brief.sheet-too-small")
    assert [round(f.measured.value, 6) for f in findings if f.measured] == ([] if over is None else [over])
    r = Resolved(design)
    assert sheets_needed(r, kinds(r)[0]) == (1 if over is None else 0)


@pytest.mark.parametrize("turn", [0, 37, 90])
def test_a_body_is_turned_with_its_part_in_the_side_view(turn: float) -> None:
    design = plate(("toggle-large-on-off", 100, 60), commands=(TurnItems(functions=("f1",), by=turn),))
    ((_, corners),) = elevation(Resolved(design)).bodies
    body = affinity.rotate(box(-9, -14.5, 9, 14.5), turn, origin=(0, 0))
    assert max(y for _, y in corners) - min(y for _, y in corners) == pytest.approx(body.bounds[3] - body.bounds[1])
    assert min(y for _, y in corners) == pytest.approx(60.5 + body.bounds[1])


@pytest.mark.parametrize(
    ("apart", "inset", "measured"),
    [(0.3, 0.0, None), (0.28, 0.0, 0.28), (-3.0, 0.0, -3.0), (5.0, -2.0, None), (4.2, -2.0, 0.2), (3.0, -2.0, -1.0)],
)
def test_the_seam_between_two_modules_is_one_gap_and_plates_that_reach_over_count(
    apart: float, inset: float, measured: float | None
) -> None:
    # The fit gap is 0.3 mm: once between two modules, not once for each. A face 2 mm larger all round takes 4 of it.
    second = AddModule(id="next", name="Next", outline=RectOutline(width=60, height=120), x=200.5 + apart, y=0.5)
    design = plate(commands=(second, EditLayer(layer="face", inset=inset)))
    findings = found(design, "brief.modules-overlap")
    assert [round(f.measured.value, 6) for f in findings if f.measured] == ([measured] if measured is not None else [])
    assert all(f.needed and f.needed.value == 0.3 for f in findings)
    for finding in findings:
        assert found(settled(design, finding), "brief.modules-overlap") == []


def test_a_module_too_large_for_the_bed_is_split_and_everything_goes_with_its_piece() -> None:
    text = {"do": "add_graphic", "id": "t", "module": "plate", "kind": "text", "text": "RIGHT", "x": 170, "y": 100}
    bed = {"do": "add_machine", "name": "Laser", "kind": "laser", "bed_width": 150, "bed_height": 140}
    start = plate(("button-22", 40, 60), ("button-22", 160, 60))
    design = apply(start, BATCH.validate_python([text, bed]), catalogue())
    (finding,) = found(design, "brief.bed-too-small")
    after = settled(design, finding)
    assert found(after, "brief.bed-too-small") == []
    left, right = after.modules
    assert (left.name, right.name) == ("Plate 1", "Plate 2")
    before, now = Resolved(design), Resolved(after)
    wide = [m.size[0] for m in now.modules.values()]
    assert wide == pytest.approx([(200 - 0.4) / 2] * 2, abs=0.01)
    assert right.x - left.x == pytest.approx(wide[0] + 0.4, abs=0.01)
    assert [f.place.module for f in after.functions if f.place] == [left.id, right.id]
    for a, b in zip(before.placed, now.placed, strict=True):  # nothing moves in the opening
        assert now.panel.point(b) == pytest.approx(before.panel.point(a), abs=0.01)
    assert after.graphics[0].module == right.id
    assert after.graphics[0].x == pytest.approx(170 - wide[0] - 0.4, abs=0.01)


@pytest.mark.parametrize("margin", [200, 150])
def test_a_machine_whose_margins_leave_no_bed_is_refused_with_the_figures(margin: float) -> None:
    bed = {"do": "add_machine", "name": "Laser", "kind": "laser", "bed_width": 300, "bed_height": 600}
    with pytest.raises(NotPossible, match="leaves nothing to cut on"):
        apply(plate(), BATCH.validate_python([{**bed, "margin": margin}]), catalogue())
    there = apply(plate(), BATCH.validate_python([{**bed, "id": "laser-1"}]), catalogue())
    edit = {"do": "edit_machine", "machine": "laser-1", "margin": margin}
    with pytest.raises(NotPossible, match="leaves nothing to cut on"):
        apply(there, BATCH.validate_python([edit]), catalogue())


@pytest.mark.parametrize("pieces", [2, 3, 5])
@pytest.mark.parametrize("shift", [0.0, 7.0, 19.0])
def test_a_split_keeps_off_parts_words_and_screws(pieces: int, shift: float) -> None:
    bush = [("toggle-large-on-off", 25 + 45.0 * n + shift, 60.0) for n in range(11)]
    design = plate(*bush, commands=(ResizeModule(module="plate", width=540),))
    r = Resolved(design)
    (module,) = r.modules.values()
    widest = 540 / pieces + 25
    at = seams_between(r, module, widest, pieces, 0.4)
    assert at is not None
    assert len(at) == pieces - 1
    edges = [0.0, *at, 540.0]
    assert all(b - a <= widest + 0.4 for a, b in pairwise(edges))
    for x in at:  # the gaps between them are wide enough for a seam to stay clear of everything
        assert min(abs(x - placed.place.x) for placed in r.placed) > 15 / 2 + CLEAR
    assert seams_between(r, module, 540 / pieces - 5, pieces, 0.4) is None
