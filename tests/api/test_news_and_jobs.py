"""News reaches every page, jobs go on, stop and are remembered, and the guard stands round every connection."""

from __future__ import annotations

import asyncio
import io
import socket
import threading
import time
import zipfile
from collections.abc import Callable
from contextlib import suppress
from typing import Any
from urllib.parse import urlsplit

import pytest
from browser import served
from fastapi.testclient import TestClient
from starlette.types import Message, Receive, Scope, Send
from starlette.websockets import WebSocketDisconnect

from building import plate
from tasks import endless, greedy, misread, refusing, steps
from wingboard.api.connections import Patient
from wingboard.api.guard import Guard
from wingboard.api.routers.events import events
from wingboard.core.changes.commands.places import MoveItems
from wingboard.core.cut.export import cut_files
from wingboard.core.record.errors import DesignError, NotPossible, UnknownThing
from wingboard.core.wire.export import wire_files
from wingboard.services.archive import archive_of
from wingboard.services.desk import Desk
from wingboard.services.jobs import MOST, Job, Jobs
from wingboard.services.news import WAITING, Judged, News, Progressed, Revised
from wingboard.services.workers import Stopped, TooHeavy, Unreadable, follow, run_apart


def test_an_archive_that_one_of_its_makers_gives_up_says_why_and_one_that_is_stopped_ends(
    monkeypatch: pytest.MonkeyPatch,
) -> None:
    design = plate(("button-22", 60, 60))
    with pytest.raises(Stopped):
        archive_of(design, stopped=lambda: True)
    tell = archive_of.__globals__["follow"]

    def one_fails(task: object, *arguments: object, **how: object) -> object:
        if arguments[1] == "sheets":
            raise TooHeavy("too heavy")
        return tell(task, *arguments, **how)

    monkeypatch.setitem(archive_of.__globals__, "follow", one_fails)
    with pytest.raises(TooHeavy):
        archive_of(design)


async def heard(news: News, tell: Callable[[], object], many: int) -> list[Revised | Judged | Progressed | None]:
    """What a listener hears of what is told meanwhile by another thread."""
    listener = news.listen()
    await asyncio.get_running_loop().run_in_executor(None, tell)
    found = [await asyncio.wait_for(listener.next(), 5) for _ in range(many)]
    news.leave(listener)
    return found


def test_a_kept_revision_is_told_to_everybody_and_one_that_changes_nothing_is_not(desk: Desk) -> None:
    ident = desk.add(plate(("button-22", 60, 60)), "Start").design_id

    def change() -> None:
        desk.command(ident, 1, (MoveItems(functions=("f1",), dx=0),))
        desk.command(ident, 1, (MoveItems(functions=("f1",), dx=1),))
        desk.undo(ident, 2)

    first, second = asyncio.run(heard(desk.news, change, 2))
    assert isinstance(first, Revised)
    assert isinstance(second, Revised)
    assert (first.design, first.revision, first.label) == (ident, 2, "Move F1")
    assert (second.revision, second.label) == (3, "Undo")


def test_a_page_that_does_not_listen_is_sent_away_and_nobody_waits_for_it() -> None:
    news = News()
    event = Revised(design="x", revision=1, label="")

    def much() -> None:
        for _ in range(3 * WAITING):
            news.tell(event)

    assert asyncio.run(heard(news, much, WAITING))[-1] is None


def until(job: Job, *states: str) -> None:
    """Wait for a state of a job."""
    deadline = time.monotonic() + 20
    while job.state not in states and time.monotonic() < deadline:
        time.sleep(0.005)
    assert job.state in states, (job.state, job.words)


def test_a_job_is_followed_stopped_and_its_failures_are_words() -> None:
    jobs, gate = Jobs(News()), threading.Event()

    def patient(job: Job) -> str:
        job.report(0.5, "half")
        gate.wait(10)
        if job.stopped():
            raise Stopped
        return "the result"

    def refused(job: Job) -> None:
        raise NotPossible("Not like this")

    def broken(job: Job) -> None:
        raise ZeroDivisionError

    first, second = jobs.start("a", None, patient), jobs.start("b", None, patient)
    third = jobs.start("c", None, patient)
    until(first, "running")
    assert third.state == "waiting"
    third.stop()
    second.stop()
    gate.set()
    until(first, "done")
    until(second, "stopped")
    until(third, "stopped")
    assert (first.result, first.done, jobs.find(first.id)) == ("the result", 1.0, first)
    for work, words in ((refused, "Not like this"), (broken, "the log says why")):
        failed = jobs.start("d", None, work)
        until(failed, "failed")
        assert words in failed.words
    gate.clear()
    waiting = [jobs.start("e", None, patient) for _ in range(MOST)]
    with pytest.raises(NotPossible):
        jobs.start("e", None, patient)
    for job in waiting:
        job.stop()
    gate.set()
    with pytest.raises(UnknownThing):
        jobs.find("j-nothing")
    jobs.close()


def test_pins_are_solved_and_archives_made_as_jobs(client: TestClient, desk: Desk) -> None:
    ident = desk.add(plate(("rotary-12", 60, 60), ("button-16-lit", 120, 60)), "Start", ident="small").design_id
    made = client.post(f"/api/designs/{ident}/cut/archive").json()
    early = client.get(f"/api/designs/{ident}/cut/archive/{made['id']}")
    assert early.status_code in (200, 409)
    while (job := client.get(f"/api/jobs/{made['id']}").json())["state"] in ("waiting", "running"):
        time.sleep(0.02)
    assert (job["state"], job["done"], job["design"]) == ("done", 1.0, ident)
    archive = client.get(f"/api/designs/{ident}/cut/archive/{made['id']}")
    with zipfile.ZipFile(io.BytesIO(archive.content)) as zipped:  # made by two side by side: all there, each once
        r = desk.open(ident).resolved
        files = {f.name: f.content for f in cut_files(r, desk.open(ident).judged())} | wire_files(r)
        assert sorted(zipped.namelist()) == sorted(files)
        assert all(zipped.read(name) == content for name, content in files.items())
    assert client.get(f"/api/designs/other/cut/archive/{made['id']}").status_code == 409
    assert client.post("/api/jobs/j-000000000000/stop").status_code == 404
    desk.command(ident, 1, (MoveItems(functions=("f1",), dx=1),))
    stale = client.post(f"/api/designs/{ident}/wire/solve", json={"base": 1}).json()
    while (job := client.get(f"/api/jobs/{stale['id']}").json())["state"] in ("waiting", "running"):
        time.sleep(0.02)
    assert desk.head(ident) == 2  # what was solved for an old revision changes nothing, or is refused in words
    assert job["state"] == "done" or "newest is 2" in job["words"]


def test_the_stream_begins_at_once_and_tells_what_is_kept(desk: Desk) -> None:
    ident = desk.add(plate(("button-22", 60, 60)), "Start").design_id

    async def first_two() -> list[Any]:
        response = await events(desk)
        body: Any = response.body_iterator
        hello = await anext(body)
        desk.command(ident, 1, (MoveItems(functions=("f1",), dx=1),))
        return [hello, await anext(body)]

    hello, revised = asyncio.run(first_two())
    assert hello.event == "hello"
    assert (revised.event, '"revision":2' in revised.data) == ("revised", True)


async def _answers(scope: Scope, receive: Receive, send: Send) -> None:
    """An application that reads all it is sent and says so."""
    if scope["type"] == "websocket":
        await receive()
        await send({"type": "websocket.accept"})
        await send({"type": "websocket.close"})
        return
    while (await receive()).get("more_body"):
        pass
    await send({"type": "http.response.start", "status": 200, "headers": []})
    await send({"type": "http.response.body", "body": b"read"})


@pytest.mark.parametrize(
    ("headers", "let_in"),
    [
        ({"host": "127.0.0.1:8765"}, True),
        ({"host": "127.0.0.1:8765", "origin": "http://127.0.0.1:8765"}, True),
        ({"host": "127.0.0.1:8765", "origin": "http://other"}, False),
        ({"host": "other"}, False),
    ],
    ids=["this host", "this page", "another page", "another host"],
)
def test_websockets_are_guarded_like_everything_else(headers: dict[str, str], let_in: bool) -> None:
    client = TestClient(Guard(_answers), base_url="http://127.0.0.1:8765")
    if let_in:
        with client.websocket_connect("/", headers=headers):
            pass
        return
    with pytest.raises(WebSocketDisconnect) as refused, client.websocket_connect("/", headers=headers):
        pass
    assert refused.value.code == 1008


def test_a_connection_of_an_unknown_kind_is_refused() -> None:
    async def nothing() -> Message:
        return {}

    async def nowhere(message: Message) -> None:
        raise AssertionError(message)

    with pytest.raises(RuntimeError, match="telepathy"):
        asyncio.run(Guard(_answers)({"type": "telepathy"}, nothing, nowhere))


@pytest.mark.parametrize(
    ("pieces", "status"),
    [([b"x"], 200), ([b"x" * 60, b"x" * 60], 413), ([b"x", None], 408)],
    ids=["whole", "too much in pieces", "stalled"],
)
def test_a_body_is_read_whole_or_the_connection_is_answered(pieces: list[bytes | None], status: int) -> None:
    sent: list[Message] = []
    waiting = list(pieces)

    async def receive() -> Message:
        piece = waiting.pop(0)
        if piece is None:
            await asyncio.sleep(60)
        return {"type": "http.request", "body": piece, "more_body": bool(waiting)}

    async def send(message: Message) -> None:
        sent.append(message)

    scope = {"type": "http", "method": "POST", "path": "/api/x", "headers": [(b"host", b"localhost")]}
    asyncio.run(Guard(_answers, largest=100, patience=0.05)(scope, receive, send))
    assert [m["status"] for m in sent if m["type"] == "http.response.start"] == [status]
    assert b"nosniff" in dict(sent[0]["headers"]).values()


HEAD = b"GET /api/designs HTTP/1.1\r\nHost: localhost\r\n"


@pytest.mark.parametrize(
    ("request_", "closed"),
    [
        (b"", True),
        (HEAD, True),
        (HEAD + b"\r\n" + HEAD, True),
        (HEAD.replace(b"designs", b"events") + b"\r\n", False),
    ],
    ids=["says nothing", "half a head", "half a second head", "listens to news"],
)
def test_a_connection_that_asks_for_nothing_is_closed(
    desk: Desk, monkeypatch: pytest.MonkeyPatch, request_: bytes, closed: bool
) -> None:
    monkeypatch.setattr(Patient, "patience", 0.5)
    with served(desk) as address, socket.create_connection(("127.0.0.1", urlsplit(address).port or 0)) as line:
        line.sendall(request_)
        line.settimeout(2)
        ended = False
        with suppress(TimeoutError):
            while line.recv(4096):
                pass
            ended = True
        assert ended is closed


def test_work_apart_is_bounded_in_time_and_memory_and_fails_in_words() -> None:
    assert run_apart(greedy, 20) == 20 * 1024 * 1024
    with pytest.raises(TooHeavy, match="MB of memory"):
        run_apart(greedy, 1500, megabytes=200)
    with pytest.raises(TooHeavy, match="longer than"):
        run_apart(endless, seconds=0.3)
    with pytest.raises(Unreadable, match="what"):
        run_apart(misread)
    with pytest.raises(DesignError) as refused:
        run_apart(refusing)
    assert (type(refused.value), refused.value.path) == (NotPossible, "there")
    told: list[tuple[float, str]] = []
    with pytest.raises(Stopped):
        follow(
            steps,
            seconds=30,
            megabytes=200,
            report=lambda done, words: told.append((done, words)),
            stopped=lambda: bool(told),
        )
    assert told == [(0.25, "a quarter")]
