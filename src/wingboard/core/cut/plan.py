"""The whole plan of cutting: the sheets, what is done to each, and what its written program was found to do."""

from __future__ import annotations

from collections.abc import Iterator
from typing import NamedTuple

from wingboard.core.cut.coupons import coupon
from wingboard.core.cut.judged import Verdict, judged
from wingboard.core.cut.operations import Operation, fit_of, operations
from wingboard.core.cut.program import programs
from wingboard.core.cut.sheets import EDGE, Coupon, Laid, Sheet, layout
from wingboard.core.files.dxf import write_dxf
from wingboard.core.files.gcode import write_gcode
from wingboard.core.files.scene import Item, Scene
from wingboard.core.files.svg import write_svg
from wingboard.core.record.materials import materials
from wingboard.core.resolved.design import Resolved


def planned(r: Resolved, sheet: Sheet) -> tuple[Operation, ...]:
    """The operations of a sheet."""
    return r.once(f"operations of {sheet.id}", lambda: operations(r.design, sheet))


def verdict(r: Resolved, sheet: Sheet) -> Verdict:
    """What the sheet's written program does."""
    wider = fit_of(r.design, sheet.machine, sheet.material, sheet.thickness).wider
    return r.once(f"verdict on {sheet.id}", lambda: judged(sheet, planned(r, sheet), wider))


def sheet_title(sheet: Sheet) -> str:
    """A sheet in words: ``Laser, acrylic 2 mm, sheet 1``."""
    known = materials()[sheet.material].name.lower()
    return f"{sheet.machine.name}, {known} {sheet.thickness:g} mm, sheet {sheet.number}"


def sheet_scene(r: Resolved, sheet: Sheet) -> Scene:
    """Everything on a sheet as it is drawn, its origin the sheet's lower left corner."""
    items: list[Item] = [item for laid in sheet.laid for item in laid.items()]
    return Scene(f"{r.design.name}: {sheet_title(sheet)}", sheet.width, sheet.height, sheet.thickness, tuple(items))


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


def coupon_files(r: Resolved, sheet: Sheet) -> tuple[SheetFile, ...]:
    """The coupon to be cut of such a sheet first: as a drawing twice, and as a program."""
    scene = coupon(r, materials()[sheet.material].name, sheet.thickness)
    piece = Laid(Coupon(scene), 0, EDGE, EDGE, False)
    bare = sheet._replace(laid=(piece,), width=scene.width + 2 * EDGE, height=scene.height + 2 * EDGE, taken=())
    whole = next(programs(bare, operations(r.design, bare), scene.title))
    return (
        SheetFile("coupon.svg", write_svg(scene)), SheetFile("coupon.dxf", write_dxf(scene)),
        SheetFile("coupon.nc", write_gcode(whole.program)),
    )  # fmt: skip
