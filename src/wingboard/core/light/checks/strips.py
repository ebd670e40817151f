"""Whether strips show no spots, end at their marks, and are fed where they need it."""

from __future__ import annotations

import math
from collections.abc import Iterator
from functools import partial

from wingboard.core.changes.commands.lights import EditStrip
from wingboard.core.findings.finding import Finding, Fix, Measure
from wingboard.core.findings.registry import Check, check
from wingboard.core.light.checks.lying import READS, further_back
from wingboard.core.light.kinds import STRIPS
from wingboard.core.light.power import power_of, strip_use
from wingboard.core.light.through import way_through
from wingboard.core.quantity import VISIBLE
from wingboard.core.record.base import Source
from wingboard.core.record.lights import Strip
from wingboard.core.resolved.boards import board_front
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule


@check(
    "light.strip-spots",
    severity="judge",
    title="The strip shows as spots",
    measures="from LED to LED of a strip, against its distance to what spreads its light",
    limits=("led-pitch",),
    fixes="takes a strip with more LEDs, or longer standoffs for the board",
    reads=READS,
)
def strip_spots(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Strips whose LEDs are further apart than they are from the diffuser."""
    for module in r.modules.values():
        light = module.module.light
        way = way_through(module.stack, module.plates)
        if light is None or not way.lit:
            continue
        front = board_front(module.stack)
        for kind in dict.fromkeys(s.kind for s in light.strips):
            mine = [s for s in light.strips if s.kind == kind]
            nearest = min(depth - way.plane_of(depth) for depth in (front if s.z is None else s.z for s in mine))
            most = rule.limit(r.design) * nearest
            pitch = STRIPS[kind].pitch
            if pitch > most + VISIBLE and nearest > 0:
                yield rule.finding(
                    module.module.id,
                    kind,
                    detail=f"{STRIPS[kind].name}, {nearest:.1f} mm behind the diffuser of {module.module.name}",
                    measured=Measure(value=pitch),
                    needed=Measure(value=most),
                    most=True,
                    fix=partial(_denser, r, module, mine, pitch / rule.limit(r.design) - nearest),
                )


def _denser(r: Resolved, module: ResolvedModule, strips: list[Strip], lacks: float) -> list[Fix]:
    found = further_back(module, lacks) if all(s.z is None for s in strips) else []
    twice = {"strip-60": "strip-120", "chain-30": "chain-60"}.get(strips[0].kind)
    if twice:
        commands = [EditStrip.model_validate({"do": "edit_strip", "module": module.module.id, "strip": s.id,
                                              "kind": twice}) for s in strips]  # fmt: skip
        found.insert(0, Fix(label="A strip with twice as many", commands=tuple(commands)))
    return found


@check(
    "light.off-cut",
    severity="note",
    title="A strip ends before its run",
    measures="what of a strip's run stays dark, for strips are cut at their marks only",
    source=Source(kind="practice", note="12 V strips are cut every 3 LEDs"),
    fixes="ends the run at the last mark",
    reads=("modules",),
)
def off_cut(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Strips whose run is more than half an LED's pitch longer than the last cut mark."""
    for module in r.modules.values():
        for n, s in enumerate(module.module.light.strips if module.module.light else (), 1):
            use, kind = strip_use(s), STRIPS[s.kind]
            if use.over > kind.pitch / 2:
                share = (use.cut + 0.005) / use.run
                ends = EditStrip(
                    module=module.module.id, strip=s.id, x2=round(s.x + (s.x2 - s.x) * share, 3),
                    y2=round(s.y + (s.y2 - s.y) * share, 3),
                )  # fmt: skip
                yield rule.finding(
                    module.module.id,
                    s.id,
                    detail=f"strip {n} of {module.module.name}: {use.cut:.0f} of {use.run:.0f} mm, {use.leds} LEDs",
                    measured=Measure(value=use.over),
                    needed=Measure(value=round(kind.pitch / 2, 2)),
                    most=True,
                    fix=Fix(label=f"End it at {use.cut:.0f} mm", commands=(ends,)) if use.leds else None,
                )


@check(
    "light.chain-long",
    severity="judge",
    title="A chain fed from one end",
    measures="addressable LEDs of a module in a row, against where power has to be fed in again",
    limits=("chain-run",),
    reads=("modules", "limits"),
)
def chain_long(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Chains so long that their far end turns dim and red: power is to be fed in at both ends, or more often."""
    for module in r.modules.values():
        light = module.module.light
        leds = sum(strip_use(s).leds for s in light.strips if STRIPS[s.kind].chain) if light else 0
        if leds > rule.limit(r.design):
            feeds = math.ceil(leds / rule.limit(r.design))
            yield rule.finding(
                module.module.id,
                detail=f"{module.module.name}: feed power in at {feeds} places",
                measured=Measure(value=leds, unit="LEDs"),
                needed=Measure(value=rule.limit(r.design), unit="LEDs"),
                most=True,
            )


@check(
    "light.much-current",
    severity="judge",
    title="More than a USB port gives",
    measures="what strips on 5 V take at full brightness, all modules together",
    limits=("usb-supply",),
    reads=("modules", "limits"),
)
def much_current(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Addressable strips that want a supply of their own, with a fuse."""
    lit = [(m, power_of(m.light)) for m in r.design.modules if m.light is not None]
    amps = sum(load.amps for _, power in lit for load in power.loads if load.volts == 5)
    if amps > rule.limit(r.design):
        names = ", ".join(m.name for m, power in lit if any(load.volts == 5 for load in power.loads))
        yield rule.finding(
            detail=f"{names}: a 5 V supply of their own, with a fuse",
            measured=Measure(value=amps, unit="A"),
            needed=Measure(value=rule.limit(r.design), unit="A"),
            most=True,
        )
