"""The shelf: machines, stock, supplies and own parts that all designs share."""

from __future__ import annotations

from fastapi import APIRouter, Response

from wingboard.api.routers.common import PROBLEMS, OnDesk, as_json
from wingboard.services.shelf import Shelf

router = APIRouter(prefix="/api/shelf", tags=["shelf"], responses=PROBLEMS)


@router.get("", responses={200: {"model": Shelf}})
def shelf(desk: OnDesk) -> Response:
    """Everything on the shelf."""
    return as_json(desk.shelf())
