"""Whether everything that is to be joined can be: supplies that are there, terminals that are said."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial

from wingboard.core.changes.commands.workshop import AddSupply
from wingboard.core.findings.facets import Facet
from wingboard.core.findings.finding import Finding, Fix, Measure
from wingboard.core.findings.registry import Check, check
from wingboard.core.record.base import Source
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.drawn import drawn, supply_for
from wingboard.core.wire.netlist import NetList, Unsaid, supply_id
from wingboard.core.wire.nets import net_list

READS: tuple[Facet, ...] = (
    "places",
    "wishes",
    "parts",
    "modules",
    "workshop",
    "controllers",
    "pins",
    "limits",
    "brief",
)


@check(
    "wire.no-supply",
    severity="judge",
    title="No supply for these volts",
    measures="supplies of the workshop with the volts that parts, lamps or loads are made for",
    source=Source(kind="computed", note="the net list"),
    fixes="puts one into the workshop, with a quarter more than what is drawn from it",
    reads=READS,
)
def no_supply(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Nets that nothing feeds."""
    found = net_list(r)
    for device in found.devices.values():
        if device.kind != "supply" or any(supply_id(s.id) == device.id for s in r.design.workshop.supplies):
            continue
        fed = dict.fromkeys(found.devices[i].of for i in _fed(found, device.id))
        names = [r.functions[f].name for f in fed if f in r.functions]
        yield rule.finding(
            device.id,
            detail=f"{device.name.removeprefix('a supply of ')} for {', '.join(names[:4])}"
            + (f" and {len(names) - 4} more" if len(names) > 4 else ""),
            measured=Measure(value=0, unit="supplies"),
            needed=Measure(value=1, unit="supplies"),
            fix=partial(new_supply, r, device.value) if "+" in device.ports else None,
        )


def _fed(found: NetList, supply: str) -> list[str]:
    """The devices on a supply's net, itself apart."""
    net = next((n for n in found.nets if any(p.device == supply and p.terminal in ("+", "L") for p in n.ports)), None)
    return [p.device for p in net.ports if p.device != supply] if net else []


def new_supply(r: Resolved, volts: float) -> Fix:
    """A supply of so many volts for the workshop, with a quarter more than what is drawn from it."""
    rating = supply_for(drawn(r, volts))
    command = AddSupply(name=f"{volts:g} V supply", volts=volts, amps=rating)
    return Fix(label=f"A supply of {volts:g} V, {rating:g} A", commands=(command,))


@check(
    "wire.unjoined",
    severity="judge",
    title="Wires that cannot be listed",
    measures="what the record does not say of a part's terminals or load, or says that cannot be; wires are missing",
    source=Source(kind="computed", note="the net list"),
    reads=READS,
)
def unjoined(r: Resolved, rule: Check) -> Iterator[Finding]:
    """Parts that the net list joins in part only; a must where what is said would be a short, or could not work."""
    found = net_list(r)
    told: dict[str, list[Unsaid]] = {}
    for missing in found.unsaid:
        if found.devices[missing.device].kind != "supply":
            told.setdefault(missing.device, []).append(missing)
    for ident, entries in told.items():
        yield rule.finding(
            ident,
            detail=f"{found.devices[ident].name}: {'; '.join(e.words for e in entries)}",
            measured=Measure(value=len(entries), unit="open"),
            needed=Measure(value=0, unit="open"),
            most=True,
            severity="must" if any(e.wrong for e in entries) else "judge",
        )
