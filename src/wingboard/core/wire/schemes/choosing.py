"""Taking up a scheme for some functions."""

from __future__ import annotations

from collections.abc import Sequence

from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import Command
from wingboard.core.changes.commands.functions import EditFunction
from wingboard.core.changes.commands.wire import UnpinLines
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.functions import Scheme
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.lines import lines
from wingboard.core.wire.signals import cannot, signals


def suited(r: Resolved, functions: Sequence[str], scheme: Scheme) -> frozenset[str]:
    """Those of which at least one terminal can be wired so."""
    asked = set(functions)
    mine = (s for s in signals(r) if s.line.function in asked)
    return frozenset(s.line.function for s in mine if not cannot(r, s.placed, s.line, s.told, scheme))


def take_up(r: Resolved, functions: Sequence[str], scheme: Scheme) -> tuple[Command, ...]:
    """The commands that give functions a scheme, those of which something can be wired so, and take back the pins that
    the solver gave to lines that then go away."""
    able = suited(r, functions, scheme)
    commands: tuple[Command, ...] = tuple(EditFunction(function=f, scheme=scheme) for f in functions if f in able)
    return freed(r, commands) if commands else ()


def freed(r: Resolved, commands: tuple[Command, ...]) -> tuple[Command, ...]:
    """Commands, and one more that takes back the pins that the solver gave to lines which go away with them."""
    after = apply(r.design, commands, catalogue())
    wanted = {line.id for line in lines(Resolved(after))}
    gone = tuple(p.line for p in after.pins if p.line not in wanted and not p.stays)
    return (*commands, UnpinLines(lines=gone)) if gone else commands
