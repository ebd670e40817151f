"""The whole plan of cutting: the sheets, what is done to each, and what its written program was found to do."""

from __future__ import annotations

import threading
from collections import OrderedDict
from collections.abc import Iterator
from functools import lru_cache
from typing import NamedTuple

from wingboard.core.cut.beside import beside, forget_fillings, outside
from wingboard.core.cut.colours import colours_of
from wingboard.core.cut.coupons import coats, coupon, depths, gauge, rungs
from wingboard.core.cut.judged import Verdict, judged
from wingboard.core.cut.operations import ladder, operations
from wingboard.core.cut.program import programs
from wingboard.core.cut.sheets import EDGE, Coupon, Laid, Sheet, layout
from wingboard.core.cut.work import Operation, fit_of
from wingboard.core.files.gcode import write_gcode
from wingboard.core.files.scene import Item, Scene
from wingboard.core.files.svg import write_svg
from wingboard.core.record.design import Design
from wingboard.core.record.materials import materials
from wingboard.core.resolved.design import Resolved


class _Content:
    """A sheet by what lies on it and what cuts it: two alike have the same plan, whatever else was changed."""

    def __init__(self, design: Design, sheet: Sheet) -> None:
        self.design, self.sheet = design, sheet
        self.fit = fit_of(design, sheet.machine, sheet.material, sheet.thickness)
        self._key = (
            sheet._replace(laid=(), number=0, stock=None), self.fit,
            tuple(
                (p.x, p.y, p.turned, p.piece.side, p.piece.turned_over, p.piece.id, p.piece.scene.items)
                for p in sheet.laid
            ),
        )  # fmt: skip
        self._hash = hash(self._key)

    def __hash__(self) -> int:
        return self._hash

    def __eq__(self, other: object) -> bool:
        return isinstance(other, _Content) and other._key == self._key


@lru_cache(maxsize=60)
def _planned(content: _Content) -> tuple[Operation, ...]:
    return operations(content.design, content.sheet)


@lru_cache(maxsize=60)
def _judged(content: _Content) -> Verdict:
    return judged(content.sheet, _planned(content), content.fit.wider)


class KnownFaults:
    """Sheets whose written program was found wrong, by their content: what a check may say without reading files.

    Safe to use from several threads. ``many`` grows with each that becomes known.
    """

    KEPT = 60

    def __init__(self) -> None:
        self._lock = threading.Lock()
        self._found: OrderedDict[_Content, Verdict] = OrderedDict()
        self.many = 0

    def keep(self, content: _Content, verdict: Verdict) -> bool:
        """Remember a verdict with faults; whether it was not known before."""
        with self._lock:
            new = content not in self._found
            self._found[content] = verdict
            self.many += new
            while len(self._found) > self.KEPT:
                self._found.popitem(last=False)
        return new

    def of(self, r: Resolved) -> list[tuple[Sheet, Verdict]]:
        """The sheets of a design that are known to be wrong."""
        if not self._found:
            return []  # nearly always: no sheet has to be drawn for this
        with self._lock:
            known = dict(self._found)
        return [(s, known[content]) for s in layout(r).sheets if (content := _content(r, s)) in known]


WRONG = KnownFaults()
"""What was found in this process."""


def forget_plans() -> None:
    """Plan anew what is asked for next: for measuring."""
    _planned.cache_clear()
    _judged.cache_clear()
    forget_fillings()


def _content(r: Resolved, sheet: Sheet) -> _Content:
    return r.once(f"content of {sheet.id}", lambda: _Content(r.design, sheet))


def planned(r: Resolved, sheet: Sheet) -> tuple[Operation, ...]:
    """The operations of a sheet."""
    return _planned(_content(r, sheet))


def verdict(r: Resolved, sheet: Sheet) -> Verdict:
    """What the sheet's written program does; where that is wrong, :data:`WRONG` knows it from then on."""
    content = _content(r, sheet)
    found = _judged(content)
    if found.faults:
        WRONG.keep(content, found)
    return found


def sheet_title(sheet: Sheet) -> str:
    """A sheet in words: ``Laser, acrylic 2 mm, sheet 1``."""
    known = materials()[sheet.material].name.lower()
    return f"{sheet.machine.name}, {known} {sheet.thickness:g} mm, sheet {sheet.number}"


def sheet_scene(r: Resolved, sheet: Sheet) -> Scene:
    """Everything on a sheet as it is drawn, its origin the sheet's lower left corner."""
    items: list[Item] = [item for laid in sheet.laid for item in laid.items()]
    return Scene(f"{r.design.name}: {sheet_title(sheet)}", sheet.width, sheet.height, sheet.thickness, tuple(items))


def _dxf(scene: Scene) -> bytes:
    from wingboard.core.files.dxf import write_dxf  # ezdxf takes a while to load, and is not needed at the start

    return write_dxf(scene)


class SheetFile(NamedTuple):
    """A file of a sheet, by its name in the sheet's folder."""

    name: str
    content: bytes


def folder_of(r: Resolved, sheet: Sheet) -> str:
    """The folder of a sheet's files: its place in the working order, its machine, what lies on it."""
    number = [s.id for s in layout(r).sheets].index(sheet.id) + 1
    on = list(dict.fromkeys(laid.piece.id.replace("/", "-") for laid in sheet.laid))
    what = "-".join(on[:2]) + (f"-and-{len(on) - 2}-more" if len(on) > 2 else "")
    return f"{number:02d}-{sheet.machine.id}-{what}"


def program_files(r: Resolved, sheet: Sheet) -> Iterator[SheetFile]:
    """The programs of a sheet as G-code files."""
    title = f"{r.design.name}: {folder_of(r, sheet)}"
    for named in programs(sheet, planned(r, sheet), title):
        yield SheetFile(f"{named.name}.nc", write_gcode(named.program))


def lines_scene(r: Resolved, sheet: Sheet) -> Scene:
    """A sheet's lines for other software: of a laser with its kerf taken off, else on the drawn edge."""
    scene = sheet_scene(r, sheet)
    if not kerf_taken_off(sheet):
        return scene._replace(title=f"{scene.title}; lines on the drawn edge, no kerf taken off")
    fit = fit_of(r.design, sheet.machine, sheet.material, sheet.thickness)
    items: list[Item] = []
    for item in scene.items:
        if item.operation == "inner":
            lines = beside(item.path, (fit.kerf - fit.wider) / 2)
            items += [item._replace(path=line, drill=None) for line in lines]
        elif item.operation == "outline":
            items.append(item._replace(path=outside(item.path, fit.kerf / 2)))
        else:
            items.append(item)
    words = f"kerf {fit.kerf:g} mm taken off" + (f", holes {fit.wider:g} mm wider" if fit.wider else "")
    return scene._replace(title=f"{scene.title}; {words}", items=tuple(items))


def kerf_taken_off(sheet: Sheet) -> bool:
    """Whether a sheet's lines are where the beam goes; a mill, and software that offsets by itself, want the edge."""
    return sheet.machine.kind == "laser" and not sheet.machine.offsets


def sheet_files(r: Resolved, sheet: Sheet) -> Iterator[SheetFile]:
    """Every file of a sheet but its coupon: its lines as drawings, and its programs."""
    scene = lines_scene(r, sheet)
    stem = "lines-kerf-taken-off" if kerf_taken_off(sheet) else "lines-drawn-edge"
    yield SheetFile(f"{stem}.svg", write_svg(scene, colours_of(r.design)))
    yield SheetFile(f"{stem}.dxf", _dxf(scene))
    yield from program_files(r, sheet)


def coupon_files(r: Resolved, sheet: Sheet) -> tuple[SheetFile, ...]:
    """The coupons to be cut of such a sheet first, each as a drawing and as a program: holes, depths, slots, paint."""
    made: list[SheetFile] = []
    for what, scene in coupons(r, sheet).items():
        piece = Laid(Coupon(scene), 0, EDGE, EDGE, False)
        bare = sheet._replace(laid=(piece,), width=scene.width + 2 * EDGE, height=scene.height + 2 * EDGE, taken=())
        ops = operations(r.design, bare) if what != "depth" else ladder(r.design, bare, rungs(sheet.machine))
        whole = next(programs(bare, ops, scene.title))
        made += [
            SheetFile(f"{what}.svg", write_svg(scene, colours_of(r.design))),
            SheetFile(f"{what}.nc", write_gcode(whole.program)),
        ]
        if what == "coupon":
            made.append(SheetFile("coupon.dxf", _dxf(scene)))
    return tuple(made)


def coupons(r: Resolved, sheet: Sheet) -> dict[str, Scene]:
    """The coupons of a kind of sheet by their names; that of paint where the sheet's pieces are painted."""
    name, thick = materials()[sheet.material].name, sheet.thickness
    made = {
        "coupon": coupon(r, name, thick),
        "depth": depths(name, thick, rungs(sheet.machine)),
        "slots": gauge(name, thick),
    }
    if any(laid.piece.layer is not None and laid.piece.layer.paint for laid in sheet.laid):
        made["paint"] = coats(name, thick)
    return made


def kinds_of_sheet(r: Resolved) -> dict[str, Sheet]:
    """One sheet for each machine, material and thickness, by the name of its coupon's files."""
    return {f"{s.machine.id}-{s.material}-{s.thickness:g}".replace(".", "_"): s for s in reversed(layout(r).sheets)}
