"""The log: one line an event, to standard error and to a file in the data folder that does not grow for ever."""

from __future__ import annotations

import logging
import logging.handlers
from pathlib import Path
from typing import Literal

Level = Literal["debug", "info", "warning", "error"]
LOGGERS = ("wingboard", "uvicorn")
"""Whose lines are kept."""
LARGEST = 1_000_000
"""Bytes of one file; three older ones are kept."""


def start_log(folder: Path, level: Level) -> Path:
    """Send what the program logs to standard error and to ``wingboard.log`` in a folder. :returns: the file."""
    file = folder / "wingboard.log"
    line = logging.Formatter("%(asctime)s %(levelname)s %(name)s: %(message)s")
    handlers: list[logging.Handler] = [
        logging.StreamHandler(),
        logging.handlers.RotatingFileHandler(file, maxBytes=LARGEST, backupCount=3, encoding="utf-8"),
    ]
    for handler in handlers:
        handler.setFormatter(line)
    for name in LOGGERS:
        logger = logging.getLogger(name)
        logger.setLevel(level.upper())
        logger.handlers = list(handlers)
        logger.propagate = False
    return file
