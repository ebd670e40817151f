"""Long work: started by a request, followed on the stream of news, stopped by another request."""

from __future__ import annotations

import logging
import secrets
import threading
from collections import OrderedDict
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from typing import Any, Literal, Protocol

from wingboard.core.record.errors import DesignError, NotPossible, UnknownThing
from wingboard.services.news import News, Progressed
from wingboard.services.workers import Stopped
from wingboard.store.errors import StoreError

log = logging.getLogger(__name__)
AT_ONCE = 2
"""Jobs that run at the same time; others wait."""
MOST = 20
"""Jobs that may wait or run; one more is refused. So many finished ones are remembered, with their results."""

State = Literal["waiting", "running", "done", "stopped", "failed"]


class Job:
    """One piece of long work."""

    def __init__(self, ident: str, task: str, design: str | None, news: News, key: str | None = None) -> None:
        self.id = ident
        self.task = task
        self.design = design
        self.key = key
        self.state: State = "waiting"
        self.done: float | None = None
        self.words = "Waiting"
        self.result: Any = None
        self.problem: DesignError | StoreError | None = None
        self._news = news
        self._stop = threading.Event()
        self._on_stop: Callable[[], object] | None = None

    def report(self, done: float, words: str) -> None:
        """Say how far it has got: its share from 0 to 1, and what it is doing."""
        self.done, self.words = done, words
        self._tell()

    def stopped(self) -> bool:
        """Whether it was asked to stop."""
        return self._stop.is_set()

    def when_stopped(self, call: Callable[[], object]) -> None:
        """Have something called when it is asked to stop; at once when it was already."""
        self._on_stop = call
        if self.stopped():
            call()

    def stop(self) -> None:
        """Ask it to stop."""
        self._stop.set()
        if self._on_stop is not None:
            self._on_stop()

    def moved_to(self, state: State, words: str) -> None:
        """Note a new state and tell it."""
        self.state, self.words = state, words
        if state == "done":
            self.done = 1.0
        self._tell()

    def _tell(self) -> None:
        self._news.tell(
            Progressed(
                job=self.id, task=self.task, design=self.design, state=self.state, done=self.done, words=self.words
            )
        )


class Work(Protocol):
    """What a job does: its value is the job's result.

    :raises Stopped: it was asked to. :raises DesignError, StoreError: it cannot be done.
    """

    def __call__(self, job: Job) -> Any:
        """Do it."""


class Jobs:
    """All jobs of one server."""

    def __init__(self, news: News) -> None:
        self._news = news
        self._pool = ThreadPoolExecutor(AT_ONCE, thread_name_prefix="job")
        self._lock = threading.Lock()
        self._jobs: OrderedDict[str, Job] = OrderedDict()

    def start(self, task: str, design: str | None, work: Work, key: str | None = None) -> Job:
        """Start a job; one of this task and design that was started with the same key is that job still.

        :raises NotPossible: too many are waiting.
        """
        with self._lock:
            for known in self._jobs.values():
                if key and (known.task, known.design, known.key) == (task, design, key):
                    return known
            going = sum(job.state in ("waiting", "running") for job in self._jobs.values())
            if going >= MOST:
                raise NotPossible(f"{MOST} jobs are waiting or running; stop one, or wait")
            job = Job(f"j-{secrets.token_hex(6)}", task, design, self._news, key)
            self._jobs[job.id] = job
            self._forget_old()
        self._pool.submit(self._run, job, work)
        return job

    def find(self, ident: str) -> Job:
        """A job by its id. :raises UnknownThing: there is none, or it was forgotten."""
        with self._lock:
            job = self._jobs.get(ident)
        if job is None:
            raise UnknownThing(f"There is no job “{ident[:40]}”", "job")
        return job

    def close(self) -> None:
        """Stop everything."""
        with self._lock:
            jobs = tuple(self._jobs.values())
        for job in jobs:
            job.stop()
        self._pool.shutdown(wait=False, cancel_futures=True)

    def _forget_old(self) -> None:
        finished = [ident for ident, job in self._jobs.items() if job.state not in ("waiting", "running")]
        for ident in finished[: max(0, len(self._jobs) - MOST)]:
            del self._jobs[ident]

    def _run(self, job: Job, work: Work) -> None:
        try:
            if job.stopped():
                raise Stopped
            job.moved_to("running", "Started")
            job.result = work(job)
            job.moved_to("done", "Done")
        except Stopped:
            job.moved_to("stopped", "Stopped")
        except (DesignError, StoreError) as error:
            job.problem = error
            job.moved_to("failed", str(error))
        except Exception:
            log.exception("job %s (%s) failed", job.id, job.task)
            job.moved_to("failed", "It failed; the log says why")
