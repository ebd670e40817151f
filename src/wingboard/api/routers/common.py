"""What every router shares: the desk of this application, and views as ready JSON."""

from __future__ import annotations

from typing import Annotated, Any

from fastapi import Depends, Path, Request, Response
from pydantic import BaseModel

from wingboard.api.problems import ProblemDetails
from wingboard.services.desk import Desk

PROBLEMS: dict[int | str, dict[str, Any]] = {
    status: {"model": ProblemDetails} for status in (404, 409, 413, 422, 503, 507)
}


def the_desk(request: Request) -> Desk:
    """The desk the application was made with."""
    desk: Desk = request.app.state.desk
    return desk


OnDesk = Annotated[Desk, Depends(the_desk)]
DesignId = Annotated[str, Path(pattern=r"^[a-z][a-z0-9-]{0,63}$")]


def as_json(view: BaseModel, status: int = 200) -> Response:
    """The view as JSON, written once by pydantic-core (a response model would be validated a second time)."""
    return Response(view.model_dump_json(), status, media_type="application/json")
