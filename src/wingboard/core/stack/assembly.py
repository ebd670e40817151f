"""The order in which a module is put together, with what is easily forgotten (common practice)."""

from __future__ import annotations

from itertools import pairwise
from typing import NamedTuple

from wingboard.core.record.materials import materials
from wingboard.core.record.modules import Layer, is_plate
from wingboard.core.resolved.module import ResolvedModule
from wingboard.core.stack.hardware import hardware


class Step(NamedTuple):
    """A step, and what is easily forgotten in it."""

    words: str
    mind: str = ""


def assembly(module: ResolvedModule, words: str = "") -> tuple[Step, ...]:
    """The steps for one module, first to last.

    :param words: how its words are made, where they are not simply engraved.
    """
    plates = module.plates
    steps = [Step("Lay out every sheet in its order, front up, and check one hole of each part through all of them")]
    steps += [_painted(layer) for layer in plates if layer.paint]
    steps += [Step("Make the words of the face", f"{words[0].upper()}{words[1:]}")] if words else []
    filmed = [layer.name for layer in module.stack if "clear" in materials()[layer.material].light]
    steps.append(
        Step(
            "Dry fit: stack the sheets with all screws, loosely, and try each part in its hole",
            "Before any glue; put right now what does not pass"
            + (f". Leave the film on {', '.join(filmed).lower()}" if filmed else ""),
        )
    )
    if module.pins:
        steps.append(
            Step(
                f"Push the two registration pins into {plates[-1].name.lower()} and lay the sheets over them",
                "They go on one way round only; leave the pins in, or pull them when the glue has set",
            )
        )
    steps += _glued(plates, "the pins" if module.pins else "screws in their holes")
    steps += _trapped(plates)
    steps += _parts(module)
    steps += _closed(module)
    steps += _cased(module)
    if filmed:
        steps.append(Step("Peel the film off the face", "Last of all, before the caps and knobs go on"))
    steps.append(Step("Put caps and knobs on, and turn each control through all of its positions"))
    return tuple(steps)


def _painted(layer: Layer) -> Step:
    sides = " and ".join(f"{p.side}, {p.coats} coat{'' if p.coats == 1 else 's'}" for p in layer.paint)
    mind = "Mask the edges and what light has to come through; paint once, thin coats, before anything is fitted"
    if any(p.side == "back" for p in layer.paint) and layer.opacity == "clear":
        mind = "Engrave first, then paint: the letters stay as the colour behind them"
    return Step(f"Paint {layer.name.lower()}: {sides}", mind)


def _glued(plates: tuple[Layer, ...], lined_up_by: str) -> list[Step]:
    pairs = [(a, b) for a, b in pairwise(plates) if b.join == "glue"]
    return [
        Step(
            f"Glue {b.name.lower()} to {a.name.lower()}, {lined_up_by} to line them up",
            "Nuts that end up between the two go in first; wipe glue out of the bores",
        )
        for a, b in pairs
    ]


def _trapped(plates: tuple[Layer, ...]) -> list[Step]:
    return [
        Step(f"Lay {layer.name.lower()} in", "It is held by its neighbours only: look that it is the right way round")
        for layer in plates
        if layer.join == "trapped"
    ]


def _parts(module: ResolvedModule) -> list[Step]:
    steps = []
    hidden = [p for p in module.placed if p.nut_layer is not None]
    front = [p for p in module.placed if p.part.mount == "front"]
    windows = [p for p in module.placed if p.part.mount == "window"]
    if hidden:
        steps.append(
            Step(
                f"Fit {_count(len(hidden), 'part')} from behind to the back sheet, nuts in the diffuser's bores",
                "The pin against turning goes into its slot before the nut is tightened",
            )
        )
    if windows:
        steps.append(
            Step(
                f"Lay {_count(len(windows), 'display')} behind their windows", "Way up, and cable side, before closing"
            )
        )
    rest = [p for p in module.placed if p.part.mount == "behind" and p.nut_layer is None]
    if front or rest:
        steps.append(
            Step(
                f"Fit the other {_count(len(front) + len(rest), 'part')} once the plate is together",
                "The pin against turning goes into its slot before the nut is tightened",
            )
        )
    return steps


def _closed(module: ResolvedModule) -> list[Step]:
    made = hardware(module)
    steps = [
        Step(f"Tighten {bolt.where}: {bolt.many} of {bolt.name}", "Crosswise, and no tighter than snug in plastics")
        for bolt in made.bolts[:1]
    ]
    boards = [layer for layer in module.stack if not is_plate(layer)]
    for edging in made.edgings:
        mind = "Leave a slot where cables pass, and close it with tape: light finds every gap"
        steps.append(Step(f"Close the room {edging.where}: {edging.name}", mind))
    for layer in boards:
        standoff = next((s for s in made.standoffs if s.where == f"before {layer.name.lower()}"), None)
        how = f" with {standoff.many} of {standoff.name}" if standoff else ""
        mind = "Wires through their openings first, none under a standoff"
        steps.append(Step(f"Put {layer.name.lower()} on{how}", mind))
    for board in module.module.mounted:
        steps.append(Step(f"Mount {board.name}", "Plug it in once before: does it answer?"))
    return steps


def _cased(module: ResolvedModule) -> list[Step]:
    case = module.module.case
    if case is None:
        return []
    steps = []
    if case.made == "sheet":
        mind = "Both diagonals are alike before the glue takes; the plate with its gap is the gauge"
        steps.append(Step("Glue the case: side walls between top and bottom, the back over all four", mind))
        if case.lip:
            steps.append(
                Step(
                    f"Glue the lips in, {module.thickness:g} mm behind the front edge",
                    "Lay the plate on them with a lamp inside: no light passes round it",
                )
            )
        if case.shelf:
            steps.append(Step("Glue the lamp shelves in at 45°, their ends mitred", "Paint them white before"))
    else:
        mind = "Inserts go in warm and square, before anything that melts is near"
        steps.append(Step("Print the case, set its inserts, and try the plate in it", mind))
    if case.exits:
        mind = "Tie each one down inside: a pull outside must not reach the solder"
        steps.append(Step("Lead the cables through their exits and lay the module into its case", mind))
    if case.hatch:
        steps.append(Step("Close the hatch", "After the first tests: everything is still within reach until then"))
    return steps


def _count(n: int, word: str) -> str:
    return f"{n} {word}{'' if n == 1 else 's'}"
