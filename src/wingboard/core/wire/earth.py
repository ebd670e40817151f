"""Protective earth: from the mains to every metal part that can be touched where a dangerous voltage is wired.

IEC 60204-1 and IEC 60364-4-41, from memory: exposed metal is bonded, each by a conductor of its own, green-yellow.
"""

from __future__ import annotations

from wingboard.core.brief.danger import touchable
from wingboard.core.record.functions import Switched
from wingboard.core.record.materials import materials
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.live import reached
from wingboard.core.wire.netlist import Device, Joining, Port

EARTH = "protective earth"
"""The net that joins all of it."""


def join_earth(r: Resolved, joining: Joining) -> None:
    """Join the earth of every supply and load at a dangerous AC voltage, of the parts that carry it, and of metal
    plates that such a part sits in. Where nothing is dangerous, nothing is joined."""
    so_far = joining.done()
    sources = [d.id for d in so_far.devices.values() if d.kind == "supply" and "PE" in d.ports]
    if not sources:
        return
    loads = [d.id for d in so_far.devices.values() if d.kind == "load" and "PE" in d.ports]
    joining.join(EARTH, *(Port(ident, "PE") for ident in (*sources, *loads)), kind="earth")
    live = reached(r, so_far, [Port(s, t) for s in sources for t in ("L", "N")])
    on = {p.device for ident in live for p in so_far.by_id[ident].ports if so_far.devices[p.device].kind == "part"}
    for p in r.placed:
        if p.function.id in on:
            name = f"earth tag at {p.function.name}"
            tag = joining.add(Device(f"{p.function.id}-earth", "earth", name, ("PE",), of=p.function.id))
            joining.join(EARTH, Port(tag.id, "PE"), kind="earth")
    for module in r.design.modules:
        here = any(p.place.module == module.id and p.function.id in on for p in r.placed)
        if here and any(materials()[layer.material].bridge == "bridge-metal" for layer in r.design.stack_of(module)):
            name = f"earth stud of {module.name}"
            stud = joining.add(Device(f"earth.{module.id}", "earth", name, ("PE",), module=module.id))
            joining.join(EARTH, Port(stud.id, "PE"), kind="earth")


def earthed(r: Resolved, volts: float, alternating: bool) -> tuple[str, ...]:
    """The earth terminal of a supply or load of so many volts: one where touching it can kill and it alternates."""
    load = Switched(volts=min(volts, 1000.0), current="AC" if alternating else "DC")
    return ("PE",) if alternating and volts >= touchable(r.design, load) else ()
