"""All sizes against one gland at once: in step with the full check."""

from __future__ import annotations

import pytest

from ironkettle.core.base.quantities import Toleranced
from ironkettle.core.sealing.grooves import Gland, GlandTables, Motion, Seat, check_gland, sift_rings
from ironkettle.reference import extrusion_limits, gland_rows, ring_table

TABLES = GlandTables(extrusion_limits(), gland_rows())
TABLE = ring_table()
GLANDS = [
    Gland(Seat.PISTON, Toleranced(44.4), Toleranced(5.4), bore=Toleranced(50)),
    Gland(Seat.ROD, Toleranced(42.1), Toleranced(4.8), rod=Toleranced(36), motion=Motion.RECIPROCATING),
    Gland(Seat.FACE, Toleranced(40), Toleranced(4.8), groove_depth=Toleranced(2.65)),
    Gland(Seat.ROD, Toleranced(25), Toleranced(3.6), rod=Toleranced(20), motion=Motion.ROTARY),
]
NOMINAL = {"squeeze", "stretch", "stretch-rotary", "loose", "oversize"}


@pytest.mark.parametrize("gland", GLANDS, ids=lambda gland: f"{gland.seat} {gland.motion}")
def test_sift_and_check_agree_for_every_size_near_the_groove(gland: Gland) -> None:
    sifted = sift_rings(gland, TABLE, TABLES.limits)
    agreed = 0
    for place, size in enumerate(TABLE.sizes):
        if sifted.misfit[place] > 6:
            assert sifted.reasons(place)
            continue
        codes = {f.code for f in check_gland(gland, size, TABLES).findings} & NOMINAL
        if sifted.fits[place]:
            # A shaft that turns is held against the worst tolerances, the sieve looks at the nominal ones.
            assert not codes - ({"stretch-rotary"} if gland.motion is Motion.ROTARY else set()), (size.label, codes)
            assert sifted.reasons(place) == ()
            agreed += 1
        else:
            assert sifted.reasons(place), size.label
    assert agreed >= 2


def test_misfit_grows_with_the_distance_from_the_limit() -> None:
    gland = GLANDS[0]
    sifted = sift_rings(gland, TABLE, TABLES.limits)
    stretch = sifted.figures.stretch * 100
    far = [p for p, s in enumerate(TABLE.sizes) if s.section == 3.55 and stretch[p] > 5]
    by_stretch = sorted(far, key=lambda p: stretch[p])
    assert [sifted.misfit[p] for p in by_stretch] == sorted(sifted.misfit[p] for p in by_stretch)


def test_reasons_are_told_in_per_cent() -> None:
    """By hand: 3.53 in 2.6 mm of depth and 3.0 mm of width fills π/4·3.53²/7.8 = 125 %."""
    gland = Gland(Seat.PISTON, Toleranced(44.0), Toleranced(3.0), bore=Toleranced(49.2))
    place = next(i for i, size in enumerate(TABLE.sizes) if size.label == "AS568 224")
    assert any(
        "fills 12" in reason and "limit 100 %" in reason
        for reason in sift_rings(gland, TABLE, TABLES.limits).reasons(place)
    )
