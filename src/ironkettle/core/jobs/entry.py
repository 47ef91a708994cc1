"""One entry of a job's log as it stands there: what happened, who, when, and what the server added."""

from __future__ import annotations

from datetime import datetime
from uuid import UUID

from pydantic import BaseModel, ConfigDict, SerializeAsAny, field_validator

from ironkettle.core.jobs.basis import JobBasis, TokenUsed
from ironkettle.core.jobs.registry import kind_of, read_payload
from ironkettle.core.jobs.runs import Chunk, Judgement
from ironkettle.core.jobs.state import Mark, Payload
from ironkettle.core.shop.letterhead import Letterhead
from ironkettle.core.shop.people import Signature


class Entry(BaseModel):
    """Times are UTC; ``seq`` starts at 1 and is set by the server.

    ``who_name`` is the name as it was then: a person renamed later does not rewrite a certificate.
    ``clock_ahead_s`` is by how much the bench's clock was ahead of the server's when it was sent,
    where the bench told; ``signature`` is what a signing entry stood on; ``judgement`` what a test
    run came to when it was closed; ``told`` what a release stated, made from the log; ``chunks`` the
    seals of the samples that came with it, which are kept beside the log. ``basis``: what the job is worked from, with
    its intake; ``token``: the script's token it was sent with, where no person sent it; ``letterhead``: the head of the shop's
    papers when a release or another end was signed, so that its certificate stays as it was.
    """

    model_config = ConfigDict(frozen=True)

    id: UUID
    seq: int
    who: str
    who_name: str | None = None
    bench_time: datetime
    server_time: datetime
    clock_ahead_s: float | None = None
    signature: Signature | None = None
    judgement: Judgement | None = None
    told: tuple[str, ...] | None = None
    chunks: tuple[Chunk, ...] = ()
    basis: JobBasis | None = None
    token: TokenUsed | None = None
    letterhead: Letterhead | None = None
    payload: SerializeAsAny[Payload]

    @field_validator("payload", mode="before")
    @classmethod
    def _any_kind(cls, value: object) -> object:
        return value if isinstance(value, Payload) else read_payload(value)

    @property
    def kind(self) -> str:
        return kind_of(self.payload).name

    @property
    def when(self) -> datetime:
        """The time that counts: the server's for a signature, else the bench's, where the work was done."""
        return self.bench_time if self.signature is None else self.server_time

    @property
    def mark(self) -> Mark:
        return Mark(
            self.id, self.seq, self.who, self.when, self.who_name, self.signature, self.judgement, self.chunks,
            self.clock_ahead_s, self.server_time, self.basis, self.token,
        )  # fmt: skip
