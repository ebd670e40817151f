"""Strip boards: what each pin is joined to by strips, cuts and rails, on a graph of holes."""

from __future__ import annotations

import itertools
from typing import Any

import networkx as nx

from building import plate
from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import BATCH
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.export import wire_files
from wingboard.core.wire.landing import BLOCK, boards


def test_every_pin_has_a_strip_to_itself() -> None:
    start = plate(*(("button-16", 12.0 + 14 * n, 60.0) for n in range(12)))
    raws: list[dict[str, Any]] = [{"do": "edit_function", "function": f"f{n}", "scheme": "shift"} for n in range(1, 13)]
    r = Resolved(apply(start, BATCH.validate_python(raws), catalogue()))
    [board] = boards(r)
    cuts = set(board.cuts)
    holes: nx.Graph = nx.Graph()
    for strip in range(1, board.strips + 1):
        row = [(strip, column) for column in range(1, board.columns + 1)]
        holes.add_nodes_from(spot for spot in row if spot not in cuts)
        holes.add_edges_from((a, b) for a, b in itertools.pairwise(row) if not {a, b} & cuts)
    pieces = {hole: n for n, piece in enumerate(nx.connected_components(holes)) for hole in piece}
    landed = [{pieces[landing.strip, column] for column in landing.columns} for landing in board.landings]
    assert all(len(piece) == 1 for piece in landed)
    assert len({next(iter(piece)) for piece in landed}) == len(board.landings) == 2 * 16
    for landing in board.landings:  # the pin itself, beside its landings, hangs on the same piece
        n = int(landing.chip.removeprefix("U")) - 1
        column = n * BLOCK + (4 if landing.pin.number <= 8 else 7)
        assert pieces[landing.strip, column] == pieces[landing.strip, landing.columns[0]]
        assert landing.strip == (landing.pin.number if landing.pin.number <= 8 else 17 - landing.pin.number) + 1
    rails = {pieces[1, 1], pieces[board.strips, 1]}
    assert not rails & {next(iter(piece)) for piece in landed}
    assert wire_files(r)["wire/strip-boards.pdf"].startswith(b"%PDF")
    assert "wire/strip-boards.pdf" not in wire_files(Resolved(start))
