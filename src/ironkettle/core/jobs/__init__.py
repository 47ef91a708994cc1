"""Jobs: the log and its chain, the state folded from it, the tasks computed from both, and what a certificate states."""

from ironkettle.core.jobs.ask import Ask, Choice
from ironkettle.core.jobs.basis import JobBasis, TokenUsed
from ironkettle.core.jobs.case import Carried, Case, OnShelf, Tables
from ironkettle.core.jobs.chain import (
    FIRST_LINK,
    SAMPLES_BESIDE,
    SEAL_FORMAT,
    BrokenLink,
    Opened,
    Sealed,
    check_chain,
    link_of,
    read_sealed,
    seal_text,
)
from ironkettle.core.jobs.entry import Entry
from ironkettle.core.jobs.older import kit_of, samples_within
from ironkettle.core.jobs.preview import preview, work_faults
from ironkettle.core.jobs.registry import AnyPayload, fold, payload_words, read_payload
from ironkettle.core.jobs.resolved import Resolved, resolve
from ironkettle.core.jobs.signing import (
    CLOCK_DOUBT_S,
    check_bench_time,
    check_may_write,
    clock_in_doubt,
    needs_signature,
    signature_of,
    signed_words,
)
from ironkettle.core.jobs.state import Mark, Marked, Payload, Run, State
from ironkettle.core.jobs.statement import FIT, compose_statement
from ironkettle.core.jobs.task import STAGE_WORD, Stage, Status, Task, TaskKind
from ironkettle.core.jobs.tasks import check_entry, next_task, tasks_of

__all__ = [
    "CLOCK_DOUBT_S", "FIRST_LINK", "FIT", "SAMPLES_BESIDE",
    "SEAL_FORMAT", "STAGE_WORD", "AnyPayload", "Ask", "BrokenLink", "Carried", "Case",
    "Choice", "Entry", "JobBasis", "Mark", "Marked", "OnShelf", "Opened", "Payload", "Resolved", "Run", "Sealed", "Stage", "State",
    "Status", "Tables", "Task", "TaskKind", "TokenUsed", "check_bench_time", "check_chain", "check_entry", "check_may_write",
    "clock_in_doubt", "compose_statement", "fold", "kit_of", "link_of", "needs_signature", "next_task", "payload_words",
    "preview", "read_payload", "read_sealed", "resolve", "samples_within", "seal_text", "signature_of", "signed_words",
    "tasks_of", "work_faults",
]  # fmt: skip
