"""Every field of the brief, the workshop and an own part: what is typed arrives in the record, nonsense does not."""

from __future__ import annotations

import re
from functools import reduce
from pathlib import Path
from typing import Any

import pytest
import svgwrite
from playwright.sync_api import Locator, Page, expect

from wingboard.services.desk import Desk

TRAM = "kestrel-line-9"
Field = tuple[str, str, str, str, Any]
"""The region or group, the label, what is typed or chosen, the place in the record, what stands there then."""

SPACE: list[Field] = [
    ("Opening", "Width measured, reading 1", "29-1/8 in", "brief.widths.0", 739.775),
    ("Opening", "Edges are cut by", "mill", "brief.process", "mill"),
    ("Opening", "Gap on each side", "1/64 in", "brief.gap", 0.396875),
    ("Opening", "Free depth", "88", "brief.depth", 88),
    ("Who uses it", "Tilt, °", "-12", "brief.pitch", -12),
    ("Who uses it", "Eye to middle, mm", "710", "brief.eye_distance", 710),
    ("Who uses it", "Eye above middle", "-3 in", "brief.eye_height", -76.2),
    ("Who uses it", "Free hand", "both", "brief.free_hand", "both"),
    ("Who uses it", "Reach of the arm", "590", "brief.reach", 590),
    ("Who uses it", "Edge over floor", "720", "brief.seat.edge_height", 720),
    ("Who uses it", "Knee over floor", "600", "brief.seat.knee_height", 600),
    ("Who uses it", "Knee past edge", "45", "brief.seat.knee_reach", 45),
    ("Behind the opening", "What is in the way", "angle iron", "brief.keepouts.0.name", "angle iron"),
    ("Behind the opening", "angle iron, where", "front", "brief.keepouts.0.side", "front"),
    ("Behind the opening", "angle iron, width", "500", "brief.keepouts.0.width", 500),
    ("Behind the opening", "angle iron, depth left free", "1-1/4 in", "brief.keepouts.0.clear", 31.75),
    ("Modules", "Left module, tolerance of its width", "0.15", "modules.0.tolerance", 0.15),
    ("Modules", "Left module, x in the opening", "0.6", "modules.0.x", 0.6),
    ("Layers", "Face, thickness", "2.5", "stack.0.thickness", 2.5),
]
WORKSHOP: list[Field] = [
    ("Laser", "Bed, width", "24 in", "workshop.machines.0.bed_width", 609.6),
    ("Laser", "Height", "400", "workshop.machines.0.bed_height", 400),
    ("Laser", "Margin", "8", "workshop.machines.0.margin", 8),
    ("Laser", "Thickest", "5", "workshop.machines.0.depth", 5),
    ("Laser", "Kerf", "0.2", "workshop.machines.0.kerf", 0.2),
    ("Laser", "Power, W", "60", "workshop.machines.0.watts", 60),
    ("Laser", "Fastest, mm/min", "12000", "workshop.machines.0.feed", 12000),
    ("Mill", "Acceleration, mm/s²", "150", "workshop.machines.1.acceleration", 150),
    ("Mill", "Cutters: mm × flutes, tip°/flat", "1/8in×2, 1×1", "workshop.machines.1.tools.0.diameter", 3.175),
    ("Supplies and boards", "Name of the supply", "Bench supply", "workshop.supplies.0.name", "Bench supply"),
    ("Supplies and boards", "Bench supply, volts", "12", "workshop.supplies.0.volts", 12),
    ("Supplies and boards", "Bench supply, amps", "2.5", "workshop.supplies.0.amps", 2.5),
]
NONSENSE: list[tuple[str, str, str, str]] = [
    ("Space", "Gap on each side", "a little", "is not a length"),
    ("Space", "Tilt, °", "120", ""),
    ("Space", "Free depth", "-5", ""),
    ("Space", "Reach of the arm", "1e9", ""),
    ("Workshop", "Kerf", "wide", "is not a length"),
    ("Workshop", "Cutters: mm × flutes, tip°/flat", "3×2, blunt", "is not a length"),
    ("Workshop", "Cutters: mm × flutes, tip°/flat", "3×90", "1 to 12 flutes"),
]


def at(desk: Desk, path: str) -> Any:
    """What stands at a place of the kept record."""

    def step(there: Any, name: str) -> Any:
        return there[int(name)] if name.isdigit() else getattr(there, name)

    return reduce(step, path.split("."), desk.open(TRAM).design)


def brief(page: Page, address: str, tab: str) -> None:
    """A tab of the tram desk's brief."""
    page.goto(f"{address}/d/{TRAM}/brief")
    page.get_by_role("tab", name=tab).click()


def give(field: Locator, value: str) -> None:
    """Type or choose."""
    if field.evaluate("e => e.tagName") == "SELECT":
        field.select_option(value)
    else:
        field.fill(value)
        field.press("Enter")


@pytest.mark.parametrize(("tab", "fields"), [("Space", SPACE), ("Workshop", WORKSHOP)], ids=["space", "workshop"])
def test_what_is_typed_arrives(watched: Page, address: str, demo_desk: Desk, tab: str, fields: list[Field]) -> None:
    brief(watched, address, tab)
    for n, (where, label, typed, path, value) in enumerate(fields, 2):
        place = watched.get_by_role("region", name=where, exact=True).or_(
            watched.get_by_role("group", name=where, exact=True)
        )
        give(place.get_by_label(label, exact=True).first, typed)
        expect(watched.get_by_role("status").first, label).to_contain_text(f"revision {n}")
        kept = at(demo_desk, path)
        assert kept == (pytest.approx(value) if isinstance(value, float) else value), label


@pytest.mark.parametrize(("tab", "label", "typed", "words"), NONSENSE, ids=[row[2] for row in NONSENSE])
def test_nonsense_is_said_at_its_field_and_changes_nothing(
    watched: Page, address: str, demo_desk: Desk, tab: str, label: str, typed: str, words: str
) -> None:
    brief(watched, address, tab)
    field = watched.get_by_label(label, exact=True).first
    before = field.input_value()
    give(field, typed)
    expect(field).to_have_attribute("aria-invalid", "true")
    expect(watched.get_by_role("alert")).to_contain_text(words)
    expect(field).to_have_value(typed)
    field.press("Escape")
    expect(field).to_have_value(before)
    assert demo_desk.open(TRAM).row.number == 1


def test_the_opening_is_traced_and_split_anew(watched: Page, address: str, demo_desk: Desk) -> None:
    page = watched
    brief(page, address, "Space")
    page.get_by_role("button", name=re.compile("[Tt]race|[Cc]orners")).first.click()
    sheet = page.get_by_role("dialog")
    corners = sheet.get_by_label("Corners, one a line")
    corners.fill("0 0\n600 0\n600 up")
    expect(sheet.get_by_role("alert")).to_be_visible()
    expect(sheet.get_by_role("button", name="Use this outline")).to_be_disabled()
    corners.fill("0 0\n600 0\n600 200 0.2\n0 200")
    sheet.get_by_role("button", name="Use this outline").click()
    expect(page.get_by_role("status").first).to_contain_text("revision 2")
    assert len(demo_desk.open(TRAM).design.brief.opening.loop()) == 4
    page.get_by_role("button", name="Split the opening again…").click()
    names = page.get_by_label("Modules from left to right")
    names.fill("Port, Starboard")
    names.press("Enter")
    page.get_by_role("button", name="Split into 2").click()
    expect(page.get_by_role("status").first).to_contain_text("revision 3")
    design = demo_desk.open(TRAM).design
    assert [p.name for p in design.modules] == ["Port", "Starboard"]
    assert all(f.place is None for f in design.functions)
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("status").first).to_contain_text("revision 4")
    assert all(f.place for f in demo_desk.open(TRAM).design.functions)


MINE: list[tuple[str, str, str, Any]] = [
    ("Name of this part", "Route, as bought", "name", "Route, as bought"),
    ("Height in front", "7/8 in", "height", 22.225),
    ("Plug or bend", "12", "plug", 12),
    ("Clamps beside", "2", "clamp", 2),
    ("Body off centre, right", "-1.5", "behind_x", -1.5),
    ("Body off centre, up", "3", "behind_y", 3),
    ("Cable leaves", "left", "cable", "left"),
    ("Price, each", "4.20", "price", 420),
    ("Bought for each", "2", "times", 2),
]


def test_an_own_part_is_described_and_takes_its_cut_out_from_a_drawing(
    watched: Page, address: str, demo_desk: Desk, tmp_path: Path
) -> None:
    page = watched
    page.goto(f"{address}/d/{TRAM}/parts?sel=f4")
    page.get_by_role("button", name="Measure yours").click()
    expect(page.get_by_role("status").first).to_contain_text("revision 2")

    def mine() -> Any:
        return demo_desk.open(TRAM).design.parts[-1]

    form = page.get_by_role("region", name="Measure yours")
    for n, (label, typed, name, value) in enumerate(MINE, 3):
        give(form.get_by_label(label, exact=True), typed)
        expect(page.get_by_role("status").first, label).to_contain_text(f"revision {n}")
        assert getattr(mine(), name) == (pytest.approx(value) if isinstance(value, float) else value), label
    drawing = svgwrite.Drawing(str(tmp_path / "hole.svg"), size=("30mm", "20mm"), viewBox="0 0 30 20")
    drawing.add(drawing.rect((2, 2), (26, 16)))
    drawing.save()
    form.get_by_label("Drawing of the cut-out").set_input_files(tmp_path / "hole.svg")
    expect(page.get_by_role("status").first).to_contain_text(f"revision {len(MINE) + 3}")
    assert mine().hole.span == pytest.approx((26, 16))
    (tmp_path / "bad.svg").write_text("<svg")
    form.get_by_label("Drawing of the cut-out").set_input_files(tmp_path / "bad.svg")
    expect(form.get_by_role("alert")).to_contain_text("bad.svg")
    assert mine().hole.span == pytest.approx((26, 16))
