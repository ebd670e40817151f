"""Emergency stops that break power: which contact of each does so, and what they break it through.

A real stop is in series with every load of every supply (ISO 13850, IEC 60204-1, from memory), except loads that are
marked to stay on. A stop that is the power switch breaks one whole supply. Neither passes a controller: a second
contact only reports the stop.
"""

from __future__ import annotations

from wingboard.core.record.functions import Carrier
from wingboard.core.record.part import Part
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.placed import Placed
from wingboard.core.wire.terminals import said

POLES: dict[Carrier, int] = {"relay": 2, "contactor": 4}
"""Supplies that one relay or contactor can break, one pole each (common practice)."""


STOP_RELAY = ".stop-relay"
"""How the name of the relay ends that emergency stops hold on."""


def breaks_power(placed: Placed) -> bool:
    """Whether a placed function is an emergency stop that breaks power by its own contact."""
    f = placed.function
    return f.stop_role in ("real", "power") and f.state not in ("alias", "dummy", "pending")


def breaking_contacts(part: Part) -> tuple[tuple[str, str], ...]:
    """The contacts of a stop that may break power, closed at rest and apart from lamps, as pairs of terminals.

    Contacts that share no terminal with a line come first; where there are none, those of lines, or beside them: such a
    line then breaks power, and no controller reads it.
    """
    of_part = said(part)
    lines = tuple(of_part.lines.values())
    others = {t for x in lines if x.does != "switch" for t in (x.terminal, x.back, *(x.ends or ()))}
    others |= {*of_part.feed.plus, *of_part.feed.minus} if of_part.feed else set()
    switched = {t for x in lines if x.does == "switch" for t in (x.terminal, x.back)}
    spare = [(c.a, c.b) for c in of_part.contacts if "" in c.closed or not c.closed]
    spare += [(x.terminal, x.back) for x in lines if x.does == "switch" and "" in x.closed and x.back]
    fits = [pair for pair in spare if not others & set(pair)]
    alone = tuple(pair for pair in fits if not switched & set(pair))
    return alone or tuple(fits[:1])


def breaking_lines(part: Part) -> frozenset[str]:
    """The ids of the lines that no controller reads, for their contact breaks power or shares a terminal with it."""
    used = {t for pair in breaking_contacts(part) for t in pair}
    return frozenset(x.id for x in said(part).lines.values() if used & {x.terminal, x.back})


def real_stops(r: Resolved) -> tuple[Placed, ...]:
    """The placed stops that are in series with everything that moves, in the order of the functions."""
    return tuple(p for p in r.placed if breaks_power(p) and p.function.stop_role == "real")


def power_stops(r: Resolved) -> tuple[Placed, ...]:
    """The placed stops that are the power switch of one supply, in the order of the functions."""
    return tuple(p for p in r.placed if breaks_power(p) and p.function.stop_role == "power")


def carrier_of(stops: tuple[Placed, ...]) -> Carrier:
    """What breaks the supplies for stops in series: the largest of what they name; their own contacts for none."""
    named = {p.function.switches.through for p in stops}
    return "contactor" if "contactor" in named else "relay" if "relay" in named else ""
