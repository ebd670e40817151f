"""Pieces parted to lie on a bed: seams pass everything, parts add up to the whole and fit into each other."""

from __future__ import annotations

from itertools import pairwise
from typing import Any

import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely.affinity import translate

from building import found, offered, plate, settled
from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import BATCH
from wingboard.core.cut.again import changed_since, marked
from wingboard.core.cut.beside import region_of
from wingboard.core.cut.operations import operations
from wingboard.core.cut.parted import Parted
from wingboard.core.cut.pieces import Piece, parted_of, pieces_of, whole_pieces
from wingboard.core.cut.plan import verdict
from wingboard.core.cut.seams import offered as seams_offered
from wingboard.core.cut.sheets import layout
from wingboard.core.files.scene import Operation
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.cutting import Joint, Split
from wingboard.core.record.design import Design
from wingboard.core.resolved.design import Resolved

TOGGLE = "toggle-large-on-off"
SCREWS = {"do": "set_fixings", "module": "plate", "screw": "M3"}


def made(start: Design, *commands: dict[str, Any]) -> Design:
    return apply(start, BATCH.validate_python(commands), catalogue())


def laser(start: Design, **changes: object) -> Design:
    add = {"do": "add_machine", "id": "it", "name": "It", "kind": "laser", "bed_width": 100, "bed_height": 140,
           "depth": 12, "kerf": 0.2, "watts": 40, "margin": 5, **changes}  # fmt: skip
    return made(start, add)


def piece(design: Design, ident: str) -> Piece:
    return next(p for p in whole_pieces(Resolved(design)) if p.id == ident)


def split(design: Design, ident: str, joint: Joint = "straight") -> Split:
    asked = seams_offered(Resolved(design), piece(design, ident), joint)
    assert asked
    return asked


def with_split(design: Design, ident: str, joint: Joint = "straight") -> Design:
    return made(design, {"do": "set_split", **split(design, ident, joint).model_dump()})


BUSY = plate((TOGGLE, 40, 60), (TOGGLE, 70, 60), (TOGGLE, 128, 60), ("button-22", 165, 90))


def test_a_plate_twice_as_long_as_the_bed_is_three_parts_with_margins_and_two_where_the_cutter_has_room() -> None:
    three = split(laser(BUSY), "plate/face")
    assert (three.along, len(three.at)) == ("x", 2)
    ends = [0.0, *three.at, 200.0]
    assert max(b - a for a, b in pairwise(ends)) <= 90 - 0.2
    roomy = laser(BUSY, margin=0, bed_width=100 + 2 * 3 + 0.2)  # 3 mm to the edges of the sheet, and a kerf
    assert len(split(roomy, "plate/face").at) == 1
    assert seams_offered(Resolved(laser(BUSY, bed_width=300)), piece(laser(BUSY, bed_width=300), "plate/face")) is None
    sparse = laser(plate(("button-22", 165, 90)), bed_width=220, bed_height=80)
    lower = split(sparse, "plate/face")  # across the height, where that makes fewer parts
    assert (lower.along, len(lower.at)) == ("y", 1)


def test_dowels_are_marked_at_both_edges_but_not_on_a_face_that_is_seen() -> None:
    at = split(laser(BUSY), "plate/face").at
    for layer in ("face", "back"):
        thick = made(laser(BUSY), {"do": "edit_layer", "layer": layer, "thickness": 8.0},
                     {"do": "set_split", "piece": f"plate/{layer}", "at": list(at), "joint": "dowels"})  # fmt: skip
        r = Resolved(thick)
        parted = parted_of(r, piece(thick, f"plate/{layer}"))
        assert parted
        bored = sum(len(parted.dowels(seam)) for seam in at)
        marks = [i for p in pieces_of(r) if p.of == f"plate/{layer}" for i in p.drawn.items if i.label == "dowel"]
        assert bored > 0
        assert len(marks) == (0 if layer == "face" else 2 * bored)


@pytest.mark.parametrize("joint", ["straight", "tongues", "strap", "dowels"])
def test_parts_add_up_to_the_whole_and_no_seam_passes_a_hole(joint: Joint) -> None:
    design = with_split(laser(BUSY), "plate/face", joint=joint)
    r = Resolved(design)
    whole = next(p for p in whole_pieces(r) if p.id == "plate/face")
    parts = [p for p in pieces_of(r) if p.of == "plate/face" and "strap" not in p.id]
    straps = [p for p in pieces_of(r) if "strap" in p.id]
    assert len(parts) == 3
    assert len(straps) == (2 if joint == "strap" else 0)
    regions = [translate(region_of(p.drawn.of("outline")), p.x, p.y) for p in parts]
    outline = region_of(whole.drawn.of("outline"))
    assert shapely.union_all(regions).symmetric_difference(outline).area < 0.05
    assert sum(g.area for g in regions) == pytest.approx(outline.area, abs=0.05)
    if joint == "tongues":
        assert regions[0].bounds[2] > split(laser(BUSY), "plate/face", joint).at[0] + 5
    kinds: tuple[Operation, ...] = ("inner", "pocket", "engrave")
    for operation in kinds:
        cut = [i for p in parts for i in p.drawn.of(operation) if i.label != "dowel"]
        assert len(cut) == len(whole.drawn.of(operation))
    for region, p in zip(regions, parts, strict=True):
        for hole in p.drawn.of("inner"):
            area = translate(region_of([hole]), p.x, p.y)
            assert region.boundary.distance(area) >= 2  # the bridge that this sheet needs
    laid = layout(r)
    assert not [u for u in laid.unlaid if u.piece.of == "plate/face"]
    for sheet in laid.sheets:
        if any(entry.piece.id.startswith("plate/face.") for entry in sheet.laid):
            assert operations(r.design, sheet)
            assert verdict(r, sheet).faults == ()


SPOTS = st.lists(
    st.tuples(st.sampled_from([TOGGLE, "button-22", "led-5-bezel"]), st.floats(25, 175), st.floats(25, 95)),
    min_size=1, max_size=5,
)  # fmt: skip


@settings(max_examples=25, deadline=None)
@given(SPOTS, st.sampled_from(["straight", "tongues"]), st.floats(80, 130))
def test_what_is_offered_keeps_its_own_rules_on_any_plate(
    parts: list[tuple[str, float, float]], joint: Joint, bed: float
) -> None:
    design = laser(plate(*((part, round(x, 1), round(y, 1)) for part, x, y in parts)), bed_width=round(bed, 1))
    whole = piece(design, "plate/face")
    asked = seams_offered(Resolved(design), whole, joint)
    if asked is None:
        return
    parted = Parted(whole.drawn, asked)
    assert all(gap >= 2 for _, _, gap in parted.nearest())  # the bridge that 2 mm of acrylic needs
    regions = parted.regions()
    assert sum(g.area for g in regions) == pytest.approx(parted.area.area, abs=0.05)
    assert all(a.intersection(b).area < 1e-3 for a, b in pairwise(regions))
    kept = made(design, {"do": "set_split", **asked.model_dump()})
    assert found(kept, "cut.seam-crosses") == []
    assert not [u for u in layout(Resolved(kept)).unlaid if u.piece.of == "plate/face"]


def test_a_seam_through_something_is_said_and_the_piece_left_whole() -> None:
    design = made(laser(BUSY), {"do": "set_split", "piece": "plate/face", "at": [70.0]})
    assert [p.id for p in pieces_of(Resolved(design)) if p.id.startswith("plate/face")] == ["plate/face"]
    first = found(design, "cut.seam-crosses")[0]
    assert first.severity == "must"
    assert first.measured
    assert first.measured.value < 0
    moved = settled(design, first)
    assert found(moved, "cut.seam-crosses") == []
    assert len([p for p in pieces_of(Resolved(moved)) if p.of == "plate/face"]) == 3
    # Half a hole beside the seam: a toggle's hole of 12 to 13 mm, its rim 1 mm off where 2 are needed.
    edge = Parted(piece(design, "plate/face").drawn, Split(piece="plate/face", at=(100.0,))).nearest()[0]
    assert edge[2] > 2


def test_parts_are_held_and_seams_do_not_lie_on_each_other() -> None:
    base = made(laser(BUSY), SCREWS)
    faced = with_split(base, "plate/face")
    at = split(base, "plate/face").at
    both = made(faced, {"do": "set_split", "piece": "plate/back", "at": list(at)})
    together = found(both, "cut.seams-together")
    assert {f.subjects[0] for f in together} == {"plate/face", "plate/back"}
    assert found(faced, "cut.seams-together") == []
    apart = split(faced, "plate/back").at  # what is offered now keeps off the other's
    assert all(abs(a - b) >= 20 for a in apart for b in at)
    loose = found(faced, "cut.part-loose")
    assert all(f.measured and f.measured.value < 3 for f in loose)
    assert found(with_split(base, "plate/face", joint="strap"), "cut.part-loose") == []
    thin = made(base, {"do": "set_split", "piece": "plate/face", "at": list(at), "joint": "dowels"})
    (dowels,) = found(thin, "cut.dowel-thin")
    assert offered(thin, dowels)


def test_a_part_is_cut_again_for_what_moved_on_it_alone() -> None:
    design = with_split(laser(BUSY), "plate/face")
    r = Resolved(design)
    marks = [m.model_dump() for m in marked(r, {p.id for p in pieces_of(r)})]
    cut = made(design, {"do": "mark_cut", "pieces": marks}, {"do": "move", "functions": ["f1"], "dx": -2})
    again = changed_since(Resolved(cut))
    assert [name for name in again if name.startswith("plate/face")] == ["plate/face.1"]
    assert again["plate/face.1"] == ["F1 moved 2.0 mm"]
