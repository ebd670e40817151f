"""What one revision changed, as an RFC 6902 patch, found without comparing what is the same object."""

from __future__ import annotations

from collections.abc import Hashable, Sequence
from itertools import pairwise
from typing import Any

import jsonpatch

from wingboard.core.record.base import Record
from wingboard.core.record.design import Design

Operations = list[dict[str, Any]]
_NAMES = ("id", "line", "finding", "limit", "part")
"""What tells an entry of a list from the others, in the order looked for."""


def patch_between(old: Design, new: Design) -> Operations:
    """RFC 6902 operations that turn the JSON of ``old`` into that of ``new``, in proportion to what changed.

    What is the same object in both is skipped; entries of lists are told apart by their ids, so that one removed is
    one operation.
    """
    operations: Operations = []
    for name in Design.model_fields:
        before, after = getattr(old, name), getattr(new, name)
        if before is not after:
            operations += _between(f"/{name}", before, after)
    return operations


def patched(design: Design, operations: Operations) -> Design:
    """The design after the patch, validated."""
    return Design.model_validate(jsonpatch.apply_patch(design.model_dump(mode="json"), operations))


def _between(path: str, before: Any, after: Any) -> Operations:
    """What turns one value into another: records field by field, lists of named entries entry by entry."""
    if before is after:
        return []
    if isinstance(before, tuple) and isinstance(after, tuple):
        names = _names_of(before), _names_of(after)
        if names[0] is not None and names[1] is not None:
            return _between_named(path, before, after, names[0], names[1])
    if isinstance(before, Record) and type(before) is type(after):
        fields = type(before).model_fields
        return [op for n in fields for op in _between(f"{path}/{n}", getattr(before, n), getattr(after, n))]
    plain = _plain(before), _plain(after)
    return [] if plain[0] == plain[1] else [{"op": "replace", "path": path, "value": plain[1]}]


def _names_of(entries: Sequence[Any]) -> list[Hashable] | None:
    """What each entry is called; None when they are no named records, or two have one name."""
    if not all(isinstance(entry, Record) for entry in entries):
        return None
    found: list[Hashable] = []
    for entry in entries:
        name = next((getattr(entry, n) for n in _NAMES if isinstance(getattr(entry, n, None), str)), None)
        found.append(name)
    return found if None not in found and len(set(found)) == len(found) else None


def _between_named(
    path: str, before: Sequence[Any], after: Sequence[Any], old: list[Hashable], new: list[Hashable]
) -> Operations:
    staying = _in_order(old, new)
    operations: Operations = [
        {"op": "remove", "path": f"{path}/{i}"} for i in range(len(old) - 1, -1, -1) if old[i] not in staying
    ]
    known = dict(zip(old, before, strict=True))
    for i, (name, entry) in enumerate(zip(new, after, strict=True)):
        if name in staying:
            operations += _between(f"{path}/{i}", known[name], entry)
        else:
            operations.append({"op": "add", "path": f"{path}/{i}", "value": _plain(entry)})
    return operations


def _in_order(old: list[Hashable], new: list[Hashable]) -> set[Hashable]:
    """The names in both lists that keep their order: as many as can be had (longest increasing subsequence)."""
    place = {name: i for i, name in enumerate(old)}
    both = [name for name in new if name in place]
    if all(place[a] < place[b] for a, b in pairwise(both)):
        return set(both)
    ends: list[int] = []
    links: list[int] = [-1] * len(both)
    for k, name in enumerate(both):
        low, high = 0, len(ends)
        while low < high:
            middle = (low + high) // 2
            low, high = (middle + 1, high) if place[both[ends[middle]]] < place[name] else (low, middle)
        links[k] = ends[low - 1] if low else -1
        ends[low : low + 1] = [k]
    kept: set[Hashable] = set()
    k = ends[-1] if ends else -1
    while k >= 0:
        kept.add(both[k])
        k = links[k]
    return kept


def _plain(value: Any) -> Any:
    if isinstance(value, Record):
        return value.model_dump(mode="json")
    if isinstance(value, tuple):
        return [_plain(entry) for entry in value]
    if isinstance(value, dict):
        return {name: _plain(entry) for name, entry in value.items()}
    return value
