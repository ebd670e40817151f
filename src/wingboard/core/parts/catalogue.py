"""The catalogue of generic parts, read once from the data files in ``families/``.

A part may say ``like = "other"``: it then starts from that part's fields. Its own replace them, ``false`` takes one
away, and its sources are added to those it starts from.
"""

from __future__ import annotations

import tomllib
from collections.abc import Mapping
from functools import cache
from importlib import resources
from types import MappingProxyType
from typing import Any

from wingboard.core.record.part import Part


@cache
def catalogue() -> Mapping[str, Part]:
    """Every generic part by id, in the order of the files and within each file.

    :raises ValueError: a data file breaks the schema, or two parts share an id (both are programming errors).
    """
    raw: dict[str, dict[str, Any]] = {}
    folder = resources.files("wingboard.core.parts") / "families"
    for file in sorted(folder.iterdir(), key=lambda f: f.name):
        for entry in tomllib.loads(file.read_text("utf-8"))["part"]:
            if entry["id"] in raw:
                raise ValueError(f"part “{entry['id']}” is in the catalogue twice")
            raw[entry["id"]] = _filled_in(entry, raw)
    return MappingProxyType({ident: Part.model_validate(fields) for ident, fields in raw.items()})


def _filled_in(entry: dict[str, Any], known: Mapping[str, dict[str, Any]]) -> dict[str, Any]:
    own = dict(entry)
    like = known[own.pop("like")] if "like" in own else {}
    sources = {**like.get("sources", {}), **own.get("sources", {})}
    return {name: value for name, value in {**like, **own, "sources": sources}.items() if value is not False}
