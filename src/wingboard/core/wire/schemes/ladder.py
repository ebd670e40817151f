"""A selector read as one voltage over equal resistors. Ohms, seconds; readings of a converter of so many bits."""

from __future__ import annotations

from itertools import pairwise
from typing import NamedTuple

from wingboard.core.wire.netlist import GROUND, Joining, Port
from wingboard.core.wire.signals import Signal

BITS = 10
"""Of the converter on the AVR chips (data sheets)."""
STEADY = 100e-9
"""Farads at the pin that hold its voltage between two ways (common practice)."""
TIME_CONSTANTS = 7
"""After which a voltage is within a thousandth of where it goes: e^-7."""


class Tap(NamedTuple):
    """A way: the share of the supply on it, what the converter reads, and the readings that count as this way."""

    way: int
    share: float
    reading: int
    low: int
    high: int
    off: float
    """How far resistors off by their tolerance move it at the most, as a share of the supply."""


class Ladder(NamedTuple):
    """So many ways over equal resistors.

    ``source``: the greatest resistance that the pin sees, at the middle tap. ``off``: how far resistors off by their
    tolerance move a tap at the most, as a share of the supply; ``half``: half a step, what it may move.
    """

    taps: tuple[Tap, ...]
    source: float
    off: float
    half: float
    settles: float


def ladder(ways: int, step: float, tolerance: float, steady: bool, bits: int = BITS) -> Ladder:
    """Readings and windows: V(k) = k/(n-1) of the supply, the window half a step to either side.

    :param ways: at least 2. :param step: ohms of each resistor. :param tolerance: of these, as a share.
    :returns: among others the worst case, with all resistors below a tap too high and all above too low.
    """
    steps, full = max(1, ways - 1), (1 << bits) - 1
    edges = [(2 * k + 1) / (2 * steps) for k in range(-1, steps + 1)]
    taps = tuple(
        Tap(k + 1, k / steps, round(full * k / steps), max(0, round(full * edges[k])),
            full if k == steps else round(full * edges[k + 1]) - 1, _worst(k, steps, tolerance))
        for k in range(steps + 1)
    )  # fmt: skip
    middle = steps // 2
    source = step * middle * (steps - middle) / steps
    return Ladder(
        taps,
        source,
        max(tap.off for tap in taps),
        1 / (2 * steps),
        TIME_CONSTANTS * source * STEADY if steady else 0.0,
    )


def _worst(k: int, steps: int, tolerance: float) -> float:
    """How far a tap moves at the most, up or down, as a share of the supply."""
    up = k * (1 + tolerance) / (k * (1 + tolerance) + (steps - k) * (1 - tolerance)) - k / steps
    down = k / steps - k * (1 - tolerance) / (k * (1 - tolerance) + (steps - k) * (1 + tolerance))
    return max(up, down)


def join_ladder(joining: Joining, of: list[Signal], tap: str, rail: str) -> None:
    """Equal resistors from way to way, the first way on ground and the last on the rail."""
    f = of[0].placed.function
    joining.join(GROUND, Port(f.id, of[0].terminal), kind="ground")
    joining.join(rail, Port(f.id, of[-1].terminal), kind="supply")
    for one, other in pairwise(of):
        name = f"between ways {one.way} and {other.way}"
        made = joining.helper(f"{f.id}.r{one.way}", "resistor", name, "1 2", f.id, f.step)
        joining.join(f"{f.id}.tap-{one.way}", Port(f.id, one.terminal), Port(made.id, "1"))
        joining.join(f"{f.id}.tap-{other.way}", Port(f.id, other.terminal), Port(made.id, "2"))
    if f.steady:
        held = joining.helper(f"{f.id}.c", "capacitor", f"100 nF at the tap of {f.name}", "1 2", f.id, STEADY)
        joining.join(tap, Port(held.id, "1"))
        joining.join(GROUND, Port(held.id, "2"), kind="ground")
