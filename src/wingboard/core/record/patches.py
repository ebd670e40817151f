"""What one revision changed, as an RFC 6902 patch, found without comparing what is the same object."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

import jsonpatch

from wingboard.core.record.base import Record
from wingboard.core.record.design import Design

Operations = list[dict[str, Any]]


def patch_between(old: Design, new: Design) -> Operations:
    """RFC 6902 operations that turn the JSON of ``old`` into that of ``new``.

    Untouched entries are the same objects in both and are skipped; lists whose length changed are replaced from
    the first difference on.
    """
    operations: Operations = []
    for name in Design.model_fields:
        before, after = getattr(old, name), getattr(new, name)
        if before is after:
            continue
        if isinstance(before, tuple) and isinstance(after, tuple):
            operations += _between_lists(f"/{name}", before, after)
        else:
            operations += _between(f"/{name}", before, after)
    return operations


def patched(design: Design, operations: Operations) -> Design:
    """The design after the patch, validated."""
    return Design.model_validate(jsonpatch.apply_patch(design.model_dump(mode="json"), operations))


def _plain(value: Any) -> Any:
    return value.model_dump(mode="json") if isinstance(value, Record) else value


def _between(path: str, before: Any, after: Any) -> Operations:
    made = jsonpatch.make_patch({"v": _plain(before)}, {"v": _plain(after)})
    return [{**operation, **_rebased(operation, path)} for operation in made]


def _rebased(operation: dict[str, Any], path: str) -> dict[str, str]:
    return {key: path + operation[key][len("/v") :] for key in ("path", "from") if key in operation}


def _between_lists(path: str, before: Sequence[Any], after: Sequence[Any]) -> Operations:
    operations: Operations = []
    shared = min(len(before), len(after))
    start = next((i for i in range(shared) if before[i] is not after[i]), shared)
    if len(before) == len(after):
        for i in range(start, shared):
            if before[i] is not after[i]:
                operations += _between(f"{path}/{i}", before[i], after[i])
        return operations
    operations += [{"op": "remove", "path": f"{path}/{i}"} for i in range(len(before) - 1, start - 1, -1)]
    return operations + [{"op": "add", "path": f"{path}/-", "value": _plain(v)} for v in after[start:]]
