"""The light behind the modules."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

from wingboard.core.changes.commands.lights import AddLeds, AddStrip, EditLed, EditStrip, Point, RemoveLights, SetLight
from wingboard.core.changes.handlers.steps import (
    Catalogue,
    carry_out,
    changes_in,
    edited,
    find_module,
    found,
    new_ident,
    replaced,
    with_changes,
)
from wingboard.core.geometry.outline import area_of
from wingboard.core.record.design import Design
from wingboard.core.record.errors import NotPossible, UnknownThing
from wingboard.core.record.lights import SHORTEST_STRIP, Backlight, Led, Strip
from wingboard.core.record.modules import Module
from wingboard.core.record.usual import STRIP_INSET


def _with_light(design: Design, module: Module, light: Backlight | None) -> Design:
    if light is not None and not light.strips and not light.leds and light == Backlight():
        light = None
    return with_changes(design, modules=replaced(design.modules, edited(module, {"light": light})))


def _middle(module: Module) -> Point:
    low_x, low_y, high_x, high_y = area_of(module.outline.loop()).bounds
    return Point(x=round((low_x + high_x) / 2), y=round((low_y + high_y) / 2))


def _across(module: Module) -> dict[str, float]:
    """A strip across the middle of a module."""
    low, _, high, _ = area_of(module.outline.loop()).bounds
    inset = min(STRIP_INSET, (high - low) / 4)
    y = _middle(module).y
    return {"x": round(low + inset, 1), "y": y, "x2": round(high - inset, 1), "y2": y}


def _checked(strip: Strip) -> Strip:
    if abs(strip.x2 - strip.x) + abs(strip.y2 - strip.y) < SHORTEST_STRIP:
        raise NotPossible(f"A strip is at least {SHORTEST_STRIP:g} mm long", "x2")
    return strip


def _taken(light: Backlight) -> Iterable[str]:
    return [*(s.id for s in light.strips), *(led.id for led in light.leds)]


def _said(command: Any, names: Iterable[str]) -> dict[str, Any]:
    said: dict[str, Any] = command.model_dump(include=set(names), exclude_none=True)
    return said


@carry_out.register
def handle_add_strip(command: AddStrip, design: Design, catalogue: Catalogue) -> Design:
    module = find_module(design, command.module)
    light = module.light or Backlight()
    ident = new_ident(command.id, _taken(light), "strip-")
    said = {**_across(module), **_said(command, Strip.model_fields), "id": ident}
    strip = _checked(Strip.model_validate(said))
    return _with_light(design, module, edited(light, {"strips": (*light.strips, strip)}))


@carry_out.register
def handle_edit_strip(command: EditStrip, design: Design, catalogue: Catalogue) -> Design:
    module = find_module(design, command.module)
    light = module.light or Backlight()
    strip = found(light.strips, command.strip, "strip", "strip")
    changed = _checked(edited(strip, changes_in(command, "module", "strip", nullable=("z",))))
    return _with_light(design, module, edited(light, {"strips": replaced(light.strips, changed)}))


@carry_out.register
def handle_add_leds(command: AddLeds, design: Design, catalogue: Catalogue) -> Design:
    module = find_module(design, command.module)
    light = module.light or Backlight()
    taken, made = list(_taken(light)), []
    for point in command.at or (_middle(module),):
        ident = new_ident(None, taken, "led-")
        taken.append(ident)
        made.append(
            Led.model_validate({**_said(command, ("kind", "z", "level")), "id": ident, "x": point.x, "y": point.y})
        )
    return _with_light(design, module, edited(light, {"leds": (*light.leds, *made)}))


@carry_out.register
def handle_edit_led(command: EditLed, design: Design, catalogue: Catalogue) -> Design:
    module = find_module(design, command.module)
    light = module.light or Backlight()
    led = found(light.leds, command.led, "LED", "led")
    changed = edited(led, changes_in(command, "module", "led", nullable=("z",)))
    return _with_light(design, module, edited(light, {"leds": replaced(light.leds, changed)}))


@carry_out.register
def handle_remove_lights(command: RemoveLights, design: Design, catalogue: Catalogue) -> Design:
    module = find_module(design, command.module)
    light = module.light or Backlight()
    unknown = set(command.lights) - set(_taken(light))
    if unknown:
        raise UnknownThing(f"There is no strip or LED “{min(unknown)}” behind {module.name}", "lights")
    left = {
        "strips": tuple(s for s in light.strips if s.id not in command.lights),
        "leds": tuple(led for led in light.leds if led.id not in command.lights),
    }
    return _with_light(design, module, edited(light, left))


@carry_out.register
def handle_set_light(command: SetLight, design: Design, catalogue: Catalogue) -> Design:
    module = find_module(design, command.module)
    return _with_light(design, module, edited(module.light or Backlight(), changes_in(command, "module")))
