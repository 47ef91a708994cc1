"""Which O-ring is it: rank all sizes by probability from a measured ring, and name the doubt."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from ironkettle.core.rings.condition import Condition, bias_of
from ironkettle.core.rings.sizes import AS568, ISO_3601, JIS_B_2401, METRIC_STOCK, SERIES, Floats, RingSize, RingTable

DEFAULT_PRIOR: Mapping[str, float] = {AS568: 0.40, ISO_3601: 0.20, METRIC_STOCK: 0.30, JIS_B_2401: 0.10}
DECIDED_AT = 0.90
DEFAULT_UNCERTAINTY_MM = 0.05
GROOVE_MISFIT_LIKELIHOOD = 0.02


@dataclass(frozen=True, slots=True)
class Measurement:
    """A ring as measured. Lengths in mm; ``uncertainty`` is the 95 % half-width of a reading.

    ``diameter_uncertainty`` defaults to the larger of ``uncertainty`` and 0.3 % of the diameter,
    because a soft ring gives way under the caliper.
    """

    inside_diameter: float
    section: float
    condition: Condition = Condition.NEW
    section_crossed: float | None = None
    uncertainty: float = DEFAULT_UNCERTAINTY_MM
    diameter_uncertainty: float | None = None

    @property
    def round_section(self) -> float:
        """The round section of equal area, √(a·b) when two crossed readings were taken. [mm]"""
        if self.section_crossed is None:
            return self.section
        return math.sqrt(self.section * self.section_crossed)

    @property
    def used_diameter_uncertainty(self) -> float:
        if self.diameter_uncertainty is not None:
            return self.diameter_uncertainty
        return max(self.uncertainty, 0.003 * self.inside_diameter)


@dataclass(frozen=True, slots=True)
class GrooveEvidence:
    """Whether each size of the table can live in the known groove, and why not."""

    fits: Sequence[bool]
    reasons: Sequence[tuple[str, ...]]


@dataclass(frozen=True, slots=True)
class Candidate:
    size: RingSize
    probability: float
    fits_groove: bool | None
    reasons: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class NextMeasurement:
    """The one further measurement expected to settle the matter."""

    what: str
    why: str
    resolution_mm: float


@dataclass(frozen=True, slots=True)
class Match:
    candidates: tuple[Candidate, ...]
    decided: bool
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
    ``rings.condition``; the prior is given per series and spread evenly within it. A size that
    cannot live in the known groove keeps 2 % of its likelihood, since the groove may be misread.

    Parameters
    ----------
    measurement : the ring as measured. [mm]
    table : the sizes considered; not empty.
    groove : per size, whether it can live in the groove.
    prior : weight of each series. [-]
    limit : how many candidates to return, >= 1.

    Returns the candidates, best first; all probabilities add up to 1. [-]
    """
    weights = posterior(measurement, table, prior)
    if groove is not None:
        weights = weights * np.where(np.asarray(groove.fits), 1.0, GROOVE_MISFIT_LIKELIHOOD)
        weights = weights / weights.sum()
    order = np.argsort(-weights, kind="stable")
    candidates = tuple(
        Candidate(
            table.sizes[index],
            float(weights[index]),
            None if groove is None else bool(groove.fits[index]),
            _reasons(measurement, table.sizes[index]) + (() if groove is None else groove.reasons[index]),
        )
        for index in order[:limit]
    )
    decided = bool(weights[order[0]] >= DECIDED_AT)
    advice = None if decided else _advise(measurement, table, weights, order)
    return Match(candidates, decided, advice, weights)


def posterior(measurement: Measurement, table: RingTable, prior: Mapping[str, float]) -> Floats:
    """Probability of each size of the table given the readings, without the groove. [-]"""
    log_weight = log_likelihood(measurement, table) + _log_prior(table, prior)
    weight = np.exp(log_weight - log_weight.max())
    return np.asarray(weight / weight.sum())


def log_likelihood(measurement: Measurement, table: RingTable) -> Floats:
    """Logarithm of the likelihood of the readings for each size, integrated over the condition. [-]"""
    bias = bias_of(measurement.condition, crossed=measurement.section_crossed is not None)
    readings = 1 if measurement.section_crossed is None else 2
    section_reading = measurement.uncertainty / 2.0 / math.sqrt(readings)
    by_diameter = _log_normal(
        measurement.inside_diameter,
        np.outer(bias.diameter_factor, table.inside_diameter),
        np.hypot(
            np.outer(bias.diameter_factor, table.inside_tolerance / 3.0),
            measurement.used_diameter_uncertainty / 2.0,
        ),
    )
    by_section = _log_normal(
        measurement.round_section,
        np.outer(bias.section_factor, table.section),
        np.hypot(np.outer(bias.section_factor, table.section_tolerance / 3.0), section_reading),
    )
    joint = by_diameter + by_section + np.log(bias.weight)[:, None]
    peak = joint.max(axis=0)
    return np.asarray(peak + np.log(np.exp(joint - peak).sum(axis=0)))


def _log_normal(value: float, mean: Floats, deviation: Floats) -> Floats:
    return np.asarray(-0.5 * ((value - mean) / deviation) ** 2 - np.log(deviation))


def _log_prior(table: RingTable, prior: Mapping[str, float]) -> Floats:
    counts = np.bincount(table.series_index, minlength=len(SERIES))
    shares = np.array([prior[series] for series in SERIES])
    with np.errstate(divide="ignore"):
        return np.asarray(np.log(shares / np.maximum(counts, 1))[table.series_index])


def _reasons(measurement: Measurement, size: RingSize) -> tuple[str, ...]:
    diameter_off = measurement.inside_diameter - size.inside_diameter
    section_off = measurement.round_section - size.section
    return (
        f"inside diameter read {diameter_off:+.2f} mm from {size.inside_diameter:g} ±{size.inside_tolerance:g} mm",
        f"section read {section_off:+.2f} mm from {size.section:g} ±{size.section_tolerance:g} mm",
        f"{size.source}: {size.sure}",
    )


_CANDIDATE_MEASUREMENTS = (
    ("section", "section to 0.01 mm, mean of three places", 0.01),
    ("inside_diameter", "inside diameter to 0.05 mm on a cone or plug gauge", 0.05),
    ("outside_diameter", "outside diameter to 0.05 mm, ring lying flat", 0.05),
)


def _advise(measurement: Measurement, table: RingTable, weights: Floats, order: NDArray[np.intp]) -> NextMeasurement:
    """The measurement whose expected largest probability is highest, over the likely sizes."""
    likely = [int(index) for index in order[:12] if weights[index] > 1e-3]
    share = weights[likely] / weights[likely].sum()
    best_name, best_what, best_resolution, best_gain = "", "", 0.0, -1.0
    bias = bias_of(measurement.condition, crossed=measurement.section_crossed is not None)
    diameter_factor = float(bias.diameter_factor @ bias.weight)
    section_factor = float(bias.section_factor @ bias.weight)
    diameter = table.inside_diameter[likely] * diameter_factor
    section = table.section[likely] * section_factor
    diameter_spread = np.hypot(
        table.inside_tolerance[likely] / 3, table.inside_diameter[likely] * _spread(bias.diameter_factor, bias.weight)
    )
    section_spread = np.hypot(
        table.section_tolerance[likely] / 3, table.section[likely] * _spread(bias.section_factor, bias.weight)
    )
    for name, what, resolution in _CANDIDATE_MEASUREMENTS:
        if name == "section":
            mean, spread = section, section_spread
        elif name == "inside_diameter":
            mean, spread = diameter, diameter_spread
        else:
            mean, spread = diameter + 2 * section, np.hypot(diameter_spread, 2 * section_spread)
        gain = _expected_best(share, mean, np.hypot(spread, resolution / 2))
        if gain > best_gain:
            best_name, best_what, best_resolution, best_gain = name, what, resolution, gain
    first, second = table.sizes[likely[0]], table.sizes[likely[min(1, len(likely) - 1)]]
    why = (
        f"{first.series} {first.designation} and {second.series} {second.designation} are both likely; "
        f"this {best_name.replace('_', ' ')} is expected to raise the first to {best_gain:.0%}"
    )
    return NextMeasurement(best_what, why, best_resolution)


def _spread(factor: Floats, weight: Floats) -> float:
    mean = float(factor @ weight)
    return math.sqrt(float(((factor - mean) ** 2) @ weight))


def _expected_best(share: Floats, mean: Floats, deviation: Floats) -> float:
    """Expected probability of the first size after a reading, by quadrature over the readings."""
    points, weights = np.polynomial.hermite_e.hermegauss(9)
    weights = weights / weights.sum()
    readings = mean[:, None] + deviation[:, None] * points
    likelihood = np.exp(-0.5 * ((readings[..., None] - mean) / deviation) ** 2) / deviation
    after = likelihood * share
    best = after.max(axis=-1) / after.sum(axis=-1)
    return float((share[:, None] * weights * best).sum())
