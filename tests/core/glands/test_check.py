"""Groove check: limits, findings, backup rings, and the table against itself."""

from __future__ import annotations

from dataclasses import replace

import pytest

from ironkettle.core.errors import RuleError
from ironkettle.core.glands import (
    Gland,
    GlandTables,
    Motion,
    PressureDirection,
    Seat,
    check_gland,
    fits_of,
)
from ironkettle.core.glands.backup import groove_width_for
from ironkettle.core.glands.extrusion import allowed_gap
from ironkettle.core.quantities import Toleranced
from ironkettle.core.rings import AS568, RingSize
from ironkettle.reference import extrusion_limits, gland_rows, ring_table

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


@pytest.mark.parametrize("row", gland_rows(), ids=lambda row: f"{row.use} {row.section / 25.4:.3f} in")
def test_each_row_of_the_inch_table_keeps_its_own_squeeze(row: object) -> None:
    """At the middle depth the squeeze of an unstretched ring lies in the row's stated range (gland_inch.csv)."""
    depth = (row.depth_min + row.depth_max) / 2  # type: ignore[attr-defined]
    ring = RingSize("measured", "", 50.0, 0.0, row.section, 0.0, "test")  # type: ignore[attr-defined]
    gland = Gland(Seat.ROD, Toleranced(50 + 2 * depth), Toleranced(row.width_no_backup), rod=Toleranced(50))  # type: ignore[attr-defined]
    squeeze = check_gland(gland, ring, TABLES).squeeze_pct.nominal
    assert row.squeeze_min - 0.6 <= squeeze <= row.squeeze_max + 0.6  # type: ignore[attr-defined]


def test_extrusion_table_is_read_to_the_careful_side() -> None:
    # extrusion_gap_mm.csv: 70 Shore, 7 MPa, section 3 to 5 mm: 0.08 mm. In between, the next higher pressure counts.
    limits = extrusion_limits()
    assert allowed_gap(limits, 70, 7.0, 3.53) == 0.08
    assert allowed_gap(limits, 70, 5.0, 3.53) == 0.08
    assert allowed_gap(limits, 80, 7.0, 3.53) == 0.08
    assert allowed_gap(limits, 90, 21.0, 1.8) == 0.03
    assert allowed_gap(limits, 70, 12.0, 3.53) is None
    assert allowed_gap(limits, 60, 1.0, 3.53) is None


def test_search_and_check_agree_for_every_size() -> None:
    fits, reasons = fits_of(GLAND, ring_table(), TABLES.limits)
    agreed = 0
    for size, fit, why in zip(ring_table().sizes, fits, reasons, strict=True):
        if fit:
            check = check_gland(GLAND, size, TABLES)
            nominal = {"squeeze", "stretch", "loose", "oversize"} & {f.code for f in check.findings}
            assert not nominal, (size.designation, check.findings)
            agreed += 1
        else:
            assert why
    assert agreed >= 5


def test_groove_width_grows_with_the_backups() -> None:
    widths = [groove_width_for(3.53, backups, Motion.STATIC, gland_rows()) for backups in (0, 1, 2)]
    assert widths == pytest.approx([0.187 * 25.4, 0.208 * 25.4, 0.275 * 25.4], abs=0.02)


def test_a_seat_without_its_dimension_is_refused() -> None:
    with pytest.raises(RuleError, match="is needed for a rod seat"):
        Gland(Seat.ROD, Toleranced(30), Toleranced(4))
    with pytest.raises(RuleError, match="smaller than the bore"):
        Gland(Seat.PISTON, Toleranced(60), Toleranced(4), bore=Toleranced(50))
    with pytest.raises(RuleError, match="larger than the rod"):
        Gland(Seat.ROD, Toleranced(20), Toleranced(4), rod=Toleranced(25))
