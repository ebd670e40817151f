"""The protocol of one panel in plain words: what may be typed to each board, and what each name means."""

from __future__ import annotations

from collections.abc import Iterable, Iterator

from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.program.channels import READ, Channel, channels, meanings, programmed
from wingboard.core.wire.program.differing import LOST, fingerprint, kind_of, state_of, told
from wingboard.core.wire.program.tables import free_pins, letter_of

WIDE = 100
"""Letters of a line at the most, where words can be parted."""
SAY = (
    ("hello", "which program it is"),
    ("ping", "once a second, or the link is lost"),
    ("get NAME, get", "what something is, what everything is"),
    ("set NAME VALUE", "drives something"),
    ("off", "everything driven to 0, read-outs blank"),
    ("test on, test off", "every lamp lit, no load moved"),
    ("debug on, debug off", "once a second how often everything was looked at"),
)


def protocol_text(r: Resolved, revision: int, boards: Iterable[str] | None = None) -> str:
    """The crib of some boards, of all that take a program when none are named; ends with a line feed."""
    pages = [_page(r, revision, board) for board in (programmed(r) if boards is None else boards)]
    return "\n\n".join("\n".join(page) for page in pages) + "\n"


def _page(r: Resolved, revision: int, board: str) -> Iterator[str]:
    controller = next(c for c in r.design.controllers if c.id == board)
    mine = [c for c in channels(r).channels if c.controller == board]
    read, driven = ([c for c in mine if (c.kind in READ) == reads] for reads in (True, False))
    letter, lines = letter_of(r, board), fingerprint(r, board)
    title = f"{r.design.name}, board {letter}: {controller.name}, {kind_of(r, board).chip}"
    yield title
    yield "=" * len(title)
    yield f"Revision {revision}, lines {lines}. 115,200 baud, a line each; all of it is in docs/protocol.md."
    yield ""
    yield "Type"
    yield from (f"  {word:<20} {means}" for word, means in SAY)
    free = free_pins(r, board)
    if free:
        yield f"  {'discover on':<20} says what happens on free pins; drive PIN 0, 1 or - moves one:"
        yield from _folded("", [pin.name for pin in free], 23)
    for heading, of in (("Is said when it moves: in NAME VALUE", read), ("Can be driven: set NAME VALUE", driven)):
        if not of:
            continue
        wide = max(len(c.name) for c in of)
        yield ""
        yield heading
        for c in of:
            yield from _folded(f"  {c.name:<{wide}}  ", _means(r, c), wide + 4, "; ")
            where = f"{_of(r, c)}{told(r, board)[c.name].where}"
            yield from _folded("", where.split(" "), wide + 4)


def _folded(begins: str, words: list[str], indent: int, between: str = " ") -> Iterator[str]:
    """Words in lines that are not too long, the first of which begins so."""
    line, first = begins or " " * indent, True
    for n, word in enumerate(words):
        piece = word + (between.rstrip() if n < len(words) - 1 else "")
        if not first and len(line) + 1 + len(piece) > WIDE:
            yield line.rstrip()
            line, first = " " * indent, True
        line += piece if first else f" {piece}"
        first = False
    yield line.rstrip()


def _means(r: Resolved, c: Channel) -> list[str]:
    """What its values mean."""
    if values := meanings(r, c):
        return [f"{value} {word}" for value, word in values]
    bits = kind_of(r, c.controller).bits
    plain = {
        "turn": "detents since the last line, +2 or -1",
        "level": f"0 to {(1 << bits) - 1}",
        "lamp": "0 dark, 1 or more lit",
        "dimmed": "0 to 255",
        "colour": "0 to 255 in its colour, or #RRGGBB",
        "sound": "0 or 1; silent without a link",
        "load": "0 or 1; off at power-up and without a link, until it is set again",
        "needle": "0 to 945, thirds of a degree from its stop, to which it goes back at power-up",
        "text": f"up to {c.digits - c.dark} letters and figures",
    }
    words = [plain[c.kind]]
    boot, lost = state_of(r, c)
    if (boot, lost) != (0, "hold"):
        words.append(f"{boot} at power-up, without a link it {LOST[lost]}")
    return words


def _of(r: Resolved, c: Channel) -> str:
    """“Gong, press, ” where its name does not say the same."""
    name = r.functions[c.function].name if c.function else c.lines[0].name
    return (
        f"{name}, {', '.join(dict.fromkeys(line.terminal for line in c.lines))}: " if len(c.lines) < 4 else f"{name}: "
    )
