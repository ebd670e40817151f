"""The wooden console round the opening."""

from __future__ import annotations

from wingboard.core.changes.commands.console import RemoveFrame, SetFrame
from wingboard.core.changes.handlers.steps import Catalogue, carry_out, changes_in, edited, with_changes
from wingboard.core.record.design import Design
from wingboard.core.record.space import ConsoleFrame


@carry_out.register
def handle_set_frame(command: SetFrame, design: Design, catalogue: Catalogue) -> Design:
    frame = edited(design.brief.frame or ConsoleFrame(), changes_in(command))
    return with_changes(design, brief=edited(design.brief, {"frame": frame}))


@carry_out.register
def handle_remove_frame(command: RemoveFrame, design: Design, catalogue: Catalogue) -> Design:
    return with_changes(design, brief=edited(design.brief, {"frame": None}))
