"""Loads and what is before them: contacts, relays, breakers of one load or of a bus."""

from __future__ import annotations

from typing import Any

import pytest

from building import found, plate, settled
from wingboard.core.changes.commands.functions import EditFunction
from wingboard.core.record.design import Design

TOGGLE, BREAKER = "toggle-large-on-off", "breaker-10"
"""Contacts of 10 A at 24 V (by the catalogue), a breaker of 10 A."""


def switching(*loads: dict[str, Any], breaker: dict[str, Any] | None = None) -> Design:
    """Toggles in a row with these loads, and a breaker at the end."""
    parts = [(TOGGLE, 30 + 35 * n, 40) for n in range(len(loads))]
    commands = [EditFunction.model_validate({"function": f"f{n}", **load}) for n, load in enumerate(loads, 1)]
    if breaker is not None:
        parts.append((BREAKER, 100, 90))
        commands.append(EditFunction.model_validate({"function": f"f{len(parts)}", **breaker}))
    return plate(*parts, commands=tuple(commands))


@pytest.mark.parametrize(
    ("load", "speaks"),
    [
        ({"volts": 12, "amps": 3}, False),
        ({"volts": 12, "amps": 40}, True),
        ({"volts": 12, "amps": 40, "through": "relay"}, False),
        ({"volts": 600, "amps": 1}, True),
    ],
)
def test_a_load_beyond_the_contacts_is_left_to_a_relay(load: dict[str, Any], speaks: bool) -> None:
    design = switching(load)
    findings = found(design, "parts.overloaded")
    assert bool(findings) is speaks
    assert not any(f.fixable for f in findings) or load["volts"] < 400  # no carrier here bears 600 V
    if findings and findings[0].fixable:
        after = settled(design, findings[0])
        assert after.functions[0].switches.through in ("relay", "contactor")
        assert found(after, "parts.overloaded") == []


@pytest.mark.parametrize(
    ("load", "speaks"),
    [
        ({"volts": 24, "amps": 5}, False),
        ({"volts": 24, "amps": 5, "current": "AC"}, True),
        ({"volts": 60, "amps": 1}, True),
        ({"volts": 60, "amps": 1, "current": "DC"}, False),
    ],
)
def test_a_transistor_switches_dc_only(load: dict[str, Any], speaks: bool) -> None:
    design = switching({**load, "through": "transistor"})
    findings = found(design, "parts.transistor-on-ac")
    assert bool(findings) is speaks
    if findings:
        assert found(settled(design, findings[0]), "parts.transistor-on-ac") == []


BUS = {"volts": 12, "bus": "Main"}
BREAKERS = [
    ("one load of its own", [{"volts": 12, "amps": 8}], {"of": "f1"}, None),
    ("a hair too much of its own", [{"volts": 12, "amps": 8.1}], {"of": "f1"}, 8.1 * 1.25),
    ("three loads of a bus add up", [{**BUS, "amps": 3}] * 3, {"bus": "main"}, 9 * 1.25),
    ("two that it still holds", [{**BUS, "amps": 4}] * 2, {"bus": "Main"}, None),
    ("another bus does not count", [{**BUS, "amps": 4}, {**BUS, "bus": "B", "amps": 9}], {"bus": "Main"}, None),
]


@pytest.mark.parametrize(("loads", "breaker", "needed"), [b[1:] for b in BREAKERS], ids=[b[0] for b in BREAKERS])
def test_a_breaker_carries_all_the_loads_behind_it(
    loads: list[dict[str, Any]], breaker: dict[str, Any], needed: float | None
) -> None:
    small = [f for f in found(switching(*loads, breaker=breaker), "parts.breaker-rating") if f.severity == "must"]
    assert bool(small) is (needed is not None)
    if small:
        assert small[0].needed is not None
        assert small[0].needed.value == pytest.approx(needed)


def test_a_breaker_larger_than_the_contacts_behind_it_is_to_judge() -> None:
    small_contacts = plate(
        ("toggle-small-on-off", 40, 40),
        ("breaker-20", 100, 90),
        commands=(
            EditFunction(function="f1", volts=12, amps=1, bus="Main"),
            EditFunction(function="f2", bus="Main"),
        ),
    )
    (large,) = found(small_contacts, "parts.breaker-rating")
    assert (large.severity, large.bound) == ("judge", "most")
    assert large.detail.endswith("the contacts of F1 would burn before it trips")
