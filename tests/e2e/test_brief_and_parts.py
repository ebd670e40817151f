"""From an empty design to measured and chosen parts: half by mouse, half by the keyboard alone."""

from __future__ import annotations

import io
import re
from pathlib import Path

import pytest
from browser import at_rest
from ezdxf import units
from ezdxf.filemanagement import new
from playwright.sync_api import Page, expect

from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.design import Design
from wingboard.services.desk import Desk

SPREADSHEET = "\n".join(
    "\t".join(row)
    for row in [
        ("name", "group", "want", "volts", "amps", "positions", "indicator"),
        ("Master key", "Power", "key switch", "", "", "ON/OFF", ""),
        ("Cab light", "Light", "toggle", "24", "2", "ON/OFF", ""),
        ("Saloon heat", "Heat", "toggle", "24", "6", "ON/OFF", ""),
        ("Fan speed", "Heat", "rotary", "24", "1", "0/1/2/3", ""),
        ("Route", "Traction", "rotary", "", "", "DEP/1/2/4/7/9/EXP", ""),
        ("Doors left", "Doors", "push button lit green", "", "", "", ""),
        ("Doors right", "Doors", "push button lit green", "", "", "", ""),
        ("Doors closed", "Doors", "caption amber", "", "", "", ""),
        ("Wheel slip", "Traction", "caption amber", "", "", "", ""),
        ("Brake", "Traction", "caption red", "", "", "", ""),
        ("Speed", "Traction", "read-out 4 digits", "", "", "", ""),
        ("Gong", "Warn", "push button", "", "", "", ""),
        ("Wiper", "Light", "toggle three ways", "24", "3", "INT/OFF/ON", ""),
        ("Broken one", "Light", "toggle", "24", "lots", "", ""),
        ("PA volume", "Warn", "knob", "", "", "", ""),
        ("Radio", "Warn", "encoder", "", "", "", ""),
        ("Emergency stop", "Power", "mushroom latching", "", "", "", ""),
        ("Gong", "Warn", "push button", "", "", "", ""),
        ("Sander", "Traction", "push button", "", "", "", "amber lamp"),
        ("Headlights", "Light", "toggle", "24", "4", "ON/OFF", ""),
    ]
)
"""Twenty functions, two of which make no sense: “lots” of amperes, and the gong a second time."""


SUGGESTED = (("Nothing tests the lamps", "Lamp test"), ("Nothing dims", "Legend dimmer"), ("a lost link", "Lost link"))


def drawing(path: Path) -> Path:
    """An opening with an arched top, in inches, as a drawing program would leave it."""
    document = new("R2010")
    document.units = units.IN
    corners = [(0, 0, 0), (16, 0, 0), (16, 8, 0.1), (0, 8, 0)]
    document.modelspace().add_lwpolyline(corners, format="xyb", close=True)
    stream = io.StringIO()
    document.write(stream)
    path.write_text(stream.getvalue())
    return path


def kept(desk: Desk) -> Design:
    """The new design as it is kept."""
    return desk.open("number-nine").design


def begin(page: Page, address: str) -> None:
    """The three questions of a first visit."""
    page.goto(f"{address}/new")
    page.get_by_label("What is it called?").fill("Number Nine")
    page.get_by_label("What kind of panel?").select_option("cab")
    page.get_by_label("Opening, width").fill("16 in")
    page.get_by_label("Opening, width").press("Enter")
    page.get_by_label("laser").check()
    page.get_by_role("button", name="Create the panel").click()
    expect(page.get_by_text("Nothing listed yet")).to_be_visible()


def _paste_a_list(page: Page, desk: Desk) -> None:
    field = page.get_by_label("New function")
    field.focus()
    page.evaluate(
        """text => {
          const data = new DataTransfer();
          data.setData("text", text);
          document.activeElement.dispatchEvent(
            new ClipboardEvent("paste", { clipboardData: data, bubbles: true, cancelable: true }));
        }""",
        SPREADSHEET,
    )
    faults = page.get_by_role("region", name="Lines not understood")
    expect(faults).to_contain_text("2 lines not understood")
    expect(faults).to_contain_text("amps “lots” is not a number")
    expect(faults).to_contain_text("“Gong” is on the list already")
    page.get_by_role("button", name="Add 18 functions").click()
    expect(page.get_by_role("gridcell", name=re.compile("^Saloon heat"))).to_be_visible()
    assert len(kept(desk).functions) == 18


def _follow_suggestions(page: Page, desk: Desk) -> None:
    page.get_by_role("button", name="Look", exact=True).click()
    before = len(kept(desk).functions)
    for title, name in SUGGESTED:
        rows = page.locator("[data-code='brief.forgotten']").filter(has_text=title)
        rows.get_by_role("button").first.click()
        rows.get_by_role("button", name=re.compile("^Add")).click()
        expect(page.get_by_role("gridcell", name=re.compile(f"^{name}"))).to_be_visible()
    assert len(kept(desk).functions) == before + 3
    page.locator("[data-code='brief.forgotten']").filter(has_text="No way out for the cable").get_by_role(
        "button"
    ).first.click()
    page.get_by_role("button", name="Accept… A").click()
    page.get_by_label(re.compile("Reason to accept it")).fill("it leaves through the floor")
    page.get_by_label(re.compile("Reason to accept it")).press("Enter")
    expect(page.get_by_text("Accepted: it leaves through the floor")).to_be_visible()


def _draw_the_opening(page: Page, folder: Path) -> None:
    page.get_by_role("tab", name="Space").click()
    page.get_by_label("Drawing of the opening").set_input_files(drawing(folder / "opening.dxf"))
    page.get_by_role("button", name=re.compile("Take 406.4 ×")).click()
    expect(page.get_by_text(re.compile("406.4 × 223.5, 4 corners"))).to_be_visible()
    broken = folder / "broken.dxf"
    broken.write_text("0\nSECTION\nnonsense")
    page.get_by_label("Drawing of the opening").set_input_files(broken)
    expect(page.get_by_role("alert")).to_contain_text("broken.dxf: It cannot be read as DXF text")


def _measure_and_choose(page: Page) -> None:
    page.keyboard.press("Escape")
    page.keyboard.press("/")
    page.keyboard.type("route")
    expect(page.get_by_role("dialog").get_by_role("option").first).to_contain_text("Route")
    page.keyboard.press("Enter")
    page.keyboard.press("2")
    ways = page.get_by_role("region", name="Ways to make Route")
    ladder = ways.get_by_role("button", name=re.compile("^Rotary switch, 12 ways, ladder"))
    ladder.focus()
    page.keyboard.press("Enter")
    expect(page.get_by_text("✓ Chosen for Route")).to_be_visible()
    expect(ways.get_by_role("row").filter(has_text="chosen")).to_contain_text("1 A")
    page.get_by_role("button", name="Measure yours").focus()
    page.keyboard.press("Enter")
    for n, reading in enumerate(("3/8in", "9.51", "9.56"), 1):
        page.get_by_label(f"Bush or neck, reading {n}").focus()
        page.keyboard.type(reading)
        page.keyboard.press("Enter")
        expect(page.get_by_label(f"Bush or neck, reading {n}")).not_to_have_value(reading if "in" in reading else "")
        at_rest(page)
    expect(page.get_by_text("spread 0.05")).to_be_visible()
    expect(page.get_by_role("row", name=re.compile("^Hole"))).to_contain_text("⌀ 9.76")
    page.get_by_role("button", name=re.compile("^Choose .+ for Route")).focus()
    page.keyboard.press("Enter")
    expect(page.get_by_text("✓ Chosen for Route")).to_be_visible()


def test_from_nothing_to_a_chosen_part(watched: Page, address: str, demo_desk: Desk, tmp_path: Path) -> None:
    page = watched
    begin(page, address)
    made = kept(demo_desk)
    assert made.brief.opening.loop()[1].x == pytest.approx(406.4)
    assert [m.kind for m in made.workshop.machines] == ["laser"]
    assert made.brief.process == "laser"

    # By mouse: the spreadsheet, the suggestions, the drawing.
    _paste_a_list(page, demo_desk)
    _follow_suggestions(page, demo_desk)
    _draw_the_opening(page, tmp_path)

    # By the keyboard alone: a part is measured in inch fractions and chosen by what it costs.
    _measure_and_choose(page)
    route = next(f for f in kept(demo_desk).functions if f.name == "Route")
    part = next(p for p in kept(demo_desk).parts if p.id == route.part)
    assert (part.base, route.scheme) == ("rotary-12", "ladder")
    assert part.readings[0].values == pytest.approx((9.525, 9.51, 9.56))


def test_the_list_is_filtered_reordered_and_edited_together_by_keys(
    watched: Page, address: str, demo_desk: Desk
) -> None:
    page = watched
    page.goto(f"{address}/d/kestrel-line-9/brief")
    page.get_by_role("gridcell", name=re.compile("^Doors left open")).wait_for()
    page.keyboard.press("f")
    page.keyboard.type("caption doors")
    expect(page.get_by_text("2 shown")).to_be_visible()
    page.keyboard.press("Escape")
    page.get_by_role("gridcell", name=re.compile("^Doors left open")).click()
    page.keyboard.press("Alt+ArrowDown")

    def order() -> list[str]:
        return [f.name for f in demo_desk.open("kestrel-line-9").design.functions if f.group == "Doors"]

    expect(page.get_by_role("status").first).to_contain_text("revision 2")
    assert order()[:2] == ["Doors right open", "Doors left open"]
    page.keyboard.press("Alt+ArrowUp")
    expect(page.get_by_role("status").first).to_contain_text("revision 3")
    assert order()[:2] == ["Doors left open", "Doors right open"]
    page.get_by_role("gridcell", name=re.compile("^Doors left open")).focus()
    page.keyboard.press("Shift+ArrowDown")
    page.keyboard.press("Shift+ArrowDown")
    together = page.get_by_role("region", name="Selected functions")
    expect(together).to_contain_text("3 functions together")
    together.get_by_label("When it is used").select_option("stop")
    expect(page.get_by_role("status").first).to_contain_text("revision 4")
    functions = demo_desk.open("kestrel-line-9").design.functions
    assert [f.moment for f in functions if f.group == "Doors"][:4] == ["stop", "stop", "stop", "emergency"]
    page.keyboard.press("Escape")
    page.keyboard.press("n")
    page.keyboard.type("Track brake guarded toggle 24 V 3 A")
    page.keyboard.press("Enter")
    expect(page.get_by_role("status").first).to_contain_text("revision 5")
    made = demo_desk.open("kestrel-line-9").design.functions[-1]
    assert (made.name, made.want, made.switches.amps) == ("Track brake", "guarded toggle 24 V 3 A", 3)


def test_space_and_workshop_are_dragged_and_typed(watched: Page, address: str, demo_desk: Desk) -> None:
    page = watched
    page.goto(f"{address}/d/kestrel-line-9/brief")
    bar = page.get_by_role("button", name=re.compile("^steel bar, x"))
    bar.focus()
    page.keyboard.press("Shift+ArrowUp")
    expect(page.get_by_role("status").first).to_contain_text("revision 2")
    assert demo_desk.open("kestrel-line-9").design.brief.keepouts[0].y == 90
    eye = page.get_by_role("button", name=re.compile("^Eye,"))
    spot = eye.bounding_box()
    assert spot is not None
    page.mouse.move(spot["x"] + 4, spot["y"] + 4)
    page.mouse.down()
    page.mouse.move(spot["x"] + 4, spot["y"] + 24, steps=4)
    page.mouse.up()
    expect(page.get_by_role("status").first).to_contain_text("revision 3")
    assert demo_desk.open("kestrel-line-9").design.brief.eye_height < 430
    page.get_by_label("Width measured, reading 2").fill("29 in")
    page.get_by_label("Width measured, reading 2").press("Enter")
    expect(page.locator("[data-code='brief.opening-uneven']")).to_contain_text("The opening is not square")
    expect(page.locator("[data-code='brief.chain-too-wide']")).to_have_count(1)
    page.get_by_role("tab", name="Workshop").click()
    page.get_by_role("button", name="Add a printer").click()
    printer = page.get_by_role("group", name="Printer")
    expect(printer).to_contain_text("mm over, 4 pieces")
    printer.get_by_label("Bed, width").fill("400")
    printer.get_by_label("Bed, width").press("Enter")
    expect(printer).to_contain_text("mm over, 2 pieces")
    page.get_by_role("button", name="Add a sheet").click()
    expect(page.get_by_role("group", name="3 mm acrylic")).to_have_count(2)
    page.get_by_role("tab", name="Money and hours").click()
    page.get_by_label("Hours", exact=True).fill("7")
    page.get_by_role("button", name="Log hours").click()
    page.get_by_role("button", name="Log hours").click()
    expect(page.get_by_role("row", name=re.compile("^Wiring from your log"))).to_be_visible()
    page.goto(f"{address}/d/dust-extraction/brief")
    page.get_by_role("tab", name="Workshop").click()
    page.get_by_role("button", name="+ Printer").click()
    expect(page.get_by_role("group", name="Printer")).to_be_visible()
    machines = demo_desk.open("dust-extraction").design.workshop.machines
    assert [(m.kind, m.bed_width) for m in machines] == [("mill", 300), ("printer", 400)]


def test_the_drawer_is_filtered_and_what_is_on_hand_is_counted(watched: Page, address: str, demo_desk: Desk) -> None:
    page = watched
    page.goto(f"{address}/d/kestrel-line-9/parts")
    drawer = page.get_by_role("region", name="Drawer")
    shelf = drawer.get_by_role("list")
    expect(shelf.get_by_role("listitem")).to_have_count(len(catalogue()))
    drawer.get_by_label("Filter parts").fill("latching")
    drawer.get_by_label("sealed").check()
    drawer.get_by_label("Hole at most, mm").fill("16")
    expect(shelf.get_by_role("listitem")).to_have_count(3)
    drawer.get_by_label("Volts at least").fill("400")
    expect(drawer.get_by_text("No part matches.")).to_be_visible()
    drawer.get_by_label("Volts at least").fill("")
    shelf.get_by_role("button", name=re.compile("latching")).first.click()
    page.get_by_label("on hand", exact=True).last.fill("4")
    page.get_by_label("on hand", exact=True).last.press("Enter")
    expect(page.get_by_role("status").first).to_contain_text("revision 2")
    counted = {p.part: p.count for p in demo_desk.open("kestrel-line-9").design.workshop.parts}
    assert counted["button-16-lit-latching"] == 4
    answer = page.request.get(f"{address}/api/designs/kestrel-line-9/parts/shopping.csv")
    assert answer.text().startswith("part,summary,in use,with spares,on hand,to buy")
