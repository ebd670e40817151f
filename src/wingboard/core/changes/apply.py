"""Carrying out commands: each a pure function of a design and the catalogue that gives a new design or raises."""

from __future__ import annotations

from collections.abc import Sequence

from wingboard.core.changes.command import Command
from wingboard.core.changes.handlers import arrange, brief, face, functions, judgement, parts, wire, words
from wingboard.core.changes.handlers.steps import Catalogue, carry_out
from wingboard.core.record.design import Design
from wingboard.core.record.errors import DesignError, Problem

REGISTERED = (brief, functions, parts, face, arrange, words, wire, judgement)
"""The modules that carry out the commands."""


def apply(design: Design, batch: Sequence[Command], catalogue: Catalogue) -> Design:
    """Carry out a batch in order, all of it or none.

    :param catalogue: the parts that may be chosen, by id; those of the design count too.
    :raises DesignError: the first command that cannot be carried out, its path ``commands[n]…``.
    """
    for n, command in enumerate(batch):
        try:
            design = carry_out(command, design, catalogue)
        except DesignError as error:
            path = f"commands[{n}]" + (f".{error.path}" if error.path else "")
            raise type(error)(error.message, path, (Problem(path, error.message),)) from error
    return design
