"""What hands need: bits by material and size, chains inside their line, jigs of equal edges, lists."""

from __future__ import annotations

import csv
import io
import math
from itertools import combinations

import numpy as np
import pypdfium2
import pytest
import shapely

from building import plate
from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import BATCH
from wingboard.core.cut.again import changed_since, marked
from wingboard.core.cut.beside import region_of
from wingboard.core.cut.byhand import bit_for, hand_work, jigs
from wingboard.core.cut.chains import WITHIN, chain
from wingboard.core.cut.export import cut_file, lists_of
from wingboard.core.files.scene import CirclePath, Item
from wingboard.core.geometry.outline import Loop, rounded_rectangle
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.design import Design
from wingboard.core.resolved.design import Resolved


@pytest.mark.parametrize(
    ("material", "diameter", "deep", "bit", "pilot"),
    [
        ("acrylic", 3.4, None, "twist drill for plastics", 0),
        ("acrylic", 12, None, "step drill", 3),
        ("acrylic", 22.3, None, "Forstner bit", 0),
        ("acrylic", 17, 2.5, "Forstner bit, flat-bottomed", 0),
        ("hardboard", 8, None, "brad-point drill", 0),
        ("plywood", 25, None, "Forstner bit", 0),
        ("aluminium", 8, None, "twist drill", 3),
        ("steel", 16, None, "step drill", 3),
    ],
)
def test_bits_are_those_of_the_trade(
    material: str, diameter: float, deep: float | None, bit: str, pilot: float
) -> None:
    found = bit_for(material, diameter, deep)  # type: ignore[arg-type]
    assert (found.name, found.pilot) == (bit, pilot)
    if material == "acrylic" and diameter > 6 and deep is None:
        assert "no hole saw" in found.mind


@pytest.mark.parametrize(
    "path",
    [CirclePath(50, 40, 52), CirclePath(0, 0, 7.5), rounded_rectangle(60, 30, 4, 10, 10),
     *(rounded_rectangle(width, height, 1.0) for width, height in ((24, 12), (50, 19), (90.5, 8), (33, 13.3)))],
)  # fmt: skip
def test_a_chain_stays_inside_its_line_and_its_holes_almost_touch(path: CirclePath | Loop) -> None:
    item = Item("inner", path, "window")
    holes = [shapely.Point(h.x, h.y).buffer(h.diameter / 2) for h in chain(item)]
    line = region_of([item])
    assert all(line.buffer(-WITHIN + 0.03).contains(h) for h in holes)
    # The bit runs into no hole that is there (0.5 mm stay), and a saw blade's way between neighbours is short.
    assert all(a.distance(b) >= 0.5 - 1e-6 for a, b in combinations(holes, 2))
    assert all(min(a.distance(b) for b in holes if b is not a) < 3.0 for a in holes if len(holes) > 1)
    # All along the line a hole is near: nothing has to be filed that a bit could have taken.
    bit = 2 * math.sqrt(holes[0].area / math.pi)
    way = line.buffer(-WITHIN - bit / 2).boundary
    middles = shapely.MultiPoint([h.centroid for h in holes])
    assert all(way.interpolate(t, normalized=True).distance(middles) <= bit for t in np.linspace(0, 1, 200))
    assert chain(Item("inner", CirclePath(0, 0, 4.5), "too narrow")) == ()


def test_four_corners_of_every_layer_are_one_setting_of_a_jig_and_lists_tell_every_hole() -> None:
    r = Resolved(plate(("button-22", 60, 60), ("toggle-large-on-off", 120, 60)))
    best = jigs(r)[0]
    assert (best.from_side, best.from_end, best.diameter, best.many) == pytest.approx((8, 8, 3.4, 12))
    assert len(best.pieces) == 3
    work = [w for w in hand_work(r) if w.piece == "Plate, face"]
    assert [w.diameter for w in work if w.what == "hole"] == sorted(w.diameter for w in work if w.what == "hole")
    lists = {name: list(csv.DictReader(io.StringIO(text.decode()))) for name, text in lists_of(r).items()}
    assert [(p["piece"], p["width"], p["round_it"], p["machine"]) for p in lists["cut-list.csv"]] == [
        (f"Plate, {layer}", "200.00", "640.00", "by hand") for layer in ("face", "diffuser", "back")
    ]
    for row in lists["hole-table.csv"]:
        assert float(row["from_left"]) + float(row["from_right"]) == pytest.approx(200, abs=0.02)
        assert float(row["from_foot"]) + float(row["from_head"]) == pytest.approx(120, abs=0.02)
    assert sum(int(w["many"]) for w in lists["drill-schedule.csv"] if w["what"] == "hole") >= 12


def test_each_hole_says_the_line_that_is_cut_and_its_jig_stands_on_the_template() -> None:
    start = plate(("button-22", 60, 60), ("toggle-large-on-off", 120, 60))
    assert {row["line"] for row in table(start)} == {""}  # nobody cuts them here
    add = {"do": "add_machine", "id": "it", "name": "It", "kind": "laser", "bed_width": 400, "bed_height": 300,
           "depth": 12, "kerf": 0.2}  # fmt: skip
    fit = {"do": "log_fit", "machine": "it", "material": "acrylic", "thickness": 2, "kerf": 0.3, "wider": 0.15}
    cut = apply(start, BATCH.validate_python([add, fit]), catalogue())
    through = [row for row in table(cut) if row["line"]]
    assert through
    fits = {"Plate, face": 0.3 - 0.15, "Plate, back": 0.2}  # kerf less what is wider; the machine's usual kerf
    for row in through:
        off = fits.get(row["piece"], 0.2)
        assert float(row["line"]) == pytest.approx(float(row["diameter"]) - off, abs=0.011)
    own = apply(cut, BATCH.validate_python([{"do": "edit_machine", "machine": "it", "offsets": True}]), catalogue())
    assert {row["line"] for row in table(own)} == {""}  # its own software moves the line
    r = Resolved(start)
    paper = pypdfium2.PdfDocument(cut_file(r, [], r.modules["plate"], "template-a4.pdf"))
    words = " ".join(paper[len(paper) - 1].get_textpage().get_text_range().split())
    assert "diameter" in words
    assert words.count("8.00 8.00 3.40 192.00 112.00 1") == 1  # a corner's screw: jig 1 of the list


def table(design: Design) -> list[dict[str, str]]:
    text = lists_of(Resolved(design))["hole-table.csv"].decode()
    return list(csv.DictReader(io.StringIO(text)))


def test_what_was_changed_since_a_piece_was_cut_is_named_with_how_far() -> None:
    start = plate(("button-22", 60, 60), ("toggle-large-on-off", 120, 60))
    pieces = [p.model_dump() for p in marked(Resolved(start), {"plate/face", "plate/diffuser", "plate/back"})]
    cut = {"do": "mark_cut", "pieces": pieces}

    def after(*commands: dict[str, object]) -> dict[str, list[str]]:
        return changed_since(Resolved(apply(start, BATCH.validate_python([cut, *commands]), catalogue())))

    assert after() == {}
    moved = after({"do": "move", "functions": ["f1"], "dx": 2.7, "dy": 0})
    assert moved == {f"plate/{layer}": ["F1 moved 2.7 mm"] for layer in ("face", "diffuser", "back")}
    assert after({"do": "edit_function", "function": "f2", "name": "Pump"}) == {"plate/face": ["Pump reads otherwise"]}
    assert after({"do": "edit_layer", "layer": "back", "thickness": 4})["plate/back"][0].startswith("its sheet")
    other = after({"do": "choose_part", "function": "f1", "part": "button-16-lit"})
    assert all("F1 has other openings" in reasons for reasons in other.values())
    gone = after({"do": "remove", "functions": ["f2"]})
    assert all("F2 is gone" in reasons for reasons in gone.values())
