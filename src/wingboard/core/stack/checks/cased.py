"""Cases: too deep for where they go, bodies in their walls, no way out for wires, vents too small, too large to cut."""

from __future__ import annotations

from collections.abc import Iterator

from wingboard.core.changes.commands.boards import SetCase
from wingboard.core.changes.commands.console import SetFrame
from wingboard.core.face.checks.spots import of
from wingboard.core.findings.finding import Finding, Fix, Measure
from wingboard.core.findings.registry import Check, check
from wingboard.core.geometry.rounded import margin_inside, slab
from wingboard.core.quantity import VISIBLE
from wingboard.core.record.base import Source
from wingboard.core.record.modules import CableExit, Case
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule
from wingboard.core.stack.case import COVER, LEAST_HATCH, CaseMade, case_of
from wingboard.core.stack.checks.holding import READS
from wingboard.core.stack.console import FrameMade, frame_of
from wingboard.core.stack.shell import cuts_of

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
    measures="the pieces of a case, against the machines' beds less their margins",
    source=Source(kind="computed", note="width and height, at 0° and 90°"),
    reads=("modules", "places", "parts", "stack", "brief", "workshop", "wishes"),
)
def case_bed(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Pieces that no machine of the workshop takes whole: saw them by hand, or in two with a strip behind."""
    machines = [m for m in r.design.workshop.machines if m.kind != "printer"]
    for module, case, made in _cases(r) if machines else ():
        if case.made == "printed":
            continue
        beds = [(m.bed_width - 2 * m.margin, m.bed_height - 2 * m.margin) for m in machines]
        large = [p for p in made.pieces if not any(_lies(p.width, p.height, bed) for bed in beds)]
        if large:
            widest = max(large, key=lambda p: max(p.width, p.height))
            yield rule.finding(
                module.module.id,
                detail=f"{len(large)} of {module.module.name}: {', '.join(p.name.lower() for p in large[:4])}",
                measured=Measure(value=max(widest.width, widest.height)),
                needed=Measure(value=max(max(bed) for bed in beds)),
                most=True,
            )


@check(
    "stack.case-printer",
    severity="judge",
    title="The case goes on no printer",
    measures="a printed case, in up to eight pieces each way, and the cover of its hatch, against the printers",
    source=Source(kind="computed", note="bed less its margins, as it lies or turned, and the height it prints"),
    fixes="leaves the hatch out, or makes the case of sheet",
    reads=("modules", "places", "parts", "stack", "brief", "workshop", "wishes"),
)
def case_printer(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Printed cases without a printer in the workshop, and pieces that stay larger than it prints."""
    printers = [m for m in r.design.workshop.machines if m.kind == "printer"]
    beds = [(m.bed_width - 2 * m.margin, m.bed_height - 2 * m.margin) for m in printers]
    most = max((max(bed) for bed in beds), default=0.0)
    for module, case, made in _cases(r):
        if case.made != "printed":
            continue
        name = module.module.id
        if cuts_of(made, printers).printer is None:
            sheet = SetCase(module=name, made="sheet")
            yield rule.finding(
                name,
                detail=f"{module.module.name}, {' × '.join(f'{s:.0f}' for s in made.outside)} mm",
                measured=Measure(value=max(made.outside)),
                needed=Measure(value=most),
                most=True,
                fix=Fix(label="Make it of sheet", commands=(sheet,)),
            )
            continue
        if case.hatch and made.hatch is None:
            yield rule.finding(
                name,
                detail=f"{module.module.name}, cover of the least hatch",
                measured=Measure(value=LEAST_HATCH + 2 * COVER),
                needed=Measure(value=most),
                most=True,
                fix=Fix(label="Leave the hatch out", commands=(SetCase(module=name, hatch=False),)),
            )


def _lies(width: float, height: float, bed: tuple[float, float]) -> bool:
    return any(w <= bed[0] + VISIBLE and h <= bed[1] + VISIBLE for w, h in ((width, height), (height, width)))


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
        shape = slab(batten.x1 - batten.x0, batten.y1 - batten.y0).moved(
            (batten.x0 + batten.x1) / 2, (batten.y0 + batten.y1) / 2
        )
        for i, apart in bodies.against(shape, need):
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


BATTENS = (45.0, 40.0, 30.0, 25.0, 20.0, 15.0)
"""Widths (mm) in which battens are sold (common practice)."""


def _narrower(made: FrameMade) -> list[Fix]:
    """The next narrower battens, the widest first."""
    less = [wide for wide in BATTENS if wide < made.frame.wide]
    return [Fix(label=f"Battens {wide:g} mm wide", commands=(SetFrame(wide=wide),)) for wide in less]
