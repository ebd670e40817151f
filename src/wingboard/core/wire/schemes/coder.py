"""An input coder on the tags of a selector: it tells a card the number of the way over one line beside its supply."""

from __future__ import annotations

from wingboard.core.record.controllers import Board
from wingboard.core.wire.netlist import GROUND, Joining, Port
from wingboard.core.wire.signals import CODER_WAYS, Signal

NAME = "input coder"


def numbers(board: Board, pin: str) -> range:
    """By which numbers a computer knows an input of a card: its plain inputs come first, each with one, then its ports
    for coders, each with as many as a coder tells apart (common practice); none of a board that a program reads."""
    coders = [p.name for p in board.pins if p.coder]
    plain = [p.name for p in board.pins if not p.coder]
    if not coders:
        return range(0)
    if pin in plain:
        return range(plain.index(pin) + 1, plain.index(pin) + 2)
    first = len(plain) + CODER_WAYS * coders.index(pin) + 1
    return range(first, first + CODER_WAYS)


def join_coder(joining: Joining, of: list[Signal], line: str, rail: str) -> None:
    """The coder of a selector, its common and every way in use; those that are not stay free."""
    f = of[0].placed.function
    ways = " ".join(str(n) for n in range(1, CODER_WAYS + 1))
    made = joining.helper(f"{f.id}.coder", "chip", f"{NAME}, {f.name}", f"C {ways} OUT V+ GND", f.id)
    joining.join(f"{f.id}.coder-common", Port(f.id, of[0].told.back), Port(made.id, "C"))
    for signal in of:
        joining.join(f"{signal.id}-way", Port(f.id, signal.terminal), Port(made.id, str(signal.way)))
    joining.join(line, Port(made.id, "OUT"))
    joining.join(rail, Port(made.id, "V+"), kind="supply")
    joining.join(GROUND, Port(made.id, "GND"), kind="ground")
