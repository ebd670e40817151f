"""The host's side of the link: to simulated boards over wires that garble, and over serial ports."""

from __future__ import annotations

import os
import random
import threading
import tty
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path

import pytest
from typer.testing import CliRunner

from wingboard.cli import app
from wingboard.core.record.design import Design
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.program.identity import greeting_of
from wingboard.devices.byhand import InTime, simulated
from wingboard.devices.chip import Chip
from wingboard.devices.host import Happened, Host, LinkLost, greeting
from wingboard.devices.native import Native
from wingboard.devices.ports import NoPort, Port

Demo = Callable[[str], Design]


class Noisy:
    """A wire that now and then loses or changes a letter, or adds some; its board runs as fast as it can."""

    def __init__(self, chip: Chip | Native, seed: int, each: float) -> None:
        self.chip, self.chance, self.each = chip, random.Random(seed), each

    @property
    def now(self) -> float:
        return self.chip.now

    def spoilt(self, text: str) -> str:
        made = ""
        for letter in text:
            if self.chance.random() >= self.each:
                made += letter
            elif self.chance.random() < 0.7:
                made += chr(self.chance.randrange(256)) * self.chance.randrange(4)
        return made

    def hear(self, text: str) -> None:
        self.chip.hear(self.spoilt(text))

    def said(self) -> str:
        self.chip.run(0.005)
        return self.spoilt(self.chip.said())


def test_a_host_gets_through_noise_floods_and_resets_and_says_so(demo: Demo) -> None:
    happened: list[Happened] = []
    with simulated(Resolved(demo("dust-extraction")), "A", 3) as there:
        chip = there.chip
        wire = Noisy(chip, 7, 0.004)
        host = Host(wire, happened.append)
        assert greeting_of(greeting(wire)).revision == 3
        for value in range(120):
            assert host.ask("set", "start.lamp", value) == [("is", "start.lamp", str(value))]
            assert host.ask("get", "start.lamp") == [("is", "start.lamp", str(value))]
        kinds = {one.kind for one in happened}
        assert {"garbled", "again"} <= kinds, "it was noisy, and that was said"
        wire.each = 0.0
        whole = host.ask("get")
        assert whole[-1] == ("end",) and len(whole) == 1 + len({words[1] for words in whole[:-1]})
        assert host.ask("set", "start", 1) == [("error", "name", "start")]
        chip.hear(b"\x00\xff" * 300 + b"set start.lamp")
        host.listen(0.3)
        assert host.ask("get", "start.lamp") == [("is", "start.lamp", "119")]
        happened.clear()
        chip.reset()
        host.listen(2.5)
        assert [one.kind for one in happened] == ["restarted"]
        assert host.ask("get", "start.lamp") == [("is", "start.lamp", "0")]
        wire.each = 1.0
        with pytest.raises(LinkLost, match="asked 4 times"):
            host.ask("ping")


@contextmanager
def at_a_port(there: InTime) -> Iterator[str]:
    """A simulated board at the far end of a pair of terminals; gives the name of the near one."""
    far, near = os.openpty()
    os.set_blocking(far, False)
    done = threading.Event()

    def carry() -> None:
        while not done.is_set():
            if said := there.said():
                os.write(far, said.encode("latin-1"))
            try:
                there.chip.hear(os.read(far, 4096))
            except BlockingIOError:
                continue

    tty.setraw(near)
    carrier = threading.Thread(target=carry)
    carrier.start()
    try:
        yield os.ttyname(near)
    finally:
        done.set()
        carrier.join()
        os.close(near)
        os.close(far)


def test_a_board_at_a_serial_port_is_typed_to_and_asked(demo: Demo, tmp_path: Path) -> None:
    with simulated(Resolved(demo("dust-extraction")), "A", 12) as there, at_a_port(there) as name:
        lines = "set start.lamp 90\nget start.lamp\nmend → it\n"
        typed = CliRunner().invoke(app, ["link", "--port", name], input=lines)
        assert typed.exit_code == 0, typed.output
        assert typed.output.splitlines()[-3:] == ["is start.lamp 90", "is start.lamp 90", "error word mend"]
        with Port(name) as port:
            assert greeting_of(greeting(port, starts=0.1)).revision == 12
            with pytest.raises(NoPort, match=name):
                Port(name)  # no other program gets in between
    with pytest.raises(NoPort):
        Port(str(tmp_path / "none"))
    said = CliRunner().invoke(app, ["link"])
    assert said.exit_code == 2 and "--port NAME or --simulated" in said.output
