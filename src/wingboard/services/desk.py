"""The desk: designs as they are worked on, each change kept before it is acknowledged."""

from __future__ import annotations

import re
import threading
import unicodedata
from collections import OrderedDict
from collections.abc import Callable, Mapping, Sequence
from datetime import UTC, datetime
from functools import cached_property
from typing import NamedTuple

import jsonpatch

from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import BATCH, Command
from wingboard.core.changes.commands.judgement import AcceptFinding
from wingboard.core.changes.wording import said
from wingboard.core.findings.finding import Finding
from wingboard.core.overview.review import review
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.design import Design
from wingboard.core.record.errors import NotPossible
from wingboard.core.record.part import Part
from wingboard.core.record.patches import patch_between
from wingboard.core.record.upgrade import FORMAT, upgraded
from wingboard.core.resolved.design import Resolved
from wingboard.services.pictures import checked_picture
from wingboard.services.shelf import Shelf, load_shelf, to_shelve
from wingboard.store import designs as table
from wingboard.store import shelf as shelf_table
from wingboard.store.database import Database
from wingboard.store.errors import StaleRevision
from wingboard.store.pictures import PictureRow, keep_picture, load_picture

Clock = Callable[[], datetime]
REMEMBERED = 12
"""States kept in memory; any other is rebuilt from the store."""


class State:
    """A design at one revision, with what follows from it."""

    def __init__(self, design_id: str, row: table.RevisionRow, design: Design) -> None:
        self.design_id = design_id
        self.row = row
        self.design = design

    @cached_property
    def resolved(self) -> Resolved:
        """What follows from the design."""
        return Resolved(self.design)

    @cached_property
    def findings(self) -> tuple[Finding, ...]:
        """The review of the design."""
        return review(self.resolved)


class Kept(NamedTuple):
    """The state after a change, and the one the change was made against."""

    state: State
    before: State


class Desk:
    """All designs of one database. Safe to use from several threads; changes go one at a time."""

    def __init__(self, database: Database, clock: Clock = lambda: datetime.now(UTC)) -> None:
        self.database = database
        self._clock = clock
        self._lock = threading.RLock()
        self._states: OrderedDict[tuple[str, int], State] = OrderedDict()

    def designs(self) -> list[table.DesignRow]:
        """Every design, the one kept last first."""
        with self.database.reading() as connection:
            return table.list_designs(connection)

    def add(self, design: Design, label: str, ident: str | None = None) -> State:
        """Keep a new design under a free id made from its name (or ``ident``)."""
        with self._lock, self.database.transaction() as connection:
            design_id = table.free_design_id(connection, ident or slug(design.name))
            table.add_design(connection, design_id, design.name, design.model_dump_json(), label, self._now(), FORMAT)
        return self.open(design_id)

    def open(self, design_id: str, number: int | None = None) -> State:
        """A design at its newest revision, or at another.

        :raises NoSuchDesign: no such design or revision.
        """
        with self._lock, self.database.reading() as connection:
            wanted = table.find_design(connection, design_id).head if number is None else number
            known = self._states.get((design_id, wanted))
            if known is not None:
                self._states.move_to_end((design_id, wanted))
                return known
            row = table.find_revision(connection, design_id, wanted)
            document, patches = table.load_document(connection, design_id, wanted)
            for patch in patches:
                document = jsonpatch.apply_patch(document, patch, in_place=True)
            return self._remember(State(design_id, row, Design.model_validate(upgraded(document))))

    def _remember(self, state: State) -> State:
        self._states[state.design_id, state.row.number] = state
        while len(self._states) > REMEMBERED:
            self._states.popitem(last=False)
        return state

    def command(self, design_id: str, base: int, batch: Sequence[Command], key: str | None = None) -> Kept:
        """Carry out a batch made against revision ``base`` and keep it.

        :param key: names the batch, so that one sent twice is kept once.
        :raises StaleRevision: ``base`` is not the newest.
        :raises DesignError: the batch cannot be carried out; nothing is kept.
        """
        with self._lock:
            done = self._done_already(design_id, key)
            if done is not None:
                return Kept(self.open(design_id), self.open(design_id, base))
            before = self._at_head(design_id, base)
            _refuse_unacceptable(before, batch)
            design = apply(before.design, batch, self.parts())
            labels = list(dict.fromkeys(said(command, before.design) for command in batch))
            label = ", ".join(labels[:3]) + (" …" if len(labels) > 3 else "")
            commands = BATCH.dump_json(tuple(batch), exclude_unset=True).decode()
            return self._keep(before, design, label, commands, undo_to=base, redo_to=None, key=key, batch=batch)

    def undo(self, design_id: str, base: int) -> Kept:
        """Bring back what was before the last change that is not undone yet.

        :raises NotPossible: there is nothing to undo. :raises StaleRevision: ``base`` is not the newest.
        """
        with self._lock:
            before = self._at_head(design_id, base)
            if before.row.undo_to is None:
                raise NotPossible("There is nothing left to undo")
            target = self.open(design_id, before.row.undo_to)
            return self._keep(before, target.design, "Undo", "[]", undo_to=target.row.undo_to, redo_to=base)

    def redo(self, design_id: str, base: int) -> Kept:
        """Bring back what the last undo took.

        :raises NotPossible: there is nothing to redo. :raises StaleRevision: ``base`` is not the newest.
        """
        with self._lock:
            before = self._at_head(design_id, base)
            if before.row.redo_to is None:
                raise NotPossible("There is nothing left to redo")
            target = self.open(design_id, before.row.redo_to)
            again = target.row
            return self._keep(before, target.design, "Redo", "[]", undo_to=again.undo_to, redo_to=again.redo_to)

    def tried(self, design_id: str, base: int, batch: Sequence[Command]) -> State:
        """The state a batch would lead to, without keeping it."""
        before = self.open(design_id, base)
        return State(design_id, before.row, apply(before.design, batch, self.parts()))

    def copy(self, design_id: str) -> State:
        """A new design with the same content."""
        design = self.open(design_id).design
        return self.add(design.model_copy(update={"name": f"{design.name}, copy"[:120]}), f"Copied from {design_id}")

    def shelf(self) -> Shelf:
        """What all designs share: machines, stock, supplies and own parts, as they were last set."""
        with self.database.reading() as connection:
            return load_shelf(connection)

    def parts(self) -> Mapping[str, Part]:
        """The parts that may be chosen: the catalogue, and the builder's own from any design."""
        return {**catalogue(), **{p.id: p for p in self.shelf().parts}}

    def keep_picture(self, content: bytes) -> PictureRow:
        """Check an uploaded picture and keep it by its content. :raises NotAPicture: it is none that is taken."""
        checked = checked_picture(content)
        with self._lock, self.database.transaction() as connection:
            keep_picture(connection, checked, self._now())
        return checked

    def picture(self, sha256: str) -> PictureRow:
        """A kept picture. :raises NoSuchPicture: there is none of that content."""
        with self.database.reading() as connection:
            return load_picture(connection, sha256)

    def _done_already(self, design_id: str, key: str | None) -> int | None:
        if key is None:
            return None
        with self.database.reading() as connection:
            return table.revision_of_batch(connection, design_id, key)

    def _at_head(self, design_id: str, base: int) -> State:
        with self.database.reading() as connection:
            head = table.find_design(connection, design_id).head
            if base != head:
                raise StaleRevision(base, head, table.labels_after(connection, design_id, base))
        return self.open(design_id)

    def _keep(
        self,
        before: State,
        design: Design,
        label: str,
        commands: str,
        undo_to: int | None,
        redo_to: int | None,
        key: str | None = None,
        batch: Sequence[Command] = (),
    ) -> Kept:
        number, at = before.row.number + 1, self._now()
        patch = jsonpatch.JsonPatch(patch_between(before.design, design)).to_string()
        new = table.NewRevision(number, at, label, key, commands, patch, undo_to, redo_to, FORMAT)
        whole = number % table.SNAPSHOT_EVERY == 0 or before.row.format != FORMAT
        snapshot = design.model_dump_json() if whole else None
        with self.database.transaction() as connection:
            head = table.find_design(connection, before.design_id).head
            if head != before.row.number:
                since = table.labels_after(connection, before.design_id, before.row.number)
                raise StaleRevision(before.row.number, head, since)
            table.append_revision(connection, before.design_id, design.name, new, snapshot)
            for kind, ident, document in to_shelve(batch, before.design, design):
                shelf_table.put(connection, kind, ident, document, at)
        row = table.RevisionRow(number, at, label, undo_to, redo_to, FORMAT)
        return Kept(self._remember(State(before.design_id, row, design)), before)

    def _now(self) -> str:
        return self._clock().astimezone(UTC).isoformat(timespec="milliseconds")


def _refuse_unacceptable(before: State, batch: Sequence[Command]) -> None:
    for n, command in enumerate(batch):
        if isinstance(command, AcceptFinding):
            found = next((f for f in before.findings if f.id == command.finding), None)
            if found is None:
                raise NotPossible("That finding is no longer there", f"commands[{n}].finding")
            if found.severity != "judge":
                raise NotPossible("This has to be fixed; it cannot be accepted", f"commands[{n}].finding")


def slug(name: str) -> str:
    """A short id from a name: ``Kestrel Line No. 9`` → ``kestrel-line-no-9``; ``panel`` when nothing is left."""
    plain = unicodedata.normalize("NFKD", name).encode("ascii", "ignore").decode().lower()
    words = re.sub(r"[^a-z0-9]+", "-", plain).strip("-")[:40].strip("-")
    return words if words and words[0].isalpha() else f"panel-{words}".strip("-")
