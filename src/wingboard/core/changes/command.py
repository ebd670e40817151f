"""The union of all commands, and how a batch of them is read from JSON."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field, TypeAdapter

from wingboard.core.changes.commands import arrange, brief, face, functions, judgement, parts, wire, words

Command = Annotated[
    brief.Rename | brief.SetBrief | brief.SetKeepOut | brief.RemoveKeepOut | brief.SplitOpening
    | brief.SetMachine | brief.SetStock | brief.SetSupply | brief.RemoveFromWorkshop | brief.SetOnHand | brief.LogHours
    | functions.AddFunction | functions.EditFunction | functions.RemoveFunction | functions.MoveFunctions
    | parts.ChoosePart | parts.CopyPart | parts.CombineParts | parts.MeasurePart | parts.EditPart | parts.RemovePart
    | face.PlacePart | face.MoveItems | face.TurnItems | face.RemoveItems | face.SetLegend | face.SetPocket
    | arrange.Arrange | arrange.SwapGroups | arrange.PairMirrored | arrange.UnpairItems | arrange.LockItems
    | arrange.CopyItems
    | words.SetStyle | words.SetGraphic | words.RemoveGraphic | words.SetProcedure | words.RemoveProcedure
    | words.SetReference | words.RemoveReference
    | face.AddModule | face.SetModule | face.SetModuleSize | face.RemoveModule | face.SetLayer
    | wire.AddController | wire.RemoveController | wire.PinLine | wire.UnpinLines | wire.SetPins
    | judgement.AcceptFinding | judgement.RetractAcceptance | judgement.SetLimit,
    Field(discriminator="do"),
]  # fmt: skip

COMMANDS: TypeAdapter[Command] = TypeAdapter(Command)
BATCH: TypeAdapter[tuple[Command, ...]] = TypeAdapter(
    Annotated[tuple[Command, ...], Field(min_length=1, max_length=2000)]
)
