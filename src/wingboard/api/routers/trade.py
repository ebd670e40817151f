"""What the page has to know of the trade before there is a design: usual machines, limits, names of symbols."""

from __future__ import annotations

from fastapi import APIRouter, Response
from pydantic import BaseModel, Field

from wingboard.api.routers.common import as_json
from wingboard.core.face.symbols import SYMBOLS
from wingboard.core.record.controllers import boards
from wingboard.core.record.lamps import COLOURS, LampColour
from wingboard.core.record.limits import LIMITS
from wingboard.core.record.materials import materials
from wingboard.core.record.modules import CableExit
from wingboard.core.record.usual import MACHINES, SHEET, SUPPLY, THROWN_BACK
from wingboard.core.record.wiring import BoardKind
from wingboard.core.record.workshop import MachineFields, Material, StockFields, SupplyFields
from wingboard.core.wire.harness.inks import INKS

router = APIRouter(prefix="/api/trade", tags=["trade"])


class ControllerKind(BaseModel):
    """A kind of controller, by its chip and pins."""

    board: BoardKind
    chip: str
    name: str


class MaterialName(BaseModel):
    """A material of sheets."""

    id: Material
    name: str


class Trade(BaseModel):
    """What is usual, and what is dangerous."""

    machines: list[MachineFields]
    sheet: StockFields
    supply: SupplyFields
    symbols: list[str]
    lamp_colours: list[LampColour]
    controllers: list[ControllerKind]
    materials: list[MaterialName]
    thrown_back: dict[str, float] = Field(description="What walls throw back of the light, as a share, by their kind")
    cable_exit: CableExit
    wire_inks: dict[str, str] = Field(description="How the colours of insulation are drawn")
    licensed_ac: float = Field(description="Volts above which a licensed electrician wires")
    licensed_dc: float


@router.get("", responses={200: {"model": Trade}})
def trade() -> Response:
    """The same for every design."""
    kinds = [
        ControllerKind(board=board, chip=kind.chip, name=f"{kind.chip}, {kind.header} pins")
        for board, kind in boards().items()
    ]
    return as_json(
        Trade(
            machines=list(MACHINES.values()),
            sheet=SHEET,
            supply=SUPPLY,
            symbols=list(SYMBOLS),
            lamp_colours=list(COLOURS),
            controllers=kinds,
            materials=[MaterialName(id=ident, name=known.name) for ident, known in materials().items()],
            thrown_back=THROWN_BACK,
            cable_exit=CableExit(),
            wire_inks=INKS,
            licensed_ac=LIMITS["touch-ac"].value,
            licensed_dc=LIMITS["touch-dc"].value,
        )
    )
