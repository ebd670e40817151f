"""What the walks through the stations share: opening one, what is kept, waiting for a revision."""

from __future__ import annotations

from playwright.sync_api import Page, expect

from wingboard.core.record.design import Design
from wingboard.services.desk import Desk

TRAM = "kestrel-line-9"


def go(page: Page, address: str, path: str) -> None:
    """Open an address and wait for the bench."""
    page.goto(f"{address}/d/{path}")
    page.get_by_role("navigation", name="Stations").wait_for()


def kept(desk: Desk, ident: str = TRAM) -> Design:
    """The design as it is kept."""
    return desk.open(ident).design


def revision(page: Page, number: int) -> None:
    """Wait until that revision is kept."""
    expect(page.get_by_role("status").first).to_contain_text(f"revision {number}")
