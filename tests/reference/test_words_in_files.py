"""Words in the files, read by other libraries: outlines or open strokes, never text, at the height asked for."""

from __future__ import annotations

import io
from typing import get_args

import pytest
import svgelements
from ezdxf.filemanagement import read

from building import adding, made_files, plate
from wingboard.core.changes.commands.legends import EditLegend, SetStyle
from wingboard.core.record.design import Design
from wingboard.core.record.legends import FontName, Graphic
from wingboard.core.resolved.design import Resolved

FONTS = get_args(FontName)
CAP = 6.0


def lettered(font: FontName) -> Design:
    """One button with the name “HEX”, 6 mm high, and a placard."""
    placard = Graphic(id="p", module="plate", kind="placard", text="NO STEP", x=150, y=30, width=60, height=14)
    return plate(
        ("button-22", 60.0, 50.0),
        commands=(
            SetStyle(font=font, name_cap=CAP),
            EditLegend(function="f1", text="HEX"),
            adding(placard),
        ),
    )


@pytest.mark.parametrize("font", FONTS)
def test_dxf_holds_lines_of_the_asked_height_and_no_text(font: FontName) -> None:
    content = made_files(Resolved(lettered(font)), ())["cut/plate/face.dxf"].decode()
    drawing = read(io.StringIO(content))
    assert drawing.audit().errors == []
    engraved = [e for e in drawing.modelspace() if e.dxf.layer == "ENGRAVE"]
    assert {e.dxftype() for e in engraved} == {"LWPOLYLINE"}
    assert not drawing.query("TEXT MTEXT")
    name = [
        [(x, y) for x, y, *_ in e.get_points()]  # type: ignore[attr-defined]
        for e in engraved
    ]
    near = [p for line in name for p in line if all(40 < x < 80 and y > 55 for x, y in line)]
    ys = [y for _, y in near]
    assert max(ys) - min(ys) == pytest.approx(CAP, abs=0.02)
    closed = {bool(e.closed) for e in engraved}  # type: ignore[attr-defined]
    assert closed == ({True} if font != "single-stroke" else {True, False}) or closed == {False}


@pytest.mark.parametrize("font", FONTS)
def test_svg_holds_paths_of_the_asked_height_and_no_text(font: FontName) -> None:
    content = made_files(Resolved(lettered(font)), ())["cut/plate/face.svg"].decode()
    assert "<text" not in content
    assert "font" not in content
    picture = svgelements.SVG.parse(io.StringIO(content), ppi=25.4)  # one unit a millimetre
    boxes = [p.bbox() for p in picture.select(lambda e: isinstance(e, svgelements.Path)) if len(p)]
    near = [b for b in boxes if b and b[0] > 40 and b[2] < 80 and 120 - b[3] > 55 and 4 < b[3] - b[1] < 10]
    assert near
    assert max(b[3] for b in near) - min(b[1] for b in near) == pytest.approx(CAP, abs=0.03)
