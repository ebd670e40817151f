"""What the page is told of a design: the record, its drawing, its findings, and how far it has got."""

from __future__ import annotations

from pydantic import BaseModel, Field

from wingboard.core.cut.scenes import mark_path
from wingboard.core.face.graphics import Drawing, graphics_on
from wingboard.core.face.legend import Lettering, Word, letterings
from wingboard.core.face.sweep import lever_ways
from wingboard.core.findings.finding import Finding
from wingboard.core.geometry.outline import area_of, svg_path
from wingboard.core.overview.progress import Thread, threads
from wingboard.core.overview.waiting import Readiness, readiness
from wingboard.core.parts.examples import example
from wingboard.core.record.design import Design
from wingboard.core.record.lamps import made_for
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule
from wingboard.core.resolved.placed import Placed
from wingboard.core.wire.lines import lines
from wingboard.services.desk import Kept, State


class WordView(BaseModel):
    """A line of words: path data about its own origin, y up, and where that is, relative to the part's centre."""

    text: str
    role: str
    path: str
    stroke: float | None
    x: float
    y: float


class LetteringView(BaseModel):
    """The words and detent marks of one placed part."""

    words: list[WordView]
    marks: str
    inside: bool


class GraphicView(BaseModel):
    """A graphic of the face: its words, its lines as path data, and the room it takes, in the module's coordinates."""

    id: str
    module: str
    kind: str
    words: list[WordView]
    lines: str
    room: list[float]


class FixingView(BaseModel):
    """A screw; ``by_hand`` is its id where a hand placed it."""

    name: str
    x: float
    y: float
    hole: float
    head: float
    by_hand: str | None


class ModuleView(BaseModel):
    """A module's plate as path data in its own coordinates, y up."""

    id: str
    name: str
    path: str
    width: float
    height: float
    x: float
    y: float
    fixings: list[FixingView]
    face_colour: str
    back_colour: str


class DesignView(BaseModel):
    """A design as the page holds it. ``lettering`` holds all placed parts, or, after a change, those that changed."""

    id: str
    revision: int
    kept_at: str
    label: str
    can_undo: bool
    can_redo: bool
    design: Design
    modules: list[ModuleView]
    opening: str
    opening_width: float
    opening_height: float
    lettering: dict[str, LetteringView]
    graphics: list[GraphicView]
    examples: dict[str, str]
    owners: dict[str, str] = Field(description="The function of each line, by the line's id")
    lenses: dict[str, str] = Field(
        description="Fill of the lenses of functions whose lamp is not in its part's usual colour"
    )
    ways: dict[str, tuple[str, ...]] = Field(
        description="Which way the lever of a function points at each of its words, where it points straight"
    )
    partial: bool
    findings: tuple[Finding, ...]
    threads: dict[str, Thread]
    readiness: Readiness


def whole_view(state: State) -> DesignView:
    """Everything about a design at one revision."""
    return _view(
        state, {ident: _lettering(letters) for ident, letters in _by_function(state.resolved).items()}, partial=False
    )


def changed_view(kept: Kept) -> DesignView:
    """Everything but the lettering that did not change between the two states."""
    before = _by_function(kept.before.resolved)
    changed = {
        ident: _lettering(letters)
        for ident, letters in _by_function(kept.state.resolved).items()
        if before.get(ident) is not letters
    }
    return _view(kept.state, changed, partial=True)


def _examples(r: Resolved) -> dict[str, str]:
    """What each placed read-out shows, by its function."""
    shown = ((p.function.id, example(p.function, p.part)) for p in r.placed if p.part.family in ("readout", "display"))
    return {ident: text for ident, text in shown if text is not None}


def _lenses(r: Resolved) -> dict[str, str]:
    """The fill of the lenses of lamps that are not in the usual colour of their part, by function."""
    found = {}
    for f in r.design.functions:
        usual = r.parts.get(f.part or "")
        part = made_for(f, usual) if usual else None
        lens = next((piece.fill for piece in part.front if piece.lamp), None) if part else None
        if part is not usual and lens:
            found[f.id] = lens
    return found


def _by_function(r: Resolved) -> dict[str, Lettering]:
    letters = letterings(r)
    return {p.function.id: letters[p.number] for p in r.placed}


def _view(state: State, letters: dict[str, LetteringView], partial: bool) -> DesignView:
    r = state.resolved
    opening = r.design.brief.opening.loop()
    width, height = _size(r)
    return DesignView.model_construct(
        id=state.design_id,
        revision=state.row.number,
        kept_at=state.row.kept_at,
        label=state.row.label,
        can_undo=state.row.undo_to is not None,
        can_redo=state.row.redo_to is not None,
        design=state.design,
        modules=[_module(p) for p in r.modules.values()],
        opening=svg_path(opening),
        opening_width=width,
        opening_height=height,
        lettering=letters,
        graphics=[_graphic(d) for p in r.modules.values() for d in graphics_on(r, p)],
        examples=_examples(r),
        owners={line.id: line.function for line in lines(r)},
        lenses=_lenses(r),
        ways={f.id: ways for f in r.design.functions if f.part and (ways := lever_ways(f, r.parts[f.part]))},
        partial=partial,
        findings=state.findings,
        threads=threads(r),
        readiness=readiness(r, state.findings),
    )


def _size(r: Resolved) -> tuple[float, float]:
    x0, y0, x1, y1 = area_of(r.design.brief.opening.loop()).bounds
    return x1 - x0, y1 - y0


def _module(resolved: ResolvedModule) -> ModuleView:
    module, (width, height) = resolved.module, resolved.size
    fixings = [FixingView(**f._asdict()) for f in resolved.fixings]
    return ModuleView(
        id=module.id,
        name=module.name,
        path=svg_path(resolved.loop),
        width=width,
        height=height,
        x=module.x,
        y=module.y,
        fixings=fixings,
        face_colour=resolved.plates[0].colour,
        back_colour=resolved.plates[-1].colour,
    )


def _lettering(letters: Lettering) -> LetteringView:
    words = [_word(w) for w in letters.words]
    return LetteringView(words=words, marks="".join(mark_path(m) for m in letters.marks), inside=letters.inside)


def _word(word: Word) -> WordView:
    line = word.run
    stroke = None if word.symbol else line.stroke
    return WordView(text=line.text, role=word.role, path=line.path, stroke=stroke, x=word.x, y=word.y)


def _graphic(drawing: Drawing) -> GraphicView:
    graphic = drawing.graphic
    lines = "".join(f"M{x0:.3f} {y0:.3f}L{x1:.3f} {y1:.3f}" for x0, y0, x1, y1 in drawing.lines)
    words = [_word(w) for w in drawing.words]
    return GraphicView(
        id=graphic.id, module=graphic.module, kind=graphic.kind, words=words, lines=lines, room=list(drawing.room)
    )


def placed_by_id(r: Resolved, function: str) -> Placed | None:
    """The placed part of a function."""
    return next((p for p in r.placed if p.function.id == function), None)
