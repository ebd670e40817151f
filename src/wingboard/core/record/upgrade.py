"""Bringing documents of older formats up to date, one step a format.

A step takes the JSON of its format and gives that of the next. It touches only what it knows, so that what is wrong
with a document is still found at its place when the result is validated.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Mapping
from typing import Any

from wingboard.core.record.errors import UnreadableDesign

FORMAT = 19
"""The format that is written today."""

Document = dict[str, Any]


def format_of(document: Any) -> int:
    """The format a document says it has; the first one did not have to say.

    :raises UnreadableDesign: it is no number, or newer than this program.
    """
    if not isinstance(document, Mapping):
        raise UnreadableDesign("A design is a JSON object")
    version = document.get("version", 1)
    if not isinstance(version, int) or isinstance(version, bool) or version < 1:
        raise UnreadableDesign(f"A design's version is a number from 1 to {FORMAT}", "version")
    if version > FORMAT:
        raise UnreadableDesign("This design was written by a newer Wing Board", "version")
    return version


def upgraded(document: Document) -> Document:
    """The document in today's format; the one given is left as it was.

    :raises UnreadableDesign: its format is unknown here.
    """
    for step in STEPS[format_of(document) - 1 :]:
        document = step(document)
    return document


BOARDS = {"uno": "atmega328p", "mega": "atmega2560"}
CHIP_NAMES = {"Uno": "ATmega328P", "Mega": "ATmega2560"}
CODES = {
    "brief.panel-too-large": "brief.module-too-large",
    "brief.panels-overlap": "brief.modules-overlap",
    "face.off-panel": "face.off-module",
    "face.words-at-seam": "face.legend-at-seam",
    "face.words-missing": "face.legend-missing",
    "face.words-off-detents": "face.legend-off-detents",
}
"""Checks that were renamed, for the findings that were accepted."""


def _to_2(document: Document) -> Document:
    """Panels became modules, signals lines, a function's weight its risk; controllers are named by their chips."""
    made = {"modules" if name == "panels" else name: value for name, value in document.items()}
    made["version"] = 2
    made["functions"] = _each(made.get("functions"), _function_to_2)
    made["modules"] = _each(made.get("modules"), lambda entry: entry)
    made["graphics"] = _each(made.get("graphics"), lambda entry: _renamed(entry, "panel", "module"))
    made["references"] = _each(made.get("references"), lambda entry: _renamed(entry, "panel", "module"))
    made["controllers"] = _each(made.get("controllers"), _controller_to_2)
    made["pins"] = _each(made.get("pins"), lambda entry: _renamed(entry, "signal", "line"))
    made["accepted"] = _each(made.get("accepted"), _acceptance_to_2)
    return made


def _each(entries: Any, change: Callable[[Document], Document]) -> Any:
    """Every object of a list changed; anything that is no list, or no object, as it is."""
    if entries is None:
        return []
    if not isinstance(entries, list):
        return entries
    return [change(entry) if isinstance(entry, dict) else entry for entry in entries]


def _renamed(entry: Document, old: str, new: str) -> Document:
    return {new if name == old else name: value for name, value in entry.items()}


def _function_to_2(function: Document) -> Document:
    made = _renamed(function, "weight", "risk")
    if isinstance(made.get("place"), dict):
        made["place"] = _renamed(made["place"], "panel", "module")
    return made


def _controller_to_2(controller: Document) -> Document:
    board, name = controller.get("board"), controller.get("name")
    made = dict(controller)
    if isinstance(board, str):
        made["board"] = BOARDS.get(board, board)
    if isinstance(name, str) and (default := re.fullmatch(r"(Uno|Mega)( \d+)", name)):
        made["name"] = CHIP_NAMES[default[1]] + default[2]
    return made


def _acceptance_to_2(acceptance: Document) -> Document:
    finding = acceptance.get("finding")
    if not isinstance(finding, str):
        return acceptance
    code, colon, subjects = finding.partition(":")
    return {**acceptance, "finding": CODES.get(code, code) + colon + subjects}


def _to_3(document: Document) -> Document:
    """Whether a load is AC was a tick; what was not ticked had not been said."""
    made = {**document, "version": 3}
    if "functions" in made:
        made["functions"] = _each(made["functions"], _function_to_3)
    return made


def _function_to_3(function: Document) -> Document:
    switches = function.get("switches")
    if not isinstance(switches, dict) or "ac" not in switches:
        return function
    kept = {name: value for name, value in switches.items() if name != "ac"}
    said = {True: "AC", False: ""}.get(switches["ac"], switches["ac"]) if isinstance(switches["ac"], bool) else ""
    return {**function, "switches": {**kept, "current": said}}


IMPORTED = "imported cut-out"
"""How the source of a hole said, up to format 3, that it was imported; that of a bezel said ``bezel``."""


def _to_4(document: Document) -> Document:
    """Lines of a bus are called so; an imported cut-out and a typed bezel have fields of their own."""
    made = {**document, "version": 4}
    if "parts" in made:
        made["parts"] = _each(made["parts"], _part_to_4)
    if "accepted" in made:
        made["accepted"] = _each(made["accepted"], _acceptance_to_4)
    return made


SPLIT = {"face.legend-small:face": "face.legend-small", "face.legend-small:lens": "face.lens-small"}
"""Findings that one check made of two kinds, and the checks that make them now."""


def _acceptance_to_4(acceptance: Document) -> Document:
    finding = acceptance.get("finding")
    return {**acceptance, "finding": SPLIT.get(finding, finding)} if isinstance(finding, str) else acceptance


BUS = {"SDA": "sda", "SCL": "scl", "SCK": "sck", "MOSI": "mosi", "MISO": "miso"}
"""Terminals of displays whose lines were any output up to format 3."""
COIL = 0.02
"""What a gauge's coil draws (A); up to format 3 it counted as nothing."""


def _line_to_4(line: Document) -> Document:
    if line.get("does") != "driver":
        return line
    if line.get("terminal") in BUS:
        return {**line, "does": BUS[line["terminal"]]}
    if line.get("id") in ("coil-1", "coil-2", "coil-3", "coil-4") and not line.get("current"):
        return {**line, "current": COIL, "returns": line["id"] in ("coil-2", "coil-4")}
    return line


def _part_to_4(part: Document) -> Document:
    made = dict(part)
    if "lines" in made:
        made["lines"] = _each(made["lines"], _line_to_4)
    sources = part.get("sources")
    if not isinstance(sources, dict):
        return made
    for field, name, note in (("hole", "imported", IMPORTED), ("cover", "bezel", "bezel")):
        source = sources.get(field)
        if part.get("base") and isinstance(source, dict) and source.get("note") == note and field in part:
            made[name] = part[field]
    return made


def _to_5(document: Document) -> Document:
    """Lamps have a colour of their own, position words a radius: nothing of the fourth format says either."""
    return {**document, "version": 5}


def _to_6(document: Document) -> Document:
    """Screws have a head, boards stand behind modules: nothing of the fifth format says either."""
    return {**document, "version": 6}


def _to_7(document: Document) -> Document:
    """Modules are lit from behind: nothing of the sixth format says so."""
    return {**document, "version": 7}


def _to_8(document: Document) -> Document:
    """Cases may be printed, films lie over screens, lamps are tried: nothing of the seventh format says so."""
    return {**document, "version": 8}


def _to_9(document: Document) -> Document:
    """Pins line sheets up, and the room before a layer is closed: nothing of the eighth format says so."""
    return {**document, "version": 9}


def _to_10(document: Document) -> Document:
    """Lamps may be made for a supply, or be bulbs, boxes be lit from the side: nothing of the ninth format says so."""
    return {**document, "version": 10}


def _to_11(document: Document) -> Document:
    """Machines have a pace, cutters a tip, sheets old holes, pieces a machine: nothing of the tenth format says so."""
    return {**document, "version": 11}


def _to_12(document: Document) -> Document:
    """Pieces are split, words are cut in film, old holes and patches known: nothing of the eleventh format says so."""
    return {**document, "version": 12}


def _to_13(document: Document) -> Document:
    """Parts say what lies between their terminals: those that the twelfth format copied take it from their base."""
    return {**document, "version": 13}


def _to_14(document: Document) -> Document:
    """Terminals are read in matrices, chains and by expanders: nothing of the thirteenth format asks for that."""
    return {**document, "version": 14}


def _to_15(document: Document) -> Document:
    """Wires have a loom, plugs and colours, supplies fuses: nothing of the fourteenth format says so."""
    return {**document, "version": 15}


def _to_16(document: Document) -> Document:
    """Loads are driven by their controls, no controller sees them or dims a light: as in the fifteenth format."""
    return {**document, "version": 16}


def _to_17(document: Document) -> Document:
    """Lamps are dark from power-up on and stay as they are when the link is lost: as in the sixteenth format."""
    return {**document, "version": 17}


def _to_18(document: Document) -> Document:
    """No contact lights lamps by its board's program, no single lamp is declared for itself, nor the light behind."""
    return {**document, "version": 18}


def _to_19(document: Document) -> Document:
    """Every load is behind each real emergency stop, and no part says which way its lever closes: as in format 18."""
    return {**document, "version": 19}


STEPS: tuple[Callable[[Document], Document], ...] = (
    _to_2, _to_3, _to_4, _to_5, _to_6, _to_7, _to_8, _to_9, _to_10, _to_11, _to_12, _to_13, _to_14,
    _to_15, _to_16, _to_17, _to_18, _to_19,
)  # fmt: skip
"""What leads from each format to the next, the oldest first."""
