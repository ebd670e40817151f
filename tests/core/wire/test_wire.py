"""Pins: never twice, never beyond what they can do, by hand honoured; what does not fit is said with what would."""

import csv
import io
import json
from collections import Counter
from itertools import groupby
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from building import found, plate, settled
from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import Command
from wingboard.core.changes.commands.functions import EditFunction
from wingboard.core.changes.commands.judgement import SetLimit
from wingboard.core.changes.commands.modules import AddModule
from wingboard.core.changes.commands.places import PlacePart, RemoveItems
from wingboard.core.changes.commands.wire import AddController, PinLine, SetPins
from wingboard.core.findings.finding import Finding
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.controllers import board_of, boards
from wingboard.core.record.design import Design
from wingboard.core.record.errors import NotPossible
from wingboard.core.record.wiring import BoardKind
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.export import wire_files
from wingboard.core.wire.lines import lines, serves
from wingboard.core.wire.pinlist import pin_list
from wingboard.core.wire.pins.remedies import remedies, shortage
from wingboard.core.wire.pins.solve import Solution, solve


def wired(parts: list[str], kinds: list[BoardKind], modules: int = 1, *more: Command) -> Design:
    """Parts in a row over so many modules, and boards."""
    extra = [AddModule(name=f"P{k}", outline=plate().modules[0].outline) for k in range(1, modules)]
    design = plate(*((part, 5.0 * n, 60.0) for n, part in enumerate(parts, 1)), commands=tuple(extra))
    names = [p.id for p in design.modules]
    spread = [
        PlacePart(function=f.id, module=names[n % modules], x=5.0 * n, y=60) for n, f in enumerate(design.functions)
    ]
    return apply(design, [*spread, *(AddController(board=kind) for kind in kinds), *more], catalogue())


def assert_sound(design: Design, found: Solution) -> None:
    """What must hold for every solution."""
    wanted = {s.id: s for s in lines(Resolved(design))}
    kinds = {b.id: b.board for b in design.controllers}
    pins = [*found.pins, *(p for p in design.pins if p.by == "hand")]
    for place, users in groupby(sorted(pins, key=lambda p: (p.controller, p.pin)), lambda p: (p.controller, p.pin)):
        lines_there = [wanted[p.line] for p in users]
        shared = {s.bus for s in lines_there}
        assert len(lines_there) == 1 or (len(shared) == 1 and None not in shared), place
    left_out = {u.function for u in found.unfit}
    assert {p.line for p in pins} == {i for i, s in wanted.items() if s.function not in left_out}
    for choice in found.pins:
        assert serves(wanted[choice.line], board_of(design, kinds[choice.controller]).pin(choice.pin))
    for ident in {s.function for s in wanted.values()}:
        assert len({p.controller for p in found.pins if p.line.startswith(f"{ident}.")}) <= 1
    for board in kinds:
        assert sum(wanted[p.line].chip_current for p in pins if p.controller == board) <= 0.2 + 1e-9
    apply(design, (SetPins(pins=found.pins),), catalogue())


@settings(max_examples=30)
@given(
    st.lists(st.sampled_from(list(catalogue())), min_size=1, max_size=26),
    st.lists(st.sampled_from(["atmega328p", "atmega2560"]), max_size=3),
    st.integers(1, 3),
)
def test_a_solution_never_uses_a_pin_twice_or_against_its_capability(
    parts: list[str], kinds: list[BoardKind], modules: int
) -> None:
    design = wired(parts, kinds, modules)
    assert_sound(design, solve(Resolved(design), seconds=3))


def test_the_demo_is_solved_optimally_and_a_module_stays_on_one_controller() -> None:
    from wingboard.core.record.document import read_design
    from wingboard.demo import demo_texts

    design = read_design(demo_texts()["kestrel-line-9"], catalogue())
    found = solve(Resolved(design), keep=False)
    assert_sound(design, found)
    assert found.optimal
    modules = {f.id: f.place.module for f in design.functions if f.place}
    spread = {(modules[p.line.split(".")[0]], p.controller) for p in found.pins}
    assert len(spread) <= len(design.modules) + 1  # one module at most is wired to two boards
    assert solve(Resolved(design), keep=True).pins == design.pins  # nothing moves that was soldered


def test_encoders_get_interrupts_dimmed_lamps_pwm_and_plain_inputs_leave_them_alone() -> None:
    design = wired(["encoder-push", "led-5-bezel", "button-16"], ["atmega328p"])
    pins = {p.line: p.pin for p in solve(Resolved(design)).pins}
    assert {pins["f1.a"], pins["f1.b"]} == {"2", "3"}
    assert boards()["atmega328p"].pin(pins["f2.lamp"]).pwm  # type: ignore[union-attr]
    plain = boards()["atmega328p"].pin(pins["f3.press"])
    assert plain is not None
    assert not (plain.pwm or plain.interrupt or plain.analogue)


@pytest.mark.parametrize("kind", ["atmega328p", "atmega2560"])
def test_displays_share_the_pins_of_their_bus_and_only_those(kind: BoardKind) -> None:
    # The vendor's variant headers: SDA, SCL, SCK and MOSI of the two boards.
    right = {"atmega328p": ("A4", "A5", "13", "11"), "atmega2560": ("20", "21", "52", "51")}[kind]
    parts = ["display-16x2", "display-graphic-28", "display-graphic-096", "display-graphic-28", "led-5-bezel"]
    design = wired(parts, [kind])
    solved = solve(Resolved(design))
    assert_sound(design, solved)
    pins = {p.line: p.pin for p in solved.pins}
    assert (pins["f1.data"], pins["f1.clock"], pins["f2.clock"], pins["f2.data"]) == right
    assert (pins["f3.data"], pins["f3.clock"], pins["f4.clock"], pins["f4.data"]) == right
    assert len({pins[f"f{n}.{name}"] for n in (2, 4) for name in ("select", "register", "reset")}) == 6
    notes = {row.line: row.note for row in pin_list(Resolved(apply(design, (SetPins(pins=solved.pins),), catalogue())))}
    assert "shared" in notes["f1.data"]
    # By hand: another pin is refused by a check, the right one is shared without moving the other.
    controller = f"{kind}-1"
    wrong = apply(design, (PinLine(line="f1.data", controller=controller, pin="7"),), catalogue())
    (finding,) = found(wrong, "wire.pin-incapable")
    assert f"pin {right[0]} is" in finding.detail
    both = [PinLine(line=f"f{n}.data", controller=controller, pin=right[0]) for n in (1, 3)]
    assert [p.line for p in apply(design, both, catalogue()).pins] == ["f1.data", "f3.data"]
    with pytest.raises(NotPossible):
        apply(design, (both[0], PinLine(line="f5.lamp", controller=controller, pin=right[0])), catalogue())


def test_a_bus_whose_pin_is_taken_by_hand_is_left_out_and_said() -> None:
    taken = PinLine(line="f2.press", controller="atmega328p-1", pin="A4")
    design = wired(["display-16x2", "button-16"], ["atmega328p"], 1, taken)
    (unfit,) = solve(Resolved(design)).unfit
    assert unfit.name == "F1"
    assert unfit.reason.endswith("; I²C SDA taken or not there on ATmega328P 1")
    crowded = wired(["encoder-push"] * 6 + ["display-16x2"], ["atmega328p"])  # 18 lines of 18, and its two
    (unfit,) = solve(Resolved(crowded)).unfit
    assert unfit.reason.endswith("; I²C SDA and I²C SCL taken or not there on ATmega328P 1")


def test_coils_relays_and_lamps_of_their_own_supply_count_for_what_the_pin_gives() -> None:
    def drawn(part: str, **switched: Any) -> list[tuple[float, float]]:
        change = EditFunction(function="f1", **switched)
        return [(s.pin_current, s.chip_current) for s in lines(Resolved(wired([part], ["atmega328p"], 1, change)))]

    # Two coils of 20 mA: every end carries it, the chip gives each once. A transistor's base over 1 kΩ: 5 mA.
    assert drawn("gauge-52") == [(0.02, 0.02), (0.02, 0.0), (0.02, 0.02), (0.02, 0.0)]
    assert drawn("led-5-bezel", volts=5) == [(0.01, 0.01)]
    assert drawn("led-5-bezel", volts=12) == [(0.005, 0.005)]
    assert drawn("led-5-bezel", volts=5, through="transistor") == [(0.005, 0.005)]
    assert drawn("sounder-22") == [(0.005, 0.005)]


@pytest.mark.parametrize(
    ("amps", "severity", "needed"),
    [(0.020, None, 0), (0.0201, "judge", 20), (0.040, "judge", 20), (0.0401, "must", 40)],
)
def test_a_pin_is_planned_with_20_and_never_carries_over_40_milliamperes(
    amps: float, severity: str | None, needed: float
) -> None:
    design = wired(["led-5-bezel"], ["atmega328p"])
    line = design.parts[0].lines[0].model_copy(update={"current": amps})
    design = design.model_copy(update={"parts": (design.parts[0].model_copy(update={"lines": (line,)}),)})
    findings = found(design, "wire.pin-current")
    assert [(f.severity, f.needed and f.needed.value) for f in findings] == ([(severity, needed)] if severity else [])
    for finding in findings:
        assert finding.measured
        assert finding.measured.value == pytest.approx(amps * 1000)
        assert found(settled(design, finding), "wire.pin-current") == []


@pytest.mark.parametrize(
    ("lamps", "severity", "needed"),
    [(15, None, 0), (16, "judge", 150), (20, "judge", 150), (21, "must", 200)],
)
def test_a_chip_is_planned_with_150_and_never_carries_over_200_milliamperes(
    lamps: int, severity: str | None, needed: float
) -> None:
    pins = tuple(PinLine(line=f"f{n}.lamp", controller="atmega2560-1", pin=str(21 + n)) for n in range(1, lamps + 1))
    findings = found(wired(["led-5-bezel"] * lamps, ["atmega2560"], 1, *pins), "wire.chip-current")
    assert [(f.severity, f.needed and f.needed.value) for f in findings] == ([(severity, needed)] if severity else [])
    assert all(f.measured and f.measured.value == pytest.approx(10 * lamps) for f in findings)


@pytest.mark.parametrize(("boards_there", "spoken"), [(1, ["judge"]), (2, [])])
def test_chips_are_loaded_as_planned_where_that_can_be(boards_there: int, spoken: list[str]) -> None:
    design = wired(["led-5-bezel"] * 16, ["atmega2560"] * boards_there)
    solved = solve(Resolved(design))
    assert solved.unfit == ()
    kept = apply(design, (SetPins(pins=solved.pins),), catalogue())
    assert [f.severity for f in found(kept, "wire.chip-current")] == spoken


def test_ports_that_share_a_limit_are_not_crowded() -> None:
    # Ports F and K of the ATmega2560, A0 to A15, carry 100 mA together (data sheet, from memory): ten lamps.
    def on_analogue(lamps: int) -> list[Finding]:
        pins = [PinLine(line=f"f{n}.lamp", controller="atmega2560-1", pin=f"A{n}") for n in range(1, lamps + 1)]
        return found(wired(["led-5-bezel"] * lamps, ["atmega2560"], 1, *pins), "wire.port-current")

    assert on_analogue(10) == []
    (finding,) = on_analogue(11)
    assert (finding.measured and round(finding.measured.value, 6), finding.needed and finding.needed.value) == (
        110,
        100,
    )
    assert "F, K" in finding.detail
    # The solver spreads them by itself.
    solved = solve(Resolved(wired(["led-5-bezel"] * 15, ["atmega2560"])))
    ports = Counter(boards()["atmega2560"].pin(p.pin).port[0] for p in solved.pins)  # type: ignore[union-attr]
    assert len(ports) > 2


def test_pins_by_hand_are_honoured_even_when_wrong_and_then_a_check_stops() -> None:
    hand = PinLine(line="f1.wiper", controller="atmega328p-1", pin="7")
    design = wired(["potentiometer", "button-16"], ["atmega328p"], 1, hand)
    solved = apply(design, (SetPins(pins=solve(Resolved(design)).pins),), catalogue())
    assert {p.line: p.pin for p in solved.pins}["f1.wiper"] == "7"
    (finding,) = found(solved, "wire.pin-incapable")
    assert "A…" in finding.detail
    assert found(settled(solved, finding), "wire.pin-incapable") == []


def test_what_does_not_fit_is_said_with_what_would_make_it_fit() -> None:
    design = wired(["rotary-12"] * 2, ["atmega328p"])
    result = solve(Resolved(design))
    assert [u.name for u in result.unfit] == ["F2"]
    assert "needs 12 pins on one board" in result.unfit[0].reason
    assert "ATmega328P 1" in result.unfit[0].reason
    assert shortage(Resolved(design)) == "24 pins in all wanted, 18 there"
    ways = remedies(Resolved(design), result)
    assert 2 <= len(ways) <= 3
    assert {type(way.commands[0]) for way in ways} == {AddController, EditFunction}  # a board, or another way to read
    for way in ways:
        assert solve(Resolved(apply(design, way.commands, catalogue()))).unfit == ()
    lamps = wired(["led-5-bezel"] * 21, ["atmega2560"])
    assert "current" in solve(Resolved(lamps)).unfit[0].reason
    assert "no board yet" in solve(Resolved(wired(["button-16"], []))).unfit[0].reason


def test_the_checks_of_the_wire_station_speak() -> None:
    bare = wired(["button-16", "button-16"], ["atmega328p"])
    assert found(bare, "wire.no-pin")[0].subjects == ("f1", "f2")
    pins = solve(Resolved(bare)).pins
    gone = apply(bare, (SetPins(pins=pins), RemoveItems(functions=("f2",))), catalogue())
    (left,) = found(gone, "wire.pin-left-over")
    assert found(settled(gone, left), "wire.pin-left-over") == []
    full = wired(["rotary-12", "button-16", "button-16", "button-16", "button-16", "button-16"], ["atmega328p"])
    (reserve,) = found(full, "wire.reserve")
    assert reserve.measured is not None
    assert reserve.measured.value == pytest.approx(100 / 18)
    limit = SetLimit(limit="pin-current", value=0.005, reason="shy of heat")
    assert len(found(wired(["led-5-bezel"], ["atmega328p"], 1, limit), "wire.pin-current")) == 1


def test_the_pin_list_is_the_same_in_csv_and_json_and_harmless_in_a_spreadsheet() -> None:
    rename = EditFunction(function="f1", name='=cmd|"x"')
    design = wired(["button-16-lit"], ["atmega328p"], 1, rename)
    solved = apply(design, (SetPins(pins=solve(Resolved(design)).pins),), catalogue())
    files = wire_files(Resolved(solved))
    rows = list(csv.DictReader(io.StringIO(files["wire/pins.csv"].decode())))
    plain = json.loads(files["wire/pins.json"])
    columns = [
        "board",
        "pin",
        "direction",
        "kind",
        "milliamps",
        "boot",
        "common",
        "function",
        "terminal",
        "module",
        "note",
    ]
    assert [list(r) for r in rows] == [columns] * 2
    assert [r["pin"] for r in rows] == [r["pin"] for r in plain]
    assert all(r["function"].startswith("'=") for r in rows)
    assert "300 Ω in series; PWM" in [r["note"] for r in rows]  # (5 - 2.1) V / 10 mA = 290 Ω, next E24 value up


@pytest.mark.parametrize(
    ("part", "load", "notes"),
    [
        ("toggle-large-on-off", {}, ["pull-up, closes to ground"]),
        ("toggle-large-on-off", {"volts": 12, "amps": 3, "bus": "A"}, []),
        ("toggle-large-on-off", {"volts": 12, "amps": 3, "through": "relay"}, []),
        ("emergency-stop-22", {}, ["pull-up, normally closed: open is pressed"]),
        ("led-5-bezel", {}, ["300 Ω in series"]),
        ("led-5-bezel", {"volts": 12}, ["1000 Ω in series, on 12 V through a transistor"]),
    ],
)
def test_a_contact_that_carries_a_load_is_no_input_and_a_lamp_of_12_v_hangs_on_no_pin(
    part: str, load: dict[str, Any], notes: list[str]
) -> None:
    # (5 - 2) / 10 mA = 300 Ω and (12 - 2) / 10 mA = 1 kΩ: worked examples of common practice.
    commands = (EditFunction.model_validate({"function": "f1", **load}),)
    rows = pin_list(Resolved(plate((part, 100, 60), commands=commands)))
    assert [row.note.removesuffix("; PWM") for row in rows] == notes
