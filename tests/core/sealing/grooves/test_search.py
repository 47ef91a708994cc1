"""Sizes for a groove: the fitting ones first, the near ones with their reasons."""

from __future__ import annotations

from hypothesis import given
from hypothesis import strategies as st

from ironkettle.core.base.quantities import Toleranced
from ironkettle.core.sealing.grooves import Gland, GlandTables, Seat, check_gland, search_rings
from ironkettle.core.sealing.rings import AS568
from ironkettle.reference import extrusion_limits, gland_rows, ring_table
from tests.laws import tried

TABLES = GlandTables(extrusion_limits(), gland_rows())


def test_the_groove_made_for_a_size_gets_it() -> None:
    # gland_inch.csv, static radial, section 0.139 in: depth 0.112 in; AS568-224 is 1.734 in inside.
    groove = 1.734 * 25.4 * 1.02
    gland = Gland(Seat.PISTON, Toleranced(groove), Toleranced(0.187 * 25.4), bore=Toleranced(groove + 2 * 0.112 * 25.4))
    found = search_rings(gland, ring_table(), TABLES)
    assert (AS568, "224") in [(fit.size.series, fit.size.designation) for fit in found.fits]
    assert [fit.check.verdict for fit in found.fits] == sorted(
        (fit.check.verdict for fit in found.fits), key=["good", "caution", "reject"].index
    )


def test_a_groove_for_nothing_says_why() -> None:
    gland = Gland(Seat.ROD, Toleranced(20.3), Toleranced(1.0), rod=Toleranced(20))
    found = search_rings(gland, ring_table(), TABLES)
    assert found.fits == ()
    assert all(miss.reasons for miss in found.near)


@tried(25)
@given(groove=st.floats(10, 200), depth=st.floats(1.2, 5.5), width=st.floats(1.3, 1.6))
def test_every_size_offered_passes_its_own_check(groove: float, depth: float, width: float) -> None:
    gland = Gland(Seat.PISTON, Toleranced(groove), Toleranced(depth * width), bore=Toleranced(groove + 2 * depth))
    for fit in search_rings(gland, ring_table(), TABLES).fits:
        assert check_gland(gland, fit.size, TABLES) == fit.check
        assert fit.check.verdict != "reject"
