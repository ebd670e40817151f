"""Landing plans: the strip board of each network with chips, seen from the side of its parts. Holes 2.54 mm apart.

Strips run across; each chip stands over a row of cuts, so that each of its pins has a piece of strip to itself, with
three holes to land wires in; between two chips every strip is cut again. The first strip carries the supply over the
whole board, the last one the ground.
"""

from __future__ import annotations

from collections.abc import Iterator
from typing import NamedTuple

from wingboard.core.files.diagram import FAINT, Box, Diagram, Dot, Line, Shape, Words, pdf, shortened
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.schemes.drawn import ChipPin, DrawnChip, DrawnNetwork, drawn_networks

PITCH = 2.54
HOLES, WIDTH = 3, 3
"""Landing holes at each pin, and pitches between the two rows of pins of a chip (0.3 inch, common practice)."""
BLOCK = 2 * HOLES + WIDTH + 2
"""Columns of a chip with its landings and the cut beside it."""
SCALE = 2.2
"""The drawing is so many times as large."""


class Landing(NamedTuple):
    """Where the wires of a chip's pin land: its strip, from 1 at the supply, and its holes' columns from 1."""

    chip: str
    pin: ChipPin
    strip: int
    columns: tuple[int, ...]


class Board(NamedTuple):
    """A strip board: how many strips and columns, the landings, and the cuts as strip and column."""

    network: DrawnNetwork
    strips: int
    columns: int
    landings: tuple[Landing, ...]
    cuts: tuple[tuple[int, int], ...]


def boards(r: Resolved) -> tuple[Board, ...]:
    """The strip board of every network that has chips."""
    return tuple(_board(network) for network in drawn_networks(r) if network.chips)


def _board(network: DrawnNetwork) -> Board:
    half = max(len(chip.pins) for chip in network.chips) // 2
    landings: list[Landing] = []
    cuts: list[tuple[int, int]] = []
    for n, chip in enumerate(network.chips):
        first = n * BLOCK + 1
        landings += _landings(chip, first)
        middle, beside = first + HOLES + 1, first + BLOCK - 1
        cuts += [(strip, middle) for strip in range(2, len(chip.pins) // 2 + 2)]
        if n + 1 < len(network.chips):
            cuts += [(strip, beside) for strip in range(2, half + 2)]
    return Board(network, half + 2, len(network.chips) * BLOCK - 1, tuple(landings), tuple(cuts))


def _landings(chip: DrawnChip, first: int) -> Iterator[Landing]:
    """Pins from 1 down the left side and up the right one, as they are numbered from the notch."""
    half = len(chip.pins) // 2
    right = first + HOLES + WIDTH
    for pin in chip.pins:
        if pin.number <= half:
            yield Landing(chip.mark, pin, pin.number + 1, tuple(range(first, first + HOLES)))
        else:
            strip = 2 * half - pin.number + 2
            yield Landing(chip.mark, pin, strip, tuple(range(right + 1, right + 1 + HOLES)))


def landing_diagrams(r: Resolved) -> tuple[Diagram, ...]:
    """A page a board."""
    return tuple(_page(r, board) for board in boards(r))


def _page(r: Resolved, board: Board) -> Diagram:
    step, left, top = PITCH * SCALE, 4.0, 20.0
    wide, high = board.columns * step, board.strips * step
    said = f"{board.strips} strips of {board.columns} holes, {len(board.cuts)} cuts (x); from the side of its parts"
    shapes: list[Shape] = [
        Words(0, 6, f"{board.network.name}: strip board", 4.2, bold=True),
        Words(0, 11, f"{said}, {SCALE:g} times as large; 100 nF beside each chip", 2.6, colour=FAINT),
        Box(left - 1, top - 1, wide + 2, high + 2, "#F3EBD8", "#A7A294"),
    ]

    def at(strip: int, column: int) -> tuple[float, float]:
        return left + (column - 0.5) * step, top + (strip - 0.5) * step

    for strip in range(1, board.strips + 1):
        y = at(strip, 1)[1]
        rail = strip in (1, board.strips)
        shapes.append(Line(((left, y), (left + wide, y)), 0.62 * step, "#D9B98A" if not rail else "#E2A27C"))
    for strip, column in board.cuts:
        x, y = at(strip, column)
        shapes.append(Dot(x, y, 0.36 * step, "#F3EBD8", "#8A3A2A", 0.3))
        shapes.append(Words(x, y + 0.9, "x", 2.4, "middle", colour="#8A3A2A"))
    for n, chip in enumerate(board.network.chips):
        x, y = at(2, n * BLOCK + 1 + HOLES)
        across, down = WIDTH * step, (len(chip.pins) // 2 - 1) * step
        shapes.append(
            Box(x - 0.2 * step, y - 0.4 * step, across + 0.4 * step, down + 0.8 * step, "", "#1E262B", 0.4, 0.6)
        )
        shapes.append(Words(x + across / 2, y + 0.45 * step, f"{chip.mark} {chip.name}", 2.2, "middle", bold=True))
    for landing in board.landings:
        spots = [at(landing.strip, column) for column in landing.columns]
        shapes += (Dot(x, y, 0.5, "#FFFFFF", "#5B666D", 0.2) for x, y in spots)
    shapes.append(Words(left + 1, at(1, 1)[1] + 0.9, "supply", 2.2, bold=True))
    shapes.append(Words(left + 1, at(board.strips, 1)[1] + 0.9, "ground", 2.2, bold=True))
    y = top + high + 7
    for n, landing in enumerate(board.landings):
        column, row = divmod(n, -(-len(board.landings) // 3))
        holes = f"{landing.columns[0]}-{landing.columns[-1]}"
        said = f"{landing.chip} {landing.pin.number} {landing.pin.name}: strip {landing.strip}, holes {holes}"
        x = column * 92.0
        shapes.append(Words(x, y + row * 3.6, said, 2.2, bold=bool(landing.pin.to)))
        shapes.append(Words(x + 46, y + row * 3.6, shortened(landing.pin.to or "nothing", 2.2, 44), 2.2, colour=FAINT))
    rows = -(-len(board.landings) // 3)
    return Diagram(f"{r.design.name}: {board.network.name}", max(276.0, wide + 8), y + rows * 3.6 + 4, tuple(shapes))


def landing_pdf(r: Resolved) -> bytes:
    """The plans as PDF; a page that says so where no network has chips."""
    drawn = landing_diagrams(r)
    none = Diagram(
        "No strip boards", 180.0, 20.0, (Words(0, 8, "No network here has chips: no strip board is wanted."),)
    )
    return pdf(f"{r.design.name}: strip boards", drawn or (none,))
