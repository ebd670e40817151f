"""The job sheet: what to make, in which order, with the cautions, and what was left unsettled."""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping, Sequence
from typing import NamedTuple

from wingboard.core.files.scene import OPERATIONS, Scene
from wingboard.core.findings.finding import SEVERITY_WORDS, Finding, Severity
from wingboard.core.resolved.design import Resolved

CAUTIONS = (
    "Laser: never PVC or vinyl (chlorine), nor polycarbonate or ABS without knowing how it behaves. Extract the fumes, "
    "wear goggles for your wavelength, keep an extinguisher at hand, and never leave it running alone.",
    "Mill and drill: clamp the sheet and a waste board, eyes and ears protected, no gloves near the spindle, masks for "
    "the dust of hardboard and MDF.",
    "First a trial: the whole job in 5 mm wood or fibreboard, a coupon of hole sizes for the fit, a trial engraving "
    "where the sheet is cut out anyway.",
    "Leave the film on the acrylic; support under every hole; no hole saw in acrylic.",
    "Above 50 V AC or 120 V DC, and mains lamps: a licensed electrician. This is a plan for simulators, props and "
    "hobby machines; real aircraft, road vehicles and boats answer to their authority's rules.",
)
"""Common practice; an emergency stop adds its own, see the wire station's checks."""


class Drill(NamedTuple):
    """Round holes of one diameter (mm) in one sheet."""

    sheet: str
    diameter: float
    many: int


def drill_schedule(scenes: dict[str, Scene]) -> tuple[Drill, ...]:
    """How many round holes of which diameter each sheet has, smallest first."""
    found: Counter[tuple[str, float]] = Counter()
    for name, scene in scenes.items():
        for item in scene.of("inner"):
            if item.circle:
                found[name, round(item.circle.diameter, 2)] += 1
    return tuple(Drill(name, diameter, many) for (name, diameter), many in sorted(found.items()))


class Unsettled(NamedTuple):
    """A finding that is still to be fixed or judged, in one line."""

    severity: Severity
    words: str

    def __str__(self) -> str:
        return f"{SEVERITY_WORDS[self.severity].upper()}: {self.words}"


def unsettled(findings: Sequence[Finding]) -> tuple[Unsettled, ...]:
    """A line for each finding that is still to be fixed or judged."""
    lines = []
    for f in findings:
        if f.severity == "note" or not f.unsettled:
            continue
        figures = f": {f.figures()}" if f.figures() else ""
        lines.append(Unsettled(f.severity, f"{_about(f)}{figures}"))
    return tuple(lines)


def _about(finding: Finding) -> str:
    """What a finding says, without a full stop: figures or a reason follow."""
    return f"{finding.title}, {finding.detail}".removesuffix(".")


def job_sheet(r: Resolved, findings: Sequence[Finding], scenes: Mapping[str, dict[str, Scene]]) -> str:
    """The job sheet as plain text.

    :param scenes: what each module's files show, by the module's id (:func:`~wingboard.core.cut.scenes.every_scene`).
    """
    left = unsettled(findings)
    lines = [f"{r.design.name}: job sheet", ""]
    overridden = [f"  {_about(f)}: {f.accepted}" for f in findings if f.overridden]
    lines += ["OVERRIDDEN BY THE BUILDER, WITH REASON", *overridden, ""] if overridden else []
    lines += (
        ["NOT SETTLED BEFORE CUTTING", *(f"  {line}" for line in left)]
        if left
        else ["Nothing is left to fix or to judge."]
    )
    accepted = [f"  {_about(f)}: {f.accepted}" for f in findings if f.accepted and not f.overridden]
    lines += ["", "ACCEPTED, WITH REASON", *accepted] if accepted else []
    for module in r.modules.values():
        drawn = scenes[module.module.id]
        width, height = module.size
        lines += ["", f"{module.module.name}: {width:.1f} x {height:.1f} mm"]
        for scene_id, scene in drawn.items():
            counts = ", ".join(f"{len(scene.of(op))} {op}" for op in OPERATIONS if scene.of(op))
            lines.append(f"  {scene_id}, {scene.thickness:.1f} mm: in this order {counts}")
        lines += [f"  drill {d.many} x {d.diameter:.2f} mm in {d.sheet}" for d in drill_schedule(drawn)]
    return "\n".join([*lines, "", "CAUTIONS", *(f"  {c}" for c in CAUTIONS), ""])
