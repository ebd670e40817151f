"""Functions worked in an order."""

from __future__ import annotations

from pydantic import Field

from wingboard.core.record.base import Ident, Record, Words


class ProcedureFields(Record):
    """Functions worked one after the other: “shut down”."""

    name: Words = Field(min_length=1)
    steps: tuple[Ident, ...] = Field(min_length=1, max_length=200)


class Procedure(ProcedureFields):
    """A procedure of the panel, by its id."""

    id: Ident
