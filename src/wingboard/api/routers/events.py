"""News for every open page, as one stream of server-sent events; and the jobs that it tells of."""

from __future__ import annotations

from collections.abc import AsyncIterator
from typing import Annotated, Literal

from fastapi import APIRouter, Path, Response
from pydantic import BaseModel
from sse_starlette import EventSourceResponse, ServerSentEvent

from wingboard.api.routers.common import OnDesk, WithJobs, as_json
from wingboard.services.jobs import Job
from wingboard.services.lighting import SuggestedView
from wingboard.services.solving import Solved

router = APIRouter(prefix="/api", tags=["events"])
JobId = Annotated[str, Path(pattern=r"^j-[0-9a-f]{12}$")]


class JobView(BaseModel):
    """How a job stands. ``done`` is the share that is done, from 0 to 1; ``solved`` the result of solving pins,
    ``suggested`` that of looking for lamps."""

    id: str
    task: str
    design: str | None
    state: Literal["waiting", "running", "done", "stopped", "failed"]
    done: float | None
    words: str
    solved: Solved | None = None
    suggested: SuggestedView | None = None


def job_view(job: Job) -> JobView:
    """A job as the page is told of it."""
    solved = job.result if isinstance(job.result, Solved) else None
    suggested = job.result if isinstance(job.result, SuggestedView) else None
    return JobView(
        id=job.id, task=job.task, design=job.design, state=job.state, done=job.done, words=job.words, solved=solved,
        suggested=suggested,
    )  # fmt: skip


@router.get(
    "/events",
    response_class=EventSourceResponse,
    responses={
        200: {
            "description": "Events “revised”, “judged” and “job”, each with JSON",
            "content": {"text/event-stream": {}},
        }
    },
)
async def events(desk: OnDesk) -> EventSourceResponse:
    """Everything that happens from now on, until the page goes away."""
    listener = desk.news.listen()

    async def told() -> AsyncIterator[ServerSentEvent]:
        try:
            yield ServerSentEvent(event="hello", data="{}")
            while (event := await listener.next()) is not None:
                yield ServerSentEvent(event=event.kind, data=event.model_dump_json())
        finally:
            desk.news.leave(listener)

    return EventSourceResponse(told(), ping=15, headers={"cache-control": "no-store"})


@router.get("/jobs/{job}", responses={200: {"model": JobView}})
def read_job(jobs: WithJobs, job: JobId) -> Response:
    """How a job stands, with its result when it is done."""
    return as_json(job_view(jobs.find(job)))


@router.post("/jobs/{job}/stop", responses={200: {"model": JobView}})
def stop_job(jobs: WithJobs, job: JobId) -> Response:
    """Ask a job to stop; it says on the stream when it did."""
    found = jobs.find(job)
    found.stop()
    return as_json(job_view(found))
