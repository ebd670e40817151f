"""Carrying out commands: a pure function of a design and the parts that may be chosen."""

from __future__ import annotations

from collections.abc import Sequence

from pydantic import ValidationError

from wingboard.core.changes.command import Command
from wingboard.core.changes.handlers import (
    arrange,
    boards,
    brief,
    console,
    cutting,
    functions,
    graphics,
    harness,
    judgement,
    layers,
    legends,
    lights,
    modules,
    parts,
    pictures,
    places,
    procedures,
    trials,
    wire,
    workshop,
)
from wingboard.core.changes.handlers.steps import Catalogue, carry_out
from wingboard.core.record.base import place_of
from wingboard.core.record.design import Design
from wingboard.core.record.errors import DesignError, NotPossible, Problem
from wingboard.core.record.whole import plain_message, revalidated

REGISTERED = (
    brief, workshop, functions, parts, places, arrange, legends, graphics, procedures, pictures, modules, wire,
    harness, judgement, layers, boards, console, cutting, lights, trials,
)  # fmt: skip
"""The modules that carry out the commands."""


def apply(design: Design, batch: Sequence[Command], catalogue: Catalogue) -> Design:
    """Carry out a batch in order, all of it or none. What comes back is valid: it can be kept, opened and reviewed.

    :param catalogue: the parts that may be chosen, by id; those of the design count too.
    :raises DesignError: the first command that cannot be carried out, its path ``commands[n]…``; or what the whole
        batch would break, its path the place in the design.
    """
    changed = design
    for n, command in enumerate(batch):
        try:
            changed = carry_out(command, changed, catalogue)
        except DesignError as error:
            path = f"commands[{n}]" + (f".{error.path}" if error.path else "")
            placed = type(error)(error.message, path, (Problem(path, error.message),))
            placed.ident = error.ident
            raise placed from error
        except ValidationError as error:
            first = error.errors()[0]
            message = f"What comes of it cannot be kept: {place_of(first['loc'])}: {plain_message(first)}"
            raise NotPossible(message, f"commands[{n}]") from error
    return revalidated(design, changed)
