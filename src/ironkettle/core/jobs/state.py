"""The state of a job: what its entries add up to, in typed books, one for each thing that is recorded."""

from __future__ import annotations

from collections.abc import Hashable, Mapping
from dataclasses import dataclass, field, replace
from datetime import datetime
from typing import Generic, Protocol, TypeVar, cast
from uuid import UUID

from pydantic import BaseModel, ConfigDict, JsonValue

from ironkettle.core.jobs.basis import JobBasis, TokenUsed
from ironkettle.core.jobs.runs import Chunk, GaugeUsed, Judgement, MeasuredInPlace
from ironkettle.core.shop.people import Signature


class Payload(BaseModel):
    """One thing that happened. No field it does not know, nothing changed after reading."""

    model_config = ConfigDict(extra="forbid", frozen=True)


T = TypeVar("T")
K = TypeVar("K", bound=Hashable)
P = TypeVar("P", bound=Payload)


@dataclass(frozen=True, slots=True)
class Mark:
    """Who did it (key, and name as it was then), when, under which entry, and at which place in the log.

    ``signature``: what it stood on where it was signed; ``judgement``: what a test run came to when it was
    recorded, which later rules do not judge again; ``chunks``: the seals of the samples that came with it;
    ``noted``: the server's clock when it came; ``basis``: what the job is worked from, sealed with its intake;
    ``token``: the script's token it came with.
    """

    entry: UUID
    seq: int
    who: str
    when: datetime
    name: str | None = None
    signature: Signature | None = None
    judgement: Judgement | None = None
    chunks: tuple[Chunk, ...] = ()
    clock_ahead_s: float | None = None
    noted: datetime | None = None
    basis: JobBasis | None = None
    token: TokenUsed | None = None

    def author(self, names: Mapping[str, str] | None = None) -> str:
        """Who it was, and by which script's token where one sent it; ``names``: of people, for entries that carry none."""
        name = self.name or (names or {}).get(self.who, self.who)
        return name if self.token is None else f"{name}, {self.token.words}"


@dataclass(frozen=True, slots=True)
class Marked(Generic[T]):
    value: T
    mark: Mark


class AnyBook(Protocol):
    """A book of whatever keys and payloads."""

    @property
    def name(self) -> str: ...


@dataclass(frozen=True, slots=True)
class Book(Generic[K, P]):
    """A slice of the state: payloads of one kind, the last recorded under each key. The kind that writes it declares it.

    ``name``: what it is called in snapshots.
    """

    name: str


@dataclass(slots=True)
class Run:
    """One run of a test: begun and closed by entries of their own, or told in one.

    ``count``, ``first_s``, ``last_s``: its samples, which are kept beside the log; ``hold``: the stand's number
    of the hold they were read on; ``said``: what was wrong with the stand meanwhile; ``cut_short``: why its time was not waited out.
    """

    key: str
    test: str
    when: str
    mark: Mark
    gauge: GaugeUsed | None = None
    source: str = "typed"
    compliance: MeasuredInPlace | None = None
    count: int = 0
    first_s: float = 0.0
    last_s: float = -1.0
    hold: int | None = None
    closed: Mark | None = None
    abandoned: bool = False
    record: Mapping[str, JsonValue] | None = None
    note: str = ""
    cut_short: str | None = None
    said: list[str] = field(default_factory=list)

    @property
    def judgement(self) -> Judgement | None:
        return None if self.closed is None else self.closed.judgement

    @property
    def counts(self) -> bool:
        """Whether it was closed with a verdict."""
        return self.closed is not None and not self.abandoned

    def take(self, chunks: tuple[Chunk, ...]) -> None:
        """Note samples that came. [s]"""
        for chunk in chunks:
            self.first_s = chunk.first_s if not self.count else self.first_s
            self.count, self.last_s = self.count + chunk.count, chunk.last_s


@dataclass(slots=True)
class State:
    """What is known of a job now. ``books`` by name, what was recorded last under each key; ``firsts``: what was recorded first,
    never overwritten by a second look. ``arrived``: how many have come of what was short; ``changed``: the last entry, by its place in the
    log, that changed a thing after it was looked at, by a key such as ``part:rod``; ``completed``: the last entry by task. Read books by ``book``, ``first``, ``get``.
    """

    books: dict[str, dict[Hashable, Marked[Payload]]] = field(default_factory=dict)
    firsts: dict[str, dict[Hashable, Marked[Payload]]] = field(default_factory=dict)
    runs: dict[str, Run] = field(default_factory=dict)
    arrived: dict[str, int] = field(default_factory=dict)
    changed: dict[str, int] = field(default_factory=dict)
    completed: dict[str, int] = field(default_factory=dict)
    count: int = 0

    def copy(self) -> State:
        """The same state, to be changed on its own."""
        return State(
            books={name: dict(book) for name, book in self.books.items()},
            firsts={name: dict(book) for name, book in self.firsts.items()},
            runs={key: replace(run, said=list(run.said)) for key, run in self.runs.items()},
            arrived=dict(self.arrived),
            changed=dict(self.changed),
            completed=dict(self.completed),
            count=self.count,
        )

    def book(self, book: Book[K, P]) -> Mapping[K, Marked[P]]:
        """What was recorded last under each key; empty where nothing was."""
        return cast("Mapping[K, Marked[P]]", self.books.get(book.name, {}))

    def first(self, book: Book[K, P]) -> Mapping[K, Marked[P]]:
        """What was recorded first under each key, whatever came after."""
        return cast("Mapping[K, Marked[P]]", self.firsts.get(book.name, {}))

    def note(self, book: Book[K, P], key: K, payload: P, mark: Mark) -> None:
        """Record under a key; the first stays readable beside the last."""
        marked: Marked[Payload] = Marked(payload, mark)
        self.firsts.setdefault(book.name, {}).setdefault(key, marked)
        self.books.setdefault(book.name, {})[key] = marked

    def drop(self, book: Book[K, P], key: K) -> None:
        """Let what stands under a key count no more; what was first stays readable."""
        self.books.get(book.name, {}).pop(key, None)

    def get(self, book: Book[K, P], key: K) -> P | None:
        """What was recorded last under a key, or None."""
        marked = self.book(book).get(key)
        return None if marked is None else marked.value

    def has(self, book: Book[K, P], key: K) -> bool:
        return key in self.books.get(book.name, {})

    def marks(self, book: AnyBook) -> list[Mark]:
        """Who recorded what stands in a book, and when."""
        return [marked.mark for marked in self.books.get(book.name, {}).values()]

    def runs_of(self, test: str, when: str | None = None) -> list[Run]:
        """The runs of a test in the order they were begun."""
        return [run for run in self.runs.values() if run.test == test and when in {None, run.when}]
