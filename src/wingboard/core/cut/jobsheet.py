"""The job sheet: what to make, in which order, with the cautions, and what was left unsettled."""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping, Sequence
from typing import NamedTuple

from wingboard.core.cut.knobs import prints, words_of
from wingboard.core.cut.lettered import WORDS, way_of
from wingboard.core.cut.others import others
from wingboard.core.cut.parted import JOINTS, dowel
from wingboard.core.cut.pieces import parted_of, whole_pieces
from wingboard.core.cut.plan import folder_of, planned, sheet_title
from wingboard.core.cut.program import tool_words
from wingboard.core.cut.sheets import Laid, Sheet, layout
from wingboard.core.cut.work import Operation, fit_of
from wingboard.core.files.scene import OPERATIONS, Scene
from wingboard.core.findings.finding import SEVERITY_WORDS, Finding, Severity
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule

CAUTIONS = (
    "Laser: never PVC or vinyl (chlorine), nor polycarbonate or ABS without knowing how it behaves. Extract the fumes, "
    "wear goggles for your wavelength, keep an extinguisher at hand, and never leave it running alone.",
    "Mill and drill: clamp the sheet and a waste board, eyes and ears protected, no gloves near the spindle, masks for "
    "the dust of hardboard and MDF. Acrylic and aluminium want air or a mist at the cutter; liquid and a spindle on "
    "mains do not mix: an earthed spindle, a guarded cable, a residual-current device.",
    "First a trial: the whole job in 5 mm wood or fibreboard, a coupon of hole sizes for the fit, a trial engraving "
    "where the sheet is cut out anyway.",
    "Leave the film on the acrylic; support under every hole; no hole saw in acrylic.",
    "From 50 V AC or 120 V DC on, and mains lamps: a licensed electrician. This is a plan for simulators, props and "
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


def cautions_for(kind: str) -> tuple[str, ...]:
    """The cautions of a machine: a laser's are no mill's."""
    other = "Mill" if kind == "laser" else "Laser"
    return tuple(c for c in CAUTIONS if not c.startswith(other))


class SheetWork(NamedTuple):
    """What a job sheet says of a sheet: its title, its folder, how it lies, its steps with their ticks."""

    title: str
    folder: str
    machine: str
    kind: str
    lies: tuple[str, ...]
    steps: tuple[tuple[str, str, float, bool], ...]


def sheet_work(r: Resolved) -> tuple[SheetWork, ...]:
    """The sheets as a job sheet says them; a step is its id, its words, how long it takes (s), whether it is ticked."""
    done = set(r.design.cutting.done)
    found = []
    for sheet in layout(r).sheets:
        fit = fit_of(r.design, sheet.machine, sheet.material, sheet.thickness)
        stock = "of a sheet on the shelf" if sheet.stock else "to be bought"
        lies = [
            f"{sheet.width:g} x {sheet.height:g} mm, {stock}; its lower left corner at "
            f"{sheet.at[0]:g}, {sheet.at[1]:g} on the bed is the origin",
            "on it: "
            + "; ".join(f"{p.piece.name} at {p.x:.1f}, {p.y:.1f}{' turned' * p.turned}{_up(p)}" for p in sheet.laid),
        ]
        if sheet.machine.kind == "laser":
            known = "measured" if fit.tried else "not measured on this sheet: cut the coupon first"
            taken = "left to the machine's software" if sheet.machine.offsets else "taken off"
            lies.append(f"kerf {fit.kerf:g} mm, {taken} ({known}); holes {fit.wider:g} mm wider")
        if sheet.pins:
            lies.append("turned over about its upright middle: two holes are drilled first, pins hold it by them")
        steps = tuple(
            (step_id(sheet, n, op), step_words(n, op), op.seconds, step_id(sheet, n, op) in done)
            for n, op in enumerate(planned(r, sheet), 1)
        )
        found.append(
            SheetWork(
                sheet_title(sheet), folder_of(r, sheet), sheet.machine.name, sheet.machine.kind, tuple(lies), steps
            )
        )
    return tuple(found)


def _up(laid: Laid) -> str:
    return ", its back up" if laid.piece.side == "behind" else ""


def step_id(sheet: Sheet, n: int, op: Operation) -> str:
    """By which a step's tick is kept."""
    return f"{sheet.id} {n}-{op.kind}"


def step_words(n: int, op: Operation) -> str:
    """A step in one line: its operation, tool, speeds and depth."""
    if not op.cuts:
        return f"{n}. {op.title}: no tool for {', '.join(op.left_out[:4])}"
    speeds = (
        f"{op.feeds.rpm:.0f} a minute, {op.feeds.feed:.0f} mm/min" if op.feeds.rpm else f"{op.feeds.feed:.0f} mm/min"
    )
    side = ", from behind" if op.side == "behind" else ""
    lost = f"; no tool for {', '.join(op.left_out[:4])}" if op.left_out else ""
    many = f"{len(op.cuts)} cut{'' if len(op.cuts) == 1 else 's'}"
    return f"{n}. {op.title}: {many}, {tool_words(op)}, {speeds}, {op.depth:.2f} mm deep{side}{lost}"


def minutes(seconds: float) -> str:
    """Minutes and seconds: ``4:08``."""
    return f"{round(seconds) // 60}:{round(seconds) % 60:02d}"


def _by_machine(r: Resolved) -> list[str]:
    lines: list[str] = []
    for n, work in enumerate(sheet_work(r), 1):
        total = sum(step[2] for step in work.steps)
        lines += ["", f"SHEET {n}: {work.title}, {minutes(total)}", f"  files in {work.folder}/"]
        lines += [f"  {words}" for words in work.lies]
        lines += [f"  [{'x' if done else ' '}] {words}, {minutes(t)}" for _, words, t, done in work.steps]
    lines += [f"  {u.piece.name}: {u.why}" for u in layout(r).unlaid]
    made = others(r)
    lines += ["", "PRINTED, AND IN FILM"] if made else []
    lines += [f"  {f'{o.many} x ' if o.many > 1 else ''}{o.name}: {o.how}; {o.file}" for o in made]
    return lines


def _words_of(r: Resolved, module: ResolvedModule) -> list[str]:
    """How a module's words are made where they are not engraved, how its parted sheets are joined, what is patched."""
    way = way_of(r, module)
    lines = [f"  words: {WORDS[way]}"] if way else []
    lines += [f"  {said}" for said in words_of(module)] if prints(r.design.workshop.machines) else []
    for piece in whole_pieces(r):
        parted = parted_of(r, piece) if piece.module is module else None
        if parted:
            seams = " and ".join(f"{at:g}" for at in parted.at)
            bored = [f"{v:g}" for at in parted.at for v in parted.dowels(at)]
            more = f", {dowel(piece.thickness):g} mm dowels at {', '.join(bored)}" if bored else ""
            lines.append(f"  {piece.name}: parted at {seams} mm, {JOINTS[parted.split.joint]}{more}")
    return lines


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
        lines += _words_of(r, module)
        lines += [f"  drill {d.many} x {d.diameter:.2f} mm in {d.sheet}" for d in drill_schedule(drawn)]
    lines += _by_machine(r)
    return "\n".join([*lines, "", "CAUTIONS", *(f"  {c}" for c in CAUTIONS), ""])
