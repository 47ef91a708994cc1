"""The model of a reading: how likely each size is to have given what was measured.

A ring of a size is made normal about it, tolerance = 2.6 s (makers hold it to 2.2 to 3). What is there
to be measured, the inside diameter x₁ and section x₂ of the ring as it is now, is made × factor of
its condition, in parts that are each normal (``rings.condition``). Means, variances and covariance
of that product are exact; its shape is taken as normal, which is close because every part is narrow
against its mean. A reading is a weighted sum of x₁ and x₂ plus a normal error, uncertainty = 2 s. So
the integral over condition and making has a closed form, part by part, and readings are taken in one
after the other (Gauss-Markov).

Arrays are parts × sizes.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray
from scipy.special import chdtri, logsumexp

from ironkettle.core.sealing.rings.condition import Condition, Strata, strata_of
from ironkettle.core.sealing.rings.measurement import ACROSS, Measurement, Read
from ironkettle.core.sealing.rings.sizes import TOLERANCE_DEVIATIONS, Floats, RingTable

# A groove made for a ring: how far the ring is stretched on it, and its width over the section
# (no backup ring). Source: middle of the usual limits; widths of gland_inch.csv.
USUAL_STRETCH, USUAL_STRETCH_DEVIATION = 0.02, 0.012
FAR_OFF_SHARE = 1 / 80
USUAL_WIDTH_RATIO, USUAL_WIDTH_RATIO_DEVIATION = 1.35, 0.05
_LEAST_SIZES = 50
# How far a section may be from its made size in any condition.
_SECTION_REACH = 0.35


@dataclass(frozen=True, slots=True)
class Ring:
    """Inside diameter and section of a ring of each size as it is now: a normal pair. [mm, mm²]"""

    diameter: Floats
    section: Floats
    diameter_variance: Floats
    section_variance: Floats
    covariance: Floats

    def reading(self, a: float, b: float) -> tuple[Floats, Floats]:
        """Mean and variance of a · inside diameter + b · section. [mm, mm²]"""
        if not b:
            return a * self.diameter, a**2 * self.diameter_variance
        if not a:
            return b * self.section, b**2 * self.section_variance
        variance = a**2 * self.diameter_variance + b**2 * self.section_variance + 2 * a * b * self.covariance
        return a * self.diameter + b * self.section, np.maximum(variance, 0.0)


def strata_for(measurement: Measurement) -> Strata:
    """The parts of the condition that was told, and of those it may be mistaken for. [-]"""
    return strata_of(
        measurement.condition, crossed=measurement.section_crossed is not None, as_well=measurement.as_well
    )


def rings_now(measurement: Measurement, table: RingTable) -> Ring:
    """Inside diameter and section of a ring of each size as it is now, before any reading. [mm, mm²]

    Parameters: the measurement says the condition; table with its tolerances as ± [mm].
    Source: mean and variance of a product of independent factors.
    """
    factor = strata_for(measurement)
    made_d1 = (table.inside_tolerance / TOLERANCE_DEVIATIONS) ** 2
    made_d2 = (table.section_tolerance / TOLERANCE_DEVIATIONS) ** 2
    d1, d2 = table.inside_diameter, table.section

    def rows(column: Floats) -> Floats:
        return column[:, None]

    return Ring(
        rows(factor.diameter) * d1,
        rows(factor.section) * d2,
        rows(factor.diameter**2) * made_d1 + rows(factor.diameter_variance) * (d1**2 + made_d1),
        rows(factor.section**2) * made_d2 + rows(factor.section_variance) * (d2**2 + made_d2),
        rows(factor.covariance) * d1 * d2,
    )


@dataclass(frozen=True)
class Weighed:
    """What the readings say of each part of the condition and each size.

    ``log``: logarithm of share × likelihood, parts × sizes [-]; ``distance``: squared distance in
    deviations, parts × sizes [-].
    """

    strata: Strata
    log: Floats
    distance: Floats
    readings: int

    @property
    def far_off(self) -> float:
        """The squared distance only one in eighty rings of a size would pass. [-]

        The squared distances of the readings, each against what was known before it, add up to a
        chi-square with as many degrees of freedom as there are readings.
        """
        return float(chdtri(self.readings, FAR_OFF_SHARE))

    @cached_property
    def by_size(self) -> Floats:
        """Logarithm of the likelihood of each size over all parts. [-]"""
        return np.asarray(logsumexp(self.log, axis=0))

    def nearest(self, condition: Condition | None = None) -> Floats:
        """For each size the squared distance to its nearest part, of one condition or of any. [-]"""
        rows = slice(None) if condition is None else self.strata.of(condition)
        return np.asarray(self.distance[rows].min(axis=0))


def weigh_readings(measurement: Measurement, table: RingTable) -> Weighed:
    """All readings against each size of the table, up to a constant in the logarithm. [mm]

    Source: Bayes' rule with the model at the head of this module.
    """
    strata = strata_for(measurement)
    log = np.repeat((np.log(strata.share) + _ovalness(measurement, strata))[:, None], len(table.sizes), axis=1)
    distance = np.zeros_like(log)
    count = 0
    for off, variance in _surprises(measurement, table):
        square = off**2 / variance
        distance += square
        log -= 0.5 * (square + np.log(variance))
        count += 1
    return Weighed(strata, log, distance, count)


def _ovalness(measurement: Measurement, strata: Strata) -> Floats:
    """What two crossed readings say of each part: a flattened ring is wider one way. [-]"""
    if measurement.section_crossed is None:
        return np.zeros(len(strata.share))
    wide, flat = sorted((measurement.section, measurement.section_crossed), reverse=True)
    read = 2 * (measurement.single_section_deviation / measurement.round_section) ** 2
    variance = strata.oval_variance + read
    return np.asarray(-0.5 * ((np.log(wide / flat) - strata.oval) ** 2 / variance + np.log(variance)))


def places_in_reach(measurement: Measurement, table: RingTable) -> NDArray[np.intp]:
    """Sizes that the reading across the ring can belong to in some condition: the others have no share worth a sum.

    Six deviations either way; the nearest fifty where that is nothing. [-]
    """
    a, b = ACROSS[measurement.across]
    strata = strata_for(measurement)
    span = 6 * np.sqrt(strata.diameter_variance)
    low, high = float((strata.diameter - span).min()), float((strata.diameter + span).max())
    made = 6 * (a * table.inside_tolerance + b * table.section_tolerance) / TOLERANCE_DEVIATIONS
    slack = made + 6 * measurement.diameter_deviation + b * table.section * _SECTION_REACH
    nominal = a * table.inside_diameter + b * table.section
    inside = (measurement.diameter > low * nominal - slack) & (measurement.diameter < high * nominal + slack)
    found = np.flatnonzero(inside)
    if len(found) >= _LEAST_SIZES:
        return found
    return np.argsort(abs(np.log(measurement.diameter / nominal)), kind="stable")[:_LEAST_SIZES]


def log_likelihood(measurement: Measurement, table: RingTable) -> Floats:
    """Logarithm of the likelihood of all readings for each size, up to a constant. [-]"""
    return weigh_readings(measurement, table).by_size


def _surprises(measurement: Measurement, table: RingTable) -> Iterator[tuple[Floats, Floats]]:
    """For each reading how far it is from what each size would give, and the variance of that. [mm, mm²]"""
    ring = rings_now(measurement, table)
    on_ring = _on_ring(measurement)
    for place, (shares, value, deviation) in enumerate(on_ring):
        mean, variance = ring.reading(*shares)
        yield value - mean, variance + deviation**2
        if place + 1 < len(on_ring):
            ring = _conditioned(ring, shares, value, deviation)
    for further in measurement.further:
        if further.what in _ON_GROOVE:
            mean, spread = groove_reading(further.what, table, further.deviation)
            yield (further.value - mean)[None], (spread**2)[None]


def rings_known(measurement: Measurement, table: RingTable) -> Ring:
    """Each size's ring once all readings on it are taken in. [mm, mm²]"""
    ring = rings_now(measurement, table)
    for shares, value, deviation in _on_ring(measurement):
        ring = _conditioned(ring, shares, value, deviation)
    return ring


_ON_GROOVE = {Read.GROOVE_DIAMETER, Read.GROOVE_WIDTH}


def _on_ring(measurement: Measurement) -> list[tuple[tuple[float, float], float, float]]:
    """The readings taken on the ring itself: shares, value and standard deviation. [mm]"""
    return [
        (ACROSS[measurement.across], measurement.diameter, measurement.diameter_deviation),
        ((0.0, 1.0), measurement.round_section, measurement.section_deviation),
        *(
            (ACROSS.get(further.what, (0.0, 1.0)), further.value, further.deviation)
            for further in measurement.further
            if further.what not in _ON_GROOVE
        ),
    ]


def groove_reading(what: Read, table: RingTable, reading_deviation: float) -> tuple[Floats, Floats]:
    """What a groove made for each size would read: mean and standard deviation. [mm]

    Parameters: what : groove diameter (where the ring sits) or groove width; reading_deviation [mm].
    ``reading_deviation`` above 0. Source: usual groove dimensions of the tables (reference/tables/gland_inch.csv).
    """
    if what is Read.GROOVE_DIAMETER:
        seat = table.inside_diameter
        return seat * (1 + USUAL_STRETCH), np.hypot(seat * USUAL_STRETCH_DEVIATION, reading_deviation)
    section = table.section
    return section * USUAL_WIDTH_RATIO, np.hypot(section * USUAL_WIDTH_RATIO_DEVIATION, reading_deviation)


def _conditioned(ring: Ring, shares: tuple[float, float], value: float, deviation: float) -> Ring:
    """The rings once a reading of a · inside diameter + b · section is known."""
    a, b = shares
    mean, variance = ring.reading(a, b)
    variance = variance + deviation**2
    off = value - mean
    gain_d = (a * ring.diameter_variance + b * ring.covariance) / variance
    gain_s = (a * ring.covariance + b * ring.section_variance) / variance
    return Ring(
        ring.diameter + gain_d * off,
        ring.section + gain_s * off,
        np.maximum(ring.diameter_variance - gain_d**2 * variance, 0.0),
        np.maximum(ring.section_variance - gain_s**2 * variance, 0.0),
        ring.covariance - gain_d * gain_s * variance,
    )
