"""Hatch's hook: the page is built inside ``pip install``, by ``tools/page.py``."""

from __future__ import annotations

import sys
from pathlib import Path
from typing import Any

from hatchling.builders.hooks.plugin.interface import BuildHookInterface

sys.path.insert(0, str(Path(__file__).resolve().parent / "tools"))

import page


class WebBuildHook(BuildHookInterface):  # type: ignore[misc]
    """Builds the front end before the wheel is packed."""

    PLUGIN_NAME = "custom"

    def dependencies(self) -> list[str]:
        """What the build needs (asked for by PEP 517's hooks): a Node, unless the machine has one."""
        root = Path(self.root)
        return [page.NODE] if page.wanted(root) and page.machine_node() is None else []

    def initialize(self, version: str, build_data: dict[str, Any]) -> None:
        """Build the page."""
        page.build_web(Path(self.root), self.app.display_info)
