"""What every kind of test is made of: its figures, what is read, how it is planned, and what it comes to."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from typing import Annotated, Any, Generic, Literal, TypeVar

from pydantic import AliasChoices, BaseModel, ConfigDict, Field, StringConstraints

from ironkettle.core.base.findings import Finding
from ironkettle.core.base.json import Json
from ironkettle.core.base.quantities import Dimension, Unit, stated_seconds
from ironkettle.core.base.text import Figure, Plain

Verdict = Literal["pass", "fail", "undecided", "invalid"]
# A quantity as written, with its unit.
Written = Annotated[str, StringConstraints(min_length=1, max_length=60), Plain]
# What is wanted; callers of the sums may say ``target`` for it.
Target = Annotated[Written, Field(validation_alias=AliasChoices("value", "target"))]
MOST_READINGS = 200
MOST_ROWS = 200_000


class Strict(BaseModel):
    model_config = ConfigDict(extra="forbid", frozen=True, populate_by_name=True)


class Criteria(Strict):
    """The figures of a kind: what is wanted, and what it is held against."""

    @property
    def lasts(self) -> float | None:
        """How long a run takes at least, where it has a time to wait out; None where it is over when it is read. [s]"""
        return None


class Record(Strict):
    """What is read in one run of a kind."""

    @property
    def lasted(self) -> float | None:
        """How long the run took by its own times; None where it has none. [s]"""
        return None


class InstrumentUsed(Strict):
    """The gauge or measure that was read, in the unit of what is read."""

    range: Written | None = None
    resolution: Written | None = None
    accuracy_pct: Figure | None = Field(default=None, ge=0, le=20)


@dataclass(frozen=True, slots=True)
class Instrument:
    """Smallest step [base unit] and accuracy [% of reading]; ``reach``: the end of its range; None where unknown."""

    step: float | None = None
    accuracy_pct: float | None = None
    reach: float | None = None

    def half(self, value: float) -> float:
        """How far one reading may be off: half a step and the accuracy. [base unit]"""
        return (self.step or 0.0) / 2 + (self.accuracy_pct or 0.0) / 100 * abs(value)


@dataclass(frozen=True, slots=True)
class Reading:
    """One reading: its value [base unit] and half the last digit written."""

    value: float
    written: float


@dataclass(frozen=True, slots=True)
class Result:
    """One figure a run came to. ``within``: what it is held against; in base units, shown in ``unit``.

    ``dimension`` None: a plain number, with ``unit`` as a word (``%``, ``/min``). ``verdict`` None: told, not judged.
    """

    key: str
    name: str
    value: float
    unit: Unit | str
    dimension: Dimension | None = None
    interval: tuple[float, float] | None = None
    within: tuple[float | None, float | None] = (None, None)
    verdict: Verdict | None = None


@dataclass(frozen=True, slots=True)
class Curve:
    """Points to draw, in base units, with the words and units of both axes and the band the points are held against."""

    across: str
    across_unit: str
    up: str
    up_unit: Unit | str
    points: tuple[tuple[float, float], ...]
    line: bool = False
    band: tuple[float | None, float | None] = (None, None)
    judged: tuple[float, float] | None = None


@dataclass(frozen=True, slots=True)
class Outcome:
    """What a run came to: the verdict is the worst of its results'."""

    verdict: Verdict
    results: tuple[Result, ...]
    findings: tuple[Finding, ...]
    curve: Curve | None = None

    def value(self, key: str) -> float | None:
        """The value of a result by its key [base unit]; None where there is none."""
        return next((result.value for result in self.results if result.key == key), None)


@dataclass(frozen=True, slots=True)
class Wanted:
    """Something to read in a run: its place in the record, how it is read, and what a good reading is.

    ``read`` is the way of reading as sheets name it; ``good``: between what it is right [``unit``].
    """

    path: str
    read: str
    label: str
    unit: str | None = None
    good: tuple[float, float] | None = None
    optional: bool = False
    hint: str | None = None


@dataclass(frozen=True, slots=True)
class TrialPlan:
    """The steps in order, the coarsest step a gauge may have [base unit of ``dimension``], where to stand, what to mind."""

    steps: tuple[str, ...]
    coarsest: float | None
    dimension: Dimension | None
    stand: str
    caution: str | None
    findings: tuple[Finding, ...] = ()


C = TypeVar("C", bound=Criteria)
R = TypeVar("R", bound=Record)


@dataclass(frozen=True, slots=True)
class Trial(Generic[C, R]):
    """One kind of test: its word, its figures and its record, what is wanted, plan, verdict, and its sign in words."""

    key: str
    word: str
    criteria: type[C]
    record: type[R]
    wanted: Callable[[C], tuple[Wanted, ...]]
    plan: Callable[[C, Instrument], TrialPlan]
    analyse: Callable[[C, R, Instrument], Outcome]
    says: Callable[[C], str]
    blank: Callable[[C], dict[str, Any]] = field(default=lambda _: {})

    def criteria_of(self, figures: dict[str, Any]) -> C:
        """The figures of this kind out of all a sheet gives. Raises pydantic's error where they do not fit."""
        names = set(self.criteria.model_fields)
        own = {"value" if key == "target" else key: value for key, value in figures.items()}
        return self.criteria.model_validate(
            {key: value for key, value in own.items() if key in names and value is not None}
        )

    def bound(self, figures: Mapping[str, object]) -> BoundTest:
        """The kind with the figures of a sheet. Raises pydantic's ValidationError or RuleError where they cannot be read."""
        criteria = self.criteria_of(dict(figures))

        def analyse(record: Mapping[str, object], instrument: Instrument) -> Outcome:
            return self.analyse(criteria, self.record.model_validate(record), instrument)

        def lasted(record: Mapping[str, object]) -> float | None:
            return self.record.model_validate(record).lasted

        self.plan(criteria, Instrument())
        return BoundTest(
            self.word,
            self.says(criteria),
            self.wanted(criteria),
            lambda instrument: self.plan(criteria, instrument),
            analyse,
            self.blank(criteria),
            self._lasts(criteria, str(figures.get("how") or "")),
            lasted,
        )

    def _lasts(self, criteria: C, how: str) -> float | None:
        """How long a run takes at least; what is not read with its own times takes what its procedure says as well. [s]"""
        timed = self.record.lasted is not Record.lasted
        stated = (criteria.lasts, None if timed else stated_seconds(how))
        return max((seconds for seconds in stated if seconds is not None), default=None)


@dataclass(frozen=True, slots=True)
class BoundTest:
    """A kind of test with the figures of a sheet, for those who know no kind in particular.

    ``blank``: the record with what is known before anything is read; ``analyse`` raises pydantic's ValidationError or RuleError for a record
    that cannot be read. ``lasts``: how long a run takes at least; ``lasted``: how long a record says that it took. [s]
    """

    word: str
    says: str
    wanted: tuple[Wanted, ...]
    plan: Callable[[Instrument], TrialPlan]
    analyse: Callable[[Mapping[str, object], Instrument], Outcome]
    blank: Mapping[str, Json]
    lasts: float | None
    lasted: Callable[[Mapping[str, object]], float | None]
