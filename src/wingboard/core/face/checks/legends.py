"""Words that are covered, off their detents, over the edge, missing, or not in the font."""

from __future__ import annotations

import math
import re
from collections.abc import Iterator, Sequence
from functools import partial
from typing import Any

from wingboard.core.changes.commands.functions import EditFunction
from wingboard.core.changes.commands.legends import EditLegend
from wingboard.core.face.checks.spots import at
from wingboard.core.face.legend import Lettering, Word, lettering, letterings, words_inside, words_on_panel
from wingboard.core.face.mover import Mover
from wingboard.core.face.settle import move_to_settle
from wingboard.core.findings.facets import FACETS
from wingboard.core.findings.finding import Finding, Fix, Measure
from wingboard.core.findings.limits import limit
from wingboard.core.findings.registry import Check, check
from wingboard.core.geometry.rounded import gap as distance
from wingboard.core.quantity import TOUCH, VISIBLE
from wingboard.core.record.base import Source
from wingboard.core.record.functions import Function
from wingboard.core.record.legends import written
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule
from wingboard.core.resolved.placed import Placed

MECHANISM = Source(kind="computed", note="360° / ways of the mechanism, kept when a stop limits it")
FONT = Source(kind="computed", note="characters of the font that ships with the application")


@check(
    "face.legend-covered",
    severity="must",
    title="Legend covered",
    measures="between words and a knob, bezel, guard, screw head, other words or the edge",
    limits=("legend-clearance",),
    fixes="sets the words on the other side, in two lines or smaller, or moves the part",
)
def legend_covered(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Each function whose words run into something, with the worst place."""
    need = limit(r.design, "legend-clearance")
    for placed, word, other, gap in _clashes(r, need - VISIBLE).values():
        yield rule.finding(
            placed.function.id,
            detail=f"“{word.run.text}” of {placed.function.name} and {other}",
            spot=at(r.modules[placed.place.module], placed.place.x + word.x, placed.place.y + word.y),
            measured=Measure(value=gap),
            needed=Measure(value=need),
            fix=partial(_clear_words, r, placed),
            extra=word.role,
        )


Clash = tuple[Placed, Word, str, float]


def _clashes(r: Resolved, need: float) -> dict[tuple[int, str], Clash]:
    words, found = words_on_panel(r)
    worst: dict[tuple[int, str], Clash] = {}

    def note(i: int, other: str, gap: float) -> None:
        placed, word = found[i]
        key = (placed.number, word.role)
        if key not in worst or gap < worst[key][3]:
            worst[key] = (placed, word, other, gap)

    for near in words.closer_than(need):
        a, b = (found[i] for i in near[:2])
        later, earlier = (near.b, a) if a[1].role == "name" else (near.a, b)
        note(later, f"“{earlier[1].run.text}” of {earlier[0].function.name}", near.gap)
    covers = r.panel.envelopes("cover")
    for i, j, gap in words.near(covers, need):
        note(i, r.panel.owner_name(int(covers.owners[j])), gap)
    for module in r.modules.values():
        for i, margin in words_inside(r, module):
            if margin < -TOUCH:
                note(i, "the plate's edge", margin)
    return worst


def _clear_words(r: Resolved, placed: Placed) -> Iterator[Fix]:
    """What may be done about words that are covered: the words first, then the part."""
    words = (_other_side(r, placed), _two_lines(r, placed), *_smaller(r, placed))
    yield from (fix for fix in words if fix)
    yield from move_to_settle(r, [placed], "words", "words_edge")


def _clear_with(r: Resolved, placed: Placed, **changes: Any) -> bool:
    """Whether the words would be clear of everything with a legend that is changed so."""
    legend = placed.function.legend
    if legend is None:
        return False
    tried = placed.function.model_copy(update={"legend": legend.model_copy(update=changes)})
    moved = placed._replace(function=tried)
    return max(Mover(r, moved).words_of(lettering(moved, r.design.style))) <= TOUCH


def _two_lines(r: Resolved, placed: Placed) -> Fix | None:
    """The name in two lines, broken where they are most alike."""
    legend = placed.function.legend
    if legend is None or legend.symbol or "|" in legend.text or " " not in legend.text.strip():
        return None
    words = legend.text.split()
    lines = [" ".join(words[:n]) + "|" + " ".join(words[n:]) for n in range(1, len(words))]
    text = min(lines, key=lambda both: abs(both.index("|") - len(both) / 2))
    if not _clear_with(r, placed, text=text):
        return None
    command = EditLegend(function=placed.function.id, text=text)
    return Fix(label=f"Set {placed.function.name} in two lines", commands=(command,))


SMALLER = (0.9, 0.8, 0.7)
"""Shares of its letter height that a name is tried in."""


def _smaller(r: Resolved, placed: Placed) -> Iterator[Fix]:
    """The name in the largest of a few smaller letters that is clear."""
    legend = placed.function.legend
    if legend is None or not legend.text or legend.symbol or legend.side == "inside":
        return
    usual = legend.cap or r.design.style.name_cap
    for share in SMALLER:
        cap = round(usual * share, 1)
        if _clear_with(r, placed, cap=cap):
            command = EditLegend(function=placed.function.id, cap=cap)
            yield Fix(label=f"Set {placed.function.name} {cap:g} mm high", commands=(command,))
            return


def _other_side(r: Resolved, placed: Placed) -> Fix | None:
    """Setting the name on the other side, when that is clear of everything."""
    legend = placed.function.legend
    if legend is None or legend.side not in ("above", "below") or legend.dx or legend.dy or legend.curved:
        return None
    side = "below" if legend.side == "above" else "above"
    if not _clear_with(r, placed, side=side):
        return None
    command = EditLegend.model_validate({"function": placed.function.id, "side": side})
    return Fix(label=f"Set {placed.function.name} {side} its control", commands=(command,))


@check(
    "face.legend-off-detents",
    severity="must",
    title="Legend off the detents",
    measures="degrees between position words as drawn, against the step of the mechanism; or words beyond its ways",
    source=MECHANISM,
    fixes="lets the legend follow the part",
)
def words_off_detents(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Legends drawn for another mechanism, and more words than positions."""
    for module in r.modules.values():
        for placed in module.placed:
            yield from _step_wrong(rule, module, placed)
            yield from _too_many(rule, module, placed)


def _step_wrong(rule: Check, module: ResolvedModule, placed: Placed) -> Iterator[Finding]:
    legend, detents = placed.function.legend, placed.part.detents
    if legend is None or legend.step is None or detents is None or abs(legend.step - detents.step) < 0.05:
        return
    follow = EditLegend(function=placed.function.id, step=None)
    yield rule.finding(
        placed.function.id,
        detail=f"{placed.function.name}: words drawn every {legend.step:g}°, its {detents.ways}-way mechanism "
        f"steps {detents.step:g}°",
        spot=at(module, placed.place.x, placed.place.y),
        measured=Measure(value=legend.step, unit="°"),
        needed=Measure(value=detents.step, unit="°"),
        fix=Fix(label="Let the legend follow the part", commands=(follow,)),
    )


def _too_many(rule: Check, module: ResolvedModule, placed: Placed) -> Iterator[Finding]:
    words, ways = placed.function.positions, placed.part.ways
    if len(words) <= ways or placed.function.legend is None:
        return
    kept = EditFunction(function=placed.function.id, positions=words[:ways])
    yield rule.finding(
        placed.function.id,
        detail=f"{placed.function.name} names {len(words)} positions, the part has {ways}",
        spot=at(module, placed.place.x, placed.place.y),
        measured=Measure(value=len(words), unit="words"),
        needed=Measure(value=ways, unit="positions"),
        most=True,
        source=Source(kind="computed", note="positions of the part"),
        fix=Fix(label=f"Keep the first {ways}" if ways else "Remove the positions", commands=(kept,)),
        extra="count",
    )


@check(
    "face.positions-run-together",
    severity="must",
    title="Positions run together",
    measures="between two position words of one control",
    limits=("legend-clearance",),
    fixes="sets the words on a larger radius",
)
def positions_run_together(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Each control whose position words run into each other, with the worst pair."""
    need = rule.limit(r.design)
    for placed in r.placed:
        worst = _nearest_words(lettering(placed, r.design.style))
        if worst is None or worst[2] >= need - VISIBLE:
            continue
        a, b, apart = worst
        yield rule.finding(
            placed.function.id,
            detail=f"“{a.run.text}” and “{b.run.text}” of {placed.function.name}",
            spot=at(r.modules[placed.place.module], placed.place.x + a.x, placed.place.y + a.y),
            measured=Measure(value=apart),
            needed=Measure(value=need),
            fix=partial(_further_out, r, placed, need),
        )


def _nearest_words(letters: Lettering) -> tuple[Word, Word, float] | None:
    """The two position words that are nearest to each other, and how far apart they are (mm)."""
    words = [w for w in letters.words if w.role == "position"]
    pairs = [(a, b, distance(a.box, b.box)) for n, a in enumerate(words) for b in words[n + 1 :]]
    return min(pairs, key=lambda pair: pair[2], default=None)


RADIUS_STEP, LARGEST_RADIUS = 0.5, 100.0
"""Radii (mm) are tried in such steps, up to the largest."""


def _further_out(r: Resolved, placed: Placed, need: float) -> Fix | None:
    """The least radius on which the words are clear of each other; None where none is."""
    legend = placed.function.legend
    if legend is None:
        return None
    first = math.ceil((legend.radius or max(placed.part.cover.span) / 2) / RADIUS_STEP) * RADIUS_STEP
    radius = first
    while radius <= LARGEST_RADIUS:
        tried = placed.function.model_copy(update={"legend": legend.model_copy(update={"radius": radius})})
        worst = _nearest_words(lettering(placed._replace(function=tried), r.design.style))
        if worst is None or worst[2] >= need:
            command = EditLegend(function=placed.function.id, radius=radius)
            return Fix(label=f"Set the positions on a radius of {radius:g} mm", commands=(command,))
        radius += RADIUS_STEP
    return None


@check(
    "face.detent-unnamed",
    severity="judge",
    title="A detent without a word",
    measures="position words, against the detents that can be turned to",
    source=MECHANISM,
    fixes="leaves the other detents blank, for a stop that keeps the knob from them",
)
def detent_unnamed(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Rotary switches with fewer words than detents, where nobody has said that a stop limits them."""
    for placed in r.placed:
        f, part = placed.function, placed.part
        words = len([w for w in f.positions if w])
        if part.detents is None or f.legend is None or f.legend.hidden or not 0 < words < part.ways:
            continue
        if re.search(rf"\b{len(f.positions)}(?: of \d+)? ?-?(?:ways?|positions)\b|\b{len(f.positions)} of \d", f.want):
            continue
        limited = f"{f.want}, {words} of {part.ways} ways".lstrip(", ")
        yield rule.finding(
            f.id,
            detail=f"{f.name}: {words} words, its mechanism has {part.ways} detents",
            spot=at(r.modules[placed.place.module], placed.place.x, placed.place.y),
            measured=Measure(value=words, unit="words"),
            needed=Measure(value=part.ways, unit="detents"),
            fix=Fix(label=f"Set its stop to {words} ways", commands=(EditFunction(function=f.id, want=limited[:120]),)),
        )


@check(
    "face.not-in-font",
    severity="must",
    title="Letters the font lacks",
    measures="characters of a legend that cannot be drawn",
    source=FONT,
)
def not_in_font(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Functions whose words would be cut incomplete."""
    letters = letterings(r)
    for module in r.modules.values():
        for placed in module.placed:
            missing = "".join(dict.fromkeys("".join(w.run.missing for w in letters[placed.number].words)))
            if missing:
                yield rule.finding(
                    placed.function.id,
                    detail=f"{placed.function.name}: “{missing[:12]}” would be left out",
                    spot=at(module, placed.place.x, placed.place.y),
                    measured=Measure(value=len(missing), unit="letters"),
                    needed=Measure(value=0, unit="letters"),
                    most=True,
                )


@check(
    "face.no-legend",
    severity="judge",
    title="Without a name on the face",
    measures="placed controls and lights without words",
    fixes="sets each function's name by rule",
    reads=(*FACETS, "accepted"),
)
def no_legend(r: Resolved, rule: Check) -> Iterator[Finding]:
    """One finding over all placed functions without words."""
    bare = [p.function for p in r.placed if p.function.legend is None]
    yield from rule.over(r, bare, unit="bare", fix=partial(_named_all, r))


def _named_all(r: Resolved, bare: Sequence[Function]) -> Fix:
    upper = r.design.style.upper
    commands = tuple(EditLegend(function=f.id, text=written(f.name, upper)) for f in bare)
    return Fix(label="Name them all", commands=commands)


@check(
    "face.not-placed",
    severity="note",
    title="Still in the tray",
    measures="functions with a part but without a place",
    source=Source(kind="computed", note="functions of the brief"),
)
def not_placed(r: Resolved, rule: Check) -> Iterator[Finding]:
    """One finding over all functions that wait for a place."""
    waiting = [f for f in r.design.functions if f.part and f.place is None]
    yield from rule.over(r, waiting, unit="in the tray")
