"""What a command does, in a builder's words, for the history and the undo button."""

from __future__ import annotations

from collections.abc import Mapping

from wingboard.core.changes.command import Command
from wingboard.core.changes.commands.functions import AddFunction
from wingboard.core.record.design import Design

_VERBS = {
    "rename": "Rename the design",
    "set_brief": "Change the brief",
    "resize_opening": "Resize the opening",
    "measure_opening": "Measure the opening",
    "set_seat": "Change the seat",
    "remove_seat": "Remove the seat",
    "set_environment": "Change the environment",
    "add_keepout": "Add a keep-out",
    "edit_keepout": "Change a keep-out",
    "remove_keepout": "Remove a keep-out",
    "split_opening": "Split the opening into modules",
    "add_machine": "Add a machine",
    "edit_machine": "Change a machine",
    "add_stock": "Add sheets",
    "edit_stock": "Change sheets",
    "set_job": "Choose a machine",
    "set_copies": "Set how many are made",
    "log_fit": "Keep what a coupon showed",
    "forget_fit": "Forget what a coupon showed",
    "tick": "Tick a step",
    "set_soldered": "Mark wires as soldered",
    "set_board": "Describe a board",
    "remove_board": "Forget a board",
    "mark_cut": "Mark as cut",
    "unmark_cut": "Mark as not cut",
    "set_split": "Part a piece",
    "set_lettering": "Choose how words are made",
    "set_old_holes": "Set the old holes",
    "add_patch": "Add a patch",
    "edit_patch": "Change a patch",
    "remove_patch": "Remove a patch",
    "set_colours": "Choose colours of lines",
    "add_supply": "Add a supply",
    "edit_supply": "Change a supply",
    "remove_from_workshop": "Remove from the workshop",
    "set_on_hand": "Count what is on hand",
    "log_hours": "Log hours",
    "move_functions": "Reorder",
    "adopt_part": "Take a part from another design",
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
    "edit_legend": "Change the legend of",
    "remove_legend": "Remove the legend of",
    "set_pocket": "Seat",
    "arrange": "Arrange",
    "swap_groups": "Swap two groups",
    "pair": "Mirror a pair",
    "unpair": "Separate a pair",
    "lock": "Lock or unlock",
    "copy_items": "Copy",
    "set_style": "Change the lettering",
    "add_graphic": "Add a graphic",
    "edit_graphic": "Change a graphic",
    "remove_graphic": "Remove a graphic",
    "add_procedure": "Add a procedure",
    "edit_procedure": "Change a procedure",
    "remove_procedure": "Remove a procedure",
    "log_trial": "Log how a lamp looked",
    "remove_trial": "Strike a trial",
    "add_reference": "Add a picture",
    "edit_reference": "Change a picture",
    "remove_reference": "Remove a picture",
    "trace_circle": "Trace a circle",
    "assign_circle": "Assign a traced circle",
    "remove_circle": "Remove a traced circle",
    "add_module": "Add a module",
    "edit_module": "Change a module",
    "resize_module": "Resize a module",
    "split_module": "Split a module",
    "set_fixings": "Change the screws of a module",
    "add_screw": "Add a screw",
    "edit_screw": "Move a screw",
    "remove_screw": "Remove a screw",
    "remove_fixings": "Remove the screws of a module",
    "remove_module": "Remove a module",
    "set_school": "Change the layers",
    "add_layer": "Add a layer",
    "remove_layer": "Remove a layer",
    "edit_layer": "Change a layer",
    "mount_board": "Put a board behind",
    "edit_mounted": "Change a board behind",
    "unmount_board": "Take a board away",
    "add_strip": "Add a strip of LEDs",
    "edit_strip": "Change a strip of LEDs",
    "add_leds": "Add LEDs behind",
    "edit_led": "Move an LED",
    "remove_lights": "Remove lights",
    "set_light": "Change the light of a module",
    "set_frame": "Change the console's frame",
    "remove_frame": "Remove the console's frame",
    "set_case": "Change the case",
    "remove_case": "Remove the case",
    "add_feature": "Add an exception to a layer",
    "remove_feature": "Remove an exception from a layer",
    "add_controller": "Add a controller",
    "edit_controller": "Change a controller",
    "remove_controller": "Remove a controller",
    "set_harness": "Change the harness",
    "edit_loom": "Change the loom of a module",
    "stand": "Say where something stands",
    "forget_standing": "Forget where something stands",
    "set_usb": "Change what the boards are plugged into",
    "add_wire": "Add wire on hand",
    "edit_wire": "Change wire on hand",
    "pin": "Set a pin by hand",
    "unpin": "Take pins back",
    "set_pins": "Solve the pins",
    "accept": "Accept a finding",
    "retract": "Bring a finding back",
    "set_limit": "Change a limit",
}


def phrase_of(command: Command, design: Design, gone: Mapping[str, str] | None = None) -> str:
    """A short phrase such as “Move Wiper”; the design is the one before the command.

    :param gone: names of functions that are not in it any more, by id.
    """
    names = {**(gone or {}), **{f.id: f.name for f in design.functions}}
    several = getattr(command, "functions", None)
    if several:
        who = names.get(several[0], several[0]) if len(several) == 1 else f"{len(several)} parts"
        return f"{_VERBS[command.do]} {who}"
    drawn = getattr(command, "graphics", None)
    if drawn:
        return f"{_VERBS[command.do]} {'a graphic' if len(drawn) == 1 else f'{len(drawn)} graphics'}"
    one = getattr(command, "function", None)
    if one:
        return f"{_VERBS[command.do]} {names.get(one, one)}"
    if isinstance(command, AddFunction):
        return f"Add {command.name}"
    return _VERBS[command.do]
