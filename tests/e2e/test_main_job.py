"""The main job in a real browser: move, be told, settle, undo, redo, export, pins; by mouse and by keyboard."""

import csv
import io
import math
import re
from pathlib import Path
from typing import Any

import ezdxf
import pytest
import svgelements
from browser import at_rest
from playwright.sync_api import Page, expect

from wingboard.core.changes.commands.places import RemoveItems
from wingboard.core.cut.scenes import module_scenes
from wingboard.core.files.scene import CirclePath
from wingboard.services.desk import Desk

TRAM = "kestrel-line-9"


def centre(page: Page, fn: str) -> tuple[float, float]:
    """Where a part's centre is on the screen."""
    page.locator(f"#part-{fn}").wait_for()
    x, y = page.evaluate(f"(m => [m.e, m.f])(document.getElementById('part-{fn}').getScreenCTM())")
    return float(x), float(y)


def drag(page: Page, fn: str, dx: float, dy: float = 0.0) -> None:
    """Drag a part by millimetres."""
    x, y = centre(page, fn)
    scale = float(page.locator("[data-board]").get_attribute("data-scale") or 1)
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + dx * scale / 2, y - dy * scale / 2, steps=4)
    page.mouse.move(x + dx * scale, y - dy * scale, steps=4)
    page.mouse.up()


def opened(page: Page, address: str, station: str = "face", query: str = "?module=left") -> None:
    """Open a station of the tram desk."""
    page.goto(f"{address}/d/{TRAM}/{station}{query}")
    page.get_by_role("navigation", name="Stations").wait_for()


def worklist(page: Page, code: str) -> Any:
    """The rows of one check."""
    return page.locator(f"[data-code='{code}']")


def download(page: Page, name: str) -> bytes:
    """Click a link and take what it gives."""
    with page.expect_download() as given:
        page.get_by_role("link", name=name, exact=True).click()
    return Path(given.value.path()).read_bytes()


def test_the_main_job_from_a_drag_to_files_and_pins(watched: Page, address: str, demo_desk: Desk) -> None:
    page = watched
    opened(page, address)
    expect(worklist(page, "face.fingers-close")).to_have_count(0)
    drag(page, "f15", -4)
    clash = worklist(page, "face.fingers-close")
    expect(clash).to_contain_text("Sander to Wiper")
    expect(clash).to_contain_text("15.0 mm measured")
    expect(clash).to_contain_text("19.0 mm needed")
    clash.get_by_role("button").first.click()
    page.get_by_role("button", name=re.compile(r"^Move .* mm ")).click()
    expect(clash).to_have_count(0)
    page.get_by_role("button", name="Undo").click()
    expect(clash).to_have_count(1)
    page.get_by_role("button", name="Redo").click()
    expect(clash).to_have_count(0)
    expect(page.get_by_role("status").first).to_contain_text("revision 5")

    page.get_by_role("link", name="Cut").click()
    page.get_by_role("tab", name="Files", exact=True).click()
    dxf, svg = download(page, "Left module, face.dxf"), download(page, "Left module, face.svg")
    resolved = demo_desk.open(TRAM).resolved
    scene = module_scenes(resolved, resolved.modules["left"])["face"]
    wanted = [(i.path.x, i.path.y, i.path.diameter) for i in scene.items if isinstance(i.path, CirclePath)]
    cut = [
        (e.dxf.center.x, e.dxf.center.y, 2 * e.dxf.radius)
        for e in ezdxf.read(io.StringIO(dxf.decode())).modelspace()  # type: ignore[attr-defined]
        if e.dxftype() == "CIRCLE"
    ]
    drawn = [
        (float(c.cx), scene.height - float(c.cy), 2 * float(c.rx))
        for c in svgelements.SVG.parse(io.StringIO(svg.decode()), ppi=25.4).elements()
        if isinstance(c, svgelements.Circle)
    ]
    for read in (cut, drawn):
        assert len(read) == len(wanted)
        assert all(min(math.dist(a, b) for b in wanted) < 0.01 for a in read)

    page.get_by_role("link", name="Wire").click()
    page.get_by_role("button", name="Reassign all").click()
    expect(page.get_by_text("no better assignment exists")).to_be_visible()
    page.get_by_role("tab", name="Pin list").click()
    rows = list(csv.DictReader(io.StringIO(download(page, "CSV").decode())))
    assert len(rows) == 104
    assert all(row["pin"] for row in rows)
    assert len({row["board"] for row in rows if row["module"] == "Left module"}) == 1


def test_the_same_by_keyboard_alone(watched: Page, address: str) -> None:
    page = watched
    opened(page, address, "brief", "")
    page.get_by_label("New function").wait_for()
    page.keyboard.press("n")
    page.keyboard.type("Sun blind")
    page.keyboard.press("Enter")
    expect(page.get_by_role("gridcell", name=re.compile("^Sun blind")).first).to_be_visible()
    page.keyboard.press("Escape")
    page.keyboard.press("3")
    page.locator("#part-f15").wait_for()
    page.keyboard.press("/")
    expect(page.get_by_label("Find a function, part, pin or command")).to_be_focused()
    page.keyboard.type("wiper")
    expect(page.get_by_role("dialog").get_by_role("option").first).to_contain_text("Wiper")
    page.keyboard.press("Enter")
    expect(page.locator("footer")).to_contain_text("x 113.0")
    page.keyboard.press("Shift+ArrowUp")
    expect(page.locator("footer")).to_contain_text("y 50.0")
    page.keyboard.press("Alt+ArrowDown")
    expect(page.locator("footer")).to_contain_text("y 49.9")
    page.locator("#number-line").fill("x-1/8in r90")
    page.keyboard.press("Enter")
    expect(page.locator("footer")).to_contain_text("x 109.8")
    expect(page.locator("footer")).to_contain_text("90°")
    page.locator("#number-line").fill("sideways")
    page.keyboard.press("Enter")
    expect(page.locator("footer [role=alert]")).to_contain_text("is not understood")
    page.keyboard.press("Escape")
    for _ in range(3):
        page.keyboard.press("z")
    expect(page.locator("[data-code='face.legend-off-detents']")).to_have_count(1)
    page.keyboard.press("Escape")
    page.keyboard.press("s")
    expect(page.locator("[data-code='face.legend-off-detents']")).to_have_count(0)
    expect(page.get_by_title("Show everything that is left")).to_contain_text("0 to fix")
    page.keyboard.press("/")
    page.keyboard.type("hold brake")
    expect(page.get_by_role("dialog").get_by_role("option").first).to_contain_text("Hold brake")
    page.keyboard.press("Enter")
    expect(page.locator("footer")).to_contain_text("Hold brake")
    page.keyboard.press("Delete")
    expect(page.locator("[data-tray]").first).to_contain_text("Hold brake")
    page.keyboard.press("p")
    expect(page.locator("[data-tray]")).to_have_count(1)  # the sun blind, which has no part yet
    expect(page.locator("footer")).to_contain_text("Hold brake")


def test_keys_act_where_the_focus_is_and_a_held_arrow_is_one_change(
    watched: Page, address: str, demo_desk: Desk
) -> None:
    page = watched

    def place() -> tuple[float, float] | None:
        fn = next(f for f in demo_desk.open("kestrel-line-9").design.functions if f.name == "Link")
        return (fn.place.x, fn.place.y) if fn.place else None

    ident = next(f.id for f in demo_desk.open("kestrel-line-9").design.functions if f.name == "Link")
    home = place()
    assert home
    for station in ("wire", "cut", "brief"):
        page.goto(f"{address}/d/kestrel-line-9/{station}?sel={ident}")
        expect(page.get_by_role("contentinfo")).to_contain_text("Link")
        for key in ("ArrowRight", "Delete", "r"):
            page.keyboard.press(key)
    at_rest(page)
    assert (place(), demo_desk.open("kestrel-line-9").row.number) == (home, 1)
    page.goto(f"{address}/d/kestrel-line-9/face?sel={ident}")
    expect(page.get_by_role("option", name=re.compile("^Link,"))).to_be_visible()
    for _ in range(6):
        page.keyboard.down("ArrowRight")  # the first goes down, the others repeat
    page.keyboard.down("ArrowUp")
    page.keyboard.up("ArrowRight")
    expect(page.get_by_role("status").first).to_contain_text("revision 2")
    assert place() == pytest.approx((home[0] + 6, home[1] + 1))
    page.keyboard.down("ArrowLeft")
    page.keyboard.press("Escape")
    page.keyboard.up("ArrowLeft")
    at_rest(page)
    assert demo_desk.open("kestrel-line-9").row.number == 2
    page.keyboard.press("z")
    expect(page.get_by_role("status").first).to_contain_text("revision 3")
    assert place() == pytest.approx(home)
    # The worklist keeps its own keys, though a part is selected.
    page.get_by_role("complementary").get_by_role("button").first.focus()
    page.keyboard.press("ArrowRight")
    page.keyboard.press("Delete")
    at_rest(page)
    assert demo_desk.open("kestrel-line-9").row.number == 3
    page.keyboard.press("?")
    keys = page.get_by_role("dialog")
    for words in ("Nudge 1 mm; with Shift 10, with Alt 0.1", "Type a new function", "Undo", "Arrange: Lock"):
        expect(keys).to_contain_text(words)


def test_dragging_from_the_tray_shows_distances_and_places(watched: Page, address: str, demo_desk: Desk) -> None:
    page = watched
    demo_desk.command(TRAM, 1, (RemoveItems(functions=("f33",)),))
    opened(page, address)
    box = page.locator("[data-tray=f33]").bounding_box()
    x, y = centre(page, "f13")
    assert box is not None
    page.mouse.move(box["x"] + 20, box["y"] + 20)
    page.mouse.down()
    page.mouse.move(x + 60, y - 130, steps=5)
    page.mouse.move(x + 70, y - 140, steps=5)
    expect(page.locator("[data-board] text").filter(has_text=re.compile(r"^\d+\.\d$")).first).to_be_visible()
    page.mouse.up()
    expect(page.locator("#part-f33")).to_be_visible()
    expect(page.locator("#part-f33")).to_have_attribute("aria-selected", "true")


def test_two_tabs_follow_each_other_and_both_changes_are_kept(watched: Page, address: str, demo_desk: Desk) -> None:
    page = watched
    other = page.context.new_page()
    for tab in (page, other):
        opened(tab, address, query="?module=left&sel=f15")
        expect(tab.locator("footer")).to_contain_text("x 113.0")
        expect(tab.locator("#part-f15")).to_be_visible()
    other.keyboard.press("ArrowRight")
    page.keyboard.press("ArrowUp")
    for tab in (page, other):
        expect(tab.get_by_role("status").first).to_contain_text("revision 3")
        expect(tab.locator("footer")).to_contain_text("x 114.0")
    place = next(f for f in demo_desk.open(TRAM).design.functions if f.id == "f15").place
    assert place is not None
    assert place.x == 114
    assert place.y == 41


def test_when_the_server_stops_the_change_is_held_and_sent_when_it_is_back(page: Page, address: str) -> None:
    opened(page, address, query="?module=left&sel=f15")
    expect(page.locator("footer")).to_contain_text("x 113.0")
    expect(page.locator("#part-f15")).to_be_visible()
    page.context.set_offline(True)
    page.keyboard.press("ArrowRight")
    expect(page.get_by_role("status").first).to_contain_text("1 change waits here")
    page.context.set_offline(False)
    expect(page.locator("footer")).to_contain_text("x 114.0")
    expect(page.get_by_role("status").first).to_contain_text("revision 2")


@pytest.mark.parametrize("station", ["brief", "parts", "face", "stack", "cut", "wire"])
@pytest.mark.parametrize("theme", ["day", "night"])
def test_no_serious_accessibility_violation(watched: Page, address: str, station: str, theme: str) -> None:
    page = watched
    page.add_init_script(f"localStorage.setItem('theme', '{theme}')")
    opened(page, address, station, "?sel=f11")
    at_rest(page)
    page.evaluate((Path(__file__).parents[2] / "web/node_modules/axe-core/axe.min.js").read_text("utf-8"))
    found = page.evaluate("axe.run(document, {resultTypes: ['violations']})")["violations"]
    bad = [f"{v['id']}: {v['nodes'][0]['html'][:160]}" for v in found if v["impact"] in ("serious", "critical")]
    assert bad == []


def test_a_first_visit_leads_to_the_function_list_and_a_bad_file_is_explained(
    watched: Page, address: str, tmp_path: Path
) -> None:
    page = watched
    page.goto(f"{address}/new")
    page.get_by_label("What is it called?").fill("Boiler panel")
    page.get_by_label("Opening, width").fill("7-1/2 in")
    page.get_by_label("Opening, width").press("Tab")
    expect(page.get_by_label("Opening, width")).to_have_value("190.5")
    page.get_by_label("Opening, height").fill("wide")
    page.get_by_role("button", name="Create the panel").click()  # at once: it waits for what was typed
    expect(page.get_by_role("alert")).to_contain_text("is not a length")
    expect(page.get_by_label("Opening, height")).to_be_focused()
    expect(page).to_have_url(f"{address}/new")  # and nothing is made of what was not said
    page.get_by_label("Opening, height").press("Escape")
    page.get_by_role("button", name="Create the panel").click()
    expect(page.get_by_text("Nothing listed yet")).to_be_visible()
    page.get_by_role("button", name="Boiler panel").click()
    bad = tmp_path / "bad.json"
    bad.write_text('{"name": "x", "functions": [{"id": "f1"}]}')
    with page.expect_response(re.compile("/import")) as answer:
        page.get_by_label("Design file to import").set_input_files(bad)
    assert answer.value.status == 422
    expect(page.get_by_role("alert")).to_contain_text("functions[0].name")
