"""The space: modules in their opening, and emergency stops that say what they are; sheets that must not be burnt."""

from typing import Any

import pytest

from building import found, plate, settled
from wingboard.core.changes.apply import apply
from wingboard.core.changes.commands.brief import SetBrief
from wingboard.core.changes.commands.functions import EditFunction
from wingboard.core.changes.commands.layers import EditLayer
from wingboard.core.changes.commands.modules import AddModule, EditModule
from wingboard.core.changes.commands.workshop import AddMachine
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.outlines import PathOutline, RectOutline


@pytest.mark.parametrize(
    ("x", "width", "measured"), [(0.5, 200.0, 0.5), (0.1, 200.0, 0.1), (-3.0, 200.0, -3.0), (0.5, 215.0, -14.5)]
)
def test_a_module_is_measured_against_the_opening_less_the_gap(x: float, width: float, measured: float) -> None:
    design = plate(commands=(EditModule(module="plate", x=x, outline=RectOutline(width=width, height=120)),))
    findings = found(design, "brief.module-too-large")
    if measured >= 0.3:
        assert findings == []
        return
    (finding,) = findings
    assert finding.measured is not None
    assert finding.measured.value == pytest.approx(measured, abs=0.01)
    assert found(settled(design, finding), "brief.module-too-large") == []


def test_an_arched_opening_is_measured_by_its_arch() -> None:
    points = [(0, 0, 0), (201, 0, 0), (201, 100, 0.2), (0, 100, 0)]
    arch = PathOutline.model_validate({"points": [{"x": x, "y": y, "bulge": b} for x, y, b in points]})
    design = apply(plate(), (SetBrief(opening=arch),), catalogue())
    (finding,) = found(design, "brief.module-too-large")
    assert finding.measured is not None
    assert -20 < finding.measured.value < -10  # the plate's corners stand 20 mm above the spring of the arch


def test_modules_over_each_other_are_moved_apart() -> None:
    second = AddModule(name="Second", outline=RectOutline(width=50, height=50), x=180, y=5)
    design = plate(commands=(second,))
    (finding,) = found(design, "brief.modules-overlap")
    assert found(settled(design, finding), "brief.modules-overlap") == []


def test_an_emergency_stop_must_be_declared_and_is_wired_by_hand() -> None:
    design = plate(("emergency-stop-22", 100, 60))
    assert [f.severity for f in found(design, "brief.emergency-undeclared")] == ["judge"]
    assert [f.severity for f in found(design, "wire.emergency-hard-wired")] == ["note"]
    declared = apply(design, (EditFunction(function="f1", stop_role="real"),), catalogue())
    assert found(declared, "brief.emergency-undeclared") == []
    assert found(declared, "wire.emergency-hard-wired")


@pytest.mark.parametrize(("material", "severity"), [("pvc", "must"), ("polycarbonate", "judge"), ("abs", "judge")])
def test_what_poisons_or_burns_under_a_laser_is_said(material: str, severity: str) -> None:
    command = EditLayer.model_validate({"layer": "face", "material": material})
    assert [f.severity for f in found(plate(commands=(command,)), "cut.unsafe-material")] == [severity]
    assert found(plate(), "cut.unsafe-material") == []


@pytest.mark.parametrize(("machines", "speaks"), [((), True), (("mill",), False), (("mill", "laser"), True)])
def test_pvc_is_dangerous_under_a_laser_not_under_a_mill(machines: tuple[Any, ...], speaks: bool) -> None:
    commands = [AddMachine(name=kind, kind=kind, bed_width=300, bed_height=200) for kind in machines]
    design = plate(commands=(*commands, EditLayer(layer="face", material="pvc")))
    assert bool(found(design, "cut.unsafe-material")) is speaks
