"""Taking up a scheme for some functions."""

from __future__ import annotations

from collections.abc import Iterable

from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import Command
from wingboard.core.changes.commands.functions import EditFunction
from wingboard.core.changes.commands.wire import UnpinLines
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.functions import Scheme
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.lines import lines


def take_up(r: Resolved, functions: Iterable[str], scheme: Scheme) -> tuple[Command, ...]:
    """The commands that give functions a scheme, and take back what pins the solver gave to lines that then go away."""
    commands: tuple[Command, ...] = tuple(EditFunction(function=f, scheme=scheme) for f in functions)
    after = apply(r.design, commands, catalogue())
    wanted = {line.id for line in lines(Resolved(after))}
    gone = tuple(p.line for p in after.pins if p.line not in wanted and p.line.startswith("~") and p.by == "solver")
    return (*commands, UnpinLines(lines=gone)) if gone else commands
