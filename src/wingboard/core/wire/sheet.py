"""The wiring sheet: every wire with both its ends as they are marked, in small groups, each with its test."""

from __future__ import annotations

from typing import NamedTuple

from wingboard.core.files.tables import write_csv
from wingboard.core.parts.tags import TagKind
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.groups import groups
from wingboard.core.wire.harness.laid import Laid, fixed, labels, laid, name_of, where
from wingboard.core.wire.harness.plugs import plug_of
from wingboard.core.wire.netlist import Device, Port
from wingboard.core.wire.nets import net_list
from wingboard.core.wire.wires import How, helpers, names_of


class End(NamedTuple):
    """An end of a wire in words: what it is on, the terminal as it is marked, the module it is on, the function.

    ``lies``: where the terminal lies, seen from behind; ``label``: what is on the sleeve there; ``fixed``: how.
    """

    device: str
    terminal: str
    module: str
    owner: str
    lies: str
    label: str
    fixed: TagKind


class Joint(NamedTuple):
    """A wire, the leg of a small part or a bridge (``how``), from end to end; ``done`` once soldered.

    ``area`` in mm², ``length`` as it is cut in mm (0: none is cut), ``amps`` the most that it carries besides signals;
    ``said``: whether its length follows from the record, else it is to be measured.
    """

    id: str
    number: str
    start: End
    end: End
    net: str
    kind: str
    how: How
    done: bool
    colour: str
    stripe: str
    area: float
    awg: int
    length: float
    amps: float
    said: bool


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
    return r.once("wiring sheet", lambda: _sheet(r))


def _sheet(r: Resolved) -> tuple[Step, ...]:
    done, pieces = set(r.design.soldered), {piece.wire.id: piece for piece in laid(r)}
    return tuple(
        Step(g.id, g.title, g.module, tuple(_joint(r, pieces[w.id], w.id in done) for w in g.wires), g.test)
        for g in groups(r)
    )


def _joint(r: Resolved, piece: Laid, done: bool) -> Joint:
    wire = piece.wire
    labelled = labels(r, piece)
    start, end = (_end(r, p, label) for p, label in zip((wire.start, wire.end), labelled, strict=True))
    return Joint(
        wire.id, piece.number, start, end, wire.net, wire.kind, wire.how, done, piece.colour, piece.stripe or "",
        piece.area, piece.awg, piece.length, piece.amps, piece.said,
    )  # fmt: skip


def _end(r: Resolved, port: Port, label: str) -> End:
    plug, device = plug_of(r, port.device), net_list(r).devices.get(port.device)
    module = plug.module if plug else device.module if device else ""
    owner = device.of if device and device.of in r.functions else ""
    name = r.modules[module].module.name if module else ""
    return End(name_of(r, port.device), port.terminal, name, owner, where(r, port), label, fixed(r, port))


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
    "group", "step", "soldered", "from", "from_terminal", "from_lies", "from_module", "to", "to_terminal", "to_lies",
    "to_module", "how", "colour", "mm2", "awg", "length_mm", "measure", "label_from", "label_to", "net", "test",
)  # fmt: skip


HOW: dict[How, str] = {"wire": "wire", "leg": "its own leg", "board": "on the board", "bridge": "bridge on both halves"}


def sheet_csv(r: Resolved) -> bytes:
    """The sheet as a table: a row a wire, the test of its group in the last column of the group's last row."""
    rows = []
    for step in wiring_sheet(r):
        for k, joint in enumerate(step.joints, 1):
            one, other = joint.start, joint.end
            test = step.test if k == len(step.joints) else ""
            cut = joint.how == "wire"
            rows.append(
                (step.title, joint.number, "x" if joint.done else "", one.device, one.terminal, one.lies, one.module,
                 other.device, other.terminal, other.lies, other.module, HOW[joint.how],
                 colour_words(joint) if cut else "", f"{joint.area:g}" if cut else "", str(joint.awg) if cut else "",
                 f"{joint.length:g}" if cut else "", "x" if cut and not joint.said else "",
                 one.label if cut else "", other.label if cut else "", joint.net, test)
            )  # fmt: skip
    return write_csv(COLUMNS, rows)


def colour_words(joint: Joint) -> str:
    """The colour of a wire: “yellow”, or “white-blue” for one of 25 pairs."""
    return f"{joint.colour}-{joint.stripe}" if joint.stripe else joint.colour


SMALL = ("mark", "kind", "what", "ohms")


def small_csv(r: Resolved) -> bytes:
    """The small parts as a table."""
    rows = [(s.mark, s.kind, s.name, f"{s.ohms:g}" if s.ohms else "") for s in small_parts(r)]
    return write_csv(SMALL, rows)
