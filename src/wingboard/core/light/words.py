"""Where the face is open for light: points along the letters, symbols and marks of each function's legend."""

from __future__ import annotations

import math
from functools import lru_cache
from typing import NamedTuple

import numpy as np

from wingboard.core.face.legend import Mark, Word, letterings
from wingboard.core.geometry.outline import Loop, flattened
from wingboard.core.light.emission import Field
from wingboard.core.resolved.design import Resolved
from wingboard.core.resolved.module import ResolvedModule
from wingboard.core.resolved.placed import Placed

ALONG = 0.8
"""From one point to the next along the edge of a letter (mm): nowhere is a stroke more than half its width away."""
MARK = 2.2
"""A detent's mark is so long (mm)."""


class Lit(NamedTuple):
    """A word, or the marks of a control, with the points (n × 2, the module's mm) that are looked at."""

    placed: Placed
    text: str
    points: Field


@lru_cache(maxsize=4096)
def _of_word(word: Word) -> Field:
    lines = [_closed(loop) for loop in word.loops()]
    lines += [np.asarray(stroke, dtype=np.float64).reshape(-1, 2) for stroke in word.strokes()]
    made = [_even(line) for line in lines if len(line) > 1]
    return np.concatenate(made) if made else np.zeros((0, 2))


def _closed(loop: Loop) -> Field:
    points = flattened(loop, 0.05)
    return np.asarray([*points, points[0]], dtype=np.float64)


def _even(line: Field) -> Field:
    """Points along a broken line, no more than :data:`ALONG` from one to the next."""
    steps = np.hypot(*np.diff(line, axis=0).T)
    way = np.concatenate([[0.0], np.cumsum(steps)])
    many = max(2, math.ceil(way[-1] / ALONG) + 1)
    at = np.linspace(0.0, way[-1], many)
    return np.column_stack([np.interp(at, way, line[:, 0]), np.interp(at, way, line[:, 1])])


def _of_mark(mark: Mark) -> Field:
    along = np.linspace(-MARK / 2, MARK / 2, 4)[:, None] if not mark.dot else np.zeros((1, 1))
    way = np.array([math.cos(math.radians(mark.turn)), math.sin(math.radians(mark.turn))])
    made: Field = np.array([mark.x, mark.y]) + along * way
    return made


def lit_words(r: Resolved, module: ResolvedModule) -> tuple[Lit, ...]:
    """Every word that stands on the face of a module, and the marks at detents; what is on a lens its lamp lights."""

    def compute() -> tuple[Lit, ...]:
        found = []
        for placed in module.placed:
            letters = letterings(r)[placed.number]
            if letters.inside:
                continue
            here = np.array([placed.place.x, placed.place.y])
            for word in letters.words:
                points = _of_word(word) + (word.x, word.y) + here
                if len(points):
                    found.append(Lit(placed, word.run.text or word.symbol or "", points))
            if letters.marks:
                points = np.concatenate([_of_mark(mark) for mark in letters.marks]) + here
                found.append(Lit(placed, "", points))
        return tuple(found)

    return r.once(f"lit words of {module.module.id}", compute)
