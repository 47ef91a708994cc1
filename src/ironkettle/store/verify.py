"""Check command: walk every job's hash chain, its samples, recordings, photos, sheet, settings and snapshot, what the lists
show of it, and the trail; and say where one does not hold."""

from __future__ import annotations

import sys

from sqlalchemy import select
from sqlalchemy.exc import DBAPIError

from ironkettle.config import Settings
from ironkettle.core.base.errors import RefusedError
from ironkettle.store.base import make_engine, session_of
from ironkettle.store.jobs.derived import derived_differs
from ironkettle.store.jobs.logs import check_log, drop_snapshot, snapshot_differs
from ironkettle.store.jobs.recordings import broken_recordings
from ironkettle.store.jobs.rows import DamagedLogError, JobRow
from ironkettle.store.shop.trail import broken_trail


def main() -> int:
    """Prints one line a job; exit code 1 when any chain is broken or cannot be read, or something beside a log differs from it."""
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
                if not broken:
                    broken += derived_differs(session, job)
                if not broken and snapshot_differs(session, job):
                    drop_snapshot(session, job)
                    broken.append("its snapshot differed from its log and was dropped; the log is what counts")
                count = f"{job.entry_count} entries"
        except (DBAPIError, DamagedLogError, RefusedError) as error:
            broken, count = [str(error).splitlines()[0]], "entries not counted"
        broken_jobs += bool(broken)
        print(f"job {number}: {count}, chain {'; '.join(broken) if broken else 'holds'}", flush=True)
    with session_of(engine) as session:
        trail = broken_trail(session)
    for line in trail:
        print(line)
    print(f"{len(jobs)} jobs checked, {broken_jobs} broken; trail {'broken' if trail else 'holds'}")
    engine.dispose()
    return 1 if broken_jobs or trail else 0


if __name__ == "__main__":
    sys.exit(main())
