"""Commands about procedures: functions worked in an order."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from wingboard.core.changes.commands.saying import Saying
from wingboard.core.record.base import Ident, Words
from wingboard.core.record.procedures import ProcedureFields


class AddProcedure(ProcedureFields, Saying):
    """Add a procedure. Without an id the next free one is taken."""

    do: Literal["add_procedure"] = "add_procedure"
    id: Ident | None = None


class EditProcedure(Saying):
    """Change a procedure; fields left out stay."""

    do: Literal["edit_procedure"] = "edit_procedure"
    procedure: Ident
    name: Words | None = Field(None, min_length=1)
    steps: tuple[Ident, ...] | None = Field(None, min_length=1, max_length=200)


class RemoveProcedure(Saying):
    """Forget a procedure."""

    do: Literal["remove_procedure"] = "remove_procedure"
    procedure: Ident
