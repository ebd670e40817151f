"""The desk: designs as they are worked on, each change kept before it is acknowledged."""

from __future__ import annotations

import hashlib
import re
import threading
import unicodedata
from collections import OrderedDict
from collections.abc import Callable, Hashable, Mapping, Sequence
from datetime import UTC, datetime
from functools import cached_property
from typing import NamedTuple, TypeVar

import jsonpatch

from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import Command
from wingboard.core.changes.commands.judgement import AcceptFinding
from wingboard.core.changes.log import log_of
from wingboard.core.changes.wording import phrase_of
from wingboard.core.cut.plan import WRONG
from wingboard.core.findings.finding import Finding
from wingboard.core.findings.registry import identity
from wingboard.core.overview.fixing import fix_of
from wingboard.core.overview.memory import Memory
from wingboard.core.overview.review import review
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.design import Design
from wingboard.core.record.errors import DesignError, NotPossible
from wingboard.core.record.patches import patch_between
from wingboard.core.record.upgrade import FORMAT
from wingboard.core.record.whole import interned
from wingboard.core.resolved.design import Resolved
from wingboard.services.costly import Costly
from wingboard.services.loading import last_good_revision, load_design, raw_history
from wingboard.services.news import Judged, News, Revised
from wingboard.services.shared import SharedThings
from wingboard.services.shelf import completed, to_shelve
from wingboard.store import designs as table
from wingboard.store import shelf as shelf_table
from wingboard.store.database import Database
from wingboard.store.errors import KeyUsedAgain, StaleRevision

T = TypeVar("T")
Clock = Callable[[], datetime]
REMEMBERED = 12
"""States kept in memory; any other is rebuilt from the store."""


class State:
    """A design at one revision, with what follows from it."""

    def __init__(
        self, design_id: str, row: table.RevisionRow, design: Design, memory: Memory | None = None,
        costly: Costly | None = None, when_there: Callable[[], object] = lambda: None,
    ) -> None:  # fmt: skip
        """:param costly: works out what takes long while others go on, and calls ``when_there`` when it has it."""
        self.design_id = design_id
        self.row = row
        self.design = design
        self._memory = memory
        self._costly = costly
        self._when_there = when_there
        self._reviewed: tuple[int, tuple[Finding, ...]] | None = None
        self._wrong = 0
        self._fixes: dict[str, Finding | None] = {}

    @cached_property
    def resolved(self) -> Resolved:
        """What follows from the design."""
        return Resolved(self.design, self._later if self._costly is not None else None)

    def _later(self, name: str, key: Hashable, compute: Callable[[], T]) -> T | None:
        assert self._costly is not None
        return self._costly.ask((self.design_id, name), key, compute, self._when_there)

    @property
    def judging(self) -> bool:
        """Whether something that findings rest on is being worked out; they are told of when it is there."""
        return self.findings is not None and self.resolved.missed

    @property
    def findings(self) -> tuple[Finding, ...]:
        """The review of the design: again, where something that was missing has arrived."""
        arrived = self._costly.arrived if self._costly is not None else 0
        known, wrong = self._reviewed, WRONG.many
        if known is None or (self.resolved.missed and known[0] != arrived) or self._wrong != wrong:
            self.resolved.missed = False
            known = self._reviewed = arrived, review(self.resolved, self._memory)
            self._wrong = wrong
        return known[1]

    def tell_of_more(self) -> None:
        """Tell every page that findings are there that were not: a file was read back, and is wrong."""
        self._when_there()

    def judged(self) -> tuple[Finding, ...]:
        """Every finding, what takes long worked out first: for paper and files."""
        return review(Resolved(self.design), Memory()) if self.judging else self.findings

    def fix_of(self, finding: str) -> Finding | None:
        """A finding with its fix worked out, once; None when it is not there."""
        if finding not in self._fixes:
            r = Resolved(self.design) if self.judging else self.resolved
            self._fixes[finding] = fix_of(r, finding, self._memory)
        return self._fixes[finding]


class Kept(NamedTuple):
    """The state after a change, and the one the change was made against."""

    state: State
    before: State


Prepare = Callable[[Kept], object]
"""Works out the answer to a change before it is kept, so that nothing is kept that cannot be shown."""


def judge(kept: Kept) -> object:
    """Review the changed design."""
    return kept.state.findings


class _Change(NamedTuple):
    """What a new revision says of itself."""

    label: str
    commands: str
    undo_to: int | None
    redo_to: int | None
    key: str | None
    asked: str | None


class Desk(SharedThings):
    """All designs of one database. Safe to use from several threads; changes go one at a time, readers never wait."""

    def __init__(self, database: Database, clock: Clock = lambda: datetime.now(UTC), news: News | None = None) -> None:
        super().__init__(database, clock)
        self.news = news or News()
        self._changing = threading.RLock()
        self._states_lock = threading.Lock()
        self._states: OrderedDict[tuple[str, int], State] = OrderedDict()
        self._memories: OrderedDict[str, Memory] = OrderedDict()
        self.costly = Costly()

    def designs(self, removed: bool = False) -> list[table.DesignRow]:
        """Every design in the list, or those removed from it; the one kept last first."""
        with self.database.reading() as connection:
            return table.list_designs(connection, removed)

    def set_removed(self, design_id: str, removed: bool) -> None:
        """Remove a design from the list, or bring it back; its revisions are kept. :raises NoSuchDesign: none."""
        with self._changing, self.database.transaction() as connection:
            table.set_removed(connection, design_id, self._now() if removed else None)
            head = table.find_design(connection, design_id).head
        self.news.tell(Revised(design=design_id, revision=head, label="Removed" if removed else "Brought back"))

    def add(self, design: Design, label: str, ident: str | None = None) -> State:
        """Keep a new design under a free id made from its name (or ``ident``)."""
        with self._changing, self.database.transaction() as connection:
            design_id = table.free_design_id(connection, ident or slug(design.name))
            table.add_design(connection, design_id, design.name, design.model_dump_json(), label, self._now(), FORMAT)
        self.news.tell(Revised(design=design_id, revision=1, label=label))
        return self.open(design_id)

    def open(self, design_id: str, number: int | None = None) -> State:
        """A design at its newest revision, or at another.

        :raises NoSuchDesign: no such design or revision. :raises UnreadableRevision: what is kept is damaged.
        """
        with self.database.reading() as connection:
            wanted = table.find_design(connection, design_id).head if number is None else number
            known = self._known(design_id, wanted)
            if known is not None:
                return known
            row = table.find_revision(connection, design_id, wanted)
            design = load_design(connection, design_id, wanted)
        return self._remember(self._state(design_id, row, design))

    def _known(self, design_id: str, number: int) -> State | None:
        with self._states_lock:
            state = self._states.get((design_id, number))
            if state is not None:
                self._states.move_to_end((design_id, number))
            return state

    def _gone(self, now: State) -> dict[str, str]:
        """Names of functions that were removed of late, by id: somebody else may still be asking for them."""
        with self._states_lock:
            earlier = [s.design for (ident, _), s in self._states.items() if ident == now.design_id]
        there = {f.id for f in now.design.functions}
        return {f.id: f.name for design in earlier for f in design.functions if f.id not in there}

    def _memory(self, design_id: str) -> Memory:
        with self._states_lock:
            memory = self._memories.setdefault(design_id, Memory())
            self._memories.move_to_end(design_id)
            while len(self._memories) > REMEMBERED:
                self._memories.popitem(last=False)
            return memory

    def _state(self, design_id: str, row: table.RevisionRow, design: Design) -> State:
        def arrived() -> None:
            self.news.tell(Judged(design=design_id, revision=row.number))

        return State(design_id, row, design, self._memory(design_id), self.costly, arrived)

    def _remember(self, state: State) -> State:
        with self._states_lock:
            self._states[state.design_id, state.row.number] = state
            while len(self._states) > REMEMBERED:
                self._states.popitem(last=False)
        return state

    def command(
        self, design_id: str, base: int, batch: Sequence[Command], key: str | None = None, prepare: Prepare = judge
    ) -> Kept:
        """Carry out a batch made against revision ``base`` and keep it; one that changes nothing is not kept.

        :param key: names the batch, so that one sent twice is kept once.
        :raises StaleRevision: ``base`` is not the newest. :raises KeyUsedAgain: the key named another batch.
        :raises DesignError: the batch cannot be carried out; nothing is kept.
        """
        asked = _fingerprint(log_of(batch))
        with self._changing:
            done = self._done_already(design_id, base, key, asked)
            if done is None:
                before = self._at_head(design_id, base)
                try:
                    whole = completed(_accepting(before, batch), before.design, self.shelf())
                    design = apply(before.design, whole, catalogue())
                except DesignError as error:
                    gone = self._gone(before)
                    error.what = _label(batch, before.design, gone)
                    error.naming(gone)
                    raise
                change = _Change(_label(whole, before.design), log_of(whole), base, None, key or None, asked)
                done = self._keep(before, design, change, prepare)
            else:
                prepare(done)
            return done

    def undo(self, design_id: str, base: int, key: str | None = None, prepare: Prepare = judge) -> Kept:
        """Bring back what was before the last change that is not undone yet.

        :raises NotPossible: there is nothing to undo. :raises StaleRevision: ``base`` is not the newest.
        """
        with self._changing:
            done = self._done_already(design_id, base, key, _fingerprint("undo"))
            if done is not None:
                prepare(done)
                return done
            before = self._at_head(design_id, base)
            if before.row.undo_to is None:
                raise NotPossible("There is nothing left to undo")
            target = self.open(design_id, before.row.undo_to)
            change = _Change("Undo", "[]", target.row.undo_to, base, key or None, _fingerprint("undo"))
            return self._keep(before, interned(target.design, before.design), change, prepare)

    def redo(self, design_id: str, base: int, key: str | None = None, prepare: Prepare = judge) -> Kept:
        """Bring back what the last undo took.

        :raises NotPossible: there is nothing to redo. :raises StaleRevision: ``base`` is not the newest.
        """
        with self._changing:
            done = self._done_already(design_id, base, key, _fingerprint("redo"))
            if done is not None:
                prepare(done)
                return done
            before = self._at_head(design_id, base)
            if before.row.redo_to is None:
                raise NotPossible("There is nothing left to redo")
            target = self.open(design_id, before.row.redo_to)
            again = target.row
            change = _Change("Redo", "[]", again.undo_to, again.redo_to, key or None, _fingerprint("redo"))
            return self._keep(before, interned(target.design, before.design), change, prepare)

    def tried(self, design_id: str, base: int, batch: Sequence[Command]) -> State:
        """The state a batch would lead to, without keeping it."""
        before = self.open(design_id, base)
        whole = completed(batch, before.design, self.shelf())
        return State(
            design_id, before.row, apply(before.design, whole, catalogue()), self._memory(design_id), self.costly
        )

    def copy(self, design_id: str) -> State:
        """A new design with the same content."""
        design = self.open(design_id).design
        return self.add(design.model_copy(update={"name": f"{design.name[:110]}, copy"}), f"Copied from {design_id}")

    def head(self, design_id: str) -> int:
        """The number of a design's newest revision, whether it can be read or not."""
        with self.database.reading() as connection:
            return table.find_design(connection, design_id).head

    def last_good(self, design_id: str) -> int | None:
        """The newest revision of a damaged design that can be read; None when there is none."""
        with self.database.reading() as connection:
            return last_good_revision(connection, design_id)

    def raw(self, design_id: str) -> bytes:
        """Everything that is kept of a design, as JSON, whether it can be read or not."""
        with self.database.reading() as connection:
            return raw_history(connection, design_id)

    def recover(self, design_id: str) -> State:
        """Keep the last revision that can be read as the newest one.

        :raises NotPossible: no revision can be read.
        """
        with self._changing:
            good = self.last_good(design_id)
            if good is None:
                raise NotPossible("No revision of this design can be read; save its raw file")
            design = self.open(design_id, good).design
            with self.database.transaction() as connection:
                number = table.find_design(connection, design_id).head + 1
                label = f"Recovered from revision {good}"
                new = table.NewRevision(number, self._now(), label, None, "[]", "[]", None, None, FORMAT, None)
                table.append_revision(connection, design_id, design.name, new, design.model_dump_json())
            self.news.tell(Revised(design=design_id, revision=number, label=label))
        return self.open(design_id)

    def _done_already(self, design_id: str, base: int, key: str | None, asked: str) -> Kept | None:
        if not key:
            return None
        with self.database.reading() as connection:
            known = table.find_batch(connection, design_id, key)
        if known is None:
            return None
        if known.asked is not None and known.asked != asked:
            raise KeyUsedAgain("This key named another change before; send the change with a key of its own")
        return Kept(self.open(design_id), self.open(design_id, base))

    def _at_head(self, design_id: str, base: int) -> State:
        with self.database.reading() as connection:
            head = table.find_design(connection, design_id).head
            if base != head:
                raise StaleRevision(base, head, table.labels_after(connection, design_id, base))
        return self.open(design_id)

    def _keep(self, before: State, design: Design, change: _Change, prepare: Prepare) -> Kept:
        if design is before.design and change.undo_to == before.row.number:
            same = Kept(before, before)
            prepare(same)
            return same
        number, at = before.row.number + 1, self._now()
        row = table.RevisionRow(number, at, change.label, change.undo_to, change.redo_to, FORMAT)
        kept = Kept(self._state(before.design_id, row, design), before)
        prepare(kept)
        self._append(kept, change, at)
        self._remember(kept.state)
        self.news.tell(Revised(design=before.design_id, revision=number, label=change.label))
        return kept

    def _append(self, kept: Kept, change: _Change, at: str) -> None:
        before, design, number = kept.before, kept.state.design, kept.state.row.number
        patch = jsonpatch.JsonPatch(patch_between(before.design, design)).to_string()
        new = table.NewRevision(
            number, at, change.label, change.key, change.commands, patch, change.undo_to, change.redo_to, FORMAT,
            change.asked,
        )  # fmt: skip
        whole = number % table.SNAPSHOT_EVERY == 0 or before.row.format != FORMAT
        snapshot = design.model_dump_json() if whole else None
        with self.database.transaction() as connection:
            head = table.find_design(connection, before.design_id).head
            if head != before.row.number:
                since = table.labels_after(connection, before.design_id, before.row.number)
                raise StaleRevision(before.row.number, head, since)
            table.append_revision(connection, before.design_id, design.name, new, snapshot)
            for kind, ident, document in to_shelve(before.design, design):
                shelf_table.put(connection, kind, ident, document, at)


def _fingerprint(text: str) -> str:
    return hashlib.sha256(text.encode()).hexdigest()


def _label(batch: Sequence[Command], before: Design, gone: Mapping[str, str] | None = None) -> str:
    phrases = list(dict.fromkeys(phrase_of(command, before, gone) for command in batch))
    return ", ".join(phrases[:3]) + (" …" if len(phrases) > 3 else "")


def _accepting(before: State, batch: Sequence[Command]) -> tuple[Command, ...]:
    """The batch with the subjects of what it accepts: an acceptance holds for exactly those.

    :raises NotPossible: a finding is not there, or may not be accepted.
    """
    made: list[Command] = []
    for n, command in enumerate(batch):
        if isinstance(command, AcceptFinding):
            found = next((f for f in before.findings if f.id == command.finding), None)
            if found is None:
                raise NotPossible("That finding is no longer there", f"commands[{n}].finding")
            if not found.acceptable:
                why = "This can hurt someone" if found.severity == "must" else "This is only a note"
                raise NotPossible(f"{why}; it cannot be accepted", f"commands[{n}].finding")
            if found.id == found.code and found.subjects:
                over = {"finding": identity(found.code, *found.subjects), "subjects": found.subjects}
                command = command.model_copy(update=over)
        made.append(command)
    return tuple(made)


def slug(name: str) -> str:
    """A short id from a name: ``Kestrel Line No. 9`` → ``kestrel-line-no-9``; ``panel`` when nothing is left."""
    plain = unicodedata.normalize("NFKD", name).encode("ascii", "ignore").decode().lower()
    words = re.sub(r"[^a-z0-9]+", "-", plain).strip("-")[:40].strip("-")
    return words if words and words[0].isalpha() else f"panel-{words}".strip("-")
