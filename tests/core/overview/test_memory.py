"""What checks found is kept while what they read is unchanged, and never longer."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from arbitrary import command
from building import plate
from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import COMMANDS
from wingboard.core.findings import facets
from wingboard.core.findings.facets import FACETS, facet_of
from wingboard.core.findings.finding import Finding
from wingboard.core.findings.registry import CHECKS, Check
from wingboard.core.overview.fixing import fix_of
from wingboard.core.overview.memory import Memory
from wingboard.core.overview.review import MOST_FINDINGS, all_checks, judged, review
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.base import Source
from wingboard.core.record.design import Design
from wingboard.core.record.errors import DesignError
from wingboard.core.record.functions import Function
from wingboard.core.resolved.design import Resolved


@settings(max_examples=25)
@given(st.lists(command(), min_size=6, max_size=16))
def test_the_review_with_memory_is_the_review_from_nothing(raws: list[dict[str, Any]]) -> None:
    design, memory = plate(("toggle-large-on-off", 40, 40), ("rotary-12", 100, 60), ("breaker-5", 150, 60)), Memory()
    for raw in raws:
        try:
            design = apply(design, (COMMANDS.validate_python(raw),), catalogue())
        except (DesignError, ValueError):
            continue
        assert review(Resolved(design), memory) == review(Resolved(design))


def variants(design: Design) -> Iterator[tuple[str, Design]]:
    """The design with one facet changed in every way that a builder might."""
    no_places = [f.model_copy(update={"place": None}) for f in design.functions]
    no_legends = [f.model_copy(update={"legend": None}) for f in design.functions]
    yield "places", design.model_copy(update={"functions": tuple(no_places)})
    yield "legends", design.model_copy(update={"functions": tuple(no_legends)})
    for field in ("graphics", "procedures", "references", "pins", "limits"):
        yield field, design.model_copy(update={field: ()})
    yield "workshop", design.model_copy(update={"workshop": type(design.workshop)()})
    yield "style", design.model_copy(update={"style": design.style.model_copy(update={"name_cap": 1.0})})
    yield "stack", design.model_copy(update={"stack": design.stack[:1]})
    yield "controllers", design.model_copy(update={"controllers": (), "pins": ()})


@pytest.mark.parametrize("name", ["kestrel-line-9", "dust-extraction"])
def test_a_check_reads_nothing_that_it_does_not_name(demo: Callable[[str], Design], name: str) -> None:
    design = demo(name)
    before = Resolved(design)
    for changed, variant in variants(design):
        after = Resolved(variant)
        differs = {facet for facet in FACETS if facet_of(variant, facet) != facet_of(design, facet)}
        assert changed in differs or getattr(design, changed, 1) == ()
        for rule in all_checks():
            if not differs & set(rule.reads):
                assert judged(rule, after) == judged(rule, before), (rule.code, changed)


def checking(run: Callable[[Resolved, Check], Iterator[Finding]]) -> Check:
    """A check that nobody registered."""
    return Check("face.tried", "face", "must", "Tried", "tried", (), Source(kind="practice"), "", FACETS, False, run)


def test_a_check_that_fails_is_a_finding_and_a_line_in_the_log(
    demo: Callable[[str], Design], monkeypatch: pytest.MonkeyPatch, caplog: pytest.LogCaptureFixture
) -> None:
    def fails(r: Resolved, rule: Check) -> Iterator[Finding]:
        yield rule.finding("f1", detail="before it failed")
        raise ZeroDivisionError("nobody foresaw this")

    r = Resolved(demo("dust-extraction"))
    rest = review(r)
    all_checks.cache_clear()
    monkeypatch.setitem(CHECKS, "face.tried", checking(fails))
    try:
        found = review(r)
    finally:
        all_checks.cache_clear()
    assert [f.id for f in found if f.code == "face.tried"] == ["face.tried:f1", "face.tried:not-judged"]
    assert [f for f in found if f.code != "face.tried"] == list(rest)
    assert "nobody foresaw this" in caplog.text


def test_many_findings_are_counted_and_their_fixes_are_asked_for(demo: Callable[[str], Design]) -> None:
    def many(r: Resolved, rule: Check) -> Iterator[Finding]:
        for n in range(1000):
            yield rule.finding(f"f{n}", detail="one of them", fix=lambda: None)

    found = judged(checking(many), Resolved(demo("dust-extraction")))
    assert len(found) == MOST_FINDINGS + 1
    assert found[-1].id == "face.tried:more"
    assert all(f.fixable and f.fix is None for f in found[:-1])


def test_a_fix_is_worked_out_when_it_is_asked_for(demo: Callable[[str], Design]) -> None:
    r = Resolved(demo("kestrel-line-9"))
    wrong = next(f for f in review(r) if f.fixable and f.severity == "must")
    asked = fix_of(r, wrong.id)
    assert asked is not None
    assert asked.fix is not None
    assert asked.model_copy(update={"fix": None}) == wrong
    assert fix_of(r, "face.no-such:f1") is fix_of(r, f"{wrong.code}:nobody") is None


def test_every_field_of_a_function_is_in_a_facet() -> None:
    covered = {*facets._WISHES, *facets._PLACES, *facets._LEGENDS}
    assert set(Function.model_fields) - covered == {"example"}  # which is only drawn
