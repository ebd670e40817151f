"""What is generated is up to date: the catalogue of checks, the schema, the front end's types."""

import re
import subprocess
import sys
from pathlib import Path

import pytest

ROOT = Path(__file__).parents[1]
sys.path.insert(0, str(ROOT / "tools"))

import docs  # noqa: E402
import page  # noqa: E402


@pytest.mark.parametrize("name", docs.GENERATED)
def test_generated_documents_are_current(name: str) -> None:
    assert (ROOT / name).read_text("utf-8") == docs.GENERATED[name](), "run: .venv/bin/python tools/docs.py"


def test_the_front_ends_types_are_those_of_the_server(tmp_path: Path) -> None:
    (tmp_path / "openapi.json").write_text(docs.openapi(), "utf-8")
    node, _ = page.node_and_npm()
    cli = ROOT / "web/node_modules/openapi-typescript/bin/cli.js"
    made = tmp_path / "schema.ts"
    subprocess.run([node, cli, tmp_path / "openapi.json", "-o", made], check=True, capture_output=True)
    kept = (ROOT / "web/src/api/schema.gen.ts").read_text("utf-8")
    assert made.read_text("utf-8") == kept, "run: .venv/bin/python tools/docs.py"


def test_the_lock_of_the_front_end_holds_no_download_addresses() -> None:
    assert '"resolved"' not in (ROOT / "web/package-lock.json").read_text("utf-8")


def test_what_the_documents_link_to_is_there_and_every_picture_is_linked() -> None:
    documents = [ROOT / "README.md", ROOT / "CONTRIBUTING.md", *(ROOT / "docs").rglob("*.md")]
    links = [(d, to) for d in documents for to in re.findall(r"\]\(([^)#\s]+)", d.read_text("utf-8"))]
    local = [(d, to) for d, to in links if "://" not in to]
    assert [f"{d.name}: {to}" for d, to in local if not (d.parent / to).exists()] == []
    pictures = {p.name for p in (ROOT / "docs/screenshots").iterdir()}
    assert pictures - {Path(to).name for _, to in local} == set()
    assert len(pictures) < 20
