"""The model of a reading: how likely each size is to have given what was measured.

A ring of a size is made normal about it, tolerance = 3 s. What is there to be measured, the inside
diameter x₁ and section x₂ of the ring as it is now, is made × factor of its condition. Means,
variances and covariance of that product are exact; its shape is taken as normal, which is close
because every spread is small against its mean. A reading is a weighted sum of x₁ and x₂ plus a
normal error, uncertainty = 2 s. So the integral over condition and making has a closed form, and
readings are taken in one after the other (Gauss-Markov).
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np
from scipy.special import chdtri

from ironkettle.core.rings.condition import factors_of
from ironkettle.core.rings.measurement import ACROSS, Measurement, Read
from ironkettle.core.rings.sizes import Floats, RingTable

# A groove made for a ring: how far the ring is stretched on it, and its width over the section
# (no backup ring). Source: middle of the usual limits; widths of gland_inch.csv.
USUAL_STRETCH, USUAL_STRETCH_DEVIATION = 0.02, 0.012
FAR_OFF_SHARE = 1e-4
USUAL_WIDTH_RATIO, USUAL_WIDTH_RATIO_DEVIATION = 1.35, 0.05


@dataclass(frozen=True, slots=True)
class Ring:
    """Inside diameter and section of a ring of each size as it is now: a normal pair. [mm, mm²]

    ``covariance`` is None as long as nothing ties the two together.
    """

    diameter: Floats
    section: Floats
    diameter_variance: Floats
    section_variance: Floats
    covariance: Floats | None

    def reading(self, a: float, b: float) -> tuple[Floats, Floats]:
        """Mean and variance of a · inside diameter + b · section. [mm, mm²]"""
        if not b:
            return a * self.diameter, a**2 * self.diameter_variance
        if not a:
            return b * self.section, b**2 * self.section_variance
        variance = a**2 * self.diameter_variance + b**2 * self.section_variance
        if self.covariance is not None:
            variance = variance + 2 * a * b * self.covariance
        return a * self.diameter + b * self.section, np.maximum(variance, 0.0)


def rings_now(measurement: Measurement, table: RingTable) -> Ring:
    """Inside diameter and section of a ring of each size as it is now, before any reading. [mm, mm²]

    Parameters: the measurement says the condition; table with its tolerances as ± [mm].
    """
    factor = factors_of(measurement.condition, crossed=measurement.section_crossed is not None)
    made_d1, made_d2 = (table.inside_tolerance / 3.0) ** 2, (table.section_tolerance / 3.0) ** 2
    d1, d2 = table.inside_diameter, table.section
    return Ring(
        factor.diameter * d1,
        factor.section * d2,
        factor.diameter**2 * made_d1 + factor.diameter_variance * (d1**2 + made_d1),
        factor.section**2 * made_d2 + factor.section_variance * (d2**2 + made_d2),
        factor.covariance * d1 * d2 if factor.covariance else None,
    )


@dataclass(frozen=True, slots=True)
class Weighed:
    """What the readings say of each size: logarithm of the likelihood [-], and squared distance in deviations [-]."""

    log: Floats
    distance: Floats
    readings: int

    @property
    def far_off(self) -> float:
        """The squared distance only one in ten thousand rings of a size would pass. [-]

        The squared distances of the readings, each against what was known before it, add up to a
        chi-square with as many degrees of freedom as there are readings.
        """
        return float(chdtri(self.readings, FAR_OFF_SHARE))


def weigh_readings(measurement: Measurement, table: RingTable) -> Weighed:
    """All readings against each size of the table, up to a constant in the logarithm. [mm]"""
    log, distance = np.zeros(len(table.sizes)), np.zeros(len(table.sizes))
    count = 0
    for off, variance in _surprises(measurement, table):
        square = off**2 / variance
        distance += square
        log -= 0.5 * (square + np.log(variance))
        count += 1
    return Weighed(log, distance, count)


def log_likelihood(measurement: Measurement, table: RingTable) -> Floats:
    """Logarithm of the likelihood of all readings for each size, up to a constant. [-]"""
    return weigh_readings(measurement, table).log


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
            yield further.value - mean, spread**2


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
    tied = 0.0 if ring.covariance is None else ring.covariance
    gain_d, gain_s = (
        (a * ring.diameter_variance + b * tied) / variance,
        (a * tied + b * ring.section_variance) / variance,
    )
    diameter, section = ring.diameter, ring.section
    diameter_variance, section_variance = ring.diameter_variance, ring.section_variance
    untied = ring.covariance is None and not (a and b)
    if a or not untied:
        diameter = diameter + gain_d * off
        diameter_variance = np.maximum(diameter_variance - gain_d**2 * variance, 0.0)
    if b or not untied:
        section = section + gain_s * off
        section_variance = np.maximum(section_variance - gain_s**2 * variance, 0.0)
    covariance = None if untied else np.asarray(tied - gain_d * gain_s * variance)
    return Ring(diameter, section, diameter_variance, section_variance, covariance)
