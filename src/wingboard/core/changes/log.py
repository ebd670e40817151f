"""The log of a design's changes: batches written so that they can be carried out again, to the same bytes."""

from __future__ import annotations

import json
from collections.abc import Sequence

from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import BATCH, Command
from wingboard.core.changes.handlers.steps import Catalogue
from wingboard.core.record.design import Design


def log_of(batch: Sequence[Command]) -> str:
    """A batch as JSON: of each command what it does, and the fields it says."""
    return json.dumps([command.model_dump(mode="json") for command in batch], ensure_ascii=False, separators=(",", ":"))


def replayed(design: Design, log: str, catalogue: Catalogue) -> Design:
    """The design after a batch of the log; an empty one changes nothing.

    :raises DesignError: the batch cannot be carried out on this design.
    """
    entries = json.loads(log)
    return apply(design, BATCH.validate_python(entries), catalogue) if entries else design
