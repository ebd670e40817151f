"""Somebody who has never seen the application: from nothing to cut files, by pointer, by touch, by keyboard alone."""

from __future__ import annotations

import io
import re
import zipfile
from collections.abc import Iterator
from pathlib import Path

import ezdxf
import pytest
from browser import served
from playwright.sync_api import Browser, Page, expect

from wingboard.services.desk import Desk

LIST = (
    "Main power toggle switch 12 V 5 A", "Main power red lamp", "Pump toggle switch", "Pump green lamp",
    "Lights toggle switch", "Heater toggle switch", "Fan speed potentiometer", "Horn push button", "Bell push button",
    "Doors left lit push button green", "Doors right lit push button green", "Route rotary switch",
    "Wiper toggle switch", "Speed read-out", "Voltage read-out", "Link blue lamp", "Fault red lamp",
    "Reset push button", "Volume potentiometer", "Lamp test push button",
)  # fmt: skip
MOST_ACTIONS = 160


class Hand:
    """A hand at the page that counts what it does: a click, a drag, a key, a line typed."""

    def __init__(self, page: Page) -> None:
        self.page = page
        self.actions = 0

    def click(self, role: str, name: str | re.Pattern[str]) -> None:
        self.actions += 1
        self.page.get_by_role(role, name=name).locator("visible=true").first.click()  # type: ignore[arg-type]

    def key(self, key: str) -> None:
        self.actions += 1
        self.page.keyboard.press(key)

    def line(self, text: str) -> None:
        self.actions += 1
        self.page.keyboard.type(text)

    def drag(self, start: tuple[float, float], end: tuple[float, float]) -> None:
        self.actions += 1
        self.page.mouse.move(*start)
        self.page.mouse.down()
        self.page.mouse.move((start[0] + end[0]) / 2, (start[1] + end[1]) / 2, steps=4)
        self.page.mouse.move(*end, steps=4)
        self.page.mouse.up()


@pytest.fixture
def bare(desk: Desk) -> Iterator[str]:
    """The application over an empty desk."""
    with served(desk) as where:
        yield where


def middle(page: Page, selector: str) -> tuple[float, float]:
    box = page.locator(selector).first.bounding_box()
    assert box is not None
    return box["x"] + box["width"] / 2, box["y"] + box["height"] / 2


def waits(page: Page, words: str) -> None:
    expect(page.get_by_title("Show everything that is left")).to_contain_text(words)


def settle(hand: Hand, desk: Desk, ident: str) -> None:
    """S for whatever has a fix, until nothing is left to fix; what no fix settles is overridden with a reason."""
    page = hand.page
    hand.actions += 1
    page.get_by_title("Show everything that is left").click()
    for _ in range(40):
        head = desk.open(ident)
        left = [f for f in head.findings if f.severity == "must" and f.unsettled]
        if not left:
            return
        for finding in left:
            offered = head.fix_of(finding.id)
            if offered is not None and offered.fix is not None:
                hand.actions += 1
                page.locator(f"[data-code='{finding.code}']").first.get_by_role("button").first.click()
                hand.key("s")
                break
        else:
            raise AssertionError([f"{f.title}: {f.detail}" for f in left])
        expect(page.get_by_role("status").first).to_contain_text(f"revision {head.row.number + 1}")
    raise AssertionError("the fixes go on for ever")


SIZES = [(1024, 700), (1920, 1080)]
"""Smaller and larger than what all other tests look at."""


@pytest.mark.parametrize("size", SIZES, ids=[f"{w}x{h}" for w, h in SIZES])
def test_a_newcomer_gets_from_nothing_to_files(bare: str, desk: Desk, page: Page, size: tuple[int, int]) -> None:
    page.set_viewport_size({"width": size[0], "height": size[1]})
    hand = Hand(page)
    page.goto(bare)
    expect(page.get_by_role("heading", name="New panel")).to_be_visible()
    expect(page.get_by_role("button", name="Cancel")).to_have_count(0)  # there is nowhere to go back to
    hand.click("checkbox", "laser")
    width = page.get_by_label("Opening, width")
    hand.actions += 2
    width.fill("420")
    page.get_by_label("Opening, height").fill("260")
    hand.click("button", "Create the panel")
    page.get_by_label("New function").wait_for()
    for line in LIST:
        hand.line(line)
        hand.key("Enter")
    expect(page.get_by_role("region", name="Functions")).to_contain_text("20 functions")
    ident = desk.designs()[0].id
    assert [f.name for f in desk.open(ident).design.functions].count("Main power") == 2  # its switch and its lamp
    hand.key("Escape")
    hand.click("link", re.compile("Parts"))
    hand.click("button", re.compile("Give all 20"))
    expect(page.get_by_role("navigation", name="Stations")).not_to_contain_text("without a part")
    design = desk.open(ident).design
    assert all(f.part for f in design.functions)
    hand.click("link", re.compile("Face"))
    page.locator("[data-board]").wait_for()
    first = design.functions[0].id
    x, y = middle(page, "[data-board]")
    hand.drag(middle(page, f"[data-tray='{first}']"), (x - 120, y + 60))
    expect(page.locator(f"#part-{first}")).to_be_visible()
    for n in range(19):
        hand.key("p")
        expect(page.get_by_text(f"{18 - n} of 20")).to_be_visible()
    # The tray is empty before the last change is kept: created, 20 typed, given parts at once, 20 placed.
    expect(page.get_by_role("status").first).to_contain_text(f"revision {1 + 20 + 1 + 20}")
    settle(hand, desk, ident)
    waits(
        page, "0 to fix" if [f for f in desk.open(ident).findings if f.severity == "judge" and f.unsettled] else "ready"
    )
    hand.click("link", re.compile("Cut"))
    with page.expect_download(timeout=60_000) as given:
        hand.click("button", "Everything, as one archive")
    archive = zipfile.ZipFile(io.BytesIO(Path(given.value.path()).read_bytes()))
    drawn = next(name for name in archive.namelist() if name.endswith(".dxf"))
    assert len(ezdxf.read(io.StringIO(archive.read(drawn).decode())).modelspace()) > 20  # type: ignore[attr-defined]
    assert hand.actions <= MOST_ACTIONS, hand.actions


def test_the_same_by_keyboard_alone(bare: str, desk: Desk, page: Page) -> None:
    page.goto(bare)
    press = page.keyboard.press

    def to(name: str, most: int = 60) -> None:
        """Tab until something of that name has the focus."""
        found = ""
        for _ in range(most):
            press("Tab")
            found = page.evaluate(
                "(e => e.getAttribute('aria-label') || e.labels?.[0]?.innerText || e.innerText || '')"
                "(document.activeElement)"
            )
            if re.search(name, found):
                return
        raise AssertionError(f"no way to “{name}” by Tab; the last was “{found}”")

    page.get_by_role("heading", name="New panel").wait_for()
    to("laser")
    press("Space")
    to("Create the panel")
    press("Enter")
    expect(page.get_by_label("New function")).to_be_focused()
    for line in LIST[:6]:
        page.keyboard.type(line)
        press("Enter")
    expect(page.get_by_role("region", name="Functions")).to_contain_text("6 functions")
    press("Escape")
    press("2")
    page.get_by_role("listbox", name="Functions to give parts").wait_for()
    to("Give all 6")
    press("Enter")
    expect(page.get_by_text("Every one has a part")).to_be_visible()
    press("Escape")
    page.evaluate("document.activeElement.blur()")
    press("3")
    page.locator("[data-board]").wait_for()
    for n in range(6):
        press("p")
        expect(page.get_by_text(f"{5 - n} of 6")).to_be_visible()
    expect(page.get_by_role("status").first).to_contain_text(f"revision {1 + 6 + 1 + 6}")
    to("to fix|to judge|ready")
    press("Enter")  # everything that is left, wherever
    page.evaluate("document.activeElement.blur()")
    ident = desk.designs()[0].id
    for _ in range(20):
        left = [f for f in desk.open(ident).findings if f.severity == "must" and f.unsettled]
        if not left:
            break
        before = desk.open(ident).row.number
        press("s")
        expect(page.get_by_role("status").first).to_contain_text(f"revision {before + 1}")
    assert [f.title for f in desk.open(ident).findings if f.severity == "must" and f.unsettled] == []
    press("6")
    page.get_by_role("button", name="Everything, as one archive").wait_for()
    to("Everything, as one archive")
    with page.expect_download(timeout=60_000) as given:
        press("Enter")
    assert zipfile.is_zipfile(given.value.path())


SIXTY = "\n".join(f"Circuit {n}\ttoggle switch\tRow {n // 10}" for n in range(60))


def test_sixty_functions_are_pasted_and_given_parts_in_a_few_actions(bare: str, desk: Desk, page: Page) -> None:
    hand = Hand(page)
    page.goto(bare)
    hand.click("button", "Create the panel")
    expect(page.get_by_label("New function")).to_be_focused()
    hand.actions += 1
    page.evaluate(
        """text => {
          const data = new DataTransfer(); data.setData("text", text);
          document.activeElement.dispatchEvent(
            new ClipboardEvent("paste", { clipboardData: data, bubbles: true, cancelable: true }));
        }""",
        SIXTY,
    )
    hand.click("button", "Add 60 functions")
    expect(page.get_by_role("region", name="Functions")).to_contain_text("60 functions")
    hand.key("Escape")
    hand.key("2")
    hand.click("button", "Give all 60")
    expect(page.get_by_text("Every one has a part")).to_be_visible()
    assert all(f.part for f in desk.open(desk.designs()[0].id).design.functions)
    assert hand.actions < 40


def test_fingers_carry_from_the_tray_scroll_it_and_pinch(bare: str, desk: Desk, browser: Browser) -> None:
    context = browser.new_context(viewport={"width": 1024, "height": 700}, has_touch=True, reduced_motion="reduce")
    page = context.new_page()
    page.goto(bare)
    page.get_by_role("button", name="Create the panel").tap()
    page.get_by_label("New function").wait_for()
    for line in LIST:
        page.get_by_label("New function").fill(line)
        page.keyboard.press("Enter")
    expect(page.get_by_role("region", name="Functions")).to_contain_text("20 functions")
    ident = desk.designs()[0].id
    page.request.post(f"{bare}/api/designs/{ident}/commands", data={"base": 21, "commands": [
        {"do": "choose_part", "function": f.id, "part": "button-22"} for f in desk.open(ident).design.functions
    ]}, headers={"origin": bare})  # fmt: skip
    page.goto(f"{bare}/d/{ident}/face")
    page.locator("[data-board]").wait_for()
    session = context.new_cdp_session(page)

    def touch(kind: str, *points: tuple[float, float]) -> None:
        at = [{"x": x, "y": y, "id": n} for n, (x, y) in enumerate(points)]
        session.send("Input.dispatchTouchEvent", {"type": kind, "touchPoints": at})

    row = middle(page, "[data-tray='f1']")
    x, y = middle(page, "[data-board]")
    touch("touchStart", row)
    for n in range(1, 9):
        touch("touchMove", (row[0] + (x - row[0]) * n / 8, row[1] + (y - row[1]) * n / 8))
    touch("touchEnd")
    expect(page.locator("#part-f1")).to_be_visible()
    listed = page.get_by_role("region", name="Tray").locator("ul")
    start = middle(page, "[data-tray='f8']")
    touch("touchStart", start)
    for n in range(1, 9):
        touch("touchMove", (start[0], start[1] - 25 * n))
    touch("touchEnd")
    page.wait_for_timeout(300)
    assert listed.evaluate("e => e.scrollTop") > 50
    assert [f.id for f in desk.open(ident).design.functions if f.place] == ["f1"]
    scale = float(page.locator("[data-board]").get_attribute("data-scale") or 0)
    touch("touchStart", (x - 40, y + 90), (x + 40, y + 90))
    for n in range(1, 7):
        touch("touchMove", (x - 40 - 12 * n, y + 90), (x + 40 + 12 * n, y + 90))
    touch("touchEnd")
    page.wait_for_timeout(200)
    assert float(page.locator("[data-board]").get_attribute("data-scale") or 0) > scale * 1.8
    context.close()
