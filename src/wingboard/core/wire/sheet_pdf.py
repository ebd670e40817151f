"""The wiring sheet as pages to print and to solder from, away from any screen."""

from __future__ import annotations

from wingboard.core.brief.danger import dangerous
from wingboard.core.files.pages import Pages
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.sheet import HOW, End, Joint, colour_words, missing, small_parts, wiring_sheet

BEFORE = (
    "Unplug everything: board, USB and supplies. Solder only what is dead. Ventilate, and mind what the iron lies on.",
    "Each wire has a mark at both ends, each joint its sleeve; solder a group, test it, and only then go on.",
)
LIVE = (
    "There is {volts} here. That can kill, and local code decides who may wire it: have a licensed electrician do it. "
    "It gets plugs and covers of its own, apart from all low voltage, and a metal plate is earthed."
)


def wiring_pdf(r: Resolved) -> bytes:
    """The wiring sheet on A4: cautions, groups with boxes and tests, the small parts; the same bytes every time."""
    pages = Pages(f"{r.design.name}: wiring sheet")
    pages.add(*(pages.words(line) for line in cautions(r)))
    pages.add(*(pages.words(f"Not on this sheet: {words}") for words in missing(r)))
    for n, step in enumerate(wiring_sheet(r), 1):
        pages.together(
            pages.words(f"{n}. {step.title}", "head"),
            pages.ticked([(joint.done, _cells(r, joint)) for joint in step.joints], (12, 58, 58, 42)),
            pages.space(3),
            pages.words(f"Then test: {step.test}", "small"),
        )
    small = small_parts(r)
    if small:
        rows = [(False, (s.mark, f"{s.ohms:g} Ω" if s.ohms else s.kind, s.name)) for s in small]
        pages.add(pages.words("Small parts", "head"), pages.ticked(rows, (20, 32, 110)))
    return pages.done()


def cautions(r: Resolved) -> tuple[str, ...]:
    """What stands before the first joint; first of all, where something here can kill."""
    return (*live_cautions(r), *BEFORE)


def live_cautions(r: Resolved) -> tuple[str, ...]:
    """What stands wherever something here can kill; nothing where nothing can."""
    live = sorted(
        {f"{f.switches.volts:g} V {f.switches.kind}" for f in r.design.functions if dangerous(r.design, f.switches)}
    )
    return (LIVE.format(volts=" and ".join(live)),) if live else ()


def _cells(r: Resolved, joint: Joint) -> tuple[str, ...]:
    return joint.number, _said(r, joint.start), _said(r, joint.end), cut_words(joint)


def cut_words(joint: Joint) -> str:
    """What is cut for a joint: colour, cross-section, length (~: to be measured); or that nothing is."""
    if joint.how != "wire":
        return HOW[joint.how]
    about = "" if joint.said else "~"
    return f"{colour_words(joint)}, {joint.area:g} mm², {about}{joint.length:g} mm"


def _said(r: Resolved, end: End) -> str:
    owner = r.functions[end.owner].name if end.owner else ""
    lies = f" ({end.lies})" if end.lies else ""
    of = f" ({owner})" if owner and not end.device.startswith(owner) else ""
    return f"{end.device}{of}, {end.terminal}{lies}"
