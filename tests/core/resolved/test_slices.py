"""Parts as slices of depth: sections and volumes against a mesh library, and nothing solid where a sheet is left.

The mesh library is manifold3d: each slice and each sheet is made a solid, and united, cut and measured there.
"""

from __future__ import annotations

import math
from itertools import pairwise

import manifold3d
import pytest
import shapely
from shapely import box

from building import plate
from wingboard.core.changes.apply import apply
from wingboard.core.changes.commands.layers import EditLayer
from wingboard.core.changes.commands.parts import CombineParts
from wingboard.core.geometry.frame import Frame
from wingboard.core.geometry.rounded import Rounded
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.parts.side import side_view
from wingboard.core.record.modules import THREE_LAYERS, Layer
from wingboard.core.record.part import Part, Slice
from wingboard.core.record.shapes import Circle, Rect
from wingboard.core.resolved.profile import behind, cutouts, depth_behind_front, seated, sheets
from wingboard.core.resolved.section import InPlace, Piece, section

PARTS = list(catalogue().values())
STEPPED = catalogue()["gauge-52"].model_copy(
    update={
        "id": "stepped", "body": Circle(diameter=52), "body_to": 30.0, "depth": 40.0,
        "steps": (
            Slice(z0=30, z1=55, shape=Circle(diameter=30), x=4, y=-3),
            Slice(z0=30, z1=48, shape=Rect(width=8, height=20), x=-14, y=6, turn=30),
        ),
    }
)  # fmt: skip
"""A gauge with a narrower can and a slanted bracket behind it."""
STACK = (*THREE_LAYERS, Layer(id="board", name="Light board", role="board", thickness=3, gap=15))


def solid(shape: Rounded, z0: float, z1: float) -> manifold3d.Manifold:
    outline = shapely.get_coordinates(shape.core.buffer(shape.radius, quad_segs=32).exterior.normalize())[:-1]
    return manifold3d.CrossSection([outline[::-1]]).extrude(z1 - z0).translate([0, 0, z0])


def part_solid(
    part: Part, stack: tuple[Layer, ...], at: Frame, kinds: str = "front bush nut key body plug"
) -> manifold3d.Manifold:
    pieces = [s for s in seated(part, stack) if s.kind in kinds.split()]
    return manifold3d.Manifold.batch_boolean(
        [solid(at.shape(s.outline()), s.z0, s.z1) for s in pieces], manifold3d.OpType.Add
    )


def sheets_solid(stack: tuple[Layer, ...], area: shapely.Polygon, parts: list[InPlace]) -> manifold3d.Manifold:
    made = []
    for sheet in sheets(stack):
        left = solid(Rounded(area, 0.0), sheet.z0, sheet.z1)
        for p in parts:
            for cut in cutouts(p.part, stack, p.pocket):
                if cut.layer == sheet.layer.id:
                    shape = p.frame.shape(cut.shape.rounded().turned(cut.turn).moved(cut.x, cut.y))
                    floor = sheet.z0 - 1 if cut.depth is None else sheet.z1 - cut.depth
                    left -= solid(shape, floor, sheet.z1 + 1)
        made.append(left)
    return manifold3d.Manifold.batch_boolean(made, manifold3d.OpType.Add)


def area_met(pieces: tuple[Piece, ...], sheet: bool) -> float:
    return float(
        shapely.unary_union([box(p.t0, p.z0, p.t1, p.z1) for p in pieces if (p.kind == "sheet") is sheet]).area
    )


def sliced(mesh: manifold3d.Manifold, at: tuple[float, float], degrees: float) -> float:
    """The area that an upright plane through a point meets, its trace turned by so many degrees."""
    moved = mesh.translate([-at[0], -at[1], 0]).rotate([0, 0, -degrees]).rotate([90, 0, 0])
    return float(moved.slice(0).area())


@pytest.mark.parametrize("part", [*PARTS, STEPPED], ids=lambda p: p.id)
def test_what_a_part_fills_agrees_with_a_mesh_and_passes_its_openings(part: Part) -> None:
    wide = box(-90, -90, 90, 90)
    here = [InPlace(part, Frame())]
    mesh, plates = part_solid(part, STACK, Frame()), sheets_solid(STACK, wide, here)
    # Sections across the part at an odd angle through an odd point, along which the section is computed by itself.
    c, s, at = math.cos(math.radians(37)), math.sin(math.radians(37)), (1.3, -0.7)
    pieces = section(STACK, wide, here, (at[0] - 200 * c, at[1] - 200 * s), (at[0] + 200 * c, at[1] + 200 * s))
    assert area_met(pieces, sheet=False) == pytest.approx(sliced(mesh, at, 37), rel=0.005)
    assert area_met(pieces, sheet=True) == pytest.approx(sliced(plates, at, 37), rel=0.005)
    # The volume, as areas at depths half way between all beginnings and ends.
    ends = sorted({z for piece in seated(part, STACK) for z in (piece.z0, piece.z1)})
    volume = sum(
        (b - a) * shapely.unary_union(
            [x.outline().drawn() for x in seated(part, STACK) if x.z0 < (a + b) / 2 < x.z1]
        ).area
        for a, b in pairwise(ends)
    )  # fmt: skip
    assert mesh.volume() == pytest.approx(volume, rel=0.005)
    # What it fills behind the face meets no sheet: bush, nut, pip and body have the openings they need.
    inside = part_solid(part, STACK, Frame(), "bush nut key body")
    assert (inside ^ plates).volume() < 0.005 * max(inside.volume(), 1)


def test_depth_side_and_bodies_are_read_off_the_same_slices() -> None:
    deep = 8 - 8 + 55 + STEPPED.plug  # seated on the face; by hand
    assert depth_behind_front(STEPPED, STACK) == deep
    assert max(b.z1 for b in side_view(STEPPED, STACK) if b.kind == "plug") == deep
    assert [(s.z0, s.z1) for s in behind(STEPPED, STACK)] == [(8, 30), (30, deep), (30, 48)]
    assert [c.purpose for c in cutouts(STEPPED, STACK) if c.layer == "board"] == [
        "wiring"
    ]  # at 23 to 26: the wide body
    further = (*THREE_LAYERS, STACK[3].model_copy(update={"gap": 60.0}))
    assert [c.purpose for c in cutouts(STEPPED, further) if c.layer == "board"] == ["wiring"]  # at 68 to 71: its wires
    beyond = (*THREE_LAYERS, STACK[3].model_copy(update={"gap": 80.0}))
    assert [c for c in cutouts(STEPPED, beyond) if c.layer == "board"] == []


def test_parts_in_one_hole_lie_one_behind_the_other() -> None:
    both = CombineParts(id="both", name="Both", parts=("rotary-12", "encoder-push"))
    part = next(p for p in apply(plate(), (both,), catalogue()).parts if p.id == "both")
    front, rear = catalogue()["rotary-12"], catalogue()["encoder-push"]
    assert [(s.z0 - 8, s.z1 - 8 - part.plug * (n == 1)) for n, s in enumerate(behind(part, THREE_LAYERS))] == [
        (0, front.depth),
        (front.depth, front.depth + rear.depth),
    ]


def test_a_pocket_lies_where_the_body_is() -> None:
    part = catalogue()["toggle-large-on-off"].model_copy(update={"behind_x": 6.0})
    (pocket,) = [c for c in cutouts(part, THREE_LAYERS, pocket=1.5) if c.purpose == "pocket"]
    assert (pocket.x, pocket.layer) == (6.0, "back")
    assert pocket.depth == pytest.approx(1.5)
    # A body sunk deeper than the last sheet goes through it, and into the next.
    deeper = [(c.layer, c.depth) for c in cutouts(part, THREE_LAYERS, pocket=4) if c.purpose == "pocket"]
    assert deeper == [("diffuser", pytest.approx(1.0)), ("back", None)]


def test_a_thicker_layer_for_one_module_changes_only_its_parts() -> None:
    design = plate(("toggle-large-on-off", 40, 40))
    own = apply(design, (EditLayer(module="plate", layer="back", thickness=5),), catalogue())
    assert own.stack == design.stack
    assert [layer.thickness for layer in own.stack_of(own.modules[0])] == [2, 3, 5]


@pytest.mark.parametrize(("cable", "x", "y"), [("left", -27.3, 0.0), ("top", 0.0, 8.3)])
def test_a_flat_screen_is_held_by_the_sheet_behind_it_which_its_cable_passes(cable: str, x: float, y: float) -> None:
    flat = catalogue()["readout-4-digits"].model_copy(update={"depth": 2.0, "cable": cable})
    cuts = {cut.layer: cut for cut in cutouts(flat, THREE_LAYERS)}
    assert [cuts[name].purpose for name in ("face", "diffuser", "back")] == ["window", "recess", "wiring"]
    slot = cuts["back"]
    assert (slot.x, slot.y) == pytest.approx((x, y))  # over the edge that the cable leaves at: 60.6 and 22.6 mm, less 6
    assert flat.recess is not None
    assert min(slot.shape.span) == 6
    assert cutouts(flat.model_copy(update={"depth": 14.0}), THREE_LAYERS)[2].purpose == "recess"  # it goes through
