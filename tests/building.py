"""Small designs said in one line: a plate of 200 × 120 mm with the named parts at the given places."""

from __future__ import annotations

import json
from collections.abc import Iterator, Sequence
from pathlib import Path
from typing import Any

from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import BATCH, Command
from wingboard.core.changes.commands.brief import AddKeepOut
from wingboard.core.changes.commands.functions import AddFunction
from wingboard.core.changes.commands.graphics import AddGraphic
from wingboard.core.changes.commands.modules import AddModule
from wingboard.core.changes.commands.parts import ChoosePart
from wingboard.core.changes.commands.pictures import AddReference
from wingboard.core.changes.commands.places import PlacePart
from wingboard.core.changes.commands.procedures import AddProcedure
from wingboard.core.changes.commands.workshop import AddMachine, AddStock, AddSupply
from wingboard.core.changes.log import replayed
from wingboard.core.cut.export import cut_files
from wingboard.core.findings.finding import Finding, Fix
from wingboard.core.overview.fixing import fix_of
from wingboard.core.overview.review import review
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.base import Record
from wingboard.core.record.design import Design
from wingboard.core.record.legends import Graphic
from wingboard.core.record.outlines import RectOutline
from wingboard.core.record.pictures import Reference
from wingboard.core.record.procedures import Procedure
from wingboard.core.record.space import Brief, KeepOut
from wingboard.core.record.workshop import Machine, Stock, Supply
from wingboard.core.resolved.design import Resolved
from wingboard.services.desk import Desk
from wingboard.store import designs as table

PlacedAt = tuple[str, float, float]


def plate(*parts: PlacedAt, commands: tuple[Command, ...] = (), **brief: Any) -> Design:
    """Functions ``f1``, ``f2`` … named “F1” …, each with its part placed; then the commands."""
    opening = RectOutline(width=201, height=121)
    start = Design(name="Test plate", brief=Brief(opening=opening, **brief))
    batch: list[Command] = [
        AddModule(id="plate", name="Plate", outline=RectOutline(width=200, height=120), x=0.5, y=0.5)
    ]
    for n, (part, x, y) in enumerate(parts, 1):
        batch += [
            AddFunction(id=f"f{n}", name=f"F{n}"),
            ChoosePart(function=f"f{n}", part=part),
            PlacePart(function=f"f{n}", module="plate", x=x, y=y),
        ]
    return apply(start, [*batch, *commands], catalogue())


_ADD: dict[type[Record], type[Any]] = {
    Machine: AddMachine, Stock: AddStock, Supply: AddSupply, KeepOut: AddKeepOut,
    Graphic: AddGraphic, Procedure: AddProcedure, Reference: AddReference,
}  # fmt: skip


def adding(thing: Record) -> Command:
    """The command that adds a thing as it is, with its id."""
    command: Command = _ADD[type(thing)](**dict(thing))
    return command


def made_files(r: Resolved, findings: Sequence[Finding]) -> dict[str, bytes]:
    """Every file for the machines, by its path."""
    return {file.name: file.content for file in cut_files(r, findings)}


def found(design: Design, code: str) -> list[Finding]:
    """The findings of one check."""
    return [f for f in review(Resolved(design)) if f.code == code]


def settled(design: Design, finding: Finding) -> Design:
    """The design after the finding's fix."""
    fix = offered(design, finding)
    assert fix is not None, finding
    return apply(design, fix.commands, catalogue())


def offered(design: Design, finding: Finding) -> Fix | None:
    """The fix that is offered for a finding of a design."""
    asked = fix_of(Resolved(design), finding.id)
    return asked.fix if asked else None


def every_command() -> tuple[Command, ...]:
    """Each command at least once, as they can be carried out one after the other on a plate with two parts."""
    others = catalogue()["rotary-8"].model_copy(update={"id": "others-part", "base": "rotary-8"})
    raws = json.loads((Path(__file__).parent / "core/changes/every_command.json").read_text("utf-8"))
    for raw in raws:
        if raw["do"] == "adopt_part":
            raw["part"] = others.model_dump()
    return BATCH.validate_python(raws)


def replay(desk: Desk, ident: str) -> Iterator[tuple[int, Design]]:
    """Every revision's number and design, made from the first one and the log of commands, undos and redos alone."""
    done, undone = [desk.open(ident, 1).design], list[Design]()
    with desk.database.reading() as connection:
        log = table.load_log(connection, ident)[1:]
    for entry in log:
        if entry.label == "Undo":
            undone.append(done.pop())
        elif entry.label == "Redo":
            done.append(undone.pop())
        else:
            done.append(replayed(done[-1], entry.commands, catalogue()))
            undone.clear()
        yield entry.number, done[-1]
