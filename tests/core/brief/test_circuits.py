"""What is commonly forgotten, and circuits that are not whole; each suggestion is settled by its own fix."""

from __future__ import annotations

from typing import Any

import pytest

from building import found, offered, plate, settled
from wingboard.core.brief.checks.circuits import RATINGS, breaker_for
from wingboard.core.brief.packs import Expectation, expectations
from wingboard.core.brief.wanted import load_in
from wingboard.core.changes.apply import apply
from wingboard.core.changes.commands.functions import AddFunction, EditFunction
from wingboard.core.changes.commands.judgement import AcceptFinding
from wingboard.core.findings.finding import Finding
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.design import Design
from wingboard.core.record.space import Brief


def listed(kind: str, *rows: dict[str, Any]) -> Design:
    """A design of that kind with these functions, ``f1`` onwards."""
    start = Design(name="List", brief=Brief.model_validate({"kind": kind}))
    commands = [AddFunction.model_validate({"id": f"f{n}", **row}) for n, row in enumerate(rows, 1)]
    return apply(start, commands, catalogue())


PLAIN = [{"name": f"Thing {n}", "want": "lamp"} for n in range(5)] + [{"name": "Heat", "switches": {"amps": 2}}]


def missing(design: Design, ident: str) -> list[Finding]:
    """The suggestions of that expectation."""
    return [f for f in found(design, "brief.forgotten") if f.id.endswith(f":{ident}")]


@pytest.mark.parametrize("expected", expectations(), ids=[e.id for e in expectations()])
def test_each_expectation_speaks_for_its_kinds_and_is_met_by_its_own_row(expected: Expectation) -> None:
    for kind in expected.kinds:
        design = listed(kind, *PLAIN)
        (finding,) = missing(design, expected.id)
        assert finding.detail == expected.why
        assert finding.severity == "judge"
        after = settled(design, finding)
        assert missing(after, expected.id) == []
        assert after.functions[-1].name == expected.add.name
    for other in {"cab", "vehicle", "boat", "machine", "prop", "aircraft"} - set(expected.kinds):
        assert missing(listed(other, *PLAIN), expected.id) == []


def test_nothing_is_missed_on_an_empty_list_and_every_kind_has_a_pack() -> None:
    for kind in ("cab", "vehicle", "boat", "machine", "prop", "aircraft"):
        assert found(listed(kind), "brief.forgotten") == []
        assert len(found(listed(kind, *PLAIN), "brief.forgotten")) >= 3


def test_a_dismissed_suggestion_stays_with_its_reason() -> None:
    design = listed("cab", *PLAIN)
    (finding,) = missing(design, "wiper")
    dismissed = apply(design, (AcceptFinding(finding=finding.id, reason="no windscreen"),), catalogue())
    (still,) = missing(dismissed, "wiper")
    assert still.accepted == "no windscreen"


@pytest.mark.parametrize(
    ("amps", "rating"), [(0.5, 1), (4, 5), (4.01, 7.5), (6, 7.5), (8, 10), (8.1, 15), (16, 20), (1000, 250)]
)
def test_a_breaker_is_the_next_rating_over_its_load(amps: float, rating: float) -> None:
    # Common practice: a fuse or breaker at least 1.25 times its load.
    assert breaker_for(amps, 1.25) == rating
    assert list(RATINGS) == sorted(RATINGS)


HEAT = {"name": "Heat", "want": "toggle", "switches": {"volts": 24, "amps": 6, "bus": "B"}}
PROTECTED = [
    ("nothing", [], False),
    ("its own breaker", [{"name": "CB", "want": "breaker 10 A", "of": "f1"}], True),
    ("a breaker of its bus", [{"name": "CB", "want": "breaker 10 A", "switches": {"bus": "b"}}], True),
    ("a fuse of its bus", [{"name": "F1", "want": "fuse", "switches": {"bus": "B"}}], True),
    ("a breaker of another bus", [{"name": "CB", "want": "breaker 10 A", "switches": {"bus": "A"}}], False),
    ("a breaker of nobody", [{"name": "CB", "want": "breaker 10 A"}], False),
]


@pytest.mark.parametrize(("rows", "whole"), [p[1:] for p in PROTECTED], ids=[p[0] for p in PROTECTED])
def test_a_load_wants_a_breaker_of_its_own_or_of_its_bus(rows: list[dict[str, Any]], whole: bool) -> None:
    design = listed("cab", HEAT, *rows)
    findings = found(design, "brief.load-unprotected")
    assert (findings == []) is whole
    if not whole:
        after = settled(design, findings[0])
        assert found(after, "brief.load-unprotected") == []
        assert (after.functions[-1].want, after.functions[-1].of) == ("breaker 7.5 A", "f1")


def test_a_source_is_a_circuit_of_its_own() -> None:
    design = listed("boat", {"name": "Alternator"})
    (finding,) = found(design, "brief.source-incomplete")
    assert "no switch, no breaker, no lamp" in finding.detail
    after = settled(design, finding)
    assert found(after, "brief.source-incomplete") == []
    assert [f.name for f in after.functions[1:]] == ["Alternator switch", "Alternator breaker", "Alternator lamp"]
    shown = listed(
        "boat", {"name": "Alternator", "indicator": "red lamp"}, {"name": "Field", "want": "toggle", "of": "f1"}
    )
    (finding,) = found(shown, "brief.source-incomplete")
    assert finding.detail == "Alternator has no breaker"


EVENTS = [
    ("a lever shows itself", [{"name": "Fan", "want": "toggle"}], 0),
    ("a plain button does not", [{"name": "Fan", "want": "push button"}], 1),
    ("a lit button does", [{"name": "Fan", "want": "push button lit green"}], 0),
    ("an encoder does not", [{"name": "Fan", "want": "encoder"}], 1),
    ("a lamp of the event does", [{"name": "Fan", "want": "push button"}, {"name": "Fan on", "want": "lamp"}], 0),
    ("its own indicator does", [{"name": "Fan", "want": "push button", "indicator": "lamp"}], 0),
    ("a horn is heard", [{"name": "Horn", "want": "push button"}], 0),
    ("a dummy does nothing", [{"name": "Fan", "want": "push button", "state": "dummy"}], 0),
]


@pytest.mark.parametrize(("rows", "unseen"), [e[1:] for e in EVENTS], ids=[e[0] for e in EVENTS])
def test_an_event_is_seen_or_heard(rows: list[dict[str, Any]], unseen: int) -> None:
    design = listed("cab", *({**row, "switches": {"event": "fan"}} for row in rows))
    findings = found(design, "brief.event-unseen")
    assert len(findings) == unseen
    for finding in findings:
        assert found(settled(design, finding), "brief.event-unseen") == []


def test_an_event_that_is_only_shown_is_noted() -> None:
    design = listed("cab", {"name": "Slip", "want": "caption", "switches": {"event": "slip"}})
    assert [f.severity for f in found(design, "brief.event-unmade")] == ["note"]
    made = apply(design, (AddFunction.model_validate({"name": "S", "switches": {"event": "Slip"}}),), catalogue())
    assert found(made, "brief.event-unmade") == []


def test_controls_that_switch_nothing_are_counted_unless_they_are_meant_to() -> None:
    rows = [
        {"name": "A", "want": "toggle"},
        {"name": "B", "want": "toggle", "state": "dummy"},
        {"name": "C", "want": "lamp"},
    ]
    (finding,) = found(listed("cab", *rows), "brief.control-idle")
    assert finding.subjects == ("f1",)


GUARDS = [
    ("toggle-large-on-off", True),
    ("toggle-guarded", False),
    ("toggle-locking", False),
    ("key-switch-19", False),
    ("button-22", True),
]


@pytest.mark.parametrize(("part", "speaks"), GUARDS)
def test_what_cannot_be_undone_wants_a_guard(part: str, speaks: bool) -> None:
    design = plate((part, 100, 60), commands=(EditFunction(function="f1", risk="guarded"),))
    findings = found(design, "brief.irreversible-unguarded")
    assert bool(findings) is speaks
    if findings and offered(design, findings[0]):
        assert found(settled(design, findings[0]), "brief.irreversible-unguarded") == []


def test_a_wish_for_a_guard_is_enough_before_a_part_is_chosen() -> None:
    design = listed("cab", {"name": "Coupler", "want": "toggle", "risk": "guarded"})
    (finding,) = found(design, "brief.irreversible-unguarded")
    assert found(settled(design, finding), "brief.irreversible-unguarded") == []


@pytest.mark.parametrize(
    ("volts", "current", "speaks"),
    [
        (24, "", False), (49.5, "AC", False), (50, "AC", True), (49.5, "", False), (50, "", True), (110, "", True),
        (110, "DC", False), (119.5, "DC", False), (120, "DC", True),
    ],
)  # fmt: skip
def test_high_voltage_is_left_to_a_licensed_electrician(volts: float, current: str, speaks: bool) -> None:
    # IEC 60364-4-41 (from memory): 50 V AC, 120 V DC; already at these. Without DC said it counts as AC from 50 V on.
    design = listed("machine", {"name": "Spindle", "switches": {"volts": volts, "current": current, "amps": 2}})
    findings = found(design, "brief.licensed")
    assert bool(findings) is speaks
    if findings:
        assert "licensed electrician" in findings[0].detail


@pytest.mark.parametrize(
    ("name", "guarded"),
    [
        ("Block release", False), ("Monkey", False), ("Clockwork", False), ("Discovery", False), ("Lock", True),
        ("Guarded fire switch", True), ("Key for starter", True), ("Lockable handle", True),
    ],
)  # fmt: skip
def test_a_guard_is_asked_for_by_whole_words(name: str, guarded: bool) -> None:
    design = listed("cab", {"name": name, "want": "toggle", "risk": "guarded"})
    assert (found(design, "brief.irreversible-unguarded") == []) is guarded


@pytest.mark.parametrize(
    ("text", "current", "kind"),
    [
        ("heater toggle 110 V 5 A", "", "AC"), ("heater toggle 110 V DC 5 A", "DC", "DC"), ("lamp 24 Vac", "AC", "AC"),
        ("lamp 24 V", "", "DC"), ("pump 230VAC 2 A", "AC", "AC"), ("bus 72 VDC", "DC", "DC"),
    ],
)  # fmt: skip
def test_a_load_is_ac_from_50_v_on_unless_dc_is_said(text: str, current: str, kind: str) -> None:
    load = load_in(text)
    assert (load.current, load.kind) == (current, kind)
