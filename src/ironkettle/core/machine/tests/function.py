"""A function without a number: words, and a sign that is seen or not."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field, StringConstraints

from ironkettle.core.base.findings import caution
from ironkettle.core.base.quantities import seconds_words, stated_seconds
from ironkettle.core.base.text import Figure, PlainLines
from ironkettle.core.machine.tests.model import Criteria, Instrument, Outcome, Record, Result, Trial, TrialPlan, Wanted

Words = Annotated[str, StringConstraints(min_length=1, max_length=600), *PlainLines]


class FunctionCriteria(Criteria):
    """``sign``: what is to be seen; for so long, so many times."""

    sign: Words
    seconds: Figure | None = Field(default=None, gt=0, le=1e6)
    repeats: int = Field(default=1, ge=1, le=100)

    @property
    def lasts(self) -> float | None:
        return max(
            (seconds for seconds in (self.seconds, stated_seconds(self.sign)) if seconds is not None), default=None
        )


class FunctionRecord(Record):
    """``seen``: as the sign says, every time; ``times``: how often it was tried; ``value``: what was seen."""

    seen: bool
    times: int | None = Field(default=None, ge=1, le=10_000)
    value: Annotated[str, StringConstraints(max_length=600), *PlainLines] | None = None


def analyse(criteria: FunctionCriteria, record: FunctionRecord, instrument: Instrument) -> Outcome:
    """As said: seen or not; tried fewer times than is asked, it is not decided."""
    if not record.seen:
        return Outcome("fail", (), ())
    if record.times is not None and record.times < criteria.repeats:
        text = f"tried {record.times} of {criteria.repeats} times"
        return Outcome("undecided", (), (caution("too-few", text, "the sheet"),))
    tried = (Result("times", "Tried", float(record.times), "times"),) if record.times else ()
    return Outcome("pass", tried, ())


def wanted(criteria: FunctionCriteria) -> tuple[Wanted, ...]:
    """Whether the sign was seen, and what was seen."""
    return (
        Wanted("seen", "yes_no", says(criteria)),
        Wanted("value", "text", "What was seen or read", optional=True),
    )


def plan(criteria: FunctionCriteria, instrument: Instrument) -> TrialPlan:
    """What to look for; nothing is read."""
    times = (f"{criteria.repeats} times",) if criteria.repeats > 1 else ()
    lasts = (f"for {seconds_words(criteria.lasts)}",) if criteria.lasts else ()
    return TrialPlan(
        (f"Look for: {criteria.sign}", *times, *lasts), None, None, "Where it can be seen, out of its way", None
    )


def says(criteria: FunctionCriteria) -> str:
    """The sign, with how long and how often."""
    # Where the sign itself says how long, it is not said twice.
    lasts = f", for {seconds_words(criteria.seconds)}" if criteria.seconds and not stated_seconds(criteria.sign) else ""
    times = f", {criteria.repeats} times" if criteria.repeats > 1 else ""
    return f"{criteria.sign}{lasts}{times}"


FUNCTION = Trial("function", "Function", FunctionCriteria, FunctionRecord, wanted, plan, analyse, says)
