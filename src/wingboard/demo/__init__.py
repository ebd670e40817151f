"""The demo designs, as the same JSON a user would export. Everything in them is invented."""

from __future__ import annotations

from importlib import resources


def demo_texts() -> dict[str, str]:
    """The text of each demo design by its short name, the tram desk first."""
    folder = resources.files("wingboard.demo")
    names = ("kestrel-line-9", "dust-extraction")
    return {name: (folder / f"{name}.json").read_text("utf-8") for name in names}
