"""The state of a job as a document, kept beside its log so that an entry more need not read all before it.

It is never the truth: whatever it says must come out the same when the log is folded again.
"""

from __future__ import annotations

from datetime import datetime
from typing import Any
from uuid import UUID

from ironkettle.core.jobs.basis import JobBasis, TokenUsed
from ironkettle.core.jobs.registry import kind_of, read_payload
from ironkettle.core.jobs.runs import Chunk, GaugeUsed, Judgement, MeasuredInPlace
from ironkettle.core.jobs.state import Mark, Marked, Run, State
from ironkettle.core.shop.people import Signature

# Raised whenever what is written here changes its meaning; one of another format is built again from the log.
SNAPSHOT_FORMAT = 7
_Document = dict[str, Any]


def to_snapshot(state: State) -> _Document:
    """The state as plain values that JSON can hold."""
    return {
        "books": {name: _book(book) for name, book in state.books.items()},
        "first": {name: _book(book) for name, book in _first_otherwise(state).items() if book},
        "runs": [_run(run) for run in state.runs.values()],
        "arrived": dict(state.arrived),
        "changed": dict(state.changed),
        "completed": dict(state.completed),
        "count": state.count,
    }


def from_snapshot(document: _Document) -> State:
    """The state in a document. Raises KeyError, ValueError or TypeError for one that is none."""
    state = State(
        books={name: _read_book(book) for name, book in document["books"].items()},
        runs={one["key"]: _read_run(one) for one in document["runs"]},
        arrived=dict(document["arrived"]),
        changed=dict(document["changed"]),
        completed=dict(document["completed"]),
        count=document["count"],
    )
    state.firsts = {name: dict(book) for name, book in state.books.items()}
    for name, book in document["first"].items():
        state.firsts.setdefault(name, {}).update(_read_book(book))
    return state


def _first_otherwise(state: State) -> dict[str, dict[Any, Marked[Any]]]:
    """What was seen first and differs from what stands last, or stands no more."""
    found: dict[str, dict[Any, Marked[Any]]] = {}
    for name, kept in state.firsts.items():
        last = state.books.get(name, {})
        found[name] = {key: marked for key, marked in kept.items() if last.get(key) is not marked}
    return found


def _book(book: dict[Any, Marked[Any]]) -> list[list[Any]]:
    return [[list(key) if isinstance(key, tuple) else key, _marked(marked)] for key, marked in book.items()]


def _read_book(listed: list[list[Any]]) -> dict[Any, Marked[Any]]:
    return {tuple(key) if isinstance(key, list) else key: _read_marked(marked) for key, marked in listed}


def _marked(marked: Marked[Any]) -> _Document:
    return {
        "is": marked.value.model_dump(mode="json", exclude_defaults=True) | {"kind": kind_of(marked.value).name}
    } | {"by": _mark(marked.mark)}


def _read_marked(document: _Document) -> Marked[Any]:
    return Marked(read_payload(document["is"]), _read_mark(document["by"]))


def _mark(mark: Mark) -> _Document:
    return {
        "entry": str(mark.entry),
        "seq": mark.seq,
        "who": mark.who,
        "when": mark.when.isoformat(),
        "name": mark.name,
        "signature": mark.signature.model_dump(mode="json") if mark.signature else None,
        "judgement": mark.judgement.model_dump(mode="json") if mark.judgement else None,
        "chunks": [chunk.model_dump() for chunk in mark.chunks],
        "clock_ahead_s": mark.clock_ahead_s,
        "noted": mark.noted.isoformat() if mark.noted else None,
        "basis": mark.basis.model_dump() if mark.basis else None,
        "token": mark.token.model_dump() if mark.token else None,
    }


def _read_mark(document: _Document) -> Mark:
    signature, judgement = document["signature"], document["judgement"]
    return Mark(
        UUID(document["entry"]),
        document["seq"],
        document["who"],
        datetime.fromisoformat(document["when"]),
        document["name"],
        Signature.model_validate(signature) if signature else None,
        Judgement.model_validate(judgement) if judgement else None,
        tuple(Chunk.model_validate(chunk) for chunk in document["chunks"]),
        document["clock_ahead_s"],
        datetime.fromisoformat(document["noted"]) if document["noted"] else None,
        JobBasis.model_validate(document["basis"]) if document["basis"] else None,
        TokenUsed.model_validate(document["token"]) if document["token"] else None,
    )


_PLAIN = ("said", "key", "test", "when", "source", "count", "first_s", "last_s", "hold", "abandoned", "record", "note")


def _run(run: Run) -> _Document:
    return {name: getattr(run, name) for name in _PLAIN} | {
        "mark": _mark(run.mark),
        "gauge": run.gauge.model_dump(mode="json") if run.gauge else None,
        "compliance": run.compliance.model_dump(mode="json") if run.compliance else None,
        "closed": _mark(run.closed) if run.closed else None,
    }


def _read_run(document: _Document) -> Run:
    gauge, compliance, closed = document["gauge"], document["compliance"], document["closed"]
    return Run(
        **{name: document[name] for name in _PLAIN},
        mark=_read_mark(document["mark"]),
        gauge=GaugeUsed.model_validate(gauge) if gauge else None,
        compliance=MeasuredInPlace.model_validate(compliance) if compliance else None,
        closed=_read_mark(closed) if closed else None,
    )
