"""The wire of every line that ends on a pin: colour, thickness, length, its contact of a plug, whether it is done."""

from __future__ import annotations

from typing import NamedTuple

from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.harness.laid import Laid, laid, where
from wingboard.core.wire.harness.plugs import plug_of
from wingboard.core.wire.netlist import Port, board_id


class OfLine(NamedTuple):
    """The wire of a line, all its pieces together: length in mm, area in mm²; ``plug`` and ``contact`` are empty where
    it goes through none; ``lies``: where its terminal lies on its part; ``soldered``: every piece of it."""

    colour: str
    stripe: str
    area: float
    length: float
    said: bool
    plug: str
    plug_name: str
    contact: str
    lies: str
    soldered: bool


def wires_of_lines(r: Resolved) -> dict[str, OfLine]:
    """By line; those without a pin, or that hang on others, are left out."""
    return r.once("wires of lines", lambda: _of_lines(r))


def _of_lines(r: Resolved) -> dict[str, OfLine]:
    ends: dict[Port, list[Laid]] = {}
    for piece in laid(r):
        if piece.wire.how == "wire":
            for port in (piece.wire.start, piece.wire.end):
                ends.setdefault(port, []).append(piece)
    done = set(r.design.soldered)
    found = {}
    for choice in r.design.pins:
        pieces = _pieces(r, Port(board_id(choice.controller), choice.pin), ends)
        if pieces:
            of = _of_line(r, pieces, done)
            found[choice.line] = of._replace(soldered=of.soldered or choice.by == "found")
    return found


def _pieces(r: Resolved, pin: Port, ends: dict[Port, list[Laid]]) -> list[Laid]:
    """From a pin the pieces one after the other, through plugs, up to the first terminal."""
    found: list[Laid] = []
    at = pin
    while True:
        on = next((p for p in ends.get(at, ()) if p not in found), None)
        if on is None:
            return found
        found.append(on)
        at = on.wire.end if on.wire.start == at else on.wire.start
        if plug_of(r, at.device) is None:
            return found


def _of_line(r: Resolved, pieces: list[Laid], done: set[str]) -> OfLine:
    last = pieces[-1]
    plugged = ((plug, p) for piece in pieces for p in (piece.wire.start, piece.wire.end)
               if (plug := plug_of(r, p.device)))  # fmt: skip
    plug, port = next(plugged, (None, None))
    lies = next((words for p in (last.wire.start, last.wire.end) if (words := where(r, p))), "")
    return OfLine(
        last.colour, last.stripe or "", last.area, sum(p.length for p in pieces), all(p.said for p in pieces),
        plug.id if plug else "", plug.name if plug else "", port.terminal if port else "", lies,
        all(p.wire.id in done for p in pieces),
    )  # fmt: skip
