"""Whatever batch is accepted can be shown, reopened, judged, undone, drawn, exported and replayed."""

from __future__ import annotations

import tempfile
from collections.abc import Sequence
from contextlib import closing
from pathlib import Path
from typing import Any

from fastapi.testclient import TestClient
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from arbitrary import command
from building import plate, replay
from wingboard.api.app import create_app
from wingboard.core.changes.command import COMMANDS
from wingboard.core.cut.scenes import module_scenes
from wingboard.core.files.svg import write_svg
from wingboard.core.record.design import Design
from wingboard.core.resolved.design import Resolved
from wingboard.services.desk import Desk
from wingboard.store.database import Database

BASE = plate(
    ("toggle-large-on-off", 40, 40),
    ("button-22", 100, 60),
    ("rotary-12", 150, 60),
    ("readout-4-digits", 60, 90),
    commands=tuple(
        COMMANDS.validate_python(raw)
        for raw in (
            {"do": "add_machine", "name": "Laser", "kind": "laser", "bed_width": 300, "bed_height": 200},
            {"do": "add_stock", "material": "acrylic", "thickness": 3, "width": 600, "height": 400},
            {"do": "add_keepout", "name": "bar", "x": 0, "y": 50, "width": 201, "height": 8, "clear": 40},
            {"do": "add_graphic", "kind": "bracket", "module": "plate", "functions": ["f1", "f2"], "text": "BOTH"},
            {"do": "add_procedure", "name": "Shut down", "steps": ["f1", "f2"]},
            {"do": "add_reference", "module": "plate", "picture": "0" * 64, "width": 100, "height": 80},
            {"do": "add_controller", "board": "atmega328p"},
            {"do": "copy_part", "part": "rotary-12", "name": "Mine"},
        )
    ),
)
READ = (
    "",
    "/export",
    "/brief",
    "/brief/list.csv",
    "/parts",
    "/parts/candidates/f1",
    "/cut",
    "/cut/job-sheet.txt",
    "/wire",
)


def shown_everywhere(client: TestClient, ident: str) -> dict[str, Any]:
    """Ask every view of a design; what the main one says."""
    whole: dict[str, Any] = {}
    for path in READ:
        answer = client.get(f"/api/designs/{ident}{path}")
        assert answer.status_code == 200 or (path.endswith("f1") and answer.status_code == 404), (path, answer.text)
        whole = whole or answer.json()
    for module in whole["modules"]:
        assert client.get(f"/api/designs/{ident}/face/views/{module['id']}").status_code == 200
    return whole


def drawn(design: Design) -> None:
    """Write every sheet of every module."""
    r = Resolved(design)
    for module in r.modules.values():
        for scene in module_scenes(r, module).values():
            assert write_svg(scene).startswith(b"<?xml")


@settings(max_examples=45, suppress_health_check=[HealthCheck.too_slow, HealthCheck.data_too_large])
@given(st.lists(st.lists(command(), min_size=1, max_size=3), min_size=1, max_size=4))
def test_whatever_is_accepted_can_be_lived_with(batches: Sequence[Sequence[dict[str, Any]]]) -> None:
    with tempfile.TemporaryDirectory() as folder, closing(Database(Path(folder) / "w.db")) as database:
        desk = Desk(database)
        client = TestClient(create_app(desk), base_url="http://127.0.0.1:8765")
        ident = desk.add(BASE, "Start").design_id
        head, kept = 1, []
        for batch in batches:
            answer = client.post(f"/api/designs/{ident}/commands", json={"base": head, "commands": batch})
            assert answer.status_code in (200, 404, 409, 422), answer.text
            if answer.status_code == 200 and answer.json()["revision"] > head:
                head = answer.json()["revision"]
                kept.append(head)
        whole = shown_everywhere(client, ident)
        assert not [f for f in whole["findings"] if f["id"].endswith(":not-judged")], batches
        fresh = Desk(database).open(ident).design
        assert fresh.model_dump_json() == desk.open(ident).design.model_dump_json()
        for number, design in replay(desk, ident):
            assert design.model_dump_json() == desk.open(ident, number).design.model_dump_json()
        drawn(fresh)
        for _ in kept:
            head = client.post(f"/api/designs/{ident}/undo", json={"base": head}).json()["revision"]
        assert Desk(database).open(ident).design.model_dump_json() == BASE.model_dump_json()
