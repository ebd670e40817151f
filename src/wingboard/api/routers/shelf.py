"""The shelf: machines, stock, supplies and own parts that all designs share."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter, Path, Response

from wingboard.api.routers.common import OnDesk, as_json
from wingboard.services.shelf import Shelf
from wingboard.store.shelf import Kind

router = APIRouter(prefix="/api/shelf", tags=["shelf"])


@router.get("", responses={200: {"model": Shelf}})
def shelf(desk: OnDesk) -> Response:
    """Everything on the shelf."""
    return as_json(desk.shelf())


@router.delete("/{kind}/{ident}", responses={200: {"model": Shelf}})
def take_off(desk: OnDesk, kind: Kind, ident: Annotated[str, Path(pattern=r"^[a-z][a-z0-9-]{0,47}$")]) -> Response:
    """Remove a thing from the shelf; designs that use it keep theirs."""
    desk.take_off_shelf(kind, ident)
    return as_json(desk.shelf())
