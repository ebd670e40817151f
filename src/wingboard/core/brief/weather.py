"""What sun, rain and heat do to the materials of sheets: for the sheets chosen, and for those to choose from."""

from __future__ import annotations

from wingboard.core.findings.limits import limit
from wingboard.core.record.design import Design
from wingboard.core.record.materials import materials
from wingboard.core.record.workshop import Material


def suffers(design: Design, material: Material) -> dict[str, str]:
    """What a material does not stand of what this panel has to, each with the reason in words."""
    known, environment = materials()[material], design.brief.environment
    found: dict[str, str] = {}
    if environment.wet and known.wet != "stands":
        found["wet"] = f"{known.wet} when it gets wet"
    if environment.sun and known.sun != "stands":
        found["sun"] = f"{known.sun} in the sun"
    if environment.heat and known.soft is not None and known.soft < limit(design, "hot-surface"):
        found["heat"] = f"gives way at {known.soft:g} °C"
    return found
