"""The pieces of a module's case as sheets to cut."""

from __future__ import annotations

from wingboard.core.files.scene import Item, Scene
from wingboard.core.files.tables import write_csv
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule
from wingboard.core.stack.case import CUTTING_LIST, case_of, cutting_list, outline_of


def case_scenes(r: Resolved, module: ResolvedModule) -> dict[str, Scene]:
    """A scene for each kind of piece, by its id; nothing without a case, or for a printed one."""
    made = case_of(r, module)
    if made is None or made.case.made == "printed":
        return {}
    scenes = {}
    for piece in made.pieces:
        many = f", {piece.many} of these" if piece.many > 1 else ""
        title = f"{r.design.name}, {module.module.name}: case, {piece.name.lower()}{many}"
        items = [Item("inner", o.path, f"{piece.name}, {o.what}") for o in piece.openings]
        items.append(Item("outline", outline_of(piece), piece.name))
        scenes[piece.id] = Scene(title, piece.width, piece.height, made.case.thickness, tuple(items))
    return scenes


def case_list(r: Resolved, module: ResolvedModule) -> bytes:
    """The cutting list of a module's case as CSV; its heading alone where it has none."""
    made = case_of(r, module)
    return write_csv(CUTTING_LIST, cutting_list(made) if made else [])
