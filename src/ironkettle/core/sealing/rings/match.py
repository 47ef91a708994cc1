"""Which O-ring is it: rank all sizes by probability from a measured ring, and name the doubt."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass, field, replace

import numpy as np
from numpy.typing import NDArray

from ironkettle.core.base.findings import Finding, caution
from ironkettle.core.sealing.rings.advice import NextMeasurement, advise_measurement
from ironkettle.core.sealing.rings.condition import BESIDE, Condition
from ironkettle.core.sealing.rings.likelihood import Weighed, places_in_reach, weigh_readings
from ironkettle.core.sealing.rings.measurement import ACROSS, Measurement, Read
from ironkettle.core.sealing.rings.sizes import (
    AS568,
    ISO_3601,
    JIS_B_2401,
    METRIC_STOCK,
    SERIES,
    Floats,
    RingSize,
    RingTable,
)

DEFAULT_PRIOR: Mapping[str, float] = {AS568: 0.40, ISO_3601: 0.20, METRIC_STOCK: 0.30, JIS_B_2401: 0.10}
DECIDED_AT = 0.90
GROOVE_FLOOR = 0.02
# Sizes looked at beyond the number of lines wanted, since a line may hold several names.
_SPARE = 12
_FITTING_SHOWN, _NAMED = 6, 3
# A ring reads as a size from here on; told against what is told below the other.
_READS_AS, _TOLD_AT_LEAST = 0.5, 0.1
_SELDOM_SHARE = 0.25
NO_KNOWN_SIZE = "no-known-size"
SWAPPED = "swapped"
OTHERWISE = "other-condition"


@dataclass(frozen=True)
class GrooveEvidence:
    """What a known groove says of each size of the table.

    ``misfit`` is how far a size lies outside the limits, in allowances (0: it can live there) [-];
    ``discomfort`` how far from the middle of them [-]; ``reasons`` gives the sentences for one size
    by its place in the table.
    """

    misfit: Floats
    discomfort: Floats
    reasons: Callable[[int], tuple[str, ...]]

    @property
    def likelihood(self) -> Floats:
        """1 within the limits, falling off outside them to 0.02: the groove too may be misread. [-]"""
        return np.asarray(np.maximum(np.exp(-0.5 * self.misfit**2), GROOVE_FLOOR))


@dataclass(frozen=True, slots=True)
class Candidate:
    """One line of the ranking: a size, its other names, and what speaks for and against it."""

    size: RingSize
    probability: float
    fits_groove: bool | None
    also: tuple[RingSize, ...]
    measurement: Measurement = field(repr=False)
    against_groove: tuple[str, ...] = ()

    @property
    def reasons(self) -> tuple[str, ...]:
        """Each reading beside the size, where the size comes from, and why the groove refuses it."""
        return (*_reasons(self.measurement, self.size), *self.against_groove)


@dataclass(frozen=True, slots=True)
class Match:
    """The ranking. ``decided``: the first has 0.90 or more, is near the readings and fits the groove.

    ``known``: some size is near the readings.     ``findings``: when no size is near, when the ring reads otherwise than it was told to be, or when
    what came out does not fit the groove. ``fitting``: with a groove, the sizes that fit it, the most
    comfortable first; ``reads_as``: what the ring reads as, the groove left out.
    """

    candidates: tuple[Candidate, ...]
    decided: bool
    known: bool
    findings: tuple[Finding, ...]
    next_measurement: NextMeasurement | None
    fitting: tuple[RingSize, ...]
    reads_as: Candidate
    probabilities: Floats = field(repr=False)


def match_ring(
    measurement: Measurement,
    table: RingTable,
    *,
    groove: GrooveEvidence | None = None,
    prior: Mapping[str, float] = DEFAULT_PRIOR,
    limit: int = 10,
) -> Match:
    """Rank the sizes of ``table`` by the probability that the measured ring was made to them.

    The model: a ring is made normal about its size with the tolerance as 2.6 sigma; a reading is
    normal about the ring with the uncertainty as two sigma; a used ring is biased by the factors of
    ``rings.condition``, which are integrated over together with the conditions it may be mistaken
    for; the prior is given per series and spread within it, sections seldom met with a quarter. A size
    outside the limits of the known groove loses likelihood as it lies further out, down to 2 %,
    since the groove may be misread, and is never decided. Sizes that agree to 0.02 mm in both
    dimensions are one line with both names.

    Parameters
    ----------
    measurement : the ring as measured. [mm]
    table : the sizes considered; not empty.
    groove : what the known groove says of each size.
    prior : weight of each series, >= 0. [-]
    limit : how many candidates to return, >= 1.

    Returns the candidates, best first; the probabilities of all lines add up to 1. [-]
    Source: Bayes' rule; docs/guide/ring-match.md.
    """
    near = places_in_reach(measurement, table)
    weighed = weigh_readings(measurement, table.part(near.tolist()))
    joint = _normalised(weighed.log + _log_prior(table, prior)[near])
    alone = _over_all(table, near, joint)
    if groove is not None:
        joint = joint * groove.likelihood[near]
        joint = joint / joint.sum()
    weights = _over_all(table, near, joint)
    order = _most_likely(weights, limit + _SPARE)
    candidates = _candidates(measurement, table, weights, order, groove)
    reads_as = candidates[0]
    if groove is not None:
        reads_as = _candidates(measurement, table, alone, _most_likely(alone, _SPARE), groove)[0]
    doubts = tuple(_doubts(measurement, table, near, weighed, joint, candidates[0].size))
    unknown = any(doubt.code == NO_KNOWN_SIZE for doubt in doubts)
    fits = groove is None or candidates[0].fits_groove is True
    decided = bool(candidates[0].probability >= DECIDED_AT) and fits and not doubts
    if decided and (other := _in_two_states(measurement, table, prior, candidates[0])) is not None:
        decided, doubts = False, (*doubts, other)
    advice = None
    if not decided and not unknown:
        advice = advise_measurement(measurement, table, near, joint, groove_known=groove is not None)
    fitting = () if groove is None else _fitting(table, groove)
    wrong = () if groove is None else _wrong_size(reads_as, fitting)
    found = (*doubts, *wrong)
    return Match(candidates[:limit], decided, not unknown, found, advice, fitting, reads_as, weights)


def _over_all(table: RingTable, near: NDArray[np.intp], joint: Floats) -> Floats:
    """Probabilities of all sizes of the table from those in reach. [-]"""
    weights = np.zeros(len(table.sizes))
    weights[near] = joint.sum(axis=0)
    return weights


def _candidates(
    measurement: Measurement,
    table: RingTable,
    weights: Floats,
    order: NDArray[np.intp],
    groove: GrooveEvidence | None,
) -> tuple[Candidate, ...]:
    return tuple(
        Candidate(
            table.sizes[members[0]],
            share,
            None if groove is None else bool(groove.misfit[members[0]] == 0.0),
            tuple(table.sizes[index] for index in members[1:]),
            measurement,
            () if groove is None else groove.reasons(members[0]),
        )
        for share, members in _lines(table, weights, order)
    )


def _fitting(table: RingTable, groove: GrooveEvidence) -> tuple[RingSize, ...]:
    """The sizes that fit the groove best, whatever the old ring reads as; one ring once."""
    fits = np.flatnonzero(groove.misfit == 0.0)
    order = fits[np.argsort(groove.discomfort[fits], kind="stable")]
    lines = dict.fromkeys(min(table.names_of(int(place))) for place in order)
    return tuple(table.sizes[line] for line in list(lines)[:_FITTING_SHOWN])


def _wrong_size(reads_as: Candidate, fitting: tuple[RingSize, ...]) -> tuple[Finding, ...]:
    """Says so when what came out does not fit the groove it came out of."""
    if reads_as.fits_groove or reads_as.probability < _READS_AS:
        return ()
    fit = ", ".join(size.label for size in fitting[:_NAMED])
    then = f"sizes that fit it: {fit}" if fit else "no known size fits it: measure the groove again"
    text = (
        f"what came out reads as {reads_as.size.label}, which does not fit this groove: it was the wrong size, or the "
        f"groove is misread. The groove outranks the old ring; {then}"
    )
    return (caution("wrong-size", text, "squeeze, stretch and fill of the groove"),)


def _in_two_states(
    measurement: Measurement, table: RingTable, prior: Mapping[str, float], first: Candidate
) -> Finding | None:
    """What keeps a size from being decided: a condition the ring may be in as well, in which it reads as another size."""
    ticked = {measurement.condition, *measurement.as_well}
    same = {first.size, *first.also}
    for other in BESIDE[measurement.condition]:
        if other in ticked:
            continue
        both = replace(measurement, as_well=(*measurement.as_well, other))
        near = places_in_reach(both, table)
        weighed = weigh_readings(both, table.part(near.tolist()))
        joint = _normalised(weighed.log + _log_prior(table, prior)[near])
        likeliest = table.sizes[int(_over_all(table, near, joint).argmax())]
        if likeliest not in same:
            text = (
                f"If the ring is {measurement.condition.value} and {other.value} as well, it reads as {likeliest.series} "
                f"{likeliest.designation}. Tick all that is true of it, or measure the groove."
            )
            return caution(OTHERWISE, text, "conditions that go together (guide: The ring match)")
    return None


def _doubts(
    measurement: Measurement,
    table: RingTable,
    near: NDArray[np.intp],
    weighed: Weighed,
    joint: Floats,
    first: RingSize,
) -> Iterator[Finding]:
    """Says so when the readings are far from every size, or only near one if the ring is otherwise than told."""
    stated = measurement.condition
    as_told = weighed.nearest(stated)
    if as_told.min() <= weighed.far_off:
        yield from _otherwise(stated, weighed, joint)
        return
    basis = "readings further off than one in eighty rings of any size"
    likeliest = int(np.argmax(joint.sum(axis=0)))
    if weighed.nearest()[likeliest] <= weighed.far_off:
        condition = min(set(weighed.strata.conditions), key=lambda name: weighed.nearest(name)[likeliest])
        text = (
            f"no known size reads so as a {stated} ring; as a {condition} one {first.label} would: check the condition of the ring again, "
            "and read the section crosswise or the outside diameter"
        )
        yield caution("condition-doubt", text, basis)
        return
    if _near_when_swapped(measurement, table):
        a, b = f"{measurement.diameter:g}", f"{measurement.section:g}"
        text = f"inside diameter {a} mm and section {b} mm seem to be swapped: the other way round they are near a size"
        yield caution(SWAPPED, text, basis)
    nearest = table.sizes[near[int(np.argmin(as_told))]]
    text = (
        f"no known size is near these readings of a {stated} ring; the nearest is {nearest.label}, "
        f"{nearest.inside_diameter:.2f} × {nearest.section:.2f} mm. Read again, check the condition of the ring again, or it belongs "
        "to no series"
    )
    largest = table.sizes[int(np.argmax(table.inside_diameter))]
    if measurement.inside_diameter > largest.inside_diameter + 3 * largest.inside_tolerance:
        text = f"larger than any known size, the largest of which is {largest.label}; {text}"
    yield caution(NO_KNOWN_SIZE, text, basis)


def _near_when_swapped(measurement: Measurement, table: RingTable) -> bool:
    plain = measurement.across is Read.INSIDE and measurement.section_crossed is None and not measurement.further
    if not plain or measurement.section <= measurement.diameter:
        return False
    swapped = replace(measurement, diameter=measurement.section, section=measurement.diameter)
    near = places_in_reach(swapped, table)
    weighed = weigh_readings(swapped, table.part(near.tolist()))
    return bool(weighed.nearest(swapped.condition).min() <= weighed.far_off)


def _otherwise(stated: Condition, weighed: Weighed, joint: Floats) -> Iterator[Finding]:
    """Says so when the readings speak against the condition that was told."""
    shares = {
        condition: float(joint[weighed.strata.of(condition)].sum()) for condition in set(weighed.strata.conditions)
    }
    other = max(shares, key=lambda name: shares[name])
    if other is stated or shares[stated] > _TOLD_AT_LEAST:
        return
    text = (
        f"entered as {stated}, but it reads like a {other} ring ({shares[other]:.0%}): look again how it is, and read the "
        "section crosswise or the outside diameter"
    )
    yield caution("condition-doubt", text, "shares of the conditions after the readings")


def _most_likely(weights: Floats, count: int) -> NDArray[np.intp]:
    """Places of the largest weights, largest first; the rest is not sorted at all."""
    if count >= len(weights):
        return np.argsort(-weights, kind="stable")
    top = np.argpartition(-weights, count)[:count]
    return np.asarray(top[np.argsort(-weights[top], kind="stable")])


def _normalised(log_weight: Floats) -> Floats:
    weight = np.exp(log_weight - log_weight.max())
    return np.asarray(weight / weight.sum())


def _log_prior(table: RingTable, prior: Mapping[str, float]) -> Floats:
    """Logarithm of the prior of each size: its series' weight spread within it, a quarter for what is seldom met."""
    weight = np.where(table.seldom, _SELDOM_SHARE, 1.0)
    counts = np.bincount(table.series_index, weights=weight, minlength=len(SERIES))
    shares = np.array([prior[series] for series in SERIES])
    if not shares[counts > 0].sum() > 0:
        shares = np.ones(len(SERIES))  # only series without weight were asked for: treat them alike
    with np.errstate(divide="ignore", invalid="ignore"):
        return np.asarray(np.log((shares / np.where(counts > 0, counts, 1.0))[table.series_index] * weight))


def _lines(table: RingTable, weights: Floats, order: NDArray[np.intp]) -> list[tuple[float, list[int]]]:
    """Places grouped by line, most probable name first in each, best line first."""
    lines: list[tuple[float, list[int]]] = []
    seen: set[int] = set()
    for place, weight in zip(order.tolist(), weights[order].tolist(), strict=True):
        if place in seen:
            continue
        names = table.names_of(place)
        if len(names) == 1:
            lines.append((weight, [place]))
            continue
        seen.update(names)
        lines.append((float(weights[list(names)].sum()), sorted(names, key=lambda i: -weights[i])))
    return sorted(lines, key=lambda line: -line[0])


def _reasons(measurement: Measurement, size: RingSize) -> tuple[str, ...]:
    readings = [
        (measurement.across, measurement.diameter),
        (Read.SECTION, measurement.round_section),
        *((further.what, further.value) for further in measurement.further),
    ]
    return (*(_reading_against(what, value, size) for what, value in readings), f"{size.source}: {size.sure}")


def _reading_against(what: Read, value: float, size: RingSize) -> str:
    """One reading beside what a ring of this size, just made, would read."""
    if what in {Read.GROOVE_DIAMETER, Read.GROOVE_WIDTH}:
        base = size.inside_diameter if what is Read.GROOVE_DIAMETER else size.section
        return f"{what.words} read {value:.2f} mm, {value / base:.2f} times that of the ring"
    a, b = ACROSS.get(what, (0.0, 1.0))
    expected = a * size.inside_diameter + b * size.section
    tolerance = a * size.inside_tolerance + b * size.section_tolerance
    off = f"{value - expected:+.2f}".replace("-", "−")
    return f"{what.words} read {off} mm from {expected:.2f} ±{tolerance:.2f} mm"
