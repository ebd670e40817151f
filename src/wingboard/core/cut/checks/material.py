"""Materials that hurt somebody when they are cut the usual way."""

from __future__ import annotations

from collections.abc import Iterator

from wingboard.core.findings.finding import Finding
from wingboard.core.findings.registry import Check, check
from wingboard.core.record.base import Source
from wingboard.core.record.materials import materials
from wingboard.core.resolved.design import Resolved


@check(
    "cut.unsafe-material",
    severity="must",
    title="Never under a laser",
    measures="sheets that give off poison or burn badly in a laser, unless every machine of the workshop is another",
    source=Source(kind="practice", note="PVC gives chlorine; polycarbonate and ABS burn and smoke"),
    reads=("brief", "modules", "stack", "workshop", "limits"),
    hurts=True,
)
def unsafe_material(r: Resolved, rule: Check) -> Iterator[Finding]:
    """PVC stops; polycarbonate and ABS want a second thought. A workshop whose machines are no laser may have them."""
    machines = r.design.workshop.machines
    if machines and all(m.kind != "laser" for m in machines):
        return
    for use in r.layers:
        layer, known = use.layer, materials()[use.layer.material]
        if known.laser == "poison":
            yield rule.finding(
                *use.subjects,
                detail=f"{layer.name} is {known.name}: a laser sets chlorine free, which harms you and the machine. "
                "Mill it or take acrylic.",
                source=known.sources["processes"],
            )
        elif known.laser == "burns":
            yield rule.finding(
                *use.subjects,
                detail=f"{layer.name} is {known.name}: it melts, burns and smokes in a laser. Mill it.",
                severity="judge",
                source=known.sources["processes"],
            )
