"""Whether old holes are hidden, patches lie on plain plate, and words in film can be made."""

from __future__ import annotations

import math
from collections.abc import Iterator
from functools import partial

from wingboard.core.changes.commands.cutting import EditPatch, RemovePatch, SetLettering
from wingboard.core.changes.commands.workshop import EditMachine
from wingboard.core.cut.checks.machines import READS, USUAL_ENGRAVER
from wingboard.core.cut.lettered import narrowest, way_of
from wingboard.core.cut.oldholes import MARGIN, judged_holes
from wingboard.core.cut.patched import ASIDE, HIGH, free_spot, lettering_of, met_by
from wingboard.core.cut.pieces import whole_pieces
from wingboard.core.cut.scenes import graphic_items, lettering_items
from wingboard.core.cut.sheets import machine_for
from wingboard.core.face.checks.spots import at
from wingboard.core.face.lettering import run
from wingboard.core.face.reach import cap_needed, sight
from wingboard.core.findings.facets import Facet
from wingboard.core.findings.finding import Finding, Fix, Measure
from wingboard.core.findings.registry import Check, check
from wingboard.core.quantity import VISIBLE
from wingboard.core.record.base import Source
from wingboard.core.record.cutting import Lettering, Patch
from wingboard.core.record.workshop import Machine
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule

WORDS: tuple[Facet, ...] = (*READS, "legends", "style")
STROKE = 0.7
"""A stroke of adhesive film narrower than this (mm) comes off with the tape (common practice)."""


@check(
    "cut.old-hole",
    severity="judge",
    title="An old hole stays in sight",
    measures="from an old hole to the opening or edge that would show it; negative by how far it reaches in",
    source=Source(kind="practice", note="reused, or covered with 3 mm of plate round it"),
    reads=READS,
)
def old_hole(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Old holes that are neither taken up by a new opening nor covered by plate, part or patch."""
    for module in r.modules.values():
        for n, found in enumerate(judged_holes(r, module), 1):
            if found.standing == "open":
                hole = found.hole
                yield rule.finding(
                    module.module.id,
                    detail=f"{hole.name or f'old hole {n}'}, {hole.diameter:g} mm at {hole.x:g}, {hole.y:g} of "
                    f"{module.module.name}, and {found.by}",
                    spot=at(module, hole.x, hole.y),
                    measured=Measure(value=found.gap),
                    needed=Measure(value=MARGIN),
                    extra=str(n),
                )


@check(
    "cut.patch-meets",
    severity="must",
    title="A patch lies on something",
    measures="how far a patch reaches over an opening or a part's cover",
    source=Source(kind="computed", note="the patch as a rectangle, against openings and covers"),
    fixes="takes the patch away",
    reads=READS,
)
def patch_meets(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Patches that would cover what is still wanted."""
    for patch in r.design.cutting.patches:
        module = r.modules.get(patch.module)
        met = met_by(module, patch) if module else None
        if module and met and met.by > VISIBLE:
            yield rule.finding(
                patch.id,
                detail=f"{module.module.name}, patch {patch.text or patch.id}, and {met.name}",
                spot=at(module, patch.x, patch.y),
                measured=Measure(value=-met.by),
                needed=Measure(value=0.0),
                fix=Fix(label="Take the patch away", commands=(RemovePatch(patch=patch.id),)),
            )


@check(
    "cut.patch-small",
    severity="judge",
    title="A label too small to read",
    measures="cap height of a patch's words as they fit on it, against 2·d·tan(α/2) at the eye's distance",
    limits=("legend-angle",),
    source=Source(kind="memory", note="MIL-STD-1472: 16 minutes of arc; 3.3 mm at 710 mm"),
    fixes="makes the patch as large as its words need, there or where it is free",
    reads=(*WORDS, "brief"),
)
def patch_small(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Patches whose words had to be made so small that the eye, where the brief has it, cannot read them."""
    seen = sight(r)
    if seen is None:
        return
    need = cap_needed(seen, rule.limit(r.design))
    for patch in r.design.cutting.patches:
        line, module = lettering_of(r, patch), r.modules.get(patch.module)
        if line is not None and module is not None and line.cap < need - VISIBLE:
            yield rule.finding(
                patch.id,
                detail=f"{module.module.name}, patch {patch.text}",
                spot=at(module, patch.x, patch.y),
                measured=Measure(value=line.cap),
                needed=Measure(value=need),
                fix=partial(_larger, r, patch, need),
            )


def _larger(r: Resolved, patch: Patch, need: float) -> list[Fix]:
    """A patch on which its words are as large as the eye needs."""
    cap = math.ceil(need * 10) / 10
    wide = math.ceil(run(patch.text, cap).width + 2 * ASIDE + 0.5)
    width, height = max(patch.width, wide), max(patch.height, math.ceil(cap / HIGH))
    grown = patch.model_copy(update={"width": float(width), "height": float(height)})
    module = r.modules[patch.module]
    if r.design.style.name_cap < need - VISIBLE:
        return []
    command = EditPatch(patch=patch.id, width=grown.width, height=grown.height)
    if met_by(module, grown) is None:
        return [Fix(label=f"{width:g} × {height:g} mm", commands=(command,))]
    spot = free_spot(module, (grown.width, grown.height))
    if spot is None:
        return []
    there = command.model_copy(update={"x": spot[0], "y": spot[1]})
    return [Fix(label=f"{width:g} × {height:g} mm at {spot[0]:g}, {spot[1]:g}", commands=(there,))]


def _engraved(r: Resolved, module: ResolvedModule, way: Lettering | None = None) -> Fix:
    """The words engraved instead; a mill that makes the face has something to engrave with then."""
    commands: list[SetLettering | EditMachine] = [SetLettering(module=module.module.id, way=way)]
    face = next((p for p in whole_pieces(r) if p.module is module and p.layer and p.layer.role == "face"), None)
    machine = machine_for(r.design, face) if face else None
    if isinstance(machine, Machine) and machine.kind == "mill" and all(t.kind != "engraver" for t in machine.tools):
        commands.append(EditMachine(machine=machine.id, tools=(*machine.tools, USUAL_ENGRAVER)))
    return Fix(label="Engrave and fill" if way else "Engrave the words", commands=tuple(commands))


@check(
    "cut.vinyl-thin",
    severity="judge",
    title="Letters too thin for adhesive film",
    measures="the narrowest mean stroke of a word that is cut in film: twice its area by the way round it",
    source=Source(kind="practice", note="under 0.7 mm letters come off with the transfer tape"),
    fixes="has the words printed, masked or engraved instead",
    reads=WORDS,
)
def vinyl_thin(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Faces whose words are cut in film that is too small to be weeded."""
    for module in r.modules.values():
        if way_of(r, module) != "vinyl":
            continue
        least, label = narrowest([*lettering_items(r, module), *graphic_items(r, module)])
        if label and least < STROKE - VISIBLE / 10:
            yield rule.finding(
                module.module.id,
                detail=f"{module.module.name}: {label}",
                measured=Measure(value=least),
                needed=Measure(value=STROKE),
                fix=partial(_engraved, r, module),
            )


@check(
    "cut.film-hidden",
    severity="must",
    title="The printed film lies behind an opaque face",
    measures="faces that are not clear, with words on a film behind them",
    source=Source(kind="computed", note="a film behind a face is read through it"),
    fixes="engraves the words instead",
    reads=READS,
)
def film_hidden(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Films that nobody can see."""
    for module in r.modules.values():
        face = next((layer for layer in module.stack if layer.role == "face"), None)
        if way_of(r, module) == "film" and face is not None and (face.opacity != "clear" or face.paint):
            yield rule.finding(
                module.module.id,
                detail=f"{module.module.name}, {face.name.lower()}",
                measured=Measure(value=1, unit="face"),
                needed=Measure(value=0, unit="faces"),
                most=True,
                fix=partial(_engraved, r, module),
            )


@check(
    "cut.mask-by-mill",
    severity="judge",
    title="A mill cuts no film",
    measures="faces whose film is to be cut through, that a mill or a hand makes",
    source=Source(kind="practice", note="a beam cuts a film and not the sheet; by hand: a knife on the template"),
    fixes="engraves the words, and fills them",
    reads=READS,
)
def mask_by_mill(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Masks without a laser."""
    for piece in whole_pieces(r):
        if piece.layer is None or piece.layer.role != "face" or way_of(r, piece.module) != "mask":
            continue
        machine = machine_for(r.design, piece)
        if not (isinstance(machine, Machine) and machine.kind == "laser"):
            by = machine.name if isinstance(machine, Machine) else "a hand"
            yield rule.finding(
                piece.module.module.id,
                detail=f"{piece.name}, made by {by}",
                measured=Measure(value=1, unit="face"),
                needed=Measure(value=0, unit="faces"),
                most=True,
                fix=partial(_engraved, r, piece.module, "filled"),
            )
