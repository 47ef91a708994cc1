"""A thinned trace keeps every high and low."""

from __future__ import annotations

from hypothesis import given
from hypothesis import strategies as st

from ironkettle.core.machine.pressure import thinned


def test_a_spike_and_a_dip_stay() -> None:
    t = [float(n) for n in range(10_000)]
    value = [18.0] * 10_000
    value[4321], value[8765] = 25.0, 3.0
    points = thinned(t, value, 100)
    assert len(points) <= 100
    assert {(0.0, 18.0), (4321.0, 25.0), (8765.0, 3.0), (9999.0, 18.0)} <= set(points)


def test_a_short_trace_stays_as_it_is() -> None:
    assert thinned([1.0, 2.0], [5.0, 6.0], 100) == [(1.0, 5.0), (2.0, 6.0)]
    assert thinned([], [], 100) == []


@given(st.lists(st.floats(-1, 60), min_size=1, max_size=500), st.integers(4, 60))
def test_never_more_than_asked_never_another_point_and_both_extremes(value: list[float], most: int) -> None:
    t = [float(n) for n in range(len(value))]
    points = thinned(t, value, most)
    assert len(points) <= max(most, 2)
    assert set(points) <= set(zip(t, value, strict=True))
    assert [p for p, _ in points] == sorted({p for p, _ in points})
    assert max(v for _, v in points) == max(value)
    assert min(v for _, v in points) == min(value)
    assert (points[0][0], points[-1][0]) == (t[0], t[-1])
