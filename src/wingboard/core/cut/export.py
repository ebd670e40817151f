"""Every file of a design, by its path in the export folder."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from functools import partial
from typing import Literal, NamedTuple

from wingboard.core.cut.byhand import TABLE, cut_list, hand_work, hole_table, holes_of, jigs, work_table
from wingboard.core.cut.cases import case_list
from wingboard.core.cut.colours import colours_of
from wingboard.core.cut.consoles import frame_csv, frame_scene
from wingboard.core.cut.handdrawings import chains, jig_scene, rear_holes
from wingboard.core.cut.inserts import insert_scene
from wingboard.core.cut.jobsheet import job_sheet, unsettled
from wingboard.core.cut.jobsheet_pdf import job_sheet_pdf
from wingboard.core.cut.mockup import mockup_face, mockup_rear
from wingboard.core.cut.plan import coupon_files, folder_of, kinds_of_sheet, sheet_files
from wingboard.core.cut.printed import printed_files
from wingboard.core.cut.scenes import every_scene, module_scenes
from wingboard.core.cut.sections import section_scene
from wingboard.core.cut.sheets import layout
from wingboard.core.files.papers import PAPERS, Paper
from wingboard.core.files.scene import Scene
from wingboard.core.files.svg import Colours, write_svg
from wingboard.core.findings.finding import Finding
from wingboard.core.record.modules import engraved_behind
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule


def cut_file(r: Resolved, findings: Sequence[Finding], module: ResolvedModule, name: str) -> bytes | None:
    """One file of a module by its name, such as ``face.svg`` or ``template-a4.pdf``; None when there is none."""
    made = _named(r, findings, module, module_scenes(r, module)).get(name)
    return made[0](made[1]) if made else None


class CutFile(NamedTuple):
    """One file by its path in the export folder, and how many there are in all."""

    many: int
    name: str
    content: bytes


Share = Literal["sheets", "drawings"]
"""What two can make side by side: what follows from the plan of the sheets, and what is drawn module by module,
and the coupons."""


def cut_files(
    r: Resolved, findings: Sequence[Finding], shares: Sequence[Share] = ("sheets", "drawings")
) -> Iterator[CutFile]:
    """All files for the machines: ``cut/<module>/<layer>.svg`` and so on, one by one; the job sheet first."""
    scenes = every_scene(r)
    if "sheets" in shares:
        yield from _of_sheets(r, findings, scenes)
    if "drawings" in shares:
        yield from _drawn(r, findings, scenes)


def _drawn(r: Resolved, findings: Sequence[Finding], scenes: dict[str, dict[str, Scene]]) -> Iterator[CutFile]:
    made = {
        f"cut/{ident}/{name}": maker
        for ident, drawn in scenes.items()
        for name, maker in _named(r, findings, r.modules[ident], drawn).items()
    }
    frame = frame_scene(r)
    if frame is not None:
        made["cut/frame.svg"] = (partial(write_svg, colours=colours_of(r.design)), frame)
        made["cut/frame-a4.pdf"] = (partial(_template, paper="a4"), frame)
        made["cut/frame-cutting-list.csv"] = (lambda _: frame_csv(r), frame)
    jigs_drawn = jig_scene(r.design.name, jigs(r))
    if jigs_drawn is not None:
        made["cut/jigs-a4.pdf"] = (partial(_template, paper="a4"), jigs_drawn)
    for name, (writer, scene) in made.items():
        yield CutFile(len(made), name, writer(scene))
    for kind, sheet in kinds_of_sheet(r).items():
        for file in coupon_files(r, sheet):
            yield CutFile(len(made), f"cut/coupons/{kind}-{file.name}", file.content)


def _of_sheets(r: Resolved, findings: Sequence[Finding], scenes: dict[str, dict[str, Scene]]) -> Iterator[CutFile]:
    lists = lists_of(r)
    sheets = layout(r).sheets
    many = 2 + len(lists) + 8 * len(sheets)  # about: a sheet has as many programs as operations
    yield CutFile(many, "cut/job-sheet.txt", job_sheet(r, findings, scenes).encode())
    yield CutFile(many, "cut/job-sheet.pdf", job_sheet_pdf(r, findings))
    for name, content in lists.items():
        yield CutFile(many, f"cut/{name}", content)
    for sheet in sheets:
        for file in sheet_files(r, sheet):
            yield CutFile(many, f"cut/{folder_of(r, sheet)}/{file.name}", file.content)


def lists_of(r: Resolved) -> dict[str, bytes]:
    """The lists of all pieces by the names of their files: pieces, holes, and what is drilled with what."""
    lies = {
        laid.piece.id: (sheet.machine.name, folder_of(r, sheet)) for sheet in layout(r).sheets for laid in sheet.laid
    }
    return {
        "cut-list.csv": cut_list(r, lies),
        "hole-table.csv": hole_table(r),
        "drill-schedule.csv": work_table(hand_work(r)),
    }


def cut_file_names(r: Resolved, module: ResolvedModule) -> tuple[str, ...]:
    """The names of a module's files."""
    return tuple(_named(r, (), module, module_scenes(r, module)))


def _dxf(scene: Scene) -> bytes:
    from wingboard.core.files.dxf import write_dxf  # ezdxf takes a while to load, and is not needed at the start

    return write_dxf(scene)


def _preview(scene: Scene, colours: Colours) -> bytes:
    from wingboard.core.cut.preview import preview  # Pillow, likewise

    return preview(scene, colours)


def _by_hand(r: Resolved, module: ResolvedModule) -> Iterator[tuple[str, Scene]]:
    """Chains of holes for the large openings of what no machine cuts."""
    for left in layout(r).unlaid:
        piece = left.piece
        if piece.module.module.id == module.module.id and left.why.startswith("by hand"):
            drawing = chains(piece)
            if drawing is not None:
                yield f"{piece.part}-chain-drilling", drawing


def _holes_and_table(r: Resolved, paper: Paper, notes: tuple[str, ...], scene: Scene) -> bytes:
    return _template(scene, paper, notes, (TABLE, *holes_of(r, scene)))


def _template(
    scene: Scene, paper: Paper, notes: tuple[str, ...] = (), table: tuple[tuple[str, ...], ...] = ()
) -> bytes:
    from wingboard.core.files.template import write_template  # reportlab, likewise

    return write_template(scene, paper, notes, table)


Made = tuple[Callable[[Scene], bytes], Scene]


def _named(
    r: Resolved, findings: Sequence[Finding], module: ResolvedModule, scenes: dict[str, Scene]
) -> dict[str, Made]:
    named: dict[str, Made] = {}
    svg = partial(write_svg, colours=colours_of(r.design))
    mirrored = {layer.id for layer in module.stack if engraved_behind(layer)}
    for name, scene in scenes.items():
        named[f"{name}.svg"] = (svg, scene)
        named[f"{name}.dxf"] = (_dxf, scene)
        if scene.of("pocket") or name in mirrored:
            behind = scene.seen_from_behind()
            named[f"{name}-from-behind.svg"] = (svg, behind)
            named[f"{name}-from-behind.dxf"] = (_dxf, behind)
    first = next(iter(scenes.values()))
    drawn = next((scenes[layer.id] for layer in module.plates if layer.role == "face"), None)
    reusable = drawn is not None and (drawn.width, drawn.height) == module.size  # else it has an origin of its own
    engraved = drawn.of("engrave") if drawn is not None and reusable else ()
    face = mockup_face(r, module, engraved or None)
    rear = mockup_rear(r, module)
    cross = section_scene(r, module)
    left = tuple(str(line) for line in unsettled(findings))
    for paper in PAPERS:
        named[f"template-{paper}.pdf"] = (partial(_holes_and_table, r, paper, left), first)
        named[f"mock-up-face-{paper}.pdf"] = (partial(_template, paper=paper), face)
        named[f"mock-up-rear-{paper}.pdf"] = (partial(_template, paper=paper), rear)
        named[f"section-{paper}.pdf"] = (partial(_template, paper=paper), cross)
        named[f"holes-from-behind-{paper}.pdf"] = (partial(_template, paper=paper), rear_holes(first))
        for name in ("words-vinyl", "words-film"):
            if name in scenes:
                named[f"{name}-{paper}.pdf"] = (partial(_template, paper=paper), scenes[name])
    named["preview.png"] = (partial(_preview, colours=colours_of(r.design)), first)
    for name, drawing in _by_hand(r, module):
        named[f"{name}-a4.pdf"] = (partial(_template, paper="a4"), drawing)
    inserts = insert_scene(r, module)
    if inserts is not None:
        named["lens-inserts.svg"] = (svg, inserts)
        for paper in PAPERS:
            named[f"lens-inserts-{paper}.pdf"] = (partial(_template, paper=paper), inserts)
    if module.module.case is not None and module.module.case.made == "sheet":
        named["case-cutting-list.csv"] = (lambda _: case_list(r, module), first)
    for name, maker in printed_files(r, module, scenes).items():
        named[name] = (lambda _, maker=maker: maker(), first)  # type: ignore[misc]
    return named
