"""The file alone is the work: whole after a stop, copied while in use, refused unchanged, and named where damaged."""

from __future__ import annotations

import json
import shutil
import sqlite3
import threading
import time
from pathlib import Path

import pytest
from fastapi.testclient import TestClient
from typer.testing import CliRunner

from building import plate
from wingboard.api.app import create_app
from wingboard.cli import app
from wingboard.core.changes.commands.places import MoveItems
from wingboard.services.desk import Desk
from wingboard.store.database import Database, back_up
from wingboard.store.errors import DamagedDatabase, NewerDatabase, StoreBusy, StoreError, UnreadableRevision

STEP = (MoveItems(functions=("f1",), dx=1),)


def worked(folder: Path, steps: int = 60) -> Desk:
    """A desk with a design and some revisions."""
    desk = Desk(Database(folder / "wingboard.db", busy_seconds=0.5))
    desk.add(plate(("button-22", 60, 60)), "Start", ident="small")
    for head in range(1, steps + 1):
        desk.command("small", head, STEP)
    return desk


def x_of(desk: Desk) -> float:
    """Where the one part stands."""
    place = desk.open("small").design.functions[0].place
    assert place is not None
    return place.x


def test_after_a_stop_the_main_file_alone_holds_everything(tmp_path: Path) -> None:
    desk = worked(tmp_path)
    threads = [threading.Thread(target=desk.open, args=("small", n)) for n in range(1, 5)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    desk.database.close()
    assert [f.name for f in tmp_path.iterdir()] == ["wingboard.db"]
    (tmp_path / "copy").mkdir()
    shutil.copy(tmp_path / "wingboard.db", tmp_path / "copy" / "wingboard.db")
    copy = Desk(Database(tmp_path / "copy" / "wingboard.db"))
    assert x_of(copy) == 120
    copy.database.close()


def test_while_in_use_little_waits_in_the_log_and_a_backup_is_whole(tmp_path: Path) -> None:
    desk = worked(tmp_path, 300)
    assert (tmp_path / "wingboard.db-wal").stat().st_size < 1_000_000
    result = CliRunner().invoke(app, ["backup", str(tmp_path / "kept.db"), "--data", str(tmp_path)])
    assert result.exit_code == 0, result.output
    again = CliRunner().invoke(app, ["backup", str(tmp_path / "kept.db"), "--data", str(tmp_path)])
    assert (again.exit_code, "there already" in again.output) == (2, True)
    assert CliRunner().invoke(app, ["backup", "x.db", "--data", str(tmp_path / "no")]).exit_code == 2
    copy = Desk(Database(tmp_path / "kept.db"))
    assert x_of(copy) == x_of(desk) == 360
    with pytest.raises(StoreError):
        back_up(tmp_path / "wingboard.db", tmp_path / "no-folder" / "x.db")
    copy.database.close()
    desk.database.close()


def test_a_newer_or_damaged_file_is_refused_with_its_bytes_unchanged(tmp_path: Path) -> None:
    desk = worked(tmp_path)
    file = tmp_path / "wingboard.db"
    with desk.database.transaction() as connection:
        connection.execute("INSERT INTO migration VALUES (99, 'future', 'x')")
    desk.database.close()
    before = file.read_bytes()
    with pytest.raises(NewerDatabase):
        Database(file)
    assert file.read_bytes() == before
    damaged = bytearray(before)
    damaged[8192:12288] = b"\x5a" * 4096
    file.write_bytes(damaged)
    with pytest.raises((DamagedDatabase, StoreError)):
        Database(file)
    assert file.read_bytes() == damaged


def spoiled(desk: Desk, number: int, column: str, text: str) -> None:
    """Write nonsense into a revision, past the triggers that forbid it."""
    with desk.database.transaction() as connection:
        connection.execute("DROP TRIGGER revision_is_never_changed")
        connection.execute(f"UPDATE revision SET {column} = ? WHERE number = ?", (text, number))  # noqa: S608


@pytest.mark.parametrize(
    ("number", "column", "text", "good"),
    [
        (55, "patch", "[{", 54),
        (55, "patch", '[{"op": "replace", "path": "/functions/9/name", "value": "x"}]', 54),
        (60, "patch", '[{"op": "replace", "path": "/modules", "value": 5}]', 59),
        (50, "snapshot", "{}", 49),
        (1, "snapshot", "null", None),
    ],
    ids=["no JSON", "a path that is not there", "no design", "a snapshot that is empty", "nothing at all"],
)
def test_a_damaged_revision_is_named_and_the_last_good_one_goes_on(
    tmp_path: Path, number: int, column: str, text: str, good: int | None
) -> None:
    desk = worked(tmp_path, 60 if number > 1 else 20)
    head = desk.head("small")
    spoiled(desk, number, column, text)
    damaged = Desk(desk.database)
    with pytest.raises(UnreadableRevision, match=f"revision {number} is damaged"):
        damaged.open("small")
    client = TestClient(create_app(damaged), base_url="http://127.0.0.1:8765")
    answer = client.get("/api/designs/small")
    assert (answer.status_code, answer.json()["type"]) == (409, "urn:wingboard:unreadable-revision")
    assert client.get("/api/designs/small/recovery").json() == {"head": head, "last_good": good}
    assert len(client.get("/api/designs/small/raw").json()["revisions"]) == head
    assert [d["id"] for d in client.get("/api/designs").json()] == ["small"]
    recovered = client.post("/api/designs/small/recover")
    if good is None:
        assert recovered.status_code == 409
    else:
        assert (recovered.status_code, recovered.json()["revision"]) == (200, head + 1)
        assert x_of(Desk(desk.database)) == 60 + good - 1
    desk.database.close()


def test_a_damaged_thing_of_the_shelf_is_named_and_the_rest_is_there(client: TestClient, desk: Desk) -> None:
    ident = desk.add(plate(), "Start").design_id
    add = {"do": "add_machine", "name": "Laser", "kind": "laser", "bed_width": 300, "bed_height": 200}
    client.post(f"/api/designs/{ident}/commands", json={"base": 1, "commands": [add, add]})
    with desk.database.transaction() as connection:
        connection.execute("UPDATE shelf SET document = '{\"id\": 5}' WHERE id = 'laser-1'")
    shelf = client.get("/api/shelf").json()
    assert [m["id"] for m in shelf["machines"]] == ["laser-2"]
    assert [(d["kind"], d["id"]) for d in shelf["damaged"]] == [("machine", "laser-1")]
    assert client.delete("/api/shelf/machine/laser-1").json()["damaged"] == []


def test_readers_do_not_wait_for_a_writer_that_waits(tmp_path: Path) -> None:
    desk = worked(tmp_path, 3)
    other = sqlite3.connect(tmp_path / "wingboard.db", isolation_level=None)
    other.execute("BEGIN IMMEDIATE")
    waiting: list[Exception] = []

    def write() -> None:
        try:
            desk.command("small", 4, STEP)
        except StoreBusy as error:
            waiting.append(error)

    writer = threading.Thread(target=write)
    writer.start()
    reads = 0
    while writer.is_alive():
        assert x_of(desk) == 63
        assert desk.open("small", 2).row.number == 2
        reads += 1
        time.sleep(0.01)
    writer.join()
    other.execute("ROLLBACK")
    assert waiting
    assert reads > 5
    desk.database.close()


def test_what_fails_unexpectedly_is_a_problem_and_a_line_in_the_log(
    desk: Desk, monkeypatch: pytest.MonkeyPatch, caplog: pytest.LogCaptureFixture
) -> None:
    desk.add(plate(("button-22", 60, 60)), "Start", ident="small")

    def broken(*_: object) -> None:
        raise ZeroDivisionError("nobody foresaw this")

    monkeypatch.setattr("wingboard.api.routers.designs.changed_view", broken)
    client = TestClient(create_app(desk), base_url="http://127.0.0.1:8765", raise_server_exceptions=False)
    body = {"base": 1, "commands": [{"do": "move", "functions": ["f1"], "dx": 1}]}
    answer = client.post("/api/designs/small/commands", json=body)
    assert (answer.status_code, answer.headers["content-type"]) == (500, "application/problem+json")
    assert "nobody foresaw this" in caplog.text
    # The answer is worked out before the change is kept: what could not be answered is not there.
    assert json.loads(client.get("/api/designs/small").text)["revision"] == 1
