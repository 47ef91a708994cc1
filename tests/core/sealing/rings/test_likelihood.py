"""The model of a reading against hand calculation and against drawing rings one by one."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np
import pytest
from numpy.typing import NDArray

from ironkettle.core.sealing.rings import AS568, Condition, Further, Measurement, Read, RingSize, RingTable
from ironkettle.core.sealing.rings.condition import strata_of
from ironkettle.core.sealing.rings.likelihood import (
    Weighed,
    log_likelihood,
    places_in_reach,
    rings_known,
    rings_now,
    weigh_readings,
)
from ironkettle.reference import ring_table

TABLE = ring_table()


def one(d1: float = 50.0, t1: float = 0.3, d2: float = 5.0, t2: float = 0.1) -> RingTable:
    return RingTable((RingSize(AS568, "x", d1, t1, d2, t2, "test"),))


def told_part(measurement: Measurement, table: RingTable) -> NDArray[np.float64]:
    """Logarithm of the likelihood in the first part of the condition told, per size."""
    weighed = weigh_readings(measurement, table)
    return np.asarray(weighed.log[int(np.flatnonzero(weighed.strata.of(measurement.condition))[0])])


def test_a_new_ring_is_normal_about_its_size() -> None:
    # By hand: deviations are tolerance/2.6 and uncertainty/2, added in square; a reading on the size itself
    # differs from one a standard deviation off by a factor exp(-1/2).
    table = one()
    spread = math.hypot(0.3 / 2.6, 0.08 / 2)
    on = told_part(Measurement(50.0, 5.0, uncertainty=0.08), table)[0]
    off = told_part(Measurement(50.0 + spread, 5.0, uncertainty=0.08), table)[0]
    assert on - off == pytest.approx(0.5)


def test_all_parts_are_summed_with_their_shares() -> None:
    """Independent method: 400,000 new-told rings drawn one by one; the density of the section at the reading."""
    chance = np.random.default_rng(3)
    count = 400_000
    really = chance.choice(4, count, p=[0.90, 0.06, 0.03, 0.01])
    lost = chance.uniform(0.05, 0.95, count) * chance.uniform(0.10, 0.25, count)
    stretch = chance.uniform(1.005, 1.07, count)
    factor = np.select(
        [really == 0, really == 1, really == 2], [1.0, chance.normal(0.985, 0.01, count), 1 - lost], stretch**-0.5
    )
    drawn = chance.normal(5.0, 0.1 / 2.6, count) * factor + chance.normal(0, 0.025, count)
    table = one(t1=500.0)  # a diameter that says nothing
    for at in (4.6, 4.8, 4.9, 5.0):
        density = float((abs(drawn - at) < 0.01).mean())
        middle = float((abs(drawn - 5.02) < 0.01).mean())
        ratio = log_likelihood(Measurement(50, at), table)[0] - log_likelihood(Measurement(50, 5.02), table)[0]
        assert math.exp(ratio) == pytest.approx(density / middle, rel=0.12)


@pytest.mark.parametrize("condition", list(Condition))
@pytest.mark.parametrize("crossed", [False, True])
def test_mean_and_spread_of_each_part_are_those_of_rings_drawn_one_by_one(condition: Condition, crossed: bool) -> None:
    """Independent method: making and the factors of the part drawn, 200,000 rings."""
    strata = strata_of(condition, crossed=crossed)
    ring = rings_now(Measurement(50, 5, condition, section_crossed=5.0 if crossed else None), one())
    chance = np.random.default_rng(5)
    for row in (0, len(strata.share) - 1):
        spread = [
            [strata.diameter_variance[row], strata.covariance[row]],
            [strata.covariance[row], strata.section_variance[row]],
        ]
        factor = chance.multivariate_normal([strata.diameter[row], strata.section[row]], spread, 200_000)
        d, s = (
            chance.normal(made, t / 2.6, 200_000) * factor[:, i] for i, (made, t) in enumerate(((50, 0.3), (5, 0.1)))
        )
        assert (ring.diameter[row, 0], ring.section[row, 0]) == pytest.approx((d.mean(), s.mean()), rel=2e-4)
        assert math.sqrt(ring.diameter_variance[row, 0]) == pytest.approx(d.std(), rel=0.01)
        assert math.sqrt(ring.section_variance[row, 0]) == pytest.approx(s.std(), rel=0.01)
        assert ring.covariance[row, 0] == pytest.approx(np.cov(d, s)[0, 1], abs=0.01 * d.std() * s.std())


def test_two_crossed_readings_tell_a_flattened_ring() -> None:
    table = one()
    round_, oval = (weigh_readings(Measurement(50, 4.8, Condition.USED, section_crossed=b), table) for b in (4.82, 5.4))

    def share(weighed: Weighed) -> float:
        weight = np.exp(weighed.log[:, 0] - weighed.log.max())
        return float(weight[weighed.strata.of(Condition.FLATTENED)].sum() / weight.sum())

    assert share(round_) < 0.05
    assert share(oval) > 0.99
    # Which of the two was read first says nothing.
    turned = weigh_readings(Measurement(50, 5.4, Condition.USED, section_crossed=4.8), table)
    assert turned.log == pytest.approx(oval.log)


def test_sizes_out_of_reach_are_left_out_and_none_in_reach() -> None:
    near = places_in_reach(Measurement(44.1, 3.5, Condition.SWOLLEN), TABLE)
    d = TABLE.inside_diameter
    # Grown by 0.7 to 9.1 %, less and more the tolerance and the reading.
    assert set(np.flatnonzero((d > 44.1 / 1.1) & (d < 44.1 / 1.005))) <= set(near.tolist())
    assert d[near].min() > 35
    assert d[near].max() < 50
    assert len(places_in_reach(Measurement(5000, 7), TABLE)) == 50


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
    assert (before.diameter_variance > after.diameter_variance).all()
    assert (after.diameter_variance > more.diameter_variance).all()
    assert (before.section_variance > after.section_variance).all()


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


def test_a_reading_that_holds_a_factor_doubles_mean_and_fourfolds_variance() -> None:
    now = rings_now(Measurement(50.0, 5.0, Condition.USED), one())
    mean, variance = now.reading(1.0, 0.0)
    twice, wider = now.reading(2.0, 0.0)
    assert twice == pytest.approx(2 * mean)
    assert wider == pytest.approx(4 * variance)
    mean, variance = now.reading(0.0, 1.0)
    twice, wider = now.reading(0.0, 3.0)
    assert wider == pytest.approx(9 * variance)
