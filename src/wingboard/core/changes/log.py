"""The log of a design's changes: batches written so that they can be carried out again, to the same bytes."""

from __future__ import annotations

import json
from collections.abc import Sequence
from typing import Any

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
    entries = [_of_today(entry) for entry in json.loads(log)]
    return apply(design, BATCH.validate_python(entries), catalogue) if entries else design


def _of_today(entry: dict[str, Any]) -> dict[str, Any]:
    """A command as format 2 logged it, in today's words: whether a load is AC was a tick."""
    made = {"current" if name == "ac" else name: value for name, value in entry.items()}
    if "ac" in entry:
        made["current"] = "AC" if entry["ac"] else ""
    if isinstance(made.get("switches"), dict) and "ac" in made["switches"]:
        made["switches"] = _of_today(made["switches"])
    return made
