"""What people bring, read in a worker: designs, drawings, pictures and pasted lists."""

from __future__ import annotations

from wingboard.core.brief.listing import Listing, read_listing
from wingboard.core.files.drawn import Import, Unit
from wingboard.core.files.outline_in import read_outlines
from wingboard.core.overview.review import review
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.design import Design
from wingboard.core.record.document import read_design
from wingboard.core.resolved.design import Resolved
from wingboard.services.pictures import checked_picture
from wingboard.services.workers import run_apart
from wingboard.store.pictures import PictureRow


def design_from(text: bytes) -> Design:
    """A design from a file. :raises DesignError: it is none that can be opened, or too heavy to judge."""
    return run_apart(_judged_design, text)


def _judged_design(text: bytes) -> Design:
    """The design, when it can be judged in the time there is."""
    design = read_design(text, catalogue())
    review(Resolved(design))
    return design


def outlines_from(content: bytes, unit: Unit) -> Import:
    """The outlines of a drawing. :raises DesignError: it cannot be read, or is too heavy."""
    return run_apart(read_outlines, content, unit)


def picture_from(content: bytes) -> PictureRow:
    """A picture, checked. :raises DesignError: it is none that is taken, or too heavy."""
    return run_apart(checked_picture, content)


def listing_from(text: str, design: Design) -> Listing:
    """A pasted list of functions. :raises DesignError: it cannot be read, or is too heavy."""
    return run_apart(read_listing, text, design)
