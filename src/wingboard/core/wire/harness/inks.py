"""The colours of insulation as they are drawn."""

from __future__ import annotations

INKS: dict[str, str] = {
    "black": "#22282B", "brown": "#7A4A28", "red": "#B8332A", "orange": "#DD7A1F", "yellow": "#D9B520",
    "green": "#2F7D4A", "blue": "#2B5FA8", "violet": "#75479C", "grey": "#8B9398", "white": "#F2F0E8",
    "pink": "#DE9AA8", "turquoise": "#3AA6A6", "green-yellow": "#9DB33A",
}  # fmt: skip
"""By name, as #RRGGBB."""
