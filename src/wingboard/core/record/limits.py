"""Every default limit of the checks, once, with its unit and source. A design may override each, with a reason."""

from __future__ import annotations

from typing import NamedTuple

from wingboard.core.record.base import Source

SPACING = Source(kind="memory", note="MIL-STD-1472, one finger, at random")
SPACING_EYE = Source(kind="memory", note="MIL-STD-1472, legibility by distance")
PRACTICE = Source(kind="practice")
SAFE = Source(kind="memory", note="IEC 60364-4-41, touch voltage")


class Limit(NamedTuple):
    """A figure a check compares with."""

    value: float
    unit: str
    says: str
    source: Source


EXTRA_LOW = Source(kind="memory", note="IEC 60364-4-41, extra-low voltage without protection against touch")
AVR = Source(kind="memory", note="ATmega328P and ATmega2560 data sheets, absolute maxima")

LIMITS: dict[str, Limit] = {
    "toggle-spacing": Limit(19.0, "mm", "between two toggle levers or guards, edge to edge", SPACING),
    "button-spacing": Limit(13.0, "mm", "between two button caps, edge to edge", SPACING),
    "knob-spacing": Limit(25.0, "mm", "between two knobs, edge to edge, one hand", SPACING),
    "emergency-factor": Limit(
        2.0,
        "times",
        "the usual distance, round an emergency control",
        Source(kind="practice", note="stands apart"),
    ),
    "bridge-least": Limit(2.0, "mm", "between two openings, or an opening and the edge, in any sheet", PRACTICE),
    "bridge-acrylic": Limit(1.0, "× thickness", "bridge in acrylic, plywood and plastics", PRACTICE),
    "bridge-fibre": Limit(1.5, "× thickness", "bridge in hardboard and MDF", PRACTICE),
    "bridge-metal": Limit(1.0, "mm", "bridge in aluminium and steel", PRACTICE),
    "body-clearance": Limit(1.0, "mm", "between two bodies behind the panel", PRACTICE),
    "legend-clearance": Limit(0.8, "mm", "between words and what covers the face", PRACTICE),
    "cover-clearance": Limit(0.5, "mm", "between caps, knobs, bezels and guards", PRACTICE),
    "seam-clearance": Limit(2.0, "mm", "from words to the next module", PRACTICE),
    "reach-primary": Limit(0.8, "× reach", "zone a hand finds without leaning", PRACTICE),
    "reach-lean": Limit(
        150.0,
        "mm",
        "how far the shoulder comes forward from the seat",
        Source(kind="memory", note="extended less plain functional reach, body dimensions of adults"),
    ),
    "legend-angle": Limit(16.0, "′", "minutes of arc a capital subtends at the eye, at least", SPACING_EYE),
    "trace-deviation": Limit(0.5, "mm", "from a hole to its trace on a picture", PRACTICE),
    "pocket-floor": Limit(1.0, "mm", "left under a pocket, and never under a third of the sheet", PRACTICE),
    "breaker-factor": Limit(1.25, "times", "a fuse or breaker over its load, at least", PRACTICE),
    "touch-ac": Limit(50.0, "V AC", "from it on a licensed electrician wires", SAFE),
    "touch-dc": Limit(120.0, "V DC", "from it on a licensed electrician wires", SAFE),
    "public-ac": Limit(25.0, "V AC", "that visitors may touch bare, at most", EXTRA_LOW),
    "public-dc": Limit(60.0, "V DC", "that visitors may touch bare, at most", EXTRA_LOW),
    "corner-radius": Limit(2.0, "mm", "of the corners of a plate that visitors touch", PRACTICE),
    "hot-surface": Limit(
        85.0, "°C", "that a panel reaches where it gets hot", Source(kind="practice", note="a dashboard in the sun")
    ),
    "mains-apart": Limit(
        8.0,
        "mm",
        "from what carries mains to what carries low voltage, on one plate",
        Source(kind="memory", note="IEC 60664-1, creepage of reinforced insulation at 250 V, rounded up"),
    ),
    "fixings-least": Limit(3.0, "screws", "in each piece that comes apart by itself", PRACTICE),
    "press-force": Limit(20.0, "N", "of a finger that presses a button hard", PRACTICE),
    "hit-force": Limit(50.0, "N", "of a hand that hits a stop", PRACTICE),
    "bend-most": Limit(0.5, "mm", "that a plate gives under such a press", PRACTICE),
    "board-clearance": Limit(3.0, "mm", "from a board behind to bodies, bars and other boards", PRACTICE),
    "light-even": Limit(0.6, "least / mean", "of the light over a legend's letters", PRACTICE),
    "light-patches": Limit(0.4, "least / mean", "below which patches of a legend cannot be read", PRACTICE),
    "light-usual": Limit(0.4, "of the usual", "that a legend has of the light that the others have", PRACTICE),
    "led-pitch": Limit(1.0, "× distance", "from LED to LED of a strip, of its distance to the diffuser", PRACTICE),
    "chain-run": Limit(50.0, "LEDs", "of addressable ones in a row between two places where power is fed in", PRACTICE),
    "usb-supply": Limit(
        0.5, "A", "that a USB port gives", Source(kind="published", note="USB 2.0 specification, one high-power port")
    ),
    "box-depth": Limit(0.5, "× width", "of a light box behind a caption with a single LED", PRACTICE),
    "lamp-headroom": Limit(0.2, "of the supply", "left over a lamp for its resistor", PRACTICE),
    "resistor-watts": Limit(
        0.25, "W", "of the usual resistor", Source(kind="practice", note="rated at twice what it turns into heat")
    ),
    "lamp-supply": Limit(
        1.1, "of its own", "supply of a lamp that is made for one", Source(kind="practice", note="a tenth more")
    ),
    "bulb-watts": Limit(0.5, "W", "that a bulb takes behind a plate", PRACTICE),
    "box-patches": Limit(0.4, "least / mean", "of the light over a caption's lens", PRACTICE),
    "film-passes": Limit(
        0.5,
        "of the light",
        "that gets through a film over a screen",
        Source(kind="practice", note="half"),
    ),
    "veil-most": Limit(0.1, "of a legend", "veiling luminance of all lamps together", PRACTICE),
    "opening-spread": Limit(1.0, "mm", "between widths or heights measured at three places", PRACTICE),
    "gap-hand": Limit(0.3, "mm", "fit gap a side of a plate sawn and sanded", PRACTICE),
    "gap-machine": Limit(0.2, "mm", "fit gap a side of a plate cut by laser, mill or printer", PRACTICE),
    "reading-spread": Limit(0.10, "mm", "between three calliper readings of one dimension", PRACTICE),
    "sheet-difference": Limit(0.25, "mm", "between a reading and the data sheet", PRACTICE),
    "pin-reserve": Limit(10.0, "%", "of all pins kept free", PRACTICE),
    "chip-current": Limit(0.15, "A", "through all pins of one AVR chip, to plan with", PRACTICE),
    "chip-current-most": Limit(0.2, "A", "through all pins of one AVR chip, ever", AVR),
    "pin-current": Limit(0.02, "A", "through one pin, to plan with", PRACTICE),
    "pin-current-most": Limit(0.04, "A", "through one pin, ever", AVR),
    "ladder-source": Limit(
        10_000.0, "Ω", "that an analogue pin sees", Source(kind="memory", note="ATmega328P data sheet: converter")
    ),
    "resistor-tolerance": Limit(5.0, "%", "of the resistors on hand", Source(kind="practice", note="carbon film, E24")),
    "mains-area": Limit(
        0.75,
        "mm²",
        "of flexible wiring at a dangerous voltage, at least",
        Source(kind="memory", note="IEC 60204-1, inside an enclosure"),
    ),
    "drop-most": Limit(3.0, "% of the volts", "lost on the wires from a supply to a part and back", PRACTICE),
    "drive-current": Limit(
        0.005, "A", "that a pin gives a transistor", Source(kind="practice", note="1 kΩ to its base from 5 V")
    ),
}
