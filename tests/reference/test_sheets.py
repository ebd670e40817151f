"""Programs and lines of the demo's sheets, read by other people's readers: every hole once, beside its line."""

from __future__ import annotations

import io
import math
import os
import subprocess
import sys
from collections import Counter

import ezdxf
import pypdfium2
import pytest
import shapely
import svgelements
from ezdxf.filemanagement import read as read_dxf
from gcodeparser import parse_gcode_lines

from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import BATCH
from wingboard.core.cut.export import cut_file
from wingboard.core.cut.jobsheet_pdf import job_sheet_pdf
from wingboard.core.cut.pieces import pieces_of
from wingboard.core.cut.plan import planned, program_files, sheet_files, sheet_scene
from wingboard.core.cut.scenes import layer_scene, module_scenes
from wingboard.core.cut.sheets import Sheet, layout
from wingboard.core.cut.work import fit_of
from wingboard.core.files.dxf import write_dxf
from wingboard.core.files.scene import CirclePath
from wingboard.core.overview.review import review
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.document import read_design
from wingboard.core.resolved.design import Resolved
from wingboard.demo import demo_texts

DEMO = {name: Resolved(read_design(text, catalogue())) for name, text in demo_texts().items()}
SHEETS = [(r, sheet) for r in DEMO.values() for sheet in layout(r).sheets]
MOVES = [("G", n) for n in range(4)]
Hole = tuple[float, float, float]


def drawn_holes(r: Resolved, sheet: Sheet) -> list[Hole]:
    """The round holes of a sheet: middle and diameter (mm)."""
    items = [i.path for i in sheet_scene(r, sheet).of("inner")]
    return [(p.x, p.y, p.diameter) for p in items if isinstance(p, CirclePath)]


def milled_holes(content: bytes) -> list[Hole]:
    """Middles and radii of what a program goes round exactly once at its greatest depth, by an independent parser."""
    at = {"X": 0.0, "Y": 0.0, "Z": 0.0}
    lines = [line for line in parse_gcode_lines(content.decode("ascii")) if line.command in MOVES]
    depth = min((line.params.get("Z", 0.0) for line in lines), default=0.0)
    turned: Counter[Hole] = Counter()
    for line in lines:
        to = {axis: line.params.get(axis, before) for axis, before in at.items()}
        if line.command in MOVES[2:] and max(at["Z"], to["Z"]) <= depth + 1e-6:
            assert line.command == ("G", 3)  # inside an opening, what stays is on the right
            cx, cy = at["X"] + line.params.get("I", 0.0), at["Y"] + line.params.get("J", 0.0)
            turn = math.atan2(to["Y"] - cy, to["X"] - cx) - math.atan2(at["Y"] - cy, at["X"] - cx)
            hole = round(cx, 1), round(cy, 1), round(math.dist((at["X"], at["Y"]), (cx, cy)), 2)
            turned[hole] += turn % (2 * math.pi)  # type: ignore[assignment]
        at = to
    return [hole for hole, turn in turned.items() if abs(turn - 2 * math.pi) < 0.05]


@pytest.mark.parametrize("n", range(len(SHEETS)))
def test_every_round_hole_is_in_the_program_once_and_half_a_cut_inside_its_line(n: int) -> None:
    r, sheet = SHEETS[n]
    files = {f.name: f.content for f in program_files(r, sheet)}
    found: list[tuple[Hole, float]] = []
    for k, op in enumerate((op for op in planned(r, sheet) if op.cuts), 1):
        if op.kind == "inner":
            content = next(c for name, c in files.items() if name.startswith(f"{k}-"))
            found += [(hole, op.width) for hole in milled_holes(content)]
    for x, y, diameter in drawn_holes(r, sheet):
        mine = [(hole, w) for hole, w in found if math.dist(hole[:2], (x, y)) < 0.1]
        assert [(2 * hole[2] + w) == pytest.approx(diameter, abs=0.025) for hole, w in mine] == [True]


def test_lines_with_the_kerf_taken_off_are_read_alike_from_dxf_and_svg() -> None:
    for r, sheet in SHEETS:
        fit = fit_of(r.design, sheet.machine, sheet.material, sheet.thickness)
        laser = sheet.machine.kind == "laser"
        files = {f.name: f.content for f in sheet_files(r, sheet)}
        stem = "lines-kerf-taken-off" if laser else "lines-drawn-edge"
        wanted = sorted((x, y, d - (fit.kerf if laser else 0)) for x, y, d in drawn_holes(r, sheet))
        drawing = ezdxf.read(io.StringIO(files[f"{stem}.dxf"].decode()))  # type: ignore[attr-defined]
        assert not drawing.audit().errors
        circles = [e for e in drawing.modelspace() if e.dxftype() == "CIRCLE" and e.dxf.layer == "INNER"]
        dxf = sorted((e.dxf.center.x, e.dxf.center.y, 2 * e.dxf.radius) for e in circles)
        svg = svgelements.SVG.parse(io.StringIO(files[f"{stem}.svg"].decode()), ppi=25.4)
        rings = sorted(
            (float(c.cx), sheet.height - float(c.cy), 2 * float(c.rx))
            for c in svg.elements()
            if isinstance(c, svgelements.Circle) and c.values.get("stroke", "").lower() == "#0b6b74"
        )
        for read in (dxf, rings):
            assert len(read) == len(wanted)
            assert all(a == pytest.approx(b, abs=0.01) for a, b in zip(read, wanted, strict=True))


def test_a_drawing_is_the_same_bytes_whatever_order_sets_come_in() -> None:
    code = (
        "import hashlib; from wingboard.core.files.dxf import write_dxf; from wingboard.core.files.scene import Scene\n"
        "print(hashlib.sha256(write_dxf(Scene('t', 9, 9, 2, ()))).hexdigest())"
    )

    def under(seed: int) -> str:
        seeded = {**os.environ, "PYTHONHASHSEED": str(seed)}
        return subprocess.run(
            [sys.executable, "-c", code], env=seeded, capture_output=True, check=True, text=True
        ).stdout

    assert len({under(seed) for seed in (0, 4, 5)}) == 1


def test_the_job_sheet_names_every_sheet_and_every_step_with_its_box() -> None:
    r = DEMO["kestrel-line-9"]
    pdf = pypdfium2.PdfDocument(job_sheet_pdf(r, review(r)))
    text = " ".join(" ".join(page.get_textpage().get_text_bounded().split()) for page in pdf)
    for n, sheet in enumerate(layout(r).sheets, 1):
        assert f"Sheet {n}: {sheet.machine.name}" in text
        for k, op in enumerate(planned(r, sheet), 1):
            assert f"{k}. {op.title}" in text
    assert "never leave it running alone" in text
    assert job_sheet_pdf(r, review(r)) == job_sheet_pdf(Resolved(r.design), review(r))


def test_words_in_film_are_the_same_letters_to_other_readers() -> None:
    """Areas of the letters, film's size and every line's count: ezdxf and svgelements against the face's engraving."""
    demo = DEMO["kestrel-line-9"].design
    said = [{"do": "set_lettering", "module": "left", "way": "vinyl"}]
    r = Resolved(apply(demo, BATCH.validate_python(said), catalogue()))
    module = r.modules["left"]
    engraved = layer_scene(DEMO["kestrel-line-9"], DEMO["kestrel-line-9"].modules["left"], module.stack[0]).of(
        "engrave"
    )
    drawn = read_dxf(io.StringIO((cut_file(r, [], module, "words-vinyl.dxf") or b"").decode()))
    assert not drawn.audit().errors
    lines = [e for e in drawn.modelspace() if e.dxf.layer == "MASK"]
    boxes = [i for i in module_scenes(r, module)["words-vinyl"].items if i.label in ("weeding box", "guide line")]
    assert len(lines) == len([i for i in engraved if not i.open]) + len(boxes)
    (frame,) = [e for e in drawn.modelspace() if e.dxf.layer == "OUTLINE"]
    xs = [p[0] for p in frame.get_points()]  # type: ignore[attr-defined]
    assert max(xs) - min(xs) == pytest.approx(module.size[0] + 12, abs=0.01)  # 6 mm on either side
    svg = svgelements.SVG.parse(io.BytesIO(cut_file(r, [], module, "words-vinyl.svg") or b""), ppi=25.4)
    paths = [e for e in svg.elements() if isinstance(e, svgelements.Path) and e.values.get("data-for") == "weeding box"]
    assert len(paths) == len([i for i in boxes if i.label == "weeding box"])
    words = [e.bbox() for e in svg.elements()
             if isinstance(e, svgelements.Path) and ", " in str(e.values.get("data-for"))]  # fmt: skip
    around = [p.bbox() for p in paths]
    for x0, y0, x1, y1 in words:  # each letter within some box, 2.5 mm from its edges
        assert any(a <= x0 - 2.4 and b <= y0 - 2.4 and c >= x1 + 2.4 and d >= y1 + 2.4 for a, b, c, d in around)


def test_a_masks_program_keeps_to_little_power_by_another_parser() -> None:
    demo = DEMO["kestrel-line-9"].design
    said = [{"do": "set_lettering", "module": "right", "way": "mask"}]
    r = Resolved(apply(demo, BATCH.validate_python(said), catalogue()))
    sheet = next(s for s in layout(r).sheets if any(laid.piece.id == "right/face" for laid in s.laid))
    files = {f.name: f.content.decode("ascii") for f in program_files(r, sheet)}
    powers = {line.params["S"] for line in parse_gcode_lines(files["1-mask.nc"]) if "S" in line.params}
    assert powers == {50}  # of 1000: what cuts a film and not what is under it
    through = {line.params["S"] for line in parse_gcode_lines(files["2-inner.nc"]) if "S" in line.params}
    assert max(through) == 1000


def test_tongues_of_a_parted_sheet_fit_each_other_as_another_reader_sees_them() -> None:
    """Both parts' outlines read from their DXF by ezdxf: together they are the whole, with nothing twice."""
    demo = DEMO["kestrel-line-9"].design
    said = [
        {"do": "edit_machine", "machine": "laser", "bed_width": 240, "bed_height": 160},
        {"do": "set_split", "piece": "right/face", "at": [118.0], "joint": "tongues"},
    ]
    r = Resolved(apply(demo, BATCH.validate_python(said), catalogue()))
    parts = [p for p in pieces_of(r) if p.of == "right/face"]
    areas = []
    for part in parts:
        read = read_dxf(io.StringIO(write_dxf(part.drawn).decode()))
        (rim,) = [e for e in read.modelspace() if e.dxf.layer == "OUTLINE"]
        points = [(p[0] + part.x, p[1] + part.y) for p in rim.get_points()]  # type: ignore[attr-defined]
        areas.append(shapely.Polygon(points))
    assert areas[0].intersection(areas[1]).area < 0.05
    whole = r.modules["right"].area
    assert shapely.union_all(areas).symmetric_difference(whole).area < 0.3
    assert areas[0].bounds[2] - 118 == pytest.approx(9, abs=0.05)  # as far as a tongue reaches
