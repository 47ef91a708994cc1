"""Two sizes side by side."""

from __future__ import annotations

from statistics import NormalDist

import numpy as np
import pytest

from ironkettle.core.sealing.rings import compare_sizes
from ironkettle.reference import ring_table


def test_the_chance_of_a_mistake_by_table_of_the_normal_distribution() -> None:
    a, b = ring_table().find("AS568", "214"), ring_table().find("metric", "25x3")
    section = compare_sizes(a, b, 0.05)[1]
    # Spread: 0.1016/2.6 made, 0.025 read: 0.0464 mm; 0.531 mm apart is 5.7 deviations each way.
    assert section.first - section.second == pytest.approx(0.5306, abs=1e-3)
    assert section.mistaken == pytest.approx(NormalDist().cdf(-0.5306 / 2 / np.hypot(0.1016 / 2.6, 0.025)), rel=0.05)
    assert section.distinguishes


def test_one_ring_under_two_names_is_never_distinguishes() -> None:
    a, b = ring_table().find("AS568", "214"), ring_table().find("ISO 3601", "25x3.55")
    assert not any(d.distinguishes for d in compare_sizes(a, b))
    same = compare_sizes(a, a)
    assert [d.mistaken for d in same] == [0.5, 0.5, 0.5]
