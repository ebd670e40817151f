"""The papers that templates are printed on."""

from __future__ import annotations

from typing import Literal

Paper = Literal["a4", "letter"]
PAPERS: dict[Paper, tuple[float, float]] = {"a4": (210.0, 297.0), "letter": (215.9, 279.4)}
"""Width and height (mm): ISO 216 and ANSI/ASME Y14.1 (from memory)."""
