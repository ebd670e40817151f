"""What each contact of a plug is joined to, on its module and beyond; drawn from both sides."""

from __future__ import annotations

from collections.abc import Iterator
from typing import NamedTuple

from wingboard.core.files.diagram import FAINT, Box, Diagram, Dot, Shape, Words, pdf, shortened, svg
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.harness.inks import INKS
from wingboard.core.wire.harness.laid import Laid, laid, name_of
from wingboard.core.wire.harness.places import places
from wingboard.core.wire.harness.plugs import WORDS, Plug, plugs, rows_of
from wingboard.core.wire.netlist import Port
from wingboard.core.wire.nets import net_list
from wingboard.core.wire.wires import MARKS


class Contact(NamedTuple):
    """A contact: what it is joined to on its module and beyond, in words, and the wire on its module."""

    number: int
    inside: str
    outside: str
    colour: str
    stripe: str
    area: float
    function: str


def pin_out(r: Resolved, plug: Plug) -> tuple[Contact, ...]:
    """The contacts in use, in their order."""
    wires: dict[tuple[str, str], list[Laid]] = r.once("wires by contact", lambda: _by_contact(r))
    return tuple(_contact(r, plug, number, wires) for number in plug.on)


def _by_contact(r: Resolved) -> dict[tuple[str, str], list[Laid]]:
    found: dict[tuple[str, str], list[Laid]] = {}
    for piece in laid(r):
        if piece.wire.how == "wire":
            for port in (piece.wire.start, piece.wire.end):
                found.setdefault((port.device, port.terminal), []).append(piece)
    return found


def _contact(r: Resolved, plug: Plug, number: int, wires: dict[tuple[str, str], list[Laid]]) -> Contact:
    run = plug.on[number]
    inside, outside = run.start, run.end
    if places(r).home(inside) != plug.module:
        inside, outside = outside, inside
    first = next(n for n, wire in plug.on.items() if wire.id == run.id)  # the others are bridged to it
    mine = wires.get((plug.id, str(first)), ())
    here = next((w for w in mine if inside in (w.wire.start, w.wire.end)), next(iter(mine), None))
    of = inside.device if inside.device in r.functions else ""
    return Contact(number, _said(r, inside), _said(r, outside), here.colour if here else "",
                   (here.stripe or "") if here else "", here.area if here else 0.0, of)  # fmt: skip


def _said(r: Resolved, port: Port) -> str:
    """A terminal in words; of a small part also whose it is."""
    device = net_list(r).devices.get(port.device)
    f = r.functions.get(device.of) if device and device.id != device.of else None
    return f"{name_of(r, port.device)} {port.terminal}" + (
        f", {f.name}" if f and device and device.kind in MARKS else ""
    )


ROUND, STEP, ROW = 2.2, 7.0, 4.2
"""Radius of a contact, from one to the next, height of a row of the table (mm)."""


def plug_diagrams(r: Resolved) -> tuple[Diagram, ...]:
    """A page a plug: both sides, and what is on each contact."""
    return r.once("plug drawings", lambda: tuple(_page(r, plug) for plug in plugs(r)))


def _page(r: Resolved, plug: Plug) -> Diagram:
    module = r.modules[plug.module].module.name
    contacts = {c.number: c for c in pin_out(r, plug)}
    shapes: list[Shape] = [Words(0, 6, f"{plug.title}, {module}: {WORDS[plug.carries]}", 4.2, bold=True)]
    wide = max(len(row) for row in rows_of(plug)) * STEP
    high = len(rows_of(plug)) * STEP
    shapes += _face(plug, contacts, 0.0, 16.0, "as it is put in", mirrored=False)
    shapes += _face(plug, contacts, 0.0, 24.0 + high + STEP, "from the side of the wires", mirrored=True)
    top = 34.0 + 2 * high + STEP
    for n, contact in enumerate(contacts.values()):
        column, row = divmod(n, -(-len(contacts) // 2))
        x, y = column * 95.0, top + row * ROW
        colour = f"{contact.colour}{f'-{contact.stripe}' if contact.stripe else ''}"
        shapes.append(Dot(x + 1.5, y - 1, 1.1, INKS[contact.colour], "#777777", 0.2))
        shapes.append(Words(x + 4, y, str(contact.number), 2.4, bold=True))
        said = shortened(f"{contact.inside}  >  {contact.outside}", 2.3, 62)
        shapes.append(Words(x + 10, y, said, 2.3))
        shapes.append(Words(x + 92, y, colour, 2.0, "end", colour=FAINT))
    rows = -(-len(contacts) // 2)
    spare = ", ".join(map(str, plug.spare)) or "none"
    keyed = f"; contact {plug.key} is closed against the other plugs of its kind" if plug.key else ""
    shapes.append(Words(0, top + rows * ROW + 3, f"Free: {spare}{keyed}", 2.4, colour=FAINT))
    return Diagram(f"{r.design.name}: {plug.title}", max(wide + 8, 190.0), top + rows * ROW + 8, tuple(shapes))


def _face(
    plug: Plug, contacts: dict[int, Contact], x: float, y: float, title: str, mirrored: bool
) -> Iterator[Shape]:  # fmt: skip
    rows = rows_of(plug)
    longest = max(map(len, rows))
    yield Words(x, y - 1.5, f"Seen {title}", 2.4, colour=FAINT)
    yield Box(x, y, longest * STEP + 4, len(rows) * STEP + 1, "#F4F4F0", radius=3.0 if plug.kind == "dsub" else 0.6)
    for k, row in enumerate(rows):
        for n, number in enumerate(row):
            at = n + (longest - len(row)) / 2
            if mirrored:
                at = longest - 1 - at
            cx, cy = x + 2 + (at + 0.5) * STEP, y + 0.5 + (k + 0.5) * STEP
            contact = contacts.get(number)
            fill = INKS[contact.colour] if contact else "#FFFFFF"
            yield Dot(cx, cy - 0.8, ROUND, "#1E262B" if number == plug.key else fill, "#444444", 0.25)
            yield Words(cx, cy + 3.2, str(number), 1.9, "middle")


def plugs_svg(r: Resolved) -> dict[str, bytes]:
    """The drawing of each plug, by its name."""
    return {plug.name: svg(page) for plug, page in zip(plugs(r), plug_diagrams(r), strict=True)}


def plugs_pdf(r: Resolved) -> bytes:
    """All of them as PDF, a page a plug."""
    return pdf(f"{r.design.name}: plugs", plug_diagrams(r))
