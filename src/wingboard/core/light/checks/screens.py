"""Films over read-outs and screens, and screens that are looked at from too far aside."""

from __future__ import annotations

from collections.abc import Iterator
from typing import get_args

from wingboard.core.changes.commands.functions import EditFunction
from wingboard.core.face.checks.spots import of
from wingboard.core.findings.facets import Facet
from wingboard.core.findings.finding import Finding, Fix, Measure
from wingboard.core.findings.registry import Check, check
from wingboard.core.light.screens import CONE, GLOWS, Screen, passes, screens_of
from wingboard.core.quantity import VISIBLE
from wingboard.core.record.base import Source
from wingboard.core.record.functions import Film
from wingboard.core.resolved.design import Resolved

PASSED = Source(kind="memory", note="filter makers' tables: own colour 80 %, another 5 %, grey 30 %, clear 90 %")
READS: tuple[Facet, ...] = ("wishes", "parts", "places", "modules", "limits")

FILMS: tuple[Film, ...] = get_args(Film)


def _film(screen: Screen, film: Film) -> Fix:
    words = "A clear cover" if film == "clear" else f"A {film} film"
    return Fix(label=f"{words} over it", commands=(EditFunction(function=screen.placed.function.id, film=film),))


@check(
    "light.segments-bare",
    severity="judge",
    title="Segments show when they are off",
    measures="LED digits without a film, against one of their own colour",
    source=Source(kind="practice", note="a film of their colour hides dark segments and lets lit ones through"),
    fixes="lays a film of their colour over them",
    reads=READS,
)
def segments_bare(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Digits of LEDs behind a bare window."""
    for screen in screens_of(r):
        if screen.glow == "led" and screen.film is None:
            own: Film = next((film for film in FILMS if film == screen.colour), "grey")
            yield rule.finding(
                screen.placed.function.id,
                detail=f"{screen.placed.function.name}, {screen.colour or 'white'} digits",
                spot=of(screen.placed),
                measured=Measure(value=0, unit="films"),
                needed=Measure(value=1, unit="films"),
                fix=_film(screen, own),
            )


@check(
    "light.film-dark",
    severity="judge",
    title="Its film takes the picture's light",
    measures="the share of a screen's light that its film lets through",
    limits=("film-passes",),
    source=PASSED,
    fixes="takes a clear one, or one of its colour",
    reads=READS,
)
def film_dark(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Screens under a dark film, and digits under one of another colour."""
    least = rule.limit(r.design)
    for screen in screens_of(r):
        if screen.film is not None and screen.passes < least - 1e-9:
            better = [film for film in FILMS if passes(screen.colour, film) >= least]
            own: Film = next((film for film in better if film == screen.colour), "clear")
            yield rule.finding(
                screen.placed.function.id,
                detail=f"{screen.placed.function.name}: {screen.film} over {screen.colour or GLOWS[screen.glow]}",
                spot=of(screen.placed),
                measured=Measure(value=screen.passes, unit="of the light"),
                needed=Measure(value=least, unit="of the light"),
                fix=_film(screen, own) if own in better else None,
            )


@check(
    "light.screen-bare",
    severity="note",
    title="Nothing covers a screen",
    measures="liquid crystals and OLEDs behind a bare window, against a clear cover",
    source=Source(kind="practice", note="a finger or a rag scratches the glass, dust gets behind the face"),
    fixes="lays a clear cover over it",
    reads=READS,
)
def screen_bare(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Screens of glass that can be touched."""
    for screen in screens_of(r):
        if screen.glow != "led" and screen.film is None:
            yield rule.finding(
                screen.placed.function.id,
                detail=f"{screen.placed.function.name}, {GLOWS[screen.glow]}",
                spot=of(screen.placed),
                measured=Measure(value=0, unit="covers"),
                needed=Measure(value=1, unit="covers"),
                fix=_film(screen, "clear"),
            )


@check(
    "light.seen-aslant",
    severity="judge",
    title="Looked at from too far aside",
    measures="from square to where the eye is, against what this kind of screen allows",
    source=Source(kind="memory", note="; ".join(f"{GLOWS[g]} {c:.0f}°" for g, c in CONE.items())),
    reads=("wishes", "parts", "places", "modules", "brief"),
)
def seen_aslant(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Screens that pale or turn over from where they are looked at; move them to the middle, or tilt the panel."""
    for screen in screens_of(r):
        if screen.aslant is not None and screen.aslant > screen.cone + VISIBLE:
            yield rule.finding(
                screen.placed.function.id,
                detail=f"{screen.placed.function.name}, {GLOWS[screen.glow]}",
                spot=of(screen.placed),
                measured=Measure(value=screen.aslant, unit="°"),
                needed=Measure(value=screen.cone, unit="°"),
                most=True,
            )
