"""Landing plans: the strip board of each network with chips, seen from the side of its parts. Holes 2.54 mm apart.

Strips run across; each chip stands over a row of cuts, so that each of its pins has a piece of strip to itself, with
three holes to land wires in; between two chips every strip is cut again. The first strip carries the supply over the
whole board, the last one the ground. What the net list joins on the board is bridged from hole to hole.
"""

from __future__ import annotations

from collections.abc import Iterator
from itertools import pairwise
from typing import NamedTuple

from wingboard.core.files.diagram import FAINT, Box, Diagram, Dot, Line, Shape, Words, pdf, shortened
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.netlist import Device, Net, Port
from wingboard.core.wire.nets import net_list
from wingboard.core.wire.schemes.drawn import ChipPin, DrawnChip, DrawnNetwork, drawn_networks
from wingboard.core.wire.wires import names_of

PITCH = 2.54
HOLES, WIDTH = 3, 3
"""Landing holes at each pin, and pitches between the two rows of pins of a chip (0.3 inch, common practice)."""
BLOCK = 2 * HOLES + WIDTH + 2
"""Columns of a chip with its landings and the cut beside it."""
SCALE = 2.2
"""The drawing is so many times as large."""


Hole = tuple[int, int]
"""A strip, from 1 at the supply, and a column, from 1 at the left."""


class Landing(NamedTuple):
    """Where the wires of a chip's pin land: its strip and its holes' columns; ``wire``: the column that the wire from
    elsewhere takes, 0 where none comes."""

    chip: str
    pin: ChipPin
    strip: int
    columns: tuple[int, ...]
    wire: int = 0


class Link(NamedTuple):
    """What lies between two holes: a bridge of wire (``mark`` empty), or a resistor or capacitor by its mark."""

    mark: str
    start: Hole
    end: Hole


class Board(NamedTuple):
    """A strip board: how many strips and columns, the landings, the cuts, what is soldered between holes, and the holes
    in which supply and ground come from elsewhere."""

    network: DrawnNetwork
    strips: int
    columns: int
    landings: tuple[Landing, ...]
    cuts: tuple[Hole, ...]
    links: tuple[Link, ...]
    fed: tuple[Hole, Hole]


def boards(r: Resolved) -> tuple[Board, ...]:
    """The strip board of every network that has chips."""
    return tuple(_Board(r, network).made() for network in drawn_networks(r) if network.chips)


class _Board:
    """One strip board in the making."""

    def __init__(self, r: Resolved, network: DrawnNetwork) -> None:
        self.network, self.nets, self.marks = network, net_list(r), names_of(r)
        self.half = max(len(chip.pins) for chip in network.chips) // 2
        self.columns = len(network.chips) * BLOCK + 1  # the rails of a chip with one input alone take eleven
        self.here = {d.id: d for d in self.nets.devices.values() if d.of == network.id}
        self.chips = {self.marks[ident]: ident for ident, d in self.here.items() if d.kind == "chip"}
        self.landings = [x for n, chip in enumerate(network.chips) for x in _landings(chip, n * BLOCK + 1)]
        self.free: dict[Port, list[Hole]] = {}
        """The holes of each chip's pin that nothing is in yet."""
        self.at: dict[Port, int] = {}
        """The chip of each pin, from 0."""
        for n, chip in enumerate(network.chips):
            for landing in (x for x in self.landings if x.chip == chip.mark):
                port = Port(self.chips[chip.mark], f"{landing.pin.number} {landing.pin.name}")
                self.free[port] = [(landing.strip, column) for column in landing.columns]
                self.at[port] = n
        self.rails: dict[tuple[str, int], list[Hole]] = {}
        for name, strip in (("supply", 1), ("ground", self.half + 2)):
            for n in range(len(network.chips)):
                last = self.columns if n + 1 == len(network.chips) else (n + 1) * BLOCK
                self.rails[name, n] = [(strip, column) for column in range(n * BLOCK + 1, last + 1)]
        self.links: list[Link] = []

    def made(self) -> Board:
        """With all its bridges."""
        fed = self.rails["supply", 0].pop(0), self.rails["ground", 0].pop(0)
        wires: dict[Port, int] = {}
        for net in self.nets.nets:
            pins = [port for port in net.ports if port in self.free]
            if not pins:
                continue
            rail = self._rail(net)
            if rail:
                for port in pins:
                    start = self._hole(port)
                    self.links.append(Link("", start, self._on_rail(rail, self.at[port], start[1])))
                continue
            if any(port.device not in self.here for port in net.ports):
                wires[pins[0]] = self._hole(pins[0])[1]
            self.links += (Link("", self._hole(one), self._hole(other)) for one, other in pairwise(pins))
        for device in self.here.values():
            if device.kind != "chip":
                self.links.append(Link(self.marks[device.id], *self._ends(device)))
        by_port = {(x.chip, x.pin.number): x for x in self.landings}
        for port, column in wires.items():
            key = self.marks[port.device], int(port.terminal.split()[0])
            by_port[key] = by_port[key]._replace(wire=column)
        return Board(self.network, self.half + 2, self.columns, tuple(by_port.values()), tuple(self._cuts()),
                     tuple(self.links), fed)  # fmt: skip

    def _rail(self, net: Net) -> str:
        """The rail that a net is: the one that its chips are fed by, or ground; else none."""
        return {"supply": "supply", "ground": "ground"}.get(net.kind, "")

    def _hole(self, port: Port) -> Hole:
        return self.free[port].pop(0)

    def _on_rail(self, rail: str, chip: int, column: int) -> Hole:
        """The free hole of a rail that is nearest to a column, above or below its chip where there is one."""
        near = sorted((n for name, n in self.rails if name == rail), key=lambda n: abs(n - chip))
        free = next(self.rails[rail, n] for n in near if self.rails[rail, n])
        hole = min(free, key=lambda hole: abs(hole[1] - column))
        free.remove(hole)
        return hole

    def _ends(self, device: Device) -> tuple[Hole, Hole]:
        """The holes of a small part: at pins of the board's chips, one end on a rail where its net is one. A capacitor
        stands beside the chip that its name is made of."""
        own = device.id.removesuffix("-c") if device.kind == "capacitor" else ""
        on = [self.nets.by_port[Port(device.id, end)] for end in device.ports]
        pins = [[p for p in net.ports if p in self.free and (not own or p.device == own)] for net in on]
        if own:
            one, other = (next(p for p in some if self.free[p]) for some in pins)
            return self._hole(one), self._hole(other)
        first = next(p for net, some in zip(on, pins, strict=True) for p in some if not self._rail(net))
        column = self.free[first][0][1]
        ends = [self._on_rail(rail, self.at[first], column) if (rail := self._rail(net)) else self._hole(some[0])
                for net, some in zip(on, pins, strict=True)]  # fmt: skip
        return ends[0], ends[1]

    def _cuts(self) -> Iterator[Hole]:
        for n, chip in enumerate(self.network.chips):
            middle, beside = n * BLOCK + HOLES + 2, (n + 1) * BLOCK
            yield from ((strip, middle) for strip in range(2, len(chip.pins) // 2 + 2))
            if n + 1 < len(self.network.chips):
                yield from ((strip, beside) for strip in range(2, self.half + 2))


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
    bridges = [link for link in board.links if not link.mark]
    said = f"{board.strips} strips of {board.columns} holes, {len(board.cuts)} cuts (x), {len(bridges)} bridges (blue)"
    shapes: list[Shape] = [
        Words(0, 6, f"{board.network.name}: strip board", 4.2, bold=True),
        Words(
            0,
            11,
            f"{said}, from the side of its parts, {SCALE:g} times as large; a wire from elsewhere in each large hole",
            2.6,
            colour=FAINT,
        ),
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
        for column in landing.columns:
            x, y = at(landing.strip, column)
            comes = column == landing.wire
            shapes.append(Dot(x, y, 0.9 if comes else 0.5, "#0E6E78" if comes else "#FFFFFF", "#5B666D", 0.2))
    for strip, column in board.fed:
        shapes.append(Dot(*at(strip, column), 0.9, "#0E6E78", "#5B666D", 0.2))
    for link in board.links:
        one, other = at(*link.start), at(*link.end)
        shapes.append(Line((one, other), 0.35 if link.mark else 0.5, "#8A5A12" if link.mark else "#2F62A8"))
        shapes += (Dot(*end, 0.55, "#1E262B", "#1E262B", 0.1) for end in (one, other))
        if link.mark:
            x, y = (one[0] + other[0]) / 2, (one[1] + other[1]) / 2
            shapes.append(Box(x - 2.2, y - 1.2, 4.4, 2.4, "#F3EBD8", "#8A5A12", 0.25, 0.6))
            shapes.append(Words(x, y + 0.7, link.mark, 1.9, "middle"))
    shapes.append(Words(left + wide + 2, at(1, 1)[1] + 0.9, "supply", 2.2, bold=True))
    shapes.append(Words(left + wide + 2, at(board.strips, 1)[1] + 0.9, "ground", 2.2, bold=True))
    listed, end = _listed(board, top + high + 7)
    shapes += listed
    return Diagram(f"{r.design.name}: {board.network.name}", max(276.0, wide + 20), end, tuple(shapes))


def _listed(board: Board, y: float) -> tuple[list[Shape], float]:
    """Below the drawing, from ``y`` on: what lands where, what is soldered between holes; and where that ends."""
    shapes: list[Shape] = []
    for n, landing in enumerate(board.landings):
        column, row = divmod(n, -(-len(board.landings) // 3))
        holes = f"wire in hole {landing.wire}" if landing.wire else f"holes {landing.columns[0]}-{landing.columns[-1]}"
        said = f"{landing.chip} {landing.pin.number} {landing.pin.name}: strip {landing.strip}, {holes}"
        x = column * 92.0
        shapes.append(Words(x, y + row * 3.6, said, 2.2, bold=bool(landing.pin.to)))
        shapes.append(Words(x + 46, y + row * 3.6, shortened(landing.pin.to or "nothing", 2.2, 44), 2.2, colour=FAINT))
    y += -(-len(board.landings) // 3) * 3.6 + 4
    shapes.append(Words(0, y, "Soldered between holes (strip, hole), top to bottom", 2.6, bold=True))
    wires = sorted(board.links, key=lambda link: (bool(link.mark), link.start, link.end))
    rows = -(-len(wires) // 5)
    for n, link in enumerate(wires):
        column, row = divmod(n, rows)
        what = link.mark or "bridge"
        said = f"{what} {link.start[0]}, {link.start[1]} to {link.end[0]}, {link.end[1]}"
        shapes.append(Words(column * 55.0, y + (row + 1) * 3.6, said, 2.2))
    return shapes, y + (rows + 1) * 3.6 + 4


def landing_pdf(r: Resolved) -> bytes:
    """The plans as PDF; a page that says so where no network has chips."""
    drawn = landing_diagrams(r)
    none = Diagram(
        "No strip boards", 180.0, 20.0, (Words(0, 8, "No network here has chips: no strip board is wanted."),)
    )
    return pdf(f"{r.design.name}: strip boards", drawn or (none,))
