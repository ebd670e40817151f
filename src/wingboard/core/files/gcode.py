"""G-code in the plain words that small controllers share (ISO 6983-1; from memory): one motion a line, in mm.

Used are G0 G1 G2 G3, G17 G21 G90 G94, F, S, T, M0 M2 M3 M5 M7 M9, and comments in parentheses; nothing else. Arcs give
their middle from where they start (I, J). Every block that moves says its own G word, so that a run can begin anywhere.
A laser burns from M3 to M5, and not where S is 0.
"""

from __future__ import annotations

import math
import unicodedata
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Literal, NamedTuple

from wingboard.core.geometry.outline import Vertex, arc_of

WORDS = ("G0", "G1", "G2", "G3", "G17", "G21", "G90", "G94", "M0", "M2", "M3", "M5", "M7", "M9")
"""The G and M words that are written, and none besides."""
LONGEST = 70
"""No line is longer (characters): small controllers hold little more."""
FLAT = 0.02
"""An arc whose chord is shorter (mm) is written as a straight move."""
WIDE = 5000.0
"""So is one whose radius is larger (mm)."""
FULL = 1000
"""S for a laser's full power."""


class Motion(NamedTuple):
    """A move of a run: to a point, with the bulge of its arc, its feed (mm/min), and a laser's share of power."""

    x: float
    y: float
    z: float
    bulge: float
    feed: float
    power: float = 1.0


class Run(NamedTuple):
    """One coming down of the tool: where, and its motions."""

    x: float
    y: float
    motions: Sequence[Motion]


SAFE, CLEAR = 5.0, 0.5
"""Heights over the sheet (mm) at which a mill travels, and down to which it comes fast."""


@dataclass(frozen=True, eq=False)
class Section:
    """Runs of one operation with one tool. ``number`` is that of its T word, ``tool`` is said in words."""

    title: str
    tool: str
    number: int
    rpm: float
    power: float
    laser: bool
    runs: Sequence[Run]

    @cached_property
    def blocks(self) -> tuple[str, ...]:
        """Its runs as lines, the same in every program that has it."""
        return tuple(line for run in self.runs for line in (_laser(self, run) if self.laser else _mill(run)))


class Program(NamedTuple):
    """A file: what it is, and its sections in their order. ``mist``: coolant is on while it cuts."""

    notes: Sequence[str]
    kind: Literal["laser", "mill"]
    sections: Sequence[Section]
    mist: bool = False


def write_gcode(program: Program) -> bytes:
    """The program as text, the same bytes for the same program; its lines end as ISO 6983 wants, one block each."""
    lines = [*(_comment(note) for note in program.notes), "G21 G90 G17 G94"]
    laser = program.kind == "laser"
    if not laser:
        lines.append(f"G0 Z{_n(SAFE)}")
    tool = 0
    for n, section in enumerate(program.sections):
        lines.append(_comment(f"operation {n + 1}: {section.title}"))
        if not laser and section.number != tool:
            if tool:
                lines += ["M5", *(["M9"] if program.mist else []), "G0 X0 Y0", f"T{section.number}"]
                lines += [_comment(f"change to tool {section.number}: {section.tool}"), "M0"]
            else:
                lines += [f"T{section.number}", _comment(f"tool {section.number}: {section.tool}")]
            tool = section.number
            lines += [f"M3 S{section.rpm:.0f}", *(["M7"] if program.mist else [])]
        lines += section.blocks
    lines += ["M5", *(["M9"] if program.mist else []), "G0 X0 Y0", "M2", ""]
    return "\n".join(lines).encode("ascii")


def _laser(section: Section, run: Run) -> Iterator[str]:
    yield f"G0 X{_n(run.x)} Y{_n(run.y)}"
    power = round(FULL * section.power)
    yield f"M3 S{power}"
    x, y, feed, now = run.x, run.y, 0.0, power
    for m in run.motions:
        wanted = round(power * m.power)
        word = _move(x, y, 0.0, m, 0.0, feed)
        if word:
            yield f"{word} S{wanted}" if wanted != now else word
            now, feed, x, y = wanted, m.feed, m.x, m.y
    yield "M5"


def _mill(run: Run) -> Iterator[str]:
    yield f"G0 X{_n(run.x)} Y{_n(run.y)}"
    yield f"G0 Z{_n(CLEAR)}"
    x, y, z, feed = run.x, run.y, CLEAR, 0.0
    for m in run.motions:
        word = _move(x, y, z, m, m.z, feed)
        if word:
            yield word
            x, y, z, feed = m.x, m.y, m.z, m.feed
    yield f"G0 Z{_n(SAFE)}"


def _move(x: float, y: float, z: float, to: Motion, to_z: float, feed: float) -> str:
    """One block; nothing where it goes nowhere."""
    same = _same(x, to.x) and _same(y, to.y)
    deeper = "" if _same(z, to_z) else f" Z{_n(to_z)}"
    if same and not deeper:
        return ""
    fed = "" if _same(feed, to.feed) else f" F{_n(to.feed)}"
    if same:
        return f"G1{deeper}{fed}"
    arc = arc_of(Vertex(x, y, to.bulge), Vertex(to.x, to.y)) if to.bulge else None
    ends = f" X{_n(to.x)} Y{_n(to.y)}"
    if arc is None or arc[2] > WIDE or math.hypot(to.x - x, to.y - y) < FLAT:
        return f"G1{ends}{deeper}{fed}"
    cx, cy, _, _, sweep = arc
    return f"G{3 if sweep > 0 else 2}{ends}{deeper} I{_n(cx - x)} J{_n(cy - y)}{fed}"


def _same(a: float, b: float) -> bool:
    """Whether two numbers are written alike."""
    return a == b or (abs(a - b) < 2e-4 and _n(a) == _n(b))


def _n(value: float) -> str:
    """A number to a tenth of a micrometre, without useless noughts."""
    text = f"{value:.4f}".rstrip("0").rstrip(".")
    return "0" if text in ("-0", "") else text


def _comment(words: str) -> str:
    """Words as a comment: ASCII, no parentheses inside, no longer than a line may be."""
    plain = unicodedata.normalize("NFKD", words.replace("×", "x").replace("°", " deg").replace("⌀", "dia "))
    text = plain.encode("ascii", "ignore").decode().replace("(", "[").replace(")", "]")
    return f"({' '.join(text.split())[: LONGEST - 2]})"
