"""Costly results: told of when they are there, worked out once, the newest wish of a slot alone; a desk that waits."""

from __future__ import annotations

import threading

import pytest

from building import plate
from wingboard.core.changes.commands.layers import EditLayer
from wingboard.core.changes.commands.legends import EditLegend
from wingboard.core.changes.commands.lights import AddStrip
from wingboard.services.costly import Costly
from wingboard.services.desk import Desk


def test_a_result_is_told_of_when_it_is_there_and_worked_out_once() -> None:
    costly, there, made = Costly(quiet=0), threading.Event(), []

    def compute() -> int:
        made.append(1)
        return 7

    assert costly.ask("night", "key", compute, there.set) is None
    assert there.wait(5)
    assert costly.ask("night", "key", compute, there.set) == 7
    assert made == [1]
    costly.close()


def test_a_newer_wish_takes_the_place_of_one_that_was_not_begun() -> None:
    costly, there, made = Costly(quiet=0.2), threading.Event(), []
    for n in range(5):
        assert costly.ask("night", n, lambda n=n: made.append(n), there.set) is None  # type: ignore[misc]
    assert there.wait(5)
    assert made == [4]
    costly.close()


def test_what_goes_wrong_is_told_to_whoever_asks() -> None:
    costly, there = Costly(quiet=0), threading.Event()

    def compute() -> int:
        raise ValueError("dark")

    assert costly.ask("night", "key", compute, there.set) is None
    assert there.wait(5)
    with pytest.raises(ValueError, match="dark"):
        costly.ask("night", "key", compute, there.set)
    costly.close()


def test_findings_that_take_long_follow_and_paper_waits_for_them(desk: Desk) -> None:
    there = threading.Event()
    lit = plate(
        ("rotary-12", 100, 60),
        commands=(
            EditLayer(layer="back", opacity="clear"),
            EditLegend(function="f1", text="READY"),
            AddStrip(module="plate", x=10, y=12, x2=190.1, y2=12),
        ),
    )
    state = desk.add(lit, "Start")
    state._when_there = there.set
    assert state.judging  # the night is worked out meanwhile, and the review says nothing of it
    assert not [f for f in state.findings if f.code == "light.half-dark"]
    whole = [f.id for f in state.judged()]
    assert [f for f in whole if f.startswith("light.half-dark")]
    assert there.wait(20)
    assert [f.id for f in state.findings] == whole
    assert not state.judging
