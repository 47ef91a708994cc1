"""Jobs: the entry as it is sealed, the chain over a log, who may write and sign what, and what a certificate states."""

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
from ironkettle.core.jobs.entry import Entry
from ironkettle.core.jobs.older import kit_of, samples_within
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
    "CLOCK_DOUBT_S",
    "FIRST_LINK",
    "FIT",
    "SEAL_FORMAT",
    "BrokenLink",
    "Entry",
    "Opened",
    "Sealed",
    "check_bench_time",
    "check_chain",
    "check_may_write",
    "clock_in_doubt",
    "compose_statement",
    "kit_of",
    "link_of",
    "needs_signature",
    "read_sealed",
    "samples_within",
    "seal_text",
    "signature_of",
    "signed_words",
]
