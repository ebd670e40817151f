"""The application: routers, problems, guard, and the built page."""

from __future__ import annotations

from pathlib import Path

from fastapi import FastAPI
from fastapi.responses import FileResponse, JSONResponse, Response
from fastapi.staticfiles import StaticFiles

from wingboard import __version__
from wingboard.api import problems
from wingboard.api.guard import Guard
from wingboard.api.routers import brief, cut, designs, face, faceviews, parts, pictures, quantity, shelf, wire
from wingboard.services.desk import Desk

STATIC = Path(__file__).parent.parent / "static"


def create_app(desk: Desk, static: Path = STATIC) -> FastAPI:
    """The application over one desk.

    :param static: the built front end; without it only the API answers.
    """
    app = FastAPI(
        title="Wing Board", version=__version__, docs_url=None, redoc_url=None, openapi_url="/api/openapi.json"
    )
    app.state.desk = desk
    for station in (quantity, shelf, pictures, brief, faceviews, face, parts, cut, wire, designs):
        app.include_router(station.router)
    problems.install(app)
    app.add_middleware(Guard)
    _serve_page(app, static)
    return app


def _serve_page(app: FastAPI, static: Path) -> None:
    @app.get("/api/{rest:path}", include_in_schema=False)
    def no_such_api(rest: str) -> JSONResponse:
        return problems.problem("http", "The request cannot be answered", 404, f"There is no /api/{rest[:80]}")

    if not (static / "index.html").is_file():
        return
    app.mount("/assets", StaticFiles(directory=static / "assets"))

    @app.get("/{rest:path}", include_in_schema=False)
    def page(rest: str) -> Response:
        plain = static / rest
        if rest and "/" not in rest and plain.is_file() and not rest.startswith("."):
            return FileResponse(plain)
        return FileResponse(static / "index.html", headers={"cache-control": "no-cache"})
