"""A selector in binary: every way pulls some of a few lines down, through diodes, and so says its number."""

from __future__ import annotations

from wingboard.core.wire.netlist import GROUND, Joining, Port
from wingboard.core.wire.signals import Signal


def bits(ways: int) -> int:
    """How many lines tell so many ways apart: the logarithm to the base 2, rounded up; one at the least."""
    return max(1, (ways - 1).bit_length())


def join_binary(joining: Joining, of: list[Signal], pins: list[str]) -> None:
    """The first way is 0 and pulls nothing; where no way is joined, as between two, it reads as the first.

    :param pins: the nets of the lines, the lowest bit first.
    """
    f = of[0].placed.function
    joining.join(GROUND, Port(f.id, of[0].told.back), kind="ground")
    for signal in of:
        for bit, net in enumerate(pins):
            if (signal.way - 1) >> bit & 1:
                name = f"of way {signal.way}, bit {bit + 1}, of {f.name}"
                made = joining.helper(f"{signal.id}-b{bit + 1}", "diode", name, "A K", f.id)
                joining.join(f"{signal.id}-way", Port(f.id, signal.terminal), Port(made.id, "K"))
                joining.join(net, Port(made.id, "A"))
