"""The space: modules in their opening, and emergency stops that say what they are; sheets that must not be burnt."""

import pytest

from building import found, plate, settled
from wingboard.core.design import commands as c
from wingboard.core.design.apply import apply
from wingboard.core.design.outlines import PathOutline, RectOutline
from wingboard.core.parts.catalogue import catalogue


@pytest.mark.parametrize(
    ("x", "width", "measured"), [(0.5, 200.0, 0.5), (0.1, 200.0, 0.1), (-3.0, 200.0, -3.0), (0.5, 215.0, -14.5)]
)
def test_a_module_is_measured_against_the_opening_less_the_gap(x: float, width: float, measured: float) -> None:
    design = plate(commands=(c.SetPanel(panel="plate", x=x, outline=RectOutline(width=width, height=120)),))
    findings = found(design, "brief.panel-too-large")
    if measured >= 0.3:
        assert findings == []
        return
    (finding,) = findings
    assert finding.measured is not None
    assert finding.measured.value == pytest.approx(measured, abs=0.01)
    assert found(settled(design, finding), "brief.panel-too-large") == []


def test_an_arched_opening_is_measured_by_its_arch() -> None:
    points = [(0, 0, 0), (201, 0, 0), (201, 100, 0.2), (0, 100, 0)]
    arch = PathOutline.model_validate({"points": [{"x": x, "y": y, "bulge": b} for x, y, b in points]})
    design = apply(plate(), (c.SetBrief(opening=arch),), catalogue())
    (finding,) = found(design, "brief.panel-too-large")
    assert finding.measured is not None
    assert -20 < finding.measured.value < -10  # the plate's corners stand 20 mm above the spring of the arch


def test_modules_over_each_other_are_moved_apart() -> None:
    second = c.AddPanel(name="Second", outline=RectOutline(width=50, height=50), x=180, y=5)
    design = plate(commands=(second,))
    (finding,) = found(design, "brief.panels-overlap")
    assert found(settled(design, finding), "brief.panels-overlap") == []


def test_an_emergency_stop_must_be_declared_and_is_wired_by_hand() -> None:
    design = plate(("emergency-stop-22", 100, 60))
    assert [f.weight for f in found(design, "brief.emergency-undeclared")] == ["look"]
    assert [f.weight for f in found(design, "wire.emergency-hard-wired")] == ["note"]
    declared = apply(design, (c.EditFunction(function="f1", stop_role="real"),), catalogue())
    assert found(declared, "brief.emergency-undeclared") == []
    assert found(declared, "wire.emergency-hard-wired")


@pytest.mark.parametrize(("material", "weight"), [("pvc", "stop"), ("polycarbonate", "look"), ("abs", "look")])
def test_what_poisons_or_burns_under_a_laser_is_said(material: str, weight: str) -> None:
    command = c.SetLayer.model_validate({"layer": "face", "material": material})
    assert [f.weight for f in found(plate(commands=(command,)), "cut.unsafe-material")] == [weight]
    assert found(plate(), "cut.unsafe-material") == []
