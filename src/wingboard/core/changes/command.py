"""The union of all commands, and how a batch of them is read from JSON."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field, TypeAdapter

from wingboard.core.changes.commands import (
    arrange,
    boards,
    brief,
    console,
    cutting,
    functions,
    graphics,
    harness,
    judgement,
    layers,
    legends,
    lights,
    modules,
    parts,
    pictures,
    places,
    procedures,
    trials,
    wire,
    workshop,
)

Command = Annotated[
    brief.Rename | brief.SetBrief | brief.ResizeOpening | brief.MeasureOpening | brief.SetSeat | brief.RemoveSeat
    | brief.SetEnvironment
    | brief.AddKeepOut | brief.EditKeepOut | brief.RemoveKeepOut | brief.SplitOpening
    | workshop.AddMachine | workshop.EditMachine | workshop.AddStock | workshop.EditStock
    | workshop.AddSupply | workshop.EditSupply | workshop.AddWire | workshop.EditWire
    | workshop.RemoveFromWorkshop | workshop.SetOnHand | workshop.LogHours
    | functions.AddFunction | functions.EditFunction | functions.RemoveFunction | functions.MoveFunctions
    | parts.ChoosePart | parts.AdoptPart | parts.CopyPart | parts.CombineParts | parts.MeasurePart | parts.EditPart
    | parts.RemovePart
    | places.PlacePart | places.MoveItems | places.TurnItems | places.RemoveItems | places.SetPocket
    | arrange.Arrange | arrange.SwapGroups | arrange.PairMirrored | arrange.UnpairItems | arrange.LockItems
    | arrange.CopyItems
    | legends.EditLegend | legends.RemoveLegend | legends.SetStyle
    | graphics.AddGraphic | graphics.EditGraphic | graphics.RemoveGraphic
    | procedures.AddProcedure | procedures.EditProcedure | procedures.RemoveProcedure
    | pictures.AddReference | pictures.EditReference | pictures.RemoveReference
    | pictures.TraceCircle | pictures.AssignCircle | pictures.RemoveCircle
    | modules.AddModule | modules.EditModule | modules.ResizeModule | modules.SetFixings | modules.RemoveFixings
    | modules.AddScrew | modules.EditScrew | modules.RemoveScrew
    | modules.RemoveModule | modules.SplitModule
    | layers.SetSchool | layers.AddLayer | layers.RemoveLayer | layers.EditLayer
    | layers.AddFeature | layers.RemoveFeature
    | boards.MountBoard | boards.EditMounted | boards.UnmountBoard | boards.SetCase | boards.RemoveCase
    | lights.AddStrip | lights.EditStrip | lights.AddLeds | lights.EditLed | lights.RemoveLights | lights.SetLight
    | trials.LogTrial | trials.RemoveTrial
    | cutting.SetJob | cutting.SetCopies | cutting.LogFit | cutting.ForgetFit | cutting.Tick | cutting.MarkCut
    | cutting.UnmarkCut | cutting.SetSplit | cutting.SetLettering | cutting.SetOldHoles
    | cutting.AddPatch | cutting.EditPatch | cutting.RemovePatch | cutting.SetColours
    | console.SetFrame | console.RemoveFrame
    | wire.SetBoard | wire.RemoveBoard | wire.AddController | wire.EditController | wire.RemoveController
    | wire.PinLine | wire.UnpinLines | wire.SetPins | wire.SetSoldered
    | harness.SetHarness | harness.EditLoom | harness.StandOutside | harness.ForgetStanding | harness.SetUsb
    | judgement.AcceptFinding | judgement.RetractAcceptance | judgement.SetLimit,
    Field(discriminator="do"),
]  # fmt: skip

COMMANDS: TypeAdapter[Command] = TypeAdapter(Command)
BATCH: TypeAdapter[tuple[Command, ...]] = TypeAdapter(
    Annotated[tuple[Command, ...], Field(min_length=1, max_length=2000)]
)
