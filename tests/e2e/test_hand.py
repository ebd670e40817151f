"""The hand on the board: zoom and pan, boxes, copies, turning, graphics, the menu, all modules side by side."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import Page, expect

from wingboard.core.record.functions import Function
from wingboard.services.desk import Desk

TRAM = "kestrel-line-9"


def opened(page: Page, address: str, query: str = "?module=left") -> None:
    page.goto(f"{address}/d/{TRAM}/face{query}")
    page.locator("#part-f15").wait_for()


def centre(page: Page, selector: str) -> tuple[float, float]:
    """The middle of what is touched of a part, or of a graphic, on the screen."""
    box = page.locator(f"{selector} [data-touch]").first.bounding_box()
    assert box is not None
    return box["x"] + box["width"] / 2, box["y"] + box["height"] / 2


def pulled(page: Page, start: tuple[float, float], dx: float, dy: float) -> None:
    page.mouse.move(*start)
    page.mouse.down()
    page.mouse.move(start[0] + dx / 2, start[1] + dy / 2, steps=4)
    page.mouse.move(start[0] + dx, start[1] + dy, steps=4)
    page.mouse.up()


def fn(desk: Desk, ident: str = "f15") -> Function:
    return next(f for f in desk.open(TRAM).design.functions if f.id == ident)


def revision(page: Page, number: int) -> None:
    expect(page.get_by_role("status").first).to_contain_text(re.compile(rf"revision {number}$"))


def test_the_wheel_zooms_at_the_pointer_and_the_view_is_found_as_it_was_left(watched: Page, address: str) -> None:
    page = watched
    opened(page, address)
    x, y = centre(page, "#part-f15")
    scale = float(page.locator("[data-board]").get_attribute("data-scale") or 0)
    page.mouse.move(x, y)
    for _ in range(4):
        page.mouse.wheel(0, -120)
    expect(page.locator("[data-board]")).not_to_have_attribute("data-scale", str(scale))
    page.wait_for_timeout(150)
    assert centre(page, "#part-f15") == pytest.approx((x, y), abs=1.5)  # what was under the pointer still is
    page.keyboard.down("Space")
    pulled(page, (x, y), 60, -40)
    page.keyboard.up("Space")
    page.wait_for_timeout(150)
    assert centre(page, "#part-f15") == pytest.approx((x + 60, y - 40), abs=1.5)
    page.keyboard.press("1")
    page.get_by_role("grid").wait_for()
    page.keyboard.press("3")
    page.locator("#part-f15").wait_for()
    page.wait_for_timeout(300)
    assert centre(page, "#part-f15") == pytest.approx((x + 60, y - 40), abs=2)
    page.locator("#part-f15").click()
    page.keyboard.press("F")
    page.wait_for_timeout(150)
    assert float(page.locator("[data-board]").get_attribute("data-scale") or 0) > 3 * scale
    page.keyboard.press("f")
    page.wait_for_timeout(150)
    assert float(page.locator("[data-board]").get_attribute("data-scale") or 0) == pytest.approx(scale)


def test_boxes_take_what_they_touch_copies_are_selected_and_graphics_go_like_parts(
    watched: Page, address: str, demo_desk: Desk
) -> None:
    page = watched
    opened(page, address)
    x, y = centre(page, "#part-f15")
    pulled(page, (x - 60, y + 28), 58, -40)  # from bare plate over the edge of the part
    expect(page.locator("#part-f15")).to_have_attribute("aria-selected", "true")
    page.keyboard.press("Escape")
    page.locator("#part-f15").click()
    page.keyboard.down("Alt")
    pulled(page, (x, y), 0, 70)
    page.keyboard.up("Alt")
    revision(page, 2)
    made = demo_desk.open(TRAM).design.functions[-1]
    assert made.name == f"{fn(demo_desk).name} 2"
    expect(page.locator(f"#part-{made.id}")).to_have_attribute("aria-selected", "true")
    page.keyboard.press("Delete")
    revision(page, 3)
    bracket = next(g for g in demo_desk.open(TRAM).design.graphics if g.module == "left")
    at = centre(page, f"#graphic-{bracket.id}")
    page.mouse.click(*at)
    expect(page.locator("footer")).to_contain_text(bracket.text)
    page.keyboard.press("ArrowUp")
    revision(page, 4)
    moved = next(g for g in demo_desk.open(TRAM).design.graphics if g.id == bracket.id)
    assert moved.y == bracket.y + 1
    page.keyboard.press("Delete")
    revision(page, 5)
    assert bracket.id not in {g.id for g in demo_desk.open(TRAM).design.graphics}
    page.keyboard.press("z")
    revision(page, 6)
    assert bracket.id in {g.id for g in demo_desk.open(TRAM).design.graphics}


def test_a_part_turns_by_its_handle_and_the_menu_does_what_it_says(
    watched: Page, address: str, demo_desk: Desk
) -> None:
    page = watched
    opened(page, address)
    page.locator("#part-f15").click()
    handle = page.get_by_role("button", name="Turn Wiper").bounding_box()
    assert handle is not None
    x, y = centre(page, "#part-f15")
    at = (handle["x"] + handle["width"] / 2, handle["y"] + handle["height"] / 2)
    page.mouse.move(*at)
    page.mouse.down()
    page.mouse.move(x - (at[1] - y) * -1, y - (at[0] - x), steps=6)  # a quarter round, counter-clockwise
    page.mouse.up()
    revision(page, 2)
    place = fn(demo_desk).place
    assert place is not None
    assert place.turn == 90
    page.mouse.click(x, y, button="right")
    menu = page.get_by_role("menu")
    expect(menu).to_contain_text("Lock")
    menu.get_by_role("menuitem", name=re.compile("Lock")).click()
    revision(page, 3)
    assert fn(demo_desk).locked
    expect(page.get_by_role("menu")).to_have_count(0)
    pulled(page, (x, y), 40, 0)
    expect(page.get_by_role("alert")).to_contain_text("A locked part stays where it is")
    assert demo_desk.head(TRAM) == 3


def test_all_modules_stand_side_by_side_and_a_part_is_carried_from_one_to_the_next(
    watched: Page, address: str, demo_desk: Desk
) -> None:
    page = watched
    opened(page, address)
    page.get_by_role("tab", name="All").click()
    page.locator("#part-f33").wait_for()
    start = fn(demo_desk).place
    assert start is not None
    x, y = centre(page, "#part-f15")
    scale = float(page.locator("[data-board]").get_attribute("data-scale") or 0)
    modules = {m.id: m for m in demo_desk.open(TRAM).design.modules}
    away = (modules["centre"].x - modules["left"].x) * scale
    page.keyboard.down("Control")
    pulled(page, (x, y), away, -30)
    page.keyboard.up("Control")
    revision(page, 2)
    there = fn(demo_desk).place
    assert there is not None
    assert there.module == "centre"
    assert there.x == pytest.approx(start.x, abs=2 / scale + 0.1)
    lower = modules["left"].y - modules["centre"].y
    assert there.y == pytest.approx(start.y + 30 / scale + lower, abs=2 / scale + 0.1)


def test_a_measure_catches_centres_and_a_drag_says_the_distance_of_what_caught_it(watched: Page, address: str) -> None:
    page = watched
    opened(page, address)
    page.keyboard.press("m")
    a, b = centre(page, "#part-f14"), centre(page, "#part-f15")
    page.mouse.click(a[0] + 4, a[1] - 3)
    page.mouse.move(b[0] - 4, b[1] + 2, steps=3)
    page.mouse.click(b[0] - 4, b[1] + 2)
    expect(page.locator("[data-board] [role=status]")).to_contain_text("↕ 0.00")
    page.keyboard.press("Escape")
    page.locator("#part-f15").click()
    page.mouse.move(*b)
    page.mouse.down()
    page.mouse.move(b[0] + 9, b[1] + 1, steps=5)
    page.wait_for_timeout(400)
    page.mouse.move(b[0] + 10, b[1] + 1, steps=2)
    expect(page.get_by_test_id("guides").locator("path").first).to_be_attached()
    page.keyboard.press("Escape")
    expect(page.get_by_test_id("guides")).to_have_count(0)
    page.mouse.up()
