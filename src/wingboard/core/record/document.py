"""Reading and writing a design as JSON text, completed from the catalogue, with every fault at its place."""

from __future__ import annotations

import json
from collections.abc import Mapping
from typing import Any

from pydantic import ValidationError

from wingboard.core.record.base import place_of
from wingboard.core.record.design import Design
from wingboard.core.record.errors import Problem, UnreadableDesign
from wingboard.core.record.part import Part
from wingboard.core.record.upgrade import upgraded


def read_design(text: str | bytes, catalogue: Mapping[str, Part]) -> Design:
    """A design from the JSON the application writes; parts it only names are taken from the catalogue.

    :raises UnreadableDesign: not JSON, not a design, or against its schema; lists every place.
    """
    try:
        data = json.loads(text, parse_constant=_refuse_constant)
    except (ValueError, RecursionError) as error:
        raise UnreadableDesign(f"This is not JSON: {error}") from error
    if not isinstance(data, dict) or data.get("format", "wingboard-design") != "wingboard-design":
        raise UnreadableDesign("This JSON is not a Wing Board design (its “format” is another)", "format")
    try:
        return Design.model_validate(_completed(upgraded(data), catalogue))
    except ValidationError as error:
        problems = tuple(Problem(place_of(e["loc"]), e["msg"]) for e in error.errors()[:50])
        first = problems[0]
        where = f"{first.path}: " if first.path else ""
        raise UnreadableDesign(f"{where}{first.message}", first.path, problems) from error


def write_design(design: Design) -> str:
    """The design as indented JSON; what :func:`read_design` reads back is equal."""
    return design.model_dump_json(indent=2, exclude_defaults=False) + "\n"


def _refuse_constant(name: str) -> float:
    raise ValueError(f"{name} is not a number a design may hold")


def _completed(data: dict[str, Any], catalogue: Mapping[str, Part]) -> dict[str, Any]:
    functions, parts = data.get("functions"), data.get("parts", [])
    if not isinstance(functions, list) or not isinstance(parts, list):
        return data
    there = {p.get("id") for p in parts if isinstance(p, dict)}
    named = dict.fromkeys(f.get("part") for f in functions if isinstance(f, dict))
    missing = [catalogue[n].model_dump() for n in named if isinstance(n, str) and n not in there and n in catalogue]
    return {**data, "parts": [*parts, *missing]}
