"""The hash chain over a job's log: each entry is sealed together with all before it.

What is hashed is a text, kept as it was hashed: later versions of the program may give an entry more
fields without touching the seal of an old one.
"""

from __future__ import annotations

import hashlib
import json
from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass
from datetime import UTC, datetime
from uuid import UUID

from pydantic import ValidationError

from ironkettle.core.base.errors import DamagedEntryError
from ironkettle.core.base.json import JsonObject, json_object
from ironkettle.core.jobs.entry import Entry
from ironkettle.core.jobs.older import carried_over, under_its_names

FIRST_LINK = "0" * 64
# 1: previous, job, id, seq, who, bench_time, server_time, payload. 2: with format,
# who_name, signature, judgement, told and clock_ahead_s. 3: payloads as tasks make them, samples
# beside the log with the seals of their chunks in it. 4: a quick service under that name.
SEAL_FORMAT = 4
# The first format whose samples are beside the log.
SAMPLES_BESIDE = 3
_READABLE: dict[int, Callable[[JsonObject, Mapping[str, str]], JsonObject]] = {
    1: carried_over,
    2: carried_over,
    3: lambda document, _kits: under_its_names(document),
    SEAL_FORMAT: lambda document, _kits: document,
}


@dataclass(frozen=True, slots=True)
class Sealed:
    """An entry as it is stored: the text that was hashed, its format, its link, and what the row beside it says."""

    text: str
    format: int
    hash: str
    seq: int
    row: Mapping[str, object]


@dataclass(frozen=True, slots=True)
class BrokenLink:
    """Where a chain does not hold, and why."""

    seq: int
    reason: str


def seal_text(previous: str, job: UUID, entry: Entry) -> str:
    """The text an entry is sealed with: JSON, keys sorted, times in UTC, the link before it inside."""
    document = {
        "format": SEAL_FORMAT,
        "previous": previous,
        "job": str(job),
        "id": str(entry.id),
        "seq": entry.seq,
        "who": entry.who,
        "who_name": entry.who_name,
        "bench_time": _time(entry.bench_time),
        "server_time": _time(entry.server_time),
        "clock_ahead_s": entry.clock_ahead_s,
        "signature": entry.signature.model_dump(mode="json") if entry.signature else None,
        "judgement": entry.judgement.model_dump(mode="json") if entry.judgement else None,
        "told": entry.told,
        "chunks": [chunk.model_dump(mode="json") for chunk in entry.chunks],
        "payload": entry.payload.model_dump(mode="json"),
    }
    # Left out where there is none, so that the text says no more than it means.
    document |= {
        name: field.model_dump(mode="json")
        for name in ("basis", "token", "letterhead")
        if (field := getattr(entry, name))
    }
    return json.dumps(document, sort_keys=True, separators=(",", ":"), ensure_ascii=False, allow_nan=False)


def link_of(text: str) -> str:
    """SHA-256 over the text of an entry. [hex]"""
    return hashlib.sha256(text.encode("utf-8")).hexdigest()


@dataclass(frozen=True, slots=True)
class Opened:
    """What stands in a sealed text: the entry, its document as written, the link before it, and the job it belongs to."""

    entry: Entry
    document: JsonObject
    previous: str
    job: str

    @property
    def payload(self) -> JsonObject:
        """The payload as it was written."""
        return json_object(self.document["payload"])


def read_sealed(text: str, form: int, kits: Mapping[str, str] | None = None) -> Opened:
    """What stands in a sealed text. ``kits``: the kit of each line, for entries of the first formats.

    Parameters: form : number of the format, from 1 [-].
    Raises DamagedEntryError when the text cannot be read as such.
    """
    if form not in _READABLE:
        raise DamagedEntryError(f"is sealed in format {form}, which this version does not know")
    try:
        document = json.loads(text)
        previous, job = document.pop("previous"), document.pop("job")
        if (sealed_in := document.pop("format", 1)) != form:
            raise DamagedEntryError(f"is stored as format {form}, and was sealed in format {sealed_in}")
        readable = _READABLE[form](document, kits or {})
        return Opened(Entry.model_validate(readable), document, str(previous), str(job))
    except (ValueError, KeyError, TypeError, AttributeError, RecursionError) as error:
        what = error.errors()[0]["msg"] if isinstance(error, ValidationError) else str(error)
        raise DamagedEntryError(f"cannot be read: {what[:200]}") from None


def check_chain(job: UUID, sealed: Iterable[Sealed], head: str) -> list[BrokenLink]:
    """Every place where the chain does not hold: changed, missing, unreadable, or cut off at the end."""
    broken: list[BrokenLink] = []
    last, expected = FIRST_LINK, 1
    for link in sealed:
        if link.seq != expected:
            broken.append(BrokenLink(expected, f"entry {expected} is missing; entry {link.seq} follows"))
            expected = link.seq
        broken += [BrokenLink(link.seq, reason) for reason in _faults(job, link, last)]
        last, expected = link.hash, expected + 1
    if last != head:
        broken.append(BrokenLink(expected, "entries are missing at the end"))
    return broken


def _faults(job: UUID, link: Sealed, last: str) -> list[str]:
    if link_of(link.text) != link.hash:
        return ["was changed after it was written"]
    try:
        opened = read_sealed(link.text, link.format)
    except DamagedEntryError as error:
        return [str(error)]
    entry, faults = opened.entry, []
    if opened.previous != last or opened.job != str(job):
        faults.append("does not follow the entry before it")
    said = {
        "id": entry.id,
        "seq": entry.seq,
        "kind": opened.payload["kind"],
        "who": entry.who,
        "bench_time": entry.bench_time,
        "server_time": entry.server_time,
    }
    differs = sorted(name for name, value in link.row.items() if said[name] != value)
    if differs:
        faults.append(f"stands in the list with another {' and '.join(differs)} than was recorded")
    return faults


def _time(moment: datetime) -> str:
    return moment.astimezone(UTC).isoformat()
