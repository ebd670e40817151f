"""Which voltages can hurt somebody, and where only a licensed electrician may wire."""

from __future__ import annotations

from wingboard.core.findings.limits import limit
from wingboard.core.record.design import Design
from wingboard.core.record.functions import Switched


def touchable(design: Design, load: Switched) -> float:
    """The voltage (V) from which on a load of its kind, AC or DC, is wired by a licensed electrician."""
    return limit(design, "touch-ac" if load.alternating else "touch-dc")


def dangerous(design: Design, load: Switched) -> bool:
    """Whether a load's voltage can hurt who touches it."""
    return load.volts >= touchable(design, load)
