"""Makes the pictures in docs/screenshots from the demo designs."""

from __future__ import annotations

import sys
from pathlib import Path
from typing import NamedTuple

from browser import at_rest, chromium, desk_in_passing, new_page, served
from oldplate import photograph, reference

from wingboard.cli import add_demo
from wingboard.core.changes.commands.pictures import AddReference
from wingboard.services.desk import Desk

FOLDER = Path(__file__).resolve().parent.parent / "docs" / "screenshots"
TRAM = "/d/kestrel-line-9"
WITH_PICTURE = "over-an-old-plate"


class Shot(NamedTuple):
    """A picture: where, in which theme, and the tab to open first."""

    path: str
    theme: str = "day"
    tab: str | None = None


OLD_PLATE = f"/d/{WITH_PICTURE}/face?module=right"
SHOTS = {
    "first-visit": Shot("/new"),
    "brief": Shot(f"{TRAM}/brief?sel=f30"),
    "brief-space": Shot(f"{TRAM}/brief", "night", "Space"),
    "brief-workshop": Shot(f"{TRAM}/brief", tab="Workshop"),
    "parts": Shot(f"{TRAM}/parts?sel=f4"),
    "face-day": Shot(f"{TRAM}/face?module=left&sel=f15"),
    "face-night": Shot(f"{TRAM}/face?module=centre", "night"),
    "face-legends": Shot(f"{TRAM}/face?module=left&sel=f4", tab="Legends"),
    "face-hands": Shot(f"{TRAM}/face?module=centre", "night", "Hands"),
    "face-hands-day": Shot(f"{TRAM}/face?module=left", tab="Hands"),
    "face-behind": Shot(f"{TRAM}/face?module=left", tab="Behind"),
    "face-behind-night": Shot(f"{TRAM}/face?module=centre", "night", "Behind"),
    "face-webs": Shot(f"{TRAM}/face?module=centre", tab="Webs"),
    "face-reference": Shot(OLD_PLATE, tab="Reference"),
    "face-reference-night": Shot(OLD_PLATE, "night", "Reference"),
    "face-dust": Shot("/d/dust-extraction/face"),
    "cut": Shot(f"{TRAM}/cut?module=left"),
    "wire": Shot(f"{TRAM}/wire?sel=f4"),
}


def with_picture(desk: Desk) -> None:
    """The tram desk once more, with a photograph of an old plate under its right module."""
    kept = desk.keep_picture(photograph())
    tram = desk.open(TRAM.rsplit("/", 1)[-1]).design
    desk.add(tram, "Start", ident=WITH_PICTURE)
    desk.command(WITH_PICTURE, 1, (AddReference(**dict(reference(kept.sha256))),))


def main() -> int:
    """Take every picture anew, or those that are named."""
    FOLDER.mkdir(parents=True, exist_ok=True)
    with desk_in_passing() as desk, chromium() as browser:
        add_demo(desk)
        with_picture(desk)
        with served(desk) as address:
            for name in sys.argv[1:] or SHOTS:
                shot = SHOTS[name]
                page = new_page(browser, shot.theme)
                page.goto(address + shot.path)
                at_rest(page)
                if shot.tab:
                    page.get_by_role("tab", name=shot.tab, exact=True).click()
                    page.wait_for_timeout(600)
                page.evaluate("document.fonts.ready")
                page.screenshot(path=FOLDER / f"{name}.png", animations="disabled")
                page.context.close()
                print(FOLDER / f"{name}.png")
    return 0


if __name__ == "__main__":
    sys.exit(main())
