"""Groove check: limits, findings, backup rings, and the table against itself."""

from __future__ import annotations

from dataclasses import replace

import pytest

from ironkettle.core.base.errors import RuleError
from ironkettle.core.base.quantities import Toleranced
from ironkettle.core.sealing.grooves import (
    Gland,
    GlandTables,
    GrooveLimits,
    Motion,
    PressureDirection,
    Seat,
    check_gland,
    check_rings,
)
from ironkettle.core.sealing.grooves.model import Band
from ironkettle.core.sealing.rings import AS568, RingSize
from ironkettle.reference import compounds, extrusion_limits, gland_rows, ring_table

TABLES = GlandTables(extrusion_limits(), gland_rows())
RING = ring_table().find(AS568, "224")
GLAND = Gland(
    Seat.PISTON,
    Toleranced(44.4, 0.06, 0.0),
    Toleranced(5.4, 0.0, 0.2),
    bore=Toleranced(50, 0.0, 0.039),
    diametral_clearance=Toleranced(0.10, 0.04, 0.04),
    pressure=18.0,
    backup_rings_fitted=1,
)


def codes(gland: Gland, ring: RingSize = RING) -> set[str]:
    return {finding.code for finding in check_gland(gland, ring, TABLES).findings}


def test_a_sound_gland_is_good() -> None:
    check = check_gland(GLAND, RING, TABLES)
    assert check.verdict == "good"
    assert check.gap is not None
    assert check.gap.worst == pytest.approx(0.14)
    assert check.gap.concentric == pytest.approx(0.05)


def test_a_missing_backup_is_caught_by_pressure() -> None:
    bare = check_gland(replace(GLAND, backup_rings_fitted=0), RING, TABLES)
    assert bare.verdict == "reject"
    assert bare.backup.count == 1
    assert bare.backup.sides == ("side away from pressure",)
    # gland_inch.csv, section 0.139 in with one backup: 0.208 in = 5.28 mm.
    assert bare.backup.groove_width_needed == pytest.approx(0.208 * 25.4)
    assert "backup-missing" in codes(replace(GLAND, backup_rings_fitted=0))


def test_pressure_from_both_sides_wants_two() -> None:
    both = replace(GLAND, pressure_direction=PressureDirection.BOTH_SIDES)
    assert check_gland(both, RING, TABLES).backup.count == 2
    assert {"backup-missing", "groove-narrow"} <= codes(both)


def test_low_pressure_and_a_close_gap_need_none() -> None:
    calm = replace(GLAND, pressure=3.0, diametral_clearance=Toleranced(0.08), backup_rings_fitted=0)
    assert check_gland(calm, RING, TABLES).backup.needed is False
    assert codes(replace(GLAND, diametral_clearance=None)) == {"gap-unknown"}


@pytest.mark.parametrize(
    ("gland", "code"),
    [
        (replace(GLAND, groove_diameter=Toleranced(43.0)), "squeeze"),
        (replace(GLAND, groove_diameter=Toleranced(47.0)), "stretch"),
        (replace(GLAND, groove_width=Toleranced(3.4)), "fill-worst"),
        (replace(GLAND, groove_width=Toleranced(4.0)), "fill"),
        (replace(GLAND, motion=Motion.ROTARY), "squeeze"),
        (replace(GLAND, bore=Toleranced(50, 0, 0.6)), "squeeze-worst"),
        (replace(GLAND, groove_diameter=Toleranced(43.4), bore=Toleranced(49)), "loose"),
    ],
)
def test_each_limit_is_named(gland: Gland, code: str) -> None:
    assert code in codes(gland)


def test_a_rod_ring_too_large_for_its_groove_buckles() -> None:
    gland = Gland(Seat.ROD, Toleranced(25.4), Toleranced(4.8), rod=Toleranced(20))
    big = RingSize("measured", "", 22.0, 0.0, 3.2, 0.0, "test")
    assert "oversize" in codes(gland, big)
    turning = Gland(Seat.ROD, Toleranced(26.8), Toleranced(4.8), rod=Toleranced(20.5), motion=Motion.ROTARY)
    assert "stretch-rotary" in codes(turning, RingSize("measured", "", 20.0, 0.0, 3.3, 0.0, "test")) | codes(
        turning, RingSize("measured", "", 20.0, 0.0, 3.4, 0.0, "test")
    )


def test_a_face_ring_smaller_than_its_wall_is_cautioned() -> None:
    gland = Gland(Seat.FACE, Toleranced(40.0), Toleranced(4.8), groove_depth=Toleranced(2.8))
    assert "face-small" in codes(gland, RingSize("measured", "", 30.0, 0.0, 3.53, 0.0, "test"))


def test_several_at_once_are_as_one_by_one() -> None:
    rings = [ring_table().find(AS568, dash) for dash in ("222", "223", "224", "225")]
    assert check_rings(GLAND, rings, TABLES) == [check_gland(GLAND, ring, TABLES) for ring in rings]
    assert check_rings(GLAND, [], TABLES) == []


def test_limits_of_the_shop_decide_and_are_named() -> None:
    strict = replace(TABLES, limits=GrooveLimits(squeeze_static=Band(22, 30)))
    check = check_gland(GLAND, RING, strict)
    assert check.verdict == "reject"
    finding = next(f for f in check.findings if f.code == "squeeze")
    assert "22 to 30 %" in finding.message
    assert "changed by this shop" in finding.basis
    assert (check.squeeze_band.low, check.squeeze_band.high) == (22, 30)


def test_a_compound_out_of_its_temperatures_is_refused() -> None:
    tables = replace(TABLES, compounds=compounds())
    # compatibility.csv: NBR -30 to 100 °C.
    hot = check_gland(replace(GLAND, temperature=120.0), RING, tables)
    assert "temperature" in {f.code for f in hot.findings}
    assert "temperature" not in {f.code for f in check_gland(GLAND, RING, tables).findings}
    other = check_gland(replace(GLAND, material="cork"), RING, tables)
    assert "material-unknown" in {f.code for f in other.findings}


def test_a_seat_without_its_dimension_is_refused() -> None:
    with pytest.raises(RuleError, match="is needed for a rod seat"):
        Gland(Seat.ROD, Toleranced(30), Toleranced(4))
    with pytest.raises(RuleError, match="smaller than the bore"):
        Gland(Seat.PISTON, Toleranced(60), Toleranced(4), bore=Toleranced(50))
    with pytest.raises(RuleError, match="larger than the rod"):
        Gland(Seat.ROD, Toleranced(20), Toleranced(4), rod=Toleranced(25))
