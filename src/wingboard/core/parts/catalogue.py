"""The catalogue of generic parts, read once from the data files in ``families/``."""

from __future__ import annotations

import tomllib
from collections.abc import Mapping
from functools import cache
from importlib import resources
from types import MappingProxyType

from pydantic import TypeAdapter

from wingboard.core.design.part import Part

_FAMILY: TypeAdapter[tuple[Part, ...]] = TypeAdapter(tuple[Part, ...])


@cache
def catalogue() -> Mapping[str, Part]:
    """Every generic part by id, in the order of the files and within each file.

    :raises ValueError: a data file breaks the schema, or two parts share an id (both are programming errors).
    """
    parts: dict[str, Part] = {}
    folder = resources.files("wingboard.core.parts") / "families"
    for file in sorted(folder.iterdir(), key=lambda f: f.name):
        for part in _FAMILY.validate_python(tomllib.loads(file.read_text("utf-8"))["part"]):
            if part.id in parts:
                raise ValueError(f"part “{part.id}” is in the catalogue twice")
            parts[part.id] = part
    return MappingProxyType(parts)
