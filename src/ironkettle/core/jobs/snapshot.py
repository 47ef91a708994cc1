"""The state of a job as a document, kept beside its log so that a new entry need not read all before it.

It is never the truth: whatever it says must come out the same when the log is folded again.
"""

from __future__ import annotations

from collections.abc import Hashable, Mapping
from dataclasses import dataclass
from typing import TypeAlias

from pydantic import JsonValue, TypeAdapter

from ironkettle.core.base.json import JsonObject
from ironkettle.core.jobs.registry import kind_of, read_payload
from ironkettle.core.jobs.state import Mark, Marked, Payload, Run, State

# Raised whenever what is written here changes its meaning; one of another format is built again from the log.
SNAPSHOT_FORMAT = 10
_Book: TypeAlias = Mapping[Hashable, Marked[Payload]]
# Keys of several parts stand as lists.
_Key: TypeAlias = str | int | list[str | int]


@dataclass(slots=True)
class _Entry:
    """What stands in a book under a key, and who recorded it when."""

    value: dict[str, JsonValue]
    mark: Mark


@dataclass(slots=True)
class _Kept:
    """A state as it is kept. ``first``: what was recorded first and differs from what stands last, or does not stand any more."""

    books: dict[str, list[tuple[_Key, _Entry]]]
    first: dict[str, list[tuple[_Key, _Entry]]]
    runs: list[Run]
    arrived: dict[str, int]
    changed: dict[str, int]
    completed: dict[str, int]
    count: int


_KEPT: TypeAdapter[_Kept] = TypeAdapter(_Kept)


def to_snapshot(state: State) -> JsonObject:
    """The state as plain values that JSON can hold."""
    kept = _Kept(
        {name: _entries(book) for name, book in state.books.items()},
        {name: _entries(book) for name, book in _first_otherwise(state).items() if book},
        list(state.runs.values()),
        state.arrived,
        state.changed,
        state.completed,
        state.count,
    )
    document: JsonObject = _KEPT.dump_python(kept, mode="json", exclude_defaults=True)
    return document


def from_snapshot(document: Mapping[str, object]) -> State:
    """The state in a document. Raises ValueError or TypeError for one that is none."""
    kept = _KEPT.validate_python(document)
    state = State(
        books={name: _book(entries) for name, entries in kept.books.items()},
        runs={run.key: run for run in kept.runs},
        arrived=kept.arrived,
        changed=kept.changed,
        completed=kept.completed,
        count=kept.count,
    )
    state.firsts = {name: dict(book) for name, book in state.books.items()}
    for name, entries in kept.first.items():
        state.firsts.setdefault(name, {}).update(_book(entries))
    return state


def _first_otherwise(state: State) -> dict[str, _Book]:
    found: dict[str, _Book] = {}
    for name, kept in state.firsts.items():
        last = state.books.get(name, {})
        found[name] = {key: marked for key, marked in kept.items() if last.get(key) is not marked}
    return found


def _entries(book: _Book) -> list[tuple[_Key, _Entry]]:
    return [(_as_kept(key), _Entry(_document(marked.value), marked.mark)) for key, marked in book.items()]


def _document(payload: Payload) -> dict[str, JsonValue]:
    return payload.model_dump(mode="json", exclude_defaults=True) | {"kind": kind_of(payload).name}


def _as_kept(key: Hashable) -> _Key:
    if isinstance(key, tuple):
        return list(key)
    assert isinstance(key, str | int)
    return key


def _book(entries: list[tuple[_Key, _Entry]]) -> dict[Hashable, Marked[Payload]]:
    return {
        tuple(key) if isinstance(key, list) else key: Marked(read_payload(entry.value), entry.mark)
        for key, entry in entries
    }
