"""Reference pictures: kept once, read by their content."""

from __future__ import annotations

from typing import Annotated, Any

from fastapi import APIRouter, Path, Request, Response
from fastapi.concurrency import run_in_threadpool
from pydantic import BaseModel

from wingboard.api.routers.common import BINARY, OnDesk, as_json, body_of
from wingboard.services.reading import picture_from

PICTURE: dict[int | str, dict[str, Any]] = {200: {"content": {"image/png": BINARY, "image/jpeg": BINARY}}}

router = APIRouter(prefix="/api/pictures", tags=["pictures"])


class PictureView(BaseModel):
    """A kept picture."""

    picture: str
    width: int
    height: int


@router.post(
    "",
    status_code=201,
    responses={201: {"model": PictureView}},
    openapi_extra=body_of("image/png", "image/jpeg"),
)
async def keep(desk: OnDesk, request: Request) -> Response:
    """Keep a PNG or JPEG sent as the body."""
    content = await request.body()

    def kept() -> Response:
        picture = desk.keep_checked(picture_from(content))
        return as_json(PictureView(picture=picture.sha256, width=picture.width, height=picture.height), 201)

    return await run_in_threadpool(kept)


@router.get(
    "/{picture}", response_class=Response, responses={200: {"content": {"image/png": BINARY, "image/jpeg": BINARY}}}
)
def read(desk: OnDesk, picture: Annotated[str, Path(pattern=r"^[0-9a-f]{64}$")]) -> Response:
    """A kept picture."""
    found = desk.picture(picture)
    return Response(found.content, media_type=found.media, headers={"cache-control": "max-age=31536000, immutable"})
