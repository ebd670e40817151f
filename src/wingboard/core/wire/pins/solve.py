"""Giving every line a pin: an assignment by CP-SAT.

Pins that can do the same are alike, and so are lines that need the same, so the model counts instead of naming
them: for each controller how many functions of a kind it serves, and how many lines of a kind go to pins of a kind.
A function's lines stay on one controller. What the counts leave open is then dealt out along the loom.
"""

from __future__ import annotations

from collections import Counter, defaultdict
from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence, Set
from itertools import pairwise
from typing import Any, NamedTuple, Protocol

from ortools.sat.python import cp_model

from wingboard.core.findings.limits import limit
from wingboard.core.record.controllers import BUS_NAMES, Pin, board_of, open_controllers
from wingboard.core.record.wiring import Controller, PinChoice
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.groups import soldered_pins
from wingboard.core.wire.lines import lines, serves
from wingboard.core.wire.pins.dealing import deal
from wingboard.core.wire.pins.kinds import PinDemand, PinKind, can, comfort, kind_of, need_of, tenths
from wingboard.core.wire.pins.lacking import lacking
from wingboard.core.wire.pins.moving import Loose
from wingboard.core.wire.signals import Line

LEFT_OUT = 10_000
"""Cost of a line without a pin: more than any comfort below."""
OTHER_BOARD = 40
"""Cost of each controller a module is spread over."""
AWAY = 25
"""Cost of a function whose other lines were set by hand on another controller."""


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
    controllers = (*open_controllers(r.design), *extra)
    follower = watch or _Nobody()
    for done, words, ceiling in TRIES:
        follower.report(done, words)
        whole = _Problem(r, keep, controllers, ceiling, everything=True).solved(seconds, follower)
        if whole is not None or follower.stopped():
            return whole or Solution((), (), False, float("inf"), 0.0)
    follower.report(0.6, "Not everything fits; leaving out as little as possible")
    found = _Problem(r, keep, controllers, TRIES[-1].ceiling, everything=False).solved(seconds, follower)
    return found or Solution((), (), False, float("inf"), 0.0)


def least_change(r: Resolved, seconds: float = 10.0) -> Solution | None:
    """Pins for every line, with as few as can be of the lines that have one getting another: those set by hand, those
    that are soldered and those of a bus keep theirs.

    :returns: the solver's choices; None where it cannot be. What is cheapest is so by the number of lines that give up
        their pin before all else; ``optimal`` says whether that is proven.
    """
    for attempt in TRIES:
        problem = _Problem(r, True, open_controllers(r.design), attempt.ceiling, everything=True, loose=True)
        found = problem.solved(seconds, _Nobody())
        if found is not None:
            return found
    return None


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
        self, r: Resolved, keep: bool, controllers: Sequence[Controller], ceiling: str, everything: bool,
        loose: bool = False,
    ) -> None:  # fmt: skip
        """:param ceiling: the limit of a chip's current; :param everything: leave no function out; :param loose: let
        lines give up pins that they have."""
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
        self.loose = self._loose() if loose else None

    def _loose(self) -> Loose:
        boards = {c.id: board_of(self.r.design, c.board) for c in self.controllers}
        there = soldered_pins(self.r) if self.r.design.soldered else frozenset()
        held: dict[str, PinChoice] = {}
        kinds: dict[tuple[str, str], PinKind] = {}
        for ident, choice in self.fixed.items():
            pin = boards[choice.controller].pin(choice.pin)
            if pin is not None and not choice.stays and (choice.controller, choice.pin) not in there:
                held[ident] = choice
                kinds[choice.controller, choice.pin] = kind_of(pin, self.wanted_of_buses)
        names = [c.id for c in self.controllers]
        loose = Loose(self.model, self.lines, held, names, lambda controller, pin: kinds[controller, pin])
        for key in loose.pools():
            self.free.setdefault(key, [])
        self.costs.append(loose.cost)
        return loose

    def _alike(self, function: str, wanted: list[Line]) -> Alike:
        home = {self.fixed[s.id].controller for s in self.lines if s.unit == function and s.id in self.fixed}
        demand = tuple(sorted(Counter(need_of(s) for s in wanted).items(), key=str))
        return Alike(wanted[0].module, demand, sum(tenths(s) for s in wanted), frozenset(home))

    def _free_pins(self) -> dict[tuple[str, PinKind], list[Pin]]:
        taken = {(p.controller, p.pin) for p in self.fixed.values()}
        free: dict[tuple[str, PinKind], list[Pin]] = defaultdict(list)
        for controller in self.controllers:
            for pin in board_of(self.r.design, controller.board).pins:
                if (controller.id, pin.name) not in taken:
                    free[controller.id, kind_of(pin, self.wanted_of_buses)].append(pin)
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
        moved = self.loose.moved(solver.value) if self.loose else {}
        fixed = {ident: p for ident, p in self.fixed.items() if ident not in moved}
        boards_of = self._shared_out(solver)
        new = {line.id: at for unit, at in boards_of.items() for line in self.open[unit]} | moved
        used = Counter({key: solver.value(variable) for key, variable in self.count.items()})
        kept = tuple(p for p in fixed.values() if not p.stays)
        return Solution(
            pins=(*kept, *self._dealt(new, fixed)),
            unfit=self._unfit([f for f in self.open if f not in boards_of], used, status == cp_model.OPTIMAL),
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
        loose = self.loose
        kinds = sorted({n for a in self.groups for n, _ in a.demand} | (loose.needs if loose else set()), key=str)
        more = loose.pools() if loose else Counter[tuple[str, PinKind]]()
        for controller in self.controllers:
            spent: dict[PinKind, list[Any]] = defaultdict(list)
            for need in kinds:
                wanted = [many * self.on[a, controller.id] for a in self.groups for n, many in a.demand if n == need]
                if need.bus:
                    self._bus(controller.id, need, wanted, spent)
                    continue
                wanted += loose.wanted(controller.id, need) if loose else []
                given = []
                for (board, kind), pins in self.free.items():
                    if board != controller.id or not can(need, kind):
                        continue
                    most = len(pins) + more[board, kind]
                    variable = self.model.new_int_var(0, most, f"{board} {need} {kind}")
                    self.count[board, need, kind] = variable
                    given.append(variable)
                    spent[kind].append(variable)
                    self.costs.append(comfort(need, kind) * variable)
                self.model.add(sum(given) == sum(wanted))
            for kind, variables in spent.items():
                freed = loose.freed(controller.id, kind) if loose else []
                self.model.add(sum(variables) <= len(self.free[controller.id, kind]) + sum(freed))

    def _bus(self, controller: str, need: PinDemand, wanted: list[Any], spent: dict[PinKind, list[Any]]) -> None:
        """The lines of a bus take one pin together, however many they are; none where that pin is taken."""
        pin = self.shared.get((controller, need.bus or ""))
        if pin is None:
            self.model.add(sum(wanted) == 0)
            return
        kind = kind_of(pin, self.wanted_of_buses)
        if self.free.get((controller, kind)):
            used = self.model.new_bool_var(f"{need.bus} of {controller}")
            self.count[controller, need, kind] = used
            self.model.add(sum(wanted) <= len(self.lines) * used)
            spent[kind].append(used)

    def _current_left(self, controller: str) -> int:
        """Tenths of a milliampere that the chip may still carry."""
        by_id = {s.id: s for s in self.lines}
        drawn = sum(tenths(by_id[i]) for i, p in self.fixed.items() if p.controller == controller)
        kind = next(c.board for c in self.controllers if c.id == controller)
        whole = board_of(self.r.design, kind).whole
        most = limit(self.r.design, self.ceiling)
        if whole:
            most = whole.plan if self.ceiling == TRIES[0].ceiling else whole.most
        return max(0, round(most * 10_000) - drawn)

    def _currents(self) -> None:
        for controller in self.controllers:
            drawn = [alike.current * self.on[alike, controller.id] for alike in self.groups if alike.current]
            drawn += self.loose.drawn(controller.id) if self.loose else []
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
            if self.everything and groups and not self.loose and len(spread) == len(self.controllers) > 0:
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

    def _along(self, line: Line) -> tuple[int, float, float, str]:
        """Where a line's part comes to the trunk of its module; networks come before the parts."""
        modules = list(self.r.modules)
        at = self.places.get(line.unit)
        if at is None:
            return modules.index(line.module), -1e9, 0.0, line.unit
        up = self.r.modules[at.module].module.loom.trunk == "up"
        return modules.index(at.module), *((at.y, at.x) if up else (at.x, at.y)), line.unit

    def _dealt(self, boards_of: dict[str, str], fixed: Mapping[str, PinChoice]) -> Iterator[PinChoice]:
        """Turn the counts into pins: the lines of each board along their loom.

        :param boards_of: the controller of each line that gets a pin; :param fixed: those that have one.
        """
        homes = {**{i: p.controller for i, p in fixed.items()}, **boards_of}
        for controller in self.controllers:
            board = board_of(self.r.design, controller.board)
            here = sorted((line for line in self.lines if homes.get(line.id) == controller.id), key=self._along)
            shared = {x.id: self.shared[controller.id, x.bus].name for x in here if x.bus and x.id in boards_of}
            for ident, name in shared.items():
                yield PinChoice(line=ident, controller=controller.id, pin=name)
            rows = ([line for line in here if line.coder == coder] for coder in (False, True))
            wanted = [(n, line) for row in rows for n, line in enumerate(row)
                      if line.id in boards_of and not line.bus]  # fmt: skip
            taken = {p.pin for p in fixed.values() if p.controller == controller.id} | set(shared.values())
            free = [pin for pin in board.pins if pin.name not in taken]
            by_id = {line.id: line for line in here}
            given = {p.pin: by_id[i] for i, p in fixed.items() if p.controller == controller.id and i in by_id}
            for ident, pin in deal(board, wanted, free, given, self.wanted_of_buses).items():
                yield PinChoice(line=ident, controller=controller.id, pin=pin.name)

    def _unfit(self, functions: Iterable[str], used: Counter[Any], optimal: bool) -> tuple[Unfit, ...]:
        """:param used: how many lines of a need took pins of a kind on a board, and which buses took theirs."""
        left = {(board, kind): len(pins) for (board, kind), pins in self.free.items()}
        for (board, _, kind), many in used.items():
            left[board, kind] -= many
        spare = {c.id: Counter({kind: many for (b, kind), many in left.items() if b == c.id}) for c in self.controllers}
        on_bus = {(p.controller, s.bus) for s in self.lines if s.bus and (p := self.fixed.get(s.id))}
        on_bus |= {(board, need.bus) for (board, need, _), many in used.items() if need.bus and many}
        fresh = self.shared.keys() - on_bus
        found = ((f, self.open[f]) for f in functions)
        return tuple(Unfit(f, mine[0].name, self._why(mine, spare, fresh, optimal)) for f, mine in found)

    def _why(
        self, wanted: list[Line], spare: Mapping[str, Counter[PinKind]], fresh: Set[tuple[str, str]], optimal: bool
    ) -> str:
        """:param spare: what is left of each board; :param fresh: pins of buses among it that no line of theirs has."""
        analogue = sum(s.analogue for s in wanted)
        needs = f"needs {len(wanted)} pin{'s' if len(wanted) > 1 else ''} on one board"
        needs += f", {analogue} of them analogue" if analogue else ""
        buses = dict.fromkeys(s.bus for s in wanted if s.bus)
        needs += f", among them {' and '.join(BUS_NAMES[bus] for bus in buses)}" if buses else ""
        if not self.controllers:
            return f"{needs}; there is no board yet"
        wants = Counter(need_of(s) for s in wanted if not s.bus)
        short: dict[str, list[str]] = defaultdict(list)
        for controller in self.controllers:
            left = spare[controller.id]
            apart = {bus: kind_of(self.shared[controller.id, bus], self.wanted_of_buses)
                     for bus in buses if (controller.id, bus) in fresh}  # fmt: skip
            gone = [BUS_NAMES[bus] for bus in buses
                    if (controller.id, bus) not in self.shared or (bus in apart and not left[apart[bus]])]  # fmt: skip
            why = f"{' and '.join(gone)} taken or not there" if gone else lacking(wants, left - Counter(apart.values()))
            if why is None and not optimal:
                return f"{needs}; the time ran out before a place for it was found"
            if why is None:
                amps = sum(s.chip_current for s in wanted)
                return f"{needs} and {amps * 1000:.0f} mA; the boards with room are at their chips' limit of current"
            short[why].append(controller.name)
        return f"{needs}; " + "; ".join(f"{why} on {' and '.join(names)}" for why, names in short.items())


def _fixed(r: Resolved, keep: bool) -> dict[str, PinChoice]:
    wanted = {s.id: s for s in lines(r)}
    kinds = {c.id: c.board for c in r.design.controllers}
    there = soldered_pins(r) if r.design.soldered else frozenset()
    reserved = {c.id for c in r.design.controllers if c.reserved is not None}
    fixed = {}
    for choice in r.design.pins:
        line = wanted.get(choice.line)
        if line is None:
            continue
        by_hand = choice.stays or (choice.controller, choice.pin) in there
        if not by_hand and choice.controller in reserved:
            continue
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
