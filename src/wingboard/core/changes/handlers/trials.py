"""The log of lamps that were tried."""

from __future__ import annotations

from wingboard.core.changes.commands.trials import LogTrial, RemoveTrial
from wingboard.core.changes.handlers.steps import Catalogue, carry_out, found, new_ident, with_changes, without
from wingboard.core.record.design import Design
from wingboard.core.record.errors import NotPossible
from wingboard.core.record.trials import MOST_TRIALS, LampTrial


@carry_out.register
def handle_log_trial(command: LogTrial, design: Design, catalogue: Catalogue) -> Design:
    part = found(design.parts, command.part, "part in use", "part")
    if not any(line.does == "lamp" for line in part.lines):
        raise NotPossible(f"{part.name} has no lamp", "part")
    if len(design.trials) >= MOST_TRIALS:
        raise NotPossible(f"The log holds {MOST_TRIALS} trials: strike an old one", "part")
    ident = new_ident(None, (t.id for t in design.trials), "trial-")
    said = command.model_dump(exclude={"do"})
    return with_changes(design, trials=(*design.trials, LampTrial.model_validate({**said, "id": ident})))


@carry_out.register
def handle_remove_trial(command: RemoveTrial, design: Design, catalogue: Catalogue) -> Design:
    return with_changes(design, trials=without(design.trials, command.trial, "trial", "trial"))
