"""Conditions as distributions."""

from __future__ import annotations

import pytest

from ironkettle.core.rings.condition import Condition, factors_of


@pytest.mark.parametrize("condition", list(Condition))
@pytest.mark.parametrize("crossed", [False, True])
def test_variances_can_be(condition: Condition, crossed: bool) -> None:
    f = factors_of(condition, crossed=crossed)
    assert f.diameter_variance >= 0
    assert f.section_variance >= 0
    assert f.covariance**2 <= f.diameter_variance * f.section_variance + 1e-15


def test_directions_of_the_bias() -> None:
    assert (
        factors_of(Condition.FLATTENED, crossed=False).section < factors_of(Condition.FLATTENED, crossed=True).section
    )
    assert factors_of(Condition.SWOLLEN, crossed=False).covariance > 0
    assert factors_of(Condition.STRETCHED, crossed=False).covariance < 0


def test_a_stretched_ring_keeps_its_volume_to_first_order() -> None:
    # 1/√1.03 = 0.98533 by hand; the spread of the factor adds 0.375·(0.015/1.03)² = 0.008 %.
    assert factors_of(Condition.STRETCHED, crossed=False).section == pytest.approx(0.98541, abs=1e-5)
