"""The words in which a design is changed. Each is data; :mod:`wingboard.core.design.carry` carries it out."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field, TypeAdapter

from wingboard.core.design.commands.arrange import (
    Arrange as Arrange,
)
from wingboard.core.design.commands.arrange import (
    CopyItems as CopyItems,
)
from wingboard.core.design.commands.arrange import (
    LockItems as LockItems,
)
from wingboard.core.design.commands.arrange import (
    PairMirrored as PairMirrored,
)
from wingboard.core.design.commands.arrange import (
    SwapGroups as SwapGroups,
)
from wingboard.core.design.commands.arrange import (
    UnpairItems as UnpairItems,
)
from wingboard.core.design.commands.brief import (
    LogHours as LogHours,
)
from wingboard.core.design.commands.brief import (
    RemoveFromWorkshop as RemoveFromWorkshop,
)
from wingboard.core.design.commands.brief import (
    RemoveKeepOut as RemoveKeepOut,
)
from wingboard.core.design.commands.brief import (
    Rename as Rename,
)
from wingboard.core.design.commands.brief import (
    SetBrief as SetBrief,
)
from wingboard.core.design.commands.brief import (
    SetKeepOut as SetKeepOut,
)
from wingboard.core.design.commands.brief import (
    SetMachine as SetMachine,
)
from wingboard.core.design.commands.brief import (
    SetOnHand as SetOnHand,
)
from wingboard.core.design.commands.brief import (
    SetStock as SetStock,
)
from wingboard.core.design.commands.brief import (
    SetSupply as SetSupply,
)
from wingboard.core.design.commands.brief import (
    SplitOpening as SplitOpening,
)
from wingboard.core.design.commands.face import (
    AddPanel as AddPanel,
)
from wingboard.core.design.commands.face import (
    MoveItems as MoveItems,
)
from wingboard.core.design.commands.face import (
    PlacePart as PlacePart,
)
from wingboard.core.design.commands.face import (
    RemoveItems as RemoveItems,
)
from wingboard.core.design.commands.face import (
    RemovePanel as RemovePanel,
)
from wingboard.core.design.commands.face import (
    SetLayer as SetLayer,
)
from wingboard.core.design.commands.face import (
    SetLegend as SetLegend,
)
from wingboard.core.design.commands.face import (
    SetPanel as SetPanel,
)
from wingboard.core.design.commands.face import (
    SetPanelSize as SetPanelSize,
)
from wingboard.core.design.commands.face import (
    SetPocket as SetPocket,
)
from wingboard.core.design.commands.face import (
    TurnItems as TurnItems,
)
from wingboard.core.design.commands.functions import (
    AddFunction as AddFunction,
)
from wingboard.core.design.commands.functions import (
    EditFunction as EditFunction,
)
from wingboard.core.design.commands.functions import (
    MoveFunctions as MoveFunctions,
)
from wingboard.core.design.commands.functions import (
    RemoveFunction as RemoveFunction,
)
from wingboard.core.design.commands.judgement import (
    AcceptFinding as AcceptFinding,
)
from wingboard.core.design.commands.judgement import (
    RetractAcceptance as RetractAcceptance,
)
from wingboard.core.design.commands.judgement import (
    SetLimit as SetLimit,
)
from wingboard.core.design.commands.parts import (
    ChoosePart as ChoosePart,
)
from wingboard.core.design.commands.parts import (
    CombineParts as CombineParts,
)
from wingboard.core.design.commands.parts import (
    CopyPart as CopyPart,
)
from wingboard.core.design.commands.parts import (
    EditPart as EditPart,
)
from wingboard.core.design.commands.parts import (
    MeasurePart as MeasurePart,
)
from wingboard.core.design.commands.parts import (
    RemovePart as RemovePart,
)
from wingboard.core.design.commands.wire import (
    AddController as AddController,
)
from wingboard.core.design.commands.wire import (
    PinSignal as PinSignal,
)
from wingboard.core.design.commands.wire import (
    RemoveController as RemoveController,
)
from wingboard.core.design.commands.wire import (
    SetPins as SetPins,
)
from wingboard.core.design.commands.wire import (
    UnpinSignals as UnpinSignals,
)
from wingboard.core.design.commands.words import (
    RemoveGraphic as RemoveGraphic,
)
from wingboard.core.design.commands.words import (
    RemoveProcedure as RemoveProcedure,
)
from wingboard.core.design.commands.words import (
    RemoveReference as RemoveReference,
)
from wingboard.core.design.commands.words import (
    SetGraphic as SetGraphic,
)
from wingboard.core.design.commands.words import (
    SetProcedure as SetProcedure,
)
from wingboard.core.design.commands.words import (
    SetReference as SetReference,
)
from wingboard.core.design.commands.words import (
    SetStyle as SetStyle,
)

Command = Annotated[
    Rename | SetBrief | SetKeepOut | RemoveKeepOut | SplitOpening
    | SetMachine | SetStock | SetSupply | RemoveFromWorkshop | SetOnHand | LogHours
    | AddFunction | EditFunction | RemoveFunction | MoveFunctions
    | ChoosePart | CopyPart | CombineParts | MeasurePart | EditPart | RemovePart
    | PlacePart | MoveItems | TurnItems | RemoveItems | SetLegend | SetPocket
    | Arrange | SwapGroups | PairMirrored | UnpairItems | LockItems | CopyItems
    | SetStyle | SetGraphic | RemoveGraphic | SetProcedure | RemoveProcedure | SetReference | RemoveReference
    | AddPanel | SetPanel | SetPanelSize | RemovePanel | SetLayer
    | AddController | RemoveController | PinSignal | UnpinSignals | SetPins
    | AcceptFinding | RetractAcceptance | SetLimit,
    Field(discriminator="do"),
]  # fmt: skip

COMMANDS: TypeAdapter[Command] = TypeAdapter(Command)
BATCH: TypeAdapter[tuple[Command, ...]] = TypeAdapter(
    Annotated[tuple[Command, ...], Field(min_length=1, max_length=2000)]
)
