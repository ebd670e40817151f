"""Legends: a function's own, and how all are set."""

from __future__ import annotations

from wingboard.core.changes.commands.legends import EditLegend, RemoveLegend, SetStyle
from wingboard.core.changes.handlers.steps import (
    Catalogue,
    carry_out,
    changes_in,
    edited,
    find_function,
    with_changes,
    with_functions,
)
from wingboard.core.record.design import Design
from wingboard.core.record.legends import Legend

NULLABLE = ("cap", "step", "symbol", "radius")


@carry_out.register
def handle_edit_legend(command: EditLegend, design: Design, catalogue: Catalogue) -> Design:
    function = find_function(design, command.function)
    legend = edited(function.legend or Legend(text=""), changes_in(command, "function", nullable=NULLABLE))
    return with_functions(design, {function.id: function.model_copy(update={"legend": legend})})


@carry_out.register
def handle_remove_legend(command: RemoveLegend, design: Design, catalogue: Catalogue) -> Design:
    function = find_function(design, command.function)
    return with_functions(design, {function.id: function.model_copy(update={"legend": None})})


@carry_out.register
def handle_set_style(command: SetStyle, design: Design, catalogue: Catalogue) -> Design:
    return with_changes(design, style=edited(design.style, changes_in(command)))
