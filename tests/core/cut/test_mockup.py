"""The mock-up on paper, read back by an independent PDF reader: true to size, mirrored behind, tiled with overlap."""

from __future__ import annotations

from typing import Any

import numpy as np
import pypdfium2
import pytest

from building import made_files, plate
from wingboard.core.changes.apply import apply
from wingboard.core.changes.commands.layers import SetSchool
from wingboard.core.changes.commands.legends import EditLegend
from wingboard.core.changes.commands.modules import EditModule
from wingboard.core.changes.commands.parts import ChoosePart, CopyPart, EditPart
from wingboard.core.changes.commands.places import TurnItems
from wingboard.core.cut.export import cut_file, cut_file_names
from wingboard.core.cut.inserts import insert_scene
from wingboard.core.cut.mockup import mockup_face, mockup_rear
from wingboard.core.files.papers import PAPERS, Paper
from wingboard.core.files.scene import CirclePath
from wingboard.core.files.template import FOOT, MARGIN, OVERLAP, tiling
from wingboard.core.overview.review import review
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.design import Design
from wingboard.core.record.outlines import RectOutline
from wingboard.core.resolved.design import Resolved
from wingboard.core.stack.holds import held

POINT = 25.4 / 72
"""Millimetres of a PDF's point (ISO 32000-1, 8.3.2.3)."""
ONE = plate(("button-22", 50, 40), ("toggle-large-on-off", 150, 80))


def page(design: Design, name: str, number: int = 0) -> tuple[Any, float, float, int]:
    """A page of a file as grey values at 10 dots a mm, its size in mm, and how many pages there are."""
    r = Resolved(design)
    content = cut_file(r, review(r), r.modules["plate"], name)
    assert content is not None
    document = pypdfium2.PdfDocument(content)
    shown = document[number]
    width, height = shown.get_size()
    grey = np.asarray(shown.render(scale=10 * POINT, grayscale=True).to_numpy()).squeeze()
    return grey, width * POINT, height * POINT, len(document)


def dark_at(grey: Any, x: float, y: float) -> bool:
    """Whether something is drawn within 0.25 mm of a place of the scene on the first page."""
    column, row = (MARGIN + 1 + x) * 10, grey.shape[0] - (MARGIN + FOOT + 1 + y) * 10
    return bool(grey[int(row) - 3 : int(row) + 4, int(column) - 3 : int(column) + 4].min() < 200)


@pytest.mark.parametrize("paper", list(PAPERS))
def test_pages_have_the_papers_size_and_everything_is_at_its_place(paper: Paper) -> None:
    grey, width, height, pages = page(ONE, f"mock-up-face-{paper}.pdf")
    assert sorted((width, height)) == pytest.approx(sorted(PAPERS[paper]), abs=0.1)
    assert pages == 1
    for x, y in ((50, 40), (50 + 11.15, 40), (150, 80), (0, 60), (200, 60), (100, 120)):
        assert dark_at(grey, x, y), (x, y)  # centre marks, the 22 mm hole's edge (IEC 60947-5-1: 22.3 mm), the plate
    assert not dark_at(grey, 100, 60)


def test_the_rear_is_seen_from_behind_with_bodies_and_no_words() -> None:
    grey, *_ = page(ONE, "mock-up-rear-a4.pdf")
    assert dark_at(grey, 200 - 50, 40)
    assert dark_at(grey, 200 - 150, 80)
    r = Resolved(ONE)
    rear, face = mockup_rear(r, r.modules["plate"]), mockup_face(r, r.modules["plate"])
    assert any(i.label.endswith("body") for i in rear.items)
    assert not rear.of("engrave")
    assert face.of("engrave")
    assert {i.path for i in face.items if i.label == "F1, hole"} == {CirclePath(50, 40, 22.3)}


def test_what_lies_off_its_axis_behind_is_drawn_where_it_is() -> None:
    moved = (
        CopyPart(part="toggle-large-on-off", id="mine", name="Mine"),
        EditPart(part="mine", behind_x=10, behind_y=0, clamp=2),
        ChoosePart(function="f2", part="mine"),
        TurnItems(functions=("f2",), by=90),
    )
    r = Resolved(apply(ONE, moved, catalogue()))
    body = next(i for i in mockup_rear(r, r.modules["plate"]).items if i.label == "F2, body")
    assert not isinstance(body.path, CirclePath)
    xs, ys = [v.x for v in body.path], [v.y for v in body.path]
    assert (min(xs) + max(xs)) / 2 == pytest.approx(200 - 150)
    assert (min(ys) + max(ys)) / 2 == pytest.approx(80 + 10)  # 10 mm to the right of it, turned a quarter: upwards


def test_a_large_panel_is_tiled_and_the_tiles_overlap() -> None:
    large = EditModule(module="plate", outline=RectOutline(width=700, height=300))
    *_, pages = page(apply(ONE, (large,), catalogue()), "mock-up-face-a4.pdf")
    spread = tiling(700, 300, "a4")
    assert pages == spread.rows * spread.columns > 1
    tiles = list(spread.tiles())
    assert tiles[-1].x + spread.window[0] >= 702
    assert tiles[-1].y + spread.window[1] >= 302
    assert tiles[1].x - tiles[0].x == pytest.approx(spread.window[0] - OVERLAP)


def test_every_file_named_can_be_had_and_opened_twice_the_same() -> None:
    r = Resolved(ONE)
    found = review(r)
    names = cut_file_names(r, r.modules["plate"])
    assert sum(name.startswith("mock-up") for name in names) == 2 * len(PAPERS)
    files = made_files(r, found)
    for name in names:
        content = cut_file(r, found, r.modules["plate"], name)
        assert content == files[f"cut/plate/{name}"]
    assert made_files(Resolved(ONE), found) == files


def test_lens_inserts_are_printed_left_for_right_at_the_size_of_their_lenses() -> None:
    design = apply(
        plate(("caption-two-lamp", 50, 60), ("caption-two-lamp", 120, 60), ("button-22", 170, 60)),
        (EditLegend(function="f1", text="L", side="inside"), EditLegend(function="f2", text="J", side="inside")),
        catalogue(),
    )
    r = Resolved(design)
    scene = insert_scene(r, r.modules["plate"])
    assert scene is not None
    wide, high = catalogue()["caption-two-lamp"].hole.span
    lenses = [item for item in scene.items if item.operation == "inner"]
    assert len(lenses) == 2  # the button has nothing on its lens
    grey, *_ = page(design, "lens-inserts-a4.pdf")
    for item, letter in zip(lenses, "LJ", strict=True):
        assert not isinstance(item.path, CirclePath)
        xs, ys = [v.x for v in item.path], [v.y for v in item.path]
        assert (max(xs) - min(xs), max(ys) - min(ys)) == pytest.approx((wide, high), abs=1e-6)
        loop = next(i.path for i in scene.items if i.label.endswith(f", {letter}"))
        assert not isinstance(loop, CirclePath)
        # The upright of an L stands at its left, of a J at its right; on the print it is the other way round.
        middle = (min(v.x for v in loop) + max(v.x for v in loop)) / 2
        top = max(v.y for v in loop)
        upright = [v.x for v in loop if v.y > top - 0.2]
        assert (sum(upright) / len(upright) > middle) == (letter == "L")
        assert dark_at(grey, min(xs), (min(ys) + max(ys)) / 2)
    other = apply(design, (EditLegend(function="f1", hidden=True), EditLegend(function="f2", hidden=True)), catalogue())
    assert insert_scene(Resolved(other), Resolved(other).modules["plate"]) is None


def test_a_face_engraved_from_behind_has_a_file_left_for_right_and_says_so() -> None:
    reverse = apply(ONE, (SetSchool(school="reverse"), EditLegend(function="f1", text="L")), catalogue())
    r = Resolved(reverse)
    module = r.modules["plate"]
    names = cut_file_names(r, module)
    assert {"face-from-behind.svg", "face-from-behind.dxf"} <= set(names)
    assert "back-from-behind.svg" not in names
    assert "face-from-behind.svg" not in cut_file_names(Resolved(ONE), Resolved(ONE).modules["plate"])
    assert "left for right" in held(r, module)[0].said()
    as_seen, turned_over = (cut_file(r, (), module, f"face{end}.svg") for end in ("", "-from-behind"))
    assert as_seen != turned_over
