"""Expanders on I²C: sixteen inputs or outputs each, over the two lines of the bus."""

from __future__ import annotations

from wingboard.core.wire.netlist import GROUND, Device, Joining, Port
from wingboard.core.wire.schemes.chips import ADDRESS, BUS_PULL_UP, EXPANDER, ON_ONE_BUS
from wingboard.core.wire.schemes.networks import Network
from wingboard.core.wire.schemes.shift import add_chips, chip_id, places


def join_expanders(joining: Joining, network: Network, rail: str, pins: dict[str, str], first: int) -> int:
    """The expanders of one module, each with an address of its own; inputs use the chip's own pull-ups.

    :param first: how many expanders there are before these on the same bus.
    :returns: how many there are after these. More than eight have addresses twice: a check stops that.
    """
    chips = add_chips(joining, network, EXPANDER, rail)
    for n, chip in enumerate(chips):
        address = (first + n) % ON_ONE_BUS
        joining.join(pins["sda"], Port(chip.id, EXPANDER.pin("SDA")))
        joining.join(pins["scl"], Port(chip.id, EXPANDER.pin("SCL")))
        joining.join(rail, Port(chip.id, EXPANDER.pin("RESET")), kind="supply")
        for bit in range(3):
            up = address >> bit & 1
            port = Port(chip.id, EXPANDER.pin(f"A{bit}"))
            joining.join(rail if up else GROUND, port, kind="supply" if up else "ground")
    for line, (n, terminal) in places(network, EXPANDER).items():
        joining.join(line, Port(chip_id(network, n), terminal))
    if first == 0:
        for bus in ("sda", "scl"):
            pull = Device(f"{network.id}-{bus}-p", "resistor", f"pull-up of {bus.upper()}", ("1", "2"), BUS_PULL_UP,
                          network.id, network.module)  # fmt: skip
            joining.add(pull)
            joining.join(pins[bus], Port(pull.id, "2"))
            joining.join(rail, Port(pull.id, "1"), kind="supply")
    return first + len(chips)


def address_words(before: int, n: int) -> str:
    """“0x23”: the address of the n-th expander (from 1) of a network with so many before it on its bus."""
    return f"0x{ADDRESS + (before + n - 1) % ON_ONE_BUS:02x}"
