"""What every router shares: the desk and the jobs of this application, and views as ready JSON."""

from __future__ import annotations

from collections.abc import Callable
from typing import Annotated, Any

from fastapi import Depends, Path, Request, Response
from pydantic import BaseModel, Field

from wingboard.services.desk import Desk, Kept, Prepare
from wingboard.services.jobs import Jobs

BINARY = {"schema": {"type": "string", "format": "binary"}}


def the_desk(request: Request) -> Desk:
    """The desk the application was made with."""
    desk: Desk = request.app.state.desk
    return desk


def the_jobs(request: Request) -> Jobs:
    """The jobs of the application."""
    jobs: Jobs = request.app.state.jobs
    return jobs


OnDesk = Annotated[Desk, Depends(the_desk)]
WithJobs = Annotated[Jobs, Depends(the_jobs)]
DesignId = Annotated[str, Path(pattern=r"^[a-z][a-z0-9-]{0,63}$")]
Revision = Annotated[int, Field(ge=1, le=2**53)]
"""The number of a revision: no more than a database, or JavaScript, can count exactly."""
Key = Annotated[str, Field(max_length=80)] | None
"""Names a change, so that one sent twice is kept once; an empty one names nothing."""


def as_json(view: BaseModel, status: int = 200) -> Response:
    """The view as JSON, written once by pydantic-core (a response model would be validated a second time)."""
    return Response(view.model_dump_json(), status, media_type="application/json")


def answered_before_kept(change: Callable[[Prepare], Kept], view: Callable[[Kept], BaseModel]) -> Response:
    """The answer to a change, written before the change is kept: what cannot be shown is never kept."""
    answers: list[Response] = []
    change(lambda kept: answers.append(as_json(view(kept))))
    return answers[-1]


def file_of(media: str) -> dict[int | str, dict[str, Any]]:
    """Says that a route answers with a file of this kind."""
    content: dict[str, Any] = {"schema": {}} if media == "application/json" else BINARY
    return {200: {"description": "The file", "content": {media: content}}}


def body_of(*media: str) -> dict[str, Any]:
    """Says that a route takes a file of one of these kinds as its body."""
    return {"requestBody": {"required": True, "content": dict.fromkeys(media, BINARY)}}


def download(content: bytes | str, media: str, name: str) -> Response:
    """A file that the browser saves under a name."""
    headers = {"content-disposition": f'attachment; filename="{name}"'}
    return Response(content, media_type=media, headers=headers)
