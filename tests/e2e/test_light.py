"""Light used as a builder would: strips laid, dragged and dimmed, a dark ring cleared, an unlit module lit by a job."""

from __future__ import annotations

import io
import math
import re

from PIL import Image
from playwright.sync_api import Page, expect

from walking import TRAM, go, kept, revision
from wingboard.core.record.lights import Backlight
from wingboard.services.desk import Desk


def behind(desk: Desk, module: str) -> Backlight:
    """What lights a module, as it is kept."""
    found = next(m for m in kept(desk).modules if m.id == module).light
    assert found is not None
    return found


def test_a_dark_ring_is_cleared_and_strips_are_laid_dragged_and_dimmed(
    watched: Page, address: str, demo_desk: Desk
) -> None:
    page = watched
    route = next(f for f in kept(demo_desk).functions if f.name == "Route selector")
    assert route.place
    ring = [
        led.id
        for led in behind(demo_desk, "left").leds
        if math.dist((led.x, led.y), (route.place.x, route.place.y)) < 42
    ]
    gone = {"do": "remove_lights", "module": "left", "lights": ring}
    page.request.post(
        f"{address}/api/designs/{TRAM}/commands", data={"base": 1, "commands": [gone]}, headers={"origin": address}
    )
    go(page, address, f"{TRAM}/light?module=left")
    legends = page.get_by_role("region", name="What is lit")
    worst = legends.locator("[data-legend]").first
    expect(worst).to_contain_text("Route selector", timeout=20_000)
    dark = page.locator("[data-code='light.half-dark']").filter(has_text="Route selector")
    dark.get_by_role("button").first.click()
    before = len(behind(demo_desk, "left").leds)
    dark.get_by_role("button", name=re.compile("^Lay ")).click(timeout=20_000)
    revision(page, 3)
    assert len(behind(demo_desk, "left").leds) > before
    expect(dark).to_have_count(0, timeout=20_000)  # its figures arrive when they are worked out

    picture = page.request.get(f"{address}/api/designs/{TRAM}/light/left/night.png")
    assert Image.open(io.BytesIO(picture.body())).getextrema() != ((0, 0), (0, 0), (0, 0))

    page.get_by_role("tab", name="Behind", exact=True).last.click()
    strip = page.get_by_role("button", name=re.compile("^Strip 1: drag"))
    strip.focus()
    strip.press("ArrowUp")
    revision(page, 4)
    first = behind(demo_desk, "left").strips[0]
    legends.get_by_label("Leans to its left").fill("45")
    legends.get_by_label("Leans to its left").press("Enter")
    revision(page, 5)
    assert behind(demo_desk, "left").strips[0] == first.model_copy(update={"tilt": 45})
    dimmer = page.get_by_label("Dimmed to")
    dimmer.focus()
    dimmer.press("ArrowLeft")
    revision(page, 6)
    assert behind(demo_desk, "left").level == 0.98


def test_lamps_are_lit_one_by_one_and_a_wrong_film_is_put_right(watched: Page, address: str) -> None:
    page = watched
    go(page, address, f"{TRAM}/light?module=left")
    legends = page.get_by_role("region", name="What is lit")
    legends.get_by_role("tab", name="Lamps").click()
    expect(legends).to_contain_text("All at once:")
    expect(legends).to_contain_text("on 12 V")
    lens = page.locator("[data-fn='f1'] .glow")
    expect(lens).to_have_count(0)
    legends.get_by_role("button", name="Lit: Doors left open").click()
    expect(lens).to_have_count(1)  # alone
    expect(page.locator(".glow")).to_have_count(1)
    page.get_by_role("button", name="Lamp test").click()
    assert page.locator(".glow").count() > 10
    legends.get_by_label("Over Speed").select_option("green")
    revision(page, 2)
    wrong = page.locator("[data-code='light.film-dark']")
    wrong.get_by_role("button", name="Its film takes the picture's light").click()
    wrong.get_by_role("button", name=re.compile("^A red film over it")).click()
    revision(page, 3)
    expect(legends.get_by_label("Over Speed")).to_have_value("red")


def test_an_unlit_module_is_lit_by_what_was_looked_for(watched: Page, address: str, demo_desk: Desk) -> None:
    page = watched
    go(page, address, f"{TRAM}/light?module=right")
    page.get_by_role("button", name="Suggest strips round the edge, at 45°").click()
    found = page.get_by_role("region", name="Suggested")
    expect(found).to_contain_text("strips", timeout=90_000)
    found.get_by_role("button", name="Lay them").click()
    revision(page, 2)
    lit = behind(demo_desk, "right")
    assert len(lit.strips) == 4
    assert {s.tilt for s in lit.strips} == {45}
    expect(page.locator("[data-legend]").first).to_be_visible(timeout=20_000)
    page.get_by_role("tab", name="Evenness").click()
    expect(page.get_by_role("img", name="Shares of the usual light by colour")).to_be_visible()
