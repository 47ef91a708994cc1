"""Check command: walk every job's hash chain, its samples, its recordings and its snapshot, and say where one does not hold."""

from __future__ import annotations

import sys

from sqlalchemy import select
from sqlalchemy.exc import DBAPIError

from ironkettle.core.errors import RefusedError
from ironkettle.settings import Settings
from ironkettle.store.base import make_engine, session_of
from ironkettle.store.jobs import DamagedLogError, JobRow
from ironkettle.store.logs import check_log, drop_snapshot, snapshot_differs
from ironkettle.store.recordings import broken_recordings


def main() -> int:
    """Prints one line a job; exit code 1 when any chain is broken or cannot be read, or a snapshot differs from its log."""
    broken_jobs = 0
    engine = make_engine(Settings().database_url, patient=True)
    with session_of(engine) as session:
        jobs = session.execute(select(JobRow.id, JobRow.number).order_by(JobRow.number)).all()
    for job_id, number in jobs:
        # A transaction each: what is wrong with one job is no reason not to look at the next.
        try:
            with session_of(engine) as session:
                job = session.get_one(JobRow, job_id)
                broken = [f"entry {link.seq} {link.reason}" for link in check_log(session, job)]
                broken += broken_recordings(session, job_id)
                if not broken and snapshot_differs(session, job):
                    drop_snapshot(session, job)
                    broken.append("its snapshot differed from its log and was dropped; the log is what counts")
                count = f"{job.entry_count} entries"
        except (DBAPIError, DamagedLogError, RefusedError) as error:
            broken, count = [str(error).splitlines()[0]], "entries not counted"
        broken_jobs += bool(broken)
        print(f"job {number}: {count}, chain {'; '.join(broken) if broken else 'holds'}", flush=True)
    print(f"{len(jobs)} jobs checked, {broken_jobs} broken")
    engine.dispose()
    return 1 if broken_jobs else 0


if __name__ == "__main__":
    sys.exit(main())
