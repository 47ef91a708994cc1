"""The hash chain over a job's log: each entry is sealed together with all before it."""

from __future__ import annotations

import hashlib
import json
from collections.abc import Iterable
from dataclasses import dataclass
from datetime import UTC
from uuid import UUID

from ironkettle.core.jobs.entries import Entry

FIRST_LINK = "0" * 64


@dataclass(frozen=True, slots=True)
class Sealed:
    """An entry with the link before it and its own."""

    entry: Entry
    previous: str
    hash: str


@dataclass(frozen=True, slots=True)
class BrokenLink:
    """Where a chain does not hold, and why."""

    seq: int
    reason: str


def link_of(previous: str, job: UUID, entry: Entry) -> str:
    """SHA-256 over the link before and the entry in a fixed JSON form (sorted keys, UTC times). [hex]"""
    document = {
        "previous": previous,
        "job": str(job),
        "id": str(entry.id),
        "seq": entry.seq,
        "who": entry.who,
        "bench_time": entry.bench_time.astimezone(UTC).isoformat(),
        "server_time": entry.server_time.astimezone(UTC).isoformat(),
        "payload": entry.payload.model_dump(mode="json"),
    }
    text = json.dumps(document, sort_keys=True, separators=(",", ":"), ensure_ascii=False)
    return hashlib.sha256(text.encode("utf-8")).hexdigest()


def check_chain(job: UUID, sealed: Iterable[Sealed], head: str) -> list[BrokenLink]:
    """Every place where the chain does not hold: changed, missing, or cut off at the end."""
    broken: list[BrokenLink] = []
    previous, expected = FIRST_LINK, 1
    for link in sealed:
        if link.entry.seq != expected:
            broken.append(BrokenLink(expected, f"entry {expected} is missing; entry {link.entry.seq} follows"))
            expected = link.entry.seq
        if link.previous != previous:
            broken.append(BrokenLink(link.entry.seq, "does not follow the entry before it"))
        if link_of(link.previous, job, link.entry) != link.hash:
            broken.append(BrokenLink(link.entry.seq, "was changed after it was written"))
        previous, expected = link.hash, expected + 1
    if previous != head:
        broken.append(BrokenLink(expected, "entries are missing at the end"))
    return broken
