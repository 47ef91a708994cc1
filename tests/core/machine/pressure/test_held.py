"""Which part of a trace held the wanted pressure."""

from __future__ import annotations

import pytest

from ironkettle.core.machine.pressure import Gauge, HoldRules, Sample
from ironkettle.core.machine.pressure.held import Held, held_part
from ironkettle.core.machine.pressure.touched import Swing
from tests.core.machine.pressure.rig import GAUGE, hold, leaking

RULES = HoldRules()
# No temperature moves anything.
STILL = Swing(0.0, 0.0, 0.0, 0.0, 0.0)


def part(pressures: list[float], wanted: float | None = 18.0, gauge: Gauge = GAUGE, rules: HoldRules = RULES) -> Held:
    return held_part(tuple(Sample(10.0 * i, p) for i, p in enumerate(pressures)), gauge, wanted, rules, STILL)


@pytest.mark.parametrize(
    ("first", "fault"),
    [
        # 1 % and 0.5 % of 18 MPa are 0.27; less a step of 0.01: 17.72 is just taken.
        (17.721, None),
        (17.719, "below"),
        (1.8, "below"),
        (18.4, None),
        (0.0, "below"),
    ],
)
def test_the_start_must_reach_the_wanted_pressure(first: float, fault: str | None) -> None:
    found = part([first, first, first])
    assert found.fault == fault
    assert (found.wanted, found.given, found.size, found.sign) == (18.0, True, 18.0, 1.0)


def test_a_coarser_gauge_and_the_shops_rule_widen_what_is_taken() -> None:
    assert part([17.3], gauge=Gauge(25, 0.5, 0.5)).fault is None
    assert part([17.0], rules=HoldRules(start_below_pct=5.0)).fault is None


def test_the_band_ends_the_judged_part_at_its_first_reading_below() -> None:
    # 10 % under 18 MPa is 16.2.
    found = part([18.0, 17.0, 16.3, 16.1, 17.5, 18.0])
    assert list(found.pressure) == [18.0, 17.0, 16.3]
    assert (found.start, found.end, found.left_band) == (0.0, 20.0, True)
    assert (found.low, found.high) == (16.3, 18.0)
    assert found.out == (30.0, 16.1)


def test_a_trace_inside_the_band_is_judged_whole() -> None:
    found = part([18.0, 17.5, 16.3])
    assert (len(found.t), found.left_band, found.out) == (3, False, None)


@pytest.mark.parametrize(("last", "out"), [(0.0, None), (8.9, None), (9.1, (20.0, 9.1))])
def test_a_release_at_the_end_is_no_fall(last: float, out: tuple[float, float] | None) -> None:
    found = part([18.0, 17.9, last])
    assert found.left_band
    assert found.out == out


def test_without_a_wanted_pressure_the_first_reading_is_it() -> None:
    found = part([20.0, 19.0, 17.9], wanted=None)
    assert (found.wanted, found.given, found.left_band) == (20.0, False, True)


def test_a_vacuum_is_judged_by_its_depth() -> None:
    gauge = Gauge(0.1, 0.0001, 0.5)
    found = part([-0.080, -0.078, -0.071], wanted=-0.08, gauge=gauge)
    assert (found.sign, found.size, found.left_band) == (-1.0, 0.08, True)
    assert found.out == (20.0, -0.071)
    assert part([-0.07, -0.07, -0.07], wanted=-0.08, gauge=gauge).fault == "below"
    assert part([0.08, 0.08], wanted=-0.08, gauge=gauge).fault == "below"


def test_nothing_held_is_said() -> None:
    assert part([0.0, 0.0, 0.0], wanted=None).fault == "nothing"
    assert part([0.02, 0.02, 0.02], wanted=None).fault == "nothing"
    # Above that a step of 0.01 MPa is still too coarse: three of them must lie in what 10 % leave of it.
    assert part([0.03, 0.03, 0.03], wanted=None).fault == "unsuited"
    assert part([0.4, 0.4, 0.4], wanted=None).fault is None


def test_pumping_during_the_hold_is_found_and_ripple_is_not() -> None:
    saw = [18.0 - 0.01 * (i % 20) + (0.0 if i < 20 else 0.4) for i in range(40)]
    assert part(saw).fault == "pumped"
    rippling = [18.0 + (0.05 if i % 2 else -0.05) for i in range(40)]
    assert part(rippling).fault is None
    # Two steps of 0.01 MPa are no rise, three are, and so are many small ones one after the other.
    assert part([18.0, 18.0, 18.02, 18.02]).fault is None
    assert part([18.0, 18.0, 18.03, 18.03]).fault == "pumped"
    assert part([18.0 + 0.01 * i for i in range(12)]).fault == "pumped"


def test_a_pumping_after_the_band_was_left_is_not_judged_at_all() -> None:
    found = part([18.0, 17.9, 16.0, 18.0, 18.0])
    assert (found.fault, list(found.pressure)) == (None, [18.0, 17.9])


def test_temperatures_go_with_their_readings() -> None:
    found = held_part(hold(leaking(1.0), last=10.0), GAUGE, 21.0, RULES, STILL)
    assert list(found.temperature) == [22.0] * 6
