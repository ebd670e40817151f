"""Every file of a design, by its path in the export folder."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from functools import partial

from wingboard.core.cut.jobsheet import job_sheet, unsettled
from wingboard.core.cut.mockup import mockup_face, mockup_rear
from wingboard.core.cut.scenes import panel_scenes
from wingboard.core.design.resolved import Resolved, ResolvedPanel
from wingboard.core.files.dxf import write_dxf
from wingboard.core.files.scene import Scene
from wingboard.core.files.svg import write_svg
from wingboard.core.files.template import PAPERS, write_template
from wingboard.core.findings.finding import Finding


def cut_file(r: Resolved, findings: Sequence[Finding], panel: ResolvedPanel, name: str) -> bytes | None:
    """One file of a panel by its name, such as ``face.svg`` or ``template-a4.pdf``; None when there is no such file."""
    made = _named(r, findings, panel).get(name)
    return made[0](made[1]) if made else None


def cut_files(r: Resolved, findings: Sequence[Finding]) -> dict[str, bytes]:
    """All files for the machines: ``cut/<panel>/<layer>.svg`` and so on, and ``cut/job-sheet.txt``."""
    files = {"cut/job-sheet.txt": job_sheet(r, findings).encode()}
    for panel in r.panels.values():
        for name, (writer, scene) in _named(r, findings, panel).items():
            files[f"cut/{panel.panel.id}/{name}"] = writer(scene)
    return files


def cut_file_names(r: Resolved, panel: ResolvedPanel) -> tuple[str, ...]:
    """The names of a panel's files."""
    return tuple(_named(r, (), panel))


Made = tuple[Callable[[Scene], bytes], Scene]


def _named(r: Resolved, findings: Sequence[Finding], panel: ResolvedPanel) -> dict[str, Made]:
    named: dict[str, Made] = {}
    scenes = panel_scenes(r, panel)
    for name, scene in scenes.items():
        named[f"{name}.svg"] = (write_svg, scene)
        named[f"{name}.dxf"] = (write_dxf, scene)
        if scene.of("pocket"):
            named[f"{name}-from-behind.svg"] = (write_svg, scene.seen_from_behind())
            named[f"{name}-from-behind.dxf"] = (write_dxf, scene.seen_from_behind())
    first = next(iter(scenes.values()))
    face, rear = mockup_face(r, panel), mockup_rear(r, panel)
    for paper in PAPERS:
        named[f"template-{paper}.pdf"] = (partial(write_template, paper=paper, notes=unsettled(findings)), first)
        named[f"mock-up-face-{paper}.pdf"] = (partial(write_template, paper=paper), face)
        named[f"mock-up-rear-{paper}.pdf"] = (partial(write_template, paper=paper), rear)
    return named
