"""Where a groove may not be called good: what is not known, what turns, what is pressed from the other side."""

from __future__ import annotations

from dataclasses import replace

import pytest

from ironkettle.core.base.errors import RuleError
from ironkettle.core.base.housing import HousingMaterial
from ironkettle.core.base.quantities import Toleranced
from ironkettle.core.sealing.grooves import Gland, GlandTables, Motion, PressedFrom, Seat, check_gland
from ironkettle.core.sealing.grooves.check import GlandCheck
from ironkettle.core.sealing.grooves.extrusion import gap_of, growth_at
from ironkettle.core.sealing.rings.sizes import RingSize
from ironkettle.reference import extrusion_limits, gland_rows, ring_table

TABLES = GlandTables(extrusion_limits(), gland_rows())
# AS568-214, 0.984 × 0.139 in = 24.9936 × 3.5306 mm, on a piston: depth (31.75 − 25.90)/2 = 2.925 mm.
RING = ring_table().find("AS568", "214")
GLAND = Gland(
    seat=Seat.PISTON,
    bore=Toleranced(31.75),
    groove_diameter=Toleranced(25.90),
    groove_width=Toleranced(4.80),
    diametral_clearance=Toleranced(0.08),
    pressure=3.0,
)
UNCHECKED = replace(GLAND, diametral_clearance=None)


def check(gland: Gland, ring: RingSize = RING) -> GlandCheck:
    return check_gland(gland, ring, TABLES)


def codes(gland: Gland, ring: RingSize = RING) -> dict[str, str]:
    return {finding.code: finding.severity for finding in check(gland, ring).findings}


def test_nothing_is_good_while_the_gap_is_not_known() -> None:
    assert check(GLAND).verdict == "good"
    assert codes(UNCHECKED) == {"gap-unknown": "caution"}
    assert "give the clearance" in check(UNCHECKED).findings[0].message
    # Air lines: told, and no more.
    assert codes(replace(UNCHECKED, pressure=1.0)) == {"gap-unknown": "info"}
    assert codes(replace(UNCHECKED, pressure=1.01)) == {"gap-unknown": "caution"}


def test_above_the_table_a_backup_is_needed_whatever_the_gap() -> None:
    # extrusion_gap_mm.csv: 70 Shore ends at 10.5 MPa.
    at_the_end, above = replace(UNCHECKED, pressure=10.5), replace(UNCHECKED, pressure=10.6)
    assert not check(at_the_end).backup.needed
    assert check(above).backup.needed
    assert codes(above)["backup-missing"] == "reject"
    assert "whatever the gap" in next(
        finding.message for finding in check(above).findings if finding.code == "backup-missing"
    )
    fitted = replace(above, backup_rings_fitted=1, groove_width=Toleranced(6.6))
    assert codes(fitted)["gap-unknown"] == "caution"
    assert check(replace(fitted, diametral_clearance=Toleranced(0.08))).verdict == "good"


def test_a_soft_ring_at_low_pressure_in_a_close_gap_needs_none() -> None:
    gland = replace(GLAND, hardness_shore_a=60, pressure=0.2, diametral_clearance=Toleranced(0.02))
    assert not check(gland).backup.needed
    assert check(gland).verdict == "good"
    # By Gent E(60)/E(70) = 0.653: 70 Shore ends at 10.5 MPa, 60 Shore at 6.86.
    assert not check(replace(gland, pressure=6.8)).backup.needed
    assert check(replace(gland, pressure=6.9)).backup.needed


def test_no_gap_at_all_needs_no_backup_at_any_pressure() -> None:
    face = Gland(
        seat=Seat.FACE,
        groove_diameter=Toleranced(32.2),
        groove_width=Toleranced(4.8),
        groove_depth=Toleranced(2.75),
        diametral_clearance=Toleranced(0.0),
        pressure=35.0,
    )
    assert check(face).verdict == "good"
    assert codes(replace(face, diametral_clearance=None))["gap-unknown"] == "caution"
    assert not check(replace(face, diametral_clearance=None)).backup.needed


def test_a_turning_ring_is_held_against_its_worst() -> None:
    # 24.99 ±0.25 × 3.53 ±0.10 mm round a shaft, groove bottom 31.70: depth (31.70 − 24.5)/2 = 3.60 mm at least.
    shaft = Gland(
        seat=Seat.ROD,
        motion=Motion.ROTARY,
        rod=Toleranced(24.50),
        groove_diameter=Toleranced(31.30),
        groove_width=Toleranced(4.8),
    )
    assert check(shaft).squeeze_pct.nominal == pytest.approx((3.5306 - 3.40) / 3.5306 * 100)
    assert "squeeze-lost" not in codes(shaft)
    # The thinnest ring, 3.43 mm, in 3.45 mm of depth touches nothing.
    loose = replace(shaft, groove_diameter=Toleranced(31.40))
    assert check(loose).squeeze_pct.min < 0 < check(loose).squeeze_pct.nominal
    assert codes(loose)["squeeze-lost"] == "reject"
    # The smallest ring is 24.74 mm: a shaft of 24.74 leaves it unstretched, one of 24.80 does not.
    low = RING.inside_diameter - RING.inside_tolerance
    assert "stretch-rotary" not in codes(replace(shaft, rod=Toleranced(low)))
    assert codes(replace(shaft, rod=Toleranced(low + 0.06)))["stretch-rotary"] == "reject"


def test_a_face_ring_pressed_from_outside_rests_on_the_inner_wall() -> None:
    # Inner wall 25.4 mm: stretch (25.4 − 24.9936)/24.9936 = 1.626 %; on the outer wall the same ring would be 21 % off.
    face = Gland(
        seat=Seat.FACE,
        groove_diameter=Toleranced(25.4),
        groove_width=Toleranced(4.8),
        groove_depth=Toleranced(2.75),
        diametral_clearance=Toleranced(0.0),
        pressure=3.0,
        pressed_from=PressedFrom.OUTSIDE,
    )
    assert check(face).stretch_pct.nominal == pytest.approx(1.6260, abs=1e-3)
    assert check(face).seat_diameter == 25.4
    assert check(face).verdict == "good"
    assert check(replace(face, pressed_from=PressedFrom.INSIDE)).verdict == "reject"
    # A vacuum inside presses from outside.
    vacuum = replace(face, pressed_from=PressedFrom.INSIDE, pressure=-0.08)
    assert check(vacuum).stretch_pct == check(face).stretch_pct
    assert codes(replace(face, groove_diameter=Toleranced(24.5)))["loose"] == "reject"


def test_a_vacuum_presses_as_its_difference() -> None:
    limits = extrusion_limits()
    below, above = (gap_of(replace(GLAND, pressure=p), limits, 3.53) for p in (-0.09, 0.09))
    assert below == above


@pytest.mark.parametrize(
    ("gland", "field"),
    [
        (lambda: replace(GLAND, bore=Toleranced(26.0, 0.11, 0.0)), "groove_diameter"),
        (lambda: replace(GLAND, groove_diameter=Toleranced(31.0, 0.0, 0.75)), "groove_diameter"),
        (
            lambda: Gland(
                seat=Seat.ROD, rod=Toleranced(25, 0, 0.1), groove_diameter=Toleranced(25.1), groove_width=Toleranced(4)
            ),
            "groove_diameter",
        ),
        (
            lambda: Gland(
                seat=Seat.FACE,
                groove_depth=Toleranced(0.1, 0.1, 0.0),
                groove_diameter=Toleranced(32),
                groove_width=Toleranced(4),
            ),
            "groove_depth",
        ),
    ],
)
def test_a_groove_that_can_have_no_depth_is_refused(gland: object, field: str) -> None:
    with pytest.raises(RuleError) as caught:
        gland()  # type: ignore[operator]
    assert caught.value.faults[0].field == field
    assert "no depth at all" in caught.value.faults[0].message


def test_heat_opens_the_gap_of_a_housing_that_grows_more_than_steel() -> None:
    # 31.75 mm · (23.1 − 11.7)e-6 · 60 K = 0.0217 mm in aluminium; plastic 31.75 · 68.3e-6 · 60 = 0.130 mm.
    warm = replace(GLAND, temperature=80.0)
    assert growth_at(warm, 3.0) == 0.0
    assert growth_at(replace(warm, housing=HousingMaterial.ALUMINIUM), 3.0) == pytest.approx(0.02172, abs=1e-5)
    assert growth_at(replace(warm, housing=HousingMaterial.PLASTIC), 3.0) == pytest.approx(0.13011, abs=1e-5)
    # Cast iron grows less, and cold is no help either: the gap is not reckoned to close.
    assert growth_at(replace(warm, housing=HousingMaterial.CAST_IRON), 3.0) == 0.0
    assert growth_at(replace(GLAND, temperature=-20.0, housing=HousingMaterial.PLASTIC), 3.0) == 0.0


def test_a_ring_grows_by_its_compound() -> None:
    # At 120 °C, free section 3.53 · (1 + 100·α): NBR 120e-6 → 3.5724, FKM 160e-6 → 3.5865; loose on a large groove.
    loose = replace(GLAND, groove_diameter=Toleranced(24.0), temperature=120.0)
    ring = RingSize("metric", "test", 24.99, 0.0, 3.53, 0.0, "test")
    assert check(loose, ring).installed_section.nominal == pytest.approx(3.57236, abs=1e-4)
    assert check(replace(loose, material="FKM"), ring).installed_section.nominal == pytest.approx(3.58648, abs=1e-4)
    assert check(replace(loose, material="mystery"), ring).installed_section.nominal == pytest.approx(3.58648, abs=1e-4)


def test_limits_of_looseness_to_the_last_digit() -> None:
    # A still piston ring may be 1 % larger than its groove, a moving one not at all: 24.9936 mm on 24.743664.
    ring = RingSize("metric", "test", 25.0, 0.0, 3.53, 0.0, "test")
    at_one = replace(GLAND, groove_diameter=Toleranced(24.75), bore=Toleranced(30.5))
    assert check(at_one, ring).stretch_pct.nominal == -1.0
    assert "loose" not in codes(at_one, ring)
    assert codes(replace(at_one, groove_diameter=Toleranced(24.74)), ring)["loose"] == "reject"
    assert codes(replace(at_one, motion=Motion.RECIPROCATING), ring)["loose"] == "reject"
    assert "limit 1 %" in next(
        f.message for f in check(replace(at_one, groove_diameter=Toleranced(24.0)), ring).findings if f.code == "loose"
    )


def test_growth_is_told_only_where_there_is_some() -> None:
    assert "bore-growth" not in codes(GLAND)
    assert codes(replace(GLAND, wall=4.0))["bore-growth"] == "info"


def test_a_backup_is_overloaded_only_above_what_it_stands() -> None:
    # 0.15 mm, section 3.53: the 90 Shore row of 3.5 MPa allows 0.20, that of 7 MPa less; times 3.
    gap = gap_of(replace(GLAND, diametral_clearance=Toleranced(0.15)), extrusion_limits(), 3.53)
    assert gap is not None
    carried = replace(
        GLAND,
        diametral_clearance=Toleranced(0.15),
        backup_rings_fitted=1,
        groove_width=Toleranced(6.6),
        pressure=gap.safe_backed,
    )
    assert "backup-overloaded" not in codes(carried)
    assert codes(carried)["backup-present"] == "info"
    assert codes(replace(carried, pressure=gap.safe_backed + 0.1))["backup-overloaded"] == "caution"


def test_the_seat_of_a_face_ring_lies_two_sections_inside_its_wall() -> None:
    face = Gland(
        seat=Seat.FACE,
        groove_diameter=Toleranced(32.2),
        groove_width=Toleranced(4.8),
        groove_depth=Toleranced(2.75),
    )
    # 32.2 − 2 · 3.5306.
    assert check(face).seat_diameter == pytest.approx(25.1388)


def test_only_what_lies_below_the_air_is_a_vacuum() -> None:
    assert [check(replace(GLAND, pressure=p)).vacuum for p in (None, 0.0, 3.0, -0.001)] == [False, False, False, True]
