"""Jobs: the log and its chain, the state folded from it, the tasks computed from both, and what a certificate states."""

from ironkettle.core.jobs.chain import (
    FIRST_LINK,
    SEAL_FORMAT,
    BrokenLink,
    Opened,
    Sealed,
    check_chain,
    link_of,
    read_sealed,
    seal_text,
)
from ironkettle.core.jobs.chart import check_entry, moves_of, next_move
from ironkettle.core.jobs.entry import Entry
from ironkettle.core.jobs.log import Case, Mark, Marked, Payload, State, Tables
from ironkettle.core.jobs.model import CHAPTER_WORD, Ask, Chapter, Choice, Kind, Move, Status
from ironkettle.core.jobs.older import kit_of, samples_within
from ironkettle.core.jobs.preview import preview, work_faults
from ironkettle.core.jobs.register import AnyPayload, fold, payload_words, read_payload
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
from ironkettle.core.jobs.statement import FIT, compose_statement

__all__ = [
    "CHAPTER_WORD",
    "CLOCK_DOUBT_S",
    "FIRST_LINK",
    "FIT",
    "SEAL_FORMAT",
    "AnyPayload",
    "Ask",
    "BrokenLink",
    "Case",
    "Chapter",
    "Choice",
    "Entry",
    "Kind",
    "Mark",
    "Marked",
    "Move",
    "Opened",
    "Payload",
    "Resolved",
    "Sealed",
    "State",
    "Status",
    "Tables",
    "check_bench_time",
    "check_chain",
    "check_entry",
    "check_may_write",
    "clock_in_doubt",
    "compose_statement",
    "fold",
    "kit_of",
    "link_of",
    "moves_of",
    "needs_signature",
    "next_move",
    "payload_words",
    "preview",
    "read_payload",
    "read_sealed",
    "resolve",
    "samples_within",
    "seal_text",
    "signature_of",
    "signed_words",
    "work_faults",
]
