"""Makes the pictures in docs/screenshots from the demo designs."""

from __future__ import annotations

import sys
from pathlib import Path

from browser import chromium, desk_in_passing, new_page, served

from wingboard.cli import add_demo

FOLDER = Path(__file__).resolve().parent.parent / "docs" / "screenshots"
TRAM = "/d/kestrel-line-9"
SHOTS = {
    "face-day": (f"{TRAM}/face?panel=left&sel=f15", "day"),
    "face-night": (f"{TRAM}/face?panel=left&sel=f4", "night"),
    "face-dust": ("/d/dust-extraction/face", "day"),
    "brief": (f"{TRAM}/brief", "day"),
    "parts": (f"{TRAM}/parts?sel=f4", "day"),
    "cut": (f"{TRAM}/cut?panel=left", "day"),
    "wire": (f"{TRAM}/wire?sel=f4", "day"),
    "first-visit": ("/new", "day"),
}


def main() -> int:
    """Take every picture anew."""
    FOLDER.mkdir(parents=True, exist_ok=True)
    with desk_in_passing() as desk, chromium() as browser:
        add_demo(desk)
        with served(desk) as address:
            for name, (path, theme) in SHOTS.items():
                page = new_page(browser, theme)
                page.goto(address + path)
                page.wait_for_load_state("networkidle")
                page.evaluate("document.fonts.ready")
                page.screenshot(path=FOLDER / f"{name}.png", animations="disabled")
                page.context.close()
                print(FOLDER / f"{name}.png")
    return 0


if __name__ == "__main__":
    sys.exit(main())
