"""Cases: too deep for where they go, bodies in their walls, no way out for wires, vents too small, too large to cut."""

from __future__ import annotations

from collections.abc import Iterator

from shapely import line_merge, unary_union

from wingboard.core.brief.beds import over_bed
from wingboard.core.changes.commands.boards import SetCase
from wingboard.core.changes.commands.console import SetFrame
from wingboard.core.face.checks.spots import of
from wingboard.core.findings.finding import Finding, Fix, Measure
from wingboard.core.findings.registry import Check, check
from wingboard.core.geometry.outline import area_of
from wingboard.core.geometry.rounded import Rounded, margin_inside, slab
from wingboard.core.quantity import VISIBLE
from wingboard.core.record.base import Source
from wingboard.core.record.modules import CableExit, Case
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule
from wingboard.core.stack.case import COVER, LEAST_HATCH, CaseMade, case_of
from wingboard.core.stack.checks.holding import READS
from wingboard.core.stack.console import FrameMade, frame_of
from wingboard.core.stack.shell import cuts_of, sides_uncut

ASSEMBLY = 1.0
"""Room (mm) between a body and the wall that the plate goes into (common practice)."""


LITTLE = 2.0
"""Watts that a closed case gives off through its walls (common practice)."""


def _cases(r: Resolved) -> Iterator[tuple[ResolvedModule, Case, CaseMade]]:
    for module in r.modules.values():
        made = r.once(f"case of {module.module.id}", lambda module=module: case_of(r, module))  # type: ignore[misc]
        if made is not None:
            yield module, made.case, made


@check(
    "stack.case-deep",
    severity="must",
    title="The case is too deep",
    measures="plate, parts, room for wires and back of a case, against the free depth",
    source=Source(kind="computed", note="what reaches deepest + room for wires + the back"),
    fixes="leaves less room for wires",
    reads=READS,
)
def case_deep(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Cases that do not go in where the panel goes."""
    free = r.design.brief.depth
    for module, case, made in _cases(r):
        over = made.outside[2] - free
        if over > VISIBLE:
            less = round(case.room - over, 1)
            command = SetCase(module=module.module.id, room=less) if less >= 10 else None
            yield rule.finding(
                module.module.id,
                detail=module.module.name,
                measured=Measure(value=made.outside[2]),
                needed=Measure(value=free),
                most=True,
                fix=Fix(label=f"{less:g} mm for wires", commands=(command,)) if command else None,
            )


@check(
    "stack.case-meets",
    severity="must",
    title="A body meets the case",
    measures="from a body behind to the inner face of its case's wall",
    source=Source(kind="practice", note="a millimetre, so that the plate goes in with its parts"),
    reads=READS,
)
def case_meets(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Bodies that reach over the edge of their plate, where a case's walls are."""
    for module, _, made in _cases(r):
        x0, y0, x1, y1 = module.area.bounds
        inside = slab(made.inside[0], made.inside[1]).moved((x0 + x1) / 2, (y0 + y1) / 2).drawn()
        for p in module.placed:
            margins = [margin_inside(p.frame.shape(s.outline()), inside) for s in p.behind]
            if margins and min(margins) < ASSEMBLY - VISIBLE:
                yield rule.finding(
                    p.function.id,
                    detail=p.function.name,
                    spot=of(p),
                    measured=Measure(value=min(margins)),
                    needed=Measure(value=ASSEMBLY),
                )


@check(
    "stack.case-shut",
    severity="judge",
    title="Wires have no way out",
    measures="cable exits of a case without a hatch, against one",
    source=Source(kind="practice", note="an exit for the loom, and a hatch to reach what fails"),
    fixes="makes one in the back",
    reads=("modules", "places", "parts", "stack", "brief", "workshop", "wishes"),
)
def case_shut(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Closed boxes."""
    for module, case, made in _cases(r):
        if not case.exits and not made.hatch:
            command = SetCase(module=module.module.id, exits=(CableExit(),))
            yield rule.finding(
                module.module.id,
                detail=module.module.name,
                measured=Measure(value=0, unit="exits"),
                needed=Measure(value=1, unit="exits"),
                fix=Fix(label="An exit in the back", commands=(command,)),
            )


@check(
    "stack.case-warm",
    severity="judge",
    title="The case gets warm",
    measures="open area below and above, against what warm air ten degrees over the room's needs",
    source=Source(kind="computed", note="A = Q / v, v = 0.6 √(2 g H ΔT / T); all lamps on"),
    fixes="cuts vents",
    reads=READS,
)
def case_warm(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Closed cases with more than two watts in them, and vents that find no room for all of their slots."""
    for module, case, made in _cases(r):
        if made.vent_made < made.vent_needed - 1 and (case.vents or made.heat > LITTLE):
            command = SetCase(module=module.module.id, vents=True)
            yield rule.finding(
                module.module.id,
                detail=f"{module.module.name}, {made.heat:.1f} W inside",
                measured=Measure(value=made.vent_made, unit="mm²"),
                needed=Measure(value=made.vent_needed, unit="mm²"),
                fix=None if case.vents else Fix(label="Cut vents", commands=(command,)),
            )


@check(
    "stack.case-bed",
    severity="judge",
    title="A piece of the case on no bed",
    measures="how much a piece of a case is too long for the beds less their margins, lying either way",
    source=Source(kind="computed", note="width and height, at 0° and 90°"),
    reads=("modules", "places", "parts", "stack", "brief", "workshop", "wishes", "cutting"),
)
def case_bed(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Pieces that no machine of the workshop takes whole: saw them by hand, or in two with a strip behind."""
    machines = [m for m in r.design.workshop.machines if m.kind != "printer"]
    parted = {s.piece for s in r.design.cutting.splits}
    for module, case, made in _cases(r) if machines else ():
        if case.made == "printed":
            continue
        whole = [p for p in made.pieces if f"{module.module.id}/{p.id}" not in parted]
        over = {p.name: min(over_bed(p.width, p.height, m) for m in machines) for p in whole}
        large = [name.lower() for name, by in over.items() if by > VISIBLE]
        if large:
            yield rule.finding(
                module.module.id,
                detail=f"{len(large)} of {module.module.name}: {', '.join(large[:4])}",
                measured=Measure(value=max(over.values()), unit="mm over"),
                needed=Measure(value=0, unit="mm over"),
                most=True,
            )


@check(
    "stack.case-printer",
    severity="judge",
    title="The case goes on no printer",
    measures="printers; sides on which no cut in up to eight pieces fits one; how much the hatch's cover is over a bed",
    source=Source(kind="computed", note="bed less its margins, as it lies or turned, and the height it prints"),
    fixes="leaves the hatch out, or makes the case of sheet",
    reads=("modules", "places", "parts", "stack", "brief", "workshop", "wishes"),
)
def case_printer(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Printed cases without a printer in the workshop, and pieces that stay larger than it prints."""
    printers = [m for m in r.design.workshop.machines if m.kind == "printer"]
    least = LEAST_HATCH + 2 * COVER
    for module, case, made in _cases(r):
        if case.made != "printed":
            continue
        name = module.module.id
        if cuts_of(made, printers).printer is None:
            sheet = SetCase(module=name, made="sheet")
            yield rule.finding(
                name,
                detail=f"{module.module.name}, {' × '.join(f'{s:.0f}' for s in made.outside)} mm",
                measured=Measure(value=sides_uncut(made, printers), unit="sides not cut")
                if printers
                else Measure(value=0, unit="printers"),
                needed=Measure(value=0, unit="sides not cut") if printers else Measure(value=1, unit="printers"),
                most=bool(printers),
                fix=Fix(label="Make it of sheet", commands=(sheet,)),
            )
            continue
        if case.hatch and made.hatch is None:
            yield rule.finding(
                name,
                detail=f"{module.module.name}, cover of the least hatch",
                measured=Measure(value=min(over_bed(least, least, m) for m in printers), unit="mm over"),
                needed=Measure(value=0, unit="mm over"),
                most=True,
                fix=Fix(label="Leave the hatch out", commands=(SetCase(module=name, hatch=False),)),
            )


@check(
    "stack.frame-meets",
    severity="must",
    title="A body meets the frame",
    measures="from a body behind to a batten of the console, at its depth",
    limits=("body-clearance",),
    fixes="takes narrower battens",
    reads=READS,
)
def frame_meets(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Bodies in the way of the battens that the modules rest on; the nearest batten of each is named."""
    made = r.once("frame", lambda: frame_of(r))
    need, bodies = rule.limit(r.design), r.panel.bodies
    worst: dict[int, tuple[float, str]] = {}
    for batten in made.battens if made else ():
        for i, apart in bodies.against(Rounded(batten.area(), 0.0), need):
            owner = int(bodies.shapes.owners[i])
            module = r.panel.module_of(owner)
            behind_plate = module.thickness, module.thickness + (made.frame.deep if made else 0.0)
            meets = bodies.z0[i] < behind_plate[1] and behind_plate[0] < bodies.z1[i]
            if owner >= 0 and meets and apart < worst.get(owner, (need, ""))[0]:
                worst[owner] = (apart, batten.name)
    for owner, (apart, name) in sorted(worst.items()):
        placed = r.panel.by_number[owner]
        yield rule.finding(
            placed.function.id,
            detail=f"{placed.function.name} to the {name.lower()}",
            spot=of(placed),
            measured=Measure(value=apart),
            needed=Measure(value=need),
            fix=lambda made=made: _narrower(made),  # type: ignore[misc]
        )


LOOSE = 60.0
"""A plate's edge may go so far (mm) without a batten under it (common practice: half the way between two screws)."""


@check(
    "stack.frame-carries",
    severity="judge",
    title="An edge on no batten",
    measures="the longest run of the opening's edge that no batten lies under",
    source=Source(kind="practice", note="a plate rests on its whole edge; half the way between two screws is stiff"),
    reads=READS,
)
def frame_carries(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Edges of an opening that is no rectangle and no arch, where the frame round its box does not reach."""
    made = r.once("frame", lambda: frame_of(r))
    if made is None:
        return
    edge = area_of(r.design.brief.opening.loop()).buffer(-min(made.frame.ledge, 2.0) / 2).boundary
    bare = edge.difference(unary_union([b.area() for b in made.battens]))
    whole = line_merge(bare) if bare.geom_type == "MultiLineString" else bare
    runs = [part.length for part in getattr(whole, "geoms", (whole,))]
    worst = max(runs, default=0.0)
    if worst > LOOSE:
        yield rule.finding(
            "frame",
            detail="The opening's edge",
            measured=Measure(value=worst),
            needed=Measure(value=LOOSE),
            most=True,
        )


BATTENS = (45.0, 40.0, 30.0, 25.0, 20.0, 15.0)
"""Widths (mm) in which battens are sold (common practice)."""


def _narrower(made: FrameMade) -> list[Fix]:
    """The next narrower battens, the widest first."""
    less = [wide for wide in BATTENS if wide < made.frame.wide]
    return [Fix(label=f"Battens {wide:g} mm wide", commands=(SetFrame(wide=wide),)) for wide in less]
