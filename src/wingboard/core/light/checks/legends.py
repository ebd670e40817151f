"""Whether every legend reads at night: even, as bright as the others, lit at all."""

from __future__ import annotations

import math
from collections.abc import Iterator
from functools import partial

import shapely

from wingboard.core.changes.commands.layers import EditLayer
from wingboard.core.changes.commands.legends import EditLegend
from wingboard.core.face.checks.spots import at
from wingboard.core.face.legend import letterings
from wingboard.core.findings.facets import Facet
from wingboard.core.findings.finding import Finding, Fix, Measure
from wingboard.core.findings.limits import limit
from wingboard.core.findings.registry import Check, check
from wingboard.core.light.figures import Night, night_of, standing
from wingboard.core.light.mapping import FOOT
from wingboard.core.light.rings import MARGINS, leds_added, leds_for
from wingboard.core.light.suggest import suggest
from wingboard.core.light.through import way_through
from wingboard.core.record.base import Source
from wingboard.core.record.materials import materials
from wingboard.core.record.modules import Layer
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule
from wingboard.core.resolved.profile import body_shape

READS: tuple[Facet, ...] = ("places", "legends", "parts", "modules", "stack", "style", "limits")
MODEL = Source(kind="computed", note="rays from every lamp past the bodies, spread by the diffuser")


def nights(r: Resolved) -> Iterator[tuple[ResolvedModule, Night]]:
    """Every module that is lit from behind, as it is at night; those not worked out yet are left out."""
    for module in r.modules.values():
        night = night_of(r, module)
        if night is not None:
            yield module, night


def lit_from_behind(module: ResolvedModule) -> bool:
    """Whether a module has any strip or LED."""
    light = module.module.light
    return light is not None and bool(light.strips or light.leds)


@check(
    "light.half-dark",
    severity="judge",
    title="Half its letters stay dark",
    measures="the least light over a legend's letters, of their mean; to fix when patches cannot be read",
    limits=("light-even", "light-patches"),
    source=MODEL,
    fixes="lays LEDs behind its words and round its body, or sets its words further out",
    reads=READS,
)
def half_dark(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Legends that are not even enough; the word that is darkest is named."""
    even, patches = rule.limit(r.design), rule.limit(r.design, 1)
    for module, night in nights(r):
        for legend in night.legends:
            stands = standing(legend.evenness, even, patches)
            if stands != "ok" and legend.mean > 0:
                dark = ", ".join(dict.fromkeys(word or "its marks" for word in legend.dark))
                said = f": {dark}" if dark else ""
                over = ", partly over a hole in the diffuser" if legend.uncovered else ""
                over += ", right before a body" if before_body(night, *legend.worst) else ""
                yield rule.finding(
                    legend.function,
                    detail=f"{legend.name}{said}{over}; {legend.least:.0f} to {legend.mean:.0f} cd/m²",
                    spot=at(module, *legend.worst),
                    measured=Measure(value=round(legend.evenness, 3), unit="least / mean"),
                    needed=Measure(value=even, unit="least / mean"),
                    severity=stands,
                    fix=partial(_even, r, module, night, legend.function, even),
                )


def before_body(night: Night, x: float, y: float) -> bool:
    """Whether a point of the face stands before something that lies on the back of the plate."""
    bodies = night.scene.bodies
    flush = [n for n in range(len(bodies.z0)) if bodies.z0[n] < night.scene.way.plane + FOOT]
    return any(shapely.contains_xy(shapely.Polygon(bodies.corners[n]), x, y) for n in flush)


def _even(r: Resolved, module: ResolvedModule, night: Night, function: str, even: float) -> list[Fix]:
    """LEDs for a legend; or its words further out, where they stand before its own body; or both."""
    leds = _more_leds(r, module, night, function, even)
    placed = next(p for p in module.placed if p.function.id == function)
    legend, body = placed.function.legend, body_shape(placed.part)
    if legend is None or legend.side == "inside" or not placed.function.positions:
        return leds
    out = math.ceil(max(body.span) / 2) + 2
    if (legend.radius or 0) >= out:
        return leds
    further = EditLegend(function=function, radius=out)
    both = [Fix(label=f"{x.label}, its words {out} mm out", commands=(*x.commands, further)) for x in leds[:1]]
    return [*leds, Fix(label=f"Set its words {out} mm from its middle", commands=(further,)), *both]


def _more_leds(r: Resolved, module: ResolvedModule, night: Night, function: str, even: float) -> list[Fix]:
    """Rings of LEDs, each striving for more than is wanted, for what the diffuser blurs is not known beforehand."""
    name, fixes, seen = r.functions[function].name, [], set()
    strips = module.module.light.strips if module.module.light else ()
    for margin in MARGINS:
        ring = leds_for(r, module, night, {function}, even + margin, strips)
        if ring and ring not in seen:
            seen.add(ring)
            words = f"Lay {len(ring)} LEDs round {name}" if len(ring) > 1 else f"Lay an LED behind {name}"
            fixes.append(Fix(label=words, commands=tuple(leds_added(module.module.id, ring))))
    return fixes


@check(
    "light.dim",
    severity="judge",
    title="Dimmer than the others",
    measures="a legend's mean light, of what the legends of the panel have in the middle",
    limits=("light-usual",),
    source=MODEL,
    fixes="lays LEDs behind its words and round its body",
    reads=READS,
)
def dim(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Legends that are even, but much darker than the others of their module."""
    even = limit(r.design, "light-even")
    for module, night in nights(r):
        usual = night.usual
        for legend in night.legends:
            share = legend.mean / usual if usual else 1.0
            if standing(legend.evenness, even, 0) == "ok" and share < rule.limit(r.design):
                yield rule.finding(
                    legend.function,
                    detail=f"{legend.name}: {legend.mean:.0f} cd/m², usual here {usual:.0f}",
                    spot=at(module, *legend.worst),
                    measured=Measure(value=round(share, 3), unit="of the usual"),
                    needed=Measure(value=rule.limit(r.design), unit="of the usual"),
                    fix=partial(_more_leds, r, module, night, legend.function, even),
                )


def _stack_name(r: Resolved, module: ResolvedModule) -> str | None:
    return module.module.id if module.module.stack is not None else None


@check(
    "light.layer-stops",
    severity="must",
    title="A layer lets no light through",
    measures="layers behind the face that are opaque, or of which nothing is said, on a module lit from behind",
    source=Source(kind="computed", note="light from behind has to pass every layer but the engraved face"),
    fixes="makes the layer clear, where its material is sold so",
    reads=("modules", "stack"),
)
def layer_stops(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Lit modules whose light ends at a layer."""
    for module in r.modules.values():
        if not lit_from_behind(module):
            continue
        way = way_through(module.stack, module.plates)
        for layer in way.stops:
            said = "opaque" if layer.opacity else "not said to be clear"
            yield rule.finding(
                module.module.id,
                layer.id,
                detail=f"{layer.name} of {module.module.name}, {said}",
                fix=_made(r, module, layer, "clear"),
            )
        if not way.stops and way.transmission == 0:
            yield rule.finding(
                module.module.id,
                detail=f"{module.module.name}: one opaque sheet, and nothing behind it that light could shine through",
            )


def _made(r: Resolved, module: ResolvedModule, layer: Layer, opacity: str) -> Fix | None:
    if opacity not in materials()[layer.material].light:
        return None
    command = EditLayer.model_validate(
        {"do": "edit_layer", "module": _stack_name(r, module), "layer": layer.id, "opacity": opacity}
    )
    word = "clear" if opacity == "clear" else "milky"
    return Fix(label=f"Make {layer.name} of {word} {materials()[layer.material].name.lower()}", commands=(command,))


@check(
    "light.no-diffuser",
    severity="judge",
    title="Nothing spreads the light",
    measures="milky layers of a module lit from behind",
    source=Source(kind="practice", note="without a milky sheet each LED shows as a point"),
    fixes="makes the layer behind the face milky, where its material is sold so",
    reads=("modules", "stack"),
)
def no_diffuser(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Lit modules through which one sees the LEDs themselves."""
    for module in r.modules.values():
        way = way_through(module.stack, module.plates)
        if lit_from_behind(module) and way.lit and not way.milky:
            behind = module.plates[1:2] or module.plates[:1]
            yield rule.finding(
                module.module.id,
                detail=module.module.name,
                measured=Measure(value=0, unit="milky sheets"),
                needed=Measure(value=1, unit="milky sheets"),
                fix=_made(r, module, behind[0], "translucent"),
            )


@check(
    "light.nothing-lit",
    severity="judge",
    title="Unlit in a dark room",
    measures="modules with words on their face and no light behind them, on a panel that is read in the dark",
    source=Source(kind="practice", note="in a dark room a legend that is not lit cannot be read"),
    fixes="lays strips between the bodies, and LEDs where they shade a legend",
    reads=(*READS, "brief"),
)
def nothing_lit(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Modules that would be lit if they had lamps: their layers let light through."""
    if not r.design.brief.environment.dark:
        return
    for module in r.modules.values():
        words = [p for p in module.placed if letterings(r)[p.number].words and not letterings(r)[p.number].inside]
        if words and not lit_from_behind(module) and way_through(module.stack, module.plates).lit:
            yield rule.finding(
                module.module.id,
                detail=f"{module.module.name}, {len(words)} legends",
                measured=Measure(value=0, unit="lamps behind"),
                needed=Measure(value=1, unit="lamps behind"),
                fix=partial(_strips, r, module),
            )


def _strips(r: Resolved, module: ResolvedModule) -> Fix | None:
    found = suggest(r, module, limit(r.design, "light-even"))
    if not found.commands:
        return None
    return Fix(label="Lay strips and LEDs behind it", commands=found.commands)
