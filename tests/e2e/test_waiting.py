"""Changes on their way: while the server is away, over a reload, in two tabs, refused; nothing lost, nothing twice."""

from __future__ import annotations

import re

from playwright.sync_api import Page, Route, expect

from wingboard.core.changes.commands.functions import EditFunction, RemoveFunction
from wingboard.core.changes.commands.places import MoveItems
from wingboard.core.record.functions import Place
from wingboard.services.desk import Desk

TRAM = "kestrel-line-9"


def opened(page: Page, address: str, query: str = "?module=left&sel=f15") -> None:
    page.goto(f"{address}/d/{TRAM}/face{query}")
    page.locator("#part-f15").wait_for()


def place(desk: Desk, fn: str = "f15") -> Place:
    found = next(f for f in desk.open(TRAM).design.functions if f.id == fn).place
    assert found is not None
    return found


def dragged(page: Page, dx: int, steps: int = 6) -> None:
    """Drag a part by pixels, without waiting for an answer."""
    x, y = page.evaluate("(m => [m.e, m.f])(document.getElementById('part-f15').getScreenCTM())")
    page.keyboard.down("Control")
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + dx, y, steps=steps)
    page.mouse.up()
    page.keyboard.up("Control")


def where(page: Page) -> float:
    """Where the part is shown (mm)."""
    return float(page.evaluate("document.getElementById('part-f15').transform.baseVal[0].matrix.e"))


def test_drags_while_the_server_is_away_wait_over_a_new_load_and_count_once(
    page: Page, address: str, demo_desk: Desk
) -> None:
    opened(page, address)
    start = place(demo_desk)
    page.context.set_offline(True)
    for n in range(1, 4):
        dragged(page, 20)
        assert where(page) > start.x + n  # it stays where it was let go, and the next drag starts there
    shown = where(page)
    expect(page.get_by_role("status").first).to_contain_text("3 changes wait here")
    assert demo_desk.head(TRAM) == 1
    page.goto("about:blank")  # the page is closed with its changes
    page.context.set_offline(False)
    opened(page, address)
    expect(page.get_by_role("status").first).to_contain_text("revision 4")
    assert abs(place(demo_desk).x - shown) < 0.06
    page.reload()
    page.locator("#part-f15").wait_for()
    page.wait_for_timeout(500)
    assert demo_desk.head(TRAM) == 4


def test_an_answer_that_got_lost_is_not_carried_out_twice(page: Page, address: str, demo_desk: Desk) -> None:
    opened(page, address)
    start = place(demo_desk).x
    lost: list[str] = []

    def lose(route: object) -> None:
        if not lost:
            lost.append("once")
            route.fetch()  # type: ignore[attr-defined]
            route.abort()  # type: ignore[attr-defined]
        else:
            route.continue_()  # type: ignore[attr-defined]

    page.route("**/commands", lose)
    page.keyboard.press("ArrowRight")
    expect(page.get_by_role("status").first).to_contain_text("revision 2")
    expect(page.locator("footer")).to_contain_text(f"x {start + 1:.1f}")
    assert (demo_desk.head(TRAM), place(demo_desk).x) == (2, start + 1)


def test_two_tabs_that_move_the_same_part_both_count_and_follow(page: Page, address: str, demo_desk: Desk) -> None:
    opened(page, address)
    other = page.context.new_page()
    opened(other, address)
    start = place(demo_desk)
    for tab in (page, other):
        tab.bring_to_front()
        for _ in range(3):
            tab.keyboard.press("ArrowRight")
    for tab in (page, other):
        expect(tab.get_by_role("status").first).to_contain_text("revision 7")
        expect(tab.locator("footer")).to_contain_text(f"x {start.x + 6:.1f}")
    assert place(demo_desk).x == start.x + 6


def test_a_conflict_says_what_it_was_stays_until_read_and_can_be_asked_for_again(
    page: Page, address: str, demo_desk: Desk
) -> None:
    opened(page, address)
    page.context.set_offline(True)
    page.keyboard.press("ArrowRight")
    expect(page.get_by_role("status").first).to_contain_text("1 change waits here")
    demo_desk.command(TRAM, 1, (RemoveFunction(function="f15"),))
    page.context.set_offline(False)
    refusal = page.get_by_role("alert")
    name = demo_desk.open(TRAM, 1).design.functions[14].name
    expect(refusal).to_contain_text(f"Move {name} was not done: “{name}” was removed meanwhile")
    page.locator("#part-f14").click()
    page.keyboard.press("ArrowUp")
    expect(page.get_by_role("status").first).to_contain_text("revision 3")
    expect(refusal).to_be_visible()  # another change that succeeds does not wipe it away
    page.reload()
    expect(page.get_by_role("alert")).to_contain_text("was not done")
    demo_desk.undo(TRAM, 3)
    demo_desk.undo(TRAM, 4)
    page.get_by_role("button", name="Try again").click()
    expect(page.get_by_role("alert")).to_have_count(0)
    expect(page.get_by_role("status").first).to_contain_text("revision 6")


def test_a_drag_in_the_middle_of_news_keeps_its_place(page: Page, address: str, demo_desk: Desk) -> None:
    opened(page, address)
    x, y = page.evaluate("(m => [m.e, m.f])(document.getElementById('part-f15').getScreenCTM())")
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 30, y, steps=5)
    held = where(page)
    demo_desk.command(TRAM, 1, (EditFunction(function="f14", name="Renamed"), MoveItems(functions=("f14",), dy=1)))
    expect(page.get_by_role("status").first).to_contain_text("revision 2")
    page.mouse.move(x + 31, y)
    assert abs(where(page) - held) < 6
    page.mouse.up()
    expect(page.get_by_role("status").first).to_contain_text("revision 3")
    assert abs(place(demo_desk).x - where(page)) < 0.06
    page.keyboard.press("z")
    expect(page.get_by_role("status").first).to_contain_text("revision 4")
    assert next(f for f in demo_desk.open(TRAM).design.functions if f.id == "f14").name == "Renamed"


def test_a_station_that_did_not_come_is_fetched_again(page: Page, address: str) -> None:
    page.route("**/assets/Stack-*.js", lambda route: route.abort())
    opened(page, address)
    page.get_by_role("link", name="Stack").click()
    expect(page.get_by_text("This station cannot be shown")).to_be_visible()
    page.unroute_all()
    page.get_by_role("button", name="Try again").click()
    expect(page.get_by_role("tab", name="Pile")).to_be_visible()


def test_more_tabs_than_a_browser_has_connections_all_follow(page: Page, address: str, demo_desk: Desk) -> None:
    """Browsers open six connections to a server that speaks HTTP/1.1, and a stream of news keeps one."""
    tabs = [page, *(page.context.new_page() for _ in range(7))]
    for tab in tabs:
        opened(tab, address)
    for gone, hears in ((0, 7), (1, 6)):
        tabs[gone].close()  # the one that listened for all
        start = place(demo_desk)
        demo_desk.command(TRAM, demo_desk.head(TRAM), (MoveItems(functions=("f15",), dx=5),))
        expect(tabs[hears].locator("#part-f15")).to_have_attribute("transform", re.compile(rf"\({start.x + 5:g}[ ,]"))


def test_what_needs_the_usual_values_cannot_be_pressed_before_they_are_there(
    page: Page, address: str, demo_desk: Desk
) -> None:
    held: list[Route] = []

    def hold(route: Route) -> None:
        held.append(route)

    page.route("**/api/trade", hold)
    page.goto(f"{address}/d/{TRAM}/brief")
    page.get_by_role("tab", name="Workshop").click()
    for name in ("Add a printer", "Add a sheet", "Add a supply"):
        expect(page.get_by_role("button", name=name)).to_be_disabled()
    for route in held:
        route.continue_()
    page.get_by_role("button", name="Add a printer").click()
    expect(page.get_by_role("group", name="Printer")).to_be_visible()
    assert demo_desk.open(TRAM).design.workshop.machines[-1].kind == "printer"
