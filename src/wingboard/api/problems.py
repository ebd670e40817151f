"""Expected failures as problem details (RFC 9457), in one place."""

from __future__ import annotations

import logging
from collections.abc import Sequence

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from pydantic import BaseModel, Field, ValidationError
from starlette.exceptions import HTTPException

from wingboard.core.record import errors as design
from wingboard.store import errors as store

log = logging.getLogger(__name__)

STATUS: dict[type[Exception], int] = {
    design.UnreadableDesign: 422,
    design.UnknownThing: 404,
    design.NotPossible: 409,
    design.NotALength: 422,
    design.DesignError: 422,
    store.NoSuchDesign: 404,
    store.NoSuchPicture: 404,
    store.UnreadableRevision: 409,
    store.KeyUsedAgain: 409,
    store.StaleRevision: 409,
    store.StoreBusy: 503,
    store.StoreFull: 507,
    store.ForeignDatabase: 503,
    store.DamagedDatabase: 503,
    store.NewerDatabase: 503,
    store.StoreError: 503,
}


class Fault(BaseModel):
    """One fault and its place."""

    path: str
    message: str


class ProblemDetails(BaseModel):
    """What went wrong, as RFC 9457 has it; ``head`` is the newest revision when the change came too late."""

    type: str
    title: str
    status: int
    detail: str
    errors: list[Fault] = []
    head: int | None = None
    what: str | None = Field(None, description="The change that was refused, in words")


def problem(
    name: str,
    title: str,
    status: int,
    detail: str,
    errors: Sequence[Fault] = (),
    head: int | None = None,
    what: str | None = None,
) -> JSONResponse:
    """A response with a problem document."""
    body = ProblemDetails(
        type=f"urn:wingboard:{name}",
        title=title,
        status=status,
        detail=detail,
        errors=list(errors),
        head=head,
        what=what,
    )
    return JSONResponse(body.model_dump(exclude_none=True), status, media_type="application/problem+json")


def _status(error: Exception) -> int:
    return next(STATUS[kind] for kind in type(error).__mro__ if kind in STATUS)


def _kebab(kind: type) -> str:
    return "".join(f"-{ch.lower()}" if ch.isupper() and i else ch.lower() for i, ch in enumerate(kind.__name__))


async def _design_error(_: Request, error: Exception) -> JSONResponse:
    assert isinstance(error, design.DesignError)
    faults = [Fault(path=p.path, message=p.message) for p in error.problems if p.path]
    return problem(_kebab(type(error)), error.title, _status(error), error.message, faults, what=error.what)


async def _store_error(_: Request, error: Exception) -> JSONResponse:
    assert isinstance(error, store.StoreError)
    head = error.head if isinstance(error, store.StaleRevision) else None
    return problem(_kebab(type(error)), error.title, _status(error), str(error), head=head)


async def _invalid(_: Request, error: Exception) -> JSONResponse:
    assert isinstance(error, RequestValidationError)
    faults = [Fault(path=_place(e["loc"]), message=str(e["msg"])) for e in error.errors()[:50]]
    detail = f"{faults[0].path}: {faults[0].message}" if faults else "The request cannot be read"
    return problem("invalid-request", "The request cannot be read", 422, detail, faults)


def _place(loc: Sequence[int | str]) -> str:
    steps = [step for step in loc if step not in ("body", "query", "path")]
    return "".join(f"[{s}]" if isinstance(s, int) else f".{s}" for s in steps).lstrip(".")


async def _outside(request: Request, error: Exception) -> JSONResponse:
    """Something worked out from the request is outside what a design may hold."""
    assert isinstance(error, ValidationError)
    log.warning("%s %s: %s", request.method, request.url.path, error)
    faults = [Fault(path=_place(e["loc"]), message=str(e["msg"])) for e in error.errors()[:50]]
    return problem("outside-limits", "This cannot be worked out", 422, f"{faults[0].path}: {faults[0].message}", faults)


async def _unexpected(request: Request, error: Exception) -> JSONResponse:
    log.error("%s %s failed", request.method, request.url.path, exc_info=error)
    detail = "Something went wrong here; nothing was changed. The log in the data folder says what led to it"
    return problem("unexpected", "That did not work", 500, detail)


async def _http_error(_: Request, error: Exception) -> JSONResponse:
    assert isinstance(error, HTTPException)
    return problem("http", "The request cannot be answered", error.status_code, str(error.detail))


def install(app: FastAPI) -> None:
    """Answer every expected failure with a problem document."""
    app.add_exception_handler(design.DesignError, _design_error)
    app.add_exception_handler(store.StoreError, _store_error)
    app.add_exception_handler(RequestValidationError, _invalid)
    app.add_exception_handler(HTTPException, _http_error)
    app.add_exception_handler(ValidationError, _outside)
    app.add_exception_handler(Exception, _unexpected)
