"""The catalogue is consistent, and threads and pockets are judged by the stack."""

from itertools import pairwise

import pytest

from building import found, offered, plate, settled
from wingboard.core.changes.command import Command
from wingboard.core.changes.commands.layers import EditLayer
from wingboard.core.changes.commands.places import SetPocket
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.parts.side import side_view
from wingboard.core.record.modules import THREE_LAYERS
from wingboard.core.record.part import Part
from wingboard.core.record.shapes import Rect, Shape
from wingboard.core.resolved.profile import cutouts, depth_behind_front, thread_needed

PARTS = list(catalogue().values())


def width(shape: Shape) -> float:
    """The shape's width."""
    return shape.span[0]


@pytest.mark.parametrize("part", PARTS, ids=[p.id for p in PARTS])
def test_every_part_is_consistent(part: Part) -> None:
    if part.bush:
        assert part.bush.diameter <= width(part.hole)
        assert thread_needed(part, THREE_LAYERS) <= part.bush.length
        assert part.mount != "behind" or width(part.nut_bore or part.hole) > width(part.hole)
    if part.recess:
        assert width(part.hole) < width(part.recess)
        assert width(part.body) <= width(part.recess)
    assert width(part.cover) >= width(part.hole)
    assert {cut.layer for cut in cutouts(part, THREE_LAYERS)} == {"face", "diffuser", "back"}
    assert depth_behind_front(part, THREE_LAYERS) >= 8
    assert all(box.z1 > box.z0 and box.y1 > box.y0 for box in side_view(part, THREE_LAYERS))
    angles = part.angles(part.ways)
    assert len(set(angles)) == len(angles)
    drawn = max(width(s.shape) for s in part.front)
    assert drawn <= width(part.cover) + 0.01 or isinstance(part.cover, Rect)
    assert all(source.said() for source in part.sources.values())


def test_the_first_parts_are_there() -> None:
    families = {p.family for p in PARTS}
    assert families >= {
        "toggle",
        "button",
        "emergency",
        "key",
        "rotary",
        "encoder",
        "pot",
        "lamp",
        "caption",
        "readout",
    }
    assert len(PARTS) >= 14


def test_a_stopped_rotary_keeps_the_step_of_its_mechanism() -> None:
    # Common practice: a 12-way mechanism stopped at 8 still steps 30°, 210° of travel.
    angles = catalogue()["rotary-12"].angles(8)
    assert {round(a - b, 9) for a, b in pairwise(angles)} == {30}
    assert angles[0] - angles[-1] == 210


def thick(thickness: float) -> tuple[Command, ...]:
    """A back layer of that thickness."""
    return (EditLayer(layer="back", thickness=thickness),)


def test_a_thread_too_short_is_seated_in_a_pocket_while_the_floor_allows() -> None:
    design = plate(("toggle-large-on-off", 60, 60), commands=thick(8))
    (finding,) = found(design, "parts.bush-short")
    assert finding.needed is not None
    assert finding.needed.value == pytest.approx(8 + 0.8 + 2.2 + 1.0)
    after = settled(design, finding)
    assert after.functions[0].pocket == pytest.approx(1.0)
    assert found(after, "parts.bush-short") == []
    assert found(after, "parts.pocket-floor") == []
    too_thick = plate(("toggle-small-on-off", 60, 60), commands=thick(20))
    (hopeless,) = found(too_thick, "parts.bush-short")
    assert offered(too_thick, hopeless) is None


def test_a_pocket_leaves_a_floor_of_a_third_of_the_sheet() -> None:
    deep = (*thick(6), SetPocket(function="f1", depth=5))
    design = plate(("toggle-large-on-off", 60, 60), commands=deep)
    (finding,) = found(design, "parts.pocket-floor")
    assert finding.measured is not None
    assert finding.needed is not None
    assert (finding.measured.value, finding.needed.value) == (1, 2)
    assert found(settled(design, finding), "parts.pocket-floor") == []


@pytest.mark.parametrize(
    ("part", "thickness", "high"),
    [
        ("toggle-large-on-off", 3.0, None), ("toggle-large-on-off", 2.9, 3.0), ("rotary-12", 3.0, 3.2),
        ("rotary-12", 3.2, None), ("toggle-guarded", 3.0, 3.8), ("button-22", 2.0, None),
    ],
)  # fmt: skip
def test_a_nut_hides_only_in_a_layer_as_thick_as_nut_and_washer(
    part: str, thickness: float, high: float | None
) -> None:
    design = plate((part, 100, 60), commands=(EditLayer(layer="diffuser", thickness=thickness),))
    findings = found(design, "parts.nut-too-high")
    assert [f.measured.value for f in findings if f.measured] == pytest.approx([high] if high else [])
