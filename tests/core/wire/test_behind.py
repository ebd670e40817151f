"""A module from behind: every line ends on its part, left for right."""

from collections.abc import Callable

import pytest

from building import plate
from wingboard.core.changes.commands.places import TurnItems
from wingboard.core.record.design import Design
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.behind import BETWEEN, modules_behind
from wingboard.core.wire.lines import lines
from wingboard.core.wire.pinlist import pin_list

Demo = Callable[[str], Design]


def test_every_line_ends_once_on_its_own_part(demo: Demo) -> None:
    tram = Resolved(demo("kestrel-line-9"))
    modules = modules_behind(tram)
    ends = [end for module in modules for end in module.ends]
    assert sorted(end.line for end in ends) == sorted(line.id for line in lines(tram))
    assert len({(m.id, end.x, end.y) for m in modules for end in m.ends}) == len(ends)
    owner = {line.id: line.function for line in lines(tram)}
    for module in modules:
        bodies = {b.function: b for b in module.bodies}
        for end in module.ends:
            body = bodies[owner[end.line]]
            assert abs(end.x - body.x) <= body.width / 2 + BETWEEN / 2
            assert abs(end.y - body.y) <= body.height / 2 + BETWEEN / 2


def test_what_is_right_from_the_front_is_left_from_behind(demo: Demo) -> None:
    tram = Resolved(demo("kestrel-line-9"))
    for module in modules_behind(tram):
        resolved = tram.modules[module.id]
        by_function = {b.function: b for b in module.bodies}
        for placed in resolved.placed:
            body = by_function.get(placed.function.id)
            if body is None:
                continue
            pieces = [placed.frame.shape(s.outline()).drawn().bounds for s in placed.behind]
            assert body.x + body.width / 2 == pytest.approx(module.width - min(p[0] for p in pieces))
            assert body.y + body.height / 2 == pytest.approx(max(p[3] for p in pieces))


def test_every_row_of_the_pin_list_has_its_end_on_a_part_whatever_the_scheme(demo: Demo) -> None:
    schemes = ("direct", "ladder", "binary", "matrix", "shift", "expander", "digits")
    design = demo("kestrel-line-9")
    mixed = [f.model_copy(update={"scheme": schemes[n % len(schemes)]}) for n, f in enumerate(design.functions)]
    r = Resolved(design.model_copy(update={"functions": tuple(mixed)}))
    ends = [end.line for module in modules_behind(r) for end in module.ends]
    assert sorted(ends) == sorted(row.line for row in pin_list(r) if not row.line.startswith("~"))
    assert any(row.via for row in pin_list(r)) and any(line.network for line in lines(r))


@pytest.mark.parametrize(("turn", "along"), [(0, (0, -1)), (90, (-1, 0)), (180, (0, 1)), (270, (1, 0))])
def test_a_line_ends_on_its_terminal_and_turns_with_its_part(turn: int, along: tuple[int, int]) -> None:
    # Terminals of a toggle stand one above the other, 1 on top. Turned left by 90° as seen from the front, 3 is then
    # at the right, which is the left from behind.
    turned = (TurnItems(functions=("f1",), by=turn),)
    (module,) = modules_behind(Resolved(plate(("toggle-small-on-off-on", 50, 60), commands=turned)))
    at = {end.line: end for end in module.ends}
    up, down = at["f1.up"], at["f1.down"]
    common = next(t for t in module.terminals if t.name == "2")
    assert (common.x, common.y) == pytest.approx(((up.x + down.x) / 2, (up.y + down.y) / 2))
    assert (common.x, common.y) == pytest.approx((module.width - 50, 60))
    length = abs(down.x - up.x) + abs(down.y - up.y)
    assert (down.x - up.x, down.y - up.y) == pytest.approx((along[0] * length, along[1] * length))
