"""What carries a load in the stead of a control's contact, and what each bears. Amperes, volts, watts.

All figures are those of common sizes, from memory, not of one make: look at the data sheet of yours.
"""

from __future__ import annotations

from typing import NamedTuple

from wingboard.core.record.functions import Carrier, Switched


class Contacts(NamedTuple):
    """A relay or contactor: what its contact bears, on AC and on DC, its coil (W), how long it takes (ms), its price
    (minor units)."""

    name: Carrier
    amps: float
    ac: float
    dc: float
    watts: float
    takes: float
    price: int


RELAY = Contacts("relay", 16.0, 250.0, 30.0, 0.4, 10.0, 250)
CONTACTOR = Contacts("contactor", 40.0, 400.0, 60.0, 3.0, 20.0, 2400)
CONTACTS = {kind.name: kind for kind in (RELAY, CONTACTOR)}


def smallest(load: Switched) -> Carrier | None:
    """The smallest relay or contactor that bears a load; None where none here does."""
    fits = (k for k in CONTACTS.values() if k.amps >= load.amps and (k.ac if load.alternating else k.dc) >= load.volts)
    return next((kind.name for kind in fits), None)


class Transistor(NamedTuple):
    """A transistor between load and ground: the most it carries, how much more that is than what goes into its base,
    what is lost over it when it is on (V), the heat it bears without a heat sink (W), its base's volts, its price
    (minor units)."""

    name: str
    amps: float
    gain: float
    lost: float
    watts: float
    base: float
    volts: float
    price: int

    def bears(self, into_base: float) -> float:
        """Amperes that it carries with so many into its base."""
        return min(self.amps, self.gain * into_base)


TRANSISTORS = (
    Transistor("NPN transistor, 0.5 A", 0.5, 20.0, 0.3, 0.5, 0.7, 40.0, 10),
    Transistor("NPN Darlington, 5 A", 5.0, 400.0, 1.2, 1.5, 1.4, 60.0, 60),
)
"""The smallest first."""


class Mosfet(NamedTuple):
    """An N-channel transistor that a pin opens by its volts alone: the most it carries (A), its resistance when it is
    on (Ω), its price (minor units)."""

    name: str
    amps: float
    ohms: float
    price: int


DIMMER = Mosfet("N-channel MOSFET, logic level, 10 A", 10.0, 0.03, 70)


def transistor_for(amps: float, into_base: float) -> Transistor:
    """The smallest that carries so much; the largest where none does."""
    return next((kind for kind in TRANSISTORS if kind.bears(into_base) >= amps - 1e-9), TRANSISTORS[-1])


def bears(carrier: Carrier, load: Switched, into_base: float) -> tuple[float, float]:
    """Amperes and volts that a carrier bears of such a load; nothing of AC for a transistor.

    :param into_base: what drives a transistor's base (A).
    :raises KeyError: no carrier at all.
    """
    if carrier == "transistor":
        if load.alternating:
            return 0.0, 0.0
        transistor = transistor_for(load.amps, into_base)
        return transistor.bears(into_base), transistor.volts
    kind = CONTACTS[carrier]
    return kind.amps, kind.ac if load.alternating else kind.dc
