"""Whether it goes in: measured openings, gaps, the tolerance chain, beds, sheets, knees and what stands in front."""

from __future__ import annotations

from collections.abc import Iterator

from wingboard.core.brief.beds import BedFit, bed_fit, longest, over, usable
from wingboard.core.brief.chain import chain
from wingboard.core.brief.seams import seams_between
from wingboard.core.brief.sheets import kinds, sheets_needed, sheets_of, size_of, too_large
from wingboard.core.brief.side import elevation
from wingboard.core.changes.commands.brief import SetBrief
from wingboard.core.changes.commands.modules import ResizeModule, SplitModule
from wingboard.core.findings.finding import Finding, Fix, Measure, Spot
from wingboard.core.findings.limits import limit, source_of
from wingboard.core.findings.registry import Check, check
from wingboard.core.quantity import VISIBLE
from wingboard.core.record.base import Source
from wingboard.core.record.materials import materials
from wingboard.core.record.space import lean
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule

SUM = Source(kind="computed", note="worst case: sum of the tolerances; likely: root of the sum of their squares")
BED = Source(kind="computed", note="bed less its margins, at 0° and 90°")


@check(
    "brief.opening-uneven",
    severity="judge",
    title="The opening is not square",
    measures="between the widths, or the heights, measured at three places",
    limits=("opening-spread",),
    reads=("brief", "modules", "stack", "workshop", "limits"),
)
def opening_uneven(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Openings whose three readings lie apart; the least of them counts for the fit."""
    most = rule.limit(r.design)
    for what, values in (("width", r.design.brief.widths), ("height", r.design.brief.heights)):
        spread = max(values) - min(values) if values else 0.0
        if spread > most + VISIBLE:
            listed = ", ".join(f"{v:.1f}" for v in values)
            yield rule.finding(
                detail=f"Its {what} reads {listed}; the least counts. Keep two reference holes away from the edge.",
                measured=Measure(value=spread),
                needed=Measure(value=most),
                most=True,
                extra=what,
            )


@check(
    "brief.out-of-square",
    severity="judge",
    title="The opening is out of square",
    measures="how far its sides lean over its height, from its two diagonals, against the gaps on both sides",
    source=Source(kind="computed", note="difference of the squared diagonals, over four times the width"),
    reads=("brief", "modules", "stack", "workshop", "limits"),
)
def out_of_square(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Openings that lean by more than the gaps allow; a square plate passes only what is left of the width."""
    brief = r.design.brief
    aslant = lean(brief)
    if aslant > 2 * brief.gap + VISIBLE:
        one, other = brief.diagonals
        yield rule.finding(
            detail=f"Its diagonals read {one:.1f} and {other:.1f}: it leans, and a square plate has so much less width",
            measured=Measure(value=aslant),
            needed=Measure(value=2 * brief.gap),
            most=True,
        )


@check(
    "brief.gap-tight",
    severity="judge",
    title="Gap too tight for how it is cut",
    measures="fit gap a side, against what the process needs",
    limits=("gap-hand", "gap-machine"),
    fixes="sets the usual gap",
    reads=("brief", "modules", "stack", "workshop", "limits"),
)
def gap_tight(r: Resolved, rule: Check) -> Iterator[Finding]:
    """A fit gap smaller than the process holds."""
    brief = r.design.brief
    if brief.process is None:
        return
    name = "gap-hand" if brief.process == "hand" else "gap-machine"
    need = limit(r.design, name)
    if brief.gap < need - VISIBLE:
        yield rule.finding(
            detail="sawn and sanded" if brief.process == "hand" else f"cut by {brief.process}",
            measured=Measure(value=brief.gap),
            needed=Measure(value=need),
            source=source_of(r.design, name),
            fix=lambda: Fix(label=f"Make the gap {need:g} mm", commands=(SetBrief(gap=need),)),
        )


@check(
    "brief.chain-too-wide",
    severity="judge",
    title="The modules together may be too wide",
    measures="width left for the gaps when every module comes out at its widest; to fix when it is likely gone",
    source=SUM,
    fixes="trims the widest rectangular module",
    reads=("brief", "modules", "stack", "workshop", "limits"),
)
def chain_too_wide(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Rows of modules whose tolerances eat up the gaps."""
    row = chain(r)
    if row is None or row.clear_worst >= -VISIBLE:
        return
    widest = max(row.modules, key=lambda p: p.size[0])
    trimmed = round(widest.size[0] + row.clear_worst - 0.05, 1)
    narrower = max(5.0, trimmed)
    yield rule.finding(
        *(p.module.id for p in row.modules),
        detail=f"{row.taken:.1f} mm of modules in {row.opening:.1f}; likely left {row.clear_likely:.2f} mm",
        measured=Measure(value=row.clear_worst),
        needed=Measure(value=0),
        fix=lambda: Fix(
            label=f"Make {widest.module.name} {narrower:.1f} mm wide",
            commands=(ResizeModule(module=widest.module.id, width=narrower),),
        ),
        severity="must" if row.clear_likely < -VISIBLE else "judge",
    )


@check(
    "brief.bed-too-small",
    severity="judge",
    title="Larger than every bed",
    measures="how much a module is too long for the beds less their margins, lying either way",
    source=BED,
    fixes="splits the module where that is enough",
)
def bed_too_small(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Modules that no machine of the workshop takes in one piece."""
    machines = r.design.workshop.machines
    parted = {s.piece for s in r.design.cutting.splits}
    for module in r.modules.values() if machines else ():
        if all(f"{module.module.id}/{layer.id}" in parted for layer in module.stack):
            continue  # each of its sheets is in parts, which Cut lays on the beds
        fits = [bed_fit(*module.size, machine) for machine in machines]
        best = min(fits, key=lambda f: (f.pieces, f.short))
        if not best.whole:
            yield _over_the_bed(r, rule, module, best)


def _over_the_bed(r: Resolved, rule: Check, module: ResolvedModule, best: BedFit) -> Finding:
    width, height = module.size
    free_w, free_h = usable(best.machine)
    turned = ", turned" if best.turn else ""
    return rule.finding(
        module.module.id,
        detail=f"{module.module.name}, {width:.1f} × {height:.1f} mm, is {best.pieces} pieces "
        f"on {best.machine.name}{turned} ({free_w:.0f} × {free_h:.0f} usable)",
        spot=Spot(module=module.module.id, x=width / 2, y=height / 2),
        measured=Measure(value=best.least, unit="mm over"),
        needed=Measure(value=0, unit="mm over"),
        most=True,
        fix=lambda: _in_pieces(r, module, best),
    )


SEAM = 0.4
"""Between two pieces of a module that was split (mm, common practice: a kerf and a finger nail)."""


def _in_pieces(r: Resolved, module: ResolvedModule, best: BedFit) -> Fix | None:
    """The fewest pieces side by side that the machine takes, parted where the plate is free; None if none help."""
    width, height = module.size
    wide = longest(height, best.machine)
    for pieces in range(2, 9):
        if wide * pieces >= width - SEAM * (pieces - 1):
            at = seams_between(r, module, wide, pieces, SEAM)
            command = SplitModule(module=module.module.id, pieces=pieces, at=at, seam=SEAM)
            return Fix(label=f"Split {module.module.name} into {pieces}", commands=(command,))
    return None


@check(
    "brief.sheet-on-bed",
    severity="note",
    title="A sheet larger than the beds",
    measures="sheets in stock, against the beds of the machines",
    source=BED,
    reads=("brief", "modules", "stack", "workshop", "limits"),
)
def sheet_on_bed(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Sheets that lie on no machine's bed before they are sawn."""
    machines = [m for m in r.design.workshop.machines if m.kind != "hand"]
    if not machines:
        return
    over_by = {
        s.id: min(over(s.width, s.height, m.bed_width, m.bed_height) for m in machines) for s in r.design.workshop.stock
    }
    large = [s for s in r.design.workshop.stock if over_by[s.id] > VISIBLE]
    if large:
        listed = ", ".join(
            f"{s.width:g} × {s.height:g} mm of {s.thickness:g} mm {materials()[s.material].name.lower()}"
            for s in large[:3]
        )
        yield rule.finding(
            *(s.id for s in large[:20]),
            detail=f"{listed}{' …' if len(large) > 3 else ''}: to be sawn to size first",
            measured=Measure(value=max(over_by.values()), unit="mm over"),
            needed=Measure(value=0, unit="mm over"),
            most=True,
        )


@check(
    "brief.too-thick",
    severity="judge",
    title="Thicker than any machine cuts",
    measures="a layer's thickness, against the depth of the machines",
    source=Source(kind="computed", note="depth of the machines"),
    reads=("brief", "modules", "stack", "workshop", "limits"),
)
def too_thick(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Layers that no machine goes through."""
    machines = r.design.workshop.machines
    deepest = max((m.depth for m in machines), default=0.0)
    for layer, _, own in r.layers if machines else ():
        if layer.thickness > deepest + VISIBLE:
            yield rule.finding(
                *((own,) if own else ()),
                detail=f"{layer.name}, {layer.material}",
                measured=Measure(value=layer.thickness),
                needed=Measure(value=deepest),
                most=True,
                extra=layer.id,
            )


@check(
    "brief.stock-short",
    severity="judge",
    title="Not enough sheets",
    measures="sheets needed for a layer of every module, against those in stock",
    source=Source(kind="computed", note="plates a sheet, in rows, at 0° or 90°"),
    reads=("brief", "modules", "stack", "workshop", "limits"),
)
def stock_short(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Layers whose material and thickness the stock does not cover."""
    for kind in kinds(r) if r.design.workshop.stock and r.modules else ():
        sheets = sheets_of(r, kind)
        have, need = sum(s.count for s in sheets), sheets_needed(r, kind)
        if have < need:
            why = f"{have} in stock" if sheets else "none in stock"
            yield rule.finding(
                detail=f"{kind.names}: {kind.thickness:g} mm {kind.material}, {why}",
                measured=Measure(value=have, unit="sheets"),
                needed=Measure(value=need, unit="sheets"),
                extra=kind.uses[0].layer.id,
            )


@check(
    "brief.sheet-too-small",
    severity="judge",
    title="Larger than every sheet",
    measures="a module, against the sheets in stock for a layer, at 0° and 90°",
    source=Source(kind="computed", note="width and height over all, less those of the sheet"),
    reads=("brief", "modules", "stack", "workshop", "limits"),
)
def sheet_too_small(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Modules that cannot be cut in one piece from what is in stock."""
    for kind in kinds(r):
        for module, use in too_large(r, kind):
            (width, height), sheets = size_of(module, use.layer), sheets_of(r, kind)
            over = min(max(w - s.width, h - s.height) for s in sheets for w, h in ((width, height), (height, width)))
            yield rule.finding(
                module.module.id,
                detail=f"{module.module.name}, {width:.1f} × {height:.1f} mm: {kind.thickness:g} mm {kind.material}",
                spot=Spot(module=module.module.id, x=width / 2, y=height / 2),
                measured=Measure(value=over, unit="mm over"),
                needed=Measure(value=0, unit="mm over"),
                most=True,
                extra=use.layer.id,
            )


@check(
    "brief.knee-clearance",
    severity="judge",
    title="Little room for the knees",
    measures="from the legs to the nearest plate or body, seen from the side; to fix when they touch",
    source=Source(kind="computed", note="side elevation, legs 130 mm thick"),
)
def knee_clearance(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Knees nearer than wanted to what hangs below."""
    seat = r.design.brief.seat
    clearance = elevation(r).clearance if seat else None
    if seat is None or clearance is None or clearance >= seat.clear - VISIBLE:
        return
    yield rule.finding(
        detail="Raise the panel, lower the seat, or choose shallower parts near the lower edge",
        measured=Measure(value=clearance),
        needed=Measure(value=seat.clear),
        severity="must" if clearance < 0 else "judge",
    )


@check(
    "brief.hits-in-front",
    severity="must",
    title="Hits what stands in front",
    measures="how far a part stands out with its travel, against what a neighbour or shelf in front leaves free",
    source=Source(kind="computed", note="height of lever, knob or guard over the face"),
)
def hits_in_front(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Parts whose lever, knob or guard reaches into a box before the panel."""
    boxes = [k for k in r.design.brief.keepouts if k.side == "front"]
    covers = r.panel.envelopes("cover")
    for box in boxes:
        for i, overlap in covers.against(box.area(), 0.0):
            placed = r.panel.by_number.get(int(covers.owners[i]))
            if placed is None or overlap > -VISIBLE or placed.part.height <= box.clear + VISIBLE:
                continue
            yield rule.finding(
                placed.function.id,
                detail=f"{placed.function.name} and {box.name}",
                spot=Spot(module=placed.place.module, x=placed.place.x, y=placed.place.y),
                measured=Measure(value=placed.part.height),
                needed=Measure(value=box.clear),
                most=True,
                extra=box.id,
            )
