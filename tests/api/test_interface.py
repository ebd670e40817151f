"""The whole HTTP interface, asked at random from its own description: no 5xx, nothing that it does not declare."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

import pytest
import schemathesis
from fastapi import FastAPI
from hypothesis import HealthCheck, given, settings
from schemathesis.checks import not_a_server_error
from schemathesis.specs.openapi.checks import (
    content_type_conformance,
    response_schema_conformance,
    status_code_conformance,
)

from building import plate
from wingboard.api.app import create_app
from wingboard.services.desk import Desk
from wingboard.store.database import Database

CHECKS = [not_a_server_error, status_code_conformance, content_type_conformance, response_schema_conformance]
IDENT = "small"
HOST = {"host": "127.0.0.1:8765"}


@pytest.fixture(scope="module")
def app(tmp_path_factory: pytest.TempPathFactory) -> Iterator[FastAPI]:
    """The application over a desk with one small design."""
    database = Database(tmp_path_factory.mktemp("interface") / "wingboard.db")
    desk = Desk(database)
    desk.add(plate(("rotary-12", 60, 60), ("button-16-lit", 120, 60)), "Start", ident=IDENT)
    made = create_app(desk)
    yield made
    made.state.jobs.close()
    database.close()


@pytest.fixture(scope="module")
def interface(app: FastAPI) -> schemathesis.BaseSchema:
    """What the application says of itself, the endless stream of news apart."""
    found: schemathesis.BaseSchema = schemathesis.openapi.from_asgi("/api/openapi.json", app, headers=HOST)
    return found.exclude(path="/api/events")


def test_every_answer_is_one_that_the_interface_declares(interface: Any) -> None:
    asked = 0
    for found in interface.get_all_operations():
        operation = found.ok()

        @settings(max_examples=12, suppress_health_check=list(HealthCheck))
        @given(case=operation.as_strategy())
        def ask(case: schemathesis.Case[Any]) -> None:
            for name, known in (("design_id", IDENT), ("module", "plate"), ("function_id", "f1")):
                if name in (case.path_parameters or {}):
                    case.path_parameters[name] = known
            case.call_and_validate(checks=CHECKS, headers=HOST)

        ask()
        asked += 1
    assert asked > 40
