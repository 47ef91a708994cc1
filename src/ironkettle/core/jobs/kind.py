"""A kind of entry: everything that is known of it, declared once by its module in ``kinds``.

``registry`` lists the kinds; what may be written, signed, struck out and told, the tasks of a job and what a certificate states
are read off their declarations.
"""

from __future__ import annotations

from collections.abc import Callable, Hashable, Iterator, Sequence
from dataclasses import dataclass
from datetime import datetime
from enum import StrEnum
from typing import Generic, Protocol, TypeVar

from ironkettle.core.jobs.ask import Ask
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.resolved import Resolved
from ironkettle.core.jobs.runs import Judgement
from ironkettle.core.jobs.screen import Screen
from ironkettle.core.jobs.state import Book, Mark, Payload, State
from ironkettle.core.jobs.task import Draft, Task
from ironkettle.core.shop.people import Role

P = TypeVar("P", bound=Payload)
K = TypeVar("K", bound=Hashable)
WORKSHOP = frozenset({Role.TECHNICIAN, Role.LEAD})
AND_STORES = WORKSHOP | {Role.STORES}


class Section(StrEnum):
    """The parts of a hand-over, in the order they are asked for."""

    OFF = "off"
    LAY = "lay"
    DECIDED = "decided"
    ASSUMED = "assumed"
    WAITS = "waits"
    OPEN_ENDS = "open_ends"


@dataclass(frozen=True, slots=True)
class Line:
    """One thing the next pair of hands has to know, who recorded it and when; nobody where it follows from the job as it stands."""

    section: Section
    words: str
    who: str | None = None
    when: datetime | None = None
    caution: bool = False

    @classmethod
    def by(cls, section: Section, words: str, mark: Mark, *, caution: bool = False) -> Line:
        """A line that an entry recorded."""
        return cls(section, words, mark.author(), mark.when, caution)


def _allowed(case: Case, payload: Payload) -> None:
    return None


def _no_tasks(case: Case) -> Iterator[Draft]:
    yield from ()


def _no_words(case: Case) -> Iterator[str]:
    yield from ()


def _no_lines(case: Case) -> Iterator[Line]:
    yield from ()


def _nothing_against(case: Case, tasks: Sequence[Task]) -> Iterator[str]:
    yield from ()


def _not_judged(case: Case, payload: Payload) -> Judgement | None:
    return None


def keep(book: Book[K, P], key: Callable[[P], K]) -> Callable[[State, P, Mark], None]:
    """Apply by recording in a book under a key."""

    def apply(state: State, payload: P, mark: Mark) -> None:
        state.note(book, key(payload), payload, mark)

    return apply


class AnyKind(Protocol):
    """A kind of entry as those see it who know none in particular."""

    @property
    def name(self) -> str: ...
    @property
    def model(self) -> type[Payload]: ...
    @property
    def former(self) -> tuple[str, ...]: ...
    @property
    def completes(self) -> str | None: ...
    @property
    def writers(self) -> frozenset[Role]: ...
    @property
    def signers_write(self) -> bool: ...
    @property
    def signed(self) -> bool: ...
    @property
    def needs_authority(self) -> bool: ...
    @property
    def stays(self) -> bool: ...
    @property
    def about_unit(self) -> bool: ...
    @property
    def opens(self) -> bool: ...
    @property
    def reopens(self) -> bool: ...
    @property
    def loose_asks(self) -> tuple[Ask, ...]: ...
    @property
    def screens(self) -> tuple[type[Screen], ...]: ...
    @property
    def tasks(self) -> Callable[[Case], Iterator[Draft]]: ...
    @property
    def against(self) -> Callable[[Case, Sequence[Task]], Iterator[str]]: ...
    @property
    def remarks(self) -> Callable[[Case], Iterator[str]]: ...
    @property
    def hand_over(self) -> Callable[[Case], Iterator[Line]]: ...

    def check_payload(self, case: Case, payload: Payload) -> None: ...
    def apply_payload(self, state: State, payload: Payload, mark: Mark) -> None: ...
    def words_of(self, resolved: Resolved, payload: Payload) -> str: ...
    def completed(self, case: Case, payload: Payload) -> Payload: ...
    def as_it_was_sent(self, payload: Payload) -> Payload: ...
    def judgement_of(self, case: Case, payload: Payload) -> Judgement | None: ...


@dataclass(frozen=True, kw_only=True)
class EntryKind(Generic[P]):
    """One kind of entry.

    ``payload``: what it holds; ``former``: names it had in older logs. ``check`` raises RuleError or RefusedError for what may not be
    written; ``apply`` takes it into the state; ``words``: its sentence in log and hand-over.

    ``tasks``: those it contributes to a job; ``completes``: the key of the task that an entry completes, with its fields in braces.
    ``complete``: the entry with what the server alone knows; ``as_sent``: without that, to tell whether another is the same.
    ``judge``: what a run comes to that an entry closes.

    ``writers``: the roles that write it; ``signers_write``: so does one who only signs. ``signed``: a PIN stands beside it;
    ``needs_authority``: the signature stands on the authority that the sheet asks for. ``stays``: it is never struck out.
    ``about_unit``: it changes what is known of the unit beyond the job; ``opens``: it is the first of a job; ``reopens``: a closed job takes it.
    ``loose_asks``: its fields that may be put right where it completes no task.

    ``screens``: the screens of its tasks.

    ``against``: what a certificate states against *fit for service*; ``remarks``: what it states besides; ``hand_over``: what the next pair
    of hands has to know.
    """

    payload: type[P]
    words: Callable[[Resolved, P], str]
    apply: Callable[[State, P, Mark], None]
    check: Callable[[Case, P], None] = _allowed
    former: tuple[str, ...] = ()
    tasks: Callable[[Case], Iterator[Draft]] = _no_tasks
    completes: str | None = None
    complete: Callable[[Case, P], P] | None = None
    as_sent: Callable[[P], P] | None = None
    judge: Callable[[Case, P], Judgement | None] = _not_judged
    writers: frozenset[Role] = WORKSHOP
    signers_write: bool = False
    signed: bool = False
    needs_authority: bool = False
    stays: bool = False
    about_unit: bool = False
    opens: bool = False
    reopens: bool = False
    loose_asks: tuple[Ask, ...] = ()
    screens: tuple[type[Screen], ...] = ()
    against: Callable[[Case, Sequence[Task]], Iterator[str]] = _nothing_against
    remarks: Callable[[Case], Iterator[str]] = _no_words
    hand_over: Callable[[Case], Iterator[Line]] = _no_lines

    @property
    def name(self) -> str:
        """What the kind is called in an entry."""
        return str(self.payload.model_fields["kind"].default)

    @property
    def model(self) -> type[Payload]:
        return self.payload

    def check_payload(self, case: Case, payload: Payload) -> None:
        """Raises RuleError for names or figures that do not fit, RefusedError for what the state forbids."""
        self.check(case, self._own(payload))

    def apply_payload(self, state: State, payload: Payload, mark: Mark) -> None:
        """Take an entry into the state."""
        self.apply(state, self._own(payload), mark)

    def words_of(self, resolved: Resolved, payload: Payload) -> str:
        """An entry in a short sentence with part, value and unit."""
        return self.words(resolved, self._own(payload))

    def completed(self, case: Case, payload: Payload) -> Payload:
        """The entry with what the server alone knows."""
        return payload if self.complete is None else self.complete(case, self._own(payload))

    def as_it_was_sent(self, payload: Payload) -> Payload:
        """The entry without what the server set."""
        return payload if self.as_sent is None else self.as_sent(self._own(payload))

    def judgement_of(self, case: Case, payload: Payload) -> Judgement | None:
        """What the run comes to that this entry closes; None where it closes none."""
        return self.judge(case, self._own(payload))

    def _own(self, payload: Payload) -> P:
        if not isinstance(payload, self.payload):
            raise TypeError(f"{type(payload).__name__} is no {self.payload.__name__}")
        return payload
