"""What a certificate is made from, and the words of it that every page shares."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from datetime import datetime
from functools import cached_property

from ironkettle.core.base.dates import shown_moment
from ironkettle.core.jobs import Case, Mark, Payload, Resolved, State
from ironkettle.core.jobs.kinds.ending import closed_by
from ironkettle.core.jobs.summary import Summary, summary_of
from ironkettle.core.machine.pressure import Sample
from ironkettle.core.shop.letterhead import Letterhead


def check_text(letterhead: Letterhead, number: int, head: str) -> str:
    """Where a certificate can be checked, or by what, where no address of the server is known."""
    if letterhead.site:
        return f"{letterhead.site.rstrip('/')}/check?job={number}&record={head[:16]}"
    return f"JOB {number} RECORD {head[:16]}"


@dataclass(frozen=True)
class Certified:
    """What a certificate is made from: the job, what it states, names for entries that carry none, the samples by run.

    ``head``: the hash of its last entry; ``log``: its entries, each with who made it and when; ``letterhead``: as it was signed, or as it stands now.
    """

    number: int
    head: str
    case: Case
    statement: Sequence[str]
    names: Mapping[str, str]
    traces: Mapping[str, Sequence[Sample]]
    pictures: Mapping[str, bytes] = field(default_factory=dict)
    log: Sequence[tuple[Payload, Mark]] = ()
    letterhead: Letterhead = field(default_factory=Letterhead)

    @property
    def state(self) -> State:
        return self.case.state

    @property
    def resolved(self) -> Resolved:
        return self.case.resolved

    @cached_property
    def summary(self) -> Summary:
        return summary_of(self.case)

    @property
    def released(self) -> bool:
        """Whether it was signed: released, or ended otherwise."""
        return closed_by(self.state) is not None

    @property
    def check_text(self) -> str:
        """What its code says: where it can be checked, or by what, where no address of the server is known."""
        return check_text(self.letterhead, self.number, self.head)

    def who(self, mark: Mark) -> str:
        """The name as it was when the entry was made; entries of the first format have only a key."""
        return mark.author(self.names)

    def when(self, moment: datetime) -> str:
        """A moment in the shop's zone."""
        return shown_moment(moment, self.letterhead.clock)
