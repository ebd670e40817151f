"""Shift registers: any number of inputs over three pins, and of outputs over three more, eight a chip."""

from __future__ import annotations

from wingboard.core.wire.netlist import GROUND, Device, Joining, Port
from wingboard.core.wire.schemes.chips import PULL_UP, SHIFT_IN, SHIFT_OUT, Chip
from wingboard.core.wire.schemes.networks import Network


def places(network: Network, chip: Chip) -> dict[str, tuple[int, str]]:
    """For each terminal, by its line, the number of its chip (from 1) and the chip's terminal: the first that is free.

    What is driven goes to the terminals that only drive, before others.
    """
    found: dict[str, tuple[int, str]] = {}
    free: list[tuple[int, str]] = []
    chips = 0
    for s in network.signals:
        driven = s.line.direction == "out"
        fits = [at for at in free if driven or at[1] not in chip.drives]
        if not fits:
            chips += 1
            free += ((chips, name) for name in chip.signals)
            fits = [at for at in free if driven or at[1] not in chip.drives]
        at = next((at for at in fits if driven and at[1] in chip.drives), fits[0])
        free.remove(at)
        found[s.id] = (at[0], chip.pin(at[1]))
    return found


def chip_count(network: Network, chip: Chip) -> int:
    """How many chips of that kind a network takes."""
    return max((n for n, _ in places(network, chip).values()), default=0)


def add_chips(joining: Joining, network: Network, chip: Chip, rail: str) -> list[Device]:
    """The chips of a network, each fed and with a capacitor across its supply."""
    made = []
    for n in range(1, chip_count(network, chip) + 1):
        device = joining.add(
            Device(chip_id(network, n), "chip", f"{chip.name}, {network.name}", chip.ports, of=network.id,
                   module=network.module)
        )  # fmt: skip
        near = Device(f"{device.id}-c", "capacitor", f"100 nF at {chip.name}", ("1", "2"), 1e-7, network.id,
                      network.module)  # fmt: skip
        joining.add(near)
        joining.join(rail, Port(device.id, chip.pin(chip.supply)), Port(near.id, "1"), kind="supply")
        joining.join(GROUND, Port(device.id, chip.pin(chip.ground)), Port(near.id, "2"), kind="ground")
        made.append(device)
    return made


def chip_id(network: Network, n: int) -> str:
    """By which the chip of that number is a device."""
    return f"{network.id}-u{n}"


def join_shift_in(joining: Joining, network: Network, rail: str, pins: dict[str, str]) -> None:
    """A chain of inputs: the first chip gives the data, the last is at the far end.

    Every input in use is pulled up, every other one is on ground: an input that hangs free reads anything.

    :param pins: the nets of the network's lines, by the end of their names.
    """
    chips = add_chips(joining, network, SHIFT_IN, rail)
    used = set(places(network, SHIFT_IN).values())
    for n, chip in enumerate(chips, 1):
        joining.join(pins["load"], Port(chip.id, SHIFT_IN.pin("SH/LD")))
        joining.join(pins["clock"], Port(chip.id, SHIFT_IN.pin("CLK")))
        joining.join(GROUND, Port(chip.id, SHIFT_IN.pin("CLK INH")), kind="ground")
        out = pins["data"] if n == 1 else f"{network.id}-chain-{n}"
        joining.join(out, Port(chip.id, SHIFT_IN.pin("QH")))
        if n == len(chips):
            joining.join(GROUND, Port(chip.id, SHIFT_IN.pin("SER")), kind="ground")
        else:
            joining.join(f"{network.id}-chain-{n + 1}", Port(chip.id, SHIFT_IN.pin("SER")))
        for name in SHIFT_IN.signals:
            if (n, SHIFT_IN.pin(name)) not in used:
                joining.join(GROUND, Port(chip.id, SHIFT_IN.pin(name)), kind="ground")
    for line, (n, terminal) in places(network, SHIFT_IN).items():
        ident, name = f"{network.id}-u{n}-p{terminal.split()[0]}", f"pull-up at {terminal} of chip {n}"
        pull = Device(ident, "resistor", name, ("1", "2"), PULL_UP, network.id, network.module)
        joining.add(pull)
        joining.join(line, Port(chip_id(network, n), terminal), Port(pull.id, "2"))
        joining.join(rail, Port(pull.id, "1"), kind="supply")


def join_shift_out(joining: Joining, network: Network, rail: str, pins: dict[str, str]) -> None:
    """A chain of outputs: the first chip takes the data; outputs are always on, and never cleared."""
    chips = add_chips(joining, network, SHIFT_OUT, rail)
    for n, chip in enumerate(chips, 1):
        joining.join(pins["latch"], Port(chip.id, SHIFT_OUT.pin("RCLK")))
        joining.join(pins["clock"], Port(chip.id, SHIFT_OUT.pin("SRCLK")))
        joining.join(GROUND, Port(chip.id, SHIFT_OUT.pin("OE")), kind="ground")
        joining.join(rail, Port(chip.id, SHIFT_OUT.pin("SRCLR")), kind="supply")
        joining.join(pins["data"] if n == 1 else f"{network.id}-chain-{n}", Port(chip.id, SHIFT_OUT.pin("SER")))
        if n < len(chips):
            joining.join(f"{network.id}-chain-{n + 1}", Port(chip.id, SHIFT_OUT.pin("QH'")))
    for line, (n, terminal) in places(network, SHIFT_OUT).items():
        joining.join(line, Port(chip_id(network, n), terminal))
