"""What the machines are set to: kerfs, spindles, power, cutters, and what the feeds come to."""

from __future__ import annotations

from collections.abc import Iterator

from wingboard.core.changes.commands.workshop import EditMachine
from wingboard.core.cut.feeds import SLOWEST, WATTS, lasering, milling
from wingboard.core.cut.operations import fit_of
from wingboard.core.cut.plan import kinds_of_sheet
from wingboard.core.cut.sheets import Sheet, layout
from wingboard.core.findings.facets import Facet
from wingboard.core.findings.finding import Finding, Fix, Measure
from wingboard.core.findings.registry import Check, check
from wingboard.core.quantity import VISIBLE
from wingboard.core.record.base import Source
from wingboard.core.record.materials import materials
from wingboard.core.record.workshop import Machine, Tool
from wingboard.core.resolved.design import Resolved

READS: tuple[Facet, ...] = (
    "places", "wishes", "parts", "modules", "stack", "brief", "workshop", "cutting", "graphics", "controllers",
    "limits",
)  # fmt: skip
FEEDS = Source(kind="memory", note="n = 1000 vc / (π D), feed = n z fz; handbooks of machining")
USUAL_ENGRAVER = Tool(kind="engraver", diameter=3.175, angle=30.0, flat=0.1)
USUAL_MILL = Tool(diameter=3.175)


def _used(r: Resolved, kind: str) -> dict[str, tuple[Machine, list[Sheet]]]:
    """The machines of a kind that cut something, with their sheets."""
    found: dict[str, tuple[Machine, list[Sheet]]] = {}
    for sheet in layout(r).sheets:
        if sheet.machine.kind == kind:
            found.setdefault(sheet.machine.id, (sheet.machine, []))[1].append(sheet)
    return found


def _with_tool(machine: Machine, tool: Tool, words: str) -> Fix:
    return Fix(label=words, commands=(EditMachine(machine=machine.id, tools=(*machine.tools, tool)),))


@check(
    "cut.kerf-unmeasured",
    severity="judge",
    title="Kerf not measured yet",
    measures="kinds of sheet for a laser without a coupon that says its kerf",
    source=Source(kind="practice", note="a coupon of hole sizes first: a kerf differs by sheet, lens and power"),
    reads=READS,
)
def kerf_unmeasured(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Lasers whose usual kerf stands for sheets that were never tried."""
    untried: dict[str, list[Sheet]] = {}
    for sheet in kinds_of_sheet(r).values():
        machine = sheet.machine
        known = fit_of(r.design, machine, sheet.material, sheet.thickness).tried
        if machine.kind == "laser" and not machine.offsets and not known:
            untried.setdefault(machine.id, []).append(sheet)
    for ident, sheets in untried.items():
        listed = ", ".join(sorted(f"{materials()[s.material].name.lower()} {s.thickness:g} mm" for s in sheets))
        yield rule.finding(
            ident,
            detail=f"{sheets[0].machine.name}, {listed}: {sheets[0].machine.kerf:g} mm is its usual one",
            measured=Measure(value=len(sheets), unit="kinds of sheet"),
            needed=Measure(value=0, unit="kinds of sheet"),
            most=True,
        )


@check(
    "cut.kerf-none",
    severity="must",
    title="A beam of no width",
    measures="kerf of a laser that cuts pieces",
    source=Source(kind="practice", note="a small laser takes away 0.1 to 0.3 mm: every hole comes out so much wider"),
    fixes="takes 0.15 mm until a coupon was measured",
    reads=READS,
)
def kerf_none(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Lasers whose kerf is nought, where no coupon says another."""
    for machine, sheets in _used(r, "laser").values():
        bare = any(fit_of(r.design, machine, s.material, s.thickness).kerf < 0.01 for s in sheets)
        if bare and not machine.offsets:
            yield rule.finding(
                machine.id,
                detail=machine.name,
                measured=Measure(value=machine.kerf),
                needed=Measure(value=0.01),
                fix=Fix(label="Kerf 0.15 mm", commands=(EditMachine(machine=machine.id, kerf=0.15),)),
            )


@check(
    "cut.power-unsaid",
    severity="judge",
    title="A laser of unknown power",
    measures="watts of a laser that cuts pieces: its speed and time follow from them",
    source=Source(kind="practice", note=f"{WATTS:g} W is taken until it is said"),
    fixes="says the power that is taken",
    reads=READS,
)
def power_unsaid(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Lasers whose power was not said."""
    for machine, _ in _used(r, "laser").values():
        if not machine.watts:
            yield rule.finding(
                machine.id,
                detail=f"{machine.name}: {WATTS:g} W is taken",
                measured=Measure(value=0, unit="W"),
                needed=Measure(value=1, unit="W"),
                fix=Fix(label=f"{WATTS:g} W", commands=(EditMachine(machine=machine.id, watts=WATTS),)),
            )


@check(
    "cut.laser-slow",
    severity="judge",
    title="Too thick for one pass",
    measures="passes of a laser that would go slower than 2 mm/s in one",
    source=Source(kind="practice", note=f"slower than {SLOWEST:g} mm/s it chars: several passes, or a mill"),
    reads=READS,
)
def laser_slow(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Sheets that a laser goes through in several passes."""
    for sheet in kinds_of_sheet(r).values():
        if sheet.machine.kind != "laser":
            continue
        _, passes = lasering(sheet.material, sheet.thickness, sheet.machine)
        if passes > 1:
            name = materials()[sheet.material].name.lower()
            yield rule.finding(
                sheet.machine.id,
                sheet.id,
                detail=f"{sheet.machine.name}, {name} {sheet.thickness:g} mm",
                measured=Measure(value=passes, unit="passes"),
                needed=Measure(value=1, unit="passes"),
                most=True,
            )


@check(
    "cut.spindle-unsaid",
    severity="judge",
    title="A spindle of unknown speed",
    measures="turns a minute of a mill that cuts pieces: its feeds follow from them",
    source=Source(kind="practice", note="10000 a minute is taken until it is said"),
    fixes="says the speed that is taken",
    reads=READS,
)
def spindle_unsaid(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Mills whose speed was not said."""
    for machine, _ in _used(r, "mill").values():
        if not machine.spindle_rpm:
            yield rule.finding(
                machine.id,
                detail=f"{machine.name}: 10000 a minute is taken",
                measured=Measure(value=0, unit="turns a minute"),
                needed=Measure(value=1, unit="turns a minute"),
                fix=Fix(label="10000 a minute", commands=(EditMachine(machine=machine.id, spindle_rpm=10_000),)),
            )


@check(
    "cut.no-cutter",
    severity="must",
    title="A mill without a cutter",
    measures="end mills of a mill that cuts pieces",
    source=Source(kind="practice", note="1/8 in, one flute, is usual for plastics"),
    fixes="adds an end mill of 3.175 mm",
    reads=READS,
)
def no_cutter(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Mills that have no end mill on their list."""
    for machine, _ in _used(r, "mill").values():
        if all(t.kind != "mill" for t in machine.tools):
            yield rule.finding(
                machine.id,
                detail=machine.name,
                measured=Measure(value=0, unit="end mills"),
                needed=Measure(value=1, unit="end mills"),
                fix=_with_tool(machine, USUAL_MILL, "An end mill of 3.175 mm, one flute"),
            )


@check(
    "cut.no-engraver",
    severity="judge",
    title="Nothing to engrave with",
    measures="engravers of a mill that cuts faces with words",
    source=Source(kind="practice", note="a 30° tip with a flat of 0.1 mm engraves 0.26 mm wide 0.3 mm deep"),
    fixes="adds an engraver of 30°",
    reads=READS,
)
def no_engraver(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Mills that are to engrave words and have no pointed cutter."""
    for machine, sheets in _used(r, "mill").values():
        lettered = any(laid.piece.layer and laid.piece.layer.role == "face" for s in sheets for laid in s.laid)
        if lettered and all(t.kind != "engraver" for t in machine.tools):
            yield rule.finding(
                machine.id,
                detail=machine.name,
                measured=Measure(value=0, unit="engravers"),
                needed=Measure(value=1, unit="engravers"),
                fix=_with_tool(machine, USUAL_ENGRAVER, "An engraver of 30°, flat 0.1 mm"),
            )


def _milled(r: Resolved) -> Iterator[tuple[Sheet, Tool]]:
    """Each kind of sheet for a mill with the end mill that cuts its outline."""
    for sheet in kinds_of_sheet(r).values():
        mills = [t for t in sheet.machine.tools if t.kind == "mill"]
        if sheet.machine.kind == "mill" and mills:
            yield sheet, max(mills, key=lambda t: t.diameter)


def _about(sheet: Sheet, tool: Tool) -> str:
    name = materials()[sheet.material].name.lower()
    return (
        f"{sheet.machine.name}, {name} {sheet.thickness:g} mm, {tool.diameter:g} mm with {tool.flutes} flutes".replace(
            "with 1 flutes", "with 1 flute"
        )
    )


@check(
    "cut.rubs",
    severity="judge",
    title="The cutter rubs",
    measures="what a tooth takes, against the least that is usual in the material: it melts or burns below",
    source=FEEDS,
    fixes="takes a cutter with one flute",
    reads=READS,
)
def rubs(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Feeds that the machine or the number of flutes keeps too low: acrylic melts when the cutter rubs."""
    for sheet, tool in _milled(r):
        usual = materials()[sheet.material].milling
        feeds = milling(sheet.material, tool, sheet.machine)
        if usual is None or feeds.fz >= min(usual.fz[0], 0.03 * tool.diameter) - 1e-4:
            continue
        one = tuple(t.model_copy(update={"flutes": 1}) if t is tool else t for t in sheet.machine.tools)
        fix = Fix(label="A cutter with one flute", commands=(EditMachine(machine=sheet.machine.id, tools=one),))
        yield rule.finding(
            sheet.machine.id,
            sheet.id,
            detail=_about(sheet, tool),
            measured=Measure(value=round(feeds.fz, 4)),
            needed=Measure(value=usual.fz[0]),
            fix=fix if tool.flutes > 1 else None,
        )


@check(
    "cut.surface-slow",
    severity="note",
    title="Slower than the cutter could",
    measures="surface speed that the spindle reaches, against the least that is usual in the material",
    source=FEEDS,
    reads=READS,
)
def surface_slow(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Spindles too slow for their cutters: it cuts, only not as fast and not as clean."""
    for sheet, tool in _milled(r):
        usual = materials()[sheet.material].milling
        feeds = milling(sheet.material, tool, sheet.machine)
        if usual is not None and feeds.vc < usual.vc[0] - 0.5:
            yield rule.finding(
                sheet.machine.id,
                sheet.id,
                detail=_about(sheet, tool),
                measured=Measure(value=round(feeds.vc, 1), unit="m/min"),
                needed=Measure(value=usual.vc[0], unit="m/min"),
            )


THIN = 3.0
"""A sheet no thicker than this (mm) is thin."""
FLUTES = 2


@check(
    "cut.flutes",
    severity="judge",
    title="Too many flutes for a thin sheet",
    measures="flutes of the thickest cutter, in sheets of 3 mm and less",
    source=Source(kind="practice", note="two flutes clear chips in thin sheet where four clog"),
    reads=READS,
)
def flutes(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Cutters that clog in thin sheet."""
    for sheet, tool in _milled(r):
        if sheet.thickness <= THIN + VISIBLE and tool.flutes > FLUTES:
            yield rule.finding(
                sheet.machine.id,
                sheet.id,
                detail=_about(sheet, tool),
                measured=Measure(value=tool.flutes, unit="flutes"),
                needed=Measure(value=FLUTES, unit="flutes"),
                most=True,
            )
