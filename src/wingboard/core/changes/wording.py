"""What a command does, in a builder's words, for the history and the undo button."""

from __future__ import annotations

from wingboard.core.changes.command import Command
from wingboard.core.changes.commands.functions import AddFunction
from wingboard.core.record.design import Design

_VERBS = {
    "rename": "Rename the design",
    "set_brief": "Change the brief",
    "set_keepout": "Set a keep-out",
    "remove_keepout": "Remove a keep-out",
    "split_opening": "Split the opening into modules",
    "set_machine": "Set a machine",
    "set_stock": "Set stock",
    "set_supply": "Set a supply",
    "remove_from_workshop": "Take from the workshop",
    "set_on_hand": "Count what is on hand",
    "log_hours": "Log hours",
    "move_functions": "Reorder",
    "copy_part": "Copy a part to measure",
    "combine_parts": "Combine parts",
    "measure_part": "Measure a part",
    "edit_part": "Change a part",
    "remove_part": "Remove a part",
    "add_function": "Add",
    "edit_function": "Edit",
    "remove_function": "Remove",
    "choose_part": "Choose a part for",
    "place": "Place",
    "move": "Move",
    "turn": "Turn",
    "remove": "Put into the tray",
    "set_legend": "Set the words of",
    "set_pocket": "Seat",
    "arrange": "Put in order",
    "swap_groups": "Swap two groups",
    "pair": "Mirror a pair",
    "unpair": "Part a pair",
    "lock": "Lock or free",
    "copy_items": "Copy",
    "set_style": "Change the lettering",
    "set_graphic": "Set a graphic",
    "remove_graphic": "Remove a graphic",
    "set_procedure": "Set a procedure",
    "remove_procedure": "Remove a procedure",
    "set_reference": "Lay a picture under",
    "remove_reference": "Take a picture away",
    "add_module": "Add a module",
    "set_module": "Change a module",
    "set_module_size": "Resize a module",
    "remove_module": "Remove a module",
    "set_layer": "Change a layer",
    "add_controller": "Add a board",
    "remove_controller": "Remove a board",
    "pin": "Set a pin by hand",
    "unpin": "Take pins back",
    "set_pins": "Solve the pins",
    "accept": "Accept a finding",
    "retract": "Bring a finding back",
    "set_limit": "Change a limit",
}


def said(command: Command, design: Design) -> str:
    """A short phrase such as “Move Wiper”; the design is the one before the command."""
    names = {f.id: f.name for f in design.functions}
    several = getattr(command, "functions", None)
    if several:
        who = names.get(several[0], several[0]) if len(several) == 1 else f"{len(several)} parts"
        return f"{_VERBS[command.do]} {who}"
    one = getattr(command, "function", None)
    if one:
        return f"{_VERBS[command.do]} {names.get(one, one)}"
    if isinstance(command, AddFunction):
        return f"Add {command.name}"
    return _VERBS[command.do]
