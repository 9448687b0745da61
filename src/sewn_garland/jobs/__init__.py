"""Long work beside the requests, with progress and stop."""

from __future__ import annotations

import logging
import threading
import uuid
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass, field
from typing import Any, Literal

from ..core.errors import InputError

log = logging.getLogger("sewn_garland")
State = Literal["waiting", "working", "done", "stopped", "failed"]
MOST_KEPT = 200


class Stopped(Exception):
    """The job was stopped by its user; nothing is kept of it."""


@dataclass
class Job:
    """One piece of long work: how far it is, and what came of it."""

    id: str = field(default_factory=lambda: uuid.uuid4().hex)
    state: State = "waiting"
    share: float = 0.0
    message: str | None = None
    result: Any = None
    stopping: bool = False

    def report(self, share: float) -> None:
        """Note the share done; raises Stopped when the user has stopped the job."""
        if self.stopping:
            raise Stopped
        self.share = min(1.0, max(self.share, share))


class Jobs:
    """A queue worked off by one thread, so that heavy work never crowds out the requests."""

    def __init__(self) -> None:
        self._pool = ThreadPoolExecutor(max_workers=1, thread_name_prefix="job")
        self._jobs: dict[str, Job] = {}
        self._lock = threading.Lock()

    def start(self, work: Callable[[Job], Any]) -> Job:
        """Queue work, which is called with its job and reports to it."""
        job = Job()
        with self._lock:
            self._jobs[job.id] = job
            for old in [j.id for j in self._jobs.values() if j.state in ("done", "stopped", "failed")][
                : max(0, len(self._jobs) - MOST_KEPT)
            ]:
                del self._jobs[old]
        self._pool.submit(_run, job, work)
        return job

    def find(self, job_id: str) -> Job | None:
        """Return a job, or None when there is none of that id."""
        return self._jobs.get(job_id)

    def stop(self, job: Job) -> None:
        """Ask a job to stop; it does at its next report."""
        job.stopping = True

    def close(self) -> None:
        """Stop everything."""
        for job in self._jobs.values():
            job.stopping = True
        self._pool.shutdown(wait=False, cancel_futures=True)


def _run(job: Job, work: Callable[[Job], Any]) -> None:
    try:
        job.report(0.0)
        job.state = "working"
        job.result = work(job)
        job.share, job.state = 1.0, "done"
    except Stopped:
        job.state, job.message = "stopped", "stopped; nothing was kept of it"
    except InputError as error:
        job.state, job.message = "failed", str(error)
    except Exception:
        log.exception("a job failed")
        job.state, job.message = "failed", "something went wrong here; nothing was kept, and the log says more"
