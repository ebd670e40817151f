"""From the wiring sheet of a panel with every scheme alone: what a program reads, with no look into the application."""

from __future__ import annotations

import csv
import io
from collections.abc import Iterator
from typing import Any

import networkx as nx
import numpy as np
import pytest

from building import plate
from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import BATCH
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.design import Design
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.export import wire_files
from wingboard.core.wire.pins.solve import solve

PARTS = (("button-16", "matrix", "Horn"), ("toggle-large-on-off-on", "matrix", "Wiper"), ("rotary-8", "matrix", "Fan"),
         ("button-22", "matrix", "Gong"), ("button-16", "shift", "Door"), ("toggle-large-on-off", "shift", "Pump"),
         ("rotary-8", "shift", "Range"), ("rotary-8", "binary", "Mode"), ("rotary-12", "ladder", "Route"),
         ("button-16", "expander", "Bell"), ("led-5-bezel", "expander", "Lamp"), ("led-5-bezel", "shift", "Flag"),
         ("button-16", "direct", "Key"))  # fmt: skip
"""Each part, how it is wired, and what it is called."""
BOARD = "Desk"


@pytest.fixture(scope="module", params=["straight", "plugged"])
def design(request: pytest.FixtureRequest) -> Design:
    start = plate(*((part, 9.0 + 14 * n, 60.0) for n, (part, _, _) in enumerate(PARTS)))
    commands: list[dict[str, Any]] = [
        {"do": "edit_function", "function": f"f{n}", "scheme": scheme, "name": name}
        for n, (_, scheme, name) in enumerate(PARTS, 1)
    ]
    commands.append({"do": "add_controller", "id": "it", "name": BOARD, "board": "atmega2560"})
    made = apply(start, BATCH.validate_python(commands), catalogue())
    pins = [p.model_dump() for p in solve(Resolved(made)).pins]
    plugs = {"do": "edit_loom", "module": "plate", "signals": "header", "power": "strip"}
    through = [plugs] if request.param == "plugged" else []
    return apply(made, BATCH.validate_python([{"do": "set_pins", "pins": pins}, *through]), catalogue())


Node = tuple[str, str]


class Sheet:
    """What is on the paper: joints by the names of things and their terminals, and the list of small parts."""

    def __init__(self, design: Design) -> None:
        files = wire_files(Resolved(design))
        rows = list(csv.DictReader(io.StringIO(files["wire/wiring-sheet.csv"].decode())))
        self.small = {row["mark"]: row for row in csv.DictReader(io.StringIO(files["wire/small-parts.csv"].decode()))}
        self.pins = list(csv.DictReader(io.StringIO(files["wire/pins.csv"].decode())))
        self.joints: nx.Graph = nx.Graph()
        for row in rows:
            self.joints.add_edge((row["from"], row["from_terminal"]), (row["to"], row["to_terminal"]))

    def closed(self, *contacts: tuple[Node, Node]) -> nx.DiGraph:
        """Where current goes: along joints and closed contacts both ways, through diodes from A to K."""
        graph = self.joints.to_directed()
        for mark, row in self.small.items():
            if row["kind"] == "diode":
                graph.add_edge((mark, "A"), (mark, "K"))
        for one, other in contacts:
            graph.add_edges_from([(one, other), (other, one)])
        return graph

    def together(self, one: Node, other: Node) -> bool:
        return one in self.joints and other in self.joints and nx.has_path(self.joints, one, other)

    def pin(self, function: str, terminal: str) -> Node:
        """The pin that the pin list names for a line, or the place on a chip."""
        row = next(r for r in self.pins if r["function"].endswith(function) and r["terminal"] == terminal)
        return row["board"], row["pin"]


def contacts(name: str) -> Iterator[tuple[str, tuple[Node, Node]]]:
    """The contacts of a thing by the words of the pin list, as its part says they lie."""
    part = catalogue()[next(part for part, _, other in PARTS if other == name)]
    for line in part.lines:
        if line.each_position:
            yield from ((f"{line.terminal} {n}", ((name, line.back), (name, str(n)))) for n in range(1, part.ways + 1))
        elif line.does == "switch":
            yield line.terminal, ((name, line.back), (name, line.terminal))


def test_each_contact_of_the_matrix_is_where_the_list_says_and_only_there(design: Design) -> None:
    sheet = Sheet(design)
    lines = [row for row in sheet.pins if row["function"].endswith(", matrix")]
    rows = {row["terminal"]: (row["board"], row["pin"]) for row in lines if row["terminal"].startswith("row")}
    columns = {row["terminal"]: (row["board"], row["pin"]) for row in lines if row["terminal"].startswith("column")}
    seen = set()
    for name in ("Horn", "Wiper", "Fan", "Gong"):
        for terminal, contact in contacts(name):
            graph = sheet.closed(contact)
            read = [f"{r}, {c}" for r, low in rows.items() for c, pulled in columns.items()
                    if nx.has_path(graph, pulled, low)]  # fmt: skip
            assert read == [sheet.pin(name, terminal)[1]], (name, terminal)
            seen.add(read[0])
    assert len(seen) == 12
    assert len(rows) + len(columns) == 10  # eight ways in one row: eight columns, and two rows


def test_each_input_of_a_chip_goes_low_by_its_own_contact(design: Design) -> None:
    sheet = Sheet(design)
    for name in ("Door", "Pump", "Range", "Bell"):
        for terminal, contact in contacts(name):
            here = sheet.pin(name, terminal)
            assert here[0] in sheet.small and sheet.small[here[0]]["kind"] == "chip"
            assert not nx.has_path(sheet.closed(), here, (BOARD, "GND"))
            assert nx.has_path(sheet.closed(contact), here, (BOARD, "GND")), (name, terminal)
            pulls = [m for m, row in sheet.small.items() if row["kind"] == "resistor" and row["ohms"] == "10000"
                     and sheet.together((m, "2"), here) and sheet.together((m, "1"), (BOARD, "5V"))]  # fmt: skip
            assert len(pulls) == (name != "Bell")  # the expander has pull-ups of its own


def test_the_chain_of_chips_is_closed_from_the_board_on(design: Design) -> None:
    sheet = Sheet(design)
    inputs = [m for m, row in sheet.small.items() if row["what"].startswith("74HC165")]
    assert len(inputs) == 2  # ten contacts
    data = next((r["board"], r["pin"]) for r in sheet.pins if r["terminal"] == "data" and "inputs" in r["function"])
    first = next(m for m in inputs if sheet.together(data, (m, "9 QH")))
    (last,) = (m for m in inputs if m != first)
    assert sheet.together((first, "10 SER"), (last, "9 QH"))
    for chip in inputs:
        assert sheet.together((chip, "16 VCC"), (BOARD, "5V")) and sheet.together((chip, "8 GND"), (BOARD, "GND"))
        capacitors = (mark for mark, row in sheet.small.items() if row["kind"] == "capacitor")
        near = [mark for mark in capacitors if sheet.together((mark, "1"), (chip, "16 VCC"))]
        assert near


def test_the_selector_in_binary_says_its_number_and_the_ladder_its_share(design: Design) -> None:
    sheet = Sheet(design)
    bits = [sheet.pin("Mode", f"bit {n}") for n in (1, 2, 3)]
    for n, (_, contact) in enumerate(contacts("Mode")):
        graph = sheet.closed(contact)
        assert sum(nx.has_path(graph, bit, (BOARD, "GND")) << k for k, bit in enumerate(bits)) == n
    # The ladder's circuit by nodes (Kirchhoff), from the resistors on the paper: way k of 12 is at (k - 1) / 11 of 5 V.
    steps = [m for m, row in sheet.small.items() if row["what"].startswith("between ways")]
    nodes = [f"{n}" for n in range(1, 13)]
    g, i = np.zeros((12, 12)), np.zeros(12)
    for mark in steps:
        ends = [next(k for k, way in enumerate(nodes) if sheet.together((mark, t), ("Route", way))) for t in "12"]
        for one, other in (ends, ends[::-1]):
            g[one, one] += 1 / float(sheet.small[mark]["ohms"])
            g[one, other] -= 1 / float(sheet.small[mark]["ohms"])
    for k, volts in ((0, 0.0), (11, 5.0)):
        assert sheet.together(("Route", nodes[k]), (BOARD, "5V" if volts else "GND"))
        g[k], i[k] = 0.0, volts
        g[k, k] = 1.0
    assert np.linalg.solve(g, i) == pytest.approx([5 * k / 11 for k in range(12)])
    assert sheet.together(("Route", "C"), sheet.pin("Route", "ladder tap"))


def test_lamps_on_chips_are_lit_through_their_resistors(design: Design) -> None:
    sheet = Sheet(design)
    for name in ("Lamp", "Flag"):
        chip = sheet.pin(name, "anode")
        (resistor,) = (m for m, row in sheet.small.items() if row["what"] == f"in series with {name}")
        assert sheet.together(chip, (resistor, "1")) and sheet.together((resistor, "2"), (name, "anode"))
        assert sheet.together((name, "cathode"), (BOARD, "GND"))
        assert sheet.small[resistor]["ohms"] == "300"
