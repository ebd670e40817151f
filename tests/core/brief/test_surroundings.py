"""What the panel has to stand: each kind of place filters parts and sheets, and sets checks that speak just there."""

from __future__ import annotations

from typing import Any

import pytest

from building import found, plate, settled
from wingboard.core.brief.weather import suffers
from wingboard.core.changes.command import BATCH
from wingboard.core.findings.finding import Finding
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.parts.choosing import candidates
from wingboard.core.record.design import Design
from wingboard.core.record.materials import materials
from wingboard.core.resolved.design import Resolved

PLACES = ("sun", "wet", "heat", "dark", "public")


def there(design: Design, *places: str) -> Design:
    environment = design.brief.environment.model_copy(update=dict.fromkeys(places, True))
    return design.model_copy(update={"brief": design.brief.model_copy(update={"environment": environment})})


def made(*commands: dict[str, Any], parts: tuple[tuple[str, float, float], ...] = ()) -> Design:
    return plate(*parts, commands=BATCH.validate_python(commands) if commands else ())


def figures(findings: list[Finding]) -> list[tuple[float, float]]:
    return [(f.measured.value, f.needed.value) for f in findings if f.measured and f.needed]


@pytest.mark.parametrize(
    ("place", "code", "suffers", "stands"),
    [
        ("wet", "parts.not-sealed", "toggle-small-on-off", "toggle-large-sealed"),
        ("wet", "parts.not-sealed", "toggle-large-on-off", "button-16"),
        ("sun", "parts.washed-out", "readout-4-digits", "gauge-52"),
        ("sun", "parts.washed-out", "led-5-bezel", "button-22"),
        ("heat", "parts.too-hot", "display-16x2", "readout-4-digits"),
    ],
)
def test_parts_that_do_not_stand_the_place_are_said_only_there(
    place: str, code: str, suffers: str, stands: str
) -> None:
    wrong, right = made(parts=((suffers, 70, 60),)), made(parts=((stands, 70, 60),))
    assert [f.subjects for f in found(there(wrong, place), code)] == [("f1",)]
    assert found(there(right, place), code) == []
    for other in set(PLACES) - {place}:
        assert found(there(wrong, other), code) == []


def test_a_lamp_that_cannot_be_dimmed_dazzles_in_the_dark() -> None:
    design = there(made(parts=(("led-5-bezel", 60, 60), ("led-5-bezel", 120, 60))), "dark")
    assert found(design, "parts.dazzles") == []
    lamp = design.parts[0]
    fixed = lamp.model_copy(update={"lines": tuple(x.model_copy(update={"dims": False}) for x in lamp.lines)})
    (finding,) = found(design.model_copy(update={"parts": (fixed,)}), "parts.dazzles")
    assert (finding.subjects, figures([finding])) == (("f1", "f2"), [(2, 0)])


def test_candidates_say_what_they_do_not_stand() -> None:
    design = made({"do": "add_function", "id": "f1", "name": "Wiper", "want": "toggle"})
    function = design.functions[0]
    said = {c.part.id: c.misfits for c in candidates(Resolved(there(design, "wet")), function, catalogue().values())}
    wet = {ident for ident, whys in said.items() if any("the panel gets wet" in why for why in whys)}
    assert wet == {ident for ident in said if catalogue()[ident].sealing in ("", "IP40")}
    assert "toggle-large-sealed" in set(said) - wet
    dry = {c.part.id: c.misfits for c in candidates(Resolved(design), function, catalogue().values())}
    assert not any("wet" in why for whys in dry.values() for why in whys)


@pytest.mark.parametrize(
    ("material", "place", "words", "figure"),
    [
        ("hardboard", "wet", "swells", None),
        ("mdf", "wet", "swells", None),
        ("steel", "wet", "rusts", None),
        ("abs", "sun", "yellows", None),
        ("pvc", "heat", "gives way at 65 °C", (65, 85)),
        ("pla", "heat", "gives way at 55 °C", (55, 85)),
        ("acrylic", "heat", None, None),  # 90 °C, just above the limit
        ("abs", "heat", None, None),
        ("acrylic", "sun", None, None),
        ("aluminium", "wet", None, None),
    ],
)
def test_sheets_that_do_not_stand_the_place(
    material: str, place: str, words: str | None, figure: tuple[float, float] | None
) -> None:
    design = there(made({"do": "edit_layer", "layer": "back", "material": material}), place)
    findings = found(design, "brief.material-weather")
    assert [words is not None and words in f.detail for f in findings] == ([True] if words else [])
    assert figures(findings) == ([figure] if figure else [])
    assert all(f.subjects == ("back",) and f.source is not None for f in findings)
    assert (words is None) == (not suffers(design, design.stack[2].material))
    hotter = made({"do": "set_limit", "limit": "hot-surface", "value": 91, "reason": "beside an oven"})
    assert len(found(there(hotter, "heat"), "brief.material-weather")) == 3  # acrylic, three layers


@pytest.mark.parametrize(
    ("volts", "current", "through", "needed"),
    [
        (25, "AC", "", None),
        (25.1, "AC", "", 25),
        (49, "", "", None),  # below 50 V it is DC unless it is said
        (60, "DC", "", None),
        (60.5, "DC", "", 60),
        (230, "AC", "", 25),
        (230, "AC", "relay", None),
    ],
)
def test_visitors_touch_no_more_than_extra_low_voltage(
    volts: float, current: str, through: str, needed: float | None
) -> None:
    load = {"do": "edit_function", "function": "f1", "volts": volts, "amps": 1, "current": current, "through": through}
    design = made(load, parts=(("toggle-large-on-off", 60, 60),))
    assert found(design, "brief.public-voltage") == []
    findings = found(there(design, "public"), "brief.public-voltage")
    assert figures(findings) == ([(volts, needed)] if needed else [])
    assert not any(f.overridable for f in findings)


@pytest.mark.parametrize(("radius", "speaks"), [(0.0, True), (1.9, True), (2.0, False), (6.0, False)])
def test_corners_are_round_where_visitors_come(radius: float, speaks: bool) -> None:
    outline = {"kind": "rect", "width": 200, "height": 120, "radius": radius}
    design = made({"do": "edit_module", "module": "plate", "outline": outline})
    assert found(design, "brief.sharp-corner") == []
    findings = found(there(design, "public"), "brief.sharp-corner")
    assert figures(findings) == ([(radius, 2.0)] if speaks else [])
    if speaks:
        assert found(settled(there(design, "public"), findings[0]), "brief.sharp-corner") == []
    triangle = [{"x": 0, "y": 0}, {"x": 100, "y": 0}, {"x": 50, "y": 80}]
    odd = made({"do": "edit_module", "module": "plate", "outline": {"kind": "path", "points": triangle}})
    assert len(found(there(odd, "public"), "brief.sharp-corner")) == 1


@pytest.mark.parametrize(
    ("school", "thickness", "speaks"), [("acrylic", 2.9, True), ("acrylic", 3, False), ("metal", 1, False)]
)
def test_a_thin_brittle_plate_alone_cracks(school: str, thickness: float, speaks: bool) -> None:
    design = made({"do": "set_school", "school": school}, {"do": "edit_layer", "layer": "face", "thickness": thickness})
    assert found(design, "brief.thin-and-brittle") == []
    findings = found(there(design, "public"), "brief.thin-and-brittle")
    assert figures(findings) == ([(thickness, 3.0)] if speaks else [])
    two = made({"do": "set_school", "school": "two-layer"}, {"do": "edit_layer", "layer": "face", "thickness": 2})
    assert found(there(two, "public"), "brief.thin-and-brittle") == []


def test_every_material_says_what_a_process_does_and_where_each_value_is_from() -> None:
    known = materials()
    assert known["pvc"].laser == "poison"
    assert {name for name, m in known.items() if m.laser == "burns"} == {"abs", "polycarbonate"}
    # Surface speeds of the common practice table: acrylic 150 to 250 m/min, thin steel 25 to 40.
    speeds = {name: m.milling.vc for name, m in known.items() if m.milling}
    assert (speeds["acrylic"], speeds["steel"]) == ((150, 250), (25, 40))
    assert all(m.under("hand") == "cuts" for m in known.values())
    assert all(source.said() for m in known.values() for source in m.sources.values())
