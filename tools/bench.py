"""Measures speed against the targets of the architecture and prints them as a table."""

from __future__ import annotations

import gzip
import math
import random
import statistics
import sys
import threading
import time
from collections.abc import Callable

import httpx2
import numpy as np
import shapely
from bench_store import Row, archive_row, open_row, start_rows, undo_row
from browser import desk_in_passing, drag_frames, served
from rectpack import newPacker

from wingboard.api.app import STATIC
from wingboard.core.changes.apply import apply
from wingboard.core.changes.commands.places import MoveItems, PlacePart
from wingboard.core.cut.nest import Blank, Box, Want, nested
from wingboard.core.cut.plan import planned
from wingboard.core.cut.sheets import layout
from wingboard.core.cut.travel import length_of, short_way
from wingboard.core.light.mapping import Shares, map_of
from wingboard.core.light.scene import scene_of
from wingboard.core.overview.memory import Memory
from wingboard.core.overview.review import review
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.design import Design
from wingboard.core.record.document import read_design
from wingboard.core.record.wiring import Controller
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.lines import lines
from wingboard.core.wire.pins.solve import solve
from wingboard.demo import demo_texts
from wingboard.devices.byhand import simulated
from wingboard.services.archive import archive_of
from wingboard.services.steady import steady_memory
from wingboard.services.workers import warm_up
from wingboard.testing import generated_design, routed


def median_ms(work: Callable[[int], object], rounds: int = 15) -> float:
    """The median time (ms) of one round, the first two left out."""
    times = []
    for n in range(rounds + 2):
        start = time.perf_counter()
        work(n)
        times.append((time.perf_counter() - start) * 1000)
    return statistics.median(times[2:])


def moved(design: Design, n: int) -> Design:
    """The design with one part a little further, so that nothing is remembered."""
    return apply(design, (MoveItems(functions=("f7",), dx=0.1 * (1 + n % 2)),), catalogue())


def review_rows(design: Design) -> list[Row]:
    """Resolve and review 400 parts after a move, from nothing, and beside bare GEOS queries on the same shapes."""
    memory = Memory()
    after_move = median_ms(lambda n: review(Resolved(moved(design, n)), memory))
    bare = median_ms(lambda n: bare_queries(Resolved(moved(design, n))))
    unseen = [generated_design(400, name=f"never seen before, {n}") for n in range(5)]
    nothing = median_ms(lambda n: review(Resolved(unseen[n])), rounds=3)
    return [
        ("review after one move, 400 parts", f"{after_move:.0f} ms median", "under 60 ms"),
        ("… against bare GEOS queries", f"{after_move / bare:.1f} × {bare:.0f} ms", "under 3 ×"),
        ("review from nothing, 400 parts", f"{nothing:.0f} ms median", "under 400 ms"),
    ]


def bare_queries(r: Resolved) -> None:
    """What any program would have to ask of GEOS: which of these shapes are near which, and how near."""
    for module in r.modules.values():
        sets = [module.openings(layer.id) for layer in module.plates]
        for shapes in (*sets, r.panel.bodies.shapes, r.panel.envelopes("hand"), r.panel.envelopes("cover")):
            tree = shapely.STRtree(np.asarray(shapely.box(*(shapes.bounds + (-3.0, -3.0, 3.0, 3.0)).T), dtype=object))
            a, b = tree.query(shapely.box(*shapes.bounds.T))
            shapely.distance(shapes.cores[a[a < b]], shapes.cores[b[a < b]])
            shapely.covers(module.area, shapes.cores)


def hand_row(design: Design) -> Row:
    """What follows a stop of the hand during a drag: the move tried, the Face judged, nothing kept."""
    with desk_in_passing() as desk, served(desk) as address, httpx2.Client(base_url=address) as client:
        ident = desk.add(design, "bench").design_id

        def work(n: int) -> None:
            move = {"do": "move", "functions": ["f7"], "dx": 0.1 * (1 + n)}
            body = {"base": 1, "lead": "f7", "commands": [move]}
            answer = client.post(f"/api/designs/{ident}/face/clashes", json=body)
            assert answer.status_code == 200, answer.text

        return "findings after a stop of the hand, 400 parts", f"{median_ms(work):.0f} ms median", "under 100 ms"


def http_row(design: Design) -> Row:
    """One command over HTTP, kept on disk, findings included."""
    with desk_in_passing() as desk, served(desk) as address, httpx2.Client(base_url=address) as client:
        ident = desk.add(design, "bench").design_id

        def work(n: int) -> None:
            body = {"base": n + 1, "commands": [{"do": "move", "functions": ["f7"], "dx": 0.1 if n % 2 else -0.1}]}
            answer = client.post(f"/api/designs/{ident}/commands", json=body)
            assert answer.status_code == 200, answer.text

        return "one command over HTTP, 400 parts", f"{median_ms(work):.0f} ms median", "under 90 ms"


def pins_rows() -> list[Row]:
    """Solving the demo with everything of its tray placed, and 500 lines on 8 controllers."""
    demo = read_design(demo_texts()["kestrel-line-9"], catalogue())
    waiting = [f for f in demo.functions if f.place is None]
    batch = [
        PlacePart(function=f.id, module=("centre", "right")[n % 2], x=20.0 + n, y=20) for n, f in enumerate(waiting)
    ]
    whole = Resolved(apply(demo, batch, catalogue()))
    start = time.perf_counter()
    found = solve(whole, keep=False)
    took = time.perf_counter() - start
    verdict = "proven optimal" if found.optimal else "not proven"
    text = f"{took:.2f} s, {verdict}, {len(found.unfit)} left out"
    rows = [(f"pins of the demo, {len(lines(whole))} lines, 3 boards", text, "under 1 s, optimal")]
    boards = tuple(Controller(id=f"atmega2560-{n}", name=f"ATmega2560 {n}", board="atmega2560") for n in range(1, 9))
    large = Resolved(generated_design(330, modules=6).model_copy(update={"controllers": boards}))
    start = time.perf_counter()
    found = solve(large, keep=False, seconds=10)
    took = time.perf_counter() - start
    over = (found.cost - found.bound) / max(found.bound, 1) * 100
    text = f"{took:.1f} s, {over:.1f} % over the bound, {len(found.unfit)} left out"
    return [*rows, (f"pins of {len(lines(large))} lines on 8 boards", text, "within 5 % in 10 s")]


def export_row() -> Row:
    """Every file of the demo in its archive, from workers that wait for it as in the application; nothing is kept."""
    design = read_design(demo_texts()["kestrel-line-9"], catalogue())
    findings = review(Resolved(design))
    warm_up()

    def work(_: int) -> None:
        archive_of(design, findings)

    return "every file of the demo", f"{median_ms(work, 3) / 1000:.2f} s", "under 3 s"


def boards_row() -> Row:
    """Both large boards of the demo on simulated chips side by side, each with its program, asked for everything."""
    r = Resolved(read_design(demo_texts()["kestrel-line-9"], catalogue()))
    paces: list[float] = []

    def run(letter: str) -> None:
        with simulated(r, letter, 1) as there:
            start = time.perf_counter()
            while there.chip.now < 4.0:
                there.chip.hear("get\n")
                there.chip.run(0.5)
                there.chip.said()
            paces.append(there.chip.now / (time.perf_counter() - start))

    both = [threading.Thread(target=run, args=(letter,)) for letter in ("A", "B")]
    for one in both:
        one.start()
    for one in both:
        one.join()
    return "both boards of the demo, simulated", f"{min(paces):.1f} × real time", "keep up with real time"


def travel_rows() -> list[Row]:
    """Travel of the demo's sheets against a routing solver's, and blanks against another packer's."""
    r = Resolved(read_design(demo_texts()["kestrel-line-9"], catalogue()))
    ours = theirs = 0.0
    for sheet in layout(r).sheets:
        for op in planned(r, sheet):
            if op.kind in ("inner", "drill"):
                places = [(cut.x, cut.y) for cut in op.cuts]
                ours += length_of(places, short_way(places, (0, 0)), (0, 0))
                theirs += routed(places)
    dice = random.Random(3)
    wants = [Want(str(n), dice.randint(20, 200), dice.randint(20, 200)) for n in range(60)]
    sheets, _ = nested(wants, [Blank("", Box(0, 0, 400, 300))], 3)
    packer = newPacker(rotation=True)
    for want in wants:
        packer.add_rect(want.width + 3, want.height + 3)
    packer.add_bin(403, 303, count=math.inf)
    packer.pack()
    return [
        ("travel without cutting", f"{ours / theirs:.2f} × a routing solver's", "at most 1.15"),
        ("blanks for 60 pieces", f"{len(sheets)}, rectpack {len(packer)}", "no more"),
    ]


def light_rows() -> list[Row]:
    """The light map of a demo module at its usual resolution, and again with one lamp moved."""
    module = Resolved(read_design(demo_texts()["kestrel-line-9"], catalogue())).modules["left"]
    light = module.module.light
    assert light is not None

    def lit(n: int, shares: Shares) -> None:
        led = light.leds[0].model_copy(update={"x": light.leds[0].x + 0.1 * n})
        map_of(scene_of(module, light.model_copy(update={"leds": (led, *light.leds[1:])})), shares=shares)

    kept = Shares()
    lamps = sum(len(group.lamps) for group in scene_of(module, light).groups)
    whole = median_ms(lambda n: lit(n, Shares()), 3)
    moved = median_ms(lambda n: lit(n, kept), 5)
    return [
        (f"light map of a demo module, {lamps} lamps", f"{whole / 1000:.2f} s", "under 2 s"),
        ("… with one lamp moved", f"{moved:.0f} ms median", "under 300 ms"),
    ]


def page_row() -> Row:
    """The script loaded before a station is opened."""
    size = sum(len(gzip.compress(f.read_bytes())) for f in STATIC.glob("assets/index-*.js"))
    return "script before a station is opened", f"{size / 1000:.0f} kB gzipped", "under 250 kB"


def drag_row() -> Row:
    """Dragging one part with 400 on the panel, in Chromium."""
    frames, work = drag_frames(generated_design(400))
    return (
        "drag of one part with 400",
        f"{frames:.0f} frames/s, {work:.1f} ms a frame",
        "55 frames/s, under 8 ms",
    )


def machine_pace() -> float:
    """Milliseconds of a plain loop just now: a shared machine can be half as fast an hour, or a minute, later."""
    times = []
    for _ in range(5):
        begin = time.perf_counter()
        sum(n * n for n in range(1_000_000))
        times.append(time.perf_counter() - begin)
    return min(times) * 1000


def machine_row(paces: list[float]) -> Row:
    """How fast the machine was meanwhile, so that tables of different hours and machines can be compared."""
    said = ", ".join(f"{pace:.0f}" for pace in paces)
    return "this machine: a plain loop, now and then", f"{said} ms", "to compare by"


def main() -> int:
    """Print the table, measured as the server runs."""
    steady_memory()
    design = generated_design(400)
    paces = [machine_pace()]
    rows = [*review_rows(design), http_row(design), hand_row(design), undo_row(median_ms), open_row()]
    paces.append(machine_pace())
    rows += start_rows()
    paces.append(machine_pace())
    rows += [archive_row(), export_row(), *light_rows(), *pins_rows(), *travel_rows(), boards_row(), page_row()]
    if "--no-browser" not in sys.argv:
        rows.append(drag_row())
    rows.insert(0, machine_row([*paces, machine_pace()]))
    widths = [max(len(row[k]) for row in [*rows, ("what", "measured", "target")]) for k in range(3)]
    for row in [("what", "measured", "target"), *rows]:
        print("  ".join(cell.ljust(width) for cell, width in zip(row, widths, strict=True)))
    return 0


if __name__ == "__main__":
    sys.exit(main())
