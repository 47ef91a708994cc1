"""Jobs: the typed log, the state it adds up to, the stages, and the seal over it."""

from ironkettle.core.jobs.chain import FIRST_LINK, BrokenLink, Sealed, check_chain, link_of
from ironkettle.core.jobs.entries import Entry, Payload, Stage
from ironkettle.core.jobs.rules import Author, Bench, check_entry
from ironkettle.core.jobs.stages import Need, StageReport, next_stage, stage_reports
from ironkettle.core.jobs.state import JobState, Marked, TestRun, job_state
from ironkettle.core.jobs.tests import analysis_of, last_closed_run

__all__ = [
    "FIRST_LINK",
    "Author",
    "Bench",
    "BrokenLink",
    "Entry",
    "JobState",
    "Marked",
    "Need",
    "Payload",
    "Sealed",
    "Stage",
    "StageReport",
    "TestRun",
    "analysis_of",
    "check_chain",
    "check_entry",
    "job_state",
    "last_closed_run",
    "link_of",
    "next_stage",
    "stage_reports",
]
