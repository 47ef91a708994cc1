"""The model of a reading against hand calculation and against drawing rings one by one."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np
import pytest

from ironkettle.core.rings import AS568, Condition, Further, Measurement, Read, RingSize, RingTable
from ironkettle.core.rings.likelihood import log_likelihood, rings_known, rings_now
from ironkettle.reference import ring_table

TABLE = ring_table()


def one(d1: float = 50.0, t1: float = 0.3, d2: float = 5.0, t2: float = 0.1) -> RingTable:
    return RingTable((RingSize(AS568, "x", d1, t1, d2, t2, "test"),))


def test_a_new_ring_is_normal_about_its_size() -> None:
    # By hand: deviations are tolerance/3 and uncertainty/2, added in square; a reading on the size itself
    # differs from one a standard deviation off by a factor exp(-1/2).
    table = one()
    spread = math.hypot(0.3 / 3, 0.08 / 2)
    on = log_likelihood(Measurement(50.0, 5.0, uncertainty=0.08), table)[0]
    off = log_likelihood(Measurement(50.0 + spread, 5.0, uncertainty=0.08), table)[0]
    assert on - off == pytest.approx(0.5)


@pytest.mark.parametrize("condition", list(Condition))
@pytest.mark.parametrize("crossed", [False, True])
def test_mean_and_spread_are_those_of_rings_drawn_one_by_one(condition: Condition, crossed: bool) -> None:
    """Independent method: making and condition drawn from the stated table, 200,000 rings."""
    stated = {
        Condition.NEW: ((1.0, 0.0), (1.0, 0.0)),
        Condition.USED: ((1.005, 0.005), (0.985, 0.010)),
        Condition.FLATTENED: ((1.010, 0.008), (0.99, 0.01) if crossed else (0.90, 0.05)),
        Condition.SWOLLEN: ((1.040, 0.020), None),
        Condition.STRETCHED: ((1.030, 0.015), None),
    }
    chance = np.random.default_rng(5)
    diameter, section = stated[condition]
    f = chance.normal(*diameter, 200_000)
    tied = f if condition is Condition.SWOLLEN else f**-0.5
    g = tied if section is None else chance.normal(*section, 200_000)
    d, s = chance.normal(50.0, 0.1, 200_000) * f, chance.normal(5.0, 0.1 / 3, 200_000) * g
    ring = rings_now(Measurement(50, 5, condition, section_crossed=5.0 if crossed else None), one())
    covariance = 0.0 if ring.covariance is None else ring.covariance[0]
    assert (ring.diameter[0], ring.section[0]) == pytest.approx((d.mean(), s.mean()), rel=2e-4)
    assert math.sqrt(ring.diameter_variance[0]) == pytest.approx(d.std(), rel=0.01)
    assert math.sqrt(ring.section_variance[0]) == pytest.approx(s.std(), rel=0.01)
    assert covariance == pytest.approx(np.cov(d, s)[0, 1], abs=0.01 * d.std() * s.std())


@pytest.mark.parametrize(
    ("across", "reading"),
    [
        (Read.INSIDE, 24.99),
        (Read.CONE, 24.99),
        (Read.OUTSIDE, 24.99 + 2 * 3.53),
        (Read.CIRCUMFERENCE, math.pi * 24.99),
        (Read.CUT_LENGTH, math.pi * (24.99 + 3.53)),
    ],
)
def test_every_way_across_the_ring_points_to_the_same_size(across: Read, reading: float) -> None:
    # AS568-214: 24.99 × 3.53 mm; the middle line of a cut ring is π·(d₁ + d₂) long.
    table = TABLE.of_series([AS568])
    best = int(np.argmax(log_likelihood(Measurement(reading, 3.53, across=across), table)))
    assert table.sizes[best].designation == "214"


def test_a_reading_narrows_what_is_known_and_further_ones_more() -> None:
    measured = Measurement(50.1, 5.0, Condition.SWOLLEN)
    before = rings_now(measured, one())
    after = rings_known(measured, one())
    more = rings_known(Measurement(50.1, 5.0, Condition.SWOLLEN, further=(Further(Read.OUTSIDE, 60.2),)), one())
    assert before.diameter_variance[0] > after.diameter_variance[0] > more.diameter_variance[0]
    assert before.section_variance[0] > after.section_variance[0]


def test_the_order_of_readings_does_not_matter() -> None:
    inside_first = Measurement(
        50.1, 5.02, Condition.SWOLLEN, uncertainty=0.06, further=(Further(Read.OUTSIDE, 60.2, 0.06),)
    )
    outside_first = Measurement(
        60.2,
        5.02,
        Condition.SWOLLEN,
        uncertainty=0.06,
        across=Read.OUTSIDE,
        further=(Further(Read.INSIDE, 50.1, 0.06),),
    )
    assert log_likelihood(inside_first, TABLE) == pytest.approx(log_likelihood(outside_first, TABLE), rel=1e-9)


def test_a_groove_reading_speaks_for_the_ring_made_for_it() -> None:
    # A groove of 51.0 is 2 % over a 50 mm ring; one of 56 is 12 % over, which no ring stands.
    near = log_likelihood(Measurement(50, 5, further=(Further(Read.GROOVE_DIAMETER, 51.0),)), one())[0]
    far = log_likelihood(Measurement(50, 5, further=(Further(Read.GROOVE_DIAMETER, 56.0),)), one())[0]
    assert near > far + 20


def test_nothing_but_the_unit_changes_when_everything_is_measured_in_another() -> None:
    """Inch readings on an inch table weigh the sizes as millimetre readings on a millimetre one."""
    inch = RingTable(
        tuple(
            replace(
                size,
                inside_diameter=size.inside_diameter / 25.4,
                inside_tolerance=size.inside_tolerance / 25.4,
                section=size.section / 25.4,
                section_tolerance=size.section_tolerance / 25.4,
            )
            for size in TABLE.sizes
        )
    )
    for condition in Condition:
        in_mm = log_likelihood(Measurement(44.1, 3.5, condition, uncertainty=0.1), TABLE)
        in_inch = log_likelihood(Measurement(44.1 / 25.4, 3.5 / 25.4, condition, uncertainty=0.1 / 25.4), inch)
        # A density in another unit differs by one constant for all sizes.
        assert in_mm - in_inch == pytest.approx(np.full(len(TABLE.sizes), (in_mm - in_inch)[0]), abs=1e-6)
