"""Strip boards as circuits: strips, cuts and bridges on a graph of holes join what the net list joins, and no more."""

from __future__ import annotations

import itertools
from typing import Any

import networkx as nx
import pytest

from building import plate
from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import BATCH
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.export import wire_files
from wingboard.core.wire.landing import BLOCK, Board, boards
from wingboard.core.wire.netlist import Port
from wingboard.core.wire.nets import net_list
from wingboard.core.wire.pins.solve import solve
from wingboard.core.wire.wires import names_of


def read(part: str, many: int, scheme: str) -> Resolved:
    """So many parts in a row that are read or driven together, a board with a pin for each of their lines."""
    start = plate(*((part, 12.0 + 14 * n, 60.0) for n in range(many)))
    raws: list[dict[str, Any]] = [
        {"do": "edit_function", "function": f"f{n}", "scheme": scheme} for n in range(1, many + 1)
    ]
    raws.append({"do": "add_controller", "id": "it", "board": "atmega328p"})
    design = apply(start, BATCH.validate_python(raws), catalogue())
    return Resolved(design.model_copy(update={"pins": solve(Resolved(design)).pins}))


def holes_of(board: Board) -> nx.Graph:
    """The holes, joined along the strips as far as no cut is between, and by bridges."""
    holes: nx.Graph = nx.Graph()
    cuts = set(board.cuts)
    for strip in range(1, board.strips + 1):
        row = [(strip, column) for column in range(1, board.columns + 1)]
        holes.add_nodes_from(spot for spot in row if spot not in cuts)
        holes.add_edges_from((a, b) for a, b in itertools.pairwise(row) if not {a, b} & cuts)
    holes.add_edges_from((link.start, link.end) for link in board.links if not link.mark)
    return holes


@pytest.mark.parametrize(
    ("part", "many", "scheme"),
    [
        ("button-16", 1, "shift"),
        ("button-16", 8, "shift"),
        ("button-16", 19, "shift"),
        ("led-5-bezel", 17, "shift"),
        ("button-16", 20, "expander"),
    ],
)
def test_a_strip_board_is_the_circuit_of_the_net_list(part: str, many: int, scheme: str) -> None:
    r = read(part, many, scheme)
    [board] = boards(r)
    nets, marks = net_list(r), names_of(r)
    holes = holes_of(board)
    pieces = {hole: n for n, piece in enumerate(nx.connected_components(holes)) for hole in piece}
    used = [hole for link in board.links for hole in (link.start, link.end)]
    used += [(landing.strip, landing.wire) for landing in board.landings if landing.wire]
    used += board.fed
    assert len(used) == len(set(used)) and set(used) <= set(pieces)  # one leg a hole, none in a cut
    chips = {marks[d.id]: d.id for d in nets.devices.values() if d.kind == "chip"}
    at: dict[Port, int] = {}
    for landing in board.landings:  # each pin has its own hole, on the piece of strip where its wires land
        half = sum(x.chip == landing.chip for x in board.landings) // 2
        n = list(chips).index(landing.chip)
        column = n * BLOCK + (4 if landing.pin.number <= half else 7)
        assert (landing.strip, column) not in used
        port = Port(chips[landing.chip], f"{landing.pin.number} {landing.pin.name}")
        at[port] = pieces[landing.strip, column]
        assert {pieces[landing.strip, c] for c in landing.columns} == {at[port]}
        assert (
            landing.strip
            == (landing.pin.number if landing.pin.number <= half else 2 * half + 1 - landing.pin.number) + 1
        )
    for one, other in itertools.combinations([p for p in at if p in nets.by_port], 2):
        assert (at[one] == at[other]) == (nets.by_port[one] == nets.by_port[other]), (one, other)
    rails = pieces[board.fed[0]], pieces[board.fed[1]]
    by_net = {nets.by_port[p].id: piece for p, piece in at.items() if p in nets.by_port}
    for d in nets.devices.values():
        if d.of == board.network.id and d.kind != "chip":
            (link,) = (x for x in board.links if x.mark == marks[d.id])
            ends = [by_net[nets.by_port[Port(d.id, end)].id] for end in d.ports]
            assert [pieces[link.start], pieces[link.end]] == ends
    assert {by_net[n.id] for n in nets.nets if n.kind == "supply" and n.id in by_net} == {rails[0]}
    assert by_net["ground"] == rails[1]
    leaves = {by_net[n.id] for n in nets.nets if n.id in by_net and n.kind == "signal"
              and any(nets.devices[p.device].of != board.network.id for p in n.ports)}  # fmt: skip
    assert sorted(pieces[x.strip, x.wire] for x in board.landings if x.wire) == sorted(leaves)


def test_plans_are_handed_out_where_there_are_chips() -> None:
    assert wire_files(read("button-16", 12, "shift"))["wire/strip-boards.pdf"].startswith(b"%PDF")
    assert "wire/strip-boards.pdf" not in wire_files(read("button-16", 2, "direct"))
