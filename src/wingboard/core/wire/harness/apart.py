"""Which wires can hurt somebody: they run, and leave, apart from all others."""

from __future__ import annotations

from wingboard.core.brief.danger import dangerous
from wingboard.core.record.functions import AC_UNLESS_SAID
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.netlist import Net
from wingboard.core.wire.nets import net_list


def dangerous_net(r: Resolved, net: Net) -> bool:
    """Whether touching what is on a net can hurt: it is fed, or switched, at a dangerous voltage."""
    nets = net_list(r)
    if net.kind not in ("supply", "load"):
        return False
    for port in net.ports:
        device = nets.devices[port.device]
        if device.kind in ("supply", "load") and (device.value >= AC_UNLESS_SAID or "L" in device.ports):
            return True
        f = r.functions.get(device.of)
        if device.kind in ("part", "relay") and net.kind == "load" and f and dangerous(r.design, f.switches):
            return port.terminal not in ("A1", "A2")
    return False
