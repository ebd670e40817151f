"""Stack used as a builder would: layers added and changed, the section drawn, a board put behind, findings settled."""

from __future__ import annotations

import re

from browser import at_rest
from playwright.sync_api import Page, expect

from walking import TRAM, go, kept, revision
from wingboard.services.desk import Desk


def test_a_light_board_is_added_its_room_changed_and_the_section_drawn(
    watched: Page, address: str, demo_desk: Desk
) -> None:
    page = watched
    go(page, address, f"{TRAM}/stack?module=centre")
    made_of = page.get_by_role("region", name="What it is made of")
    made_of.get_by_role("button", name="Add a layer…").click()
    made_of.get_by_role("button", name="Light board", exact=True).click()
    revision(page, 2)
    assert [layer.role for layer in kept(demo_desk).stack] == ["face", "diffuser", "back", "board"]
    made_of.get_by_role("button", name=re.compile("^Light board")).click()
    made_of.get_by_label("Light board, free room before it").fill("12.5")
    made_of.get_by_label("Light board, free room before it").press("Enter")
    revision(page, 3)
    odd = page.locator("[data-code='stack.standoff-not-sold']")
    odd.get_by_role("button", name="No such standoff").click()
    page.get_by_role("button", name=re.compile("^Standoffs of 15 mm")).click()
    revision(page, 4)
    assert kept(demo_desk).stack[-1].gap == 15

    made_of.get_by_role("tab", name="Screws").click()
    expect(made_of).to_contain_text("M3 hex standoff, 15 mm")
    expect(made_of).to_contain_text("9 clamped + 0.5 washer + 3 in the standoff = 12.5, next sold 16")
    made_of.get_by_label("Heads").select_option("countersunk")
    revision(page, 5)
    centre = next(m for m in kept(demo_desk).modules if m.id == "centre")
    assert centre.fixings
    assert centre.fixings.head == "countersunk"

    page.get_by_role("tab", name="Layer", exact=True).click()
    plan = page.get_by_role("group", name="Light board in plan")
    box = plan.bounding_box()
    assert box
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    usual = page.get_by_role("heading", name=re.compile("^Section through y ")).inner_text()
    page.mouse.move(x - 90, y + 70)
    page.mouse.down()
    page.mouse.move(x + 90, y + 71, steps=6)
    page.mouse.up()
    expect(page.get_by_role("heading", name=re.compile("^Section through y "))).not_to_have_text(usual)
    end = page.get_by_role("button", name=re.compile("^End of the section"))
    end.focus()
    page.keyboard.press("Shift+ArrowUp")
    expect(page.get_by_role("heading", name=re.compile("^Section from"))).to_be_visible()
    at_rest(page)
    assert demo_desk.open(TRAM).row.number == 5  # looking changes nothing


def test_a_board_goes_where_there_is_room_and_an_exception_has_its_reason(
    watched: Page, address: str, demo_desk: Desk
) -> None:
    page = watched
    go(page, address, f"{TRAM}/stack?module=right")
    made_of = page.get_by_role("region", name="What it is made of")
    made_of.get_by_role("tab", name="Boards").click()
    made_of.get_by_role("button", name="Put ATmega328P 1 here").click()
    revision(page, 2)
    right = next(m for m in kept(demo_desk).modules if m.id == "right")
    (board,) = right.mounted
    assert (board.controller, len(board.holes)) == ("atmega328p-1", 4)
    made_of.get_by_role("button", name=re.compile("^ATmega328P 1")).click()
    made_of.get_by_label("Standoffs").fill("1/4 in")
    made_of.get_by_label("Standoffs").press("Enter")
    revision(page, 3)
    made_of.get_by_role("tab", name="Layers").click()
    made_of.get_by_role("button", name=re.compile("^Back")).click()
    made_of.get_by_role("button", name="Add an exception…").click()
    made_of.get_by_label("Why").fill("Cable of the camera")
    made_of.get_by_label("Why").press("Enter")
    made_of.get_by_role("button", name="Add", exact=True).click()
    revision(page, 4)
    (exception,) = next(layer for layer in kept(demo_desk).stack if layer.id == "back").features
    assert (exception.reason, exception.module) == ("Cable of the camera", "right")
    made_of.get_by_role("button", name="Remove the exception “Cable of the camera”").click()
    revision(page, 5)
    made_of.get_by_label("is built as", exact=False).select_option("metal")
    revision(page, 6)
    expect(page.locator("[data-code='stack.seam-unlike']")).to_be_visible()


def test_a_case_is_given_and_what_is_wrong_with_it_settled(watched: Page, address: str, demo_desk: Desk) -> None:
    page = watched
    go(page, address, "dust-extraction/stack")
    made_of = page.get_by_role("region", name="What it is made of")
    made_of.get_by_role("tab", name="Case").click()
    made_of.get_by_role("button", name="Give it a case").click()
    revision(page, 2)
    expect(page.get_by_role("img", name="The case unfolded")).to_be_visible()
    page.locator("[data-code='stack.case-deep']").get_by_role("button", name="The case is too deep").click()
    page.get_by_role("button", name=re.compile("^20 mm for wires")).click()
    revision(page, 3)
    made_of.get_by_label("exit 1, wall").select_option("left")
    revision(page, 4)
    (module,) = kept(demo_desk, "dust-extraction").modules
    assert module.case
    assert (module.case.room, module.case.exits[0].wall) == (20, "left")
    made_of.get_by_label("Made", exact=True).select_option("printed")
    revision(page, 5)
    expect(page.get_by_role("img", name="The printed case, 1 piece")).to_be_visible()
    page.locator("[data-code='stack.case-printer']").get_by_role("button", name="The case goes on no printer").click()
    bed = {"do": "add_machine", "name": "Printer", "kind": "printer", "bed_width": 200, "bed_height": 200, "depth": 200}
    page.request.post(
        f"{address}/api/designs/dust-extraction/commands",
        data={"base": 5, "commands": [bed]},
        headers={"origin": address},
    )
    revision(page, 6)
    picture = page.get_by_role("img", name="The printed case, 2 pieces")
    expect(picture).to_be_visible()
    page.wait_for_function("() => document.querySelector('img').naturalWidth > 0")
    expect(made_of).to_contain_text("To print on Printer")
    made_of.get_by_role("link", name="Cut").click()
    page.get_by_role("tab", name="Files", exact=True).click()
    page.get_by_role("link", name="Plate, case-2.stl").wait_for()
    taken = page.request.get(f"{address}/api/designs/dust-extraction/cut/plate/case-2.stl").body()
    assert len(taken) == 84 + 50 * int.from_bytes(taken[80:84], "little")  # a binary STL
    page.go_back()
    made_of.get_by_role("tab", name="Case").click()
    made_of.get_by_role("button", name="Remove the case").click()
    revision(page, 7)
    expect(page.get_by_role("group", name="3 layers, the front on top")).to_be_visible()


def test_a_console_gets_its_frame(watched: Page, address: str, demo_desk: Desk) -> None:
    page = watched
    go(page, address, f"{TRAM}/stack")
    made_of = page.get_by_role("region", name="What it is made of")
    made_of.get_by_role("tab", name="Case").click()
    made_of.get_by_role("button", name="Give the opening a frame").click()
    revision(page, 2)
    expect(page.get_by_role("img", name="The frame of the opening")).to_be_visible()
    expect(made_of).to_contain_text("Seam batten 2")
    made_of.get_by_label("Ledge").fill("5")
    made_of.get_by_label("Ledge").press("Enter")
    revision(page, 3)
    assert kept(demo_desk).brief.frame
    made_of.get_by_role("button", name="Remove the frame").click()
    revision(page, 4)
    assert kept(demo_desk).brief.frame is None
