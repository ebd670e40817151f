"""Every file of a design, by its path in the export folder."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from functools import partial

from wingboard.core.cut.jobsheet import job_sheet, unsettled
from wingboard.core.cut.mockup import mockup_face, mockup_rear
from wingboard.core.cut.scenes import module_scenes
from wingboard.core.files.dxf import write_dxf
from wingboard.core.files.scene import Scene
from wingboard.core.files.svg import write_svg
from wingboard.core.files.template import PAPERS, write_template
from wingboard.core.findings.finding import Finding
from wingboard.core.resolved.design import Resolved, ResolvedModule


def cut_file(r: Resolved, findings: Sequence[Finding], module: ResolvedModule, name: str) -> bytes | None:
    """One file of a module by its name, such as ``face.svg`` or ``template-a4.pdf``; None when there is none."""
    made = _named(r, findings, module).get(name)
    return made[0](made[1]) if made else None


def cut_files(r: Resolved, findings: Sequence[Finding]) -> dict[str, bytes]:
    """All files for the machines: ``cut/<module>/<layer>.svg`` and so on, and ``cut/job-sheet.txt``."""
    files = {"cut/job-sheet.txt": job_sheet(r, findings).encode()}
    for module in r.modules.values():
        for name, (writer, scene) in _named(r, findings, module).items():
            files[f"cut/{module.module.id}/{name}"] = writer(scene)
    return files


def cut_file_names(r: Resolved, module: ResolvedModule) -> tuple[str, ...]:
    """The names of a module's files."""
    return tuple(_named(r, (), module))


Made = tuple[Callable[[Scene], bytes], Scene]


def _named(r: Resolved, findings: Sequence[Finding], module: ResolvedModule) -> dict[str, Made]:
    named: dict[str, Made] = {}
    scenes = module_scenes(r, module)
    for name, scene in scenes.items():
        named[f"{name}.svg"] = (write_svg, scene)
        named[f"{name}.dxf"] = (write_dxf, scene)
        if scene.of("pocket"):
            named[f"{name}-from-behind.svg"] = (write_svg, scene.seen_from_behind())
            named[f"{name}-from-behind.dxf"] = (write_dxf, scene.seen_from_behind())
    first = next(iter(scenes.values()))
    face, rear = mockup_face(r, module), mockup_rear(r, module)
    for paper in PAPERS:
        named[f"template-{paper}.pdf"] = (partial(write_template, paper=paper, notes=unsettled(findings)), first)
        named[f"mock-up-face-{paper}.pdf"] = (partial(write_template, paper=paper), face)
        named[f"mock-up-rear-{paper}.pdf"] = (partial(write_template, paper=paper), rear)
    return named
