"""What is printed: solids that are closed, as large as they have to be, and read by others' libraries.

Volumes are those of boxes and frustums, by hand; files are read by trimesh (3MF) and by lib3mf (STL), each of which
wrote the other kind.
"""

from __future__ import annotations

import io
import math
from itertools import combinations
from typing import Any

import numpy as np
import pytest
import trimesh

from building import plate
from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import BATCH
from wingboard.core.cut.export import cut_file_names, cut_files
from wingboard.core.cut.jobsheet import job_sheet
from wingboard.core.cut.knobs import BORE, FLAT, PLAY, SHAFT, TALL, Cap, bore_outline, cap_solids, caps_of
from wingboard.core.cut.others import others
from wingboard.core.cut.printed import LETTERS_DEEP, case_solids, plate_solids
from wingboard.core.cut.scenes import every_scene, layer_scene
from wingboard.core.files.solids import Mesh, write_3mf, write_stl
from wingboard.core.geometry.outline import area_of
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.design import Design
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule
from wingboard.core.stack.case import case_of
from wingboard.core.stack.shell import PIN, Solid, cuts_of, shell_of

PLAIN = {"do": "set_case", "module": "plate", "made": "printed", "lip": 0, "vents": False, "hatch": False, "exits": []}


def made(*commands: dict[str, Any], parts: bool = True) -> tuple[Design, Resolved, ResolvedModule]:
    start = plate(*([("toggle-large-on-off", 40, 40), ("button-22", 100, 60)] if parts else []))
    design = apply(start, BATCH.validate_python([dict(c) for c in commands]), catalogue())
    r = Resolved(design)
    return design, r, r.modules["plate"]


def printer(wide: float, high: float, tall: float = 200) -> dict[str, Any]:
    return {
        "do": "add_machine", "name": "Printer", "kind": "printer", "bed_width": wide, "bed_height": high,
        "margin": 0, "depth": tall,
    }  # fmt: skip


def closed(solid: Solid) -> trimesh.Trimesh:
    mesh = trimesh.Trimesh(solid.points, solid.triangles, process=False)
    assert mesh.is_watertight
    assert mesh.volume == pytest.approx(solid.volume, rel=1e-4)
    return mesh


def test_a_cap_fits_a_shaft_with_a_flat_and_its_pointer_lies_in_it() -> None:
    body, pointer = cap_solids(Cap(27.0, 3))
    whole = closed(body).volume + closed(pointer).volume
    r, flat = (SHAFT + PLAY) / 2, FLAT + PLAY - (SHAFT + PLAY) / 2
    # A circle less its segment beyond the flat: r² acos(d / r) − d √(r² − d²) (any handbook of mathematics).
    bore = math.pi * r * r - (r * r * math.acos(flat / r) - flat * math.sqrt(r * r - flat * flat))
    assert area_of(bore_outline()).area == pytest.approx(bore, rel=2e-3)
    assert whole == pytest.approx(math.pi * 13.5**2 * TALL - bore * BORE, rel=2e-3)
    assert body.size == pytest.approx((27, 27, TALL), abs=0.05)
    assert pointer.size[2] == pytest.approx(0.8)
    # A key, a handle of its own and a shaft within a shaft take no such cap.
    shaftless = (("key-switch-19", 120, 30), ("encoder-dual", 160, 90), ("toggle-large-on-off", 120, 90))
    start = plate(("rotary-12", 60, 60), *shaftless)
    module = Resolved(start).modules["plate"]
    assert [c.many for c in caps_of(module)] == [1]
    assert not any("knob" in name for name in cut_file_names(Resolved(start), module))
    able = Resolved(apply(start, BATCH.validate_python([printer(200, 200)]), catalogue()))
    names = [n for n in cut_file_names(able, able.modules["plate"]) if "knob" in n and n.endswith("stl")]
    assert len(names) == 2
    assert "1 to print, 2 where they are painted" in job_sheet(able, [], every_scene(able))
    assert [(o.many, o.fine) for o in others(able)] == [(1, True)]


def test_what_no_sheet_is_cut_for_says_who_makes_it() -> None:
    printed = made({"do": "set_school", "module": "plate", "school": "printed"}, PLAIN)[0]
    assert {o.how for o in others(Resolved(printed)) if not o.fine} == {"no printer in the workshop"}
    small = apply(printed, BATCH.validate_python([printer(150, 150)]), catalogue())
    (face, *case) = others(Resolved(small))
    assert (face.fine, face.how) == (False, "50.0 mm too large for Printer")  # 200 × 120 on 150 × 150
    assert all(o.fine for o in case)  # a case is cut in pieces that the printer takes
    words = {"do": "set_lettering", "module": "plate", "way": "vinyl"}
    film = [o.how for o in others(Resolved(apply(printed, BATCH.validate_python([words]), catalogue())))]
    assert "cut by a knife, never by a laser" in film


def test_a_plain_shell_is_a_box_less_a_box_and_its_lip_is_a_frustum_less() -> None:
    no_screws = {"do": "set_fixings", "module": "plate", "corners": False}
    _, r, module = made(PLAIN, no_screws)
    case = case_of(r, module)
    assert case is not None
    (w, h, d), t = case.inside, case.case.thickness
    assert t == 3  # walls that are printed are thinner than sheets
    shell = (w + 2 * t) * (h + 2 * t) * (d + t) - w * h * d
    assert shell_of(module, case).volume() == pytest.approx(shell, rel=1e-6)

    lip = 10.0
    _, r, module = made({**PLAIN, "lip": lip}, no_screws)
    lipped = case_of(r, module)
    assert lipped is not None
    areas = w * h, (w - 2 * lip) * (h - 2 * lip), (w - lip) * (h - lip)
    frustum = lip / 6 * (areas[0] + areas[1] + 4 * areas[2])  # the prismoidal formula
    assert shell_of(module, lipped).volume() == pytest.approx(shell + w * h * lip - frustum, rel=1e-6)


@pytest.mark.parametrize("bed", [(150.0, 150.0), (110.0, 70.0), (90.0, 230.0)])
def test_a_case_is_cut_to_what_the_printer_takes_and_nothing_is_lost(bed: tuple[float, float]) -> None:
    _, r, module = made({**PLAIN, "lip": 8, "exits": [{}], "vents": True}, printer(*bed))
    case = case_of(r, module)
    assert case is not None
    cuts = cuts_of(case, r.design.workshop.machines)
    solids = case_solids(r, module)
    assert len(solids) == cuts.pieces > 1
    for solid in solids:
        closed(solid)
        assert any(all(s <= b + 0.01 for s, b in zip(solid.size, (*way, 200), strict=True)) for way in (bed, bed[::-1]))
    whole = shell_of(module, case).volume()
    pin = np.pi * PIN[0] ** 2 / 4 * PIN[1] * 2
    ribbed = sum(s.volume for s in solids)
    assert whole < ribbed + 12 * pin * (cuts.pieces - 1)  # ribs add, pins take little
    assert ribbed < 1.4 * whole


def test_a_printer_too_low_or_too_small_takes_none() -> None:
    for small in (printer(15, 15), printer(150, 150, tall=10)):
        _, r, module = made(PLAIN, small)
        case = case_of(r, module)
        assert case is not None
        assert cuts_of(case, r.design.workshop.machines).printer is None
        assert len(case_solids(r, module)) == 1


def test_a_printed_plate_is_its_body_and_its_letters_with_one_origin_face_down() -> None:
    _, r, module = made({"do": "set_school", "module": "plate", "school": "printed"})
    (layer,) = module.plates
    scene = layer_scene(r, module, layer)
    body, letters = plate_solids(layer, scene)
    unlettered = scene._replace(items=tuple(i for i in scene.items if i.operation != "engrave"))
    (blank,) = plate_solids(layer, unlettered)
    assert body.volume + letters.volume == pytest.approx(blank.volume, rel=1e-6)
    openings = sum(s.radius**2 * np.pi for s in (module.openings(layer.id).shape(n) for n in range(6)) if s.radius)
    assert blank.volume < 200 * 120 * layer.thickness
    assert blank.volume > (200 * 120 - 2 * openings) * layer.thickness
    closed(body)
    assert (letters.points[:, 2].min(), letters.points[:, 2].max()) == pytest.approx((0.0, LETTERS_DEEP))
    # Face down, what stands on the left is on the right: the toggle's name is at 200 − 40.
    assert abs(letters.points[:, 0] - 160).min() < 5
    assert abs(letters.points[:, 0] - 40).min() > 20


def test_a_hatch_is_as_large_as_its_cover_fits_the_printer() -> None:
    def hatch(*bed: float) -> tuple[float, float] | None:
        _, r, module = made({**PLAIN, "hatch": True, "thickness": 3}, printer(*bed))
        case = case_of(r, module)
        assert case is not None
        covers = [s.size for s in case_solids(r, module) if s.id == "case-hatch"]
        assert [size[:2] for size in covers] == (
            [pytest.approx(tuple(s + 24 for s in case.hatch))] if case.hatch else []
        )
        return case.hatch

    # The back is 206.6 × 126.6 mm with its gaps and walls, the hatch six tenths of that.
    assert hatch(300, 300) == pytest.approx((0.6 * 206.6, 0.6 * 126.6), abs=0.5)
    assert hatch(90, 140) == pytest.approx((116, 66))  # turned: 140 and 90, less 12 mm on each side
    assert hatch(100, 100) == pytest.approx((76, 76), abs=0.5)
    assert hatch(62, 62) is None


def test_files_are_read_by_others_and_the_same_twice() -> None:
    _, r, _ = made({"do": "set_school", "module": "plate", "school": "printed"}, {**PLAIN, "lip": 8}, printer(150, 150))
    files = {f.name.removeprefix("cut/plate/"): f.content for f in cut_files(r, ())}
    printed = {name for name in files if name.endswith((".stl", ".3mf"))}
    assert printed == {"face.3mf", "face-body.stl", "face-letters.stl", "case.3mf", "case-1.stl", "case-2.stl"}
    assert not any(name.startswith("case-") and name.endswith(".svg") for name in files)
    again = {f.name.removeprefix("cut/plate/"): f.content for f in cut_files(Resolved(r.design), ())}
    assert {n: files[n] for n in printed} == {n: again[n] for n in printed}
    scene = trimesh.load(io.BytesIO(files["face.3mf"]), file_type="3mf")
    assert set(scene.geometry) == {"Printed face", "Printed face, letters"}
    for one, other in combinations(scene.geometry.values(), 2):
        assert one.bounds[0][2] == other.bounds[0][2] == 0  # both lie on the bed


def test_stl_is_read_by_the_3mf_consortiums_library() -> None:
    lib3mf = pytest.importorskip("lib3mf")
    box = trimesh.creation.box((10, 20, 30))
    mesh = Mesh("Box", "#263033", box.vertices, box.faces)
    model = lib3mf.get_wrapper().CreateModel()
    model.QueryReader("stl").ReadFromBuffer(write_stl(mesh))
    objects = model.GetMeshObjects()
    assert objects.MoveNext()
    read = objects.GetCurrentMeshObject()
    assert (read.GetVertexCount(), read.GetTriangleCount()) == (8, 12)
    colours = lib3mf.get_wrapper().CreateModel()
    colours.QueryReader("3mf").ReadFromBuffer(write_3mf([mesh]))
    group = colours.GetBaseMaterialGroups()
    assert group.MoveNext()
    paints = group.GetCurrentBaseMaterialGroup()
    found = paints.GetDisplayColor(paints.GetAllPropertyIDs()[0])
    assert (found.Red, found.Green, found.Blue) == (0x26, 0x30, 0x33)


@pytest.mark.parametrize("size", [(6, 12), (30, 700), (900, 6), (200, 40)])
@pytest.mark.parametrize(("thickness", "lip", "shelf"), [(0.2, 200, 150), (20, 0, 12), (80, 60, 0)])
def test_cases_of_odd_sizes_are_closed_or_not_cut_at_all(
    size: tuple[float, float], thickness: float, lip: float, shelf: float
) -> None:
    odd = {"thickness": thickness, "lip": lip, "shelf": shelf, "room": 0, "hatch": True, "vents": True}
    exits = [{"wall": "top", "diameter": 500, "along": 900}, {"diameter": 2}]
    wide, high = size
    _, r, module = made(
        {"do": "resize_module", "module": "plate", "width": wide, "height": high},
        {**PLAIN, **odd, "exits": exits},
        printer(120, 60, tall=200),
        parts=False,
    )
    for solid in case_solids(r, module):
        assert closed(solid).volume > 0
