"""The application: routers, problems, guard, and the built page."""

from __future__ import annotations

from collections.abc import AsyncIterator
from contextlib import asynccontextmanager
from pathlib import Path
from typing import Any

from fastapi import FastAPI
from fastapi.responses import FileResponse, JSONResponse, Response
from fastapi.staticfiles import StaticFiles

from wingboard import __version__
from wingboard.api import problems
from wingboard.api.description import describe
from wingboard.api.guard import Guard
from wingboard.api.routers import (
    brief,
    cases,
    cut,
    designs,
    events,
    face,
    faceviews,
    harness,
    light,
    parts,
    pictures,
    ports,
    power,
    programs,
    quantity,
    schemes,
    sheets,
    shelf,
    stack,
    surface,
    trade,
    wire,
    wiring,
)
from wingboard.services.desk import Desk
from wingboard.services.jobs import Jobs
from wingboard.services.news import News

STATIC = Path(__file__).parent.parent / "static"


def create_app(desk: Desk, static: Path = STATIC) -> FastAPI:
    """The application over one desk.

    :param static: the built front end; without it only the API answers.
    """

    @asynccontextmanager
    async def lifespan(app: FastAPI) -> AsyncIterator[None]:
        yield
        app.state.jobs.close()
        desk.costly.close()
        desk.news.close()

    app = FastAPI(
        title="Wing Board",
        version=__version__,
        docs_url=None,
        redoc_url=None,
        openapi_url="/api/openapi.json",
        lifespan=lifespan,
        separate_input_output_schemas=False,
    )
    app.state.desk = desk
    app.state.jobs = Jobs(desk.news)
    stations = (
        brief,
        faceviews,
        face,
        parts,
        stack,
        cases,
        light,
        sheets,
        surface,
        cut,
        wire,
        schemes,
        wiring,
        power,
        programs,
        harness,
        designs,
    )
    for station in (events, ports, quantity, trade, shelf, pictures, *stations):
        app.include_router(station.router)
    problems.install(app)
    describe(app)
    app.add_middleware(Guard)
    _serve_page(app, static)
    return app


def interface() -> dict[str, Any]:
    """The description of the HTTP interface, without a desk."""
    desk = Desk.__new__(Desk)
    desk.news = News()
    return create_app(desk).openapi()


class Assets(StaticFiles):
    """The built scripts and styles: their names change with their content, so they may be kept for ever."""

    def file_response(self, *args: object, **kwargs: object) -> Response:
        """The file, to be kept."""
        response: Response = super().file_response(*args, **kwargs)  # type: ignore[arg-type]
        response.headers["cache-control"] = "public, max-age=31536000, immutable"
        return response


def _serve_page(app: FastAPI, static: Path) -> None:
    @app.get("/api/{rest:path}", include_in_schema=False)
    def no_such_api(rest: str) -> JSONResponse:
        return problems.problem("http", "The request cannot be answered", 404, f"There is no /api/{rest[:80]}")

    if not (static / "index.html").is_file():
        return
    app.mount("/assets", Assets(directory=static / "assets"))

    @app.get("/{rest:path}", include_in_schema=False)
    def page(rest: str) -> Response:
        plain = static / rest
        if rest and "/" not in rest and not rest.startswith(".") and "\0" not in rest and plain.is_file():
            return FileResponse(plain, headers={"cache-control": "no-cache"})
        return FileResponse(static / "index.html", headers={"cache-control": "no-cache"})
