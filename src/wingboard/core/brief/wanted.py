"""What kind of control or light is wanted, recognised from words such as “lit push button”."""

from __future__ import annotations

import re
from functools import lru_cache

from wingboard.core.record.functions import Current, Duty, Function, Switched, Wanted
from wingboard.core.record.part import Family, Part

KINDS: tuple[tuple[Family, str], ...] = (
    ("emergency", r"emergency stops?|e-stops?|mushrooms?"),
    ("breaker", r"breakers?|fuses?|fuse holders?"),
    ("key", r"key switch(?:es)?|keys?"),
    ("thumbwheel", r"thumbwheels?"),
    ("joystick", r"joysticks?|sticks?"),
    ("encoder", r"encoders?"),
    ("rotary", r"rotary switch(?:es)?|rotary|rotaries|selectors?"),
    ("pot", r"pots?|potentiometers?|dimmers?|knobs?"),
    ("slider", r"sliders?|faders?"),
    ("rocker", r"rocker switch(?:es)?|rockers?"),
    ("toggle", r"toggle switch(?:es)?|toggles?|slide switch(?:es)?|switch(?:es)?"),
    ("button", r"push buttons?|push button switch(?:es)?|push-buttons?|buttons?|caps?"),
    ("caption", r"captions?|annunciators?"),
    (
        "readout",
        r"read-?outs?|seven-segments?|(?:(?:\d|two|three|four|six|eight)[\s-]?)?digits?[\s-](?:displays?|read-?outs?)",
    ),
    ("display", r"displays?|screens?"),
    ("gauge", r"gauges?|meters?|instruments?"),
    ("sounder", r"buzzers?|sounders?|beepers?"),
    ("speaker", r"loudspeakers?|speakers?"),
    ("vent", r"vents?|fans?"),
    ("connector", r"connectors?|sockets?|jacks?|glands?|plugs?"),
    ("placard", r"placards?"),
    ("blank", r"blanks?|hatch(?:es)?"),
    ("fixing", r"studs?|screws?"),
    ("lamp", r"lamps?|indicator (?:lamps?|lights?|leds?)|(?:warning|pilot|signal) lamps?|leds?|lights?|indicators?"),
)
"""Words for each family; a line's last such word says what is wanted."""
KIND = re.compile("|".join(f"(?P<{family}>\\b(?:{words})\\b)(?!\\s+tests?\\b)" for family, words in KINDS), re.I)
"""One kind in a text, as a group of its family's name; “lamp test” names none."""
_VOLTS = re.compile(r"(\d{1,3}(?:[.,]\d+)?)\s*V(ac|dc)?\b", re.I)
_AMPS = re.compile(r"(\d{1,3}(?:[.,]\d+)?)\s*(m?)A\b")
_WAYS = re.compile(r"(?<![\d.,])(\d{1,2}|two|three|four|five|six|eight|ten|twelve)[\s-]?(?:ways?|positions?)\b", re.I)
_NUMBERS = {"two": 2, "three": 3, "four": 4, "five": 5, "six": 6, "eight": 8, "ten": 10, "twelve": 12}
_INDICATES: frozenset[Family] = frozenset({"lamp", "caption", "readout", "display", "gauge", "sounder"})
_OPENS: frozenset[Family] = frozenset({"speaker", "vent", "connector", "placard", "blank", "fixing"})
_SWITCHED = re.compile(r"\b(?:lights|fans?)$", re.I)
_SOURCE = re.compile(r"\b(?:battery|generator|alternator|charger|shore power|mains|supply|inverter|solar)\b", re.I)


@lru_cache(maxsize=4096)
def family_in(words: str) -> Family | None:
    """The family the words ask for: the last kind named in them, or None."""
    found = list(KIND.finditer(words))
    return found[-1].lastgroup if found else None  # type: ignore[return-value]


def family_of(function: Wanted, name: str) -> Family | None:
    """The family wanted of a function: from what is wanted, else from its name; “Lights” and “Fan” are switched."""
    return family_in(function.want) or (None if _SWITCHED.search(name) else family_in(name))


def ways_wanted(function: Wanted) -> int:
    """How many positions a control must have: one for each word, else as many as its wish names; 0: not said."""
    named = _WAYS.search(function.want)
    said = (_NUMBERS.get(named[1].lower()) or int(named[1])) if named else 0
    return len(function.positions) or said


def duty_wanted(wish: Wanted, name: str) -> Duty:
    """What a wish is for, by what is said of it: two functions of one name are told apart by it."""
    return duty_of(Function(id="f", name=name or "?", **{n: getattr(wish, n) for n in Wanted.model_fields}))


def duty_of(function: Function, part: Part | None = None) -> Duty:
    """What a function is for: as said, else from its part's family, its words and its name."""
    if function.duty is not None:
        return function.duty
    family = part.family if part else family_of(function, function.name)
    if family == "breaker":
        return "protection"
    if family in _INDICATES:
        return "indicator"
    if family in _OPENS:
        return "opening"
    return "source" if family is None and _SOURCE.search(function.name) else "control"


def load_in(text: str) -> Switched:
    """Volts and amperes named in a text."""
    volts, amps = _VOLTS.search(text), _AMPS.search(text)
    figure = float(amps[1].replace(",", ".")) / (1000 if amps[2] else 1) if amps else 0.0
    named = (volts[2] if volts else "") or next(iter(re.findall(r"\b[AD]C\b", text)), "")
    current: Current = "AC" if named.upper() == "AC" else "DC" if named.upper() == "DC" else ""
    return Switched(volts=float(volts[1].replace(",", ".")) if volts else 0.0, amps=figure, current=current)
