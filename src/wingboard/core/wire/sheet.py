"""The wiring sheet: every wire with both its ends as they are marked, in small groups, each with its test."""

from __future__ import annotations

from typing import NamedTuple

from wingboard.core.files.tables import write_csv
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.netlist import Device, Port
from wingboard.core.wire.nets import net_list
from wingboard.core.wire.wires import How, Wire, groups, helpers, names_of


class End(NamedTuple):
    """An end of a wire in words: what it is on, the terminal as it is marked, the module it is on, the function."""

    device: str
    terminal: str
    module: str
    owner: str


class Joint(NamedTuple):
    """A wire, the leg of a small part or a bridge on a board (``how``), from end to end; ``done`` once soldered."""

    id: str
    start: End
    end: End
    net: str
    kind: str
    how: How
    done: bool


class Step(NamedTuple):
    """A group of the work with its test."""

    id: str
    title: str
    module: str
    joints: tuple[Joint, ...]
    test: str


class Small(NamedTuple):
    """A small part by its mark, what it is, for what, its ohms (0: none), and the module that it belongs to."""

    mark: str
    kind: str
    name: str
    ohms: float
    module: str


def wiring_sheet(r: Resolved) -> tuple[Step, ...]:
    """The whole work in its order."""
    names, done = names_of(r), set(r.design.soldered)
    return tuple(
        Step(g.id, g.title, g.module, tuple(_joint(r, names, w, w.id in done) for w in g.wires), g.test)
        for g in groups(r)
    )


def _joint(r: Resolved, names: dict[str, str], wire: Wire, done: bool) -> Joint:
    return Joint(wire.id, _end(r, names, wire.start), _end(r, names, wire.end), wire.net, wire.kind, wire.how, done)


def _end(r: Resolved, names: dict[str, str], port: Port) -> End:
    device = net_list(r).devices[port.device]
    module = r.modules[device.module].module.name if device.module else ""
    return End(names[port.device], port.terminal, module, device.of if device.of in r.functions else "")


def missing(r: Resolved) -> tuple[str, ...]:
    """What is not on the sheet, for nobody said where it goes: about which part, and what."""
    nets = net_list(r)
    told = ((nets.devices[u.device], u.words) for u in nets.unsaid)
    return tuple(f"{device.name}: {words}" for device, words in told if device.kind != "supply")


def small_parts(r: Resolved) -> tuple[Small, ...]:
    """The small parts that are soldered in, by their marks."""
    names, at = names_of(r), {p.function.id: p.place.module for p in r.placed}
    return tuple(Small(names[d.id], d.kind, d.name, _ohms(d), d.module or at.get(d.of, "")) for d in helpers(r))


def _ohms(device: Device) -> float:
    return device.value if device.kind == "resistor" else 0.0


COLUMNS = (
    "group", "step", "soldered", "from", "from_terminal", "from_module", "to", "to_terminal", "to_module", "how", "net",
    "test",
)  # fmt: skip


HOW: dict[How, str] = {"wire": "wire", "leg": "its own leg", "board": "on the board"}


def sheet_csv(r: Resolved) -> bytes:
    """The sheet as a table: a row a wire, the test of its group in the last column of the group's last row."""
    rows = []
    for n, step in enumerate(wiring_sheet(r), 1):
        for k, joint in enumerate(step.joints, 1):
            one, other = joint.start, joint.end
            test = step.test if k == len(step.joints) else ""
            rows.append(
                (step.title, f"{n}.{k}", "x" if joint.done else "", one.device, one.terminal, one.module, other.device,
                 other.terminal, other.module, HOW[joint.how], joint.net, test)
            )  # fmt: skip
    return write_csv(COLUMNS, rows)


SMALL = ("mark", "kind", "what", "ohms")


def small_csv(r: Resolved) -> bytes:
    """The small parts as a table."""
    rows = [(s.mark, s.kind, s.name, f"{s.ohms:g}" if s.ohms else "") for s in small_parts(r)]
    return write_csv(SMALL, rows)
