"""The night of a module as a picture: what shows through the letters, and the evenness as bands."""

from __future__ import annotations

import io

import numpy as np
from PIL import Image

from wingboard.core.light.emission import Field
from wingboard.core.light.figures import Night

EYE = 1 / 2.2
"""Screens show a value as its 2.2nd power (IEC 61966-2-1, nearly)."""
WHITE = (255, 244, 222)
"""A warm white, as the letters look."""
BANDS = ((0.0, (20, 24, 28)), (0.2, (60, 36, 30)), (0.4, (150, 76, 36)), (0.6, (196, 150, 60)), (0.8, (150, 176, 96)),
         (1.0, (86, 160, 120)), (1.5, (120, 190, 200)), (3.0, (214, 236, 240)))  # fmt: skip
"""Shares of the usual light and the colours they are shown in: dark to unreadable, usual, too bright."""


def brightest(night: Night) -> float:
    """What is shown as full white (cd/m²): a third over the usual legend, so that brighter ones still show."""
    return max(4 / 3 * night.usual, 1e-6)


def night_picture(night: Night) -> bytes:
    """A PNG of the luminance as it looks, white at :func:`brightest`; its first row is the upper one."""
    shown = np.clip(night.map.field / brightest(night), 0, 1) ** EYE
    return _png(shown[:, :, None] * np.array(WHITE, dtype=np.float64))


def bands() -> tuple[tuple[float, str], ...]:
    """Shares of the usual light with their colours, as ``#RRGGBB``."""
    return tuple((share, "#" + "".join(f"{v:02x}" for v in colour)) for share, colour in BANDS)


def even_picture(night: Night) -> bytes:
    """A PNG of the luminance in colours, as shares of the usual legend's."""
    share = night.map.field / max(night.usual, 1e-6)
    at = np.array([share for share, _ in BANDS])
    colours = np.array([colour for _, colour in BANDS], dtype=np.float64)
    return _png(np.stack([np.interp(share, at, colours[:, n]) for n in range(3)], axis=-1))


def _png(values: Field) -> bytes:
    image = Image.fromarray(np.flipud(np.clip(values, 0, 255)).astype(np.uint8), "RGB")
    out = io.BytesIO()
    image.save(out, "PNG")
    return out.getvalue()
