"""The description of the HTTP interface: every status and content type that an answer can have."""

from __future__ import annotations

from typing import Any

from fastapi import FastAPI

from wingboard.api.problems import ProblemDetails
from wingboard.services.news import Judged, Progressed, Revised

PROBLEM = "application/problem+json"
_FAILURES = {
    "4XX": "It cannot be done: 404 there is no such thing, 409 not as things stand, 413 too large, 422 it cannot be "
    "read, 403, 405, 408 and 421 for requests that are none of the page's own",
    "5XX": "It did not work: 503 the database is locked or too many ask at once, 507 the disk is full, 500 something "
    "unexpected, which the log tells of",
}


def describe(app: FastAPI) -> None:
    """Let the application describe its failures as the problem documents that they are."""
    plain = app.openapi

    def described() -> dict[str, Any]:
        if app.openapi_schema is None:
            document = plain()
            document["components"]["schemas"].update(_further_schemas())
            for path in document["paths"].values():
                for operation in path.values():
                    _with_problems(operation["responses"])
            app.openapi_schema = document
        return app.openapi_schema

    app.openapi = described  # type: ignore[method-assign]


def _further_schemas() -> dict[str, Any]:
    schema = ProblemDetails.model_json_schema(ref_template="#/components/schemas/{model}")
    told = {kind.__name__: kind.model_json_schema() for kind in (Revised, Judged, Progressed)}
    return {**schema.pop("$defs", {}), "ProblemDetails": schema, **told}


def _with_problems(responses: dict[str, Any]) -> None:
    content = {PROBLEM: {"schema": {"$ref": "#/components/schemas/ProblemDetails"}}}
    for status in [status for status in responses if not status.startswith("2")]:
        del responses[status]
    responses.update({status: {"description": words, "content": content} for status, words in _FAILURES.items()})
