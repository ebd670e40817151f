"""Each station used as a builder would, in a real browser: what is typed, chosen and clicked arrives in the record."""

import csv
import json
import re
import zipfile
from pathlib import Path

import pytest
from browser import at_rest
from playwright.sync_api import Page, expect

from walking import TRAM, go, kept, revision
from wingboard.core.record.document import write_design
from wingboard.core.record.functions import Function
from wingboard.services.desk import Desk
from wingboard.testing import generated_design


def function(desk: Desk, name: str) -> Function:
    """A function of the tram desk by its name."""
    return next(f for f in kept(desk).functions if f.name == name)


def test_brief_edits_the_function_the_space_and_what_is_behind(watched: Page, address: str, demo_desk: Desk) -> None:
    page = watched
    go(page, address, f"{TRAM}/brief")
    page.get_by_role("gridcell", name=re.compile("^Fog light")).click()
    sheet = page.get_by_role("region", name="Selected function")
    sheet.get_by_label("Name").fill("Rear fog light")
    sheet.get_by_label("Name").press("Enter")
    revision(page, 2)
    sheet.get_by_label("Positions, a word each").fill("BRIGHT, DIM")
    sheet.get_by_label("Positions, a word each").press("Enter")
    revision(page, 3)
    sheet.get_by_label("Risk").select_option("guarded")
    revision(page, 4)
    page.get_by_role("tab", name="Space").click()
    page.get_by_label("Free depth", exact=True).fill("3-1/2 in")
    page.get_by_label("Free depth", exact=True).press("Enter")
    revision(page, 5)
    page.get_by_label("steel bar, depth left free").fill("nonsense")
    page.get_by_label("steel bar, depth left free").press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("is not a length")
    page.get_by_label("steel bar, depth left free").fill("28")
    page.get_by_label("steel bar, depth left free").press("Enter")
    revision(page, 6)
    page.get_by_role("button", name="Remove steel bar").click()
    revision(page, 7)
    page.get_by_role("button", name="Undo Z").click()
    revision(page, 8)
    changed, design = function(demo_desk, "Rear fog light"), kept(demo_desk)
    assert (changed.positions, changed.risk) == (("BRIGHT", "DIM"), "guarded")
    assert design.brief.depth == pytest.approx(88.9)
    assert [k.clear for k in design.brief.keepouts] == [28]


def test_what_it_has_to_stand_and_how_a_module_is_made(watched: Page, address: str, demo_desk: Desk) -> None:
    page = watched
    go(page, address, f"{TRAM}/brief")
    page.get_by_label("Visitors or children").click()
    revision(page, 2)
    expect(page.get_by_text("Sharp corner").first).to_be_visible()
    page.get_by_label("Rain, spray or damp").click()
    revision(page, 3)
    page.get_by_label("Left module, how it is made").select_option("metal")
    revision(page, 4)
    page.get_by_label("Left module, Plate, thickness").fill("2.5")
    page.get_by_label("Left module, Plate, thickness").press("Enter")
    revision(page, 5)
    page.get_by_label("Back, how far its edge is inside").fill("4")
    page.get_by_label("Back, how far its edge is inside").press("Enter")
    revision(page, 6)
    page.get_by_label("Back, how far its edge is inside").fill("150")
    page.get_by_label("Back, how far its edge is inside").press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("nothing is left of Back")
    go(page, address, f"{TRAM}/cut")
    page.get_by_role("tab", name="One layer").click()
    expect(page.get_by_role("tab", name="Plate 2.5 mm")).to_be_visible()
    go(page, address, f"{TRAM}/brief?sel={function(demo_desk, 'Speed').id}")
    sheet = page.get_by_role("region", name="Selected function")
    sheet.get_by_label("Shown as an example").fill("19.5")
    sheet.get_by_label("Shown as an example").press("Enter")
    revision(page, 7)
    go(page, address, f"{TRAM}/face")
    expect(page.get_by_role("option", name=re.compile("^Speed, .*, 19.5,"))).to_be_visible()
    design = kept(demo_desk)
    assert design.brief.environment.model_dump() == {
        "sun": False, "wet": True, "heat": False, "dark": True, "public": True,
    }  # fmt: skip
    assert [(layer.material, layer.thickness) for layer in design.stack_of(design.modules[0])] == [("aluminium", 2.5)]
    assert [layer.inset for layer in design.stack] == [0, 0, 4]


def test_parts_are_chosen_for_the_selected_function(watched: Page, address: str, demo_desk: Desk) -> None:
    page = watched
    go(page, address, f"{TRAM}/parts?sel=f25")
    expect(page.get_by_text("✓ Chosen for Direction")).to_be_visible()
    page.get_by_role("tab", name="Turned").click()
    page.get_by_role("button", name=re.compile("^Encoder with push")).click()
    expect(page.get_by_role("heading", name="Encoder with push")).to_be_visible()
    expect(page.get_by_text("M7 bush, hole 7.2 mm, common practice")).to_be_visible()
    page.get_by_role("button", name=re.compile("^Choose .+ for Direction")).click()
    expect(page.get_by_text("✓ Chosen for Direction")).to_be_visible()
    assert function(demo_desk, "Direction").part == "encoder-push"
    page.get_by_role("tab", name="Buttons").click()
    page.get_by_role("button", name=re.compile("^Emergency stop 22")).click()
    expect(page.get_by_text("breaks the power through its own hard-wired contact")).to_be_visible()


def test_a_look_is_accepted_with_a_reason_on_the_job_sheet(watched: Page, address: str, demo_desk: Desk) -> None:
    page = watched
    go(page, address, f"{TRAM}/brief?sel=f11")
    page.get_by_role("region", name="Selected function").get_by_label("Name").wait_for()
    page.get_by_role("gridcell", name=re.compile("^Deadman")).click()
    page.get_by_label("Risk").select_option("emergency")
    row = page.locator("[data-code='brief.emergency-undeclared']")
    expect(row).to_contain_text("Deadman")
    row.get_by_role("button").first.click()
    page.keyboard.press("a")
    page.get_by_label(re.compile("Reason to accept it")).fill("held down by a weight in tests")
    page.get_by_label(re.compile("Reason to accept it")).press("Enter")
    expect(row).to_contain_text("Accepted: held down by a weight in tests")
    sheet = page.request.get(f"{address}/api/designs/{TRAM}/cut/job-sheet.txt").text()
    assert "held down by a weight in tests" in sheet
    row.get_by_role("button", name="Restore").click()
    expect(row).not_to_contain_text("Accepted")
    before = ["brief.forgotten", "parts.dazzles", "light.half-dark", "light.nothing-lit"]
    assert [a.finding.partition(":")[0] for a in kept(demo_desk).accepted] == before


def test_cut_shows_and_hides_operations_and_every_link_gives_a_file(watched: Page, address: str) -> None:
    page = watched
    go(page, address, f"{TRAM}/cut?module=left")
    page.get_by_role("tab", name="One layer").click()
    page.get_by_role("tab", name="Files", exact=True).click()
    drawing = page.locator("[data-operation]")
    expect(drawing).to_have_count(3)
    page.get_by_label(re.compile("engrave")).uncheck()
    expect(drawing).to_have_count(2)
    page.get_by_role("tab", name="Back 3 mm").click()
    expect(page.get_by_role("img", name=re.compile("Left module: Back"))).to_be_visible()
    expect(page.get_by_text("Legend off the detents")).to_be_visible()
    links = page.get_by_role("region", name="Files").get_by_role("link").all()
    assert len(links) == 29
    for link in links:
        answer = page.request.get(address + (link.get_attribute("href") or ""))
        assert answer.status == 200
        assert "attachment" in answer.headers["content-disposition"]
        assert len(answer.body()) > 500
    with page.expect_download() as archive:
        page.get_by_role("button", name="Everything, as one archive").click()
    assert {"cut/left/face.svg", "wire/pins.csv"} <= set(zipfile.ZipFile(archive.value.path()).namelist())


def test_a_sheet_is_played_ticked_and_made_on_another_machine_and_a_kerf_is_kept(
    watched: Page, address: str, demo_desk: Desk
) -> None:
    page = watched
    go(page, address, f"{TRAM}/cut")
    work = page.get_by_role("region", name="Work")
    expect(page.get_by_text("Nothing cut that must stay, nothing left that must go")).to_be_visible()
    work.get_by_role("button", name=re.compile("Inner openings")).click()
    bar = page.get_by_role("slider", name="Time into the run")
    expect(page.get_by_text(re.compile("4. Inner openings, "))).to_be_visible()
    bar.focus()
    page.keyboard.press("End")
    expect(page.get_by_text("Done", exact=True)).to_be_visible()
    page.get_by_role("button", name="Play").click()
    expect(page.get_by_role("button", name="Pause")).to_be_visible()
    page.get_by_role("button", name="Pause").click()
    work.get_by_label("Engrave words is done").click()
    revision(page, 2)
    program = page.request.get(address + (work.get_by_role("link", name="all.nc").get_attribute("href") or "")).text()
    assert program.splitlines()[-1] == "M2"
    work.get_by_role("tab", name="Coupons").click()
    work.get_by_label("Kerf").first.fill("0.3")
    work.get_by_label("Kerf").first.press("Enter")
    revision(page, 3)
    expect(work.get_by_text("Kerf measured")).to_have_count(1)
    again = page.request.get(f"{address}/api/designs/{TRAM}/sheets/laser-acrylic-2-1/all.nc").text()
    assert again != program
    work.get_by_role("tab", name="Pieces").click()
    board = work.get_by_label("Machine for Left module, light board")
    board.select_option("Laser")
    revision(page, 4)
    cutting = kept(demo_desk).cutting
    assert [(j.piece, j.machine) for j in cutting.jobs] == [("left/board", "laser")]
    assert cutting.done == ("laser-acrylic-2-1 2-words",)
    assert [(f.material, f.thickness, f.kerf) for f in cutting.fitted] == [("acrylic", 2, 0.3)]


def test_a_pin_is_set_by_hand_in_the_list_and_on_the_wires(watched: Page, address: str, demo_desk: Desk) -> None:
    page = watched
    go(page, address, f"{TRAM}/wire")
    drawing = page.get_by_role("group", name="Left module from behind, and its lines")
    whole = drawing.get_attribute("data-scale")
    drawing.hover()
    page.mouse.wheel(0, -200)
    expect(drawing).not_to_have_attribute("data-scale", whole or "")
    page.keyboard.press("f")
    expect(drawing).to_have_attribute("data-scale", whole or "")
    page.get_by_role("button", name="Wiper, 1", exact=True).drag_to(page.locator("[data-pin='A0']"))  # pulled there
    revision(page, 2)
    assert [p.pin for p in kept(demo_desk).pins if p.by == "hand"] == ["A0"]
    page.get_by_role("button", name=re.compile("^Master key")).click()
    page.get_by_role("tab", name=re.compile("^ATmega2560 2")).click()
    page.get_by_role("button", name="Give pin 53 of ATmega2560 2").click()
    revision(page, 3)
    page.get_by_role("tab", name="Pin list").click()
    sought = page.get_by_label("Find a line by its function")
    sought.fill("Master key")
    choice = page.get_by_label("Pin of Master key, NO")
    expect(choice).to_have_value("atmega2560-2 53")
    expect(page.get_by_role("row", name=re.compile("Master key"))).to_contain_text("set by hand")
    sought.fill("nothing like it")
    expect(page.get_by_text("No line has “nothing like it” on it.")).to_be_visible()
    sought.fill("PA volume")
    volume = page.get_by_label("Pin of PA volume, 2")
    volume.focus()
    pins = [o.get_attribute("value") or "" for o in volume.get_by_role("option").all()]
    volume.select_option(next(p for p in pins if re.fullmatch(r"atmega2560-[12] \d+", p)))
    expect(page.locator("[data-code='wire.pin-incapable']")).to_contain_text("cannot read a voltage")
    page.get_by_role("button", name="Take the pin back").click()
    expect(page.locator("[data-code='wire.pin-incapable']")).to_have_count(0)
    page.get_by_role("button", name="Assign missing").click()
    expect(page.get_by_text("every one has a pin")).to_be_visible()
    by_hand = [(p.line, p.controller, p.pin) for p in kept(demo_desk).pins if p.by == "hand"]
    assert ("f18.on", "atmega2560-2", "53") in by_hand and len(by_hand) == 2


def test_a_module_is_read_another_way_and_a_board_of_ones_own_takes_its_lines(
    watched: Page, address: str, demo_desk: Desk
) -> None:
    page = watched
    go(page, address, f"{TRAM}/wire")
    page.get_by_role("button", name=re.compile("^Master key")).click()
    ways = page.get_by_role("region", name="Read or driven another way")
    expect(ways.get_by_role("row", name=re.compile("each on a pin of its own ?, as it is"))).to_be_visible()
    ways.get_by_role("tab", name="whole module, 22").click()
    ways.get_by_role("button", name=re.compile("^chain of 74HC165")).click()
    revision(page, 2)
    assert {f.scheme for f in kept(demo_desk).functions if f.id == "f18"} == {"shift"}
    page.get_by_label("Add a controller").select_option(label="Describe a board of your own…")
    form = page.get_by_role("dialog")
    form.get_by_label("Name", exact=True).fill("Helper")
    form.get_by_label("Its pins in the order").fill("P1-P30 io up\nX fly")
    expect(form.get_by_text("“fly” is nothing that a pin can do")).to_be_visible()
    expect(form.get_by_role("button", name="Keep it")).to_be_disabled()
    form.get_by_label("Its pins in the order").fill("P1-P30 io up\nX0-X7 io adc")
    form.get_by_role("button", name="Keep it").click()
    revision(page, 3)
    page.get_by_label("Add a controller").select_option(value="helper")
    revision(page, 4)
    page.get_by_role("button", name="Assign missing").click()
    expect(page.get_by_text("every one has a pin")).to_be_visible()
    page.get_by_role("tab", name="Schemes").click()
    chain = page.get_by_role("region", name="Left module, inputs in a chain")
    expect(chain.get_by_role("img", name=re.compile("^U1 74HC165: .*Route selector, way 1"))).to_be_visible()
    expect(chain).not_to_contain_text("no pin yet")
    page.get_by_role("tab", name="each part by itself to the board").first.click()
    revision(page, 6)
    assert kept(demo_desk).modules[0].returns == "star"
    go(page, address, f"{TRAM}/wire?sel=f32")  # what is selected brings its module and its board
    expect(page.get_by_role("group", name="Centre module from behind, and its lines")).to_be_visible()
    expect(page.get_by_role("tab", name=re.compile("^ATmega2560 2"))).to_have_attribute("aria-selected", "true")


def test_wires_are_ticked_as_they_are_soldered_and_stay_where_they_are(
    watched: Page, address: str, demo_desk: Desk
) -> None:
    page = watched
    go(page, address, f"{TRAM}/wire")
    page.get_by_role("tab", name="Wiring sheet").click()
    page.get_by_role("tab", name="Right module").click()
    group = page.get_by_role("region", name="Right module: ground, 1 of 2")
    group.get_by_role("button", name="All 12 soldered").click()
    expect(page.get_by_text(re.compile(r"^12 of \d+ soldered"))).to_be_visible()
    page.get_by_role("tab", name="Outside the modules", exact=True).click()
    wire = page.get_by_label(re.compile(r"^J\d \d+ to ATmega2560 1 22 is soldered$"))
    line = next(p.line for p in kept(demo_desk).pins if (p.controller, p.pin) == ("atmega2560-1", "22"))
    wire.click()
    expect(wire).to_be_checked()
    expect(page.get_by_text(re.compile(r"^13 of \d+ soldered"))).to_be_visible()
    page.get_by_role("button", name="Reassign all").click()
    expect(page.get_by_text("no better assignment exists")).to_be_visible()
    assert next(p.pin for p in kept(demo_desk).pins if p.line == line) == "22"
    page.get_by_role("tab", name="Pin list").click()
    page.get_by_label("Pin of Passenger call, +").select_option("")
    expect(page.get_by_text("no better assignment exists")).to_have_count(0)  # it is not true any more
    page.reload()
    page.get_by_role("tab", name="Wiring sheet").click()
    page.get_by_label("Find a wire by").fill("ATmega2560 1 22")
    expect(wire).to_be_checked()
    with page.expect_download() as table:
        page.get_by_role("link", name="CSV").click()
    rows = list(csv.DictReader(table.value.path().open(encoding="utf-8")))
    assert sum(row["soldered"] == "x" for row in rows) == 13
    assert all(row["colour"] for row in rows if row["how"] == "wire")


def test_a_module_gets_its_plugs_and_a_supply_its_fuse(watched: Page, address: str, demo_desk: Desk) -> None:
    page = watched
    go(page, address, "dust-extraction/wire")
    page.get_by_role("tab", name="Harness", exact=True).click()
    page.get_by_role("button", name="Two plugs").click()
    plug = page.get_by_role("region", name=re.compile("^J1, D-sub"))
    expect(plug.get_by_role("listitem")).to_have_count(12)
    trunk = page.get_by_role("slider", name="Trunk of Plate; arrows move it")
    before = float(trunk.get_attribute("aria-valuenow") or 0)
    trunk.press("Shift+ArrowUp")
    expect(trunk).to_have_attribute("aria-valuenow", str(int(before + 10)))
    page.get_by_role("tab", name="Outside the modules").click()
    page.get_by_role("button", name="Below, behind").first.click()
    expect(page.get_by_role("group", name="Where things stand, seen from the front")).to_be_visible()
    page.get_by_role("tab", name="Wire and colours").click()
    page.get_by_label("Colour of wires: Ground").select_option("blue")
    expect(page.get_by_role("row", name=re.compile("^blue"))).to_be_visible()
    design = demo_desk.open("dust-extraction").design
    assert design.modules[0].loom.signals == "dsub" and design.modules[0].loom.at is not None
    assert [s.device for s in design.harness.standing] == ["board.atmega328p-1"]
    go(page, address, f"{TRAM}/wire")
    page.get_by_role("tab", name="Power", exact=True).click()
    page.get_by_role("button", name=re.compile("^12 V supply supply")).click()
    page.get_by_label("Fuse in its plus").fill("1")
    page.get_by_label("Fuse in its plus").press("Enter")
    expect(page.get_by_role("button", name=re.compile("^fuse 1 A"))).to_be_visible()
    expect(page.get_by_text("The fuse is too close to its load").or_(page.get_by_text("blows")).first).to_be_visible()
    page.get_by_label("Measured, all on").fill("0.3")
    page.get_by_label("Measured, all on").press("Enter")
    expect(page.get_by_text("The ammeter says otherwise").first).to_be_visible()


def test_a_load_is_given_to_a_pin_and_a_terminal_lies_where_it_is_dragged(
    watched: Page, address: str, demo_desk: Desk
) -> None:
    page = watched
    go(page, address, f"{TRAM}/wire?sel=f16")
    switched = page.get_by_role("region", name="How its load is switched")
    switched.get_by_role("button", name=re.compile("^a relay, driven by a pin")).click()
    expect(switched.get_by_role("button", name=re.compile("^a relay, driven by a pin ?, as it is"))).to_be_visible()
    expect(switched.get_by_text("Not a transistor (it bears 2 A)")).to_be_visible()  # its load takes 6 A
    switched.get_by_label("an auxiliary contact of what carries it").click()
    expect(page.get_by_text("3 without a pin")).to_be_visible()
    page.get_by_role("button", name="Assign missing").click()
    expect(page.get_by_text("every one has a pin")).to_be_visible()
    rows = page.get_by_role("region", name="Lines of Saloon heat").get_by_role("listitem")
    expect(rows).to_have_count(3)
    load = demo_desk.open(TRAM).resolved.functions["f16"].switches
    assert (load.through, load.driven, load.seen) == ("relay", "controller", "auxiliary")
    go(page, address, f"{TRAM}/parts?sel=f16")
    page.get_by_role("button", name="Measure yours").click()
    own = page.get_by_role("region", name="Its terminals from behind")
    terminal = own.get_by_role("button", name=re.compile("^Terminal 2,"))
    terminal.focus()
    terminal.press("Shift+ArrowRight")
    expect(own.get_by_role("button", name=re.compile("^Terminal 2, .*10.0 to the right"))).to_be_visible()
    expect(own.get_by_text("measured", exact=True)).to_be_visible()
    mine = next(part for part in demo_desk.open(TRAM).design.parts if part.tags)
    assert [(tag.terminal, tag.x) for tag in mine.tags] == [("2", -10)]  # from the front it is to the left


def test_a_box_selects_and_a_typed_row_lines_up(watched: Page, address: str, demo_desk: Desk) -> None:
    page = watched
    go(page, address, f"{TRAM}/face?module=left")
    page.locator("#part-f12").wait_for()
    spot = "id => (m => [m.e, m.f])(document.getElementById(id).getScreenCTM())"
    x0, y0 = page.evaluate(spot, "part-f13")
    x1, y1 = page.evaluate(spot, "part-f17")
    page.mouse.move(x0 - 40, y0 - 90)
    page.mouse.down()
    page.mouse.move(x1 + 20, y1 + 40, steps=4)
    page.mouse.up()
    expect(page.locator("footer")).to_contain_text("5 parts")
    page.locator("#number-line").fill("y 44 pitch 26")
    page.locator("#number-line").press("Enter")
    revision(page, 2)
    places = [f.place for f in kept(demo_desk).functions if f.id in ("f13", "f14", "f15", "f16", "f17")]
    assert [(p.x, p.y) for p in places if p] == [(61 + 26 * n, 44) for n in range(5)]


def test_designs_are_switched_copied_renamed_and_imported(watched: Page, address: str, tmp_path: Path) -> None:
    page = watched
    go(page, address, f"{TRAM}/face")
    page.get_by_role("button", name="Kestrel Line No. 9").click()
    page.get_by_role("link", name=re.compile("Dust extraction")).click()
    expect(page).to_have_url(re.compile("/d/dust-extraction/face"))
    expect(page.locator("[role=option]")).to_have_count(10)
    page.get_by_role("button", name="Dust extraction").click()
    page.get_by_role("button", name="Duplicate").click()
    expect(page).to_have_url(re.compile("/d/dust-extraction-copy/face"))
    page.get_by_role("button", name="Dust extraction, copy").click()
    page.get_by_label("Name of this design").fill("Second workshop")
    page.get_by_label("Name of this design").press("Enter")
    expect(page.locator("header")).to_contain_text("Second workshop")
    file = tmp_path / "panel.json"
    file.write_text(write_design(generated_design(400)), "utf-8")
    page.get_by_label("Design file to import").set_input_files(file)
    expect(page.locator("[role=option]")).to_have_count(400)
    exported = page.request.get(f"{address}/api/designs/panel-400-parts/export").json()
    assert exported == json.loads(file.read_text("utf-8"))


def test_a_piece_is_parted_its_words_are_cut_in_film_and_an_old_hole_is_named(
    watched: Page, address: str, demo_desk: Desk
) -> None:
    page = watched
    small = [{"do": "edit_machine", "machine": m, "bed_width": 240, "bed_height": 160} for m in ("laser", "mill")]
    page.request.post(f"{address}/api/designs/{TRAM}/commands", data={"base": 1, "commands": small})
    go(page, address, f"{TRAM}/cut")
    work = page.get_by_role("region", name="Work")
    page.get_by_role("tab", name="Pieces").click()
    page.get_by_role("button", name="Part it in 2").first.click()
    expect(page.get_by_label("Seam 1, from the left")).to_have_value("118")
    page.get_by_label("Its parts are joined by").select_option("tongues")
    expect(work.get_by_text("Right module, face, part 2 of 2")).to_be_visible()
    revision(page, 4)
    assert demo_desk.open(TRAM).design.cutting.splits[0].joint == "tongues"
    page.get_by_role("tab", name="Surface").click()
    page.get_by_label("Right module, its words are").select_option("vinyl")
    expect(page.get_by_text("never by a laser")).to_be_visible()
    page.get_by_role("button", name="Type them…").last.click()
    box = page.get_by_label("x, y, diameter, name: one a line")
    box.fill("30, 3, 10, old key\n40, wide")
    page.get_by_role("button", name="Keep these holes").click()
    expect(page.get_by_role("alert")).to_contain_text("Line 2")
    box.fill("30, 3, 10, old key")
    page.get_by_role("button", name="Keep these holes").click()
    expect(page.get_by_text("in sight beside the plate's edge")).to_be_visible()
    expect(page.get_by_text("An old hole stays in sight")).to_be_visible()
    page.get_by_role("button", name="A label on right module").click()
    page.get_by_label("Words on it").fill("SPARE")
    page.get_by_label("Words on it").press("Enter")
    page.get_by_role("tab", name="Pieces").click()
    expect(work.get_by_text("Right module, patch SPARE", exact=True)).to_be_visible()
    expect(page.get_by_text("A patch lies on something")).to_have_count(0)


def test_long_names_are_cut_off_not_spilled(watched: Page, address: str, demo_desk: Desk) -> None:
    page = watched
    go(page, address, f"{TRAM}/brief?sel=f23")
    sheet = page.get_by_role("region", name="Selected function")
    sheet.get_by_label("Name").fill("A very long name that no builder would engrave " * 2)
    sheet.get_by_label("Name").press("Enter")
    revision(page, 2)
    for station in ("1", "2", "3", "6", "7"):
        page.keyboard.press("Escape")
        page.keyboard.press(station)
        at_rest(page)
        wide = page.evaluate("document.documentElement.scrollWidth")
        assert wide <= 1280, station
