"""Honest probabilities: rings drawn from the stated model in every condition, fixed seed.

The bench prints the same with 20,000 draws. The best classifier integrates on a grid, apart from the rule.
"""

from __future__ import annotations

import math

from ironkettle.bench.honest import try_match
from ironkettle.reference import ring_table

DRAWS = 2500


def test_right_as_often_as_the_best_classifier_and_calibrated() -> None:
    seen = try_match(ring_table(), DRAWS, seed=11)
    assert seen.against_best >= 0.99
    for low, (count, gap) in seen.gaps.items():
        # Three points, plus two deviations of chance for this number of draws.
        assert abs(gap) < 0.03 + 2 * math.sqrt(0.25 / count), (low, count, gap)
    assert sum(count for count, _ in seen.gaps.values()) > 0.6 * DRAWS
