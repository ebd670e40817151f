"""Work done in a process of its own, with limits on time and memory: what people bring cannot harm the rest."""

from __future__ import annotations

import contextlib
import logging
import multiprocessing as mp
import threading
import time
import traceback
from collections.abc import Callable
from multiprocessing.connection import Connection
from multiprocessing.context import ForkServerContext, SpawnContext
from pathlib import Path
from typing import Any, Literal, TypeVar

from wingboard.core.record.errors import DesignError, Problem

log = logging.getLogger(__name__)
T = TypeVar("T")

SECONDS = 5.0
MEGABYTES = 512
"""What reading one file may take."""
_LOOK = 0.05
"""How often a worker is asked whether it should stop (s)."""


class TooHeavy(DesignError):
    """Reading it would take too long or too much memory."""

    title = "This is too much to read"


class Unreadable(DesignError):
    """It is not what it says it is, in a way that nobody foresaw."""

    title = "This cannot be read"


class Stopped(Exception):
    """Somebody asked the work to stop."""


Report = Callable[[float, str], None]
"""Says how far work has got: its share from 0 to 1, and what it is doing."""
_Kind = Literal["progress", "done", "refused", "memory", "failed"]


def run_apart(task: Callable[..., T], *arguments: Any, seconds: float = SECONDS, megabytes: int = MEGABYTES) -> T:
    """The value of ``task(*arguments)``, worked out in a process of its own.

    :param task: a function of a module; its arguments and its value are pickled.
    :raises TooHeavy: it took longer than ``seconds``, or more memory than ``megabytes`` on top of the program's own.
    :raises DesignError: what the task raised.
    """
    return follow(task, *arguments, seconds=seconds, megabytes=megabytes)


def follow(
    task: Callable[..., T],
    *arguments: Any,
    seconds: float,
    megabytes: int,
    report: Report | None = None,
    stopped: Callable[[], bool] = lambda: False,
) -> T:
    """As :func:`run_apart`, passing progress on and stopping when asked. With ``report``, the task gets a further
    argument, a :data:`Report` of its own.

    :raises Stopped: ``stopped()`` said so.
    """
    warm_up()
    return _follow(task, *arguments, seconds=seconds, megabytes=megabytes, report=report, stopped=stopped)


def _follow(
    task: Callable[..., T],
    *arguments: Any,
    seconds: float,
    megabytes: int,
    report: Report | None = None,
    stopped: Callable[[], bool] = lambda: False,
) -> T:
    mine, theirs = _context().Pipe(duplex=False)
    worker = _context().Process(
        target=_work, args=(theirs, task, arguments, megabytes, report is not None), daemon=True
    )
    worker.start()
    theirs.close()
    try:
        return _listened(mine, time.monotonic() + seconds, seconds, megabytes, report, stopped)  # type: ignore[no-any-return]
    finally:
        mine.close()
        worker.kill()
        worker.join()
        worker.close()


def _listened(
    pipe: Connection,
    until: float,
    seconds: float,
    megabytes: int,
    report: Report | None,
    stopped: Callable[[], bool],
) -> Any:
    while True:
        if stopped():
            raise Stopped
        if time.monotonic() > until:
            raise TooHeavy(f"It takes longer than {seconds:g} s to work through; make it simpler, or split it")
        if not pipe.poll(_LOOK):
            continue
        try:
            kind, value = pipe.recv()
        except EOFError:
            raise TooHeavy(
                f"The reader broke off, most likely for want of memory (it may take {megabytes} MB); make it simpler"
            ) from None
        if kind == "progress" and report:
            report(*value)
        elif kind == "done":
            return value
        elif kind == "refused":
            raise value[0](value[1], value[2], value[3])
        elif kind == "memory":
            raise TooHeavy(f"It takes more than {megabytes} MB of memory to work through; make it simpler")
        elif kind == "failed":
            log.error("a worker failed:\n%s", value[1])
            raise Unreadable(f"It cannot be worked through: {value[0]}")


def _work(
    pipe: Connection, task: Callable[..., Any], arguments: tuple[Any, ...], megabytes: int, reports: bool
) -> None:
    """In the worker: do the task within its memory, and send what comes of it."""
    _limit_memory(megabytes)

    def report(done: float, words: str) -> None:
        pipe.send(("progress", (done, words)))

    message: tuple[_Kind, Any]
    try:
        message = ("done", task(*arguments, report) if reports else task(*arguments))
    except MemoryError:
        message = ("memory", None)
    except DesignError as error:
        problems = tuple(Problem(*problem) for problem in error.problems)
        message = ("refused", (type(error), error.message, error.path, problems))
    except Exception as error:  # noqa: BLE001 - passed on to the parent, which logs it
        message = ("failed", (f"{type(error).__name__}: {error}"[:200], traceback.format_exc()))
    with contextlib.suppress(BrokenPipeError):
        pipe.send(message)


def _limit_memory(megabytes: int) -> None:
    """Let this process take so much memory on top of what it has, where the system knows how."""
    try:
        import resource

        status = Path("/proc/self/status").read_text("utf-8")
        used = next(int(line.split()[1]) for line in status.splitlines() if line.startswith("VmData:")) * 1024
        most = used + megabytes * 1024 * 1024
        resource.setrlimit(resource.RLIMIT_DATA, (most, most))
    except (ImportError, OSError, StopIteration, ValueError):
        log.debug("this system cannot limit a worker's memory")


_PRELOADED = ["wingboard.services.reading", "wingboard.services.archive", "wingboard.services.warmed"]
_made: ForkServerContext | SpawnContext | None = None
_starting = threading.Lock()
_warm = False


def _context() -> ForkServerContext | SpawnContext:
    """A server that forks workers quickly, where there is such a thing."""
    global _made  # noqa: PLW0603 - one for the whole program, as multiprocessing has it
    if _made is None:
        if "forkserver" in mp.get_all_start_methods():
            forking = mp.get_context("forkserver")
            forking.set_forkserver_preload(_PRELOADED)
            _made = forking
        else:
            _made = mp.get_context("spawn")
    return _made


def warm_up() -> None:
    """Start the server of workers, once: loading it is not counted as the time that a file takes to read."""
    global _warm  # noqa: PLW0603 - like the server itself
    with _starting:
        if not _warm:
            _follow(_nothing, seconds=60, megabytes=MEGABYTES)
            _warm = True


def _nothing() -> None:
    """Work that is done at once."""
