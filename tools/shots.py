"""Makes the pictures in docs/screenshots from the demo designs."""

from __future__ import annotations

import sys
from pathlib import Path
from typing import NamedTuple

from browser import at_rest, chromium, desk_in_passing, new_page, served

from wingboard.cli import add_demo

FOLDER = Path(__file__).resolve().parent.parent / "docs" / "screenshots"
TRAM = "/d/kestrel-line-9"


class Shot(NamedTuple):
    """A picture: where, in which theme, the tab to open first, and the button to press."""

    path: str
    theme: str = "day"
    tab: str | None = None
    button: str | None = None
    then: str | None = None
    """A tab to open after that."""


SHOTS = {
    "first-visit": Shot("/new"),
    "brief": Shot(f"{TRAM}/brief?sel=f30"),
    "brief-workshop": Shot(f"{TRAM}/brief", "night", "Workshop"),
    "parts": Shot(f"{TRAM}/parts?sel=f4"),
    "face": Shot(f"{TRAM}/face?module=left&sel=f15"),
    "face-behind-night": Shot(f"{TRAM}/face?module=centre", "night", "Behind"),
    "stack": Shot(f"{TRAM}/stack?module=left"),
    "stack-case-night": Shot("/d/dust-extraction/stack", "night", "Case", "Give it a case"),
    "light-night": Shot(f"{TRAM}/light?module=left", "night", None, "Lamp test O"),
    "light-evenness": Shot(f"{TRAM}/light?module=left", "day", "Evenness"),
    "cut": Shot(f"{TRAM}/cut", "day", None, "Outlines, last"),
    "wire": Shot(f"{TRAM}/wire?sel=f4", "night"),
    "wire-power": Shot(f"{TRAM}/wire", "day", "Power", "24 V supply supply"),
    "wire-harness": Shot(f"{TRAM}/wire?module=left", "night", "Harness"),
    "wire-sheet": Shot("/d/dust-extraction/wire", "day", "Wiring sheet", "All 11 soldered"),
    "wire-programs": Shot("/d/dust-extraction/wire", "night", "Programs", "", "tables.h"),
    "wire-schemes": Shot(f"{TRAM}/wire?sel=f4", "day", "whole module, 22", "chain of 74HC165", "Schemes"),
}
"""Six a station at most."""


def main() -> int:
    """Take every picture anew, or those that are named."""
    FOLDER.mkdir(parents=True, exist_ok=True)
    with desk_in_passing() as desk, chromium() as browser:
        add_demo(desk)
        with served(desk) as address:
            for name in sys.argv[1:] or SHOTS:
                shot = SHOTS[name]
                page = new_page(browser, shot.theme)
                page.goto(address + shot.path)
                at_rest(page)
                if shot.tab:
                    page.get_by_role("tab", name=shot.tab, exact=True).click()
                    page.wait_for_timeout(600)
                if shot.button:
                    page.get_by_role("button", name=shot.button).first.click()
                    page.wait_for_timeout(1500)
                if shot.then:
                    page.get_by_role("tab", name=shot.then, exact=True).click()
                    page.wait_for_timeout(1000)
                page.evaluate("document.fonts.ready")
                page.screenshot(path=FOLDER / f"{name}.png", animations="disabled")
                page.context.close()
                print(FOLDER / f"{name}.png")
    return 0


if __name__ == "__main__":
    sys.exit(main())
