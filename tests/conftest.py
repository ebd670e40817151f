"""Fixtures that every floor shares: a desk over a throw-away database, a server, and a real Chromium."""

from __future__ import annotations

import sys
from collections import OrderedDict
from collections.abc import Callable, Hashable, Iterator
from pathlib import Path
from typing import Any

import pytest
from fastapi.testclient import TestClient
from hypothesis import settings
from playwright.sync_api import Page, expect

from wingboard.api.app import create_app
from wingboard.core.overview.memory import Memory
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.design import Design
from wingboard.core.record.document import read_design
from wingboard.demo import demo_texts
from wingboard.services.desk import Desk
from wingboard.store.database import Database

sys.path.insert(0, str(Path(__file__).parents[1] / "tools"))

from browser import FLAGS, chromium_path, served

from wingboard.cli import add_demo

REFUSED = "the server responded with a status of 4"
"""What Chromium writes when a request is refused, as some tests mean it to be."""

settings.register_profile("here", deadline=None, max_examples=30, derandomize=True)
settings.load_profile("here")
expect.set_options(timeout=60_000)  # tests run side by side, on machines that are busy otherwise


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


@pytest.fixture(scope="session")
def browser_type_launch_args(browser_type_launch_args: dict[str, Any]) -> dict[str, Any]:
    """Debian's Chromium with the flags it needs here, and scroll bars that take their room as on a desk."""
    ours = {"executable_path": chromium_path(), "headless": True, "args": list(FLAGS)}
    return {**browser_type_launch_args, **ours, "ignore_default_args": ["--hide-scrollbars"]}


@pytest.fixture(scope="session")
def browser_context_args(browser_context_args: dict[str, Any]) -> dict[str, Any]:
    """1280 × 800, as the design has it."""
    size = {"width": 1280, "height": 800}
    return {
        **browser_context_args,
        "viewport": size,
        "reduced_motion": "reduce",
        "locale": "en-GB",
        "timezone_id": "UTC",
    }


@pytest.fixture(scope="session")
def judged_before() -> tuple[OrderedDict[str, Memory], OrderedDict[Hashable, Any]]:
    """What was found of the demo designs in tests before, and what was worked out for that."""
    return OrderedDict(), OrderedDict()


@pytest.fixture
def demo_desk(
    desk: Desk,
    request: pytest.FixtureRequest,
    judged_before: tuple[OrderedDict[str, Memory], OrderedDict[Hashable, Any]],
) -> Desk:
    """A desk with the demo designs. One that a browser looks at finds them judged, as long as they are as they were:
    a second for each of its tests."""
    if "address" in request.fixturenames:
        desk._memories, desk.costly._kept = judged_before
    add_demo(desk)
    return desk


@pytest.fixture
def address(demo_desk: Desk) -> Iterator[str]:
    """The address of the application over the demo desk."""
    with served(demo_desk) as where:
        yield where


@pytest.fixture
def watched(page: Page, address: str) -> Iterator[Page]:
    """A page that may neither ask elsewhere nor complain."""
    elsewhere: list[str] = []
    errors: list[str] = []
    page.on("request", lambda r: elsewhere.append(r.url) if not r.url.startswith((address, "data:", "blob:")) else None)
    page.on("pageerror", lambda e: errors.append(str(e)))
    page.on("console", lambda m: errors.append(m.text) if m.type == "error" and REFUSED not in m.text else None)
    yield page
    assert not elsewhere
    assert not errors
