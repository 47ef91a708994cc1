"""Recordings as the API tells them, and where the server's recorder keeps them."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import UTC, datetime
from typing import Any, Self
from uuid import UUID

import structlog
from pydantic import BaseModel
from sqlalchemy import Engine
from sqlalchemy.exc import SQLAlchemyError
from starlette.concurrency import run_in_threadpool

from ironkettle.core.machine.stand import RecordingState, StandMap, Trouble
from ironkettle.stand.recorder import Recording
from ironkettle.store.base import session_of
from ironkettle.store.jobs.recordings import (
    RecordingRow,
    finish,
    keep_chunk,
    last_chunk,
    left_open,
    recover,
    stand_map_of,
)
from ironkettle.store.shop.tables import shop_of

log = structlog.get_logger()

STATE_WORD: dict[str, str] = {
    "waiting": "raising the pressure",
    "recording": "recording",
    "ended": "recording ended",
    "interrupted": "interrupted",
}


class RecordingOut(BaseModel):
    """A recording of the stand. ``goes_on``: it is under way; ``kept``: everything it read is in the record."""

    run: UUID
    number: int
    who: str
    state: str
    word: str
    goes_on: bool
    kept: bool
    count: int
    held_s: float
    said: list[str]

    @classmethod
    def of(cls, live: Recording) -> Self:
        held = live.times[-1] - live.times[0] if live.times else 0.0
        said = [event.says for event in live.said]
        if live.beat.says is not None:
            said.append(live.beat.says)
        if live.unkept is not None:
            said.append(
                "readings cannot be saved at the moment (database unreachable or disk full); they are held in memory and saving is retried"
            )
        return cls(
            run=live.run, number=live.number, who=live.who, state=live.state, word=STATE_WORD[live.state],
            goes_on=live.is_live, kept=live.kept, count=len(live.times), held_s=held, said=said,
        )  # fmt: skip

    @classmethod
    def kept_as(cls, row: RecordingRow, number: int, who: str, count: int, held_s: float) -> Self:
        """One that is not in the server's hands any more, as the record tells it."""
        return cls(
            run=row.run, number=number, who=who, state=row.state, word=STATE_WORD.get(row.state, row.state),
            goes_on=row.state in {"waiting", "recording"}, kept=row.in_log > 0, count=count, held_s=held_s,
            said=[event["says"] for event in row.said],
        )  # fmt: skip


class DatabaseKeeper:
    """Keeps recordings in the database, each call a transaction of its own."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine

    async def chunks(self, run: UUID, hold: int, first: int, texts: Sequence[str]) -> None:
        await run_in_threadpool(self._chunks, run, hold, first, texts)

    def _chunks(self, run: UUID, hold: int, first: int, texts: Sequence[str]) -> None:
        with session_of(self._engine) as session:
            row = session.get_one(RecordingRow, run)
            if row.hold != (hold or None) or row.state != "recording":
                row.hold, row.state = hold or None, "recording"
            there, before = last_chunk(session, run)
            for place, text in enumerate(texts[max(there - first, 0) :], start=max(there, first)):
                before = keep_chunk(session, run, place, text, before, datetime.now(UTC))

    async def ended(self, run: UUID, state: RecordingState, said: list[Trouble]) -> None:
        await run_in_threadpool(self._ended, run, state, said)

    def _ended(self, run: UUID, state: RecordingState, said: list[Trouble]) -> None:
        with session_of(self._engine) as session:
            finish(session, run, state, [_told(event) for event in said], shop_of(session), datetime.now(UTC))


def _told(trouble: Trouble) -> dict[str, Any]:
    return {"key": trouble.key, "at": trouble.at, "says": trouble.says, "ends": trouble.ends}


def recover_all(engine: Engine, but: UUID | None = None) -> bool:
    """End what another server left open; gives whether the database answered. ``but``: what this one records itself."""
    try:
        with session_of(engine) as session:
            runs = [run for run in left_open(session) if run != but]
        for run in runs:
            with session_of(engine) as session:
                recover(session, run, shop_of(session), datetime.now(UTC))
            log.warning("recording recovered", run=str(run))
    except SQLAlchemyError as error:
        log.error("recordings not looked at yet", error=str(error)[:200])
        return False
    return True


def load_map(engine: Engine) -> StandMap:
    """The shop's register map."""
    with session_of(engine) as session:
        return stand_map_of(session)
