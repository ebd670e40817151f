"""Every view of every station in hard circumstances: accessible, inside the window, and nothing said in the console."""

from __future__ import annotations

import re
from pathlib import Path

import pytest
from browser import at_rest
from playwright.sync_api import Page, expect

from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import BATCH, Command
from wingboard.core.changes.commands.functions import AddFunction
from wingboard.core.changes.commands.modules import AddModule
from wingboard.core.changes.commands.parts import ChoosePart
from wingboard.core.changes.commands.places import PlacePart
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.design import Design
from wingboard.core.record.outlines import RectOutline
from wingboard.core.record.space import Brief
from wingboard.services.desk import Desk
from wingboard.testing import generated_design

TRAM = "kestrel-line-9"
AXE = Path(__file__).parents[2] / "web/node_modules/axe-core/axe.min.js"
OUTSIDE = """() => [...document.querySelectorAll('button, input, select, a')].filter(e => {
  const r = e.getBoundingClientRect();
  if (!r.width || !r.height || getComputedStyle(e).visibility === 'hidden') return false;
  for (let p = e.parentElement; p; p = p.parentElement) {
    const overflow = getComputedStyle(p);
    if (/auto|scroll/.test(overflow.overflowX + overflow.overflowY)) return false;
    if (/hidden|clip/.test(overflow.overflowX) && p.clientWidth < 4) return false;
  }
  return r.right > innerWidth + 1 || r.bottom > innerHeight + 1 || r.left < -1 || r.top < -1;
}).map(e => e.outerHTML.slice(0, 120))"""
"""Controls that lie outside the window and that no scrolling brings in."""

LONG = "The very long name of a control that somebody wrote out in full, with all its reasons"


def long_names() -> Design:
    """A module whose names are as long as they may reasonably get."""
    design = Design(name=LONG, brief=Brief(opening=RectOutline(width=241, height=161)))
    batch: list[Command] = [AddModule(id="plate", name=LONG, outline=RectOutline(width=240, height=160), x=0.5, y=0.5)]
    for n in range(1, 9):
        batch += [
            AddFunction(id=f"f{n}", name=f"{n} {LONG}", group=LONG, positions=("ON" * 12, "OFF")),
            ChoosePart(function=f"f{n}", part="toggle-large-on-off"),
            PlacePart(function=f"f{n}", module="plate", x=25.0 * n, y=80),
        ]
    return apply(design, batch, catalogue())


def sound(page: Page) -> None:
    """No serious violation, nothing out of the window, no sideways scrolling of the page itself."""
    at_rest(page)
    page.wait_for_timeout(300)
    page.evaluate(AXE.read_text("utf-8"))
    found = page.evaluate("axe.run(document, {resultTypes: ['violations']})")["violations"]
    assert [f"{v['id']}: {v['nodes'][0]['html'][:160]}" for v in found if v["impact"] in ("serious", "critical")] == []
    assert page.evaluate(OUTSIDE) == []
    assert page.evaluate("document.documentElement.scrollWidth") <= 1280


def opened(page: Page, address: str, path: str, theme: str = "day") -> None:
    """A view, in a theme."""
    page.add_init_script(f"localStorage.setItem('theme', '{theme}')")
    page.goto(f"{address}/d/{path}")
    page.get_by_role("navigation", name="Stations").wait_for()


@pytest.mark.parametrize(
    ("view", "theme"),
    [
        ("Hands", "day"),
        ("Behind", "night"),
        ("Webs", "night"),
        ("Reference", "day"),
        ("Eye", "day"),
        ("Legends", "night"),
    ],
)
def test_the_views_of_the_face(watched: Page, address: str, view: str, theme: str) -> None:
    opened(watched, address, f"{TRAM}/face?module=centre", theme)
    watched.get_by_role("tab", name=view, exact=True).click()
    expect(watched.get_by_role("tab", name=view, exact=True)).to_have_attribute("aria-selected", "true")
    sound(watched)


@pytest.mark.parametrize(("theme", "tab"), [("day", "Space"), ("night", "Workshop"), ("night", "Space")])
def test_the_sides_of_the_brief(watched: Page, address: str, theme: str, tab: str) -> None:
    opened(watched, address, f"{TRAM}/brief", theme)
    watched.get_by_role("tab", name=tab).click()
    sound(watched)


@pytest.mark.parametrize(("view", "theme"), [("Layer", "night"), ("Press", "day")])
def test_the_views_of_the_stack(watched: Page, address: str, view: str, theme: str) -> None:
    opened(watched, address, f"{TRAM}/stack?module=centre", theme)
    watched.get_by_role("tab", name=view, exact=True).click()
    watched.get_by_role("tab", name="Order").click()
    sound(watched)


@pytest.mark.parametrize(("view", "theme"), [("Evenness", "day"), ("Behind", "night")])
def test_the_views_of_the_light(watched: Page, address: str, view: str, theme: str) -> None:
    opened(watched, address, f"{TRAM}/light?module=left", theme)
    expect(watched.locator("[data-legend]").first).to_be_visible(timeout=20_000)
    watched.get_by_role("tab", name=view, exact=True).last.click()
    watched.get_by_role("tab", name="Lamps").click()
    sound(watched)


@pytest.mark.parametrize("theme", ["day", "night"])
def test_the_views_of_the_wire(watched: Page, address: str, demo_desk: Desk, theme: str) -> None:
    """What is read together, drawn, and the ways compared beside the lines."""
    there = demo_desk.open(TRAM)
    asked = {
        "Horn": "matrix",
        "Gong": "matrix",
        "Passenger call": "shift",
        "Route selector": "ladder",
        "Speed": "digits",
    }
    ids = {f.name: f.id for f in there.design.functions}
    raws = [{"do": "edit_function", "function": ids[name], "scheme": scheme} for name, scheme in asked.items()]
    demo_desk.command(TRAM, there.row.number, BATCH.validate_python(raws))
    opened(watched, address, f"{TRAM}/wire", theme)
    watched.get_by_role("tab", name="Schemes", exact=True).click()
    expect(watched.get_by_role("region", name="Route selector, read as one")).to_be_visible()
    sound(watched)
    watched.get_by_role("tab", name="Power", exact=True).click()
    watched.get_by_role("button", name=re.compile("^24 V supply supply")).click()
    sound(watched)
    watched.get_by_role("tab", name="Harness", exact=True).click()
    for tab in ("Centre module", "Wire and colours", "Outside the modules"):
        watched.get_by_role("tab", name=tab).click()
        sound(watched)
    watched.get_by_role("tab", name="Pin list", exact=True).click()
    sound(watched)
    watched.get_by_role("tab", name="Programs", exact=True).click()
    expect(watched.get_by_label("tables.h", exact=True)).to_contain_text("#define INPUT_COUNT")
    expect(watched.get_by_role("region", name="Not served")).to_contain_text(
        "Horn, 13: Right module, matrix: not every pin is given"
    )
    expect(watched.get_by_text(re.compile("of 253,952 bytes of flash"))).to_be_visible()
    on_board, hello = (
        watched.get_by_role("region", name="On the board"),
        watched.get_by_label("Or what it answers to hello"),
    )
    for answer, means in (("ready.", "is not what a board answers to hello"),
                          ("board 1 A of kestrel-line-no-9 revision 1 lines 0000 ~00", "what, cannot be told"),
                          ("board 1 A of a-lathe revision 1 lines 0000", "of another design, “a-lathe”")):  # fmt: skip
        hello.fill(answer)
        hello.press("Enter")
        expect(on_board).to_contain_text(means)
    sound(watched)
    watched.get_by_role("tab", name="Lines", exact=True).click()
    watched.get_by_role("tab", name="Left module").click()
    watched.get_by_role("button", name="Route selector, ladder tap").click()
    expect(watched.get_by_role("region", name="Read or driven another way")).to_be_visible()
    sound(watched)


@pytest.mark.parametrize("station", ["brief", "parts", "face", "stack", "light", "cut", "wire"])
@pytest.mark.parametrize("case", ["empty", "long", "many"])
def test_hard_designs(watched: Page, address: str, demo_desk: Desk, station: str, case: str) -> None:
    empty = Design(name="Empty", brief=Brief(opening=RectOutline(width=201, height=121)))
    made = long_names() if case == "long" else generated_design(400) if case == "many" else empty
    demo_desk.add(made, "Start", ident=case)
    opened(watched, address, f"{case}/{station}", "night" if station in ("parts", "wire") else "day")
    sound(watched)


def test_words_style_graphics_and_sweeps_are_set_where_they_stand(watched: Page, address: str, demo_desk: Desk) -> None:
    page = watched
    opened(page, address, f"{TRAM}/face?module=left&sel=f4")
    page.get_by_role("tab", name="Legends", exact=True).click()

    def kept() -> Design:
        return demo_desk.open(TRAM).design

    def revision(number: int) -> None:
        expect(page.get_by_role("status").first).to_contain_text(f"revision {number}")

    words = page.get_by_role("region", name="Legend of the selected part")
    words.get_by_label("Text (| starts a new line)").fill("ROUTE|SELECTOR")
    words.get_by_label("Text (| starts a new line)").press("Enter")
    revision(2)
    words.get_by_label("Offset right").fill("1/8 in")
    words.get_by_label("Offset right").press("Enter")
    revision(3)
    words.get_by_label("Curve around the control").click()
    revision(4)
    legend = next(f.legend for f in kept().functions if f.id == "f4")
    assert legend is not None
    assert (legend.text, legend.curved) == ("ROUTE|SELECTOR", True)
    assert abs(legend.dx - 25.4 / 8) < 0.01

    style = page.get_by_role("region", name="Style of all legends")
    style.get_by_label("Font").select_option("single-stroke")
    revision(5)
    style.get_by_label("Control name").fill("90")
    style.get_by_label("Control name").press("Enter")
    expect(page.get_by_role("alert")).to_be_visible()
    style.get_by_label("Control name").press("Escape")
    assert kept().style.font == "single-stroke"
    assert kept().style.name_cap < 90

    drawn = page.get_by_role("region", name="Drawn on this plate")
    before = len(kept().graphics)
    for n, kind in enumerate(("Placard", "Symbol", "Box"), 6):
        drawn.get_by_role("button", name=f"+ {kind}", exact=False).click()
        revision(n)
    assert [g.kind for g in kept().graphics[before:]] == ["placard", "symbol", "box"]
    placard = kept().graphics[before]
    row = drawn.get_by_role("group", name=f"Placard {placard.text}")
    row.get_by_label("Placard", exact=True).fill("FULL BRAKE FIRST")
    row.get_by_label("Placard", exact=True).press("Enter")
    revision(9)
    assert kept().graphics[before].text == "FULL BRAKE FIRST"
    page.get_by_role("button", name="Undo").click()
    revision(10)
    assert kept().graphics[before].text == placard.text


def test_a_dragged_part_says_at_once_what_it_would_clash_with(watched: Page, address: str, demo_desk: Desk) -> None:
    page = watched
    opened(page, address, f"{TRAM}/face?module=left")
    part, other = page.locator("[data-fn=f6]").bounding_box(), page.locator("[data-fn=f10]").bounding_box()
    assert part and other
    page.mouse.move(part["x"] + part["width"] / 2, part["y"] + part["height"] / 2)
    page.mouse.down()
    page.mouse.move(other["x"] + other["width"] / 2 + 12, other["y"] + other["height"] / 2 + 4, steps=8)
    clashes = page.get_by_test_id("clashes")
    expect(clashes).to_contain_text("Openings overlap")
    page.keyboard.press("Escape")
    expect(clashes).to_have_count(0)
    page.mouse.up()
    assert demo_desk.open(TRAM).row.number == 1
