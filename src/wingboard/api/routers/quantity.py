"""Lengths as people type them, read for the fields of every station."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter, Query
from pydantic import BaseModel

from wingboard.core.brief.cutters import read_tools
from wingboard.core.quantity import QuantityError, length
from wingboard.core.record.errors import NotALength
from wingboard.core.record.workshop import Tool

router = APIRouter(prefix="/api/quantity", tags=["quantity"])


class LengthView(BaseModel):
    """A length in millimetres."""

    mm: float


@router.get("/tools")
def read_cutters(text: Annotated[str, Query(max_length=600)]) -> list[Tool]:
    """``1/8in×2, 3`` → one of 3.175 mm with two flutes, and one of 3 mm."""
    return list(read_tools(text))


@router.get("/length")
def read_length(text: Annotated[str, Query(max_length=60)]) -> LengthView:
    """``3/16in`` → 4.7625."""
    try:
        return LengthView(mm=length(text))
    except QuantityError as error:
        raise NotALength(str(error), "text") from error
