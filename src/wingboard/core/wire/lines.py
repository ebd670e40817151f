"""The lines that want pins: terminals wired by themselves, selectors read as one, and what networks are driven by."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import groupby

from wingboard.core.record.controllers import Pin
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.backlights import light_lines
from wingboard.core.wire.loadlines import load_lines
from wingboard.core.wire.schemes.binary import bits
from wingboard.core.wire.schemes.networks import networks
from wingboard.core.wire.signals import Line, Signal, pooled, signals


def serves(line: Line, pin: Pin | None) -> bool:
    """Whether a pin can do what a line needs at all; preferences do not count."""
    if pin is None or line.coder != pin.coder or line.bus not in (None, pin.bus):
        return False
    if line.coder or line.bus:
        return True
    if line.analogue:
        return pin.analogue
    return pin.drives if line.direction == "out" else pin.reads


def lines(r: Resolved) -> tuple[Line, ...]:
    """Every line that ends on a pin: of the placed parts, of loads, each in the order of the functions; of networks."""
    return r.once("lines", lambda: (*_own(r), *load_lines(r), *_shared(r)))


def _shared(r: Resolved) -> Iterator[Line]:
    """The lines of what reads or drives several terminals, and the data of what lights modules from behind."""
    for network in networks(r):
        yield from network.lines
    yield from light_lines(r)


def _own(r: Resolved) -> Iterator[Line]:
    of_selectors = groupby(signals(r), key=lambda s: (s.placed.function.id, s.told.id, s.by))
    for (_, _, by), some in of_selectors:
        mine = list(some)
        if by == "ladder":
            yield _instead(mine[0], "ladder", "ladder tap", analogue=True)
        elif by == "coder":
            yield _instead(mine[0], "coder", "coder", analogue=False)._replace(coder=True)
        elif by == "binary":
            for bit in range(bits(len(mine))):
                yield _instead(mine[0], f"bit-{bit + 1}", f"bit {bit + 1}", analogue=False)
        elif not pooled(mine[0]):
            yield from (s.line for s in mine)


def _instead(first: Signal, ident: str, terminal: str, analogue: bool) -> Line:
    """A line that stands for all positions of a selector."""
    made = first.line._replace(id=f"{first.placed.function.id}.{first.told.id}-{ident}", terminal=terminal)
    return made._replace(analogue=analogue, prefers=None)


def bare_functions(r: Resolved) -> set[str]:
    """The functions of which some line has no pin yet."""
    given = {p.line for p in r.design.pins}
    return {f for line in lines(r) if line.id not in given for f in line.members or (line.function,) if f}
