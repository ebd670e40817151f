"""A face laid out from an empty module to zero stops: half by mouse, half by the keyboard alone."""

from __future__ import annotations

import io
import re
from pathlib import Path

import pytest
from PIL import Image, ImageDraw
from playwright.sync_api import Page, Route, expect

from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import Command
from wingboard.core.changes.commands.functions import AddFunction
from wingboard.core.changes.commands.graphics import EditGraphic
from wingboard.core.changes.commands.modules import AddModule
from wingboard.core.changes.commands.parts import ChoosePart
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.design import Design
from wingboard.core.record.functions import Function
from wingboard.core.record.outlines import RectOutline
from wingboard.core.record.space import Brief
from wingboard.services.desk import Desk

PARTS = [
    ("toggle-large-on-off", "Left"),
    ("toggle-large-on-off", "Right"),
    ("button-16", "Buttons"),
    ("led-5-bezel", "Lamps"),
    ("potentiometer", "Levels"),
]
COUNTS = (4, 4, 6, 4, 2)
IDENT = "evening"


@pytest.fixture
def evening(demo_desk: Desk) -> Desk:
    """A module of 340 × 220 with twenty functions in the tray, a part chosen for each."""
    design = Design(name="Evening", brief=Brief(opening=RectOutline(width=341, height=221), depth=95))
    batch: list[Command] = [
        AddModule(id="plate", name="Plate", outline=RectOutline(width=340, height=220, radius=3), x=0.5, y=0.5)
    ]
    for (part, group), many in zip(PARTS, COUNTS, strict=True):
        for n in range(1, many + 1):
            ident = f"{group.lower()}-{n}"
            batch += [
                AddFunction(id=ident, name=f"{group} {n}", group=group),
                ChoosePart(function=ident, part=part),
            ]
    demo_desk.add(apply(design, batch, catalogue()), "Start", ident=IDENT)
    return demo_desk


def kept(desk: Desk) -> Design:
    """The design as it is kept."""
    return desk.open(IDENT).design


def of(desk: Desk, group: str) -> list[Function]:
    """The functions of a group, in their order."""
    return [f for f in kept(desk).functions if f.group == group]


def spot(page: Page, x: float, y: float) -> tuple[float, float]:
    """A point of the plate on the screen."""
    at = page.evaluate(
        """([x, y]) => {
          const m = document.querySelector("[data-board] > g").getScreenCTM();
          return [m.a * x + m.c * y + m.e, m.b * x + m.d * y + m.f];
        }""",
        [x, y],
    )
    return float(at[0]), float(at[1])


def carry(page: Page, fn: str, x: float, y: float) -> None:
    """Drag a part from the tray onto the plate; Ctrl keeps it from being caught by a line."""
    row = page.locator(f"[data-tray='{fn}']")
    row.scroll_into_view_if_needed()
    box = row.bounding_box()
    assert box is not None
    page.mouse.move(box["x"] + 40, box["y"] + 12)
    page.mouse.down()
    to = spot(page, x, y)
    page.mouse.move(to[0] - 6, to[1], steps=2)
    page.keyboard.down("Control")
    page.mouse.move(*to, steps=2)
    page.mouse.up()
    page.keyboard.up("Control")
    expect(page.locator(f"#part-{fn}")).to_be_visible()


def pick(page: Page, *fns: str) -> None:
    """Select parts by clicking them, with Shift after the first."""
    page.keyboard.press("Escape")
    for n, fn in enumerate(fns):
        page.locator(f"#part-{fn}").click(modifiers=["Shift"] if n else [], position=None, force=True)


def find(page: Page, words: str) -> None:
    """The palette: type and take the first."""
    page.keyboard.press("Control+k")
    expect(page.get_by_role("dialog").get_by_role("option").first).to_be_visible()
    page.keyboard.type(words)
    first = page.get_by_role("dialog").get_by_role("option").first
    expect(first).to_contain_text(re.compile(re.escape(words.split()[-1]), re.I))
    page.keyboard.press("Enter")
    expect(page.get_by_role("dialog")).to_have_count(0)


def press(page: Page, desk: Desk, button: str) -> None:
    """Press a tool, and wait until its change is kept and shown."""
    before = desk.open(IDENT).row.number
    tools = page.get_by_role("toolbar", name="Arrange the selected parts")
    if not tools.get_by_role("button", name=button, exact=True).count():
        tools.get_by_role("button", name="More…").click()
    page.get_by_role("button", name=button, exact=True).click()
    expect(page.get_by_role("status").first).to_contain_text(re.compile(rf"revision {before + 1}$"))


def settle_all(page: Page, desk: Desk, by_key: bool) -> None:
    """Apply the first stop's fix until no stop is left."""
    for _ in range(40):
        left = page.get_by_title("Show everything that is left").inner_text()
        if "to fix" not in left or left.split("to fix")[0].strip().endswith("0"):
            return
        before = desk.open(IDENT).row.number
        if by_key:
            page.keyboard.press("s")
        else:
            page.get_by_role("complementary").locator("[data-focus=true]").get_by_role(
                "button", name=re.compile("S$")
            ).click()
        expect(page.get_by_role("status").first).to_contain_text(f"revision {before + 1}")
    raise AssertionError("something is left to fix after forty fixes")


def _place_by_mouse(page: Page, desk: Desk) -> None:
    for n in range(1, 5):
        carry(page, f"left-{n}", 30 + 32 * (n - 1) + n % 2 * (n - 1), 38 + n % 2 * 4)
        carry(page, f"right-{n}", 190 + 32 * (n - 1), 40 + n % 3 * 3)
    for n in range(1, 3):
        carry(page, f"buttons-{n}", 60 + 40 * n, 110)
    expect(page.get_by_text("10 of 20")).to_be_visible()
    page.locator("#part-left-1").dblclick(force=True)
    expect(page.locator("footer")).to_contain_text("4 parts")
    press(page, desk, "Level")
    press(page, desk, "Even gaps ↔")
    assert len({f.place.y for f in of(desk, "Left") if f.place}) == 1
    pick(page, "left-1", "left-2", "left-3", "left-4", "right-1", "right-2", "right-3", "right-4")
    expect(page.locator("footer")).to_contain_text("8 parts")
    was = [f.place.x for f in of(desk, "Left") if f.place]
    press(page, desk, "Swap")
    now = [f.place.x for f in of(desk, "Left") if f.place]
    assert min(now) > max(was)
    page.locator("#part-right-1").dblclick(force=True)
    expect(page.locator("footer")).to_contain_text("4 parts")
    order = [f.id for f in sorted(of(desk, "Right"), key=lambda f: f.place.x if f.place else 0)]
    press(page, desk, "Mirror")
    after = [f.id for f in sorted(of(desk, "Right"), key=lambda f: f.place.x if f.place else 0)]
    assert after == order[::-1]
    settle_all(page, desk, by_key=False)


def _finish_by_keys(page: Page, desk: Desk) -> None:
    page.keyboard.press("Escape")
    for n in range(9):
        page.keyboard.press("p")
        expect(page.get_by_text(f"{9 - n} of 20")).to_be_visible()
    # The last is slow to be kept: what was chosen meanwhile stays chosen.
    slow: list[Route] = []

    def hold(route: Route) -> None:
        slow.append(route)

    page.route("**/commands", hold)
    page.keyboard.press("p")
    expect(page.get_by_text("0 of 20")).to_be_visible()
    find(page, "Levels 1")
    before = desk.open(IDENT).row.number
    slow[0].continue_()
    page.unroute("**/commands")
    expect(page.get_by_role("status").first).to_contain_text(f"revision {before + 1}")
    page.keyboard.press("l")
    expect(page.get_by_role("toolbar").get_by_role("button", name="Unlock")).to_be_visible()
    number = desk.open(IDENT).row.number
    page.keyboard.press("ArrowRight")
    expect(page.get_by_role("alert")).to_contain_text("A locked part stays where it is; L frees it")
    page.keyboard.press("l")
    expect(page.get_by_role("status").first).to_contain_text(f"revision {number + 1}")
    page.get_by_role("tab", name="Legends").focus()
    page.keyboard.press("Enter")
    name = page.get_by_role("region", name="Legend of the selected part").get_by_label(re.compile("^Text"))
    name.focus()
    page.keyboard.press("Control+a")
    page.keyboard.type("CAB|LIGHT")
    page.keyboard.press("Enter")
    expect(page.get_by_role("status").first).to_contain_text(f"revision {number + 2}")
    page.get_by_role("button", name="+ Placard").focus()
    page.keyboard.press("Enter")
    placard = page.get_by_role("group", name=re.compile("^Placard"))
    placard.get_by_label("Placard", exact=True).focus()
    page.keyboard.press("Control+a")
    page.keyboard.type("MASTER OFF FIRST")
    page.keyboard.press("Enter")
    expect(page.get_by_role("group", name="Placard MASTER OFF FIRST")).to_be_visible()
    clear = _free_height(desk)
    height = page.get_by_label("Placard MASTER OFF FIRST, y")
    height.focus()
    page.keyboard.press("Control+a")
    page.keyboard.type(str(clear))
    page.keyboard.press("Enter")
    expect(height).to_have_value(str(clear))
    page.keyboard.press("Escape")
    page.get_by_role("listbox").focus()
    settle_all(page, desk, by_key=True)


def test_an_evening_at_the_face(watched: Page, address: str, evening: Desk) -> None:
    page, desk = watched, evening
    page.goto(f"{address}/d/{IDENT}/face")
    page.locator("[data-board]").wait_for()
    expect(page.get_by_text("20 of 20")).to_be_visible()

    # By mouse: two groups of toggles and the buttons, a little untidy, as hands do it.
    _place_by_mouse(page, desk)

    # By the keyboard alone: the other ten, a pair, legends, a placard, and whatever is left to fix.
    _finish_by_keys(page, desk)
    design = kept(desk)
    assert all(f.place for f in design.functions)
    assert [f for f in desk.open(IDENT).findings if f.severity == "must" and f.unsettled] == []
    assert design.graphics[0].text == "MASTER OFF FIRST"
    assert next(f for f in design.functions if f.id == "levels-1").legend.text == "CAB|LIGHT"  # type: ignore[union-attr]


def _free_height(desk: Desk) -> int:
    """A height of the plate at which the placard in its middle covers nothing."""
    graphic = kept(desk).graphics[0].id
    for y in range(208, 10, -2):
        tried = desk.tried(IDENT, desk.open(IDENT).row.number, (EditGraphic(graphic=graphic, y=float(y)),))
        if not any(f.code == "face.placard-covered" for f in tried.findings):
            return y
    raise AssertionError("no room for a placard")


def test_the_views_show_hands_behind_webs_and_the_eye(watched: Page, address: str, demo_desk: Desk) -> None:
    page = watched
    page.goto(f"{address}/d/kestrel-line-9/face?module=left")
    page.locator("#part-f15").wait_for()
    page.get_by_role("tab", name="Hands").click()
    expect(page.get_by_text("One sweep, all the same way when off")).to_be_visible()
    page.get_by_role("tab", name="Tray").click()
    for fn in ("f13", "f14"):
        page.locator(f"#part-{fn}").click(modifiers=["Shift"] if fn == "f14" else [], force=True)
    page.get_by_role("tab", name="Sweeps").click()
    page.get_by_role("button", name="A sweep over these 2").click()
    expect(page.get_by_role("group", name="Shut down")).to_have_count(2)
    page.get_by_role("tab", name="Behind").click()
    expect(page.locator("[data-fn]")).to_have_count(0)
    expect(page.locator("[data-board]")).to_contain_text("Emergency")
    page.get_by_role("tab", name="Webs").click()
    expect(page.locator("[data-board] path[stroke='var(--on-ok)']").first).to_be_attached()
    page.get_by_role("tab", name="Eye").click()
    expect(page.locator("[data-board]")).to_contain_text("off square: letters look")
    page.keyboard.press("v")
    expect(page.get_by_role("tab", name="Face", exact=True)).to_have_attribute("aria-selected", "true")
    page.keyboard.press("m")
    a, b = page.locator("#part-f13"), page.locator("#part-f14")
    a.click(force=True)
    b.click(force=True)
    expect(page.get_by_role("status").last).to_contain_text("26.00")
    page.keyboard.press("w")  # what is round the board is drawn anew, and Escape still belongs to the board
    page.keyboard.press("w")
    page.keyboard.press("Escape")
    expect(page.get_by_text("measuring, Esc ends")).to_be_hidden()
    page.get_by_role("tab", name="Legends").click()
    page.get_by_label("Font").select_option("single-stroke")
    expect(page.get_by_role("status").first).to_contain_text("revision 3")
    expect(page.locator("#part-f13 path[stroke-width]").first).to_be_attached()
    assert demo_desk.open("kestrel-line-9").design.style.font == "single-stroke"


def picture(path: Path) -> Path:
    """A plain scan: a light plate on a dark table, with one dark hole at its middle."""
    image = Image.new("RGB", (800, 600), "#555555")
    pen = ImageDraw.Draw(image)
    pen.rectangle((100, 100, 700, 500), fill="#ddddcc")
    pen.ellipse((380, 280, 420, 320), fill="#111111")
    stream = io.BytesIO()
    image.save(stream, "PNG")
    path.write_bytes(stream.getvalue())
    return path


def test_a_picture_is_squared_traced_and_a_part_snapped_to_it(
    watched: Page, address: str, demo_desk: Desk, tmp_path: Path
) -> None:
    page = watched
    page.goto(f"{address}/d/dust-extraction/face?sel=f9")
    page.locator("#part-f9").wait_for()
    page.get_by_role("tab", name="Reference").click()
    bad = tmp_path / "bad.png"
    bad.write_bytes(b"not a picture")
    page.get_by_label("Reference picture").set_input_files(bad)
    expect(page.get_by_role("alert")).to_contain_text("bad.png: It is neither a PNG nor a JPEG")
    page.get_by_label("Reference picture").set_input_files(picture(tmp_path / "scan.png"))
    image = page.get_by_role("img", name="Reference")
    expect(image).to_be_visible()

    def click(x: float, y: float) -> None:
        box = image.bounding_box()
        assert box is not None
        page.mouse.click(box["x"] + x / 800 * box["width"], box["y"] + y / 600 * box["height"])

    page.get_by_role("button", name="Square by a known rectangle").click()
    form = page.get_by_role("group", name="Square by a known rectangle")
    for label, mm in (("Wide", "150"), ("High", "100"), ("Lower left, x", "30"), ("y", "20")):
        form.get_by_label(label, exact=True).fill(mm)
        form.get_by_label(label, exact=True).press("Enter")
    for x, y in ((100, 500), (700, 500), (700, 100), (100, 100)):
        click(x, y)
    expect(form).to_contain_text("4 picked")
    form.get_by_role("button", name="Apply").click()
    expect(page.get_by_text("points miss by")).to_be_visible()
    page.get_by_role("button", name="Trace a circle").click()
    for x, y in ((380, 300), (400, 280), (420, 300), (400, 320)):
        click(x, y)
    page.get_by_role("group", name="Trace a circle").get_by_role("button", name="Apply").click()
    expect(page.get_by_text(re.compile("⌀ 10"))).to_be_visible()
    expect(page.locator("[data-code='face.trace-missed']")).to_have_count(1)
    page.get_by_role("button", name="Move the part here for Bin full").click()
    expect(page.locator("[data-code='face.trace-missed']")).to_have_count(0)
    place = next(f for f in demo_desk.open("dust-extraction").design.functions if f.id == "f9").place
    assert place is not None
    assert place.x == pytest.approx(105, abs=0.4)
    assert place.y == pytest.approx(70, abs=0.4)
    answer = page.request.get(f"{address}/api/designs/dust-extraction/face/views/plate").json()
    assert answer["references"][0]["holes"][0]["off_centre"] < 0.02
