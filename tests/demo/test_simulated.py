"""What the demo's tests read comes from the stand: it shows what its dials say."""

from __future__ import annotations

import pytest

from ironkettle.demo.simulated import from_stand


def test_what_is_no_reading_stays_as_it_is() -> None:
    assert from_stand({"value": "12", "signs": ["pitted"], "points": {"0": None}}) == {
        "value": "12",
        "signs": ["pitted"],
        "points": {"0": None},
    }


def test_an_injector_opens_where_its_spring_is() -> None:
    wanted = {
        "rig": "opening",
        "dials": {"opens": 252, "shuts": 25},
        "raise": "300 bar",
        "read": "openings",
        "count": 3,
    }
    read = [float(one.removesuffix(" bar")) for one in from_stand({"from_stand": wanted})]
    assert len(read) == 3
    # Above its setting by what one stroke of the pump makes at most.
    assert all(252 <= one <= 257 for one in read)
    with pytest.raises(LookupError, match="does not open"):
        from_stand({"from_stand": wanted | {"raise": "100 bar"}})


def test_a_regulator_with_a_seat_that_passes_creeps_by_it() -> None:
    wanted = {
        "rig": "regulator", "dials": {"set_to": 4.0, "seat_leak": 40}, "raise": "16 bar", "read": "creep",
        "at_s": [60, 120, 300],
    }  # fmt: skip
    read = from_stand({"from_stand": wanted})
    bars = [float(one["pressure"].removesuffix(" bar")) for one in read]
    # 40 ml/min of standard air into 500 ml: 0.081 bar a minute.
    assert bars[1] - bars[0] == pytest.approx(0.081, abs=0.02)
    assert bars[2] - bars[0] == pytest.approx(0.324, abs=0.03)


def test_an_effort_is_the_deepest_of_each_breath() -> None:
    wanted = {"rig": "demand", "dials": {"cracks": 220, "rises": 0.9}, "raise": "9 bar", "read": "efforts", "count": 2}
    # 220 + 0.9 · 60 = 274 Pa = 1.10 inH2O.
    assert from_stand({"from_stand": wanted}) == ["1.10 inH2O", "1.10 inH2O"]
