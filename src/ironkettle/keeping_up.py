"""What jobs lack that an earlier version left: snapshots and summaries, made before the server serves."""

from __future__ import annotations

import sys
from datetime import UTC, datetime

from sqlalchemy import Engine

from ironkettle.core.base.errors import RefusedError, RuleError
from ironkettle.store.base import session_of
from ironkettle.store.jobs.cases import state_of
from ironkettle.store.jobs.logs import jobs_without_snapshot, keep_marks_of, keep_up
from ironkettle.store.jobs.rows import DamagedLogError, JobRow
from ironkettle.store.shop.tables import shop_of


def keep_up_all(application: Engine) -> None:
    """Snapshots and summaries for jobs that have none of this version; one that cannot be read is left for verify."""
    with session_of(application) as session:
        waiting = [job.id for job in jobs_without_snapshot(session)]
    for job_id in waiting:
        try:
            with session_of(application) as session:
                job = session.get_one(JobRow, job_id, with_for_update=True)
                state = state_of(session, job)
                keep_up(session, job, state, shop_of(session), None, datetime.now(UTC))
                keep_marks_of(session, job, state)
        except (DamagedLogError, RefusedError, RuleError) as error:
            print(f"A job is not on the list as it should be: {error}", file=sys.stderr)
