"""Counts over time: drops of a packing that beds in, strokes of a motor; the rate, and whether it settles."""

from __future__ import annotations

import math
import re
from collections.abc import Callable, Sequence
from typing import Annotated, Any

from pydantic import Field, StringConstraints, model_validator
from scipy.special import chdtri, stdtrit

from ironkettle.core.base.errors import fault
from ironkettle.core.base.findings import Finding, caution, info
from ironkettle.core.base.quantities import Dimension, read_quantity
from ironkettle.core.base.text import Figure, Plain
from ironkettle.core.machine.parts import Limit, read_limit
from ironkettle.core.machine.tests.model import (
    MOST_ROWS,
    Criteria,
    Curve,
    Instrument,
    Outcome,
    Record,
    Result,
    Strict,
    Trial,
    TrialPlan,
    Verdict,
    Wanted,
    Written,
)
from ironkettle.core.machine.tests.reading import held, worst

BASIS = "counts with their 95 % interval; the maker's figures win"
_PER = re.compile(r"\s*(?:/|per\s+|a\s+|in a\s+)\s*(?P<per>s|sec|second|min|minute|h|hour)\b\.?\s*$", re.IGNORECASE)
_A_MINUTE = {"s": 60.0, "sec": 60.0, "second": 60.0, "min": 1.0, "minute": 1.0, "h": 1 / 60, "hour": 1 / 60}
_LEAST_SPANS = 3
_Span = tuple[float, float, int]


class CountCriteria(Criteria):
    """``what`` is counted; ``limit``: ``at most 10 /min``, ``27 to 33 /min``; ``settle``: by then it must hold."""

    what: Annotated[str, StringConstraints(min_length=1, max_length=120), Plain]
    limit: Written
    settle: Written | None = None

    @property
    def lasts(self) -> float | None:
        return _span_ends(self)[-1]


class Counted(Strict):
    """How many came until then, since the count before. [s from the start]"""

    t_s: Figure = Field(gt=0, le=1e6)
    count: int = Field(ge=0, le=10_000_000)


class CountRecord(Record):
    """``counts`` in spans one behind the other, the first from ``start_s``; or ``events_s``, the time of each, until ``end_s``."""

    counts: list[Counted] = Field(default_factory=list, max_length=2000)
    start_s: Figure = Field(default=0.0, ge=0, le=1e6)
    events_s: list[Annotated[Figure, Field(ge=0, le=1e6)]] = Field(default_factory=list, max_length=MOST_ROWS)
    end_s: Figure | None = Field(default=None, gt=0, le=1e6)

    @property
    def lasted(self) -> float | None:
        return (self.end_s if self.end_s is not None else self.counts[-1].t_s) - self.start_s

    @model_validator(mode="after")
    def _is_one(self) -> CountRecord:
        if bool(self.counts) == (self.end_s is not None):
            raise ValueError("give counts over spans, or the times of events and when the count ended")
        return self


def rate_limit(text: str) -> Limit:
    """A limit of a rate, a minute; a bare figure is the most. [1/min] Raises RuleError without a time."""
    match = _PER.search(text)
    if match is None:
        raise fault("limit", f"“{text}” names no time: so many in what?", "at most 10 /min", "27 to 33 /min")
    factor = _A_MINUTE[match["per"].lower()]
    found = read_limit(text[: match.start()], "limit", None)
    if found.low == found.high and found.high is not None:
        # A bare figure of what leaks or drips is the most of it.
        found = Limit(None, found.high, text)
    return Limit(
        None if found.low is None else found.low * factor, None if found.high is None else found.high * factor, text
    )


# Below this many a count is told by chance alone; above, by how its spans differ.
_RARE = 10


def rate_of(spans: Sequence[_Span]) -> tuple[float, tuple[float, float]]:
    """Rate over spans of (start, end [s], count) and its 95 % interval. [1/min]

    Few events, or fewer than 3 spans: Garwood's exact interval of a Poisson count. Else Student's of the rates of the
    spans, and not less than one event more or less: strokes come evenly, drops nearly so.
    Source: Garwood (1936); Student's t.
    """
    minutes = (spans[-1][1] - spans[0][0]) / 60
    count = sum(span[2] for span in spans)
    rate = count / minutes
    if count < _RARE or len(spans) < _LEAST_SPANS:
        low = float(chdtri(2 * count, 0.975)) / 2 if count else 0.0
        return rate, (low / minutes, float(chdtri(2 * count + 2, 0.025)) / 2 / minutes)
    rates = [60 * n / (b - a) for a, b, n in spans]
    mean = math.fsum(rates) / len(rates)
    deviation = math.sqrt(math.fsum((each - mean) ** 2 for each in rates) / (len(rates) - 1))
    half = max(1 / minutes, float(stdtrit(len(rates) - 1, 0.975)) * deviation / math.sqrt(len(rates)))
    return rate, (max(0.0, rate - half), rate + half)


def analyse(criteria: CountCriteria, record: CountRecord, instrument: Instrument) -> Outcome:
    """The rate over what counts, with its interval, and from when on it holds.

    Judged is what came after ``settle``; without it the whole count. pass: the interval lies within and the last half is
    not worse than the first beyond chance. The interval of a single look counts at the planned span alone; at any other time it
    is one that holds at every look. Source: ``rate_of``, ``always``.
    """
    limit = rate_limit(criteria.limit)
    spans = _spans(record)
    settle = read_quantity(criteria.settle, Dimension.TIME, "settle").value if criteria.settle else 0.0
    within = (limit.low, limit.high)
    findings: list[Finding] = []
    # A span that lies across the time it may settle in counts as settling.
    judged = [span for span in spans if span[0] >= settle - 1e-9]
    steady = _holds_from(spans, limit)
    results = []
    verdict: Verdict = "undecided"
    if judged:
        rate, interval, verdict = _judged(judged, criteria, limit)
        results.append(Result("rate", f"{criteria.what}, a minute", rate, "/min", None, interval, within, verdict))
        if verdict == "pass" and _grows(judged):
            verdict = "undecided"
            findings.append(caution("grows", "the rate rises towards the end: keep counting", BASIS))
        if verdict == "undecided" and not findings:
            findings.append(caution("count-on", "not enough counted yet: keep counting", BASIS))
    else:
        text = f"it may settle for {settle / 60:g} min, and nothing was counted after that"
        findings.append(caution("not-settled", text, BASIS))
    if steady is not None:
        results.append(Result("settled_from", "Holds from", steady, "s"))
    elif criteria.settle and judged:
        findings.append(info("never-held", "no time was found from which it stays within limits to the end", BASIS))
    points = tuple(((a + b) / 120, 60 * n / (b - a)) for a, b, n in spans)
    curve = Curve(
        "time", "min", criteria.what, "/min", points, line=True, band=within, judged=(settle / 60, spans[-1][1] / 60)
    )
    return Outcome(worst([verdict]), tuple(results), tuple(findings), curve)


def _judged(
    judged: Sequence[_Span], criteria: CountCriteria, limit: Limit
) -> tuple[float, tuple[float, float], Verdict]:
    """Rate, interval and verdict: at the planned span by its own interval, at any other time by one that holds at every look.

    Whoever counts until it passes would pass what is over the limit one time in twelve, by the interval of a single look.
    """
    within = (limit.low, limit.high)
    rate, _ = rate_of(judged)
    planned = _span_ends(criteria)[-1]
    until = [counted for counted in judged if counted[1] <= planned + 1e-9]
    if until and until[-1][1] >= planned - 1e-9:
        fixed = rate_of(until)
        verdict = held(fixed[1], within)
        if verdict != "undecided":
            return fixed[0], fixed[1], verdict
    count = sum(counted[2] for counted in judged)
    interval = always(count, (judged[-1][1] - judged[0][0]) / 60, limit.high or limit.low or 1.0)
    return rate, interval, held(interval, within)


# Of all looks together one in so many may lie.
_ALWAYS = 0.02


def always(count: int, minutes: float, expected: float) -> tuple[float, float]:
    """An interval of a rate that holds at every look together: whoever looks on cannot make it miss more often. [1/min]

    The likelihood of each rate against the mean of all likelihoods under an exponential prior about ``expected``: by Ville's
    inequality the true rate leaves this set at any time with a chance of 2 % at most.
    Parameters: count >= 0; minutes > 0; expected > 0 [1/min].
    Source: H. Robbins, Ann. Math. Stat. 41 (1970), method of mixtures; Poisson process.
    """
    mixed = math.lgamma(count + 1) - math.log(expected) - (count + 1) * math.log(1 / expected + minutes)
    least = mixed + math.log(_ALWAYS)

    def inside(rate: float) -> bool:
        return (count * math.log(rate) if count else 0.0) - rate * minutes >= least

    top = max(count, 1) / minutes
    return _edge(inside, top, 0.0) if count else 0.0, _edge(inside, top, _far(inside, top))


def _far(inside: Callable[[float], bool], rate: float) -> float:
    while inside(rate):
        rate *= 2
    return rate


def _edge(inside: Callable[[float], bool], within: float, outside: float) -> float:
    """The edge of a set between a rate within and one outside, from the outside."""
    for _ in range(60):
        middle = (within + outside) / 2
        if middle > 0 and inside(middle):
            within = middle
        else:
            outside = middle
    return outside


def _spans(record: CountRecord) -> list[_Span]:
    if record.end_s is not None:
        return _of_events(record.events_s, record.start_s, record.end_s)
    spans, before = [], record.start_s
    for place, count in enumerate(record.counts):
        if count.t_s <= before:
            raise fault(
                f"counts.{place}.t_s", f"{count.t_s:g} s does not come after {before:g} s", "times running forward"
            )
        spans.append((before, count.t_s, count.count))
        before = count.t_s
    return spans


def _of_events(events: list[float], start: float, end: float) -> list[_Span]:
    """Events in spans of a minute, the last what is left."""
    last = start
    for place, at in enumerate(events):
        if at < last or at > end:
            raise fault(
                f"events_s.{place}", f"{at:g} s does not lie between {last:g} and {end:g} s", "times running forward"
            )
        last = at
    if end <= start:
        raise fault("end_s", f"{end:g} s does not come after {start:g} s")
    pieces = max(1, min(1000, math.floor((end - start) / 60)))
    edges = [start + n * (end - start) / pieces for n in range(pieces + 1)]
    counts = [0] * pieces
    for at in events:
        counts[min(int((at - start) / (end - start) * pieces), pieces - 1)] += 1
    return [(edges[n], edges[n + 1], counts[n]) for n in range(pieces)]


def _holds_from(spans: list[_Span], limit: Limit) -> float | None:
    """The earliest time from which every span holds the limit; None where the last does not. [s]"""
    found = None
    for start, end, count in reversed(spans):
        if not limit.holds(60 * count / (end - start)):
            break
        found = start
    return found


def _grows(spans: list[_Span]) -> bool:
    """Whether the last half came faster than the first beyond chance: their intervals part."""
    if len(spans) < 2 * _LEAST_SPANS:
        return False
    half = len(spans) // 2
    first, last = rate_of(spans[:half]), rate_of(spans[half:])
    return last[1][0] > first[1][1]


def wanted(criteria: CountCriteria) -> tuple[Wanted, ...]:
    """Counts of spans of a minute behind each other: enough of them after it may have settled."""
    limit, ends = rate_limit(criteria.limit), _span_ends(criteria)
    found = []
    for place, end in enumerate(ends):
        length = end - (ends[place - 1] if place else 0.0)
        found.append(
            Wanted(
                f"counts.{place}.count",
                "number",
                f"{criteria.what[:1].upper()}{criteria.what[1:]}, {_span_words(end - length, end)}",
                None,
                _good(limit, length),
            )
        )
    return tuple(found)


def _span_words(start: float, end: float) -> str:
    """A span by the hand of a clock: in seconds within the first minute, in minutes after it."""
    return f"{start:g} to {end:g} s" if end <= 60.0 else f"{start / 60:g} to {end / 60:g} min"


def _good(limit: Limit, seconds: float) -> tuple[float, float]:
    """Counts of a span that are well within, their middle a whole number."""
    minutes = seconds / 60
    if limit.low is None:
        return 0.0, 2.0 * math.floor((limit.high or 0.0) * minutes / 8)
    high = limit.high if limit.high is not None else 2 * limit.low
    middle = round((limit.low + high) / 2 * minutes)
    return float(middle), float(middle)


def _span_ends(criteria: CountCriteria) -> tuple[float, ...]:
    """When the spans to count in end: four while it may settle, three after, long enough to tell its limit. [s]"""
    settle = read_quantity(criteria.settle, Dimension.TIME, "settle").value if criteria.settle else 0.0
    limit = rate_limit(criteria.limit)
    tells = 60 * 3.0 / (limit.high or limit.low or 1.0)
    span = 60.0 * math.ceil(max(60.0, settle / 4, tells) / 60)
    return (*((settle * n / 4 for n in (1, 2, 3, 4)) if settle else ()), *(settle + span * n for n in (1, 2, 3)))


def blank(criteria: CountCriteria) -> dict[str, Any]:
    """The record with when its spans end."""
    return {"counts": [{"t_s": end} for end in _span_ends(criteria)]}


def plan(criteria: CountCriteria, instrument: Instrument) -> TrialPlan:
    """How long to count so that a rate at half the limit is told from it."""
    settle = read_quantity(criteria.settle, Dimension.TIME, "settle").value if criteria.settle else 0.0
    steps = (
        "Run it as it is used",
        *([f"Let it bed in for {settle / 60:g} min, counting now and then"] if settle else []),
        f"Count {criteria.what} over spans behind each other until the interval lies within {criteria.limit}",
    )
    return TrialPlan(steps, None, None, "To the side of what turns or strokes", "Nothing loose near what moves")


def says(criteria: CountCriteria) -> str:
    """What is counted, its limit, and by when."""
    return f"{criteria.what}: {criteria.limit}{f', settled within {criteria.settle}' if criteria.settle else ''}"


COUNT = Trial("count", "Count over time", CountCriteria, CountRecord, wanted, plan, analyse, says, blank)
