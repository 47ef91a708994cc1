"""What can be put on the stand behaves by its dials: opening and reseat, droop, lock-up and creep, stick-slip, a breath."""

from __future__ import annotations

import math
from collections.abc import Mapping

import pytest

from ironkettle.core.base.errors import RuleError
from ironkettle.core.simulation import RIGS, Fault, Stand


def on_stand(key: str, wanted: float, settings: Mapping[str, float] | None = None) -> Stand:
    stand = Stand()
    stand.put_on(key)
    stand.set_dials(settings or {})
    stand.raise_to(wanted, 7)
    return stand


def ran(stand: Stand, seconds: float, every: float = 0.02) -> list[float]:
    """What the pressure channel's truth was. [MPa]"""
    found = []
    for _ in range(round(seconds / every)):
        stand.advance(every)
        found.append(stand.rig.reading().pressure)
    return found


def peaks_and_valleys(trace: list[float]) -> tuple[list[float], list[float]]:
    peaks = [b for a, b, c in zip(trace, trace[1:], trace[2:], strict=False) if a < b >= c]
    valleys = [b for a, b, c in zip(trace, trace[1:], trace[2:], strict=False) if a > b <= c]
    return peaks, valleys


def test_a_valve_opens_where_it_is_set_and_shuts_below() -> None:
    """Set to 284 bar with 30 bar to its reseat: it opens again and again, never far above, never far below."""
    stand = on_stand("opening", 40.0, {"opens": 284.0, "shuts": 30.0})
    trace = ran(stand, 120)
    peaks, valleys = peaks_and_valleys(trace)
    assert len(peaks) >= 3
    # Above by what a stroke pumps in one step at most: 12 ml/min for 0.02 s into the softness of 20 ml.
    assert all(28.4 <= peak <= 28.4 + 0.5 for peak in peaks)
    assert all(25.2 <= valley <= 25.6 for valley in valleys[1:])
    # Set above what the pump is raised to, it never opens and holds.
    held = on_stand("opening", 20.0, {"opens": 284.0})
    ran(held, 60)
    assert held.shut
    assert held.rig.reading().pressure == pytest.approx(20.0, rel=0.01)


def test_a_seat_that_leaks_does_not_hold() -> None:
    tight, leaks = (on_stand("opening", 20.0, {"seat_hole": hole}) for hole in (0.0, 0.02))
    before, after = [], []
    for stand in (tight, leaks):
        while not stand.shut:
            stand.advance(0.02)
        before.append(stand.rig.reading().pressure)
        after.append(ran(stand, 1)[-1])
    assert before[0] - after[0] < 0.01
    assert before[1] - after[1] > 0.5


def test_a_regulator_locks_up_droops_and_creeps() -> None:
    stand = on_stand("regulator", 1.0, {"set_to": 4.0})
    ran(stand, 5)
    # Shut tight 0.2 bar above its setting; a tight seat does not creep.
    assert stand.rig.reading().pressure == pytest.approx(0.42, abs=0.001)
    assert ran(stand, 60)[-1] == pytest.approx(0.42, abs=0.001)
    assert stand.shut
    stand.set_dials({"draws": 200.0})
    # 200 l/min · 0.0005 bar a l/min = 0.1 bar, and the friction of 0.02 bar.
    assert ran(stand, 5)[-1] == pytest.approx(0.4 - 0.01, abs=0.003)
    stand.set_dials({"draws": 0.0, "seat_leak": 10.0})
    before, after = ran(stand, 10)[-1], ran(stand, 60)[-1]
    # 10 ml/min of standard air into 500 ml for a minute: 10/500 · 0.101325 MPa.
    assert after - before == pytest.approx(10 / 500 * 0.101325, rel=0.05)
    # It creeps no higher than its supply.
    stand.set_dials({"seat_leak": 500.0})
    assert ran(stand, 600, 0.5)[-1] <= 1.0 + 1e-9


def test_a_regulator_shows_no_more_than_its_supply() -> None:
    assert ran(on_stand("regulator", 0.2, {"set_to": 4.0}), 10)[-1] == pytest.approx(0.2, abs=0.001)


def test_air_is_pumped_up_holds_and_leaks_by_its_hole() -> None:
    tight = on_stand("air", 0.6)
    ran(tight, 30)
    assert tight.shut
    # What compression warmed cools down again: it falls a little and then stands.
    settled = ran(tight, 400, 0.1)
    assert settled[-1] == pytest.approx(settled[-600], rel=0.002)
    leaks, same = on_stand("air", 0.6, {"hole": 0.1}), on_stand("air", 0.6)
    for one in (leaks, same):
        while not one.shut:
            one.advance(0.02)
    after, beside = ran(leaks, 60, 0.1)[-1], ran(same, 60, 0.1)[-1]
    # Choked through 0.1 mm at 0.7 MPa absolute: 0.8·π/4·1e-8·0.7e6·0.0404/√297 = 0.0103 g/s; of 8.2 g that is 0.126 % a
    # second, beside one that cools after pumping as it does and has no hole. What is left cools as it expands: by nothing
    # where the walls keep it warm, by the 1.4 of its adiabate where they do not.
    assert 0.95 * 60 * 0.00126 < math.log((beside + 0.1013) / (after + 0.1013)) < 1.43 * 60 * 0.00126
    assert leaks.rig.reading().flow > 100


def test_a_ram_sticks_breaks_away_and_slips() -> None:
    stand = on_stand("ram", 1.0, {"breakaway": 600.0, "running": 300.0})
    forces, places = [], []
    for _ in range(2000):
        stand.advance(0.02)
        now = stand.rig.reading()
        forces.append(now.force)
        places.append(now.position)
    # It stands until the break, and never needs more.
    moved = next(place for place, at in enumerate(places) if at > 0)
    assert forces[moved - 1] <= 600.0 + 10
    assert max(forces) <= 620.0
    assert min(forces[moved:]) < 300.0
    assert places == sorted(places)
    # Each stick ends in a jump: the steps of position are far from even.
    steps = [b - a for a, b in zip(places[moved:], places[moved + 1 :], strict=False)]
    assert max(steps) > 5 * (sum(steps) / len(steps))
    # Without a break above its running friction it slides evenly, at that force.
    smooth = on_stand("ram", 1.0, {"breakaway": 300.0, "running": 300.0})
    ran(smooth, 20)
    assert smooth.rig.reading().force == pytest.approx(300.0, rel=0.05)
    # Pressure is force over its area of 1000 mm².
    assert smooth.rig.reading().pressure == pytest.approx(smooth.rig.reading().force / 1000, rel=1e-6)


def test_a_demand_valve_is_breathed_from_by_its_line() -> None:
    stand = on_stand("demand", 1.0, {"cracks": 350.0, "rises": 3.0})
    trace = ran(stand, 8)
    # At the peak of 60 l/min: 350 + 3 · 60 = 530 Pa below; between breaths nothing.
    assert min(trace) == pytest.approx(-530e-6, rel=0.01)
    assert max(trace) == 0.0
    assert stand.rig.reading().supply == 1.0
    assert ran(on_stand("demand", 0.0), 4)[-1] == 0.0


def test_dials_keep_between_their_ends_and_another_thing_begins_without_pressure() -> None:
    stand = on_stand("oil", 10.0, {"rod_gap": 1e9, "volume": 0.0, "nonsense": 3.0})
    assert stand.settings["rod_gap"] == 200.0
    assert stand.settings["volume"] == 5.0
    assert "nonsense" not in stand.settings
    ran(stand, 5)
    same = stand.rig
    stand.put_on("oil")
    assert stand.rig is same
    stand.put_on("air")
    assert (stand.wanted, stand.shut, stand.rig.reading().pressure) == (0.0, False, pytest.approx(0.0, abs=1e-9))
    with pytest.raises(RuleError, match="cannot be put on the stand"):
        stand.put_on("rocket")


@pytest.mark.parametrize("key", RIGS)
def test_everything_on_the_stand_shows_figures_only_and_lets_down(key: str) -> None:
    stand = on_stand(key, 2.0)
    assert stand.rig.key == key
    for _ in range(200):
        stand.advance(0.05)
        assert all(math.isfinite(value) for value in stand.shows(0.05).values())
    stand.raise_to(0.0, 8)
    ran(stand, 30)
    assert stand.rig.reading().supply == pytest.approx(0.0, abs=0.02)
    assert stand.shows_held() == 0.0


def test_a_clock_that_jumps_is_an_hour_ahead_and_the_channel_is_sound() -> None:
    stand = on_stand("oil", 10.0)
    ran(stand, 20)
    assert 0 < stand.shows_held() < 20
    stand.fault = Fault.CLOCK
    assert stand.shows_held() > 3600
    assert stand.shows(1.0)["pressure"] == pytest.approx(10.0, abs=0.2)
