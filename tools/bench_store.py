"""How fast the application starts, opens, undoes and writes archives, with much on the desk."""

from __future__ import annotations

import statistics
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable
from pathlib import Path

import httpx2
from browser import desk_in_passing, served

from wingboard.core.changes.commands.places import MoveItems
from wingboard.core.overview.review import review
from wingboard.core.resolved.design import Resolved
from wingboard.services.archive import archive_of
from wingboard.services.desk import Desk
from wingboard.services.workers import warm_up
from wingboard.store.database import Database
from wingboard.testing import generated_design

Row = tuple[str, str, str]


def started(folder: Path) -> float:
    """Seconds from starting the program until it answers."""
    command = [sys.executable, "-P", "-m", "wingboard", "serve", "--data", str(folder), "--port", "0"]
    with httpx2.Client(trust_env=False) as client:  # made before: it takes as long as many an answer
        begin = time.perf_counter()
        process = subprocess.Popen(command, stdout=subprocess.PIPE, stderr=subprocess.DEVNULL, text=True)
        assert process.stdout is not None
        address = next(line.split()[1] for line in process.stdout if line.startswith("Open "))
        while True:
            try:
                client.get(f"{address}/api/designs").raise_for_status()
                break
            except httpx2.TransportError:
                time.sleep(0.005)
        took = time.perf_counter() - begin
    process.terminate()
    process.wait()
    return took


def start_rows() -> list[Row]:
    """Start with nothing, and with 50 designs of 400 parts and 2,600 revisions."""
    with tempfile.TemporaryDirectory() as folder:
        started(Path(folder) / "warm")
        bare = statistics.median(started(Path(folder) / f"empty-{n}") for n in range(5))
        full = Path(folder) / "full"
        full.mkdir()
        desk = Desk(Database(full / "wingboard.db"))
        design = generated_design(400)
        step = (MoveItems(functions=("f7",), dx=0.1),)
        for _ in range(50):
            ident = desk.add(design, "bench").design_id
            for head in range(1, 52):
                desk.command(ident, head, step, prepare=lambda kept: None)
        desk.database.close()
        loaded = statistics.median(started(full) for _ in range(3))
    return [
        ("start with nothing", f"{bare:.2f} s", "under 1.5 s"),
        ("start with 50 designs of 400 parts, 2,600 revisions", f"{loaded:.2f} s", "under 3 s"),
    ]


def open_row() -> Row:
    """A cold design of 400 parts with 240 revisions, over HTTP."""
    with desk_in_passing() as desk:
        ident = desk.add(generated_design(400), "bench").design_id
        for head in range(1, 241):
            desk.command(ident, head, (MoveItems(functions=("f7",), dx=0.1),), prepare=lambda kept: None)
        times = []
        for _ in range(3):
            with served(Desk(desk.database)) as address, httpx2.Client(base_url=address, timeout=30) as client:
                client.get("/api/designs")
                begin = time.perf_counter()
                client.get(f"/api/designs/{ident}").raise_for_status()
                times.append(time.perf_counter() - begin)
    return "a cold design of 400 parts, 240 revisions", f"{statistics.median(times):.2f} s", "under 0.5 s"


def undo_row(median_ms: Callable[[Callable[[int], object]], float]) -> Row:
    """Undo and redo over HTTP at 400 parts."""
    with desk_in_passing() as desk, served(desk) as address, httpx2.Client(base_url=address) as client:
        ident = desk.add(generated_design(400), "bench").design_id
        for made in range(1, 31):
            desk.command(ident, made, (MoveItems(functions=("f7",), dx=0.1),))
        head = [31]

        def work(n: int) -> None:
            way = "undo" if n % 2 == 0 else "redo"
            answer = client.post(f"/api/designs/{ident}/{way}", json={"base": head[0]})
            assert answer.status_code == 200, answer.text
            head[0] = answer.json()["revision"]

        return "undo and redo over HTTP, 400 parts", f"{median_ms(work):.0f} ms median", "under 120 ms"


def archive_row() -> Row:
    """The archive of 400 parts: every file, compressed, from workers that wait for it as in the application."""
    design = generated_design(400)
    findings = review(Resolved(design))
    warm_up()
    begin = time.perf_counter()
    content = archive_of(design, findings)
    took = time.perf_counter() - begin
    return "archive of 400 parts", f"{took:.1f} s, {len(content) / 1e6:.1f} MB", "under 10 s, 15 MB"
