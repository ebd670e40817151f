"""Speeds, times, ways and layouts against handbooks, closed forms and other people's solvers; programs by sweeping."""

from __future__ import annotations

import math
import random
from itertools import pairwise
from pathlib import Path

import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st
from rectpack import newPacker

from building import plate
from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import BATCH
from wingboard.core.cut import plan
from wingboard.core.cut.beside import filled, inside, outside, region_of
from wingboard.core.cut.cutters import unreached
from wingboard.core.cut.feeds import engraved_depth, engraved_width, lasering, milling, surface_speed
from wingboard.core.cut.judged import judged
from wingboard.core.cut.nest import Blank, Box, Want, nested, rest
from wingboard.core.cut.openings import tabs_along
from wingboard.core.cut.operations import operations
from wingboard.core.cut.plan import folder_of, planned, program_files, verdict
from wingboard.core.cut.sheets import Sheet, layout
from wingboard.core.cut.sweep import swept, too_much
from wingboard.core.cut.timing import Way, seconds
from wingboard.core.cut.toolpath import RAMP, Levels, circle_loop, edges_of, milled_loop
from wingboard.core.cut.travel import bound, length_of, short_way
from wingboard.core.cut.work import Operation
from wingboard.core.files.gcode import WORDS
from wingboard.core.files.read_gcode import BadBlock, read_gcode
from wingboard.core.files.scene import CirclePath, Item
from wingboard.core.geometry.outline import Vertex, area_of, rounded_rectangle
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.design import Design
from wingboard.core.record.workshop import Machine, Tool
from wingboard.core.resolved.design import Resolved
from wingboard.services.desk import Desk
from wingboard.store.database import Database
from wingboard.testing import routed

MILL = Machine(id="mill", name="Mill", kind="mill", bed_width=400, bed_height=300, spindle_rpm=10_000, feed=2400)
TOOLS = [{"diameter": 3.175}, {"diameter": 1.0}, {"kind": "engraver", "diameter": 3.175, "angle": 30, "flat": 0.1}]


def workshop(design: Design, kind: str, **changes: object) -> Design:
    """The design with one machine that takes it."""
    add = {
        "do": "add_machine", "id": "it", "name": "It", "kind": kind, "bed_width": 400, "bed_height": 300, "depth": 12,
        "kerf": 0.2, "watts": 40, "spindle_rpm": 10_000, "tools": TOOLS if kind == "mill" else [], **changes,
    }  # fmt: skip
    return apply(design, BATCH.validate_python([add]), catalogue())


def test_a_wrong_program_is_a_finding_once_it_was_read_back(monkeypatch: pytest.MonkeyPatch, tmp_path: Path) -> None:
    design = workshop(plate(("toggle-large-on-off", 61, 60), ("button-22", 120, 60)), "laser")

    def wrong(asked: Design, sheet: Sheet) -> tuple[Operation, ...]:
        """Every opening half a millimetre beside where it belongs."""

        def beside(op: Operation) -> Operation:
            cuts = [c._replace(x=c.x + 0.5, steps=tuple(s._replace(x=s.x + 0.5) for s in c.steps)) for c in op.cuts]
            return op._replace(cuts=tuple(cuts)) if op.kind == "inner" else op

        return tuple(beside(op) for op in operations(asked, sheet))

    monkeypatch.setattr(plan, "operations", wrong)
    plan.forget_plans()
    desk = Desk(Database(tmp_path / "wingboard.db"))
    state = desk.add(design, "wrong")
    assert not [f for f in state.findings if f.code == "cut.program-wrong"]
    sheet = layout(state.resolved).sheets[0]
    assert verdict(state.resolved, sheet).faults
    said = [f for f in state.findings if f.code == "cut.program-wrong"]
    assert said[0].severity == "must"
    assert said[0].measured
    assert said[0].measured.value == pytest.approx(0.5, abs=0.1)
    moved = desk.command(state.design_id, 1, BATCH.validate_python([{"do": "move", "functions": ["f1"], "dx": 3}]))
    assert not [f for f in moved.state.findings if f.code == "cut.program-wrong"]  # it is another sheet now
    desk.database.close()
    plan.forget_plans()


def test_speeds_are_those_of_a_handbook() -> None:
    # A 1/4 in mill at 3000 turns: 59.8 m/min (machining handbooks, vc = π D n / 1000).
    assert surface_speed(6.35, 3000) == pytest.approx(59.8, abs=0.05)
    feeds = milling("acrylic", Tool(diameter=3.175, flutes=2), MILL)
    assert (feeds.rpm, feeds.feed) == (10_000, 10_000 * 2 * 0.075)
    assert feeds.step == pytest.approx(3.175 / 2)
    assert milling("aluminium", Tool(diameter=6), MILL.model_copy(update={"spindle_rpm": 24_000})).rpm == 7400
    # 40 W and 3 mm: 0.75 · 40 / 3 = 10 mm/s; twice as thick, half as fast; a weak one goes over it again.
    laser = MILL.model_copy(update={"kind": "laser", "watts": 40.0})
    assert (lasering("acrylic", 3, laser)[0].feed, lasering("acrylic", 6, laser)[0].feed) == (600, 300)
    assert lasering("acrylic", 6, laser.model_copy(update={"watts": 4.0}))[1] == 4


def test_an_engravers_width_and_depth_follow_from_its_tip() -> None:
    tip = Tool(kind="engraver", diameter=3.175, angle=60, flat=0.1)
    assert engraved_width(tip, 0.3) == pytest.approx(2 * 0.3 * math.tan(math.radians(30)) + 0.1)
    assert engraved_depth(tip, engraved_width(tip, 0.3)) == pytest.approx(0.3)
    assert engraved_width(tip, 9) == 3.175


def test_a_move_takes_what_the_trapezium_says_and_a_corner_is_slower() -> None:
    def lasts(acceleration: float, *points: tuple[float, float], feed: float = 600.0, bulge: float = 0.0) -> float:
        ways = [Way(*a, 0, *b, 0, bulge, feed) for a, b in pairwise(points)]
        return seconds(ways, acceleration)

    # 100 mm at 100 mm/s, and 0.1 s to speed up and slow down; a millimetre never gets that fast.
    assert lasts(1000, (0, 0), (100, 0), feed=6000) == pytest.approx(1.1)
    assert lasts(1000, (0, 0), (1, 0), feed=6000) == pytest.approx(2 * math.sqrt(1 / 1000))
    # Half a circle of 20 mm is as long as 10 π, and as slow as a straight way of that length.
    straight = lasts(50, (0, 0), (10 * math.pi, 0))
    assert lasts(50, (0, 0), (20, 0), bulge=1.0) == pytest.approx(straight)
    whole = lasts(50, (0, 0), (10, 0))
    assert lasts(50, *((n, 0) for n in range(11))) == pytest.approx(whole)
    assert lasts(50, *((n, n % 2) for n in range(11))) > 1.5 * whole
    # Back the same way: the tool stands in between.
    assert lasts(50, (0, 0), (10, 0), (0, 0)) == pytest.approx(2 * whole)
    assert seconds([Way(0, 0, 5, 0, 0, -1, 0, 600), Way(0, 0, -1, 0, 0, -1, 0, 600)], 50) == pytest.approx(
        lasts(50, (0, 0), (6, 0))
    )


def test_ways_are_nearly_as_short_as_a_routing_solver_finds() -> None:
    dice = random.Random(7)
    places = [(dice.uniform(0, 300), dice.uniform(0, 200)) for _ in range(60)]
    ours = length_of(places, short_way(places, (0, 0)), (0, 0))
    assert ours <= 1.15 * routed(places)
    assert bound(places, (0, 0)) <= ours < 0.4 * length_of(places, range(60), (0, 0))


BED = Blank("", Box(5, 5, 390, 290), (Box(180, 100, 40, 40),))
SIZES = st.lists(st.tuples(st.integers(10, 180), st.integers(10, 180)), min_size=1, max_size=14)


@given(SIZES)
@settings(max_examples=30)
def test_pieces_lie_apart_on_what_can_be_used_and_need_no_more_sheets_than_another_packer(
    sizes: list[tuple[int, int]],
) -> None:
    wants = [Want(str(n), w, h) for n, (w, h) in enumerate(sizes)]
    sheets, left = nested(wants, [BED], 3)
    assert not left
    assert sorted(put.want.name for s in sheets for put in s.puts) == sorted(w.name for w in wants)
    for sheet in sheets:
        boxes = [put.box for put in sheet.puts]
        assert all(b.within(BED.usable) and not b.meets(BED.taken[0], 3) for b in boxes)
        assert not any(a.meets(b, 3) for n, a in enumerate(boxes) for b in boxes[:n])
        free = rest(sheet, 3)
        assert free is None or not any(free.meets(b) for b in (*boxes, *BED.taken))
    plain, _ = nested(wants, [BED._replace(taken=())], 3)
    packer = newPacker(rotation=True)
    for w, h in sizes:
        packer.add_rect(w + 3, h + 3)
    packer.add_bin(393, 293, count=math.inf)
    packer.pack()
    assert len(plain) <= len(packer)


def test_clamps_old_holes_grain_and_copies_are_minded() -> None:
    stock = {"do": "add_stock", "material": "acrylic", "thickness": 3, "width": 380, "height": 280, "count": 5}
    fresh = workshop(plate(), "mill", bed_width=420, bed_height=420)

    def sheets(*more: dict[str, object]) -> list[tuple[int, set[bool]]]:
        r = Resolved(apply(fresh, BATCH.validate_python(list(more)), catalogue()))
        made = [s for s in layout(r).sheets if s.thickness == 3]
        assert all(verdict(r, s).faults == () for s in made)
        return [(len(s.laid), {laid.turned for laid in s.laid}) for s in made]

    def many(*more: dict[str, object]) -> list[int]:
        return [count for count, _ in sheets(*more)]

    assert many(stock) == [2]
    assert sheets({**stock, "grain": "along"}) == [(2, {False})]
    assert sheets({**stock, "grain": "across"}) == [(2, {True})]
    assert many(stock, {"do": "set_copies", "piece": "plate/back", "many": 3}) == [3, 1]
    # In the middle: of a hole by 3 mm, of a clamp by 3 mm, its place on the bed: the sheet lies 5 mm in.
    hole = {"x": 190, "y": 140, "diameter": 60}
    clamp = {"x": 180, "y": 180, "width": 60, "height": 60}
    spots = [
        ([{**stock, "holes": [hole]}], shapely.Point(190, 140).buffer(30)),
        ([stock, {"do": "edit_machine", "machine": "it", "clamps": [clamp]}], shapely.box(175, 175, 235, 235)),
    ]
    for more, taken in spots:
        r = Resolved(apply(fresh, BATCH.validate_python(more), catalogue()))
        for sheet in layout(r).sheets:
            for laid in sheet.laid if sheet.stock else ():
                wide, high = (
                    (laid.piece.height, laid.piece.width) if laid.turned else (laid.piece.width, laid.piece.height)
                )
                assert shapely.box(laid.x, laid.y, laid.x + wide, laid.y + high).distance(taken) > 3
        assert any(s.stock for s in layout(r).sheets)
    assert many(stock, {"do": "edit_machine", "machine": "it", "bed_width": 120}) == []


def test_a_line_beside_keeps_arcs_and_enters_a_narrow_notch_only_where_the_cutter_does() -> None:
    loop = rounded_rectangle(40, 20, 5, 0, 0)
    (within,) = inside(loop, 2)
    beyond = outside(loop, 2)
    assert not isinstance(within, CirclePath)
    assert not isinstance(beyond, CirclePath)
    assert sum(bool(v.bulge) for v in within) == 4
    assert area_of(within).area == pytest.approx(36 * 16 - (4 - math.pi) * 9, abs=0.15)
    assert area_of(beyond).area == pytest.approx(44 * 24 - (4 - math.pi) * 49, abs=0.15)
    assert inside(CirclePath(0, 0, 3), 1.6) == []
    notched = tuple(
        Vertex(*p) for p in [(0, 0), (30, 0), (30, 20), (16.6, 20), (16.6, 24), (13.4, 24), (13.4, 20), (0, 20)]
    )
    assert max(v.y for v in inside(notched, 1.5)[0]) == pytest.approx(22.5, abs=0.01)  # type: ignore[union-attr]
    assert unreached(notched, 3.0) == pytest.approx(1.5 * (2**0.5 - 1), abs=0.02)
    assert unreached(notched, 3.4) > 1.5


def test_letters_are_filled_to_their_edges_and_keep_their_counters() -> None:
    ring = [Item("engrave", CirclePath(0, 0, 6), "O"), Item("engrave", tuple(reversed(_square(1.5))), "O")]
    region = region_of(ring)
    lines = [shapely.LineString([(v.x, v.y) for v in (*loop, loop[0])]) for loop in filled(region, 0.2)]
    covered = shapely.union_all([line.buffer(0.1) for line in lines])
    assert covered.difference(region.buffer(0.015)).area < 1e-6
    assert region.buffer(-0.02).difference(covered).area < 0.02


def _square(half: float) -> tuple[Vertex, ...]:
    return tuple(Vertex(x, y) for x, y in [(-half, -half), (half, -half), (half, half), (-half, half)])


def test_a_mill_goes_down_gently_round_every_way_and_leaves_tabs() -> None:
    loop = circle_loop(0, 0, 10)
    total = sum(e.length for e in edges_of(loop, True))
    tabs = tabs_along(total, 5)
    assert len(tabs) == 3
    steps = milled_loop(loop, Levels(-3.2, 1.5), 600, 180, tabs, -2.0)
    assert min(s.z for s in steps) == pytest.approx(-3.2)
    x, y, z = loop[0].x, loop[0].y, 0.5
    for s in steps:
        flat = math.dist((x, y), (s.x, s.y))
        assert s.z >= z - 1e-9 or flat == 0 or (z - s.z) / flat < RAMP * 1.7  # an arc is longer than its chord
        assert math.hypot(s.x, s.y) == pytest.approx(10)
        x, y, z = s.x, s.y, s.z
    deep = [s for s in steps if s.z < -2.1]
    assert not any(_on_tab(math.atan2(s.y, s.x), loop, tabs) for s in deep)


def _on_tab(angle: float, loop: tuple[Vertex, ...], tabs: list[tuple[float, float]]) -> bool:
    at = ((angle - math.atan2(loop[0].y, loop[0].x)) % (2 * math.pi)) * 10
    return any(a + 0.01 < at < b - 0.01 for a, b in tabs)


PARTS = st.sampled_from(
    ["toggle-large-on-off", "button-22", "rotary-12", "led-5-bezel", "caption-two-lamp", "potentiometer"]
)


@st.composite
def panels(draw: st.DrawFn) -> Design:
    """A plate with up to six parts on a grid, some turned; on a laser or a mill."""
    spots = draw(st.lists(st.tuples(PARTS, st.integers(0, 5), st.sampled_from([0, 45, 90])), max_size=6,
                          unique_by=lambda s: s[1]))  # fmt: skip
    design = plate(*((part, 35.0 + 62 * (n % 3), 32.0 + 56 * (n // 3)) for part, n, _ in spots))
    turns = [{"do": "turn", "functions": [f"f{k}"], "by": turn} for k, (_, _, turn) in enumerate(spots, 1) if turn]
    design = apply(design, BATCH.validate_python(turns), catalogue()) if turns else design
    kind = draw(st.sampled_from(["laser", "mill"]))
    return workshop(design, kind, kerf=draw(st.sampled_from([0.1, 0.2, 0.35])))


@given(panels())
@settings(max_examples=12, deadline=None)
def test_what_a_written_program_takes_is_what_must_go_and_nothing_that_must_stay(design: Design) -> None:
    r = Resolved(design)
    sheets = layout(r).sheets
    assert sum(len(s.laid) for s in sheets) == 3
    for sheet in sheets:
        found = verdict(r, sheet)
        assert found.faults == ()
        plan = sum(op.seconds for op in planned(r, sheet))
        assert found.seconds == pytest.approx(plan, rel=0.1)
        kinds = [op.kind for op in planned(r, sheet)]
        assert kinds[-1] == "outline"
        assert kinds.index("inner") > max((n for n, k in enumerate(kinds) if k in ("trial", "words")), default=-1)


def test_a_hole_as_wide_as_a_drill_is_drilled_by_pecks_and_no_longer_milled() -> None:
    drills = [{"kind": "drill", "diameter": 3.4, "flutes": 2}, *TOOLS]
    r = Resolved(workshop(plate(("button-22", 60, 60)), "mill", tools=drills))
    sheet = next(s for s in layout(r).sheets if s.thickness == 2)
    drill = next(op for op in planned(r, sheet) if op.kind == "drill")
    assert (drill.number, len(drill.cuts)) == (1, 4)  # the four corners' screws
    for cut in drill.cuts:
        assert {(s.x, s.y) for s in cut.steps} == {(cut.x, cut.y)}
        downs = [s.z for s in cut.steps if s.z < 0]
        assert downs == sorted(downs, reverse=True)
        assert downs[-1] < -2.2
        assert all(a - b <= 3.4 + 1e-9 for a, b in pairwise([0.0, *downs]))
        assert cut.steps[-1].z > 0
    assert not {c.label for c in drill.cuts} & {
        c.label for op in planned(r, sheet) if op.kind == "inner" for c in op.cuts
    }
    assert verdict(r, sheet).faults == ()


def test_a_program_that_cuts_wrongly_is_found_out() -> None:
    r = Resolved(workshop(plate(("button-22", 60, 60)), "laser"))
    sheet = layout(r).sheets[0]
    good = operations(r.design, sheet)
    assert judged(sheet, good).faults == ()
    # The line on the drawn edge instead of half a kerf beside it: 0.1 mm too much, told within 0.01.
    wrong = operations(r.design, sheet._replace(machine=sheet.machine.model_copy(update={"offsets": True})))
    fault = judged(sheet, wrong).faults[0][1]
    assert fault.what == "cuts what must stay"
    assert fault.by == pytest.approx(0.1, abs=0.012)
    # An opening that nobody cut.
    lost = [op._replace(cuts=op.cuts[1:]) if op.kind == "inner" else op for op in good]
    assert any("must go" in f.what for _, f in judged(sheet, lost).faults)


def test_pockets_are_cut_from_behind_before_a_face_is_engraved_and_the_sheet_is_turned_by_two_holes() -> None:
    pocket = {
        "do": "add_feature", "layer": "face", "module": "plate", "reason": "a recess", "x": 120, "y": 70, "turn": 30,
        "depth": 2, "shape": {"kind": "rect", "width": 30, "height": 12},
    }  # fmt: skip
    thick = {"do": "edit_layer", "layer": "face", "thickness": 6}
    design = apply(plate(("button-22", 60, 60)), BATCH.validate_python([thick, pocket]), catalogue())
    r = Resolved(workshop(design, "mill"))
    sheet = next(s for s in layout(r).sheets if s.thickness == 6)
    sides = [(op.kind, op.side) for op in planned(r, sheet)]
    assert sides[:2] == [("pins", "behind"), ("pocket", "behind")]
    assert {side for kind, side in sides if kind in ("words", "inner", "outline")} == {"front"}
    assert verdict(r, sheet).faults == ()
    moves = read_gcode(next(f.content for f in program_files(r, sheet) if f.name == "all-behind.nc"))
    cut = swept([m for m in moves if m.operation == 2], 3.175, -1.99, laser=False).area
    laid = sheet.laid[0]
    x, y = sheet.width - (laid.x + 120), laid.y + 70  # seen from behind: left for right
    wanted = shapely.affinity.translate(shapely.affinity.rotate(shapely.box(-15, -6, 15, 6), -30), x, y)
    assert too_much(cut, shapely.box(0, 0, sheet.width, sheet.height).difference(wanted)) is None
    assert wanted.buffer(-1.7).difference(cut).area < 0.01


def test_programs_speak_few_words_and_a_strange_one_is_an_error_at_its_line() -> None:
    r = Resolved(workshop(plate(("button-22", 60, 60), ("toggle-large-on-off", 120, 60)), "mill"))
    sheet = layout(r).sheets[0]
    assert folder_of(r, sheet) == "01-it-plate-face"
    files = {f.name: f.content for f in program_files(r, sheet)}
    assert files == {f.name: f.content for f in program_files(Resolved(r.design), sheet)}
    for content in files.values():
        for line in content.decode("ascii").splitlines():
            assert len(line) <= 70
            words = [] if line.startswith("(") else line.split()
            assert {w for w in words if w[0] in "GM"} <= set(WORDS)
    with pytest.raises(BadBlock, match="line 2: G41 is not known"):
        read_gcode(b"G21 G90\nG41 D1\n")
    with pytest.raises(BadBlock, match="line 1: no feed"):
        read_gcode(b"G1 X1\n")
    with pytest.raises(BadBlock, match="middle"):
        read_gcode(b"G1 X0 F100\nG2 X10 Y0 I3 J0\n")
