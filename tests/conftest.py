"""Fixtures that every floor shares: a desk over a throw-away database, and small designs."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from pathlib import Path

import pytest
from fastapi.testclient import TestClient
from hypothesis import settings

from wingboard.api.app import create_app
from wingboard.core.design.document import read_design
from wingboard.core.design.model import Design
from wingboard.core.parts.catalogue import catalogue
from wingboard.demo import demo_texts
from wingboard.services.desk import Desk
from wingboard.store.database import Database

settings.register_profile("here", deadline=None, max_examples=40, derandomize=True)
settings.load_profile("here")


@pytest.fixture
def desk(tmp_path: Path) -> Iterator[Desk]:
    """An empty desk."""
    made = Desk(Database(tmp_path / "wingboard.db", busy_seconds=0.1))
    yield made
    made.database.close()


@pytest.fixture
def client(desk: Desk) -> Iterator[TestClient]:
    """The API over the desk, asked from the right host."""
    with TestClient(create_app(desk), base_url="http://127.0.0.1:8765") as made:
        yield made


@pytest.fixture
def demo() -> Callable[[str], Design]:
    """A demo design by its short name."""
    return lambda name: read_design(demo_texts()[name], catalogue())
