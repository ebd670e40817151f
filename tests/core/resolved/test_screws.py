"""Screws: in every corner of any outline, where a hand puts them, and judged like parts."""

from __future__ import annotations

from typing import Any

import pytest
import shapely

from building import found, plate, settled
from wingboard.core.changes.apply import apply
from wingboard.core.changes.commands.modules import AddScrew, EditModule, EditScrew, RemoveScrew, SetFixings
from wingboard.core.changes.commands.places import TurnItems
from wingboard.core.geometry.outline import Loop, Vertex, area_of, rounded_rectangle
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.design import Design
from wingboard.core.record.errors import UnknownThing
from wingboard.core.record.modules import Fixings
from wingboard.core.record.outlines import ArchOutline, path_of
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.screws import SCREW_HEAD, screws_of

FOUR = ["lower left screw", "lower right screw", "upper left screw", "upper right screw"]
OUTLINES: dict[str, tuple[Loop, list[str]]] = {
    "rectangle": (rounded_rectangle(200, 120, 0), FOUR),
    "rounded": (rounded_rectangle(200, 60, 20), FOUR),
    "disc": (rounded_rectangle(90, 90, 45), FOUR),
    "triangle": (
        (Vertex(0, 0), Vertex(120, 0), Vertex(60, 100)),
        ["lower left screw", "lower right screw", "top screw"],
    ),
    "low arch": (ArchOutline(width=200, height=90, rise=30).loop(), FOUR),
    "half circle": (ArchOutline(width=120, height=50, rise=60).loop(), FOUR),
    "diamond": (
        (Vertex(50, 0), Vertex(100, 50), Vertex(50, 100), Vertex(0, 50)),
        ["bottom screw", "left screw", "right screw", "top screw"],
    ),
    "angle": (
        tuple(Vertex(*p) for p in ((0, 0), (150, 0), (150, 50), (50, 50), (50, 150), (0, 150))),
        ["lower left screw", "lower right screw", "lower right screw 2", "upper left screw", "upper left screw 2"],
    ),
}


@pytest.mark.parametrize("name", OUTLINES)
@pytest.mark.parametrize("inset", [5.0, 8.0])
def test_every_corner_has_a_screw_as_far_from_the_edge_as_wanted(name: str, inset: float) -> None:
    loop, where = OUTLINES[name]
    area = area_of(loop)
    screws = screws_of(Fixings(inset=inset), loop, area)
    assert sorted(s.name for s in screws) == where
    for screw in screws:
        assert area.exterior.distance(shapely.Point(screw.x, screw.y)) == pytest.approx(inset, abs=0.01)
        assert area.contains(shapely.Point(screw.x, screw.y))


def screwed(*commands: Any, parts: tuple[tuple[str, float, float], ...] = ()) -> Design:
    """The plate of 200 × 120 mm with these parts, after the commands."""
    return plate(*parts, commands=commands)


def test_a_screw_near_the_edge_is_set_further_in_and_a_hairs_breadth_more_is_enough() -> None:
    # An M6 hole is 6.6 mm wide (ISO 273): in 3 mm acrylic its middle wants 3.3 + 3 mm to the edge.
    cutting = screwed(SetFixings(module="plate", screw="M6", inset=2))
    findings = found(cutting, "face.off-module")
    assert {f.subjects for f in findings} == {("plate",)}
    assert len(findings) == 4
    assert findings[0].measured is not None
    assert findings[0].measured.value == pytest.approx(2 - 3.3)
    assert "screw" in findings[0].detail
    after = settled(cutting, findings[0])
    assert found(after, "face.off-module") == found(after, "face.bridge-thin") == []
    assert found(screwed(SetFixings(module="plate", screw="M6", inset=6.32)), "face.bridge-thin") == []
    assert len(found(screwed(SetFixings(module="plate", screw="M6", inset=6.2)), "face.bridge-thin")) == 4


@pytest.mark.parametrize(("dx", "clear"), [(0.45, False), (0.55, True)])
@pytest.mark.parametrize("turn", [0, 37])
def test_a_screw_under_a_cap_is_said_and_the_part_moved_off_it(dx: float, clear: bool, turn: int) -> None:
    beside = 8 + SCREW_HEAD["M3"] / 2 + 30 + dx
    design = screwed(TurnItems(functions=("f1",), by=turn), parts=(("emergency-stop-22", beside, 8),))
    covered = found(design, "face.screw-covered")
    assert (covered == []) is clear
    under = screwed(parts=(("emergency-stop-22", 28, 30),))
    (finding,) = found(under, "face.screw-covered")
    assert finding.measured is not None
    apart = shapely.Point(8, 8).distance(shapely.Point(28, 30)) - 30 - SCREW_HEAD["M3"] / 2
    assert finding.measured.value == pytest.approx(apart)
    assert finding.detail == "F1 over the lower left screw of Plate"
    assert found(settled(under, finding), "face.screw-covered") == []


def test_screws_by_hand_are_as_many_as_wanted_and_judged_like_the_others() -> None:
    design = screwed(SetFixings(module="plate", corners=False), *(AddScrew(module="plate") for _ in range(3)))
    names = [f.name for f in Resolved(design).modules["plate"].fixings]
    assert names == ["screw s1", "screw s2", "screw s3"]
    assert any(f.detail.startswith("screw s2 to screw s1") for f in found(design, "face.holes-overlap"))
    spread = apply(
        design,
        (
            EditScrew(module="plate", screw="s1", x=30, y=1.5),
            EditScrew(module="plate", screw="s2", x=100),
            EditScrew(module="plate", screw="s3", x=170, y=60),
        ),
        catalogue(),
    )
    assert found(spread, "face.holes-overlap") == []
    (edge,) = found(spread, "face.off-module")
    moved = settled(spread, edge)
    assert found(moved, "face.off-module") == found(moved, "face.bridge-thin") == []
    cuts = Resolved(moved).modules["plate"].cutouts("back")
    assert sorted(c.owner for c in cuts if c.purpose == "fixing") == names
    fewer = apply(moved, (RemoveScrew(module="plate", screw="s2"),), catalogue())
    assert len(Resolved(fewer).modules["plate"].fixings) == 2
    with pytest.raises(UnknownThing):
        apply(fewer, (RemoveScrew(module="plate", screw="s2"),), catalogue())


def test_a_disc_keeps_its_screws_on_the_plate() -> None:
    round_plate = path_of(rounded_rectangle(90, 90, 45))
    design = apply(plate(), (EditModule(module="plate", outline=round_plate),), catalogue())
    assert [f for f in found(design, "face.off-module") if f.subjects == ("plate",)] == []
    assert len(Resolved(design).modules["plate"].fixings) == 4
