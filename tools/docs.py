"""Writes the generated documents: ``python tools/docs.py`` (a test compares them with the code)."""

from __future__ import annotations

import json
import sys
from pathlib import Path

from wingboard.api.app import interface
from wingboard.core.findings.limits import LIMITS
from wingboard.core.overview.review import all_checks
from wingboard.core.record.design import Design

ROOT = Path(__file__).resolve().parent.parent


def checks_catalogue() -> str:
    """The catalogue of checks as Markdown."""
    lines = [
        "# Checks",
        "",
        "Generated from the registry by `python tools/docs.py`. Severities: **must** (to fix) would scrap",
        "material or hurt someone, **judge** (to judge) is a call that can be accepted with a reason, **note**",
        "is a reminder.",
        "Every limit can be overridden in a design, with a reason.",
        "",
        "| code | station | severity | what is measured | limits | source | fix |",
        "| --- | --- | --- | --- | --- | --- | --- |",
    ]
    for c in all_checks():
        cells = (f"`{c.code}`", c.station, c.severity, c.measures, ", ".join(c.limits), c.source.said(), c.fixes)
        lines.append("| " + " | ".join(cell.replace("|", "\\|") for cell in cells) + " |")
    lines += ["", "## Limits", "", "| limit | default | what | source |", "| --- | --- | --- | --- |"]
    for name, limit in LIMITS.items():
        lines.append(f"| {name} | {limit.value:g} {limit.unit} | {limit.says} | {limit.source.said()} |")
    return "\n".join([*lines, ""])


def design_schema() -> str:
    """The JSON Schema of a design file."""
    return json.dumps(Design.model_json_schema(), ensure_ascii=False, indent=1) + "\n"


def openapi() -> str:
    """The HTTP interface's description."""
    return json.dumps(interface(), ensure_ascii=False, indent=1) + "\n"


GENERATED = {"docs/checks.md": checks_catalogue, "docs/design.schema.json": design_schema}


def main() -> int:
    """Write each generated document, and the front end's types by way of its own generator."""
    import page

    for name, make in GENERATED.items():
        (ROOT / name).write_text(make(), "utf-8")
    description = ROOT / "web" / "openapi.json"
    description.write_text(openapi(), "utf-8")
    try:
        generator = "node_modules/openapi-typescript/bin/cli.js"
        page.run_node(ROOT / "web", generator, "openapi.json", "-o", "src/api/schema.gen.ts", say=lambda _: None)
    finally:
        description.unlink()
    return 0


if __name__ == "__main__":
    sys.exit(main())
