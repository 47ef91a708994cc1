"""Thirty grooves worked apart from the code, and each row of the inch table at its own middle.

The thirty were worked with the formulas of volume conservation, stretch, squeeze and fill, the cubic
d₂'²·(D + d₂') = d₂²·(d₁ + d₂) by halving the interval instead of Newton's method, to four digits.
Columns: seat, bore or rod or depth, groove diameter, width, d₁, d₂, then depth, installed section [mm],
squeeze, stretch and fill [%].
"""

from __future__ import annotations

import pytest

from ironkettle.core.base.quantities import Toleranced
from ironkettle.core.sealing.grooves import Gland, GlandTables, Motion, Seat, check_gland
from ironkettle.core.sealing.rings import RingSize
from ironkettle.reference import extrusion_limits, gland_rows

TABLES = GlandTables(extrusion_limits(), gland_rows())
Case = tuple[str, float, float, float, float, float, float, float, float, float, float]
CASES: list[Case] = [
    ("piston", 31.75, 25.9, 4.8, 24.99, 3.53, 2.925, 3.4781, 15.90, 3.64, 67.67),
    ("piston", 50, 44.4, 5.4, 44.04, 3.53, 2.800, 3.5172, 20.39, 0.82, 64.26),
    ("piston", 20, 17.1, 2.5, 17.0, 1.8, 1.450, 1.7954, 19.24, 0.59, 69.84),
    ("piston", 25, 20.9, 3.6, 20.35, 2.62, 2.050, 2.5908, 20.87, 2.70, 71.43),
    ("piston", 40, 35.7, 3.6, 34.59, 2.62, 2.150, 2.5830, 16.76, 3.21, 67.70),
    ("piston", 63, 57.3, 4.8, 56.74, 3.53, 2.850, 3.5142, 18.90, 0.99, 70.90),
    ("piston", 80, 71.3, 7.2, 69.44, 5.33, 4.350, 5.2671, 17.41, 2.68, 69.57),
    ("piston", 100, 91.4, 7.2, 88.49, 5.33, 4.300, 5.2513, 18.12, 3.29, 69.96),
    ("piston", 125, 113.4, 9.5, 113.67, 6.99, 5.800, 6.9900, 17.02, -0.24, 69.65),
    ("piston", 16, 13.2, 2.4, 12.42, 1.78, 1.400, 1.7356, 19.34, 6.28, 70.41),
    ("rod", 20, 23, 2.4, 20, 1.8, 1.500, 1.8000, 16.67, 0.00, 70.69),
    ("rod", 12, 14.9, 2.5, 12.0, 1.8, 1.450, 1.8000, 19.44, 0.00, 70.20),
    ("rod", 28, 32.4, 3.6, 28.0, 2.65, 2.200, 2.6500, 16.98, 0.00, 69.64),
    ("rod", 36, 42.1, 4.8, 35.5, 3.55, 3.050, 3.5285, 13.56, 1.41, 66.79),
    ("rod", 45, 51.2, 4.8, 45.0, 3.55, 3.100, 3.5500, 12.68, 0.00, 66.52),
    ("rod", 56, 65.4, 7.2, 56.0, 5.3, 4.700, 5.3000, 11.32, 0.00, 65.19),
    ("rod", 70, 79.6, 7.2, 69.0, 5.3, 4.800, 5.2659, 8.85, 1.45, 63.02),
    ("rod", 90, 102.2, 9.5, 87.5, 7.0, 6.100, 6.9123, 11.75, 2.86, 64.76),
    ("rod", 10, 12.7, 2.4, 9.5, 1.8, 1.350, 1.7641, 23.48, 5.26, 75.44),
    ("rod", 25, 29.5, 3.6, 24.3, 2.65, 2.250, 2.6178, 14.05, 2.88, 66.45),
    ("face", 2.8, 32, 4.5, 25.0, 3.53, 2.800, 3.5300, 20.68, 0.00, 77.67),
    ("face", 2.65, 40, 4.8, 32.99, 3.53, 2.650, 3.5300, 24.93, 0.00, 76.94),
    ("face", 1.3, 50, 2.6, 46.0, 1.8, 1.300, 1.7927, 27.48, 0.87, 74.67),
    ("face", 2.0, 60, 3.5, 54.5, 2.65, 2.000, 2.6455, 24.40, 0.37, 78.52),
    ("face", 4.0, 75, 7.0, 63.0, 5.3, 4.000, 5.2484, 23.79, 2.22, 77.27),
    ("face", 1.35, 20, 2.4, 16.0, 1.8, 1.350, 1.7810, 24.20, 2.50, 76.89),
    ("face", 4.2, 100, 7.2, 88.49, 5.33, 4.200, 5.3067, 20.85, 0.96, 73.14),
    ("face", 5.3, 140, 9.0, 125.0, 7.0, 5.300, 6.9743, 24.01, 0.80, 80.09),
    ("face", 1.95, 26, 3.5, 20.29, 2.62, 1.950, 2.5949, 24.85, 2.32, 77.49),
    ("face", 2.7, 85, 4.8, 78.0, 3.55, 2.700, 3.5500, 23.94, 0.00, 76.37),
]


def ring(d1: float, d2: float) -> RingSize:
    return RingSize("measured", "", d1, 0.0, d2, 0.0, "test")


def gland(seat: str, across: float, groove: float, width: float, **options: object) -> Gland:
    name = {"piston": "bore", "rod": "rod", "face": "groove_depth"}[seat]
    dimensions = {name: Toleranced(across)}
    return Gland(Seat(seat), Toleranced(groove), Toleranced(width), **dimensions, **options)  # type: ignore[arg-type]


@pytest.mark.parametrize("case", CASES, ids=lambda case: f"{case[0]} {case[2]} x {case[5]}")
def test_worked_apart(case: Case) -> None:
    seat, across, groove, width, d1, d2, depth, section, squeeze, stretch, fill = case
    check = check_gland(gland(seat, across, groove, width), ring(d1, d2), TABLES)
    assert check.depth == pytest.approx(depth, abs=6e-4)
    assert check.installed_section.nominal == pytest.approx(section, abs=6e-5)
    assert check.squeeze_pct.nominal == pytest.approx(squeeze, abs=6e-3)
    assert check.stretch_pct.nominal == pytest.approx(stretch, abs=6e-3)
    assert check.fill_pct.nominal == pytest.approx(fill, abs=6e-3)
    # Without tolerances the worst case is the nominal one.
    assert (check.squeeze_pct.min, check.squeeze_pct.max) == pytest.approx((check.squeeze_pct.nominal,) * 2)


@pytest.mark.parametrize("row", gland_rows(), ids=lambda row: f"{row.use} {row.section / 25.4:.3f} in")
def test_each_row_of_the_inch_table_keeps_its_own_squeeze(row: object) -> None:
    """At the middle depth an unstretched ring is squeezed as the row says (gland_inch.csv, whole per cent)."""
    depth = (row.depth_min + row.depth_max) / 2  # type: ignore[attr-defined]
    seat = gland("rod", 50, 50 + 2 * depth, row.width_no_backup)  # type: ignore[attr-defined]
    if row.use == "face_liquid":  # type: ignore[attr-defined]
        seat = gland("face", depth, 50 + 2 * row.section, row.width_no_backup)  # type: ignore[attr-defined]
    check = check_gland(seat, ring(50.0, row.section), TABLES)  # type: ignore[attr-defined]
    assert row.squeeze_min - 0.6 <= check.squeeze_pct.nominal <= row.squeeze_max + 0.6  # type: ignore[attr-defined]
    assert check.fill_pct.nominal <= TABLES.limits.fill_nominal_max


def test_a_moving_row_is_no_tighter_than_its_static_one() -> None:
    depths = {(r.use, r.section): r.depth_min for r in gland_rows()}
    for row in gland_rows():
        if row.use == "reciprocating":
            assert depths["static_radial", row.section] <= row.depth_min


def test_a_turning_shaft_takes_no_stretch() -> None:
    turning = gland("rod", 20.5, 26.8, 4.8, motion=Motion.ROTARY)
    codes = {f.code for f in check_gland(turning, ring(20.0, 3.3), TABLES).findings}
    assert "stretch-rotary" in codes
