"""Looms, plugs, colours, wire on hand: by hand on small plates, by graphs on the tram desk, against published codes."""

from __future__ import annotations

import csv
import io
from typing import Any

import networkx as nx
import pypdfium2
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from building import found, plate, settled
from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import BATCH
from wingboard.core.overview.shopping import shopping_list
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.parts.tags import lies, tags
from wingboard.core.record.design import Design
from wingboard.core.record.document import read_design
from wingboard.core.record.errors import NotPossible
from wingboard.core.record.harness import WireOnHand
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.export import wire_files
from wingboard.core.wire.groups import every_wire
from wingboard.core.wire.harness.bundles import looms
from wingboard.core.wire.harness.colours import CODES, FIGURES, pair_colours
from wingboard.core.wire.harness.gauge import bundle
from wingboard.core.wire.harness.laid import laid, on_hand
from wingboard.core.wire.harness.places import places
from wingboard.core.wire.harness.plugs import KINDS, plugs, rows_of
from wingboard.core.wire.harness.stock import Wanted, assigned
from wingboard.core.wire.harness.totals import totals
from wingboard.core.wire.netlist import Port
from wingboard.core.wire.nets import net_list
from wingboard.core.wire.pins.solve import solve
from wingboard.core.wire.wires import runs
from wingboard.demo import demo_texts

Raw = dict[str, Any]
TWO = {"signals": "dsub", "power": "strip"}


def made(design: Design, *commands: Raw) -> Design:
    return apply(design, BATCH.validate_python(commands), catalogue())


def tram() -> Design:
    return read_design(demo_texts()["kestrel-line-9"], catalogue())


def wired(*parts: tuple[str, float, float], board: str = "atmega2560", **loom: Any) -> Design:
    """Parts with pins on one board, the module with these plugs."""
    design = made(plate(*parts), {"do": "add_controller", "id": "it", "name": "Desk", "board": board})
    design = made(design, {"do": "set_pins", "pins": [p.model_dump() for p in solve(Resolved(design)).pins]})
    return made(design, {"do": "edit_loom", "module": "plate", **loom}) if loom else design


BUTTONS = [("button-16", 15.0 + 20 * n, 60.0) for n in range(8)]


def test_a_wire_is_as_long_as_its_way_with_slack_and_bared_ends() -> None:
    """A button at (40, 90): its terminals 2·12 deep; trunk across at 30, out at the bottom in the middle at 100."""
    design = wired(("button-16", 40.0, 90.0), trunk="across", at=30.0, service=50.0)
    r = Resolved(made(design, {"do": "stand", "device": "board.it", "x": 100.5, "y": -199.5, "behind": 8.0}))
    signal = next(p for p in laid(r) if p.wire.kind == "signal")
    spot = looms(r)[0].drops[0].at
    down = max(s.z1 for s in r.placed[0].behind) - r.modules["plate"].thickness
    inside = (spot[1] - 30) + (100 - spot[0]) + 30 + down + 50
    beyond = 200.0 + abs(r.modules["plate"].thickness - 8.0)
    assert signal.said
    assert signal.length == 5 * -(-(inside + beyond + 2 * (15 + 6)) // 5)
    assert not next(p for p in laid(Resolved(design)) if p.wire.kind == "signal").said


def test_plugs_take_every_wire_that_leaves_and_join_nothing_else() -> None:
    """Ports hang together with the plugs as they do without, each contact in one net; by networkx."""
    with_plugs = Resolved(tram())
    graph = nx.Graph([(w.start, w.end) for w in every_wire(with_plugs)])
    bare = nx.Graph([(w.start, w.end) for w in runs(with_plugs)])
    through = {p for p in graph if p.device.startswith("plug.")}
    assert {frozenset(c - through) for c in nx.connected_components(graph)} == {
        frozenset(c) for c in nx.connected_components(bare)
    }
    assert len(through) == sum(len(plug.on) for plug in plugs(with_plugs))
    modules = {p.function.id: p.place.module for p in with_plugs.placed}
    devices = net_list(with_plugs).devices
    for wire in every_wire(with_plugs):  # a module comes out by its plugs only
        ends = [devices[p.device] for p in (wire.start, wire.end) if p.device in devices]
        homes = {d.module or modules.get(d.of, "") for d in ends if d.kind not in ("controller", "supply", "load")}
        outside = any(d.kind in ("controller", "supply", "load") for d in ends)
        assert len(homes) + outside < 2, wire


def test_contacts_follow_the_pins_so_that_the_cable_is_straight() -> None:
    design = wired(*BUTTONS, **TWO)
    [plug] = plugs(Resolved(design))
    pins = {p.line: int(p.pin) for p in design.pins}
    order = [pins[wire.net] for wire in plug.on.values() if wire.net in pins]
    assert order == sorted(order)
    assert (plug.size, len(plug.on)) == (15, 9)  # eight and a common; nine without a spare would be a full 9
    assert plugs(Resolved(made(design, {"do": "set_harness", "spare": 0})))[0].size == 9


def test_neighbours_in_the_loom_have_neighbouring_pins() -> None:
    shuffled = [BUTTONS[n] for n in (3, 6, 0, 5, 1, 7, 2, 4)]
    design = wired(*shuffled, **TWO)
    pins = {p.line.split(".")[0]: int(p.pin) for p in design.pins}
    across = sorted(design.functions, key=lambda f: f.place.x if f.place else 0.0)
    assert [pins[f.id] for f in across] == sorted(pins.values())
    [plug] = plugs(Resolved(design))
    left_to_right = [wire.start.device for wire in plug.on.values() if wire.kind == "signal"]
    assert left_to_right == [f.id for f in across]


def test_what_is_soldered_to_a_contact_stays_there() -> None:
    design = wired(*BUTTONS, **TWO)
    wire = next(
        w for w in every_wire(Resolved(design)) if w.end.device == "plug.plate-signals" and w.start.device == "f5"
    )
    done = made(design, {"do": "set_soldered", "wires": [wire.id]})
    fewer = made(done, {"do": "remove_function", "function": "f1"}, {"do": "remove_function", "function": "f2"})
    assert wire.id in {w.id for w in every_wire(Resolved(fewer))}
    cable = next(w for w in every_wire(Resolved(design)) if w.net == wire.net and w.end.device == "board.it")
    tied = made(design, {"do": "set_soldered", "wires": [cable.id]}, {"do": "remove_function", "function": "f1"})
    assert cable.id in {w.id for w in every_wire(Resolved(tied))}
    assert wire.id not in {
        w.id for w in every_wire(Resolved(made(fewer, {"do": "set_soldered", "wires": [wire.id], "soldered": False})))
    }


def test_alike_plugs_are_keyed_apart_or_said() -> None:
    keyed = [plug for plug in plugs(Resolved(tram())) if plug.key]
    kinds = [(plug.kind, plug.size) for plug in plugs(Resolved(tram()))]
    assert all(kinds.count((plug.kind, plug.size)) > 1 and plug.key not in plug.on for plug in keyed)
    assert len({(plug.kind, plug.size, plug.key) for plug in keyed}) == len(keyed)
    start = wired(*BUTTONS, **TWO)
    outline = start.modules[0].outline.model_dump()
    both = made(start, {"do": "add_module", "id": "other", "name": "Other", "outline": outline, "x": 220},
                *({"do": "add_function", "id": f"g{n}", "name": f"G{n}"} for n in range(8)),
                *({"do": "choose_part", "function": f"g{n}", "part": "button-16"} for n in range(8)),
                *({"do": "place", "function": f"g{n}", "module": "other", "x": 15 + 20 * n, "y": 60} for n in range(8)),
                {"do": "edit_loom", "module": "other", **TWO})  # fmt: skip
    pins = [p.model_dump() for p in solve(Resolved(both)).pins]
    both = made(both, {"do": "set_pins", "pins": pins})
    assert found(both, "wire.plugs-alike") == []
    full = made(both, {"do": "set_harness", "spare": 0})
    assert [p.size for p in plugs(Resolved(full))] == [9, 9]
    assert found(full, "wire.plugs-alike")


@pytest.mark.parametrize("size", KINDS["dsub"].sizes)
def test_rows_of_a_d_sub_are_those_of_its_shell(size: int) -> None:
    """IEC 60807-2: 5 and 4, 8 and 7, 13 and 12, 19 and 18; the 50 in three rows of 17, 16, 17."""
    design = wired(*BUTTONS, **TWO)
    [plug] = plugs(Resolved(design))
    rows = [len(row) for row in rows_of(plug._replace(size=size))]
    assert rows == {9: [5, 4], 15: [8, 7], 25: [13, 12], 37: [19, 18], 50: [17, 16, 17]}[size]


def test_colours_are_those_of_the_codes() -> None:
    # IEC 60062: black 0 to white 9; IEC 60757: two letters each.
    assert " ".join(FIGURES) == "black brown red orange yellow green blue violet grey white"
    assert {CODES[c] for c in FIGURES} == {"BK", "BN", "RD", "OG", "YE", "GN", "BU", "VT", "GY", "WH"}
    # 25 pairs (common practice): pair 1 white-blue, 6 red-blue, 13 black-green, 25 violet-slate.
    assert [pair_colours(n) for n in (1, 2, 11, 25, 49)] == [
        ("white", "blue"), ("blue", "white"), ("red", "blue"), ("black", "green"), ("violet", "grey"),
    ]  # fmt: skip
    assert len({pair_colours(n) for n in range(1, 51)}) == 50
    r = Resolved(tram())
    by_class = {net_list(r).by_id[p.wire.net].kind: p.colour for p in laid(r) if p.wire.how == "wire"}
    assert by_class["ground"] == "black"
    signals = {p.colour for p in laid(r) if p.wire.kind == "signal" and p.wire.how == "wire"}
    assert not signals & {"black", "red", "yellow", "violet", "white"}  # ground, 5 V, 12 V, 24 V, loads here


def test_a_rule_of_ones_own_colours_its_wires() -> None:
    design = made(tram(), {"do": "set_harness", "colours": [{"net": "ground", "colour": "blue"}]})
    r = Resolved(
        made(design, *({"do": "remove_from_workshop", "kind": "wires", "id": w.id} for w in design.workshop.wires))
    )
    assert {p.colour for p in laid(r) if p.wire.kind == "ground" and p.wire.how == "wire"} == {"blue"}


def test_each_terminal_of_every_part_lies_somewhere_of_its_own() -> None:
    for part in catalogue().values():
        for turn in (0, 90):
            where = [lies(tags(part, part.terminals), turn, t) for t in part.terminals]
            assert len(set(where)) == len(where) or len(where) < 2, (part.id, where)


def test_a_terminal_that_was_measured_lies_there_and_says_so() -> None:
    start = made(plate(("toggle-large-on-off-on", 60, 60)), {"do": "copy_part", "part": "toggle-large-on-off-on",
                 "name": "Mine"}, {"do": "choose_part", "function": "f1", "part": "my-part-1"},
                 {"do": "add_controller", "id": "it", "board": "atmega328p"})  # fmt: skip
    tags_said = [{"terminal": "2", "x": -11, "y": 0}, {"terminal": "1", "x": 4, "y": 0}]
    own = made(start, {"do": "edit_part", "part": "my-part-1", "tags": tags_said})
    part = next(p for p in own.parts if p.id == "my-part-1")
    found = tags(part, ("1", "2", "3"))
    assert [(t.terminal, t.x, t.y) for t in found.tags][:2] == [("1", 4, 0), ("2", -11, 0)]
    assert [lies(found, 0, t) for t in "123"] == ["left", "right", "below"]  # from behind
    at = places(Resolved(own)).spot(Port("f1", "2"))
    assert (at.x, at.y) == (60 - 11, 60)  # and there its wire ends
    for wrong, words in (
        ([{"terminal": "9", "x": 0, "y": 0}], "no terminal 9"),
        ([*tags_said, tags_said[0]], "two places"),
    ):
        with pytest.raises(NotPossible, match=words):
            made(own, {"do": "edit_part", "part": "my-part-1", "tags": wrong})
    read = made(own, {"do": "measure_part", "part": "my-part-1", "readings": [{"of": "body", "values": [19.5]}]})
    assert next(p for p in read.parts if p.id == "my-part-1").tags == part.tags


def test_from_behind_left_and_right_are_swapped_and_turning_turns() -> None:
    pot = catalogue()["potentiometer"]
    assert [lies(tags(pot, pot.terminals), 0, t) for t in "123"] == ["right", "middle", "left"]
    lever = catalogue()["toggle-small-on-off"]
    assert [lies(tags(lever, lever.terminals), turn, "1") for turn in (0, 90, 180)] == ["top", "right", "bottom"]
    rotary = catalogue()["rotary-12-stop-3"]
    at = [lies(tags(rotary, rotary.terminals), 0, t) for t in ("C", "1", "4")]
    assert at == ["in the middle", "at 1 o'clock", "at 10 o'clock"]


pieces = st.lists(
    st.tuples(st.sampled_from(["red", "green", "blue"]), st.floats(0.2, 5.0), st.integers(1, 3)), max_size=4
)
lengths = st.lists(
    st.tuples(st.sampled_from(["red", "green", "blue"]), st.booleans(), st.integers(50, 2500)), max_size=15
)


@given(pieces, lengths)
@settings(max_examples=60, deadline=None)
def test_no_piece_is_cut_longer_than_it_is(
    stock: list[tuple[Any, float, int]], cut: list[tuple[Any, bool, int]]
) -> None:
    hand = [WireOnHand(id=f"w{n}", colour=c, metres=m, count=k) for n, (c, m, k) in enumerate(stock)]
    wanted = [Wanted(f"{n}", c, free, 0.22, float(mm)) for n, (c, free, mm) in enumerate(cut)]
    result = assigned(wanted, hand, frozenset({"red"}))
    used: dict[tuple[str, int], float] = {}
    for want in wanted:
        got = result.given.get(want.id)
        if got:
            used[got.stock, got.piece] = used.get((got.stock, got.piece), 0.0) + want.length
            assert got.colour == want.colour or (want.free and got.colour != "red")
    for rest in result.rests:
        assert used.get((rest.stock, rest.piece), 0.0) == pytest.approx(rest.whole - rest.left)
        assert rest.left >= -1e-9
    for want in wanted:  # what is to be bought fits on no piece that is left
        if want.id not in result.given:
            fits = [r for r in result.rests if next(w for w in hand if w.id == r.stock).colour == want.colour]
            assert all(rest.left < want.length for rest in fits)


def test_bundles_are_as_thick_as_the_circle_round_their_wires() -> None:
    """Seven alike in a hexagon are three wide; loosely tied 1.15 times √7 of one (common practice)."""
    assert bundle([1.3]) == 1.3
    assert 2.5 * 1.3 < bundle([1.3] * 7) < 3.2 * 1.3
    r = Resolved(tram())
    for loom in looms(r):
        leaving = [s for s in loom.sections if s.wires == max(x.wires for x in loom.sections)]
        assert leaving[0].thick <= loom.thickest
        gaps = [abs(a[0] - b[0]) + abs(a[1] - b[1]) for a, b in zip(loom.ties, loom.ties[1:], strict=False)]
        assert max(gaps, default=0) <= r.design.harness.ties + 1e-6
    cut = sum(p.length for p in laid(r)) / 1000
    assert totals(r).metres == pytest.approx(cut)
    assert sum(w.to_buy for w in totals(r).wire) == pytest.approx(
        1.1 * sum(p.length for p in laid(r) if p.given is None) / 1000
    )


def test_what_does_not_fit_is_said() -> None:
    start = plate(("toggle-large-on-off", 30.0, 60.0), ("breaker-10", 90.0, 60.0), ("button-16", 150.0, 60.0))
    of = {"do": "edit_function", "function": "f2", "of": "f1"}
    heavy = {"do": "edit_function", "function": "f1", "volts": 24, "amps": 6, "current": "DC"}
    shelf = {"do": "add_supply", "name": "24 V", "volts": 24, "amps": 10}
    design = made(start, of, heavy, shelf, {"do": "edit_loom", "module": "plate", "signals": "dsub", "power": "dsub"})
    [thick] = found(design, "wire.plug-thick")
    assert found(settled(design, thick), "wire.plug-thick") == []
    mains = made(start, of, {**heavy, "volts": 230, "current": "AC"}, {"do": "add_controller", "board": "atmega2560"})
    mains = made(mains, {"do": "set_pins", "pins": [p.model_dump() for p in solve(Resolved(mains)).pins]})
    [apart] = found(mains, "wire.dangerous-loom")
    better = settled(mains, apart)
    assert found(better, "wire.dangerous-loom") == []
    assert [plug.carries for plug in plugs(Resolved(better)) if plug.kind == "strip"] == ["mains"]
    cased = made(wired(*BUTTONS), {"do": "set_case", "module": "plate", "exits": [{"wall": "back", "diameter": 5.0}]})
    [tight] = found(cased, "wire.exit-tight")
    assert found(settled(cased, tight), "wire.exit-tight") == []
    assert found(wired(*BUTTONS), "wire.wire-short") == []  # nobody listed any wire
    assert found(made(wired(*BUTTONS), {"do": "add_wire", "colour": "red", "metres": 1}), "wire.wire-short")
    assert found(wired(*BUTTONS), "wire.length-guessed")


def test_the_sheet_says_for_every_wire_what_is_cut_and_both_its_labels() -> None:
    files = wire_files(Resolved(tram()))
    rows = list(csv.DictReader(io.StringIO(files["wire/wiring-sheet.csv"].decode())))
    cut = [row for row in rows if row["how"] == "wire"]
    assert all(row["colour"] and float(row["mm2"]) > 0 and int(row["length_mm"]) >= 40 for row in cut)
    assert len({row["step"] for row in rows}) == len(rows)
    assert all(row["label_from"].startswith(row["step"]) and row["to_terminal"] in row["label_from"] for row in cut)
    listed = list(csv.DictReader(io.StringIO(files["wire/wire-list.csv"].decode())))
    assert sorted(row["number"] for row in listed) == sorted(row["step"] for row in cut)
    labels = list(csv.DictReader(io.StringIO(files["wire/labels.csv"].decode())))
    assert len(labels) == 2 * len(cut)
    r = Resolved(tram())
    assert {p.given.stock for p in laid(r) if p.given} <= {w.id for w in r.design.workshop.wires}
    assert on_hand(r, laid(r)).rests


def test_the_longest_is_cut_first_from_the_shortest_piece_it_fits_on() -> None:
    hand = [WireOnHand(id="end", colour="red", metres=1.0), WireOnHand(id="spool", colour="red", metres=5.0)]
    wanted = [Wanted(f"{mm}", "red", False, 0.22, float(mm)) for mm in (400, 900, 3000, 2100)]
    result = assigned(wanted, hand, frozenset())
    cut_from = {name: given.stock for name, given in result.given.items()}
    assert cut_from == {"3000": "spool", "900": "end", "400": "spool"}  # 2100 is left to be bought
    assert [rest.left for rest in result.rests] == pytest.approx([100.0, 1600.0])

    def served(asked: float, there: float) -> bool:
        hand = [WireOnHand(id="x", colour="red", area=there)]
        return bool(assigned([Wanted("w", "red", False, asked, 100.0)], hand, frozenset()).given)

    assert served(0.22, 0.34) and not served(0.22, 1.0)  # over two and a half times as thick
    assert served(0.5, 0.5) and not served(0.5, 0.34)


def test_what_the_harness_takes_is_on_the_shopping_list() -> None:
    r = Resolved(tram())
    rows = {row[0]: row for row in shopping_list(r)}
    made_ = totals(r)
    assert int(rows["Sleeve, 20 mm"][2]) == made_.sleeves
    assert int(rows["Cable tie with a mount"][2]) == made_.ties == sum(len(loom.ties) for loom in looms(r))
    assert sum(int(row[5]) for name, row in rows.items() if name.endswith("contacts")) == len(plugs(r))
    assert {name for name in rows if name.startswith("Fuse ")} == {"Fuse 8 A", "Fuse 1 A", "Fuse 1.6 A"}
    green = next(w for w in made_.wire if (w.colour, w.area) == ("green", 0.22))
    assert int(rows["Wire green, 0.22 mm²"][5]) == -int(-green.to_buy // 1)
    bought = [int(row[5]) for name, row in rows.items() if name.startswith("Wire ")]
    assert sum(bought) >= sum(w.to_buy for w in made_.wire)


def test_the_printed_sheet_says_colours_places_and_tests() -> None:
    document = pypdfium2.PdfDocument(wire_files(Resolved(tram()))["wire/wiring-sheet.pdf"])
    said = " ".join(" ".join(page.get_textpage().get_text_range().split()) for page in document)
    for words in ("Route selector, 3 (between 3 and 4 o'clock)", "0.22 mm²", "its own leg", "At the open plug",
                  "Cable of J1 of Left module", "Then test:"):  # fmt: skip
        assert words in said, words
    assert not any("Ã" in word for word in said.split())
