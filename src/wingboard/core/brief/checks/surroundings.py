"""Sheets that do not stand where the panel is, and what visitors and children could touch."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial

from wingboard.core.brief.weather import suffers
from wingboard.core.changes.commands.modules import EditModule
from wingboard.core.findings.facets import Facet
from wingboard.core.findings.finding import Finding, Fix, Measure, Spot
from wingboard.core.findings.limits import limit
from wingboard.core.findings.registry import Check, check
from wingboard.core.quantity import VISIBLE
from wingboard.core.record.base import Source
from wingboard.core.record.materials import materials
from wingboard.core.record.outlines import RectOutline
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule
from wingboard.core.resolved.screws import sharp_corners

READS: tuple[Facet, ...] = ("brief", "modules", "stack", "limits")


@check(
    "brief.material-weather",
    severity="judge",
    title="Does not stand it there",
    measures="what a layer's material does in sun, rain and heat, where the panel has to stand them; in heat the "
    "temperature at which it gives way",
    limits=("hot-surface",),
    source=Source(kind="practice", note="materials, each value with its own source in the table"),
    reads=READS,
)
def material_weather(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Layers whose material swells, rusts, yellows or gives way."""
    for use in r.layers:
        known = materials()[use.layer.material]
        for what, why in suffers(r.design, use.layer.material).items():
            hot = what == "heat" and known.soft is not None
            yield rule.finding(
                *use.subjects,
                detail=f"{use.layer.name}, {known.name}, {why}",
                measured=Measure(value=known.soft or 0.0, unit="°C") if hot else None,
                needed=Measure(value=rule.limit(r.design), unit="°C") if hot else None,
                source=known.sources["soft" if hot else "weather"],
                extra=what,
            )


@check(
    "brief.thin-and-brittle",
    severity="judge",
    title="Cracks under a knock",
    measures="thickness of a brittle face with no plate behind it, where visitors or children come near",
    source=Source(kind="practice", note="a brittle face under 3 mm wants a back plate"),
    reads=READS,
)
def thin_and_brittle(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Single plates of a brittle material, too thin to be alone."""
    if not r.design.brief.environment.public:
        return
    for module in r.modules.values():
        face, known = module.plates[0], materials()[module.plates[0].material]
        if len(module.plates) == 1 and known.brittle and face.thickness < known.backed - VISIBLE:
            yield rule.finding(
                module.module.id,
                detail=f"{module.module.name}: {face.thickness:g} mm {known.name}, alone",
                measured=Measure(value=face.thickness),
                needed=Measure(value=known.backed),
            )


@check(
    "brief.public-voltage",
    severity="must",
    title="Visitors could touch it",
    measures="volts of a load that a control carries itself, where visitors or children come near",
    limits=("public-ac", "public-dc"),
    reads=("brief", "wishes", "limits"),
    hurts=True,
)
def public_voltage(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Loads above what may be touched bare, carried by the control and not by a relay away from the panel."""
    if not r.design.brief.environment.public:
        return
    for f in r.design.functions:
        load = f.switches
        most = limit(r.design, "public-ac" if load.alternating else "public-dc")
        if load.volts > most and not load.through and f.state != "alias":
            yield rule.finding(
                f.id,
                detail=f"{f.name}: keep it off the panel, and let a relay or a contactor carry it",
                measured=Measure(value=load.volts, unit=f"V {load.kind}"),
                needed=Measure(value=most, unit=f"V {load.kind}"),
                most=True,
            )


@check(
    "brief.sharp-corner",
    severity="judge",
    title="Sharp corner",
    measures="radius of a plate's corners, where visitors or children come near",
    limits=("corner-radius",),
    fixes="rounds the corners of a rectangular plate",
    reads=READS,
)
def sharp_corner(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Plates with corners that hurt."""
    if not r.design.brief.environment.public:
        return
    need = rule.limit(r.design)
    for module in r.modules.values():
        corners, outline = sharp_corners(module.loop), module.module.outline
        radius = outline.radius if isinstance(outline, RectOutline) else 0.0
        if not corners and not (isinstance(outline, RectOutline) and radius < need - VISIBLE):
            continue
        x, y = corners[0] if corners else (0.0, 0.0)
        yield rule.finding(
            module.module.id,
            detail=f"{module.module.name}: round and smooth its corners",
            spot=Spot(module=module.module.id, x=x, y=y),
            measured=Measure(value=radius),
            needed=Measure(value=need),
            fix=partial(_rounded, module, need),
        )


def _rounded(module: ResolvedModule, radius: float) -> Fix | None:
    outline = module.module.outline
    if not isinstance(outline, RectOutline):
        return None
    command = EditModule(module=module.module.id, outline=outline.model_copy(update={"radius": radius}))
    return Fix(label=f"Round them by {radius:g} mm", commands=(command,))
