"""Backup rings: the groove they need, and which kind."""

from __future__ import annotations

from dataclasses import replace

import pytest

from ironkettle.core.base.quantities import Toleranced
from ironkettle.core.sealing.grooves import Gland, GlandTables, Motion, Seat, check_gland
from ironkettle.core.sealing.grooves.backup import BackupKind, groove_width_for
from ironkettle.core.sealing.rings import AS568
from ironkettle.reference import extrusion_limits, gland_rows, ring_table

TABLES = GlandTables(extrusion_limits(), gland_rows())
PISTON = Gland(
    Seat.PISTON,
    Toleranced(44.4),
    Toleranced(5.4),
    bore=Toleranced(50),
    diametral_clearance=Toleranced(0.10),
    pressure=18.0,
)
RING = ring_table().find(AS568, "224")


def test_groove_width_grows_with_the_backups() -> None:
    widths = [groove_width_for(3.53, backups, Motion.STATIC, gland_rows()) for backups in (0, 1, 2)]
    assert widths == pytest.approx([0.187 * 25.4, 0.208 * 25.4, 0.275 * 25.4], abs=0.02)


@pytest.mark.parametrize(
    ("gland", "kind"),
    [
        (PISTON, BackupKind.SOLID),
        (replace(PISTON, motion=Motion.RECIPROCATING), BackupKind.CONTOURED),
        (replace(PISTON, seat=Seat.ROD, rod=Toleranced(44.4), groove_diameter=Toleranced(50.0)), BackupKind.SPLIT),
        (
            replace(PISTON, seat=Seat.ROD, rod=Toleranced(44.4), groove_diameter=Toleranced(50.0), pressure=30.0),
            BackupKind.SOLID,
        ),
    ],
)
def test_the_kind_goes_by_motion_pressure_and_way_in(gland: Gland, kind: BackupKind) -> None:
    advice = check_gland(gland, RING, TABLES).backup
    assert advice.kind is kind
    assert advice.why_kind


def test_a_backup_over_its_pressure_is_cautioned() -> None:
    # Gap 0.14 mm, section 3.53: 90 Shore stands 7 MPa there, a backup by the shop's factor 21 MPa.
    gland = replace(PISTON, diametral_clearance=Toleranced(0.14), backup_rings_fitted=1)
    assert "backup-present" in {f.code for f in check_gland(gland, RING, TABLES).findings}
    over = check_gland(replace(gland, pressure=25.0), RING, TABLES)
    assert "backup-overloaded" in {f.code for f in over.findings}
    assert over.gap is not None
    assert over.gap.safe_backed == 21.0
