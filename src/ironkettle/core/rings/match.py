"""Which O-ring is it: rank all sizes by probability from a measured ring, and name the doubt."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from ironkettle.core.findings import Finding, caution
from ironkettle.core.rings.advice import NextMeasurement, advise_measurement
from ironkettle.core.rings.likelihood import Weighed, weigh_readings
from ironkettle.core.rings.measurement import ACROSS, Measurement, Read
from ironkettle.core.rings.sizes import AS568, ISO_3601, JIS_B_2401, METRIC_STOCK, SERIES, Floats, RingSize, RingTable

DEFAULT_PRIOR: Mapping[str, float] = {AS568: 0.40, ISO_3601: 0.20, METRIC_STOCK: 0.30, JIS_B_2401: 0.10}
DECIDED_AT = 0.90
GROOVE_FLOOR = 0.02
# Sizes looked at beyond the number of lines wanted, since a line may hold several names.
_SPARE = 12


@dataclass(frozen=True)
class GrooveEvidence:
    """What a known groove says of each size of the table.

    ``misfit`` is how far a size lies outside the limits, in allowances (0: it can live there) [-];
    ``reasons`` gives the sentences for one size by its place in the table.
    """

    misfit: Floats
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
    """The ranking. ``decided``: the first has 0.90 or more; ``findings``: when no size is near at all."""

    candidates: tuple[Candidate, ...]
    decided: bool
    findings: tuple[Finding, ...]
    next_measurement: NextMeasurement | None
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

    The model: a ring is made normal about its size with the tolerance as three sigma; a reading is
    normal about the ring with the uncertainty as two sigma; a used ring is biased by the factors of
    ``rings.condition``, which are integrated over; the prior is given per series and spread evenly
    within it. A size outside the limits of the known groove loses likelihood as it lies further
    out, down to 2 %, since the groove may be misread. Sizes that agree to 0.02 mm in both
    dimensions are one line with both names.

    Parameters
    ----------
    measurement : the ring as measured. [mm]
    table : the sizes considered; not empty.
    groove : what the known groove says of each size.
    prior : weight of each series, >= 0. [-]
    limit : how many candidates to return, >= 1.

    Returns the candidates, best first; the probabilities of all lines add up to 1. [-]
    """
    weighed = weigh_readings(measurement, table)
    weights = _normalised(weighed.log + _log_prior(table, prior))
    if groove is not None:
        weights = weights * groove.likelihood
        weights = weights / weights.sum()
    order = _most_likely(weights, limit + _SPARE)
    lines = _lines(table, weights, order)
    candidates = tuple(
        Candidate(
            table.sizes[members[0]],
            share,
            None if groove is None else bool(groove.misfit[members[0]] == 0.0),
            tuple(table.sizes[index] for index in members[1:]),
            measurement,
            () if groove is None else groove.reasons(members[0]),
        )
        for share, members in lines[:limit]
    )
    decided = bool(candidates[0].probability >= DECIDED_AT)
    advice = None
    if not decided:
        advice = advise_measurement(measurement, table, weights, order, groove_known=groove is not None)
    return Match(candidates, decided, _nothing_near(measurement, weighed, order), advice, weights)


def _nothing_near(measurement: Measurement, weighed: Weighed, order: NDArray[np.intp]) -> tuple[Finding, ...]:
    """Says so when the readings are far from every size: the shares then only tell the least unlikely."""
    if weighed.distance[order].min() <= weighed.far_off:
        return ()
    text = (
        f"no size looked at is near these readings of a {measurement.condition} ring: read again, look again how "
        "the ring is, or it belongs to no series"
    )
    return (caution("nothing-near", text, "readings further off than one in ten thousand rings of any size"),)


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
    counts = table.series_counts
    shares = np.array([prior[series] for series in SERIES])
    if not shares[counts > 0].sum() > 0:
        shares = np.ones(len(SERIES))  # only series without weight were asked for: treat them alike
    with np.errstate(divide="ignore"):
        return np.asarray(np.log(shares / np.maximum(counts, 1))[table.series_index])


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
