"""Words that are missing, too small for the eye, or on a seam; placards and graphics covered; traces missed."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence

import numpy as np

from wingboard.core.changes.commands.graphics import RemoveGraphic
from wingboard.core.changes.commands.legends import SetStyle
from wingboard.core.changes.commands.places import PlacePart
from wingboard.core.face.checks.spots import at
from wingboard.core.face.graphics import Drawing, graphic_shapes
from wingboard.core.face.legend import letterings, words_on_panel
from wingboard.core.face.reach import Sight, cap_needed, sight
from wingboard.core.face.reference import traced_holes
from wingboard.core.findings.facets import FACETS
from wingboard.core.findings.finding import Finding, Fix, Measure
from wingboard.core.findings.limits import limit
from wingboard.core.findings.registry import Check, Figures, check
from wingboard.core.quantity import VISIBLE
from wingboard.core.record.base import Source
from wingboard.core.record.functions import Function
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule


@check(
    "face.legend-missing",
    severity="judge",
    title="Positions without a word",
    measures="selectors placed with fewer words than positions in use",
    source=Source(kind="practice", note="each control has a name, each position a word"),
    reads=(*FACETS, "accepted"),
)
def words_missing(r: Resolved, rule: Check) -> Iterator[Finding]:
    """One finding over the selectors and levers of three ways whose positions have no words; dummies apart."""
    bare = [
        p.function
        for p in r.placed
        if (p.part.detents or len(p.part.positions) > 2)
        and len([w for w in p.function.positions if w]) < 2
        and p.function.state != "dummy"
        and not (p.function.legend and p.function.legend.hidden)
    ]
    yield from rule.over(r, bare, unit="without words")


SEEN = Source(kind="memory", note="MIL-STD-1472: 16 minutes of arc; 3.3 mm at 710 mm")
BY_DISTANCE = "cap height, against 2·d·tan(α/2) at the eye's distance, over cos φ where the panel is seen aslant"


@check(
    "face.legend-small",
    severity="judge",
    title="Too small to read",
    measures=BY_DISTANCE,
    limits=("legend-angle",),
    source=SEEN,
    fixes="sets all words larger",
    reads=(*FACETS, "accepted"),
)
def legend_small(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Words on the face that the eye, where the brief has it, cannot read."""
    yield from _too_small(r, rule, inside=False)


@check(
    "face.lens-small",
    severity="judge",
    title="Too small to read on its lens",
    measures=BY_DISTANCE,
    limits=("legend-angle",),
    source=SEEN,
    reads=(*FACETS, "accepted"),
)
def lens_small(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Words on lenses that the eye cannot read: fewer letters, or a larger lens."""
    yield from _too_small(r, rule, inside=True)


def _too_small(r: Resolved, rule: Check, inside: bool) -> Iterator[Finding]:
    seen = sight(r)
    if seen is None:
        return
    need = cap_needed(seen, rule.limit(r.design))
    small = _smaller(r, need, inside)

    def figures(functions: Sequence[Function]) -> Figures:
        names = ", ".join(f.name for f in functions[:3]) + (" …" if len(functions) > 3 else "")
        worst = min(small[f.id] for f in functions)
        return Figures(f"{len(functions)}: {names}", Measure(value=worst), Measure(value=need))

    fix = None if inside else (lambda functions: _larger(r, seen, need))
    yield from rule.over(r, [r.functions[ident] for ident in small], fix=fix, figures=figures)


def _smaller(r: Resolved, need: float, inside: bool) -> dict[str, float]:
    """The least cap height of each function whose words are too small, on the face or on lenses."""
    letters = letterings(r)
    found: dict[str, float] = {}
    for p in r.placed:
        caps = [w.run.cap for w in letters[p.number].words if not w.symbol]
        if letters[p.number].inside is inside and caps and min(caps) < need - VISIBLE:
            found[p.function.id] = min(caps)
    return found


def _larger(r: Resolved, seen: Sight, need: float) -> Fix | None:
    style = r.design.style
    cap = math.ceil(need * 10) / 10
    if min(style.name_cap, style.position_cap) >= need - VISIBLE:
        return None
    command = SetStyle(position_cap=max(style.position_cap, cap), name_cap=max(style.name_cap, cap))
    return Fix(label=f"Set letters at least {cap:.1f} mm high", commands=(command,))


@check(
    "face.legend-at-seam",
    severity="judge",
    title="Legend on a seam",
    measures="from words to the edge where the next module begins",
    limits=("seam-clearance",),
    source=Source(kind="practice", note="a legend may not lie across a seam"),
)
def words_at_seam(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Words so near to a neighbouring module that they seem to belong to both."""
    need = rule.limit(r.design)
    words, found = words_on_panel(r)
    for i, (placed, word) in enumerate(found):
        others = [m.area_in_opening for m in r.modules.values() if m.module.id != placed.place.module]
        apart = min((float(other.distance(words.cores[i])) for other in others), default=math.inf) - words.radii[i]
        if apart < need - VISIBLE:
            yield rule.finding(
                placed.function.id,
                detail=f"“{word.run.text}” of {placed.function.name}",
                spot=at(r.modules[placed.place.module], placed.place.x + word.x, placed.place.y + word.y),
                measured=Measure(value=float(apart)),
                needed=Measure(value=need),
                extra=f"{word.role}-{letterings(r)[placed.number].words.index(word)}",
            )


@check(
    "face.placard-covered",
    severity="must",
    title="Placard covered",
    measures="between a required placard and what covers the face, or other words",
    limits=("legend-clearance",),
)
def placard_covered(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Placards under a knob, a guard, a screw or other words."""
    yield from _clashes(r, rule, placards=True)


@check(
    "face.graphic-clash",
    severity="judge",
    title="A line runs into something",
    measures="between brackets, boxes, texts and symbols, and what covers the face, other words or the edge",
    limits=("legend-clearance",),
    fixes="takes the graphic off",
)
def graphic_clash(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Graphics that are cut through or hidden."""
    yield from _clashes(r, rule, placards=False)


def _clashes(r: Resolved, rule: Check, placards: bool) -> Iterator[Finding]:
    need = limit(r.design, "legend-clearance")
    for ident, (module, drawing, other, gap) in _worst(r, need).items():
        if (drawing.graphic.kind == "placard") is not placards:
            continue
        x0, y0, x1, y1 = drawing.room
        take = Fix(label="Take it off the face", commands=(RemoveGraphic(graphic=ident),))
        yield rule.finding(
            ident,
            detail=f"{drawing.graphic.kind} “{drawing.graphic.text or drawing.graphic.symbol or ''}” and {other}",
            spot=at(module, (x0 + x1) / 2, (y0 + y1) / 2),
            measured=Measure(value=gap),
            needed=Measure(value=need),
            fix=None if placards else take,
        )


def _worst(r: Resolved, need: float) -> dict[str, tuple[ResolvedModule, Drawing, str, float]]:
    shapes, drawings = graphic_shapes(r)
    worst: dict[str, tuple[ResolvedModule, Drawing, str, float]] = {}
    if not drawings:
        return worst

    def note(i: int, other: str, gap: float) -> None:
        module, drawing = drawings[i]
        if drawing.graphic.id not in worst or gap < worst[drawing.graphic.id][3]:
            worst[drawing.graphic.id] = (module, drawing, other, gap)

    covers = r.panel.envelopes("cover")
    for i, j, gap in shapes.near(covers, need - VISIBLE):
        note(i, r.panel.owner_name(int(covers.owners[j])), gap)
    words, found = words_on_panel(r)
    for i, j, gap in shapes.near(words, need - VISIBLE):
        note(i, f"“{found[j][1].run.text}” of {found[j][0].function.name}", gap)
    for near in shapes.closer_than(need - VISIBLE):
        kinds = [drawings[i][1].graphic.kind for i in near[:2]]
        if "placard" in kinds:
            i, j = (near.a, near.b) if kinds[0] == "placard" else (near.b, near.a)
            note(i, f"{drawings[j][1].graphic.kind} “{drawings[j][1].graphic.text}”", near.gap)
    for module in r.modules.values():
        which = np.array([i for i, (on, _) in enumerate(drawings) if on is module], dtype=np.int64)
        for i, margin in zip(which, shapes.margins_of(which, module.area_in_opening), strict=True):
            if margin < -VISIBLE:
                note(int(i), "the plate's edge", float(margin))
    return worst


@check(
    "face.trace-missed",
    severity="judge",
    title="Beside its trace",
    measures="from a hole to the circle traced for it on the reference picture",
    limits=("trace-deviation",),
    source=Source(kind="computed", note="hole centre less the centre of the circle through the traced points"),
    fixes="moves the part onto its trace",
)
def trace_missed(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Placed parts that are not where the picture has them."""
    most = rule.limit(r.design)
    for reference in r.design.references:
        for hole in traced_holes(r, reference):
            function = r.functions.get(hole.function or "")
            if function is None or function.place is None or hole.off_centre is None or hole.off_centre <= most:
                continue
            x, y = round(hole.circle.x, 2), round(hole.circle.y, 2)
            turn = function.place.turn
            yield rule.finding(
                function.id,
                detail=f"{function.name}; the trace is round within {hole.circle.residual:.2f} mm",
                spot=at(r.modules[reference.module], hole.circle.x, hole.circle.y),
                measured=Measure(value=hole.off_centre),
                needed=Measure(value=most),
                most=True,
                fix=None
                if function.locked
                else lambda: Fix(
                    label="Move it onto its trace",
                    commands=(PlacePart(function=function.id, module=reference.module, x=x, y=y, turn=turn),),
                ),
            )
