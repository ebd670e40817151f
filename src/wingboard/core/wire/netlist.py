"""What is joined to what: devices with ports, and the nets that join them. Ohms, volts.

Everything electrical is read off this list: pins, wires, loads, tests and what a fault would look like.
"""

from __future__ import annotations

from collections.abc import Mapping
from functools import cached_property
from typing import Any, Literal, NamedTuple

DeviceKind = Literal[
    "part", "controller", "supply", "load", "resistor", "diode", "transistor", "high side", "mosfet", "relay", "chip",
    "plug", "light", "capacitor", "earth",
]  # fmt: skip
NetKind = Literal["signal", "ground", "supply", "load", "earth"]
GROUND = "ground"


class Port(NamedTuple):
    """A terminal of a device, as it is marked."""

    device: str
    terminal: str


def board_id(controller: str) -> str:
    """By which a controller is a device: what people name stands apart by its kind."""
    return f"board.{controller}"


def supply_id(supply: str) -> str:
    """By which a supply is a device."""
    return f"supply.{supply}"


class Device(NamedTuple):
    """Something that wires end on.

    ``ports`` are all its terminals, joined or not. ``value``: ohms of a resistor, volts of a supply or a load, farads
    of a capacitor, amperes that a relay or a transistor is made for. ``of``: the function, or the network, that it
    belongs to, ``module``: where that is placed; both empty
    where there is none.
    """

    id: str
    kind: DeviceKind
    name: str
    ports: tuple[str, ...]
    value: float = 0.0
    of: str = ""
    module: str = ""


class Net(NamedTuple):
    """Ports that are joined, in the order in which they were met."""

    id: str
    kind: NetKind
    ports: tuple[Port, ...]


class Unsaid(NamedTuple):
    """Why a wire is missing here: about which device, and what the record does not say, or says that cannot be."""

    device: str
    words: str
    wrong: bool = False


class NetList:
    """Devices, nets, and what could not be joined for want of being said."""

    def __init__(self, devices: Mapping[str, Device], nets: tuple[Net, ...], unsaid: tuple[Unsaid, ...]) -> None:
        self.devices, self.nets, self.unsaid = devices, nets, unsaid

    @cached_property
    def by_port(self) -> Mapping[Port, Net]:
        """The net that each joined port is on."""
        return {port: net for net in self.nets for port in net.ports}

    @cached_property
    def by_id(self) -> Mapping[str, Net]:
        """The nets by their names."""
        return {net.id: net for net in self.nets}

    @property
    def spare(self) -> tuple[Port, ...]:
        """Terminals on which no wire ends."""
        every = (Port(d.id, terminal) for d in self.devices.values() for terminal in d.ports)
        return tuple(port for port in every if port not in self.by_port)

    def as_json(self) -> dict[str, Any]:
        """The list as plain objects."""
        return {
            "devices": [{**d._asdict(), "ports": list(d.ports)} for d in self.devices.values()],
            "nets": [{"id": n.id, "kind": n.kind, "ports": [list(p) for p in n.ports]} for n in self.nets],
            "unsaid": [u._asdict() for u in self.unsaid],
        }


class Joining:
    """A net list in the making."""

    def __init__(self) -> None:
        self._devices: dict[str, Device] = {}
        self._ports: dict[str, list[Port]] = {}
        self._kinds: dict[str, NetKind] = {}
        self._on: dict[Port, str] = {}
        self._unsaid: dict[Unsaid, None] = {}

    def add(self, device: Device) -> Device:
        """A device; the same one again where its id is known."""
        return self._devices.setdefault(device.id, device)

    def helper(self, ident: str, kind: DeviceKind, name: str, ports: str, of: str, value: float = 0.0) -> Device:
        """A small part that belongs to a function; its ports apart by blanks."""
        return self.add(Device(ident, kind, name, tuple(ports.split()), value, of))

    def join(self, net: str, *ports: Port, kind: NetKind = "signal") -> str:
        """Put ports on a net. Where one is on another net already, both are one from then on.

        :returns: the name that the net has. :raises KeyError: a port that its device does not have (a mistake here).
        """
        self._ports.setdefault(net, [])
        self._kinds.setdefault(net, kind)
        for port in ports:
            if port.terminal not in self._devices[port.device].ports:
                raise KeyError(f"{port.device} has no terminal {port.terminal}")
            before = self._on.get(port)
            if before is None:
                self._on[port] = net
                self._ports[net].append(port)
            elif before != net:
                net = self._merge(before, net)
        return net

    def _merge(self, one: str, other: str) -> str:
        """Two nets as one, under the name of that which says more: ground, a supply, then what was there first."""
        rank = {"ground": 0, "earth": 0, "supply": 1, "load": 2, "signal": 3}
        keep, drop = sorted((one, other), key=lambda net: rank[self._kinds[net]])
        for port in self._ports.pop(drop):
            self._on[port] = keep
            self._ports[keep].append(port)
        del self._kinds[drop]
        return keep

    def has_device(self, ident: str) -> bool:
        """Whether a device of that id is there by now."""
        return ident in self._devices

    def has(self, net: str) -> bool:
        """Whether a net of that name is there by now."""
        return net in self._ports

    def net_of(self, port: Port) -> str | None:
        """The net that a port is on by now."""
        return self._on.get(port)

    def miss(self, device: str, words: str, wrong: bool = False) -> None:
        """Say what the record does not, or what cannot be as it says (``wrong``)."""
        self._unsaid[Unsaid(device, words, wrong)] = None

    def done(self) -> NetList:
        """The list; nets of a single port are none."""
        nets = tuple(Net(n, self._kinds[n], tuple(ports)) for n, ports in self._ports.items() if len(ports) > 1)
        return NetList(dict(self._devices), nets, tuple(self._unsaid))
