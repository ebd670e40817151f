"""The serial ports of the machine that this runs on, and the boards at them."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter
from pydantic import BaseModel, Field

from wingboard.devices.ports import ports
from wingboard.services.programs import greeting_at

router = APIRouter(prefix="/api/ports", tags=["ports"])


class PortView(BaseModel):
    """A serial port of the machine that this runs on."""

    port: str
    words: str = Field(description="What its plug says of itself")


class AtPort(BaseModel):
    """Which port."""

    port: Annotated[str, Field(min_length=1, max_length=200)]


class SaidView(BaseModel):
    """What a board says that it is."""

    said: str


@router.get("", responses={200: {"model": list[PortView]}})
def serial_ports() -> list[PortView]:
    """The serial ports of this machine at which something is plugged in."""
    return [PortView(port=there.port, words=there.words) for there in ports()]


@router.post("/greeting")
def ask_at_port(at: AtPort) -> SaidView:
    """Ask the board at a port which program it has. Most boards start anew by that."""
    return SaidView(said=greeting_at(at.port))
