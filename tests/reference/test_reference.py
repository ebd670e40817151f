"""Our figures against the world outside: standards, vendors' headers, reference libraries, independent readers."""

import io
import math
import re
import subprocess
from pathlib import Path

import eseries
import ezdxf
import ezdxf.bbox
import pypdfium2
import pytest
import svgelements
from fontTools.pens.areaPen import AreaPen
from fontTools.pens.boundsPen import BoundsPen
from fontTools.pens.perimeterPen import PerimeterPen
from fontTools.pens.teePen import TeePen
from fontTools.ttLib import TTFont
from hypothesis import given
from hypothesis import strategies as st
from shapely import MultiLineString, Point, Polygon

from building import made_files, plate
from wingboard.core.changes.commands.places import SetPocket, TurnItems
from wingboard.core.cut.scenes import module_scenes
from wingboard.core.face import fonts, lettering
from wingboard.core.face.glyphs import TOLERANCE
from wingboard.core.files.scene import CirclePath, Item, Scene
from wingboard.core.files.svg import write_svg
from wingboard.core.files.template import BAR, FOOT, MARGIN, tiling, write_template
from wingboard.core.geometry.outline import flattened, moved, rounded_rectangle
from wingboard.core.light.resistor import E24, next_e24, series_resistor
from wingboard.core.overview.review import review
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.controllers import boards
from wingboard.core.record.design import Design
from wingboard.core.record.document import read_design
from wingboard.core.record.legends import FontName
from wingboard.core.record.wiring import BoardKind
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.screws import SCREW_HOLE
from wingboard.demo import demo_texts

VARIANTS = Path("/usr/share/arduino/hardware/arduino/avr/variants")
NAMES = {"atmega328p": "standard", "atmega32u4": "leonardo", "atmega2560": "mega"}
USB: dict[str, set[int]] = {"atmega328p": {0, 1}, "atmega32u4": set(), "atmega2560": {0, 1}}
"""Pins that carry the USB line; the chip with USB of its own has none such."""
NOT_LED_OUT = {"atmega32u4": {11, 12, 13, 17, 22, 23, *range(24, 31)}}
"""Pins that the short outline has no hole for: on the long one only, lamps' lines, second names of other pins."""
PROBE = """
#define ARDUINO_MAIN
#include <stdint.h>
#include <stdio.h>
#define __AVR_ATmega%s__
#include "pins_arduino.h"
int main(void) {
  for (int p = 0; p < NUM_DIGITAL_PINS; p++)
    printf("%%d %%d %%d %%d\\n", p, digitalPinHasPWM(p) ? 1 : 0, digitalPinToInterrupt(p) >= 0,
           p >= A0 && p < A0 + NUM_ANALOG_INPUTS);
}
"""


@pytest.mark.parametrize("kind", sorted(NAMES))
def test_board_tables_are_those_of_the_vendors_headers(kind: str, tmp_path: Path) -> None:
    header = VARIANTS / NAMES[kind] / "pins_arduino.h"
    text = header.read_text("utf-8")
    # The macros are compiled by the host; the register tables behind ARDUINO_MAIN name the chip and are cut off.
    (tmp_path / "pins_arduino.h").write_text(text.split("#ifdef ARDUINO_MAIN")[0] + "\n#endif\n")
    (tmp_path / "avr").mkdir()
    (tmp_path / "avr/pgmspace.h").write_text("#define PROGMEM\n")
    (tmp_path / "probe.c").write_text(PROBE % kind.upper().removeprefix("ATMEGA") + "\n#define NOT_AN_INTERRUPT -1\n")
    source = (
        (tmp_path / "probe.c")
        .read_text()
        .replace("#include <stdint.h>", "#define NOT_AN_INTERRUPT -1\n#include <stdint.h>")
    )
    (tmp_path / "probe.c").write_text(source)
    build = ["gcc", "-w", "-I", str(tmp_path), "-o", str(tmp_path / "probe"), str(tmp_path / "probe.c")]
    subprocess.run(build, check=True, capture_output=True, text=True)
    printed = subprocess.run([str(tmp_path / "probe")], check=True, capture_output=True, text=True).stdout
    vendor = {n: flags for n, *flags in (map(int, line.split()) for line in printed.splitlines())}
    # A pin may have a second name, by which it reads voltages: it is the same port.
    ports = _ports(text)
    reads = {ports[n] for n, (_, _, analogue) in vendor.items() if analogue}
    ours = {p.number: [int(p.pwm), int(p.interrupt), int(p.analogue)] for p in boards()[kind].pins}  # type: ignore[index]
    assert set(ours) == set(vendor) - USB[kind] - NOT_LED_OUT.get(kind, set())
    assert ours == {n: [*vendor[n][:2], int(ports[n] in reads)] for n in ours}


def _ports(text: str) -> dict[int, str]:
    """The chip's port and bit of each pin of a variant header."""
    tables = {name: text.split(f"{name}_PGM[] = {{")[1].split("};")[0] for name in ("to_port", "to_bit_mask")}
    letters = re.findall(r"^\s*P([A-L])\b", tables["to_port"], re.M)
    bits = re.findall(r"^\s*_BV\(\s*(\d)\s*\)", tables["to_bit_mask"], re.M)
    return {n: f"{letter}{bit}" for n, (letter, bit) in enumerate(zip(letters, bits, strict=True))}


@pytest.mark.parametrize("kind", sorted(NAMES))
def test_ports_and_buses_are_those_of_the_vendors_headers(kind: BoardKind) -> None:
    text = (VARIANTS / NAMES[kind] / "pins_arduino.h").read_text("latin-1")
    vendor, pins = _ports(text), boards()[kind].pins
    assert {p.number: p.port for p in pins} == {p.number: vendor[p.number] for p in pins}
    assert len(vendor) == len(pins) + len(USB[kind] | NOT_LED_OUT.get(kind, set()))
    named = dict(re.findall(r"#define PIN_(?:SPI|WIRE)_(\w+)\s+\((\d+)\)", text))
    buses = {p.bus: str(p.number) for p in pins if p.bus}
    assert buses == {name.lower(): number for name, number in named.items() if name != "SS"}
    # Every pin that may be given away is in just one group of ports.
    assert all(sum(p.port in g.ports for g in boards()[kind].groups) == 1 for p in pins)


def test_clearance_holes_are_iso_273_medium() -> None:
    # ISO 273:1979, medium series (figures as printed in common fastener tables).
    assert SCREW_HOLE == {"M2": 2.4, "M2.5": 2.9, "M3": 3.4, "M4": 4.5, "M5": 5.5, "M6": 6.6}


def test_e24_is_iec_60063_by_a_reference_library() -> None:
    assert tuple(eseries.series(eseries.E24)) == E24


@given(st.floats(min_value=0.5, max_value=9e6))
def test_the_next_value_up_is_the_librarys(ohms: float) -> None:
    assert next_e24(ohms) == pytest.approx(eseries.find_greater_than_or_equal(eseries.E24, ohms * (1 - 1e-9)))


def test_resistors_of_the_handbook() -> None:
    # R = (Vs - Vf)/I, worked examples of common practice.
    assert series_resistor(12, 2, 0.010) == 1000
    assert series_resistor(5, 2, 0.010) == 300  # 300 Ω exactly is an E24 value
    assert series_resistor(12, 4, 0.010) == 820
    assert series_resistor(3.3, 3.4, 0.010) is None


@pytest.mark.parametrize("cap", [5.0, 4.0, 3.0])
def test_cap_heights_are_those_of_the_outlines(cap: float) -> None:
    ys = [y for loop in lettering.loops(lettering.run("HEX", cap)) for _, y in flattened(loop)]
    assert max(ys) - min(ys) == pytest.approx(cap, abs=0.02)
    font = TTFont(Path(fonts.__file__).parent / fonts.FILES[lettering.FONT])
    pen = BoundsPen(font.getGlyphSet())
    font.getGlyphSet()["H"].draw(pen)
    assert pen.bounds[3] == font["OS/2"].sCapHeight


LETTERS = "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789&%@§ß½°+-/.,!?()"


@pytest.mark.parametrize("font", sorted(fonts.FILES))
@pytest.mark.parametrize("cap", [1.5, 4.0, 25.0])
def test_letters_cut_in_arcs_are_the_fonts_own_curves_and_those_on_the_screen(font: FontName, cap: float) -> None:
    glyphs, scale = fonts.glyph_set(font), cap / fonts.outlines(font).cap
    for letter in LETTERS:
        line = lettering.run(letter, cap, font)
        rings = [Polygon(flattened(loop, 0.0005)).exterior for loop in lettering.loops(line)]
        whole, way = AreaPen(glyphs), PerimeterPen(glyphs)
        fonts.outlines(font).draw(letter, TeePen(whole, way), (scale, 0, 0, scale, 0, 0))
        area = math.fsum(Polygon(ring).area * (1 if ring.is_ccw else -1) for ring in rings)
        assert area == pytest.approx(-whole.value, abs=way.value * TOLERANCE / 2), letter
        edges = MultiLineString([ring.coords for ring in rings])
        shown = [
            Point(*step.point(k / 8))
            for step in svgelements.Path(line.path)
            if not isinstance(step, svgelements.Move)
            for k in range(9)
        ]
        assert max(edges.distance(point) for point in shown) <= TOLERANCE + 0.002, letter


TRAM = read_design(demo_texts()["kestrel-line-9"], catalogue())
POCKET = plate(
    ("toggle-large-on-off", 60, 60),
    ("rotary-12", 120, 60),
    commands=(SetPocket(function="f1", depth=0.8), TurnItems(functions=("f2",), by=33)),
)


def circles(design: Design, layer: str) -> set[tuple[float, float, float]]:
    """Centre and diameter of every round cut of the first module, as the design has them."""
    r = Resolved(design)
    scene = module_scenes(r, next(iter(r.modules.values())))[layer]
    return {
        (round(i.path.x, 3), round(i.path.y, 3), round(i.path.diameter, 3))
        for i in scene.items
        if isinstance(i.path, CirclePath)
    }


@pytest.mark.parametrize("design", [TRAM, POCKET], ids=["tram", "pocket"])
@pytest.mark.parametrize("layer", ["face", "diffuser", "back"])
def test_dxf_and_svg_read_back_by_other_libraries_hold_the_designs_holes(design: Design, layer: str) -> None:
    files = made_files(Resolved(design), ())
    stem = f"cut/{design.modules[0].id}/{layer}"
    wanted = circles(design, layer)
    drawing = ezdxf.read(io.StringIO(files[f"{stem}.dxf"].decode()))  # type: ignore[attr-defined]
    assert (drawing.dxfversion, drawing.header["$INSUNITS"], drawing.audit().errors) == ("AC1024", 4, [])
    entities = list(drawing.modelspace())
    # Viewers scale by the extents that a drawing states: without them one put everything upon a single point.
    least, most = (drawing.header[name] for name in ("$EXTMIN", "$EXTMAX"))
    around = ezdxf.bbox.extents(entities)
    assert (least[0], least[1]) == pytest.approx((around.extmin.x, around.extmin.y), abs=0.01)
    assert (most[0], most[1]) == pytest.approx((around.extmax.x, around.extmax.y), abs=0.01)
    assert {e.dxf.layer.split("_")[0] for e in entities} <= {"ENGRAVE", "POCKET", "INNER", "OUTLINE"}
    read = {
        (round(e.dxf.center.x, 3), round(e.dxf.center.y, 3), round(2 * e.dxf.radius, 3))
        for e in entities
        if e.dxftype() == "CIRCLE"
    }
    assert read == wanted
    height = Resolved(design).modules[design.modules[0].id].size[1]
    picture = svgelements.SVG.parse(io.StringIO(files[f"{stem}.svg"].decode()), ppi=25.4)  # one unit a millimetre
    assert {g.id for g in picture.select(lambda e: isinstance(e, svgelements.Group)) if g.id} == {
        "engrave",
        "pocket",
        "inner",
        "outline",
    }
    drawn = {
        (float(s.cx), height - float(s.cy), 2 * float(s.rx))
        for s in picture.select(lambda e: isinstance(e, svgelements.Circle))
    }
    assert len(drawn) == len(wanted)
    assert all(min(math.dist(a, b) for b in wanted) < 0.01 for a in drawn)


def test_files_are_the_same_bytes_for_the_same_design() -> None:
    one, two = (made_files(Resolved(TRAM), review(Resolved(TRAM))) for _ in range(2))
    assert one == two


def test_a_sheet_seen_from_behind_twice_is_itself_and_pockets_are_named_with_their_depth() -> None:
    r = Resolved(POCKET)
    scene = module_scenes(r, r.modules["plate"])["back"]
    twice = scene.seen_from_behind().seen_from_behind()
    assert [i.label for i in twice.items] == [i.label for i in scene.items]
    assert made_files(r, ())["cut/plate/back-from-behind.dxf"].count(b"POCKET_0.80_BEHIND") >= 2


@pytest.mark.parametrize(("paper", "size"), [("a4", {210, 297}), ("letter", {216, 279})])
def test_the_template_is_1_to_1_with_a_scale_bar_on_every_page(paper: str, size: set[int]) -> None:
    r = Resolved(TRAM)
    scene = module_scenes(r, r.modules["left"])["face"]
    document = pypdfium2.PdfDocument(write_template(scene, paper, ("STOP words",)))  # type: ignore[arg-type]
    spread = tiling(scene.width, scene.height, paper)  # type: ignore[arg-type]
    assert len(document) == spread.rows * spread.columns == 2
    lap = 2 * (spread.window[0] if spread.columns > 1 else spread.window[1]) - 10
    assert lap >= max(scene.width if spread.columns > 1 else scene.height, 0)
    for page in document:
        assert {round(v / 72 * 25.4) for v in page.get_size()} == size
        text = page.get_textpage().get_text_bounded()
        assert "This bar must measure 100.0 mm" in text
    assert "STOP words" in document[0].get_textpage().get_text_bounded()
    scale = 3
    picture = document[0].render(scale=scale).to_pil().convert("L")
    row = [picture.getpixel((x, round(picture.height - 18 / 25.4 * 72 * scale))) for x in range(picture.width)]
    runs = [len(m) for m in re.findall("1+", "".join("1" if p < 128 else "0" for p in row))]
    assert max(runs) / scale / 72 * 25.4 == pytest.approx(BAR, abs=0.3)


def test_counters_are_holes_on_paper_and_crossing_strokes_stay_filled() -> None:
    # An O and a zero, 25 mm high, and two bars across each other, printed and read back as a picture.
    line = lettering.run("O0", 25.0)
    letters = [Item("engrave", moved(loop, 20, 20), "word") for loop in lettering.loops(line)]
    bars = [rounded_rectangle(60, 4, 0, 20, 80), rounded_rectangle(4, 60, 0, 48, 60)]
    crossed = [Item("engrave", bar, "frame") for bar in bars]
    scene = Scene(
        "counters", 150, 150, 2, (*letters, *crossed, Item("outline", rounded_rectangle(150, 150, 0), "plate"))
    )
    page = pypdfium2.PdfDocument(write_template(scene, "a4"))[0]
    shown = page.render(scale=4, grayscale=True).to_numpy()
    high, wide = shown.shape[:2]
    dots = shown.reshape(high, wide)
    to_dot = wide / 210.0

    def grey(x: float, y: float) -> int:
        return int(
            dots.reshape(high, wide)[round(high - (MARGIN + FOOT + 1 + y) * to_dot), round((MARGIN + 1 + x) * to_dot)]
        )

    x0, y0, x1, y1 = line.bounds
    middle = 20 + (y0 + y1) / 2
    assert grey(20 + x0 + 1.5, middle) < 200  # the O's left stem
    assert grey(20 + x0 + (x1 - x0) / 4, middle) > 240  # its counter
    assert grey(20 + x0 + 3 * (x1 - x0) / 4, middle) > 240  # the zero's
    assert grey(50, 82) < 200  # where the bars cross
    svg = write_svg(scene).decode()
    assert 'fill-rule="nonzero"' in svg
    turns = [Polygon(flattened(loop)).exterior.is_ccw for loop in lettering.loops(line)]
    assert sorted(turns) == [False, False, True, True]
