"""Parts that do not stand where the panel is: rain, sun, heat, a dark room."""

from __future__ import annotations

from collections.abc import Iterator

from wingboard.core.findings.facets import Facet
from wingboard.core.findings.finding import Finding
from wingboard.core.findings.registry import Check, check
from wingboard.core.parts.surroundings import Surrounding, unsuited
from wingboard.core.record.base import Source
from wingboard.core.record.functions import Function
from wingboard.core.resolved.design import Resolved

READS: tuple[Facet, ...] = ("brief", "wishes", "parts", "accepted")


def _suffering(r: Resolved, what: Surrounding) -> list[Function]:
    chosen = ((f, r.parts[f.part]) for f in r.design.functions if f.part is not None and f.state != "alias")
    return [f for f, part in chosen if what in unsuited(part, r.design.brief.environment)]


@check(
    "parts.not-sealed",
    severity="judge",
    title="Water gets in",
    measures="parts less tight than IP54 on a panel that gets wet",
    source=Source(kind="memory", note="IEC 60529: dust and splashing water"),
    reads=READS,
)
def not_sealed(r: Resolved, rule: Check) -> Iterator[Finding]:
    """One finding over all of them: choose sealed ones, or put boots over them."""
    yield from rule.over(r, _suffering(r, "wet"), unit="not sealed")


@check(
    "parts.washed-out",
    severity="judge",
    title="Hard to read in the sun",
    measures="lamps, captions, digits and displays on a panel in direct sun",
    source=Source(kind="practice", note="a hood, a tint film over red digits, or types made for daylight"),
    reads=READS,
)
def washed_out(r: Resolved, rule: Check) -> Iterator[Finding]:
    """One finding over all of them: a hood, or types made for daylight."""
    yield from rule.over(r, _suffering(r, "sun"), unit="in the sun")


@check(
    "parts.too-hot",
    severity="judge",
    title="Goes dark when hot",
    measures="liquid crystal displays on a panel that gets hot",
    source=Source(kind="memory", note="data sheets of display modules: about 60 °C"),
    reads=READS,
)
def too_hot(r: Resolved, rule: Check) -> Iterator[Finding]:
    """One finding over all of them: choose digits, or keep the heat away."""
    yield from rule.over(r, _suffering(r, "heat"), unit="too hot")


@check(
    "parts.dazzles",
    severity="judge",
    title="Dazzles in the dark",
    measures="lamps that cannot be dimmed on a panel that is read in the dark",
    source=Source(kind="practice", note="clear lamps dazzle in a dark room"),
    reads=READS,
)
def dazzles(r: Resolved, rule: Check) -> Iterator[Finding]:
    """One finding over all of them: a type that dims, or a milky one with a larger resistor."""
    yield from rule.over(r, _suffering(r, "dark"), unit="undimmed")
