"""What was changed since a piece was cut: whether it must be cut again, and why. Lengths in mm."""

from __future__ import annotations

import hashlib
import math
from collections.abc import Collection

from wingboard.core.cut.pieces import Piece, pieces_of
from wingboard.core.quantity import VISIBLE
from wingboard.core.record.cutting import CutMark, CutPiece
from wingboard.core.resolved.design import Resolved

OUTLINE, GRAPHICS, WORDS = "outline", "graphics", "words"


def _mark(*things: object) -> str:
    """A short name for what things are: the same for equal ones."""
    return hashlib.sha256(repr(things).encode()).hexdigest()[:12]


def _marks(r: Resolved, piece: Piece) -> tuple[CutMark, ...]:
    """How everything of a piece is now: each owner's openings, the face's words and graphics, the outline."""
    layer = piece.layer
    whole = CutMark(of=OUTLINE, mark=_mark(piece.material, piece.thickness, _outline(piece)))
    if layer is None:
        return (whole,)
    made = [whole]
    owned: dict[str, list[object]] = {}
    at: dict[str, tuple[float, float]] = {}
    sizes: dict[str, list[tuple[float, float, float, float]]] = {}
    for cut in piece.module.cutouts(layer.id):
        if not piece.has(cut.x, cut.y):
            continue
        x, y = at.setdefault(cut.owner, (cut.x, cut.y))
        shape = cut.purpose, cut.shape, round(cut.x - x, 3), round(cut.y - y, 3), round(cut.turn, 3), cut.depth
        owned.setdefault(cut.owner, []).append(shape)
        sizes.setdefault(cut.owner, []).append((cut.x - x, cut.y - y, *cut.shape.span))
    made += [
        CutMark(
            of=owner, x=round(at[owner][0], 3), y=round(at[owner][1], 3), **_size(sizes[owner]), mark=_mark(*shapes)
        )
        for owner, shapes in owned.items()
    ]
    if layer.role == "face":
        module = piece.module.module.id
        graphics = [g for g in r.design.graphics if g.module == module]
        made.append(CutMark(of=GRAPHICS, mark=_mark(*graphics, r.design.style)))
        made += [
            CutMark(
                of=f"{WORDS} {p.function.id}",
                mark=_mark(p.function.name, p.function.legend, p.function.positions, r.design.style),
            )
            for p in piece.module.placed
            if piece.has(p.place.x, p.place.y)
        ]
    return tuple(made)


def _size(shapes: list[tuple[float, float, float, float]]) -> dict[str, float]:
    """Twice how far openings reach from their owner's middle, at the most: turned ones count as squares."""
    reach = [(abs(dx) + max(wide, high) / 2, abs(dy) + max(wide, high) / 2) for dx, dy, wide, high in shapes]
    return {"width": round(2 * max(x for x, _ in reach), 2), "height": round(2 * max(y for _, y in reach), 2)}


def abandoned_marks(r: Resolved) -> list[tuple[Piece, str, CutMark]]:
    """What was cut in a module's first plate and is not wanted there any more, with the name of whose it was."""
    before = {c.piece: c.marks for c in r.design.cutting.cut}
    names = {f.id: f.name for f in r.design.functions}
    found = []
    for piece in pieces_of(r) if before else ():
        if piece.layer is None or piece.layer.id != piece.module.plates[0].id or piece.id not in before:
            continue
        now = {m.of: m for m in _marks(r, piece)}
        for was in before[piece.id]:
            here = now.get(was.of)
            gone = here is None or math.dist((was.x, was.y), (here.x, here.y)) > VISIBLE
            if gone and was.width > 0:
                found.append((piece, names.get(was.of, was.of), was))
    return found


def _outline(piece: Piece) -> object:
    if piece.of:
        return piece.drawn.of("outline")
    if piece.layer is None:
        return round(piece.width, 3), round(piece.height, 3), piece.scene.items
    return piece.module.loop_of(piece.layer)


def marked(r: Resolved, pieces: Collection[str]) -> list[CutPiece]:
    """How pieces are now, to be kept when they are cut."""
    return [CutPiece(piece=p.id, marks=_marks(r, p)) for p in pieces_of(r) if p.id in pieces]


def changed_since(r: Resolved) -> dict[str, list[str]]:
    """What differs from what was cut, by the piece, in words; pieces that are as they were are left out."""
    before = {c.piece: {m.of: m for m in c.marks} for c in r.design.cutting.cut}
    names = {f.id: f.name for f in r.design.functions} if before else {}
    found: dict[str, list[str]] = {}
    for piece in pieces_of(r) if before else ():
        if piece.id in before:
            now = {m.of: m for m in _marks(r, piece)}
            reasons = [
                _reason(names, of, before[piece.id].get(of), now.get(of)) for of in {**before[piece.id], **now}
            ]  # fmt: skip
            if any(reasons):
                found[piece.id] = [reason for reason in reasons if reason]
    return found


def _reason(names: dict[str, str], of: str, was: CutMark | None, now: CutMark | None) -> str:
    if of == OUTLINE:
        return "" if was and now and was.mark == now.mark else "its sheet or its outline is another"
    if of == GRAPHICS:
        return "" if was and now and was.mark == now.mark else "its graphics or its lettering are others"
    words, ident = of.startswith(f"{WORDS} "), of.removeprefix(f"{WORDS} ")
    name = names.get(ident, ident)
    if was is None or now is None:
        return "" if words else f"{name} {'is new' if was is None else 'is gone'}"
    moved = math.dist((was.x, was.y), (now.x, now.y))
    if moved > VISIBLE:
        return f"{name} moved {moved:.1f} mm"
    if was.mark == now.mark:
        return ""
    return f"{name} reads otherwise" if words else f"{name} has other openings"
