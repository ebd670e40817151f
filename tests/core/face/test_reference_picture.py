"""A reference picture: scaled, squared out of perspective, mirrored; and what wrong points do to its figures."""

from __future__ import annotations

import io
import math

import numpy as np
import numpy.typing as npt
import pytest
from PIL import Image, ImageDraw

from building import adding, found, plate, settled
from wingboard.core.face.reference import circle_through, fit, to_module, traced_holes
from wingboard.core.record.design import Design
from wingboard.core.record.pictures import Known, KnownLength, PicturePoint, Reference, Traced
from wingboard.core.resolved.design import Resolved

PLATE = (300.0, 200.0)
HOLES = [(40.0, 40.0, 12.0), (150.0, 100.0, 22.3), (260.0, 160.0, 30.5), (255.0, 35.0, 9.7), (45.0, 165.0, 16.2)]
Matrix = npt.NDArray[np.float64]


def camera(mirrored: bool) -> Matrix:
    """A pinhole camera that sees the plate aslant: from mm to pixels of a picture of 1600 × 1200, y down.

    The plate is turned by 25° about its upright and 18° about its level line, 620 mm away; focal length 1700 pixels.
    """
    yaw, tip = math.radians(25), math.radians(18)
    turn = np.array([[math.cos(yaw), 0, math.sin(yaw)], [0, 1, 0], [-math.sin(yaw), 0, math.cos(yaw)]])
    lean = np.array([[1, 0, 0], [0, math.cos(tip), -math.sin(tip)], [0, math.sin(tip), math.cos(tip)]])
    rotation = lean @ turn
    centre = np.array([[1, 0, -PLATE[0] / 2], [0, 1, -PLATE[1] / 2], [0, 0, 1.0]])
    outside = np.column_stack([rotation[:, 0], rotation[:, 1], [0.0, 0.0, 620.0]])
    inside = np.array([[1700, 0, 800], [0, -1700, 600], [0, 0, 1.0]])
    matrix: Matrix = inside @ outside @ centre
    flip = np.array([[-1, 0, 1600], [0, 1, 0], [0, 0, 1.0]])
    seen: Matrix = flip @ matrix
    return seen if mirrored else matrix


def photograph(mirrored: bool) -> Image.Image:
    """A picture of the plate with its holes, drawn through the camera."""
    fine = 4  # drawn four times as large and shrunk, so that edges fall between pixels as in a real photograph
    picture = Image.new("L", (1600 * fine, 1200 * fine), 90)
    pen = ImageDraw.Draw(picture)
    matrix = np.diag([fine, fine, 1.0]) @ camera(mirrored)
    corners = [(0, 0), (PLATE[0], 0), PLATE, (0, PLATE[1])]
    pen.polygon([to_module(matrix, *p) for p in corners], fill=220)
    for x, y, diameter in HOLES:
        steps = [2 * math.pi * k / 180 for k in range(180)]
        edge = [(x + diameter / 2 * math.cos(t), y + diameter / 2 * math.sin(t)) for t in steps]
        pen.polygon([to_module(matrix, *p) for p in edge], fill=20)
    return picture.resize((1600, 1200), Image.Resampling.BOX)


def edge_pixels(picture: Image.Image, near: tuple[float, float], reach: int) -> list[PicturePoint]:
    """Where the dark hole round a pixel ends, in twelve directions, as a careful builder clicks on it enlarged."""
    pixels = np.asarray(picture)
    found_points = []
    for k in range(12):
        t = 2 * math.pi * k / 12
        for step in np.arange(2, reach, 0.25):
            x, y = float(near[0] + step * math.cos(t)), float(near[1] + step * math.sin(t))
            if pixels[int(y), int(x)] > 120:
                found_points.append(PicturePoint(x=x, y=y))
                break
    return found_points


def corner_points(mirrored: bool, rounded: bool = True) -> list[Known]:
    """The plate's corners as clicked, to the pixel, with their places."""
    corners = [(0.0, 0.0), (PLATE[0], 0.0), PLATE, (0.0, PLATE[1])]
    pixels = [to_module(camera(mirrored), *p) for p in corners]
    return [
        Known(x=round(px) if rounded else px, y=round(py) if rounded else py, at_x=x, at_y=y)
        for (px, py), (x, y) in zip(pixels, corners, strict=True)
    ]


def reference(mirrored: bool, points: list[Known], **more: object) -> Reference:
    """The photograph laid under a plate."""
    fields = {"id": "r", "module": "plate", "picture": "0" * 64, "width": 1600, "height": 1200, "mirrored": mirrored}
    return Reference.model_validate({**fields, "points": points, **more})


@pytest.mark.parametrize("mirrored", [False, True])
def test_a_photograph_in_perspective_gives_its_holes_within_a_third_of_a_millimetre(mirrored: bool) -> None:
    picture = photograph(mirrored)
    circles = []
    for n, (x, y, diameter) in enumerate(HOLES):
        near = to_module(camera(mirrored), x, y)
        points = edge_pixels(picture, near, reach=200)
        assert len(points) == 12, diameter
        circles.append(Traced(id=f"c{n}", points=tuple(points)))
    laid = reference(mirrored, corner_points(mirrored), circles=circles)
    design = Design(name="D").model_copy(update={"references": (laid,)})
    lies = fit(laid)
    assert lies is not None
    assert lies.squared
    assert lies.residual < 0.05
    holes = traced_holes(Resolved(design), laid)
    for hole, (x, y, diameter) in zip(holes, HOLES, strict=True):
        assert math.hypot(hole.circle.x - x, hole.circle.y - y) < 0.3
        assert hole.circle.diameter == pytest.approx(diameter, abs=0.5)
        assert hole.circle.residual < 0.25


def test_more_than_four_points_tell_by_their_residual_that_one_is_wrong() -> None:
    holes = [to_module(camera(False), x, y) for x, y, _ in HOLES]
    known = [Known(x=px, y=py, at_x=x, at_y=y) for (px, py), (x, y, _) in zip(holes, HOLES, strict=True)]
    good = fit(reference(False, [*corner_points(False), *known]))
    assert good is not None
    assert good.residual < 0.2
    slip = known[1].model_copy(update={"x": known[1].x + 25})
    bad = fit(reference(False, [*corner_points(False), known[0], slip, *known[2:]]))
    assert bad is not None
    assert bad.residual > 1.0
    assert bad.worst > 2.0


def test_four_wrong_corners_show_in_the_second_length_and_in_circles_that_are_not_round() -> None:
    points = corner_points(False)
    wrong = [points[0], points[1], points[2].model_copy(update={"x": points[2].x - 120}), points[3]]
    start, end = (to_module(camera(False), *p) for p in ((40.0, 40.0), (260.0, 160.0)))
    length = KnownLength(
        start=PicturePoint(x=start[0], y=start[1]),
        end=PicturePoint(x=end[0], y=end[1]),
        length=math.dist((40, 40), (260, 160)),
    )
    edge = edge_pixels(photograph(False), to_module(camera(False), 260, 160), 200)
    circles = [Traced(id="c", points=tuple(edge))]
    right, off = (fit(reference(False, p, check=length)) for p in (points, wrong))
    assert right is not None
    assert off is not None
    assert right.check == pytest.approx(0, abs=0.3)
    assert off.check is not None
    assert abs(off.check) > 2
    bent = reference(False, wrong, circles=circles)
    (hole,) = traced_holes(Resolved(Design(name="D").model_copy(update={"references": (bent,)})), bent)
    assert hole.circle.residual > 0.5


@pytest.mark.parametrize(("pixels", "one_pixel"), [(1000, 0.48), (200, 12.0)])
def test_the_longest_length_is_best_and_says_what_one_pixel_makes(pixels: int, one_pixel: float) -> None:
    length = KnownLength(start=PicturePoint(x=100, y=600), end=PicturePoint(x=100 + pixels, y=600), length=300)
    lies = fit(reference(False, [], scale=length))
    assert lies is not None
    assert not lies.squared
    assert to_module(lies.matrix, 100 + pixels, 0)[0] - to_module(lies.matrix, 100, 0)[0] == pytest.approx(300)
    assert to_module(lies.matrix, 0, 1200) == pytest.approx((0, 0))
    assert lies.one_pixel == pytest.approx(one_pixel)


NOTHING: list[tuple[str, Reference]] = [
    ("not measured", reference(False, [])),
    ("no length", reference(False, [], scale={"start": {"x": 5, "y": 5}, "end": {"x": 5, "y": 5}, "length": 10})),
    ("in a line", reference(False, [Known(x=n, y=n, at_x=n, at_y=n) for n in range(4)])),
    (
        "three of four in a line",
        reference(False, [Known(x=n, y=n if n < 3 else 0, at_x=n, at_y=n * n) for n in range(4)]),
    ),
    ("nearly in a line", reference(False, [Known(x=n * 100, y=n * n, at_x=n, at_y=n * n) for n in range(4)])),
    ("one point", reference(False, [Known(x=5, y=5, at_x=n, at_y=n * n) for n in range(4)])),
]


@pytest.mark.parametrize("laid", [n[1] for n in NOTHING], ids=[n[0] for n in NOTHING])
def test_what_makes_no_sense_lies_nowhere(laid: Reference) -> None:
    assert fit(laid) is None


@pytest.mark.parametrize("many", [3, 4, 7, 30])
def test_a_circle_goes_through_its_points(many: int) -> None:
    points = [(50 + 8 * math.cos(2.0 * k / many), 20 + 8 * math.sin(2.0 * k / many)) for k in range(many)]
    circle = circle_through(points)
    assert circle is not None
    assert (circle.x, circle.y, circle.diameter) == pytest.approx((50, 20, 16), abs=1e-6)
    assert circle.residual < 1e-6
    assert circle_through([(0, 0), (1, 1), (2, 2)]) is None


def test_a_part_beside_its_trace_is_moved_onto_it() -> None:
    square = [PicturePoint(x=800 + 40 * math.cos(t), y=600 + 40 * math.sin(t)) for t in (0.0, 1.5, 3.0, 4.5)]
    scale = KnownLength(start=PicturePoint(x=0, y=0), end=PicturePoint(x=1600, y=0), length=160)
    laid = reference(False, [], scale=scale, circles=[Traced(id="c", points=tuple(square), function="f1")])
    design = plate(("button-12", 70, 58), commands=(adding(laid),))
    (finding,) = found(design, "face.trace-missed")
    assert finding.measured is not None
    assert finding.measured.value == pytest.approx(math.hypot(10, 2), abs=0.01)
    after = settled(design, finding)
    assert found(after, "face.trace-missed") == []
    place = after.functions[0].place
    assert place is not None
    assert (place.x, place.y) == pytest.approx((80, 60), abs=0.01)


def png(width: int = 8, height: int = 6) -> bytes:
    """A small picture."""
    stream = io.BytesIO()
    Image.new("RGB", (width, height), "white").save(stream, "PNG")
    return stream.getvalue()


def test_a_kept_picture_is_read_by_its_content() -> None:
    from wingboard.services.pictures import NotAPicture, checked_picture

    row = checked_picture(png())
    assert (row.media, row.width, row.height) == ("image/png", 8, 6)
    stream = io.BytesIO()
    Image.new("1", (9000, 9000)).save(stream, "PNG")
    for content, why in [
        (b"", "empty"),
        (b"GIF89a" + b"\0" * 50, "neither a PNG nor a JPEG"),
        (png()[:40], ""),
        (stream.getvalue(), "million are taken"),
        (b"\x89PNG\r\n\x1a\n" + b"\0" * 100, ""),
    ]:
        with pytest.raises(NotAPicture) as refused:
            checked_picture(content)
        assert why in refused.value.message
