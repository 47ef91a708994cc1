"""Jobs and their logs."""

from __future__ import annotations

from ironkettle.api.policies.base import EVERYBODY, STOREKEEPERS, WORKERS, Right


class JobPolicy:
    """Everybody signed in reads. Which entries a role may write is told by core/jobs/signing.py."""

    read = Right("view  jobs", EVERYBODY)
    open = Right("open a job", WORKERS)
    append = Right("record on a job", STOREKEEPERS, signatories=True)
