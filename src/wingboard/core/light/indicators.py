"""The lamps of the functions: supply, colour, forward voltage, current, the resistor to buy, their states."""

from __future__ import annotations

from typing import NamedTuple

from wingboard.core.findings.facets import Facet
from wingboard.core.light.resistor import HEADROOM, heat, rated, series_resistor
from wingboard.core.record.functions import Function
from wingboard.core.record.lamps import LENSES, lamp_volts, made_for
from wingboard.core.record.part import Part, PartLine
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.logic import over_lamp

LAMPS: tuple[Facet, ...] = ("wishes", "parts", "places", "limits", "controllers", "pins")
"""What a check reads that looks at lamps: a lamp's supply is that of the board that it is on."""


class LampUse(NamedTuple):
    """One lamp of a function; volts, amperes, ohms, watts. ``ohms`` is None where a resistor cannot set its current.

    ``row`` is how many LEDs its line drives one after the other, ``made_for`` the supply of one that needs no resistor
    (0: it needs one), ``bulb`` whether that is a filament.
    """

    function: str
    name: str
    line: str
    terminal: str
    colour: str
    supply: float
    drop: float
    row: int
    amps: float
    ohms: float | None
    watts: float
    buy: float
    states: int
    made_for: float = 0.0
    bulb: bool = False

    @property
    def power(self) -> float:
        """What it takes from its supply (W)."""
        return self.supply * self.amps

    @property
    def headroom(self) -> float:
        """The share of the supply that is left for the resistor."""
        return (self.supply - self.drop) / self.supply

    @property
    def said(self) -> str:
        """What to do, in words."""
        if self.made_for:
            kind = f"bulb of {self.made_for:g} V, {self.power:.1f} W" if self.bulb else f"made for {self.made_for:g} V"
            return f"{kind}, no resistor"
        if self.ohms is None:
            beside = f", or its {self.row} LEDs side by side" if self.row > 1 else ""
            least = self.drop / (1 - HEADROOM)
            return f"{self.supply:g} V leaves too little over {self.drop:.1f} V: at least {least:.1f} V{beside}"
        return f"{self.ohms:g} Ω, {self.buy:g} W"


def _one(r: Resolved, function: Function, part: Part, line: PartLine, states: int) -> LampUse:
    volts = lamp_volts(function, part)
    supply = over_lamp(r, function, f"{function.id}.{line.id}")
    if line.volts:
        return LampUse(
            function.id, function.name, line.id, line.terminal, part.colour, volts or line.volts, 0.0, 1, line.current,
            None, 0.0, 0.0, states, line.volts, line.bulb,
        )  # fmt: skip
    lens = LENSES.get(part.colour)  # type: ignore[call-overload]
    row = max(1, round(line.drop / lens.drop)) if lens else 1
    ohms = series_resistor(supply, line.drop, line.current)
    watts = heat(supply, line.drop, ohms) if ohms else 0.0
    return LampUse(
        function.id, function.name, line.id, line.terminal, part.colour, supply, line.drop, row, line.current, ohms,
        watts, rated(watts), states,
    )  # fmt: skip


def lamps_of(r: Resolved) -> tuple[LampUse, ...]:
    """Every lamp whose current is known, in the order of the functions; those of two colours have four states."""

    def compute() -> tuple[LampUse, ...]:
        made = []
        for function in r.design.functions:
            if function.part is None:
                continue
            part = made_for(function, r.parts[function.part])
            mine = [line for line in part.lines if line.does == "lamp" and (line.drop > 0 or line.volts > 0)]
            made += [_one(r, function, part, line, 2 ** len(mine)) for line in mine]
        return tuple(made)

    return r.once("lamps of the functions", compute)
