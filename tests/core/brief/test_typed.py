"""Corners and cutters as they are typed."""

from __future__ import annotations

import math

import pytest

from wingboard.core.brief.corners import read_corners
from wingboard.core.brief.cutters import read_tools
from wingboard.core.geometry.outline import area_of
from wingboard.core.record.errors import NotALength


def test_corners_make_an_outline_with_arcs() -> None:
    outline = read_corners("0 0\n\n100 0\n100,0; 60; 1\n0 60\n")  # a half circle on top: bulge 1
    # By hand: 100 × 60, and half a circle of 100 mm across.
    assert area_of(outline.loop()).area == pytest.approx(6000 + math.pi * 50**2 / 2, rel=1e-3)


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("0 0\nten 5\n10 10", "Line 2"),
        ("0 0\n1 2 3 4\n5 5", "Line 2"),
        ("0 0\n1e9 0\n5 5", "Line 2"),
        ("0 0\n10 0", "at least three"),
        ("0 0\n10 10\n10 0\n0 10", "."),
    ],
)
def test_corners_that_make_none_are_said_with_their_line(text: str, words: str) -> None:
    with pytest.raises(NotALength, match=words):
        read_corners(text)


def test_cutters_are_read_with_inches_and_flutes() -> None:
    assert [(t.diameter, t.flutes) for t in read_tools("1/8in×2, 3, 2.5 x 1")] == [(3.175, 2), (3, 1), (2.5, 1)]
    pointed, drill = read_tools("30°/0.2, drill 2.5")
    assert (pointed.kind, pointed.angle, pointed.flat, drill.kind, drill.diameter) == (
        "engraver",
        30,
        0.2,
        "drill",
        2.5,
    )
    assert read_tools(" , ") == ()


@pytest.mark.parametrize("word", ["wide", "0", "101", "3×0", "3×13", "3×a", "3×²"])
def test_a_word_that_names_no_cutter_is_said(word: str) -> None:
    with pytest.raises(NotALength):
        read_tools(f"3, {word}")
