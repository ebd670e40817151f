"""Kiss cuts: lines cut through a film that lies on the sheet, and not into the sheet. Lengths in mm."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from itertools import groupby

from wingboard.core.cut.beside import loop_of, polygons, region_of
from wingboard.core.cut.feeds import Feeds, burning
from wingboard.core.cut.lettered import in_order
from wingboard.core.cut.toolpath import Cut, burnt
from wingboard.core.cut.travel import Place
from wingboard.core.cut.work import Operation, Target, Work, operation
from wingboard.core.files.scene import Item
from wingboard.core.geometry.outline import Loop

FILM = 0.1
"""How deep a kiss cut goes (mm, common practice: a paper film)."""


def masks(work: Work, items: Sequence[Item]) -> list[Operation]:
    """The letters' edges, cut through the film by a laser at little power; a mill has nothing for it."""
    words = [i for i in items if i.operation == "mask"]
    if not words:
        return []
    lost = sorted({i.label for i in words if i.open})
    if not work.laser:
        everything = sorted({i.label for i in words})
        return [operation(work, "mask", [], None, Feeds(0, 0, 0, 0), 0.0, 0.0, "front", everything)]
    feeds, depth = burning(work.sheet.machine, FILM)
    by = 0.0 if work.sheet.machine.offsets else work.fit.kerf / 2
    targets = []
    for label, word in groupby(in_order(words), key=lambda i: i.label):
        inside = polygons(region_of(list(word)).buffer(-by, quad_segs=4))
        # What falls out of a letter before the letter: it would move.
        lines = [loop_of(ring) for p in inside for ring in (*p.interiors, p.exterior)]
        if lines:
            targets.append(Target(label, (lines[0][0].x, lines[0][0].y), _cuts(label, lines, feeds.feed)))
        else:
            lost.append(label)
    return [operation(work, "mask", targets, None, feeds, work.fit.kerf, depth, "front", lost)]


def _cuts(label: str, lines: Sequence[Loop], feed: float) -> Callable[[Place], list[Cut]]:
    def make(_: Place) -> list[Cut]:
        return [Cut(label, line[0].x, line[0].y, tuple(burnt(line, True, feed))) for line in lines]

    return make
