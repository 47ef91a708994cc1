"""The log of a job as it is looked at: every entry in words, with its seal."""

from __future__ import annotations

from datetime import datetime
from typing import Any
from uuid import UUID

from pydantic import BaseModel
from sqlalchemy.orm import Session

from ironkettle.core.jobs import Case, clock_in_doubt, kit_of, payload_words, signed_words
from ironkettle.core.jobs.kinds.strike import STRUCK
from ironkettle.core.jobs.tasks import is_strikable
from ironkettle.store.jobs.rows import JobRow, Page, log_page
from ironkettle.store.shop.people import names_of


class EntryOut(BaseModel):
    """An entry as it stands in the log, in words, with its seal: ``sealed`` is the very text that ``hash`` is of."""

    id: UUID
    seq: int
    kind: str
    words: str
    who: str
    who_name: str
    bench_time: datetime
    server_time: datetime
    when: datetime
    clock_ahead_s: float | None
    clock_in_doubt: bool
    signed: str | None
    token: str | None
    struck: str | None
    strikable: bool
    payload: dict[str, Any]
    previous: str
    hash: str
    sealed: str


def log_view(session: Session, job: JobRow, case: Case, page: Page) -> list[EntryOut]:
    """The entries of a page, as the author of the case may see and strike them out."""
    names, kits, struck = names_of(session), kit_of(case.resolved.whole), case.state.book(STRUCK)
    found = []
    for row in log_page(session, job.id, page):
        opened = row.read(kits)
        entry = opened.entry
        by = struck.get(str(entry.id))
        found.append(
            EntryOut(
                id=entry.id,
                seq=entry.seq,
                kind=entry.kind,
                words=payload_words(case.resolved, entry.payload),
                who=entry.who,
                who_name=entry.who_name or names.get(entry.who, entry.who),
                bench_time=entry.bench_time,
                server_time=entry.server_time,
                when=entry.when,
                clock_ahead_s=entry.clock_ahead_s,
                clock_in_doubt=clock_in_doubt(entry),
                signed=signed_words(entry.signature),
                token=None if entry.token is None else entry.token.words,
                struck=by.value.reason if by is not None else None,
                strikable=is_strikable(case, entry.id, entry.who, entry.payload),
                payload=dict(opened.payload),
                previous=opened.previous,
                hash=row.hash,
                sealed=row.sealed,
            )
        )
    return found
