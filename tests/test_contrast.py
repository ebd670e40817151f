"""Contrast of what is written and drawn, computed from the tokens of the style sheet (WCAG 2.2, 1.4.3 and 1.4.11)."""

from __future__ import annotations

import itertools
import re
from pathlib import Path

import pytest

STYLES = (Path(__file__).parents[1] / "web" / "src" / "styles.css").read_text("utf-8")
DAY, NIGHT = re.findall(r":root(?:\[data-theme=\"night\"\])? \{(.*?)\n\}", STYLES, re.S)[:2]
TOKEN = re.compile(r"--([a-z0-9-]+): (#[0-9a-f]{6});")
BY_DAY = dict(TOKEN.findall(DAY))
THEMES = {"day": BY_DAY, "night": {**BY_DAY, **dict(TOKEN.findall(NIGHT))}}
ON_PLATES = ("chosen", "guide", "measure", "on-must", "on-judge", "on-note", "on-ok", "on-reach", "on-sweep")
"""Marks that are drawn in a casing on the panel."""


def luminance(colour: str) -> float:
    """Relative luminance of ``#RRGGBB`` (WCAG 2.2)."""
    parts = [int(colour[n : n + 2], 16) / 255 for n in (1, 3, 5)]
    linear = [v / 12.92 if v <= 0.04045 else ((v + 0.055) / 1.055) ** 2.4 for v in parts]
    return 0.2126 * linear[0] + 0.7152 * linear[1] + 0.0722 * linear[2]


def contrast(a: str, b: str) -> float:
    """The contrast ratio of two colours (WCAG 2.2)."""
    low, high = sorted((luminance(a), luminance(b)))
    return (high + 0.05) / (low + 0.05)


def test_the_formula_gives_the_ratios_that_wcag_states() -> None:
    assert contrast("#000000", "#ffffff") == pytest.approx(21)
    assert contrast("#767676", "#ffffff") == pytest.approx(4.54, abs=0.01)  # the grey that just passes AA


@pytest.mark.parametrize("theme", THEMES)
@pytest.mark.parametrize("ground", ["card", "sheet", "desk", "wash", "warm"])
@pytest.mark.parametrize("ink", ["ink", "faint", "petrol", "must", "judge", "note", "ok"])
def test_words_read_on_every_surface(ink: str, ground: str, theme: str) -> None:
    tokens = THEMES[theme]
    assert contrast(tokens[ink], tokens[ground]) >= 4.5


@pytest.mark.parametrize("theme", THEMES)
def test_wires_beds_and_borders_of_fields_stand_off_from_what_they_lie_on(theme: str) -> None:
    tokens = THEMES[theme]
    drawn = [f"wire-{n}" for n in range(1, 9)] + ["bed", "faint"]
    low = {name: min(contrast(tokens[name], tokens[ground]) for ground in ("desk", "sheet")) for name in drawn}
    assert {name: round(value, 2) for name, value in low.items() if value < 3} == {}


def test_a_mark_in_its_casing_reads_on_a_plate_of_any_colour() -> None:
    # Every colour in steps of 17: the mark stands off from its casing, and one of the two from the plate.
    steps = [f"{n * 17:02x}" for n in range(16)]
    plates = ["#" + "".join(rgb) for rgb in itertools.product(steps, repeat=3)]
    for mark in ON_PLATES:
        assert contrast(BY_DAY[mark], BY_DAY["casing"]) >= 3
        worst = min(plates, key=lambda p: max(contrast(BY_DAY[mark], p), contrast(BY_DAY["casing"], p)))
        assert max(contrast(BY_DAY[mark], worst), contrast(BY_DAY["casing"], worst)) >= 3, (mark, worst)


def test_the_words_of_a_tag_read_and_a_legend_takes_the_better_of_two_inks() -> None:
    assert contrast(BY_DAY["tag"], BY_DAY["tag-ink"]) >= 4.5
    # The page switches inks at a luminance of 0.193, where both read alike: 3.6 : 1, the least there is.
    for grey in (f"#{n:02x}{n:02x}{n:02x}" for n in range(256)):
        chosen = "ink-dark" if luminance(grey) > 0.193 else "ink-light"
        other = "ink-light" if chosen == "ink-dark" else "ink-dark"
        assert contrast(BY_DAY[chosen], grey) >= contrast(BY_DAY[other], grey) - 0.05
