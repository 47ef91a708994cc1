"""Compounds against fluid, temperature and service: the table, read as it says."""

from __future__ import annotations

import pytest

from ironkettle.core.base.errors import RuleError
from ironkettle.core.sealing.compounds import Duty, Rating, find_compound, judge_compound, medium_of, rank_compounds
from ironkettle.reference import compounds, media

ALL = compounds()


def test_epdm_in_mineral_oil_is_refused_and_nbr_is_good() -> None:
    # compatibility.csv: mineral hydraulic oil: EPDM 4, NBR 1.
    bad = judge_compound(find_compound("EPDM", ALL), ["mineral_hydraulic_oil"], 0, 60, moving=False)
    assert (bad.worst, bad.verdict) == (Rating.DO_NOT_USE, "reject")
    assert "do not use" in bad.findings[0].message
    assert judge_compound(find_compound("nbr", ALL), ["mineral_hydraulic_oil"], 0, 60, moving=True).findings == ()


@pytest.mark.parametrize(
    ("name", "medium", "moving", "verdict"),
    [
        # compatibility.csv: FKM in water 2, VMQ in mineral oil 3.
        ("FKM", "water", False, "good"),
        ("FKM", "water", True, "caution"),
        ("VMQ", "mineral_hydraulic_oil", False, "caution"),
        ("VMQ", "mineral_hydraulic_oil", True, "reject"),
    ],
)
def test_fair_and_doubtful_weigh_more_where_it_moves(name: str, medium: str, moving: bool, verdict: str) -> None:
    assert judge_compound(find_compound(name, ALL), [medium], 0, 60, moving=moving).verdict == verdict


def test_temperatures_out_of_range_are_refused() -> None:
    nbr = find_compound("NBR", ALL)
    assert [f.code for f in judge_compound(nbr, ["water"], -40, 120, moving=False).findings] == ["too-hot", "too-cold"]


def test_ranking_puts_the_good_first_and_the_worst_medium_decides() -> None:
    ranked = rank_compounds(ALL, ["mineral_hydraulic_oil", "steam"], 0, 80, moving=False)
    order = {"good": 0, "caution": 1, "reject": 2}
    assert [order[a.verdict] for a in ranked] == sorted(order[a.verdict] for a in ranked)
    # Steam: NBR 4; PTFE stands both.
    assert ranked[0].compound.name == "PTFE"
    assert {a.compound.name: a.worst for a in ranked}["NBR"] is Rating.DO_NOT_USE


def test_breathing_service_wants_a_listed_batch() -> None:
    advice = judge_compound(find_compound("EPDM", ALL), ["dry_air"], 0, 40, moving=False, duty=Duty.BREATHING)
    assert advice.verdict == "caution"


def test_fluids_are_known_by_their_names() -> None:
    assert medium_of("mineral oil ISO VG 46", media()) == "mineral_hydraulic_oil"
    assert medium_of("water-glycol HFC", media()) == "water_glycol_hfc"
    assert medium_of("Silicone grease", media()) == "silicone_grease"
    with pytest.raises(RuleError, match="not a known medium"):
        medium_of("treacle", media())
    with pytest.raises(RuleError, match="not a known compound"):
        find_compound("cork", ALL)
    with pytest.raises(RuleError, match="above the highest"):
        rank_compounds(ALL, ["water"], 50, 20, moving=False)


def test_the_ends_of_the_temperature_range_are_inside_it() -> None:
    # compatibility.csv: NBR from −30 to 100 °C.
    nbr = find_compound("NBR", ALL)
    assert judge_compound(nbr, ["water"], -30, 100, moving=False).findings == ()
    assert [f.code for f in judge_compound(nbr, ["water"], -30, 100.1, moving=False).findings] == ["too-hot"]
    assert [f.code for f in judge_compound(nbr, ["water"], -30.1, 100, moving=False).findings] == ["too-cold"]


def test_one_temperature_is_a_range_and_an_upside_down_one_is_refused() -> None:
    assert rank_compounds(ALL, ["water"], 20, 20, moving=False)
    with pytest.raises(RuleError, match="above the highest"):
        rank_compounds(ALL, ["water"], 20.1, 20, moving=False)
