"""Check command: walk every job's hash chain and say where one does not hold."""

from __future__ import annotations

import sys

from ironkettle.settings import Settings
from ironkettle.store.base import make_engine, session_of
from ironkettle.store.jobs import check_log, list_jobs


def main() -> int:
    """Prints one line a job; exit code 1 when any chain is broken."""
    broken_jobs = 0
    engine = make_engine(Settings().database_url)
    with session_of(engine) as session:
        jobs = list_jobs(session)
        for job in jobs:
            broken = check_log(session, job)
            broken_jobs += bool(broken)
            detail = "holds" if not broken else "; ".join(f"entry {link.seq} {link.reason}" for link in broken)
            print(f"job {job.number}: {job.entry_count} entries, chain {detail}")
    print(f"{len(jobs)} jobs checked, {broken_jobs} broken")
    engine.dispose()
    return 1 if broken_jobs else 0


if __name__ == "__main__":
    sys.exit(main())
