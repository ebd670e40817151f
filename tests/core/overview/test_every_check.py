"""Every check of the catalogue, just inside and just outside its limit, its figure found another way.

Distances between shapes are shapely's on the whole drawing, made here from the record alone; they are tried on one
plate and across a seam, as drawn and turned by 37°. Other figures are by hand. What has no figure is a pair of
designs: one that is spoken of, one that is not. The last test says that no check is left out.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from itertools import product
from typing import Any, NamedTuple

import pytest
import shapely
from shapely import Polygon, affinity, box

from building import found, plate
from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import BATCH
from wingboard.core.cut.again import marked
from wingboard.core.overview.review import all_checks
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.design import Design
from wingboard.core.record.outlines import RectOutline
from wingboard.core.record.shapes import Circle, Rect, Shape
from wingboard.core.record.space import Brief
from wingboard.core.resolved.design import Resolved

NEAR = 0.02
"""Just inside and just outside (mm, or a hundredth of whatever is measured)."""
Raw = dict[str, Any]
TOGGLE, BUTTON, ROTARY, LED, READOUT = (
    "toggle-large-on-off",
    "button-22",
    "rotary-12",
    "led-5-bezel",
    "readout-4-digits",
)


def made(start: Design, *commands: Raw) -> Design:
    return apply(start, BATCH.validate_python(commands), catalogue()) if commands else start


# ---- Distances between two things -----------------------------------------------------------------------------------


def drawn(shape: Shape, x: float, y: float, turn: float, dx: float = 0.0, dy: float = 0.0) -> Polygon:
    """A shape of a part at its place, by shapely alone; (dx, dy) is its middle in the part's own coordinates."""
    if isinstance(shape, Circle):
        bare = shapely.Point(0, 0).buffer(shape.diameter / 2, quad_segs=256)
    else:
        assert isinstance(shape, Rect)
        bare = box(-shape.width / 2, -shape.height / 2, shape.width / 2, shape.height / 2)
        bare = bare.buffer(-shape.radius).buffer(shape.radius, quad_segs=256) if shape.radius else bare
    there = affinity.rotate(affinity.translate(bare, dx, dy), turn, origin=(0, 0))
    return affinity.translate(there, x, y)


def envelope(part: str, what: str, x: float, y: float, turn: float) -> Polygon:
    """What a hand meets of a part, what it covers, its hole, its nut's bore, its body with clamps, its cable's room."""
    if part == "screw":
        return drawn(Circle(diameter=6.0), x, y, 0)  # the head of an M3
    p = catalogue()[part]
    if what == "hand":
        assert p.hand
        return drawn(p.hand.shape, x, y, turn, p.hand.x, p.hand.y)
    if what == "cable":
        wide, high = p.body.span
        return drawn(Rect(width=p.plug, height=high), x, y, turn, -wide / 2 - p.plug / 2)  # to the left
    if what == "body":
        return drawn(p.body.grown(p.clamp) if p.clamp else p.body, x, y, turn, p.behind_x, p.behind_y)
    if what == "cover":
        return drawn(p.cover, x, y, turn, p.cover_x, p.cover_y)
    return drawn(p.hole if what == "hole" else p.nut_bore or p.hole, x, y, turn)


class Pair(NamedTuple):
    """Two parts (or a part and a screw) side by side, what of them is measured, and where the check begins to speak."""

    code: str
    left: str
    right: str
    what: tuple[str, str]
    at: float
    needed: float
    seam: bool = True
    commands: tuple[Raw, ...] = ()
    severity: str | None = None


HAND, COVER, BODY, HOLE = ("hand",) * 2, ("cover",) * 2, ("body",) * 2, ("hole",) * 2
RISKY = {"do": "edit_function", "function": "f1", "risk": "guarded"}
MAINS = {"do": "edit_function", "function": "f1", "volts": 230, "amps": 1}
PAIRS = [
    # MIL-STD-1472, from memory: toggles 19, buttons 13, knobs 25, a mixed pair the larger; emergency twice.
    Pair("face.fingers-close", TOGGLE, TOGGLE, HAND, 19, 19),
    Pair("face.fingers-close", BUTTON, BUTTON, HAND, 13, 13),
    Pair("face.fingers-close", ROTARY, ROTARY, HAND, 25, 25),
    Pair("face.fingers-close", TOGGLE, ROTARY, HAND, 25, 25),
    Pair("face.fingers-close", "emergency-stop-22", BUTTON, HAND, 26, 26),
    Pair("face.irreversible-among-everyday", TOGGLE, TOGGLE, HAND, 38, 38, commands=(RISKY,)),
    # Common practice: caps and guards half a millimetre, bodies one, bridges the thickness of the sheet and 2 mm.
    Pair("face.caps-collide", ROTARY, ROTARY, COVER, 0.5, 0.5),
    Pair("face.caps-collide", READOUT, LED, COVER, 0.5, 0.5),
    Pair("face.under-guard", "toggle-guarded", LED, COVER, 0.5, 0.5),
    Pair("face.screw-covered", "emergency-stop-22", "screw", COVER, 0.5, 0.5),
    Pair("face.bodies-collide", ROTARY, TOGGLE, BODY, 1, 1),
    Pair("face.bodies-collide", ROTARY, "screw", BODY, 1, 1),
    Pair("face.cable-hits", "potentiometer", READOUT, ("body", "cable"), 1, 1),
    Pair("face.mixed-voltage", TOGGLE, TOGGLE, BODY, 8, 8, False, (MAINS,), "must"),
    Pair("face.bridge-thin", LED, LED, HOLE, 3, 3, False),
    Pair("face.holes-overlap", LED, LED, HOLE, 0, 3, False),
    Pair("face.nut-bores-collide", TOGGLE, TOGGLE, ("nut", "nut"), 0, 3, False),
]


def rectangle(width: float, height: float, radius: float = 0.0) -> Raw:
    return {"kind": "rect", "width": width, "height": height, "radius": radius}


def middles(apart: float, turn: float) -> list[tuple[float, float]]:
    """Where the two stand in the opening: so far apart about its middle, the line between them turned."""
    dx, dy = apart / 2 * math.cos(math.radians(turn)), apart / 2 * math.sin(math.radians(turn))
    return [(200 - dx, 150 - dy), (200 + dx, 150 + dy)]


def gap_of(pair: Pair, apart: float, turn: float) -> float:
    """The distance on the drawing; of two discs that overlap how far, of other shapes only that they do."""
    (ax, ay), (bx, by) = middles(apart, turn)
    left, right = envelope(pair.left, pair.what[0], ax, ay, turn), envelope(pair.right, pair.what[1], bx, by, turn)
    gap = left.distance(right)
    if gap > 0:
        return gap
    return apart - sum(s.bounds[2] - s.bounds[0] for s in (left, right)) / 2 if pair.at == 0 else -1.0


def apart_for(pair: Pair, gap: float, turn: float) -> float:
    """How far apart the middles are when the gap is so wide: by bisection on the drawing."""
    low, high = (36.0 if "cable" in pair.what else 0.5), 190.0
    while high - low > 1e-5:
        middle = (low + high) / 2
        low, high = (middle, high) if gap_of(pair, middle, turn) < gap else (low, middle)
    return high


def side_by_side(pair: Pair, apart: float, turn: float, seam: bool) -> Design:
    """The design with the two so far apart, on one plate or on two that meet half way."""
    wide = 200 if seam else 400
    modules = [("left", 0.0), ("right", 200.0)] if seam else [("left", 0.0)]
    commands: list[Raw] = [
        {"do": "add_module", "id": m, "name": m, "outline": rectangle(wide, 300), "x": x} for m, x in modules
    ]
    for n, (part, (x, y)) in enumerate(zip((pair.left, pair.right), middles(apart, turn), strict=True), 1):
        module, x0 = modules[n - 1] if seam else modules[0]
        at = {"module": module, "x": x - x0, "y": y}
        placed: list[Raw] = [
            {"do": "add_function", "id": f"f{n}", "name": f"f{n}"},
            {"do": "choose_part", "function": f"f{n}", "part": part},
            {"do": "place", "function": f"f{n}", **at, "turn": turn},
        ]
        commands += [{"do": "add_screw", **at}] if part == "screw" else placed
    brief = Brief(opening=RectOutline(width=400, height=300), depth=300)
    return made(Design(name="Pair", brief=brief), *commands, *pair.commands)


@pytest.mark.parametrize(
    ("pair", "turn", "seam"),
    [(p, t, s) for p, t, s in product(PAIRS, (0, 37), (False, True)) if p.seam or not s],
    ids=lambda v: f"{v.code} {v.left} {v.right}" if isinstance(v, Pair) else str(v),
)
def test_between_two_things(pair: Pair, turn: float, seam: bool) -> None:
    def speaking(gap: float) -> tuple[list[Any], float]:
        apart = apart_for(pair, gap, turn)
        findings = found(side_by_side(pair, apart, turn, seam), pair.code)
        return [f for f in findings if pair.severity in (None, f.severity)], gap_of(pair, apart, turn)

    assert speaking(pair.at + NEAR)[0] == []
    findings, there = speaking(pair.at - NEAR)
    assert len(findings) == 1
    assert findings[0].measured.value == pytest.approx(there, abs=0.01)
    assert findings[0].needed.value == pytest.approx(pair.needed)


# ---- To the edge, and in depth --------------------------------------------------------------------------------------


def beside_an_edge(margin: float, turn: float) -> Design:
    """A square plate, turned, with a lamp whose hole of 8 mm is so far from the edge at its lower right."""
    square = affinity.rotate(box(0, 0, 150, 150), turn, origin=(0, 0))
    spot = affinity.rotate(shapely.Point(150 - 4 - margin, 75), turn, origin=(0, 0))
    x0, y0, *_ = square.bounds
    corners = [{"x": x - x0, "y": y - y0} for x, y in square.exterior.coords[:-1]]
    return made(
        Design(name="Edge", brief=Brief(opening=RectOutline(width=400, height=300))),
        {"do": "add_module", "id": "m", "name": "M", "outline": {"kind": "path", "points": corners}, "x": 50, "y": 20},
        {"do": "remove_fixings", "module": "m"},
        {"do": "add_function", "id": "f1", "name": "F1"},
        {"do": "choose_part", "function": "f1", "part": LED},
        {"do": "place", "function": "f1", "module": "m", "x": spot.x - x0, "y": spot.y - y0},
    )


@pytest.mark.parametrize("turn", [0, 37, 142])
@pytest.mark.parametrize(("code", "at"), [("face.bridge-thin", 3.0), ("face.off-module", 0.0)])
def test_to_the_edge_of_a_turned_plate(code: str, at: float, turn: float) -> None:
    assert found(beside_an_edge(at + NEAR, turn), code) == []
    (finding,) = found(beside_an_edge(at - NEAR, turn), code)
    assert finding.measured
    assert finding.measured.value == pytest.approx(at - NEAR, abs=0.005)


@pytest.mark.parametrize("material", ["acrylic", "hardboard", "aluminium"])
def test_bridges_by_material(material: str) -> None:
    # Common practice, three sheets of 4 mm: 1 × thickness in acrylic, 1.5 × in hardboard, 1 mm in aluminium.
    need = {"acrylic": 4.0, "hardboard": 6.0, "aluminium": 1.0}[material]
    layers = [
        {"do": "edit_layer", "layer": layer, "material": material, "thickness": 4}
        for layer in ("face", "diffuser", "back")
    ]
    for gap, speaks in ((need + NEAR, False), (need - NEAR, True)):
        design = made(plate((LED, 60, 60), (LED, 60 + 8 + gap, 60)), *layers)
        findings = found(design, "face.bridge-thin")
        assert [f.needed.value for f in findings if f.needed] == ([need] if speaks else [])


@pytest.mark.parametrize("turn", [0, 37])
def test_a_keep_out_by_depth_and_by_where_the_body_is(turn: float) -> None:
    # A large toggle in 8 mm of layers: 27 mm of body and 10 of bend, 45 in all. Its body is 18 × 29.
    right = max(x for x, _ in affinity.rotate(box(-9, -14.5, 9, 14.5), turn, origin=(0, 0)).exterior.coords)

    def with_bar(clear: float, aside: float, module: str = "plate") -> list[float]:
        bar = {"name": "bar", "x": 100.5 + right + aside, "y": 0, "width": 10, "height": 121, "clear": clear}
        turned = {"do": "turn", "functions": ["f1"], "by": turn}
        design = made(plate((TOGGLE, 100, 60), depth=200), turned, {"do": "add_keepout", **bar})
        return [f.measured.value for f in found(design, "face.keep-out") if f.measured]

    assert with_bar(45 + NEAR, -5) == []
    assert with_bar(45 - NEAR, -5) == [45]
    assert with_bar(20, NEAR) == []
    assert with_bar(20, -NEAR) == [45]


# ---- One figure against one limit -----------------------------------------------------------------------------------


class Limit(NamedTuple):
    """A design made with a figure, the figure at which a check speaks, and the one it wants."""

    code: str
    build: Callable[[float], Design]
    at: float
    most: bool
    step: float = NEAR
    measured: Callable[[float], float] = float
    needed: float | None = None


def module(**changes: Any) -> Raw:
    return {"do": "edit_module", "module": "plate", **changes}


def fn(**changes: Any) -> Raw:
    return {"do": "edit_function", "function": "f1", **changes}


def opening(of: str, *readings: float) -> list[Raw]:
    return [{"do": "measure_opening", "of": of, "place": n, "value": v} for n, v in enumerate(readings, 1)]


def machine(**changes: Any) -> Raw:
    return {"do": "add_machine", "name": "Laser", "kind": "laser", "bed_width": 400, "bed_height": 300, **changes}


def own_part(start: str, *readings: Raw) -> list[Raw]:
    return [
        {"do": "copy_part", "id": "my-part-1", "part": start, "name": "Mine"},
        {"do": "measure_part", "part": "my-part-1", "readings": list(readings)},
        {"do": "choose_part", "function": "f1", "part": "my-part-1"},
    ]


def sharpness(code: str, value: float) -> Raw:
    return {"do": "set_limit", "limit": code, "value": value, "reason": "here"}


def seen_from(distance: float) -> Design:
    return made(plate((BUTTON, 100, 60)), {"do": "set_brief", "eye_distance": distance, "eye_height": 0})


def neighbour(gap: float) -> Raw:
    outline = {"kind": "rect", "width": 60, "height": 120}
    return {"do": "add_module", "id": "next", "name": "Next", "outline": outline, "x": 200.5 + gap, "y": 0.5}


def behind(x: float, *holes: float) -> Raw:
    spots = [{"id": f"h{n}", "x": h, "y": 0} for n, h in enumerate(holes)]
    return {
        "do": "mount_board", "module": "plate", "name": "B", "width": 60, "height": 40, "x": x, "y": 60, "holes": spots
    }  # fmt: skip


def trial(verdict: str) -> Raw:
    return {"do": "log_trial", "part": LED, "volts": 5, "milliamps": 10, "verdict": verdict}


CASE = {"do": "set_case", "module": "plate"}
FRAME = {"do": "set_frame"}


def cut_off(c: float) -> dict[str, Any]:
    """An opening of 400 × 300 mm whose lower left corner is cut off at 45°."""
    corners = [(c, 0), (400, 0), (400, 300), (0, 300), (0, c)]
    return {"do": "set_brief", "opening": {"kind": "path", "points": [{"x": x, "y": y} for x, y in corners]}}


def cutting(diameter: float, flutes: int = 1, **changes: Any) -> Raw:
    tools = [{"diameter": diameter, "flutes": flutes}]
    return machine(name="Mill", kind="mill", depth=12, tools=tools, **changes)


def square_hole(side: float = 30) -> Raw:
    shape = {"kind": "rect", "width": side, "height": side}
    return {
        "do": "add_feature",
        "layer": "back",
        "module": "plate",
        "reason": "a test",
        "shape": shape,
        "x": 90,
        "y": 60,
    }


PRINTED = {**CASE, "made": "printed"}


def printer(bed_width: float) -> Raw:
    size = {"bed_width": bed_width, "bed_height": 120, "margin": 0, "depth": 200}
    return machine(name="Printer", kind="printer", **size)


def layer(name: str, **changes: Any) -> Raw:
    return {"do": "edit_layer", "layer": name, **changes}


def slot(x: float, y: float, width: float, height: float) -> Raw:
    return {"do": "add_feature", "module": "plate", "layer": "face", "reason": "a slot", "x": x, "y": y,
            "shape": rectangle(width, height)}  # fmt: skip


ONE = plate((TOGGLE, 60, 60))


def strip(**changes: Any) -> Raw:
    return {"do": "add_strip", "module": "plate", "x": 10, "y": 20, "x2": 110, "y2": 20, **changes}


def limited(name: str, value: float) -> Raw:
    return {"do": "set_limit", "limit": name, "value": value, "reason": "tried"}


CLEAR_BACK = {"do": "edit_layer", "layer": "back", "opacity": "clear"}


def mill(cutter: float) -> Raw:
    return machine(name="Mill", kind="mill", tools=[{"diameter": cutter, "flutes": 1}])


BUSH, RATED, CLIPS = 11.0, 10.0, 10.0
"""Of the large toggle its thread (mm) and what it switches (A); the thickest plate that the device takes (mm)."""
FAR = 4 / (2 * math.tan(math.radians(16 / 60) / 2))
"""Where a capital of 4 mm is seen at 16 minutes of arc (mm): h = 2·d·tan(α/2), solved for d."""
TRACE = {
    "do": "add_reference", "id": "r", "module": "plate", "picture": "0" * 64, "width": 1600, "height": 1200,
    "scale": {"start": {"x": 0, "y": 0}, "end": {"x": 1600, "y": 0}, "length": 160}, "x": 0, "y": 0,
    "circles": [{"id": "c", "function": "f1",
                 "points": [{"x": 800 + 61 * math.cos(t), "y": 600 + 61 * math.sin(t)} for t in (0.1, 1.6, 3.1, 4.6)]}],
}  # fmt: skip
WIRED = plate(("led-5-prewired", 60, 60))
LIMITS = [
    Limit("brief.module-too-large", lambda v: made(plate(), module(x=v)), 0.3, False),
    Limit("brief.modules-overlap", lambda v: made(plate(), neighbour(v)), 0.3, False),
    Limit("brief.opening-uneven", lambda v: made(plate(), *opening("widths", 201, 201 + v)), 1.0, True),
    Limit("brief.gap-tight", lambda v: made(plate(), {"do": "set_brief", "process": "hand", "gap": v}), 0.3, False),
    # A bed of so much less 5 mm on either side, against 200 mm.
    Limit("brief.bed-too-small", lambda v: made(plate(), machine(bed_width=210 - v, bed_height=140)), 0, True),
    # A sheet of 300 mm against a bed that is so much less, lying the better way.
    Limit(
        "brief.sheet-on-bed",
        lambda v: made(
            plate(),
            machine(bed_width=400, bed_height=300 - v),
            {"do": "add_stock", "material": "acrylic", "thickness": 3, "width": 300, "height": 390},
        ),
        0,
        True,
    ),
    Limit(
        "brief.too-thick",
        lambda v: made(plate(), machine(depth=3), {"do": "edit_layer", "layer": "face", "thickness": v}),
        3,
        True,
    ),
    Limit(
        "brief.sheet-too-small",
        lambda v: made(
            plate(), {"do": "add_stock", "material": "acrylic", "thickness": 2, "width": 200 - v, "height": 150}
        ),
        0,
        True,
    ),
    Limit("brief.licensed", lambda v: made(plate((TOGGLE, 60, 60)), fn(volts=v, amps=1, current="AC")), 49.98, True),
    Limit("brief.licensed", lambda v: made(plate((TOGGLE, 60, 60)), fn(volts=v, amps=1, current="DC")), 119.98, True),
    Limit(
        "brief.public-voltage",
        lambda v: made(
            plate((TOGGLE, 60, 60)), fn(volts=v, amps=1, current="AC"), {"do": "set_environment", "public": True}
        ),
        25,
        True,
    ),
    # The lever stands 22 mm out of the face.
    Limit(
        "brief.hits-in-front",
        lambda v: made(
            plate((TOGGLE, 100, 60)),
            {
                "do": "add_keepout",
                "name": "w",
                "side": "front",
                "x": 90,
                "y": 40,
                "width": 50,
                "height": 50,
                "clear": v,
            },
        ),
        catalogue()[TOGGLE].height,
        False,
        measured=lambda v: catalogue()[TOGGLE].height,
    ),
    Limit("face.too-deep", lambda v: plate((BUTTON, 60, 60), depth=v), 58, False, measured=lambda v: 58),
    Limit("face.legend-small", seen_from, FAR, True, 8.0, measured=lambda v: 4.0),
    Limit(
        "face.lens-small",
        lambda v: made(plate(("caption-two-lamp", 100, 60)), {"do": "set_brief", "eye_distance": v, "eye_height": 0}),
        FAR * 3 / 4,  # words on a lens are 3 mm high
        True,
        8.0,
        measured=lambda v: 3.0,
    ),
    Limit("face.trace-missed", lambda v: made(plate(("button-12", 80 + v, 60)), TRACE), 0.5, True),
    Limit(
        "face.pair-not-mirrored",
        lambda v: made(
            plate((TOGGLE, 60, 60), (TOGGLE, 150, 60)),
            {"do": "pair", "first": "f1", "second": "f2"},
            {"do": "move", "functions": ["f2"], "dx": v},
        ),
        0.01,
        True,
        0.008,
    ),
    # Off the detents by whatever is more than a twentieth of a degree.
    Limit(
        "face.legend-off-detents",
        lambda v: made(
            plate((ROTARY, 100, 60)),
            fn(positions=["A", "B", "C"]),
            {"do": "edit_legend", "function": "f1", "text": "R", "step": 30 + v},
        ),
        0.05,
        True,
        0.01,
        lambda v: 30 + v,
        30,
    ),
    # Two words over and under a lever, each beginning so far from its middle: twice as far from each other.
    Limit(
        "face.positions-run-together",
        lambda v: made(
            plate((TOGGLE, 100, 60)),
            fn(positions=["H", "E"]),  # letters without overshoot
            {"do": "edit_legend", "function": "f1", "text": "", "radius": v},
        ),
        0.4,
        False,
        measured=lambda v: 2 * v,
        needed=0.8,
    ),
    # Threads: three layers of which the back is clamped, washer 0.8, nut 2.2, one turn of 1 mm; 11 mm long.
    Limit(
        "parts.bush-short",
        lambda v: made(plate((TOGGLE, 60, 60)), {"do": "edit_layer", "layer": "back", "thickness": v}),
        BUSH - 4.0,
        True,
        measured=lambda v: BUSH,
    ),
    Limit(
        "parts.nut-too-high",
        lambda v: made(plate((TOGGLE, 60, 60)), {"do": "edit_layer", "layer": "diffuser", "thickness": v}),
        3.0,
        False,
        measured=lambda v: 3.0,
    ),
    Limit(
        "parts.pocket-floor",
        lambda v: made(plate((TOGGLE, 60, 60)), {"do": "set_pocket", "function": "f1", "depth": v}),
        2.0,
        True,
        measured=lambda v: 3 - v,
        needed=1.0,
    ),
    Limit(
        "parts.hole-tight",
        lambda v: made(
            plate((ROTARY, 60, 60)),
            *own_part(ROTARY, {"of": "bush", "values": [9.0]}),
            {
                "do": "edit_part",
                "part": "my-part-1",
                "cutout": {
                    "kind": "path",
                    "points": [{"x": a * v / 2, "y": b * v / 2} for a, b in ((-1, -1), (1, -1), (1, 1), (-1, 1))],
                },
            },
        ),
        9.0,
        False,
    ),
    Limit(
        "parts.readings-disagree",
        lambda v: made(plate((ROTARY, 60, 60)), *own_part(ROTARY, {"of": "bush", "values": [9.5, 9.5 + v]})),
        0.10,
        True,
    ),
    Limit(
        "parts.differs-from-sheet",
        lambda v: made(plate((ROTARY, 60, 60)), *own_part(ROTARY, {"of": "bush", "values": [9.53 + v]})),
        0.25,
        True,
    ),
    Limit(
        "parts.overloaded",
        lambda v: made(plate((TOGGLE, 60, 60)), fn(volts=12, amps=v)),
        RATED,
        True,
    ),
    Limit(
        "parts.breaker-rating",
        lambda v: made(plate(("breaker-5", 60, 60)), fn(amps=v)),
        4.0,
        True,
        measured=lambda v: 5.0,
    ),
    Limit(
        "parts.sheet-range",
        lambda v: made(plate(("device-bought", 60, 60)), {"do": "edit_layer", "layer": "back", "thickness": v}),
        CLIPS - 5,
        True,
        measured=lambda v: 5 + v,
    ),
    # Bodies of 18 mm with 2 mm of room all round; plywood of 3 mm wants 3 mm between the openings for them.
    Limit(
        "stack.board-bridge",
        lambda v: made(
            plate((TOGGLE, 60, 60), (TOGGLE, 60 + 18 + 4 + v, 60)),
            {"do": "add_layer", "role": "board", "material": "plywood"},
        ),
        3.0,
        False,
    ),
    # Heads of 6 mm over holes of 3.4 at 90°: 1.3 deep, and half a millimetre under them.
    Limit(
        "stack.countersink-deep",
        lambda v: made(
            plate(),
            {"do": "set_fixings", "module": "plate", "head": "countersunk"},
            {"do": "edit_layer", "layer": "face", "thickness": v},
        ),
        1.8,
        False,
        needed=1.8,
    ),
    # 60 mm and the back, washer 0.5, nut 2.4, two threads of 0.5: against 80.
    Limit(
        "stack.bolt-not-sold",
        lambda v: made(
            plate(),
            *({"do": "edit_layer", "layer": layer, "thickness": 30} for layer in ("face", "diffuser")),
            {"do": "edit_layer", "layer": "back", "thickness": v},
        ),
        16.1,
        True,
        measured=lambda v: 63.9 + v,
        needed=80,
    ),
    # Layers of 2, 3 and 3, and a lamp is 2 tall: its front may touch the back, or go into a back that is clear.
    Limit("light.too-near", lambda v: made(ONE, strip(z=v)), 8.0 + 2.0, False),
    Limit("light.too-near", lambda v: made(ONE, CLEAR_BACK, strip(z=v)), 5.0 + 2.0, False),
    # A lamp that is made for 12 V takes a tenth more, and glows on less than four fifths.
    Limit("light.lamp-supply", lambda v: made(WIRED, fn(volts=v)), 13.2, True, 0.05, lambda v: v / 12, 1.1),
    Limit("light.lamp-supply", lambda v: made(WIRED, fn(volts=v)), 9.6, False, 0.05, lambda v: v / 12, 0.8),
    # 60 LEDs a metre are 16.67 apart; the clear back of 3 seems 3 / 1.49 thick.
    Limit(
        "light.strip-spots",
        lambda v: made(ONE, CLEAR_BACK, strip(z=v)),
        5 + 3 - 3 / 1.49 + 1000 / 60,
        False,
        measured=lambda v: 1000 / 60,
    ),
    # A strip is 10 wide: 5 to either side of its middle.
    Limit("light.off-plate", lambda v: made(ONE, strip(y=v, y2=v)), 5.0, False, measured=lambda v: 5 - v),
    # A toggle's body of 18 × 29 in the middle of 60, 60.
    Limit(
        "light.meets-body",
        lambda v: made(ONE, strip(y=v, y2=v)),
        60 + 14.5 + 5,
        False,
        step=0.05,
        measured=lambda v: v - 79.5,
    ),
    # 12 V strips are cut every 3 LEDs, 50 mm; half a pitch more is let pass.
    Limit("light.off-cut", lambda v: made(ONE, strip(x2=10 + v)), 50 + 500 / 60, True, measured=lambda v: v - 50),
    Limit(
        "light.chain-long",
        lambda v: made(ONE, strip(kind="chain-60", x2=10.1 + v * 1000 / 60)),
        50.5,
        True,
        step=0.5,
    ),
    # An addressable LED takes up to 60 mA: eight of them are 0.48 A.
    Limit(
        "light.much-current",
        lambda v: made(ONE, strip(kind="chain-60", x2=10.1 + v * 1000 / 60)),
        8.5,
        True,
        step=0.5,
        measured=lambda v: 0.06 * v,
    ),
    # A caption of 18 mm with one LED: half its width.
    Limit(
        "light.box-shallow",
        lambda v: made(plate(("caption-single", 60, 60)), *own_part("caption-single", {"of": "depth", "values": [v]})),
        9.0,
        False,
        needed=9.0,
    ),
    # 5 V over an amber lamp of 2.1 V leave 2.9 V.
    Limit(
        "light.no-headroom",
        lambda v: made(plate((LED, 60, 60)), limited("lamp-headroom", v)),
        0.58,
        True,
        measured=lambda v: 0.58,
    ),
    # A screen's white through grey: 30 %.
    Limit(
        "light.film-dark",
        lambda v: made(plate(("display-16x2", 100, 60)), fn(film="grey"), limited("film-passes", v)),
        0.3,
        True,
        measured=lambda v: 0.3,
    ),
    # The eye half a metre from the middle and so much higher: sin 40° · 500.
    Limit(
        "light.seen-aslant",
        lambda v: plate(("display-16x2", 100, 60), eye_distance=500, eye_height=v),
        321.4,
        True,
        step=0.5,
        measured=lambda v: math.degrees(math.asin(v / 500)),
        needed=40,
    ),
    # 24 V, 2.1 V, 10 mA: 21.9 V / 10 mA, next 2200 Ω, 0.218 W, to be rated at twice that.
    Limit(
        "light.hot-resistor",
        lambda v: made(plate((LED, 60, 60)), fn(volts=24), limited("resistor-watts", v)),
        0.436,
        False,
        measured=lambda v: 0.436,
    ),
    # Layers of 8, standoffs of 15, a board of 3.
    Limit(
        "stack.too-deep",
        lambda v: made(plate(depth=v), {"do": "add_layer", "role": "board"}),
        26.0,
        False,
        measured=lambda v: 26.0,
    ),
    # Layers of 8, a body of 37 with its bend, 25 for wires, a back of 6: 76.
    Limit(
        "stack.case-deep",
        lambda v: made(plate((TOGGLE, 60, 60), depth=v), {"do": "set_case", "module": "plate"}),
        76.0,
        False,
        measured=lambda v: 76.0,
    ),
    # A body of 18 mm, its middle so far from the left edge; the wall is the fit gap (0.3) beyond it.
    Limit(
        "stack.case-meets",
        lambda v: made(plate((TOGGLE, 9 + v, 60)), {"do": "set_case", "module": "plate"}),
        0.7,
        False,
        measured=lambda v: v + 0.3,
        needed=1.0,
    ),
    # A batten reaches 8 mm into the opening; the plate begins half a millimetre in, its body is 18 mm wide.
    Limit(
        "stack.frame-meets",
        lambda v: made(plate((TOGGLE, 16.5 + v, 60)), {"do": "set_frame"}),
        1.0,
        False,
    ),
    # The longest piece is the plate with its gaps and two walls of 6 mm: 212.6 against a bed less its margins.
    Limit(
        "stack.case-bed",
        lambda v: made(plate(), {"do": "set_case", "module": "plate"}, machine(bed_width=222.6 - v, bed_height=220)),
        0,
        True,
    ),
    # The least hatch is of 40 mm, its cover 12 mm wider on each side.
    Limit(
        "stack.case-printer",
        lambda v: made(plate(), PRINTED, printer(64 - v)),
        0,
        True,
    ),
    # A corner cut off at 45°: a millimetre within, √2 (c + √2 − 2 · 8) of it lie on no batten.
    Limit("stack.frame-carries", lambda v: made(plate(), cut_off(v / 2**0.5 - 2**0.5 + 16), FRAME), 60.0, True),
    # A board of 60 mm at the left of a body of 18 mm whose middle is at 150.
    Limit(
        "stack.board-meets",
        lambda v: made(plate((TOGGLE, 150, 60)), behind(141 - v - 30)),
        3.0,
        False,
    ),
    # A plate 120 mm high with a cutter of 4 mm above and below it.
    Limit(
        "cut.no-room",
        lambda v: made(
            plate(), machine(kind="mill", bed_width=400, bed_height=134 - v, tools=[{"diameter": 4}], spindle_rpm=9000)
        ),
        0,
        True,
    ),
    # π · D · 15000 turns: 150 m/min want 3.183 mm.
    Limit(
        "cut.surface-slow",
        lambda v: made(plate(), cutting(v / math.pi / 15, spindle_rpm=15_000)),
        150,
        False,
        0.6,
        measured=lambda v: round(v, 1),
    ),
    # 15000 turns, one flute: what a tooth takes is the feed over it.
    Limit(
        "cut.rubs",
        lambda v: made(plate(), cutting(3.175, spindle_rpm=15_000, feed=math.floor(v * 15_000))),
        0.05,
        False,
        0.001,
    ),
    Limit("cut.flutes", lambda v: made(plate(), cutting(3.175, flutes=round(v), spindle_rpm=15_000)), 2, True, 1),
    # A square corner keeps r (√2 − 1) of a cutter that has 0.02 mm of play on each side.
    Limit(
        "cut.corners-round",
        lambda v: made(plate(), cutting(2 * v / (2**0.5 - 1) - 0.04, spindle_rpm=9000), square_hole()),
        0.7,
        True,
    ),
    Limit(
        "cut.too-deep",
        lambda v: made(plate(), cutting(3 / v, spindle_rpm=9000), square_hole(2.9)),
        4,
        True,
        measured=lambda v: round(v, 2),
    ),
    Limit(
        "parts.way-up",
        lambda v: made(plate((READOUT, 100, 60)), {"do": "turn", "functions": ["f1"], "by": v}),
        0.01,
        True,
        0.009,
    ),
]


@pytest.mark.parametrize("limit", LIMITS, ids=[f"{entry.code} {n}" for n, entry in enumerate(LIMITS)])
def test_one_figure(limit: Limit) -> None:
    way = 1 if limit.most else -1
    assert found(limit.build(limit.at - way * limit.step), limit.code) == []
    outside = limit.at + way * limit.step
    finding = found(limit.build(outside), limit.code)[0]
    assert finding.measured
    assert finding.measured.value == pytest.approx(limit.measured(outside), abs=0.011)
    if limit.needed is not None:
        assert finding.needed
        assert finding.needed.value == pytest.approx(limit.needed, abs=0.011)


# ---- What is judged by words and by number --------------------------------------------------------------------------

BULB = plate(("pilot-22-bulb", 60, 60))
TWO = plate((TOGGLE, 50, 60), (TOGGLE, 120, 60))
STOP = plate(("emergency-stop-22", 100, 60))
FOUR = plate(*((TOGGLE, 30.0 + 40 * n, 60.0) for n in range(4)))
DARK = made(
    plate(*(("led-5-bare", 20.0 + 22 * n, 80.0) for n in range(8)), eye_distance=500),
    {"do": "edit_legend", "function": "f1", "text": "READY"},
    CLEAR_BACK,
    {"do": "set_environment", "dark": True},
)
FIVE = {"do": "add_stock", "material": "acrylic", "thickness": 2, "width": 210, "height": 130}


def each(*names: str, field: str) -> list[Raw]:
    return [{"do": "edit_function", "function": f"f{n}", field: name} for n, name in enumerate(names, 1)]


def procedure(*steps: int) -> Raw:
    return {"do": "add_procedure", "name": "P", "steps": [f"f{n}" for n in steps]}


def seat(knee: float) -> Design:
    return made(plate((BUTTON, 100, 30), pitch=20), {"do": "set_seat", "edge_height": 700, "knee_height": knee,
                                                      "knee_reach": 40, "clear": 20})  # fmt: skip


def loads(amps: float, *more: Raw) -> Design:
    return made(TWO, fn(volts=12, amps=amps, bus="Main"), *more)


def written(kind: str, x: float) -> Design:
    graphic = {"do": "add_graphic", "module": "plate", "kind": kind, "text": "I", "x": x, "y": 60}
    return made(plate((LED, 60, 60)), graphic)


def named(text: str, *more: Raw) -> Design:
    return made(ONE, {"do": "edit_legend", "function": "f1", "text": text}, *more)


LAMPS = made(
    plate(*(("caption-two-lamp", 30.0 + 36 * n, 30.0 + 20 * m) for n in range(5) for m in range(4))),
    *({"do": "edit_function", "function": f"f{n}", "volts": 12, "amps": 0.02} for n in range(1, 21)),
)
"""Twenty captions with lamps on 12 V."""
NOTCHED = {"kind": "rect", "width": 30, "height": 30}
SMALL = {"kind": "rect", "width": 8, "height": 8}


def milled(*tools: Raw, **changes: Any) -> Design:
    """A plate with a toggle on a mill."""
    cutters = list(tools) or [{"diameter": 3.175}]
    return made(ONE, machine(name="Mill", kind="mill", depth=12, spindle_rpm=20_000, tools=cutters, **changes))


def lasered(*more: Raw, **changes: Any) -> Design:
    """A plate with a toggle on a laser whose power and kerf are said."""
    return made(ONE, machine(**{"watts": 40, "kerf": 0.2, **changes}), *more)


def edited(**changes: Any) -> Raw:
    return {"do": "edit_machine", "machine": "mill-1", **changes}


def was_cut(r: Resolved) -> Raw:
    pieces = marked(r, {"plate/face", "plate/back"})
    return {"do": "mark_cut", "pieces": [p.model_dump() for p in pieces]}


def cut_away(**shape: Any) -> Raw:
    """An opening more in a layer."""
    return {"do": "add_feature", "module": "plate", "reason": "a test", "x": 120, "y": 60, **shape}


SPOKEN: dict[str, Callable[[], tuple[Design, Design]]] = {
    "cut.again": lambda: (
        made(ONE, was_cut(Resolved(ONE)), {"do": "move", "functions": ["f1"], "dx": 2.7, "dy": 0}),
        made(ONE, was_cut(Resolved(ONE)), fn(group="another")),
    ),
    "cut.by-hand": lambda: (lasered(depth=2), lasered(depth=3)),
    "cut.falls-out": lambda: (
        made(milled(), {"do": "add_layer", "role": "board"}, layer("board", outline=SMALL)),
        made(milled(), {"do": "add_layer", "role": "board"}),
    ),
    "cut.kerf-none": lambda: (lasered(kerf=0), lasered(kerf=0.2)),
    "cut.kerf-unmeasured": lambda: (
        lasered(),
        lasered(
            *(
                {"do": "log_fit", "machine": "laser-1", "material": "acrylic", "thickness": t, "kerf": 0.2}
                for t in (2, 3)
            )
        ),
    ),
    "cut.laser-slow": lambda: (lasered(watts=4), lasered(watts=40)),
    "cut.no-cutter": lambda: (milled({"kind": "drill", "diameter": 3}), milled()),
    "cut.no-engraver": lambda: (milled(), milled({"diameter": 3.175}, {"kind": "engraver", "diameter": 3.175})),
    "cut.no-place": lambda: (
        milled(clamps=[{"x": 150, "y": 100, "width": 40, "height": 40}], bed_height=200),
        milled(clamps=[{"x": 380, "y": 20, "width": 10, "height": 40}], bed_height=200),
    ),
    "cut.no-tool": lambda: (milled({"diameter": 12}), milled({"diameter": 12}, {"diameter": 1})),
    "cut.power-unsaid": lambda: (lasered(watts=0), lasered()),
    "cut.spindle-unsaid": lambda: (made(milled(), edited(spindle_rpm=0)), milled()),
    "cut.turned-over": lambda: (
        made(milled(), layer("face", thickness=6), cut_away(layer="face", shape=NOTCHED, depth=2)),
        milled(),
    ),
    "brief.control-idle": lambda: (TWO, made(TWO, *each("a", "b", field="event"))),
    "brief.emergency-undeclared": lambda: (STOP, made(STOP, fn(stop_role="real"))),
    "brief.event-unmade": lambda: (
        made(plate((LED, 60, 60)), fn(event="doors")),
        made(plate((LED, 60, 60), (BUTTON, 120, 60)), *each("doors", "doors", field="event")),
    ),
    "brief.event-unseen": lambda: (
        made(plate((BUTTON, 60, 60)), fn(event="doors")),
        made(plate((BUTTON, 60, 60)), fn(event="doors", indicator="lamp")),
    ),
    "brief.forgotten": lambda: (made(FOUR, {"do": "set_brief", "kind": "machine"}), plate()),
    "brief.irreversible-unguarded": lambda: (
        made(ONE, fn(risk="guarded")),
        made(plate(("toggle-guarded", 60, 60)), fn(risk="guarded")),
    ),
    "brief.knee-clearance": lambda: (seat(690), seat(600)),
    "brief.load-unprotected": lambda: (
        loads(3),
        loads(
            3,
            {"do": "add_function", "id": "b", "name": "B", "want": "breaker 5 A"},
            {"do": "edit_function", "function": "b", "bus": "Main"},
        ),
    ),
    "brief.material-weather": lambda: (
        made(ONE, {"do": "set_environment", "wet": True}, {"do": "edit_layer", "layer": "back", "material": "mdf"}),
        made(ONE, {"do": "set_environment", "wet": True}),
    ),
    "brief.no-part": lambda: (made(plate(), {"do": "add_function", "name": "Gong"}), ONE),
    "brief.sharp-corner": lambda: (
        made(plate(), {"do": "set_environment", "public": True}),
        made(plate(), {"do": "set_environment", "public": True}, module(outline=rectangle(200, 120, 2))),
    ),
    "brief.source-incomplete": lambda: (
        made(plate(), {"do": "add_function", "name": "Battery", "want": "source"}),
        plate(),
    ),
    "brief.stock-short": lambda: (
        made(plate(), {**FIVE, "thickness": 3}),
        made(plate(), {**FIVE, "count": 1}, {**FIVE, "thickness": 3, "count": 2}),
    ),
    "brief.thin-and-brittle": lambda: (
        made(
            plate(),
            {"do": "set_environment", "public": True},
            {"do": "set_school", "school": "acrylic"},
            {"do": "edit_layer", "layer": "face", "thickness": 2.9},
        ),
        made(plate(), {"do": "set_environment", "public": True}, {"do": "set_school", "school": "acrylic"}),
    ),
    "cut.unsafe-material": lambda: (made(ONE, {"do": "edit_layer", "layer": "back", "material": "pvc"}), ONE),
    "face.bus-scattered": lambda: (
        made(FOUR, *each("A", "B", "A", "B", field="bus")),
        made(FOUR, *each("A", "A", "B", "B", field="bus")),
    ),
    "face.detent-unnamed": lambda: (
        made(plate((ROTARY, 100, 60)), fn(positions=list("ABCDE"))),
        made(plate((ROTARY, 100, 60)), fn(positions=list("ABCDE"), want="rotary, 5 of 12 ways")),
    ),
    "face.emergency-out-of-reach": lambda: (
        made(STOP, {"do": "set_brief", "eye_distance": 900, "eye_height": 200}),
        made(STOP, {"do": "set_brief", "eye_distance": 500, "eye_height": 200}),
    ),
    "face.graphic-clash": lambda: (written("text", 66), written("text", 80)),
    "face.hand-wrong-side": lambda: (made(ONE, fn(hand="right")), made(ONE, fn(hand="left"))),
    "face.legend-at-seam": lambda: (
        made(
            plate((LED, 193.5, 60), commands=()),
            neighbour(0.4),
            {"do": "edit_legend", "function": "f1", "text": "WIDE"},
        ),
        made(plate((LED, 180, 60)), neighbour(0.4), {"do": "edit_legend", "function": "f1", "text": "WIDE"}),
    ),
    "face.legend-covered": lambda: (
        made(plate((TOGGLE, 60, 60), (BUTTON, 60, 88)), {"do": "edit_legend", "function": "f1", "text": "LIGHTS"}),
        named("LIGHTS"),
    ),
    "face.legend-missing": lambda: (plate((ROTARY, 100, 60)), made(plate((ROTARY, 100, 60)), fn(positions=["A", "B"]))),
    "face.no-legend": lambda: (made(ONE, {"do": "remove_legend", "function": "f1"}), ONE),
    "face.not-in-font": lambda: (named("λAMP"), named("LAMP")),
    "face.not-placed": lambda: (made(ONE, {"do": "remove", "functions": ["f1"]}), ONE),
    "face.off-ways-differ": lambda: (
        made(FOUR, *each("G", "G", "G", "G", field="group"), {"do": "turn", "functions": ["f3"], "by": 180}),
        made(FOUR, *each("G", "G", "G", "G", field="group")),
    ),
    "face.placard-covered": lambda: (written("placard", 66), written("placard", 100)),
    "face.sweep-broken": lambda: (made(FOUR, procedure(1, 3, 2, 4)), made(FOUR, procedure(1, 2, 3, 4))),
    "parts.dazzles": lambda: (made(plate(("led-3-bare", 60, 60)), {"do": "set_environment", "dark": True}), ONE),
    "parts.digits-hidden": lambda: (
        made(plate((READOUT, 60, 60)), fn(digits=3)),
        made(plate((READOUT, 60, 60)), fn(digits=4)),
    ),
    "parts.emergency-kind": lambda: (made(plate((BUTTON, 60, 60)), fn(name="Emergency stop", risk="emergency")), STOP),
    "parts.lamp-colour": lambda: (
        made(plate(("led-5-bezel-two-colour", 60, 60)), fn(want="blue lamp")),
        made(plate((LED, 60, 60)), fn(want="blue lamp")),
    ),
    "parts.not-sealed": lambda: (made(ONE, {"do": "set_environment", "wet": True}), ONE),
    "parts.positions-short": lambda: (
        made(plate(("rotary-8", 60, 60)), {"do": "remove", "functions": ["f1"]}, fn(positions=list("ABCDEFGHI"))),
        made(plate(("rotary-8", 60, 60)), {"do": "remove", "functions": ["f1"]}, fn(positions=list("ABCDEFGH"))),
    ),
    "parts.sample-first": lambda: (plate((LED, 50, 60), (LED, 100, 60)), plate((LED, 50, 60))),
    "parts.spares-short": lambda: (
        made(plate(("caption-two-lamp", 60, 60)), {"do": "set_on_hand", "part": "caption-two-lamp", "count": 1}),
        made(plate(("caption-two-lamp", 60, 60)), {"do": "set_on_hand", "part": "caption-two-lamp", "count": 2}),
    ),
    "parts.state-unseen": lambda: (plate(("button-22-latching", 60, 60)), plate((BUTTON, 60, 60))),
    "parts.too-hot": lambda: (
        made(plate(("display-16x2", 90, 60)), {"do": "set_environment", "heat": True}),
        plate(("display-16x2", 90, 60)),
    ),
    "parts.transistor-on-ac": lambda: (
        made(ONE, fn(volts=24, amps=1, current="AC", through="transistor")),
        made(ONE, fn(volts=24, amps=1, through="transistor")),
    ),
    "parts.unmeasured": lambda: (ONE, plate()),
    "parts.washed-out": lambda: (
        made(plate((LED, 60, 60)), {"do": "set_environment", "sun": True}),
        plate((LED, 60, 60)),
    ),
    "light.bulb-warm": lambda: (BULB, made(BULB, fn(led=True))),
    # One LED 5 mm behind a lens of 18 mm; the catalogue's box is 11 mm deep.
    "light.box-patches": lambda: (
        made(
            plate(("caption-single", 100, 60)),
            {"do": "copy_part", "part": "caption-single", "id": "flat", "name": "Flat"},
            {"do": "measure_part", "part": "flat", "readings": [{"of": "depth", "values": [5]}]},
            {"do": "choose_part", "function": "f1", "part": "flat"},
        ),
        plate(("caption-single", 100, 60)),
    ),
    # The cable of a read-out leaves to the left, 30 mm and more from its middle.
    "light.wires-cross": lambda: (
        made(plate((READOUT, 100, 60)), CLEAR_BACK, strip(x=64, x2=64, y=20, y2=100)),
        made(plate((READOUT, 100, 60)), CLEAR_BACK, strip(x=140, x2=140, y=20, y2=100)),
    ),
    "light.trial-wrong": lambda: (
        made(plate((LED, 60, 60)), trial("dim")),
        made(plate((LED, 60, 60)), trial("dim"), trial("right")),
    ),
    "light.segments-bare": lambda: (
        plate((READOUT, 100, 60)),
        made(plate((READOUT, 100, 60)), fn(film="red")),
    ),
    "light.screen-bare": lambda: (
        plate(("display-16x2", 100, 60)),
        made(plate(("display-16x2", 100, 60)), fn(film="clear")),
    ),
    "stack.board-loose": lambda: (made(plate(), behind(100, -20)), made(plate(), behind(100, -20, 20))),
    "stack.case-shut": lambda: (
        made(plate(), {"do": "set_case", "module": "plate", "hatch": False, "exits": []}),
        made(plate(), {"do": "set_case", "module": "plate", "hatch": False}),
    ),
    "stack.case-warm": lambda: (made(LAMPS, {**CASE, "vents": False}), made(LAMPS, CASE)),
    "stack.corners-round": lambda: (
        made(plate((READOUT, 100, 60)), mill(3.175)),
        made(plate((READOUT, 100, 60)), mill(1.0)),
    ),
    # Four slots about 40 × 40 mm in the middle; three of them leave it hanging.
    "stack.falls-out": lambda: (
        made(plate(), slot(100, 40, 44, 4), slot(100, 80, 44, 4), slot(80, 60, 4, 44), slot(120, 60, 4, 44)),
        made(plate(), slot(100, 40, 44, 4), slot(100, 80, 44, 4), slot(80, 60, 4, 44)),
    ),
    "stack.few-screws": lambda: (made(plate(), {"do": "remove_fixings", "module": "plate"}), plate()),
    "stack.fits-upside-down": lambda: (plate((READOUT, 100, 60)), plate(("display-graphic-28", 100, 60))),
    "stack.glue-on-paint": lambda: (
        made(plate(), layer("diffuser", paint=[{"side": "back"}]), layer("back", join="glue")),
        made(plate(), layer("diffuser", paint=[{"side": "front"}]), layer("back", join="glue")),
    ),
    "stack.nothing-holds": lambda: (
        made(plate(), layer("back", join="trapped")),
        made(plate(), layer("diffuser", join="trapped")),
    ),
    "stack.nut-shut-in": lambda: (
        made(ONE, layer("diffuser", join="glue")),
        made(ONE, layer("back", join="glue")),
    ),
    "stack.part-can-turn": lambda: (plate(("key-switch-19", 100, 60)), plate((ROTARY, 100, 60))),
    "stack.seam-unlike": lambda: (
        made(plate(), neighbour(0.4), {"do": "set_school", "module": "next", "school": "two-layer"}),
        made(plate(), neighbour(0.4)),
    ),
    "stack.standoff-not-sold": lambda: (
        made(plate(), {"do": "add_layer", "role": "board", "gap": 12.5}),
        made(plate(), {"do": "add_layer", "role": "board", "gap": 12}),
    ),
    "wire.emergency-hard-wired": lambda: (STOP, ONE),
    "wire.no-pin": lambda: (ONE, plate()),
    "wire.pin-left-over": lambda: (
        made(
            ONE,
            {"do": "add_controller", "board": "atmega328p"},
            {"do": "pin", "line": "f1.on", "controller": "atmega328p-1", "pin": "7"},
            {"do": "remove", "functions": ["f1"]},
        ),
        made(
            ONE,
            {"do": "add_controller", "board": "atmega328p"},
            {"do": "pin", "line": "f1.on", "controller": "atmega328p-1", "pin": "7"},
        ),
    ),
    # Eight bare LEDs of 1 cd half a metre away, over legends dimmed to a fiftieth; and one of them over bright ones.
    "light.glare": lambda: (
        made(DARK, strip(), {"do": "set_light", "module": "plate", "level": 0.02}),
        made(DARK, strip(), {"do": "remove", "functions": [f"f{n}" for n in range(2, 9)]}),
    ),
    "light.layer-stops": lambda: (made(ONE, strip()), made(ONE, strip(), CLEAR_BACK)),
    "light.no-diffuser": lambda: (
        made(ONE, strip(), CLEAR_BACK, {"do": "edit_layer", "layer": "diffuser", "opacity": "clear"}),
        made(ONE, strip(), CLEAR_BACK),
    ),
    "light.nothing-lit": lambda: (
        made(ONE, CLEAR_BACK, {"do": "set_environment", "dark": True}),
        made(ONE, CLEAR_BACK, {"do": "set_environment", "dark": True}, strip()),
    ),
    "wire.pin-incapable": lambda: (
        made(
            plate(("potentiometer", 60, 60)),
            {"do": "add_controller", "board": "atmega328p"},
            {"do": "pin", "line": "f1.wiper", "controller": "atmega328p-1", "pin": "7"},
        ),
        made(
            plate(("potentiometer", 60, 60)),
            {"do": "add_controller", "board": "atmega328p"},
            {"do": "pin", "line": "f1.wiper", "controller": "atmega328p-1", "pin": "A0"},
        ),
    ),
}


@pytest.mark.parametrize("code", SPOKEN)
def test_one_is_spoken_of_and_the_other_is_not(code: str) -> None:
    spoken, silent = SPOKEN[code]()
    assert found(spoken, code)
    assert found(silent, code) == []


ELSEWHERE = {
    "wire.board-wanted": "test_what_plugs_onto_a_board_has_it_for_itself",
    "wire.board-taken": "test_what_plugs_onto_a_board_has_it_for_itself",
    "wire.load-at-reset": "test_a_load_is_never_on_a_pin_that_flashes_at_reset_unless_it_is_put_there",
    "wire.light-undimmed": "test_a_light_planned_at_less_than_full_is_dimmed_by_a_pin_that_can",
    "wire.position-unmeant": "test_every_position_that_is_read_has_a_meaning_or_is_marked_unused",
    "wire.carrier-small": "test_what_carries_a_load_bears_it",
    "wire.transistor-hot": "test_what_carries_a_load_bears_it",
    "wire.load-by-program": "test_nothing_dangerous_hangs_on_a_program_or_lies_beside_what_a_pin_reads",
    "wire.danger-beside-logic": "test_nothing_dangerous_hangs_on_a_program_or_lies_beside_what_a_pin_reads",
    "wire.fuse-load": "test_fuses_are_a_quarter_over_their_load_and_wires_outlast_them",
    "wire.unfused": "test_fuses_are_a_quarter_over_their_load_and_wires_outlast_them",
    "wire.fuse-wire": "test_fuses_are_a_quarter_over_their_load_and_wires_outlast_them",
    "wire.overloaded": "test_fuses_are_a_quarter_over_their_load_and_wires_outlast_them",
    "wire.drop": "test_what_loses_too_much_is_said_and_thicker_wire_or_a_star_is_offered",
    "wire.inrush": "test_cold_bulbs_take_ten_times_theirs",
    "wire.regulator-hot": "test_a_regulator_takes_from_the_supply_before_it",
    "wire.regulator-headroom": "test_a_regulator_takes_from_the_supply_before_it",
    "wire.usb-ports": "test_ports_hubs_and_cables_are_those_of_the_specification",
    "wire.usb-hub": "test_ports_hubs_and_cables_are_those_of_the_specification",
    "wire.usb-cable": "test_ports_hubs_and_cables_are_those_of_the_specification",
    "wire.measured-off": "test_what_the_ammeter_says_is_held_against_the_estimate",
    "wire.plugs-alike": "test_alike_plugs_are_keyed_apart_or_said",
    "wire.plug-thick": "test_what_does_not_fit_is_said",
    "wire.dangerous-loom": "test_what_does_not_fit_is_said",
    "wire.exit-tight": "test_what_does_not_fit_is_said",
    "wire.wire-short": "test_what_does_not_fit_is_said",
    "wire.length-guessed": "test_what_does_not_fit_is_said",
    "wire.chain-level": "test_a_strip_behind_is_wired_fed_and_counted_and_a_chain_has_its_data",
    "brief.chain-too-wide": "test_the_chain_is_judged_by_its_sum_and_by_the_root_of_squares",
    "brief.out-of-square": "test_an_opening_out_of_square_has_so_much_less_width",
    "cut.old-hole": "test_each_old_hole_is_taken_up_hidden_or_named",
    "cut.patch-meets": "test_an_opening_that_was_left_is_offered_a_patch_that_is_cut_with_the_others",
    "cut.vinyl-thin": "test_film_that_cannot_be_seen_or_weeded_is_spoken_of",
    "cut.film-hidden": "test_film_that_cannot_be_seen_or_weeded_is_spoken_of",
    "cut.mask-by-mill": "test_a_mask_is_cut_by_a_beam_at_little_power_and_stays_in_its_letters",
    "cut.patch-small": "test_words_that_do_not_fit_on_a_label_have_it_made_larger",
    "cut.engraves-deep": "test_a_laser_engraves_as_deep_as_is_said_by_the_energy_on_its_way",
    "wire.no-supply": "test_volts_that_no_supply_gives_and_terminals_that_are_not_said_are_findings",
    "wire.unjoined": "test_volts_that_no_supply_gives_and_terminals_that_are_not_said_are_findings",
    "wire.supply-short": "test_supplies_and_ports_are_loaded_to_four_fifths_and_no_further",
    "wire.usb-current": "test_supplies_and_ports_are_loaded_to_four_fifths_and_no_further",
    "wire.orphan-breaker": "test_a_breaker_protects_its_function_its_bus_or_nothing",
    "wire.network-split": "test_a_matrix_is_on_one_board",
    "wire.lamp-test-elsewhere": "test_what_programs_do_not_do_is_said",
    "wire.unprogrammed": "test_what_programs_do_not_do_is_said",
    "wire.mains-wiring": "test_mains_is_never_thinner_than_the_standard_and_its_metal_is_earthed",
    "wire.stop-idle": "test_what_stays_on_is_listed_and_an_idle_stop_too",
    "wire.stop-leaves-on": "test_what_stays_on_is_listed_and_an_idle_stop_too",
    "wire.stop-overloaded": "test_one_contact_breaks_one_supply_and_the_rest_is_to_fix_not_wired_past_it",
    "wire.lamp-test-current": "test_a_lamp_test_lights_every_lamp_and_no_line_lights_another",
    "wire.strap-pin": "test_straps_and_pins_without_pull_ups_come_last_and_are_wired_right",
    "wire.radio-pin": "test_straps_and_pins_without_pull_ups_come_last_and_are_wired_right",
    "wire.levels": "test_parts_of_5_volts_on_pins_of_3_3_are_said",
    "wire.scheme-misfit": "test_what_cannot_be_read_so_is_wired_by_itself_and_said",
    "wire.ghosting": "test_without_diodes_three_closed_contacts_show_a_fourth_and_that_is_said",
    "wire.chip-load": "test_outputs_of_a_chain_light_their_lamps_and_the_data_goes_from_chip_to_chip",
    "wire.lamp-not-dimmed": "test_outputs_of_a_chain_light_their_lamps_and_the_data_goes_from_chip_to_chip",
    "wire.expanders-alike": "test_expanders_have_addresses_of_their_own_and_share_the_pins_of_the_bus",
    "wire.ladder-source": "test_ladders_that_read_wrong_are_said_with_what_would_be_right",
    "wire.ladder-window": "test_ladders_that_read_wrong_are_said_with_what_would_be_right",
    "cut.program-wrong": "test_a_wrong_program_is_a_finding_once_it_was_read_back",
    "cut.seam-crosses": "test_a_seam_through_something_is_said_and_the_piece_left_whole",
    "cut.part-loose": "test_parts_are_held_and_seams_do_not_lie_on_each_other",
    "cut.seams-together": "test_parts_are_held_and_seams_do_not_lie_on_each_other",
    "cut.dowel-thin": "test_parts_are_held_and_seams_do_not_lie_on_each_other",
    "light.dim": "test_a_legend_far_from_every_lamp_is_dimmer_than_the_others",
    "light.lamps-meet": "test_no_two_lamps_lie_at_one_place",
    "light.leaks": "test_a_lit_room_is_closed_drawn_and_bought",
    "stack.glued-loose": "test_glued_sheets_without_screws_get_pins_where_there_is_room",
    "stack.pins-no-room": "test_glued_sheets_without_screws_get_pins_where_there_is_room",
    "light.half-dark": "test_a_large_rotary_throws_a_dark_ring_and_the_suggestion_clears_it",
    "stack.bends": "test_a_plate_gives_as_the_handbook_says",
    "stack.breaks-off": "test_a_neck_of_a_millimetre_and_a_half_in_hardboard_breaks_and_both_pieces_are_counted",
    "wire.chip-current": "test_a_chip_is_planned_with_150_and_never_carries_over_200_milliamperes",
    "wire.pin-current": "test_a_pin_is_planned_with_20_and_never_carries_over_40_milliamperes",
    "wire.port-current": "test_ports_that_share_a_limit_are_not_crowded",
    "wire.reserve": "test_the_checks_of_the_wire_station_speak",
}
"""Checks whose figures are tried on both sides of their limit by a test of their own, beside what they are made of."""


def test_no_check_is_left_out() -> None:
    here = {*(p.code for p in PAIRS), *(entry.code for entry in LIMITS), *SPOKEN, "face.off-module", "face.keep-out"}
    assert {c.code for c in all_checks()} - here - set(ELSEWHERE) == set()
    assert here | set(ELSEWHERE) <= {c.code for c in all_checks()}
