"""Where light gets out that should go forward: rooms before a board that are open all round."""

from __future__ import annotations

from collections.abc import Iterator

from wingboard.core.changes.commands.layers import EditLayer
from wingboard.core.findings.finding import Finding, Fix, Measure
from wingboard.core.findings.registry import Check, check
from wingboard.core.light.checks.legends import lit_from_behind
from wingboard.core.record.base import Source
from wingboard.core.record.modules import is_plate
from wingboard.core.resolved.design import Resolved


@check(
    "light.leaks",
    severity="judge",
    title="Light gets out at the sides",
    measures="the room between plate and light board that is open all round, where no case or console is about it",
    source=Source(kind="practice", note="a lit gap glares into the cab, and its light is missing on the face"),
    fixes="closes the room with foam",
    reads=("modules", "stack", "brief"),
)
def leaks(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Lit modules whose light board stands off openly."""
    if r.design.brief.frame is not None:
        return
    for module in r.modules.values():
        if not lit_from_behind(module) or module.module.case is not None:
            continue
        for layer in module.stack:
            if not is_plate(layer) and layer.gap and not layer.edge:
                own = module.module.id if module.module.stack is not None else None
                closing = EditLayer(module=own, layer=layer.id, edge="foam")
                yield rule.finding(
                    module.module.id,
                    detail=f"{module.module.name}, before {layer.name.lower()}",
                    measured=Measure(value=layer.gap, unit="mm open"),
                    needed=Measure(value=0, unit="mm open"),
                    most=True,
                    extra=layer.id,
                    fix=Fix(label="Close it with foam", commands=(closing,)),
                )
