"""Conditions as distributions, and what they may be mistaken for."""

from __future__ import annotations

import math

import numpy as np
import pytest

from ironkettle.core.sealing.rings.condition import MISTAKEN, Condition, Floats, strata_of


def moments(condition: Condition, *, crossed: bool = False) -> tuple[float, float, float, float]:
    """Mean and deviation of both factors over the parts of a condition."""
    strata = strata_of(condition, crossed=crossed)
    rows = strata.of(condition)
    share = strata.share[rows] / strata.share[rows].sum()

    def over(mean: Floats, variance: Floats) -> tuple[float, float]:
        middle = float(share @ mean[rows])
        return middle, math.sqrt(float(share @ (variance[rows] + (mean[rows] - middle) ** 2)))

    return (*over(strata.diameter, strata.diameter_variance), *over(strata.section, strata.section_variance))


@pytest.mark.parametrize("condition", list(Condition))
@pytest.mark.parametrize("crossed", [False, True])
def test_shares_add_up_and_variances_can_be(condition: Condition, crossed: bool) -> None:
    strata = strata_of(condition, crossed=crossed)
    assert strata.share.sum() == pytest.approx(1.0)
    assert (strata.diameter_variance >= 0).all()
    assert (strata.section_variance >= 0).all()
    assert (strata.covariance**2 <= strata.diameter_variance * strata.section_variance + 1e-15).all()
    # What it was told to be is the likeliest, and nothing has a share that is not stated.
    for other, share in MISTAKEN[condition].items():
        assert strata.share[strata.of(other)].sum() == pytest.approx(share)
        assert share <= MISTAKEN[condition][condition]


def test_new_and_used_are_one_part_each() -> None:
    assert moments(Condition.NEW) == (1.0, 0.0, 1.0, 0.0)
    assert moments(Condition.USED) == pytest.approx((1.005, 0.005, 0.985, 0.010))


def test_an_even_growth_has_the_moments_of_one() -> None:
    # Even 2 to 30 % by volume: the cube root has mean 1.0501 and deviation 0.0247, by the integral
    # 3/4·(1.30^(4/3) − 1.02^(4/3))/0.28 = 1.05005, and of the square 3/5·(1.30^(5/3) − 1.02^(5/3))/0.28 = 1.10322.
    mean, deviation, section, _ = moments(Condition.SWOLLEN)
    exact = 0.75 * (1.30 ** (4 / 3) - 1.02 ** (4 / 3)) / 0.28
    square = 0.6 * (1.30 ** (5 / 3) - 1.02 ** (5 / 3)) / 0.28
    assert mean == section == pytest.approx(exact, abs=1e-5)
    # A little wider, since every part is widened to join its neighbours.
    assert math.sqrt(square - exact**2) < deviation < 1.03 * math.sqrt(square - exact**2)


def test_a_stretched_ring_keeps_its_volume() -> None:
    strata = strata_of(Condition.STRETCHED, crossed=False)
    rows = strata.of(Condition.STRETCHED)
    assert strata.section[rows] == pytest.approx(strata.diameter[rows] ** -0.5, rel=1e-4)
    assert (strata.covariance[rows] < 0).all()
    # Even 1.005 to 1.07: mean 1.0375.
    assert moments(Condition.STRETCHED)[0] == pytest.approx(1.0375)
    assert (strata.diameter[rows].min(), strata.diameter[rows].max()) == pytest.approx((1.0091, 1.0659), abs=1e-3)


def test_a_flattened_ring_loses_set_times_squeeze() -> None:
    # Means 0.5 and 0.175: 0.0875 lost; E[x²] = (0.25 + 0.9²/12)(0.175² + 0.15²/12) gives s 0.0522.
    _, _, section, deviation = moments(Condition.FLATTENED)
    exact = math.sqrt((0.25 + 0.81 / 12) * (0.175**2 + 0.0225 / 12) - 0.0875**2)
    assert section == pytest.approx(1 - 0.0875, abs=1e-4)
    assert exact < deviation < 1.06 * exact
    assert moments(Condition.FLATTENED, crossed=True)[2:] == pytest.approx((0.99, 0.01))


def test_crossed_readings_differ_on_a_flattened_ring_only() -> None:
    strata = strata_of(Condition.USED, crossed=True)
    assert (strata.oval[~strata.of(Condition.FLATTENED)] == 0).all()
    oval = strata.oval[strata.of(Condition.FLATTENED)]
    # 0.98/(1 − x)² with x from 0.005 to 0.24: nearly round to 1.7 times as wide.
    assert (np.diff(oval) > 0).all()
    assert -0.02 < oval[0] < 0.05
    assert 0.3 < oval[-1] < math.log(0.98 / 0.76**2)


def test_neighbouring_parts_join_into_an_even_whole() -> None:
    """The density of the growth, summed over its parts, stays within a tenth of even over the middle of it."""
    strata = strata_of(Condition.SWOLLEN, crossed=False)
    rows = strata.of(Condition.SWOLLEN)
    at = np.linspace(1.03, 1.07, 50)[:, None]
    deviation = np.sqrt(strata.diameter_variance[rows])
    density = (np.exp(-0.5 * ((at - strata.diameter[rows]) / deviation) ** 2) / deviation).sum(axis=1)
    # Volume is even, so its cube root thickens with its square.
    even = density / at[:, 0] ** 2
    assert even.max() / even.min() < 1.1
