"""Reference pictures: kept once, read by their content."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter, Path, Request, Response
from pydantic import BaseModel

from wingboard.api.routers.common import PROBLEMS, OnDesk, as_json

router = APIRouter(prefix="/api/pictures", tags=["pictures"], responses=PROBLEMS)


class PictureView(BaseModel):
    """A kept picture."""

    picture: str
    width: int
    height: int


@router.post("", status_code=201, responses={201: {"model": PictureView}})
async def keep(desk: OnDesk, request: Request) -> Response:
    """Keep a PNG or JPEG sent as the body."""
    kept = desk.keep_picture(await request.body())
    return as_json(PictureView(picture=kept.sha256, width=kept.width, height=kept.height), 201)


@router.get("/{picture}")
def read(desk: OnDesk, picture: Annotated[str, Path(pattern=r"^[0-9a-f]{64}$")]) -> Response:
    """A kept picture."""
    found = desk.picture(picture)
    return Response(found.content, media_type=found.media, headers={"cache-control": "max-age=31536000, immutable"})
