"""What keeps answers quick, each seen once: a socket that does not wait, a collector that stays out of the way."""

from __future__ import annotations

import gc
import re
import socket
from collections.abc import Iterator

import pytest
from fastapi.testclient import TestClient

from wingboard.cli import _listener
from wingboard.core.brief.packs import expectations
from wingboard.services.steady import YOUNG, steady_memory


@pytest.fixture
def collector() -> Iterator[None]:
    """The collector put back as it was."""
    before = gc.get_threshold()
    yield
    gc.unfreeze()
    gc.set_threshold(*before)


@pytest.mark.usefixtures("collector")
def test_what_is_loaded_is_frozen_and_garbage_is_still_found() -> None:
    steady_memory()
    assert gc.get_freeze_count() > 1000
    assert gc.get_threshold()[0] == YOUNG
    gc.collect()
    loop: list[object] = []
    loop.append(loop)
    del loop
    assert gc.collect() >= 1


def test_an_accepted_connection_is_known_as_tcp() -> None:
    # asyncio sets TCP_NODELAY only where the protocol is named (CPython, asyncio.base_events._set_nodelay).
    listener = _listener(0)
    assert (listener.family, listener.proto) == (socket.AF_INET, socket.IPPROTO_TCP)
    listener.listen()
    with socket.create_connection(listener.getsockname()), listener:
        accepted, _ = listener.accept()
        assert accepted.proto == socket.IPPROTO_TCP
        accepted.close()


def test_a_design_that_is_not_there_is_a_problem_on_every_address(client: TestClient) -> None:
    paths = client.get("/api/openapi.json").json()["paths"]
    asked = [
        re.sub(r"\{(?!design_id)[a-z_]+\}", "x", path).replace("{design_id}", "nowhere")
        for path, kinds in paths.items()
        if "{design_id}" in path and "get" in kinds and not re.search("{job}|/fix|/caught", path)
    ]
    assert len(asked) >= 10
    for path in asked:
        answer = client.get(path)
        assert (path, answer.status_code) == (path, 404)
        assert answer.headers["content-type"] == "application/problem+json"
        assert "nowhere" in answer.json()["detail"]


def test_nothing_forgotten_is_named_twice() -> None:
    ids = [e.id for e in expectations()]
    assert len(ids) == len(set(ids))
    for e in expectations():
        assert re.compile(e.words)
        assert e.why.strip()
