"""What every slice of the log shares: who did something when, and the state that entries add up to."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from datetime import datetime
from typing import Any, Generic, TypeVar
from uuid import UUID

from pydantic import BaseModel, ConfigDict

from ironkettle.core.jobs.basis import JobBasis, TokenUsed
from ironkettle.core.jobs.resolved import Resolved
from ironkettle.core.jobs.runs import Chunk, GaugeUsed, Judgement, MeasuredInPlace, WrenchUsed
from ironkettle.core.machine.parts import Cleaning
from ironkettle.core.machine.pressure import Fluid, HoldRules, Sample
from ironkettle.core.sealing.failures import FailureTable
from ironkettle.core.sealing.grooves import Fit, Gland, GlandTables, search_rings
from ironkettle.core.sealing.rings import RingTable
from ironkettle.core.shop.people import Author, Signature
from ironkettle.core.shop.service import CounterRead
from ironkettle.core.shop.settings import House

T = TypeVar("T")


class Payload(BaseModel):
    """One thing that happened. No field it does not know, nothing changed after reading."""

    model_config = ConfigDict(extra="forbid", frozen=True)


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


@dataclass(slots=True)
class Run:
    """One run of a test: begun and closed by entries of their own, or told in one.

    ``count``, ``first_s``, ``last_s``: its samples, which are kept beside the log; ``hold``: the stand's number
    of the hold they were read on; ``said``: what was wrong with the stand meanwhile.
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
    record: Mapping[str, Any] | None = None
    note: str = ""
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
    """What is known of a job now, by slice: a book of what was recorded last under each key.

    ``seen_first``: what was recorded first and is never overwritten by a second look.
    """

    books: dict[str, dict[Any, Marked[Any]]] = field(default_factory=dict)
    seen_first: dict[str, dict[Any, Marked[Any]]] = field(default_factory=dict)
    runs: dict[str, Run] = field(default_factory=dict)
    arrived: dict[str, int] = field(default_factory=dict)
    struck: dict[UUID, Marked[Any]] = field(default_factory=dict)
    count: int = 0

    def book(self, name: str) -> dict[Any, Marked[Any]]:
        """What was recorded last under each key; empty where nothing was."""
        return self.books.get(name, {})

    def note(self, book: str, key: Any, payload: Any, mark: Mark) -> None:
        """Record under a key; the first stays readable beside the last."""
        marked = Marked(payload, mark)
        self.seen_first.setdefault(book, {}).setdefault(key, marked)
        self.books.setdefault(book, {})[key] = marked

    def get(self, book: str, key: Any) -> Any | None:
        """What was recorded last under a key, or None."""
        marked = self.books.get(book, {}).get(key)
        return None if marked is None else marked.value

    def has(self, book: str, key: Any) -> bool:
        return key in self.books.get(book, {})

    def passed_over(self, move: str) -> bool:
        """Whether somebody went on without a move; what rests on it goes on too."""
        return move in self.books.get("skipped", {})

    @property
    def closed(self) -> Marked[Any] | None:
        """The entry that ended the job, a release or another end; None while it is open."""
        return self.book("released").get("released") or self.book("ended").get("ended")

    def runs_of(self, test: str, when: str | None = None) -> list[Run]:
        """The runs of a test in the order they were begun."""
        return [run for run in self.runs.values() if run.test == test and when in {None, run.when}]

    @property
    def care(self) -> str | None:
        """The interval whose quick care this is; None for a full job, and once it was made one."""
        intake = self.get("intake", "intake")
        return None if intake is None or self.has("care", "widened") else intake.care

    def answers(self) -> dict[str, str]:
        return {key: marked.value.choice for key, marked in self.books.get("answers", {}).items()}


@dataclass(frozen=True)
class Tables:
    """The tables a move looks things up in, and the shop's rules. Searches are remembered, since a job asks them again."""

    rings: RingTable
    fluids: tuple[Fluid, ...]
    glands: GlandTables
    failures: FailureTable
    cleaning: tuple[Cleaning, ...] = ()
    house: House = field(default_factory=lambda: House({}))
    _fits: dict[Gland, tuple[Fit, ...]] = field(default_factory=dict, repr=False, compare=False)

    @property
    def hold_rules(self) -> HoldRules:
        """How a pressure hold is judged."""
        return self.house.hold_rules

    def fits(self, gland: Gland, limit: int) -> tuple[Fit, ...]:
        """The ring sizes that fit a groove, the best first."""
        if gland not in self._fits:
            self._fits[gland] = search_rings(gland, self.rings, self.glands, limit=limit).fits
        return self._fits[gland]


@dataclass(frozen=True, slots=True)
class OnShelf:
    """Something of the shop's stock: a seal or ring by kind and size, a kit by its number, a part by its name.

    ``three``: the dimensions of a seal in any order [mm]; ``size``: what a ring or a kit is called by.
    """

    key: str
    name: str
    kind: str
    count: int
    place: str
    size: str = ""
    three: tuple[float, float, float] | None = None
    compound: str = ""


@dataclass(frozen=True, slots=True)
class Carried:
    """What a job takes over from that of a sister unit it is a copy of: proposed, never recorded as done.

    ``sizes`` by element, ``answers`` by question, ``wrenches`` by group and phase.
    """

    number: int
    sizes: Mapping[str, str]
    answers: Mapping[str, str]
    wrenches: Mapping[tuple[str, int], str]

    @property
    def words(self) -> str:
        """Where it comes from."""
        return f"as on job {self.number}"


def carried_from(number: int, state: State) -> Carried:
    """What another job's state gives a copy of it."""
    return Carried(
        number,
        {key: marked.value.size for key, marked in state.book("sizes").items()},
        state.answers(),
        {
            (marked.value.group, marked.value.phase): marked.value.wrench
            for marked in state.book("tightened").values()
            if marked.value.wrench
        },
    )


@dataclass(frozen=True)
class Case:
    """What a slice computes from: the resolved sheet, the state, the tables, the server's clock, and who asks.

    ``wrenches`` and ``gauges``: the shop's, by key; ``shelf``: its stock. ``recorded``: the samples of the run that an entry closes;
    ``target``: the entry that another strikes out, and who made it; ``photos``: the hashes of those sent for the job, when
    an entry tells of one. ``carried``: what a copy takes over from a sister unit's job. ``counters``: what was read of the
    unit's counters beside this job, when its intake tells of them; ``happened``: when that was, by the bench's clock.
    ``draft``: nobody who may has approved the job's sheet. ``number``: of the job; ``trace_of``: of the job another test of which
    sealed the very trace that an entry would close a run with.
    """

    resolved: Resolved
    state: State
    tables: Tables
    now: datetime
    author: Author | None = None
    wrenches: Mapping[str, WrenchUsed] = field(default_factory=dict)
    gauges: Mapping[str, GaugeUsed] = field(default_factory=dict)
    shelf: tuple[OnShelf, ...] = ()
    recorded: tuple[Sample, ...] = ()
    target: tuple[str, Payload] | None = None
    photos: Mapping[str, str] = field(default_factory=dict)
    carried: Carried | None = None
    counters: Mapping[str, Sequence[CounterRead]] = field(default_factory=dict)
    happened: datetime | None = None
    draft: bool = False
    number: int = 0
    trace_of: int | None = None
