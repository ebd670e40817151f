"""What is known of the materials of sheets, read once from ``materials.toml``, each value with its source."""

from __future__ import annotations

import tomllib
from collections.abc import Mapping
from functools import cache
from importlib import resources
from types import MappingProxyType
from typing import Annotated, Literal, get_args

from pydantic import Field, model_validator

from wingboard.core.record.base import Length, Record, Source, Words
from wingboard.core.record.workshop import Material, Process

Handling = Literal["cuts", "burns", "poison", "no"]
"""What a process does to a material: as usual, badly, so that it hurts somebody, or not at all."""


class Milling(Record):
    """Where to begin when it is milled."""

    vc: tuple[float, float] = Field(description="Surface speed, m/min")
    fz: tuple[float, float] = Field(description="Feed a tooth, mm")
    flutes: Annotated[int, Field(ge=1, le=4)]
    depth: Annotated[float, Field(gt=0, le=1)] = Field(description="Of one pass, as a share of the cutter's diameter")


class Stiffness(Record):
    """How a sheet of it bends."""

    e: Annotated[float, Field(gt=0)] = Field(description="Modulus of elasticity, GPa")
    nu: Annotated[float, Field(ge=0, lt=0.5)] = Field(description="Poisson's ratio")


class Known(Record):
    """What is known of a material."""

    name: Words
    bridge: Literal["bridge-acrylic", "bridge-fibre", "bridge-metal"]
    laser: Handling
    mill: Handling
    printer: Handling
    hand: Handling
    wet: Literal["stands", "swells", "rusts"]
    sun: Literal["stands", "yellows"]
    soft: float | None = Field(None, description="Where it begins to give way, °C")
    brittle: bool
    backed: Length = Field(0.0, description="A face of it thinner than this wants a plate behind it, mm")
    conducts: bool
    light: tuple[Literal["clear", "translucent", "opaque"], ...]
    stiff: Stiffness
    milling: Milling | None = None
    lasering: Annotated[float, Field(gt=0)] | None = Field(
        None, description="Speed of a cut through 1 mm with 1 W, mm/s: falls with the thickness, rises with the power"
    )
    sources: dict[str, Source]

    @model_validator(mode="after")
    def _every_value_has_a_source(self) -> Known:
        wanted = {"bridge", "processes", "weather", "stiff"}
        wanted |= {name for name in ("soft", "milling", "lasering") if getattr(self, name) is not None}
        wanted |= {"brittle"} if self.brittle else set()
        if wanted != set(self.sources):
            raise ValueError(f"sources of {self.name}: {sorted(wanted ^ set(self.sources))}")
        return self

    def under(self, process: Process) -> Handling:
        """What a process does to it."""
        handling: Handling = getattr(self, process)
        return handling


@cache
def materials() -> Mapping[Material, Known]:
    """Every material by its name in the record, in the order of the file.

    :raises ValueError: the file breaks its schema, or a material of the record is missing (a programming error).
    """
    file = resources.files("wingboard.core.record") / "materials.toml"
    read = {name: Known.model_validate(fields) for name, fields in tomllib.loads(file.read_text("utf-8")).items()}
    names: tuple[Material, ...] = get_args(Material)
    if set(names) != set(read):
        raise ValueError(f"materials.toml: {sorted(set(names) ^ set(read))}")
    return MappingProxyType({name: read[name] for name in names})
