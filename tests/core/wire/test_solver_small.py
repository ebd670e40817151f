"""The solver on boards so small that every assignment can be tried: never dearer, never illegal, least change."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import permutations, product
from typing import Any

import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from building import plate
from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import BATCH
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.controllers import Pin, board_of
from wingboard.core.record.design import Design
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.groups import soldered_pins
from wingboard.core.wire.lines import lines
from wingboard.core.wire.own_boards import pins_from
from wingboard.core.wire.pinlist import pin_list
from wingboard.core.wire.pins.remedies import remedies
from wingboard.core.wire.pins.solve import OTHER_BOARD, least_change, solve
from wingboard.core.wire.signals import Line

PARTS = ("button-16", "potentiometer", "led-5-bezel", "toggle-large-on-off-on", "encoder-push")
ROLES = ("io up", "io", "in", "out", "io up adc", "io up pwm", "io up int", "in adc", "io up strap", "io up adc2")

Given = dict[str, tuple[str, str]]
"""The board and pin of each line."""


def comfort(line: Line, pin: Pin) -> int | None:
    """What a pin costs for a line, written down here once more; None where it cannot be."""
    drives = line.direction == "out"
    if line.analogue and not pin.analogue:
        return None
    if not line.analogue and not (pin.drives if drives else pin.reads):
        return None
    cost = 20 * pin.strap + 12 * (pin.radio and line.analogue)
    cost += 6 * (line.prefers == "interrupt" and not pin.interrupt) + 4 * (line.prefers == "PWM" and not pin.pwm)
    cost += 3 * (pin.analogue and not line.analogue) + 5 * (not drives and not line.analogue and not pin.pull_up)
    cost += (pin.interrupt and line.prefers != "interrupt") + (pin.pwm and line.prefers != "PWM")
    return cost + 3 * (drives and pin.flashes)


def every_way(design: Design) -> Iterator[tuple[int, Given]]:
    """Every assignment with its cost: each function's lines on one board, no pin twice."""
    r = Resolved(design)
    mine: dict[str, list[Line]] = {}
    for line in lines(r):
        mine.setdefault(line.function, []).append(line)
    pins = {c.id: board_of(design, c.board).pins for c in design.controllers}
    for where in product(pins, repeat=len(mine)):
        on: dict[str, list[Line]] = {board: [] for board in pins}
        for board, some in zip(where, mine.values(), strict=True):
            on[board] += some
        if any(len(some) > len(pins[board]) for board, some in on.items()):
            continue
        choices = [list(permutations(pins[board], len(some))) for board, some in on.items()]
        for chosen in product(*choices):
            cost, given = OTHER_BOARD * sum(bool(some) for some in on.values()), Given()
            for (board, some), there in zip(on.items(), chosen, strict=True):
                for line, pin in zip(some, there, strict=True):
                    each = comfort(line, pin)
                    if each is None:
                        break
                    cost, given[line.id] = cost + each, (board, pin.name)
            if len(given) == sum(map(len, mine.values())):
                yield cost, given


def small(parts: list[str], boards: list[list[str]]) -> Design:
    """Parts on one module, boards of one's own with so many pins."""
    start = plate(*((part, 20.0 + 30 * n, 60.0) for n, part in enumerate(parts)))
    commands: list[dict[str, Any]] = []
    for n, roles in enumerate(boards):
        pins = [{"name": f"P{k}", "roles": words.split()} for k, words in enumerate(roles)]
        commands.append({"do": "set_board", "board": {"id": f"own-{n}", "name": f"Own {n}", "pins": pins}})
        commands.append({"do": "add_controller", "id": f"b{n}", "board": f"own-{n}"})
    return apply(start, BATCH.validate_python(commands), catalogue())


PANELS = st.tuples(
    st.lists(st.sampled_from(PARTS), min_size=1, max_size=3),
    st.lists(st.lists(st.sampled_from(ROLES), min_size=1, max_size=5), min_size=1, max_size=2),
)


@settings(max_examples=60, deadline=None)
@given(PANELS)
def test_the_solver_is_never_dearer_than_the_best_of_all_ways(panel: tuple[list[str], list[list[str]]]) -> None:
    design = small(*panel)
    best = min((cost for cost, _ in every_way(design)), default=None)
    found = solve(Resolved(design), seconds=5)
    assert (found.unfit == ()) == (best is not None)
    assert all(" left" in left.reason for left in found.unfit)  # it is pins that lack, nothing else
    if best is not None:
        assert found.optimal
        assert round(found.cost, 6) == best
        taken = {(p.line): (p.controller, p.pin) for p in found.pins}
        assert any(given == taken and cost == best for cost, given in every_way(design))


@settings(max_examples=40, deadline=None)
@given(PANELS, st.sampled_from(PARTS))
def test_nothing_moves_that_can_stay_when_a_part_is_added(panel: tuple[list[str], list[list[str]]], new: str) -> None:
    parts, boards = panel
    before = small(parts, boards)
    first = solve(Resolved(before), seconds=5)
    assume(first.unfit == ())
    kept = [p.model_dump() for p in first.pins]
    more = small([*parts, new], boards)
    more = apply(more, BATCH.validate_python([{"do": "set_pins", "pins": kept}]), catalogue())
    after = solve(Resolved(more), seconds=5)
    assert set(first.pins) <= set(after.pins)  # what serves stays where it is soldered, whatever would be dearer
    ways = [given for _, given in every_way(more)]
    stays = [way for way in ways if all(way[p.line] == (p.controller, p.pin) for p in first.pins)]
    assert (after.unfit == ()) == bool(stays)


@pytest.mark.parametrize(
    ("part", "roles", "why"),
    [
        ("led-5-bezel", ["in", "in"], "needs 1 pin on one board; 2 left, none of which drives"),
        ("led-5-bezel", ["coder", "coder"], "needs 1 pin on one board; nothing left"),
        ("potentiometer", ["io"], "needs 1 pin on one board, 1 of them analogue; 1 left, none of which measures"),
        ("button-16-lit", ["out", "out"], "needs 2 pins on one board; 2 left, none of which reads"),
        ("button-16-lit", ["io"], "needs 2 pins on one board; 1 left"),
        ("toggle-large-on-off-on", ["in", "out"], "needs 2 pins on one board; 2 left, 1 of which reads"),
    ],
)
def test_what_does_not_fit_says_what_the_pins_lack(part: str, roles: list[str], why: str) -> None:
    (left,) = solve(Resolved(small([part], [roles]))).unfit
    assert left.reason == f"{why} on Own 0 b0"


@given(st.lists(st.sampled_from(ROLES), min_size=1, max_size=30))
def test_a_board_that_is_written_down_reads_back_as_it_was(roles: list[str]) -> None:
    text = "\n".join(f"P{n}\t{words}  # its place" for n, words in enumerate(roles))
    pins, wrong = pins_from(text)
    assert wrong == ()
    again, wrong = pins_from("\n".join(f"{pin.name}: {', '.join(pin.roles)}" for pin in pins))
    assert (again, wrong) == (pins, ())
    assert [pin.name for pin in pins] == [f"P{n}" for n in range(len(roles))]
    assert all(set(words.split()) <= set(pin.roles) for words, pin in zip(roles, pins, strict=True))


@given(st.text(max_size=200))
def test_no_text_whatever_breaks_the_reading_of_a_board(text: str) -> None:
    pins, wrong = pins_from(text)
    assert len({pin.name for pin in pins}) == len(pins)
    assert {w.line for w in wrong} <= set(range(1, len(text.splitlines()) + 1))


def test_where_moving_one_is_enough_that_is_the_first_remedy_and_the_least() -> None:
    kept = [("f1.press", "P0"), ("f2.up", "P4"), ("f2.down", "P1")]
    pins = [{"line": line, "controller": "b0", "pin": pin} for line, pin in kept]
    roles = ["io up adc", "io up", "io up", "io up", "in adc"]
    more = small(["button-16", "toggle-large-on-off-on", "potentiometer"], [roles])
    more = apply(more, BATCH.validate_python([{"do": "set_pins", "pins": pins}]), catalogue())
    found = solve(Resolved(more))
    assert [left.function for left in found.unfit] == ["f3"]  # both pins that measure are taken by contacts
    first = remedies(Resolved(more), found)[0]
    assert first.words in ("Give F1 other pins: 1 line moves", "Give F2 other pins: 1 line moves")
    after = apply(more, first.commands, catalogue())
    assert sum(p in after.pins for p in more.pins) == 2
    mended = solve(Resolved(after))
    assert mended.unfit == () and {p.line: p.pin for p in mended.pins}["f3.wiper"] in ("P0", "P4")


@settings(max_examples=60, deadline=None)
@given(PANELS, st.lists(st.sampled_from(PARTS), min_size=1, max_size=2))
def test_no_fewer_lines_can_move_than_those_that_do(panel: tuple[list[str], list[list[str]]], new: list[str]) -> None:
    """Against every way there is: the one in which the fewest lines that had a pin get another."""
    parts, boards = panel
    first = solve(Resolved(small(parts, boards)), seconds=5)
    assume(first.unfit == () and len(parts) + len(new) <= 4)
    kept = [p.model_dump() for p in first.pins]
    more = apply(small([*parts, *new], boards), BATCH.validate_python([{"do": "set_pins", "pins": kept}]), catalogue())

    def moved(given: Given) -> int:
        return sum(given[p.line] != (p.controller, p.pin) for p in first.pins)

    least = min((moved(given) for _, given in every_way(more)), default=None)
    found = least_change(Resolved(more), seconds=5)
    assert (found is None) == (least is None)
    if found is not None and least is not None:
        taken = {p.line: (p.controller, p.pin) for p in found.pins}
        assert found.optimal and moved(taken) == least
        assert any(given == taken for _, given in every_way(more))


@settings(max_examples=40, deadline=None)
@given(st.lists(st.sampled_from(["button-16", "led-5-bezel", "potentiometer"]), min_size=1, max_size=4),
       st.lists(st.sampled_from(ROLES), min_size=4, max_size=6))  # fmt: skip
def test_lines_lie_along_the_board_as_along_the_loom_as_straight_as_can_be(parts: list[str], roles: list[str]) -> None:
    """Of all ways that are as good, none has its pins nearer to the places of their lines; alike lines never cross."""
    design = small(parts, [roles])
    found = solve(Resolved(design), seconds=5)
    assume(found.unfit == ())
    order = [line.id for line in lines(Resolved(design))]  # the parts stand in a row, left to right

    def off(given: Given) -> int:
        return sum((int(pin.removeprefix("P")) - order.index(line)) ** 2 for line, (_, pin) in given.items())

    taken = {p.line: (p.controller, p.pin) for p in found.pins}
    assert off(taken) == min(off(given) for cost, given in every_way(design) if cost == round(found.cost, 6))
    for kind in ("press", "lamp", "wiper"):
        mine = [int(taken[line][1].removeprefix("P")) for line in order if line.endswith(kind)]
        if len({roles[n] for n in mine}) == 1:
            assert mine == sorted(mine)


def test_where_two_must_move_both_are_named_and_the_press_gives_every_line_its_pin() -> None:
    kept = [("f1.press", "P0"), ("f2.press", "P1"), ("f3.press", "P2")]
    pins = [{"line": line, "controller": "b0", "pin": pin} for line, pin in kept]
    roles = ["io up adc", "io up adc", "io up", "io up", "io up"]
    more = small(["button-16", "button-16", "button-16", "potentiometer", "potentiometer"], [roles])
    more = apply(more, BATCH.validate_python([{"do": "set_pins", "pins": pins}]), catalogue())
    found = solve(Resolved(more))
    assert {left.function for left in found.unfit} == {"f4", "f5"}
    first = remedies(Resolved(more), found)[0]
    assert first.words == "Give F1 and F2 other pins: 2 lines move, and fewer are not enough"
    after = {p.line: p.pin for p in apply(more, first.commands, catalogue()).pins}
    assert after["f3.press"] == "P2" and {after["f4.wiper"], after["f5.wiper"]} == {"P0", "P1"}
    by_hand = [{"do": "pin", "line": "f1.press", "controller": "b0", "pin": "P0"}]
    held = apply(more, BATCH.validate_python(by_hand), catalogue())
    assert least_change(Resolved(held)) is None  # what was set by hand stays, and there is no other way


def test_a_pin_that_was_found_counts_as_soldered_and_never_moves() -> None:
    roles = ["io up adc", "io up", "io up"]
    found_so = {"do": "pin", "line": "f1.press", "controller": "b0", "pin": "P0", "found": True}
    design = apply(small(["button-16", "potentiometer"], [roles]), BATCH.validate_python([found_so]), catalogue())
    assert soldered_pins(Resolved(design)) == {("b0", "P0")}
    left = solve(Resolved(design), keep=False)
    assert [unfit.function for unfit in left.unfit] == ["f2"]  # the only pin that measures is taken, for good
    assert least_change(Resolved(design)) is None
    note = next(row.note for row in pin_list(Resolved(design)) if row.line == "f1.press")
    assert note.endswith("found so, soldered already")
    again = {**found_so, "found": False}
    assert apply(design, BATCH.validate_python([again]), catalogue()).pins[0].by == "hand"
