"""Stored energy: hand calculations, laws, and the limit of small pressures."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from ironkettle.core.base.errors import RuleError
from ironkettle.core.machine.pressure.energy import stored_energy
from ironkettle.core.machine.pressure.model import STANDARD_PRESSURE_MPA, Fluid

AIR = Fluid("air", True, None)
OIL = Fluid("oil", False, 1.6)


def test_liquid_by_hand() -> None:
    # 18 MPa on 420 ml at 1.3 GPa: 18²·420/(2·1300) = 52.3 J.
    assert stored_energy(18, 420, OIL, 1.3) == pytest.approx(52.34, abs=0.01)
    # Without a modulus the fluid's own 1.6 GPa: 18²·420/3200 = 42.5 J.
    assert stored_energy(18, 420, OIL) == pytest.approx(42.525)


@given(pressure=st.floats(0.01, 40), volume=st.floats(1, 5000))
def test_gas_is_the_work_of_isentropic_expansion(pressure: float, volume: float) -> None:
    """Independent method: p·dV along p·V^1.4 = const from p₁ to the air outside, by the trapezoidal rule."""
    p1 = pressure + STANDARD_PRESSURE_MPA
    v = np.geomspace(volume, volume * (p1 / STANDARD_PRESSURE_MPA) ** (1 / 1.4), 4000)
    work = float(np.trapezoid(p1 * (volume / v) ** 1.4, v))
    assert stored_energy(pressure, volume, AIR) == pytest.approx(work, rel=1e-4)


@given(pressure=st.floats(0.1, 40), volume=st.floats(1, 5000))
def test_gas_stores_far_more_than_liquid(pressure: float, volume: float) -> None:
    assert stored_energy(pressure, volume, AIR) > 5 * stored_energy(pressure, volume, OIL)


@given(pressure=st.floats(0.1, 40), volume=st.floats(1, 5000), fluid=st.sampled_from([AIR, OIL]))
def test_energy_grows_with_pressure_and_in_proportion_to_volume(pressure: float, volume: float, fluid: Fluid) -> None:
    one = stored_energy(pressure, volume, fluid)
    assert stored_energy(pressure * 1.1, volume, fluid) > one
    assert stored_energy(pressure, volume * 2, fluid) == pytest.approx(2 * one)


def test_nothing_is_stored_at_no_pressure_and_a_liquid_needs_its_modulus() -> None:
    assert stored_energy(0, 100, AIR) == 0
    with pytest.raises(RuleError, match="no bulk modulus"):
        stored_energy(1, 100, Fluid("slurry", False, None))
