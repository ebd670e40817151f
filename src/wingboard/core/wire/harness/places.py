"""Where the ends of wires are in space: terminals of parts, pads of boards, what stands outside. Lengths in mm."""

from __future__ import annotations

from collections.abc import Iterator
from typing import NamedTuple

from wingboard.core.parts.tags import tags
from wingboard.core.record.controllers import board_of
from wingboard.core.resolved.boards import BoardBehind, boards_behind
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.placed import Placed
from wingboard.core.resolved.profile import thickness
from wingboard.core.wire.backlights import dimmed, lit, owner_of, rows
from wingboard.core.wire.netlist import Device, DeviceKind, Port, board_id
from wingboard.core.wire.nets import net_list
from wingboard.core.wire.schemes.networks import networks

OUTSIDE: tuple[DeviceKind, ...] = ("controller", "supply", "load")
"""What does not sit on a module, unless it is a board that stands behind one."""
MOVED: tuple[DeviceKind, ...] = ("relay",)
"""What is at its control until it is said to stand elsewhere, on a rail or beside its load."""
OF_COIL = "-d"
"""How the name of the diode across a relay's coil ends: it is soldered there."""


class Spot(NamedTuple):
    """A place: in the coordinates of ``module``, of the opening where there is none; ``z`` behind the front.

    ``said`` is whether the record says where it is: what stands nowhere is reckoned to be near.
    """

    module: str
    x: float
    y: float
    z: float
    said: bool = True


class Places:
    """Where everything is that a wire ends on."""

    def __init__(self, r: Resolved) -> None:
        self.r, self.nets = r, net_list(r)
        self._parts = {p.function.id: p for p in r.placed}
        self._networks = {network.id: network.module for network in networks(r)}
        self._boards = dict(self._mounted())
        self._lights = {x.device: x for x in lit(r)}
        for row in rows(r):  # its resistor sits at its first LED
            self._lights[f"{row.id}-r"] = self._lights[f"light.{row.module}.{row.leds[0].id}"]
        for module in r.design.modules:  # what dims a light sits at its first strip or LED
            first = next((x for x in lit(r) if x.module == module.id), None)
            if first is not None and module.light and dimmed(module.light):
                self._lights |= {f"{owner_of(module.id)}.{end}": first for end in ("q", "q-rg", "q-off")}
        self._standing = {s.device: s for s in r.design.harness.standing}
        self._tags: dict[str, dict[str, tuple[float, float]]] = {}
        self._spots: dict[Port, Spot] = {}
        self._deep: dict[str, float] = {}
        self.backs = {m: thickness(module.stack) for m, module in r.modules.items()}
        """How deep the back of each module's plate is, where its loom is tied."""

    def _mounted(self) -> Iterator[tuple[str, tuple[str, BoardBehind]]]:
        for module in self.r.design.modules:
            for board in boards_behind(module, self.r.design.stack_of(module)):
                if board.board.controller:
                    yield board_id(board.board.controller), (module.id, board)

    def home(self, port: Port) -> str:
        """The module on which a terminal is worked: of its part, or strip board; nothing for boards and what is
        outside."""
        device = self.nets.devices.get(port.device)
        if device is None or device.kind in OUTSIDE or self.relay_apart(device):
            return ""
        if device.module:
            return device.module
        part = self._parts.get(device.of)
        return part.place.module if part else self._networks.get(device.of, "")

    def relay_apart(self, device: Device) -> str:
        """The relay that stands elsewhere than at its control and is this device, or has it across its coil."""
        owner = device.id.removesuffix(OF_COIL)
        relay = self.nets.devices.get(owner)
        return owner if relay and relay.kind in MOVED and owner in self._standing else ""

    def inside(self, port: Port) -> str:
        """The module behind which a terminal is, boards that stand there too; nothing for what is outside."""
        mounted = self._boards.get(port.device)
        return mounted[0] if mounted else self.home(port)

    def middle(self, port: Port) -> tuple[float, float]:
        """The middle of the part, or of the strip board, that a terminal is on or at, in its module."""
        behind = self._lights.get(port.device)
        if behind is not None:
            return behind.x, behind.y
        of = self.nets.devices[port.device].of
        if of in self._parts:
            return self._parts[of].place.x, self._parts[of].place.y
        if of in self._networks:
            width, _ = self.r.modules[self._networks[of]].size
            return width / 2, 0.0  # below the middle
        return 0.0, 0.0

    def spot(self, port: Port) -> Spot:
        """Where a terminal is."""
        if port not in self._spots:
            self._spots[port] = self._spot(port)
        return self._spots[port]

    def _spot(self, port: Port) -> Spot:
        mounted = self._boards.get(port.device)
        if mounted:
            return self._pad(port, *mounted)
        module = self.home(port)
        if not module:
            device = self.nets.devices.get(port.device)
            stands = self._standing.get((device and self.relay_apart(device)) or port.device)
            return Spot("", stands.x, stands.y, stands.behind) if stands else Spot("", 0.0, 0.0, 0.0, said=False)
        behind = self._lights.get(port.device)
        if behind is not None:
            return Spot(module, behind.x, behind.y, behind.z)
        device = self.nets.devices[port.device]
        part = self._parts.get(device.of)
        deep = self.backs[module]
        if part is None:
            return Spot(module, *self.middle(port), deep)
        x, y = part.frame.point(*self._tag(part, port))
        ident = part.function.id
        if ident not in self._deep:
            self._deep[ident] = max((s.z1 for s in part.behind), default=deep)
        return Spot(module, x, y, self._deep[ident])

    def _tag(self, part: Placed, port: Port) -> tuple[float, float]:
        """A terminal about the middle of its part's hole; a small part is where its function's part is."""
        ident = part.function.id
        if ident not in self._tags:
            device = self.nets.devices.get(ident)
            found = tags(part.part, device.ports).tags if device else ()
            self._tags[ident] = {t.terminal: (t.x + part.part.behind_x, t.y + part.part.behind_y) for t in found}
        own = self._tags[ident].get(port.terminal) if port.device == ident else None
        return own or (part.part.behind_x, part.part.behind_y)

    def _pad(self, port: Port, module: str, behind: BoardBehind) -> Spot:
        """A pad of a board behind a module: its row lies at the board's edge, counted from the upper end."""
        kind = board_of(self.r.design, next(c.board for c in self.r.design.controllers
                                            if board_id(c.id) == port.device))  # fmt: skip
        x, y = 0.0, 0.0
        for side, pads in kind.sides.items():
            if port.terminal in pads:
                n = pads.index(port.terminal)
                y = behind.board.height * (0.45 - 0.9 * n / max(1, len(pads) - 1))
                x = 0.45 * behind.board.width * (1 if side.endswith("left") else -1)  # seen from its parts: from behind
        at = behind.frame.point(x, y)
        return Spot(module, at[0], at[1], behind.back)

    def in_opening(self, spot: Spot) -> tuple[float, float, float]:
        """A place in the coordinates of the opening."""
        if not spot.module:
            return spot.x, spot.y, spot.z
        module = self.r.modules[spot.module].module
        return module.x + spot.x, module.y + spot.y, spot.z


def places(r: Resolved) -> Places:
    """Where everything of a design is."""
    return r.once("places of wires", lambda: Places(r))
