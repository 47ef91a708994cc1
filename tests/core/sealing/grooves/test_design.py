"""New groove: every proposal passes its own check, tolerances by ISO 286."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ironkettle.core.base.quantities import Toleranced
from ironkettle.core.sealing.grooves import (
    Gland,
    GlandTables,
    GrooveWish,
    Medium,
    Motion,
    Seat,
    check_gland,
    design_groove,
    tolerance_grade,
)
from ironkettle.core.sealing.rings import AS568
from ironkettle.reference import extrusion_limits, gland_rows, ring_table
from tests.laws import tried

TABLES = GlandTables(extrusion_limits(), gland_rows())


def test_tolerance_grades() -> None:
    # ISO 286-1, step 30 to 50 mm: IT8 0.039, IT9 0.062; at its geometric mean √(30·50) = 38.73 mm.
    assert tolerance_grade(38.73, 8) == pytest.approx(0.039, abs=5e-4)
    assert tolerance_grade(38.73, 9) == pytest.approx(0.062, abs=5e-4)


def test_a_static_piston_of_50_gets_the_inch_groove_of_its_row() -> None:
    wish = GrooveWish(Seat.PISTON, Toleranced(50, 0, 0.039), pressure=7.0)
    inch = next(p for p in design_groove(wish, ring_table(), TABLES, limit=10) if abs(p.ring.section - 3.53) < 0.01)
    assert inch.ring.series == AS568
    # gland_inch.csv, static radial 0.139: depth 0.111 to 0.113 in, so groove 50 − 2·2.845 = 44.31 ±0.05; width 4.75.
    assert inch.gland.groove_diameter.nominal == pytest.approx(44.31, abs=0.01)
    assert inch.gland.groove_width.nominal == pytest.approx(4.75, abs=0.01)
    # Corner radius of the same row: 0.010 to 0.025 in.
    assert inch.corner_radius == pytest.approx((0.010 * 25.4, 0.025 * 25.4))


@tried(25)
@given(
    across=st.floats(12, 240),
    seat=st.sampled_from(list(Seat)),
    motion=st.sampled_from([Motion.STATIC, Motion.RECIPROCATING]),
    medium=st.sampled_from(list(Medium)),
    pressure=st.floats(0.5, 25),
)
def test_every_proposal_stands_its_own_check(
    across: float, seat: Seat, motion: Motion, medium: Medium, pressure: float
) -> None:
    motion = Motion.STATIC if seat is Seat.FACE else motion
    wish = GrooveWish(seat, Toleranced(round(across, 1)), motion, medium, pressure)
    for proposal in design_groove(wish, ring_table(), TABLES):
        assert check_gland(proposal.gland, proposal.ring, TABLES) == proposal.check
        assert proposal.check.verdict != "reject"
        assert _across(proposal.gland) == wish.across.nominal


def _across(gland: Gland) -> float:
    across = {Seat.PISTON: gland.bore, Seat.ROD: gland.rod, Seat.FACE: gland.groove_diameter}[gland.seat]
    assert across is not None
    return across.nominal


def test_low_pressure_tightens_the_gap_instead_of_adding_a_backup() -> None:
    wish = GrooveWish(Seat.PISTON, Toleranced(32), Motion.RECIPROCATING, Medium.GAS, 1.0)
    best = design_groove(wish, ring_table(), TABLES)[0]
    assert best.gland.backup_rings_fitted == 0
    assert any("clearance" in text for text in best.assumed)
    high = design_groove(GrooveWish(Seat.PISTON, Toleranced(32), pressure=18.0), ring_table(), TABLES)[0]
    assert high.gland.backup_rings_fitted == 1


def test_a_turning_shaft_gets_a_ring_that_is_not_stretched() -> None:
    for proposal in design_groove(GrooveWish(Seat.ROD, Toleranced(20), Motion.ROTARY), ring_table(), TABLES):
        assert proposal.check.stretch_pct.nominal == 0.0


def test_widths_are_plus_only_and_corners_go_with_the_section() -> None:
    # gland_inch.csv: 0.187 in = 4.75 mm wide for 0.139 in, as handbooks have it +0.13/−0.
    inch = next(
        p
        for p in design_groove(GrooveWish(Seat.PISTON, Toleranced(50.0)), ring_table(), TABLES, limit=20)
        if p.ring.section == 3.5306
    )
    assert inch.gland.groove_width.nominal == pytest.approx(4.75, abs=0.01)
    assert (inch.gland.groove_width.minus, round(inch.gland.groove_width.plus, 2)) == (0.0, 0.13)
    corners = {
        p.ring.section: p.corner_radius
        for across in (20.0, 50.0, 120.0)
        for p in design_groove(GrooveWish(Seat.PISTON, Toleranced(across)), ring_table(), TABLES, limit=20)
        if p.ring.series == "ISO 3601"
    }
    assert corners == {
        1.80: (0.2, 0.4), 2.65: (0.2, 0.4), 3.55: (0.4, 0.8), 5.30: (0.4, 0.8), 7.00: (0.8, 1.2),
    }  # fmt: skip
