"""What is made and not cut from a sheet: printed layers, cases and caps, words in film, inserts for lenses."""

from __future__ import annotations

from collections.abc import Iterator
from typing import NamedTuple

from wingboard.core.brief.beds import over_bed
from wingboard.core.cut.inserts import insert_scene
from wingboard.core.cut.knobs import SPARES, TALL, caps_of, prints
from wingboard.core.cut.lettered import way_of
from wingboard.core.cut.printed import case_solids, is_printed
from wingboard.core.quantity import VISIBLE, shown
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule


class Other(NamedTuple):
    """Something that no sheet is cut for: how many, who makes it how, the files it is made from (by their beginning).

    ``fine`` says that somebody here can make it.
    """

    name: str
    many: int
    how: str
    file: str
    fine: bool = True


def others(r: Resolved) -> tuple[Other, ...]:
    """Everything, module by module."""
    return tuple(other for module in r.modules.values() for other in _of_module(r, module))


def _of_module(r: Resolved, module: ResolvedModule) -> Iterator[Other]:
    ident, title = module.module.id, module.module.name
    for layer in module.stack:
        if is_printed(layer):
            x0, y0, x1, y1 = module.area_of(layer).bounds
            how, fine = _printer(r, (x1 - x0, y1 - y0, layer.thickness))
            yield Other(f"{title}, {layer.name.lower()}", 1, how, f"{ident}/{layer.id}", fine)
    for solid in case_solids(r, module):
        how, fine = _printer(r, solid.size)
        yield Other(f"{title}, {solid.name.lower()}", 1, how, f"{ident}/{solid.id}", fine)
    for cap in caps_of(module) if prints(r.design.workshop.machines) else ():
        how, fine = _printer(r, (cap.diameter, cap.diameter, TALL))
        spares = f"{how}, {SPARES * cap.many} where they are painted"
        yield Other(f"{title}, knobs of {cap.diameter:g}", cap.many, spares, f"{ident}/{cap.id}", fine)
    way = way_of(r, module)
    if way == "vinyl":
        yield Other(f"{title}, words in adhesive film", 1, "cut by a knife, never by a laser", f"{ident}/words-vinyl")
    if way == "film":
        yield Other(f"{title}, words on film", 1, "printed at 1:1, mirrored", f"{ident}/words-film")
    if insert_scene(r, module) is not None:
        yield Other(f"{title}, inserts for lenses", 1, "printed on film at 1:1, mirrored", f"{ident}/lens-inserts")


def _printer(r: Resolved, size: tuple[float, float, float]) -> tuple[str, bool]:
    """Which printer makes something so wide, high and tall (mm), in words; or what is missing."""
    printers = [m for m in r.design.workshop.machines if m.kind == "printer"]
    if not printers:
        return "no printer in the workshop", False
    over = {m.name: max(over_bed(size[0], size[1], m), size[2] - m.depth) for m in printers}
    for name, by in over.items():
        if by <= VISIBLE:
            return f"printed on {name}", True
    name, by = min(over.items(), key=lambda entry: entry[1])
    return f"{shown(by)} mm too large for {name}", False
