"""What strokes by itself: its rate by the sum of sweep and pilot, what comes in is what it swept and lost, and when it stalls."""

from __future__ import annotations

from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ironkettle.core.simulation import Stand, Stroker


def run(stroker: Stroker, pressure: float, seconds: float, fine: float = 0.02) -> None:
    for _ in range(round(seconds / fine)):
        stroker.step(fine, pressure)


def test_it_strokes_as_often_as_sweep_and_pilot_say() -> None:
    """1 l/min into 30 ml is 1.8 s, and 0.1 s at the end: 60/1.9 = 31.58 strokes a minute."""
    stroker = Stroker(swept=30.0, passes=1000.0, runs=0.02, turns=0.1)
    assert stroker.rate(0.12) == pytest.approx(31.579, rel=1e-4)
    run(stroker, 0.12, 600)
    # Ten minutes: 315.8, the first at the end of its first sweep.
    assert stroker.strokes == 315
    # Four times the pressure over what it runs at lets in twice as much: 0.9 s and 0.1 s.
    assert Stroker(turns=0.1).rate(0.42) == pytest.approx(60.0)


@given(st.floats(0.0, 1.0), st.floats(1.0, 500.0), st.floats(0.0, 3000.0), st.floats(0.0, 0.5), st.floats(0.001, 0.3))
def test_what_came_in_is_what_it_swept_and_lost(
    pressure: float, swept: float, past: float, turns: float, fine: float
) -> None:
    stroker = Stroker(swept=swept, past=past, turns=turns)
    run(stroker, pressure, 30 * fine, fine)
    assert stroker.came == pytest.approx(stroker.strokes * swept + stroker.filled + stroker.lost, rel=1e-9, abs=1e-9)
    assert 0 <= stroker.place <= 1
    assert stroker.strokes <= stroker.rate(pressure) * 30 * fine / 60 + 1


def test_it_starts_above_its_break_and_stops_below_its_run() -> None:
    stroker = Stroker(starts=0.05, runs=0.02)
    run(stroker, 0.04, 5)
    assert (stroker.strokes, stroker.moving) == (0, False)
    run(stroker, 0.05, 5)
    assert stroker.strokes > 0
    before = stroker.strokes
    # Once on its way it goes on below what it took to start it.
    run(stroker, 0.04, 5)
    assert stroker.strokes > before
    run(stroker, 0.02, 5)
    assert not stroker.moving
    before = stroker.strokes
    run(stroker, 0.04, 5)
    assert stroker.strokes == before


def test_rings_that_pass_all_that_comes_stall_it() -> None:
    """At 1.2 bar 1,000 ml/min come in and the rings pass 950·√1.2 = 1,041."""
    stroker = Stroker(past=950.0)
    run(stroker, 0.12, 60)
    assert (stroker.strokes, stroker.moving, stroker.rate(0.12)) == (0, False, 0.0)
    assert stroker.lost == pytest.approx(950 * 1.2**0.5, rel=1e-6)
    # Passing half of it, it does a little less than half.
    assert Stroker(past=500 / 1.2**0.5, turns=0.0).rate(0.12) == pytest.approx(1000 / 30 / 2)


def test_another_sweep_on_the_dial_leaves_it_between_its_ends() -> None:
    stand = Stand()
    stand.put_on("stroking")
    stand.raise_to(0.12, 1)
    stand.advance(1.5)
    stand.set_dials({"outlet": 0.0})
    stand.advance(0.02)
    before = stand.rig.reading().position
    assert 10 < before < 40
    stand.set_dials({"outlet": 0.0, "swept": 1.0})
    stand.advance(0.02)
    assert stand.rig.reading().position == pytest.approx(before)


def test_its_place_goes_to_and_fro() -> None:
    stroker = Stroker(turns=0.0)
    places = []
    for _ in range(400):
        stroker.step(0.02, 0.12)
        places.append(stroker.place)
    assert max(places) > 0.98
    assert min(places) < 0.02
    # No step is larger than what comes in while it lasts: 1,000/60·0.02/30.
    assert max(abs(b - a) for a, b in pairwise(places)) <= 0.0112
