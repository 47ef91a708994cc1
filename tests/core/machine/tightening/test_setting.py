"""Laws of the setting, the adapter and the preload."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ironkettle.core.base.errors import RuleError
from ironkettle.core.machine.tightening.preload import NutFactor, Thread, preload, proof_share, stress_area
from ironkettle.core.machine.tightening.setting import Adapter, TorqueRange, Wrench, accuracy_needed, setting_within


@given(low=st.floats(1, 500), width=st.floats(0.001, 1), accuracy=st.floats(0, 20))
def test_a_setting_exists_exactly_when_the_wrench_is_good_enough(low: float, width: float, accuracy: float) -> None:
    torque = TorqueRange(low, low * (1 + width))
    needed = accuracy_needed(torque)
    setting = setting_within(torque, accuracy)
    if accuracy < needed * (1 - 1e-9):
        assert setting is not None
        assert torque.low <= setting * (1 - accuracy / 100) + 1e-9
        assert setting * (1 + accuracy / 100) <= torque.high + 1e-9
    elif accuracy > needed * (1 + 1e-9):
        assert setting is None


@given(torque=st.floats(1, 500), length=st.floats(100, 1000), extension=st.floats(0, 300), angle=st.floats(0, 90))
def test_an_adapter_lowers_the_scale_and_least_at_a_right_angle(
    torque: float, length: float, extension: float, angle: float
) -> None:
    scale = Adapter(length, extension, angle).scale_setting(torque)
    assert Adapter(length, extension, 0).scale_setting(torque) <= scale + 1e-9
    assert scale <= torque * (1 + 1e-9)
    assert Adapter(length, extension, 90).scale_setting(torque) == pytest.approx(torque)
    # Turning force times lever is the same at the hand as at the fastener.
    assert Adapter(length, 0.0, angle).scale_setting(torque) == pytest.approx(torque)


def test_an_adapter_that_points_back_past_the_drive_is_refused() -> None:
    with pytest.raises(RuleError, match="points back"):
        Adapter(100, 120, 180).scale_setting(20)


def test_a_wrench_is_trusted_from_a_fifth_of_its_scale() -> None:
    assert Wrench(5, 60, 4).usable_low == 12
    assert Wrench(20, 60, 4).usable_low == 20


@given(
    torque=st.floats(1, 500), diameter=st.floats(3, 48), pitch_share=st.floats(0.05, 0.25), k=st.floats(0.1, 0.3),
    spread=st.floats(1, 1.5),
)  # fmt: skip
def test_preload_is_torque_over_k_times_diameter(
    torque: float, diameter: float, pitch_share: float, k: float, spread: float
) -> None:
    thread = Thread("x", diameter, diameter * pitch_share)
    load = preload(torque, thread, NutFactor("x", k, k / spread, k * spread))
    assert load.low <= load.nominal <= load.high
    # F in kN and d in mm give T in N·m back.
    assert load.nominal * k * diameter == pytest.approx(torque)
    twice = preload(2 * torque, thread, NutFactor("x", k, k / spread, k * spread))
    assert twice.nominal == pytest.approx(2 * load.nominal)
    share = proof_share(load, thread, 640)
    assert share.nominal == pytest.approx(100 * load.nominal * 1000 / (640 * stress_area(thread)))
