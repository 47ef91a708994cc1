"""Honest probabilities: rings drawn from a world like a shop's, told in every condition, fixed seed.

`./kettle bench honest` prints the same with more draws. The best classifier sums over drawn factors, apart
from the rule.
"""

from __future__ import annotations

import math

from ironkettle.benchmarks.honest import Honesty, try_match
from ironkettle.reference import ring_table

DRAWS = 500


def test_right_as_often_as_the_best_classifier_and_calibrated() -> None:
    seen = try_match(ring_table(), DRAWS, seed=11)
    whole = Honesty()
    for one in seen.values():
        whole.take(one)
    assert whole.draws == DRAWS
    assert whole.against_best >= 0.98
    for low, count, gap in whole.bins.gaps():
        # Three points, plus two deviations of chance for this number of draws.
        assert abs(gap) < 0.03 + 2 * math.sqrt(0.25 / count), (low, count, gap)
    # Decided is right in 95 of 100, less two deviations of chance.
    assert whole.decided > 60
    assert whole.decided_right_share > 0.95 - 2 * math.sqrt(0.05 * 0.95 / whole.decided)


def test_decided_stays_right_where_conditions_are_told_wrong_at_another_rate() -> None:
    # The model keeps 10 to 20 % for it; here 15 %, spread evenly instead of by its shares.
    seen = try_match(ring_table(), DRAWS, seed=12, told_wrong=0.15)
    decided = sum(one.decided for one in seen.values())
    right = sum(one.decided_right for one in seen.values())
    assert decided > 60
    assert right / decided > 0.95 - 2 * math.sqrt(0.05 * 0.95 / decided)
