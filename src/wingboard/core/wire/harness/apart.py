"""Which wires run, and leave, apart from all others: what is dangerous to touch, or alternates."""

from __future__ import annotations

from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.live import live_supply, reached
from wingboard.core.wire.netlist import Net, Port
from wingboard.core.wire.nets import net_list


def live_nets(r: Resolved) -> frozenset[str]:
    """The nets that a supply of 50 V or more, or an alternating one, reaches through contacts, lamps and loads."""

    def found() -> frozenset[str]:
        nets = net_list(r)
        starts = [Port(d.id, t) for d in nets.devices.values() if live_supply(d) for t in d.ports if t != "PE"]
        return reached(r, nets, starts)

    return r.once("live nets", found)


def dangerous_net(r: Resolved, net: Net) -> bool:
    """Whether a net belongs to a supply of 50 V or more, or to an alternating one."""
    return net.id in live_nets(r)
