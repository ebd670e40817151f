"""The modules of a panel and their screws."""

from __future__ import annotations

from wingboard.core.changes.commands.modules import (
    AddModule,
    AddScrew,
    EditModule,
    EditScrew,
    RemoveFixings,
    RemoveModule,
    RemoveScrew,
    ResizeModule,
    SetFixings,
    SplitModule,
)
from wingboard.core.changes.handlers.layers import with_known_features
from wingboard.core.changes.handlers.steps import (
    Catalogue,
    carry_out,
    changes_in,
    edited,
    find_module,
    found,
    new_ident,
    replaced,
    with_changes,
    with_functions,
)
from wingboard.core.changes.splitting import split_module
from wingboard.core.geometry.outline import area_of
from wingboard.core.record.design import Design
from wingboard.core.record.functions import Function
from wingboard.core.record.modules import Fixings, Module, ScrewAt
from wingboard.core.record.outlines import resized


@carry_out.register
def handle_add_module(command: AddModule, design: Design, catalogue: Catalogue) -> Design:
    ident = new_ident(command.id, (m.id for m in design.modules), "module-")
    module = Module(id=ident, name=command.name, outline=command.outline, x=command.x, y=command.y)
    return with_changes(design, modules=(*design.modules, module))


def with_module(design: Design, changed: Module) -> Design:
    """The design with a module in the place of the one with its id."""
    return with_changes(design, modules=replaced(design.modules, changed))


@carry_out.register
def handle_edit_module(command: EditModule, design: Design, catalogue: Catalogue) -> Design:
    module = find_module(design, command.module)
    return with_module(design, edited(module, changes_in(command, "module")))


@carry_out.register
def handle_split_module(command: SplitModule, design: Design, catalogue: Catalogue) -> Design:
    module = find_module(design, command.module)
    many = command.pieces if command.at is None else len(command.at) + 1
    pieces = split_module(module, many, command.seam, {m.id for m in design.modules}, command.at)
    at = [m.id for m in design.modules].index(module.id)
    modules = (*design.modules[:at], *pieces, *design.modules[at + 1 :])

    def under(x: float) -> Module:
        """The piece that a place of the module comes onto."""

        def beyond(piece: Module) -> float:
            left, _, right, _ = area_of(piece.outline.loop()).bounds
            return max(piece.x - module.x + left - x, x - (piece.x - module.x + right))

        return min(pieces, key=beyond)

    moved = {}
    for f in design.functions:
        if f.place and f.place.module == module.id:
            piece = under(f.place.x)
            shifted = {"module": piece.id, "x": f.place.x - (piece.x - module.x), "y": f.place.y - (piece.y - module.y)}
            moved[f.id] = f.model_copy(update={"place": f.place.model_copy(update=shifted)})
    graphics = []
    for g in design.graphics:
        if g.module == module.id:
            first = next((moved[i].place for i in g.functions if i in moved), None)
            piece = next((p for p in pieces if first and p.id == first.module), None) or under(g.x)
            stay = tuple(i for i in g.functions if i not in moved or _on(moved[i], piece))
            at_piece = {"x": g.x - (piece.x - module.x), "y": g.y - (0 if stay else piece.y - module.y)}
            g = g.model_copy(update={"module": piece.id, "functions": stay, **at_piece})
        graphics.append(g)
    made = with_changes(with_functions(design, moved), modules=modules, graphics=tuple(graphics))
    return with_known_features(made)


def _on(function: Function, piece: Module) -> bool:
    return function.place is not None and function.place.module == piece.id


@carry_out.register
def handle_resize_module(command: ResizeModule, design: Design, catalogue: Catalogue) -> Design:
    module = find_module(design, command.module)
    outline = resized(module.outline, command.width, command.height)
    return with_module(design, edited(module, {"outline": outline}))


@carry_out.register
def handle_set_fixings(command: SetFixings, design: Design, catalogue: Catalogue) -> Design:
    module = find_module(design, command.module)
    fixings = edited(module.fixings or Fixings(), changes_in(command, "module"))
    return with_module(design, edited(module, {"fixings": fixings}))


def _with_screws(design: Design, module: Module, screws: tuple[ScrewAt, ...]) -> Design:
    fixings = edited(module.fixings or Fixings(corners=False), {"by_hand": screws})
    return with_module(design, edited(module, {"fixings": fixings}))


def _screws(module: Module) -> tuple[ScrewAt, ...]:
    return module.fixings.by_hand if module.fixings else ()


@carry_out.register
def handle_add_screw(command: AddScrew, design: Design, catalogue: Catalogue) -> Design:
    module = find_module(design, command.module)
    ident = new_ident(command.id, (s.id for s in _screws(module)), "s")
    middle = area_of(module.outline.loop()).representative_point()
    x = round(middle.x, 1) if command.x is None else command.x
    y = round(middle.y, 1) if command.y is None else command.y
    return _with_screws(design, module, (*_screws(module), ScrewAt(id=ident, x=x, y=y)))


@carry_out.register
def handle_edit_screw(command: EditScrew, design: Design, catalogue: Catalogue) -> Design:
    module = find_module(design, command.module)
    screw = found(_screws(module), command.screw, "screw", "screw placed by hand")
    changed = edited(screw, changes_in(command, "module", "screw"))
    return _with_screws(design, module, replaced(_screws(module), changed))


@carry_out.register
def handle_remove_screw(command: RemoveScrew, design: Design, catalogue: Catalogue) -> Design:
    module = find_module(design, command.module)
    screw = found(_screws(module), command.screw, "screw", "screw placed by hand")
    return _with_screws(design, module, tuple(s for s in _screws(module) if s is not screw))


@carry_out.register
def handle_remove_fixings(command: RemoveFixings, design: Design, catalogue: Catalogue) -> Design:
    return with_module(design, edited(find_module(design, command.module), {"fixings": None}))


@carry_out.register
def handle_remove_module(command: RemoveModule, design: Design, catalogue: Catalogue) -> Design:
    module = find_module(design, command.module)
    freed = {
        f.id: f.model_copy(update={"place": None}) for f in design.functions if f.place and f.place.module == module.id
    }
    left = with_changes(
        with_functions(design, freed),
        modules=tuple(m for m in design.modules if m is not module),
        graphics=tuple(g for g in design.graphics if g.module != module.id),
        references=tuple(r for r in design.references if r.module != module.id),
    )
    return with_known_features(left)
