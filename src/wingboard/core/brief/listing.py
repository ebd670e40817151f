"""The function list as a table: pasted from a spreadsheet or read from CSV, with every line not understood."""

from __future__ import annotations

import csv
import io
import re
from collections.abc import Mapping, Sequence
from typing import Any, NamedTuple, get_args

from pydantic import ValidationError

from wingboard.core.brief.lines import positions_in, read_line
from wingboard.core.brief.wanted import duty_wanted, load_in
from wingboard.core.changes.commands.functions import AddFunction, EditFunction
from wingboard.core.record.design import Design
from wingboard.core.record.errors import NotPossible
from wingboard.core.record.functions import Current, Duty, Function, HandSide, Moment, State, Switched

COLUMNS = (
    "name", "group", "want", "event", "volts", "amps", "current", "bus", "positions", "indicator",
    "risk", "state", "duty", "of", "hand", "moment", "id",
)  # fmt: skip
MOST_LINES = 2000
_SAME = {
    "function": "name", "what": "name", "control": "want", "kind": "want", "part": "want", "section": "group",
    "v": "volts", "a": "amps", "words": "positions", "light": "indicator", "shows": "of", "protects": "of",
    "when": "moment",
    "weight": "risk", "ac": "current",
}  # fmt: skip
_CHOICES: Mapping[str, tuple[str, ...]] = {
    "risk": ("normal", "guarded", "emergency"),
    "state": get_args(State),
    "duty": get_args(Duty),
    "hand": get_args(HandSide),
    "moment": get_args(Moment),
}
_PLAIN = ("group", "want", "positions", "indicator", "risk", "state", "duty", "of", "hand", "moment")
_OF_LOAD = ("event", "volts", "amps", "current", "bus")
_LINE_END = re.compile(r"\r\n?|\u2028|\u2029|\x85")
_QUOTED = re.compile(r"(^|[;,]\s*)'(?=[=+\-@\t])")


class Fault(NamedTuple):
    """A line that was not understood: its number in the text, the text, and why."""

    line: int
    text: str
    reason: str


class Listing(NamedTuple):
    """What was understood, ready to be added or changed, and what was not; ``same`` counts what is so already."""

    rows: tuple[AddFunction, ...]
    edits: tuple[EditFunction, ...]
    same: int
    faults: tuple[Fault, ...]
    columns: tuple[str, ...]


class _NotUnderstood(Exception):
    """A cell that makes no sense; the message says why."""


def read_listing(text: str, design: Design) -> Listing:
    """Read a table of functions: tabs, semicolons or commas between cells, a heading optional.

    Without a heading the columns are name, what is wanted, group; a single column is read as typed lines. Under a
    heading, a row whose id, or whose name and kind, are on the list already changes that function where its cells
    differ; a column that is not there changes nothing.

    :raises NotPossible: more than :data:`MOST_LINES` lines, or nothing at all.
    """
    text = _LINE_END.sub("\n", text)
    if text.count("\n") > MOST_LINES:
        raise NotPossible(f"More than {MOST_LINES} lines; paste them in pieces", "text")
    try:
        table = [(n, cells) for n, cells in _cells(text) if any(cells)]
    except csv.Error as error:
        raise NotPossible(f"The cells cannot be told apart: {error}", "text") from error
    if not table:
        raise NotPossible("There is nothing to read; paste lines, or cells of a spreadsheet", "text")
    heading = _heading(table[0][1])
    columns = heading or ("name", "want", "group")
    reader = _Reader(design, columns, updates=heading is not None)
    for number, cells in table[1:] if heading else table:
        reader.take(number, cells)
    return Listing(tuple(reader.rows), tuple(reader.edits), reader.same, tuple(reader.faults), columns)


def _cells(text: str) -> list[tuple[int, list[str]]]:
    sample = text[:4000]
    between = "\t" if "\t" in sample else ";" if sample.count(";") > sample.count(",") else ","
    if between == "," and "\n" in text and "," not in sample.split("\n", 1)[0]:
        return [(n, [line.strip()]) for n, line in enumerate(text.splitlines(), 1)]
    reader = csv.reader(io.StringIO(text), delimiter=between)
    return [(reader.line_num, [_QUOTED.sub(r"\1", cell.strip()) for cell in row]) for row in reader]


def _heading(cells: Sequence[str]) -> tuple[str, ...] | None:
    names = [_SAME.get(cell.lower(), cell.lower()) for cell in cells]
    return tuple(names) if "name" in names and sum(n in COLUMNS for n in names) > len(names) / 2 else None


class _Reader:
    """Reads row after row, knowing the names and ids there are already."""

    def __init__(self, design: Design, columns: tuple[str, ...], updates: bool = False) -> None:
        self.columns = columns
        self.updates = updates
        self.there = {f.id: f for f in design.functions}
        self.ids = {f.name.lower(): f.id for f in design.functions}
        self.kinds = {(f.name.lower(), duty_wanted(f, f.name)): f.id for f in design.functions}
        self.seen: set[str] = set()
        self.taken = {f.id for f in design.functions}
        self.rows: list[AddFunction] = []
        self.edits: list[EditFunction] = []
        self.same = 0
        self.faults: list[Fault] = []

    def take(self, number: int, cells: list[str]) -> None:
        """Read one row, or note why it makes no sense."""
        try:
            row = self._row(cells)
        except (_NotUnderstood, ValidationError) as error:
            reason = error.errors()[0]["msg"] if isinstance(error, ValidationError) else str(error)
            self.faults.append(Fault(number, ", ".join(c for c in cells if c)[:120], reason))
            return
        known = self.there.get(row.id or "")
        if known is not None:
            self._change(known, row)
            return
        self.rows.append(row)
        self.ids.setdefault(row.name.lower(), row.id or "")
        self.kinds[row.name.lower(), duty_wanted(row, row.name)] = row.id or ""

    def _change(self, known: Function, row: AddFunction) -> None:
        """Note what a row says differently of a function that is there."""
        self.seen.add(known.id)
        said = {name: getattr(row, name) for name in ("name", *_PLAIN) if name in self.columns}
        said |= {name: getattr(row.switches, name) for name in _OF_LOAD if name in self.columns}
        if row.positions:  # said with what is wanted
            said["positions"] = row.positions
        now = {name: getattr(known.switches if name in _OF_LOAD else known, name) for name in said}
        changes = {name: value for name, value in said.items() if value != now[name]}
        if changes:
            self.edits.append(EditFunction(function=known.id, **changes))
        else:
            self.same += 1

    def _known(self, found: Mapping[str, str], name: str, kind: Duty) -> str | None:
        """The id of the function a row is about, when it is there already.

        :raises _NotUnderstood: it is, and rows do not change what is there, or it is there twice.
        """
        ident = found.get("id", "")
        if ident not in self.there:
            ident = self.kinds.get((name.lower(), kind), "")
        if not ident:
            return None
        if not self.updates or ident not in self.there or ident in self.seen:
            raise _NotUnderstood(f"“{name}” is on the list already")
        return ident

    def _row(self, cells: list[str]) -> AddFunction:
        if len(cells) > len(self.columns) and any(cells[len(self.columns) :]):
            raise _NotUnderstood(f"{len(cells)} cells under {len(self.columns)} columns")
        found = {name: cell for name, cell in zip(self.columns, cells, strict=False) if cell}
        if "name" not in found:
            raise _NotUnderstood("There is no name in this line")
        line = read_line(found["name"]) if len(found) == 1 else None
        name = line.name if line else found["name"]
        if not re.search(r"\w", name):
            raise _NotUnderstood(f"“{name[:20]}” is not a name")
        fields: dict[str, Any] = {n: found[n] for n in ("group", "want", "indicator") if n in found}
        fields |= {n: self._choice(n, found[n]) for n in _CHOICES if n in found}
        fields["positions"] = tuple(w.strip() for w in re.split(r"[/|,;]", found.get("positions", "")) if w.strip())
        if line:
            fields |= {"want": line.want, "positions": line.positions}
        elif "want" in found and not fields["positions"]:
            fields["want"], fields["positions"] = positions_in(found["want"])
        fields["switches"] = self._switches(found) if not line else line.switches
        if "of" in found:
            fields["of"] = self._of(found["of"])
        made = AddFunction(name=name, **fields)
        ident = self._known(found, name, duty_wanted(made, name)) or self._free_id()
        return made.model_copy(update={"id": ident})

    def _choice(self, column: str, cell: str) -> str:
        word = cell.lower()
        if word not in _CHOICES[column]:
            raise _NotUnderstood(f"{column} “{cell[:20]}” is none of {', '.join(c for c in _CHOICES[column] if c)}")
        return word

    def _switches(self, found: Mapping[str, str]) -> Switched:
        said = load_in(found.get("want", ""))
        volts = _figure("volts", found["volts"]) if "volts" in found else said.volts
        amps = _figure("amps", found["amps"]) if "amps" in found else said.amps
        current = _current(found["current"]) if "current" in found else said.current
        return Switched(event=found.get("event", ""), volts=volts, amps=amps, current=current, bus=found.get("bus", ""))

    def _of(self, cell: str) -> str:
        ident = self.ids.get(cell.lower()) or (cell if cell in self.taken else None)
        if ident is None:
            raise _NotUnderstood(f"it belongs to “{cell[:30]}”, which is not on the list above it")
        return ident

    def _free_id(self) -> str:
        n = len(self.taken) + 1
        while f"f{n}" in self.taken:
            n += 1
        self.taken.add(f"f{n}")
        return f"f{n}"


def _current(cell: str) -> Current:
    """“AC” or “DC”; a yes stands for AC, a no for what is not said."""
    said = cell.strip().lower()
    if said in ("ac", "yes", "true", "1", "x"):
        return "AC"
    if said == "dc":
        return "DC"
    if said in ("", "no", "false", "0", "-"):
        return ""
    raise _NotUnderstood(f"current “{cell[:20]}” is neither AC nor DC")


def _figure(column: str, cell: str) -> float:
    match = re.fullmatch(r"(\d{1,4}(?:[.,]\d{1,4})?)\s*(m?)[VA]?", cell.strip(), re.I)
    if match is None:
        raise _NotUnderstood(f"{column} “{cell[:20]}” is not a number")
    return float(match[1].replace(",", ".")) / (1000 if match[2] else 1)


def listing_rows(design: Design) -> list[tuple[str, ...]]:
    """The function list as cells under :data:`COLUMNS`; :func:`read_listing` understands them again."""
    names = {f.id: f.name for f in design.functions}
    return [_written(f, names) for f in design.functions]


def _written(f: Function, names: Mapping[str, str]) -> tuple[str, ...]:
    s = f.switches
    figures = tuple(f"{v:g}" if v else "" for v in (s.volts, s.amps))
    state = "" if f.state == "wanted" else f.state
    risk = "" if f.risk == "normal" else f.risk
    belongs = names.get(f.of or "", "")
    words = " / ".join(f.positions)
    tail = (risk, state, f.duty or "", belongs, f.hand, f.moment, f.id)
    return (f.name, f.group, f.want, s.event, *figures, s.current, s.bus, words, f.indicator, *tail)
