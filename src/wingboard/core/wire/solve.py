"""Giving every line a pin: an assignment by CP-SAT.

Pins that can do the same are alike, and so are lines that need the same, so the model counts instead of naming
them: for each controller how many functions of a kind it serves, and how many lines of a kind go to pins of a kind.
A function's lines stay on one controller. What the counts leave open is then dealt out in natural order.
"""

from __future__ import annotations

from collections import Counter, defaultdict
from collections.abc import Callable, Iterable, Mapping, Sequence, Set
from itertools import pairwise
from typing import Any, NamedTuple, Protocol

from ortools.sat.python import cp_model

from wingboard.core.findings.limits import limit
from wingboard.core.record.controllers import BUS_NAMES, Pin, PortGroup, board_of
from wingboard.core.record.design import Design
from wingboard.core.record.wiring import Controller, PinChoice
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.groups import soldered_pins
from wingboard.core.wire.lines import lines, serves
from wingboard.core.wire.signals import Line

LEFT_OUT = 10_000
"""Cost of a line without a pin: more than any comfort below."""
OTHER_BOARD = 40
"""Cost of each controller a module is spread over."""
AWAY = 25
"""Cost of a function whose other lines were set by hand on another controller."""
NO_INTERRUPT, NO_PWM, FLASHES, SPENT = 6, 4, 3, 1
"""Cost of an encoder without interrupt, a dimmed lamp without PWM, an output that flashes at reset, and of spending
a pin that can do more than is needed."""


STRAP, RADIO, PULL_UP, MEASURES = 20, 12, 5, 3
"""Cost of a pin whose level at power-up chooses how the chip starts, of measuring where the radio must be off, of a
contact at a pin without a pull-up of its own, and of spending a pin that measures."""


class PinKind(NamedTuple):
    """Pins that can do the same."""

    analogue: bool
    pwm: bool
    interrupt: bool
    flashes: bool
    bus: str | None
    """What it is of a bus, where some line wants that."""
    reads: bool
    drives: bool
    pull_up: bool
    strap: bool
    radio: bool
    coder: bool


class PinDemand(NamedTuple):
    """Lines that need the same."""

    analogue: bool
    prefers: str | None
    out: bool
    bus: str | None
    coder: bool
    pulled: bool
    """Read by a pin that wants a pull-up."""


class Unfit(NamedTuple):
    """A function that got no pins, and why."""

    function: str
    name: str
    reason: str


class Solution(NamedTuple):
    """What the solver found. ``bound`` is a proven lower bound on the cost; equal to ``cost`` when optimal."""

    pins: tuple[PinChoice, ...]
    unfit: tuple[Unfit, ...]
    optimal: bool
    cost: float
    bound: float


class Watch(Protocol):
    """Somebody who follows the solving, and may stop it."""

    def report(self, done: float, words: str) -> None:
        """Hear how far it has got: a share from 0 to 1, and what is being done."""

    def stopped(self) -> bool:
        """Whether it shall stop; the best found by then counts."""

    def when_stopped(self, call: Callable[[], object]) -> None:
        """Have something called as soon as it shall stop."""


class _Nobody:
    """Nobody follows, and nobody stops it."""

    def report(self, done: float, words: str) -> None:
        """Nothing."""

    def stopped(self) -> bool:
        """Never."""
        return False

    def when_stopped(self, call: Callable[[], object]) -> None:
        """Never called."""


class Try(NamedTuple):
    """How far the chips may be loaded, by the limit's name, and what is said meanwhile (a share done, in words)."""

    done: float
    words: str
    ceiling: str


TRIES = (
    Try(0.0, "Trying to fit everything", "chip-current"),
    Try(0.3, "More current than one plans with; trying up to what the chips carry", "chip-current-most"),
)


def solve(
    r: Resolved,
    keep: bool = True,
    seconds: float = 10.0,
    extra: Sequence[Controller] = (),
    watch: Watch | None = None,
) -> Solution:
    """Give pins to the lines of a design.

    Pins set by hand or soldered already are always honoured, even those that cannot do what is asked (a check says so).
    Chips are loaded as one plans them, or, where not everything fits so, up to what they ever carry (a check says that
    too).

    :param keep: leave pins that were solved before and still serve where they are.
    :param seconds: time limit; the best found by then is returned with its bound.
    :param extra: further controllers, to try what would make it fit.
    :param watch: hears of every better solution with its bound, and may stop it.
    :returns: the solver's choices without those by hand, the functions left out, and the quality.
    """
    controllers = (*r.design.controllers, *extra)
    follower = watch or _Nobody()
    for done, words, ceiling in TRIES:
        follower.report(done, words)
        whole = _Problem(r, keep, controllers, ceiling, everything=True).solved(seconds, follower)
        if whole is not None or follower.stopped():
            return whole or Solution((), (), False, float("inf"), 0.0)
    follower.report(0.6, "Not everything fits; leaving out as little as possible")
    found = _Problem(r, keep, controllers, TRIES[-1].ceiling, everything=False).solved(seconds, follower)
    return found or Solution((), (), False, float("inf"), 0.0)


class Alike(NamedTuple):
    """Functions of one module that need the same, so that only their number on each controller matters."""

    module: str
    demand: tuple[tuple[PinDemand, int], ...]
    current: int
    home: frozenset[str]
    """Controllers that hold lines of theirs already, set by hand or kept."""


class _Problem:
    """One model; with ``everything`` each function must get its pins, which makes for a much tighter bound."""

    def __init__(
        self, r: Resolved, keep: bool, controllers: Sequence[Controller], ceiling: str, everything: bool
    ) -> None:
        """:param ceiling: the limit of a chip's current; :param everything: leave no function out."""
        self.r = r
        self.ceiling = ceiling
        self.everything = everything
        self.controllers = controllers
        self.lines = lines(r)
        self.fixed = _fixed(r, keep)
        self.open: dict[str, list[Line]] = defaultdict(list)
        for line in self.lines:
            if line.id not in self.fixed:
                self.open[line.unit].append(line)
        self.groups: dict[Alike, list[str]] = defaultdict(list)
        for function, wanted in self.open.items():
            self.groups[self._alike(function, wanted)].append(function)
        self.wanted_of_buses = {s.bus for s in self.lines if s.bus}
        self.free = self._free_pins()
        self.shared = self._shared_pins()
        self.model: Any = cp_model.CpModel()
        self.on: dict[tuple[Alike, str], Any] = {}
        self.count: dict[tuple[str, PinDemand, PinKind], Any] = {}
        self.costs: list[Any] = []
        self.places = {p.function.id: p.place for p in r.placed}

    def _alike(self, function: str, wanted: list[Line]) -> Alike:
        home = {self.fixed[s.id].controller for s in self.lines if s.unit == function and s.id in self.fixed}
        demand = tuple(sorted(Counter(_need(s) for s in wanted).items(), key=str))
        return Alike(wanted[0].module, demand, sum(_tenths(s) for s in wanted), frozenset(home))

    def _free_pins(self) -> dict[tuple[str, PinKind], list[Pin]]:
        taken = {(p.controller, p.pin) for p in self.fixed.values()}
        free: dict[tuple[str, PinKind], list[Pin]] = defaultdict(list)
        for controller in self.controllers:
            for pin in board_of(self.r.design, controller.board).pins:
                if (controller.id, pin.name) not in taken:
                    free[controller.id, _kind(pin, self.wanted_of_buses)].append(pin)
        return free

    def _shared_pins(self) -> dict[tuple[str, str], Pin]:
        """The pin of each line of a bus, on controllers where it is free or carries such a line already."""
        bus_of = {s.id: s.bus for s in self.lines}
        users = {(p.controller, p.pin): bus_of[p.line] for p in self.fixed.values()}
        shared = {}
        for controller in self.controllers:
            for pin in board_of(self.r.design, controller.board).pins:
                if pin.bus in self.wanted_of_buses and users.get((controller.id, pin.name), pin.bus) == pin.bus:
                    shared[controller.id, pin.bus] = pin
        return shared

    def solved(self, seconds: float, watch: Watch) -> Solution | None:
        self._functions_on_controllers()
        self._counts()
        self._currents()
        self._modules()
        self._order_of_twins()
        self.model.minimize(sum(self.costs))
        solver = cp_model.CpSolver()
        solver.parameters.max_time_in_seconds = seconds
        solver.parameters.num_workers = 1
        solver.parameters.random_seed = 1
        watch.when_stopped(solver.stop_search)
        status = solver.solve(self.model, _Better(watch))
        if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
            return None
        boards_of = self._shared_out(solver)
        used = Counter({key: solver.value(variable) for key, variable in self.count.items()})
        kept = tuple(p for p in self.fixed.values() if p.by == "solver")
        return Solution(
            pins=(*kept, *self._dealt(solver, boards_of)),
            unfit=self._unfit([f for f in self.open if f not in boards_of], used),
            optimal=status == cp_model.OPTIMAL,
            cost=solver.objective_value,
            bound=solver.best_objective_bound,
        )

    def _functions_on_controllers(self) -> None:
        for n, (alike, functions) in enumerate(self.groups.items()):
            here = []
            for controller in self.controllers:
                on = self.model.new_int_var(0, len(functions), f"group {n} on {controller.id}")
                self.on[alike, controller.id] = on
                here.append(on)
                if alike.home and controller.id not in alike.home:
                    self.costs.append(AWAY * on)
            if self.everything:
                self.model.add(sum(here) == len(functions))
                continue
            self.model.add(sum(here) <= len(functions))
            many = sum(count for _, count in alike.demand)
            self.costs.append(LEFT_OUT * many * (len(functions) - sum(here)))

    def _counts(self) -> None:
        kinds = sorted({need for alike in self.groups for need, _ in alike.demand}, key=str)
        for controller in self.controllers:
            spent: dict[PinKind, list[Any]] = defaultdict(list)
            for need in kinds:
                wanted = [many * self.on[a, controller.id] for a in self.groups for n, many in a.demand if n == need]
                if need.bus:
                    self._bus(controller.id, need.bus, wanted, spent)
                    continue
                given = []
                for (board, kind), pins in self.free.items():
                    if board != controller.id or not _can(need, kind):
                        continue
                    variable = self.model.new_int_var(0, len(pins), f"{board} {need} {kind}")
                    self.count[board, need, kind] = variable
                    given.append(variable)
                    spent[kind].append(variable)
                    self.costs.append(_cost(need, kind) * variable)
                self.model.add(sum(given) == sum(wanted))
            for kind, variables in spent.items():
                self.model.add(sum(variables) <= len(self.free[controller.id, kind]))

    def _bus(self, controller: str, bus: str, wanted: list[Any], spent: dict[PinKind, list[Any]]) -> None:
        """The lines of a bus take one pin together, however many they are; none where that pin is taken."""
        pin = self.shared.get((controller, bus))
        if pin is None:
            self.model.add(sum(wanted) == 0)
            return
        kind = _kind(pin, self.wanted_of_buses)
        if self.free.get((controller, kind)):
            used = self.model.new_bool_var(f"{bus} of {controller}")
            self.model.add(sum(wanted) <= len(self.lines) * used)
            spent[kind].append(used)

    def _current_left(self, controller: str) -> int:
        """Tenths of a milliampere that the chip may still carry."""
        by_id = {s.id: s for s in self.lines}
        drawn = sum(_tenths(by_id[i]) for i, p in self.fixed.items() if p.controller == controller)
        kind = next(c.board for c in self.controllers if c.id == controller)
        whole = board_of(self.r.design, kind).whole
        most = limit(self.r.design, self.ceiling)
        if whole:
            most = whole.plan if self.ceiling == TRIES[0].ceiling else whole.most
        return max(0, round(most * 10_000) - drawn)

    def _currents(self) -> None:
        for controller in self.controllers:
            drawn = [alike.current * self.on[alike, controller.id] for alike in self.groups if alike.current]
            self.model.add(sum(drawn) <= self._current_left(controller.id))

    def _modules(self) -> None:
        """A cost for each controller a module is spread over, and how many it needs at the least."""
        for module in dict.fromkeys(s.module for s in self.lines):
            groups = [alike for alike in self.groups if alike.module == module]
            spread = []
            for controller in self.controllers:
                if self._module_is_on(module, controller.id):
                    continue
                here = self.model.new_bool_var(f"{module} on {controller.id}")
                for alike in groups:
                    self.model.add(self.on[alike, controller.id] <= len(self.groups[alike]) * here)
                spread.append(here)
                self.costs.append(OTHER_BOARD * here)
            if self.everything and groups and len(spread) == len(self.controllers) > 0:
                self._least_boards(groups, spread)

    def _least_boards(self, groups: list[Alike], spread: list[Any]) -> None:
        """A whole module needs so many controllers, by pins and by current: tightens the bound."""
        pins = sum(many * len(self.groups[a]) for a in groups for need, many in a.demand if not need.bus)
        current = sum(a.current * len(self.groups[a]) for a in groups)
        sizes = [sum(len(p) for (b, _), p in self.free.items() if b == c.id) for c in self.controllers]
        amps = [self._current_left(c.id) for c in self.controllers]
        least = max(-(-pins // max(1, *sizes)), -(-current // max(1, *amps)), 1)
        self.model.add(sum(spread) >= least)

    def _order_of_twins(self) -> None:
        """Untouched boards of one kind are interchangeable; the first carries no less than the second."""
        touched = {p.controller for p in self.fixed.values()}
        for kind in dict.fromkeys(c.board for c in self.controllers):
            twins = [c.id for c in self.controllers if c.board == kind and c.id not in touched]
            for first, second in pairwise(twins):
                self.model.add(self._load(first) >= self._load(second))

    def _load(self, controller: str) -> Any:
        return sum(self.on[alike, controller] for alike in self.groups)

    def _module_is_on(self, module: str, controller: str) -> bool:
        on_module = {s.id for s in self.lines if s.module == module}
        return any(p.controller == controller for i, p in self.fixed.items() if i in on_module)

    def _shared_out(self, solver: Any) -> dict[str, str]:
        """Each function's controller: the counts dealt to the functions of a group in their order."""
        boards_of = {}
        for alike, functions in self.groups.items():
            waiting = iter(functions)
            for controller in self.controllers:
                for _ in range(solver.value(self.on[alike, controller.id])):
                    boards_of[next(waiting)] = controller.id
        return boards_of

    def _along(self, unit: str) -> tuple[int, float, float]:
        """Where a function's part comes to the trunk of its module; networks come before the parts."""
        modules = list(self.r.modules)
        at = self.places.get(unit)
        if at is None:
            return modules.index(self.open[unit][0].module), -1e9, 0.0
        up = self.r.modules[at.module].module.loom.trunk == "up"
        return modules.index(at.module), *((at.y, at.x) if up else (at.x, at.y))

    def _dealt(self, solver: Any, boards_of: dict[str, str]) -> tuple[PinChoice, ...]:
        """Turn the counts into pins: lines along their loom, cheapest kinds first, pins in natural order.

        So neighbours in the harness have neighbouring pins, and a plug between is straight.
        """
        pools = {key: list(pins) for key, pins in self.free.items()}
        left = {key: solver.value(variable) for key, variable in self.count.items()}
        drawn = _Drawn(self.r.design, self.controllers, self.lines, self.fixed)
        choices = []
        for function in sorted(self.open, key=self._along):
            wanted = self.open[function]
            board = boards_of.get(function)
            if board is None:
                continue
            for line in wanted:
                need = _need(line)
                if need.bus:
                    choices.append(PinChoice(line=line.id, controller=board, pin=self.shared[board, need.bus].name))
                    continue
                kinds = [k for (b, n, k), many in left.items() if b == board and n == need and many > 0]
                kind = min(kinds, key=lambda k: (_cost(need, k), *k[:4], k.bus or ""))
                left[board, need, kind] -= 1
                pin = drawn.least(board, pools[board, kind], line)
                choices.append(PinChoice(line=line.id, controller=board, pin=pin.name))
        return tuple(choices)

    def _unfit(self, functions: Iterable[str], used: Counter[Any]) -> tuple[Unfit, ...]:
        spare: dict[str, Counter[str]] = {c.id: Counter() for c in self.controllers}
        for (board, kind), pins in self.free.items():
            gone = sum(many for (b, _, k), many in used.items() if b == board and k == kind)
            spare[board]["analogue" if kind.analogue else "digital"] += len(pins) - gone
        return tuple(Unfit(f, self.open[f][0].name, self._why(self.open[f], spare)) for f in functions)

    def _why(self, wanted: list[Line], spare: dict[str, Counter[str]]) -> str:
        analogue = sum(s.analogue for s in wanted)
        needs = f"needs {len(wanted)} pin{'s' if len(wanted) > 1 else ''} on one board"
        needs += f", {analogue} of them analogue" if analogue else ""
        buses = [BUS_NAMES[s.bus] for s in wanted if s.bus]
        needs += f", among them {' and '.join(buses)}" if buses else ""
        if not self.controllers:
            return f"{needs}; there is no board yet"
        names = {c.id: c.name for c in self.controllers}
        left = ", ".join(f"{names[b]} {n['digital']} digital and {n['analogue']} analogue" for b, n in spare.items())
        room = any(n["analogue"] >= analogue and n.total() >= len(wanted) for n in spare.values())
        if room:
            amps = sum(s.chip_current for s in wanted)
            if any(s.bus and not any(b == s.bus for _, b in self.shared) for s in wanted):
                return f"{needs}; the pins of that bus are taken"
            return f"{needs} and {amps * 1000:.0f} mA; the boards with room are at their chips' limit of current"
        return f"{needs}; left over: {left}"


class _Drawn:
    """What the ports of each controller carry so far, so that lamps go where there is least."""

    def __init__(
        self, design: Design, controllers: Sequence[Controller], wanted: Sequence[Line], fixed: Mapping[str, PinChoice]
    ) -> None:
        self._boards = {c.id: board_of(design, c.board) for c in controllers}
        self._amps: Counter[tuple[str, PortGroup | None]] = Counter()
        by_id = {line.id: line for line in wanted}
        for choice in fixed.values():
            pin = self._boards[choice.controller].pin(choice.pin)
            if pin:
                self._add(choice.controller, pin, by_id[choice.line])

    def _add(self, controller: str, pin: Pin, line: Line) -> None:
        self._amps[controller, self._boards[controller].group(pin)] += _tenths_of_pin(line)

    def least(self, controller: str, pool: list[Pin], line: Line) -> Pin:
        """Take a pin out of the pool: the first, or for what draws current the first of the ports that carry least."""
        board = self._boards[controller]

        def carried(pin: Pin) -> float:
            group = board.group(pin)
            return self._amps[controller, group] / group.most if group else 0.0

        pin = min(pool, key=carried) if line.pin_current else pool[0]
        pool.remove(pin)
        self._add(controller, pin, line)
        return pin


def _tenths(line: Line) -> int:
    """What the line adds to the chip's current, in tenths of a milliampere."""
    return round(line.chip_current * 10_000)


def _tenths_of_pin(line: Line) -> int:
    return round(line.pin_current * 10_000)


def _kind(pin: Pin, wanted_of_buses: Set[str]) -> PinKind:
    bus = pin.bus if pin.bus in wanted_of_buses else None
    does = pin.reads, pin.drives, pin.pull_up, pin.strap, pin.radio, pin.coder
    return PinKind(pin.analogue, pin.pwm, pin.interrupt, pin.flashes, bus, *does)


def _need(line: Line) -> PinDemand:
    out = line.direction != "in"
    pulled = not (out or line.analogue or line.coder or line.divided)
    return PinDemand(line.analogue, line.prefers, out, line.bus, line.coder, pulled)


def _can(need: PinDemand, kind: PinKind) -> bool:
    """Whether pins of a kind can do what is asked, as ``lines.serves`` has it for a line and a pin."""
    if need.coder or kind.coder:
        return need.coder and kind.coder
    if need.analogue:
        return kind.analogue
    return kind.drives if need.out else kind.reads


def _cost(need: PinDemand, kind: PinKind) -> int:
    cost = 0
    cost += NO_INTERRUPT if need.prefers == "interrupt" and not kind.interrupt else 0
    cost += NO_PWM if need.prefers == "PWM" and not kind.pwm else 0
    cost += FLASHES if need.out and kind.flashes else 0
    cost += STRAP if kind.strap else 0
    cost += RADIO if kind.radio and need.analogue else 0
    cost += PULL_UP if need.pulled and not kind.pull_up else 0
    cost += MEASURES if kind.analogue and not need.analogue else 0
    cost += SPENT if kind.interrupt and need.prefers != "interrupt" else 0
    cost += SPENT if kind.pwm and need.prefers != "PWM" else 0
    return cost


def _fixed(r: Resolved, keep: bool) -> dict[str, PinChoice]:
    wanted = {s.id: s for s in lines(r)}
    kinds = {c.id: c.board for c in r.design.controllers}
    there = soldered_pins(r) if r.design.soldered else frozenset()
    fixed = {}
    for choice in r.design.pins:
        line = wanted.get(choice.line)
        if line is None:
            continue
        by_hand = choice.by == "hand" or (choice.controller, choice.pin) in there
        if by_hand or (keep and serves(line, board_of(r.design, kinds[choice.controller]).pin(choice.pin))):
            fixed[choice.line] = choice
    return fixed


class _Better(cp_model.CpSolverSolutionCallback):  # type: ignore[misc]
    """Passes on every better solution."""

    def __init__(self, watch: Watch) -> None:
        super().__init__()
        self._watch = watch

    def on_solution_callback(self) -> None:
        """Tell its cost and the proven bound; the share done is how near they are."""
        cost, bound = self.objective_value, self.best_objective_bound
        self._watch.report(bound / cost if cost else 1.0, f"Cost {cost:.0f}, at least {bound:.0f}")
