"""Wing Board: from what a panel must do to a panel cut once, wired once and proven."""

__version__ = "0.1.0"
