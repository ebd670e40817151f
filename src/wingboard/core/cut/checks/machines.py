"""What mills are set to: spindles, cutters, and what the feeds come to; what checks of machines share."""

from __future__ import annotations

from collections.abc import Iterator
from typing import NamedTuple

from wingboard.core.changes.commands.workshop import EditMachine
from wingboard.core.cut.feeds import milling
from wingboard.core.cut.lettered import way_of
from wingboard.core.cut.pieces import Piece
from wingboard.core.cut.sheets import meant
from wingboard.core.findings.facets import Facet
from wingboard.core.findings.finding import Finding, Fix, Measure
from wingboard.core.findings.registry import Check, check
from wingboard.core.quantity import VISIBLE
from wingboard.core.record.base import Source
from wingboard.core.record.materials import materials
from wingboard.core.record.workshop import Machine, Material, Tool
from wingboard.core.resolved.design import Resolved

READS: tuple[Facet, ...] = (
    "places", "wishes", "parts", "modules", "stack", "brief", "workshop", "cutting", "graphics", "controllers",
    "limits",
)  # fmt: skip
FEEDS = Source(kind="memory", note="n = 1000 vc / (π D), feed = n z fz; handbooks of machining")
USUAL_ENGRAVER = Tool(kind="engraver", diameter=3.175, angle=30.0, flat=0.1)
USUAL_MILL = Tool(diameter=3.175)


def used(r: Resolved, kind: str) -> dict[str, tuple[Machine, list[Piece]]]:
    """The machines of a kind that cut something, with their pieces; those too large for the bed as well.

    So no fix that makes a piece small enough brings up what was not said before.
    """
    found: dict[str, tuple[Machine, list[Piece]]] = {}
    for machine, piece in meant(r):
        if machine.kind == kind:
            found.setdefault(machine.id, (machine, []))[1].append(piece)
    return found


class Kind(NamedTuple):
    """A kind of sheet that a machine cuts."""

    machine: Machine
    material: Material
    thickness: float

    @property
    def subject(self) -> str:
        """What a finding about it is about, beside the machine."""
        return f"{self.material}-{self.thickness:g}"

    @property
    def words(self) -> str:
        """Its material and thickness."""
        return f"{materials()[self.material].name.lower()} {self.thickness:g} mm"


def kinds_of(r: Resolved, kind: str) -> list[Kind]:
    """Every kind of sheet that machines of a kind cut."""
    found = {(m.id, p.material, p.thickness): Kind(m, p.material, p.thickness) for m, p in meant(r) if m.kind == kind}
    return list(found.values())


def _with_tool(machine: Machine, tool: Tool, words: str) -> Fix:
    return Fix(label=words, commands=(EditMachine(machine=machine.id, tools=(*machine.tools, tool)),))


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
    for machine, _ in used(r, "mill").values():
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
    for machine, _ in used(r, "mill").values():
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
    for machine, pieces in used(r, "mill").values():
        lettered = any(
            p.layer is not None and p.layer.role == "face" and way_of(r, p.module) in (None, "filled") for p in pieces
        )
        if lettered and all(t.kind != "engraver" for t in machine.tools):
            yield rule.finding(
                machine.id,
                detail=machine.name,
                measured=Measure(value=0, unit="engravers"),
                needed=Measure(value=1, unit="engravers"),
                fix=_with_tool(machine, USUAL_ENGRAVER, "An engraver of 30°, flat 0.1 mm"),
            )


def _milled(r: Resolved) -> Iterator[tuple[Kind, Tool]]:
    """Each kind of sheet for a mill with the end mill that cuts its outline."""
    for kind in kinds_of(r, "mill"):
        mills = [t for t in kind.machine.tools if t.kind == "mill"]
        if mills:
            yield kind, max(mills, key=lambda t: t.diameter)


def _about(kind: Kind, tool: Tool) -> str:
    flutes = f"{tool.flutes} flute{'' if tool.flutes == 1 else 's'}"
    return f"{kind.machine.name}, {kind.words}, {tool.diameter:g} mm with {flutes}"


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
    for kind, tool in _milled(r):
        usual = materials()[kind.material].milling
        feeds = milling(kind.material, tool, kind.machine)
        if usual is None or feeds.fz >= min(usual.fz[0], 0.03 * tool.diameter) - 1e-4:
            continue
        one = tuple(t.model_copy(update={"flutes": 1}) if t is tool else t for t in kind.machine.tools)
        fix = Fix(label="A cutter with one flute", commands=(EditMachine(machine=kind.machine.id, tools=one),))
        yield rule.finding(
            kind.machine.id,
            kind.subject,
            detail=_about(kind, tool),
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
    for kind, tool in _milled(r):
        usual = materials()[kind.material].milling
        feeds = milling(kind.material, tool, kind.machine)
        if usual is not None and feeds.vc < usual.vc[0] - 0.5:
            yield rule.finding(
                kind.machine.id,
                kind.subject,
                detail=_about(kind, tool),
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
    for kind, tool in _milled(r):
        if kind.thickness <= THIN + VISIBLE and tool.flutes > FLUTES:
            yield rule.finding(
                kind.machine.id,
                kind.subject,
                detail=_about(kind, tool),
                measured=Measure(value=tool.flutes, unit="flutes"),
                needed=Measure(value=FLUTES, unit="flutes"),
                most=True,
            )
