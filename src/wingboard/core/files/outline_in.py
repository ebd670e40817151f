"""A drawing as it was uploaded, whatever its format."""

from __future__ import annotations

from wingboard.core.files.drawn import Import, NotAnOutline, Unit


def read_outlines(content: bytes, unit: Unit = "as drawn") -> Import:
    """The closed outlines of a DXF or SVG file; which it is, is seen in its first bytes.

    :raises NotAnOutline: empty, neither of both, or without an outline that can be used.
    """
    start = content[:4000].lstrip().lower()
    if not start:
        raise NotAnOutline("The file is empty")
    if b"<svg" in start or start.startswith((b"<?xml", b"<!doctype")):
        from wingboard.core.files.read_svg import read_svg_outlines  # loaded when first used, as is the other

        return read_svg_outlines(content, unit)
    if b"section" in start or start.startswith(b"999"):
        from wingboard.core.files.read_dxf import read_dxf_outlines

        return read_dxf_outlines(content, unit)
    raise NotAnOutline("Neither a DXF text file nor an SVG drawing; export it as one of these")
