"""Causes against the classical pictures of seal failure (as common handbooks show them), and the laws of the weighing."""

from __future__ import annotations

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ironkettle.core.base.quantities import read_toleranced_length
from ironkettle.core.sealing.catalogue import KINDS, ElementKind
from ironkettle.core.sealing.compounds import Lubricant
from ironkettle.core.sealing.failures import Cause, Circumstances, Diagnosed, Faced, Sign, Weight, diagnose
from ironkettle.core.sealing.grooves import Gland, GlandCheck, Medium, Motion, Seat, check_gland
from ironkettle.reference import compounds, failure_table, ring_table, shipped_tables
from tests.laws import tried

TABLE = failure_table()
NBR = next(one for one in compounds() if one.name == "NBR")


def causes(element: str, *signs: str, **known: object) -> dict[str, Diagnosed]:
    told = Circumstances(ElementKind(element), tuple(Sign(sign) for sign in signs), **known)  # type: ignore[arg-type]
    return {one.cause.value: one for one in diagnose(told, TABLE)}


def first(element: str, *signs: str, **known: object) -> str:
    return next(iter(causes(element, *signs, **known)))


def gland(clearance: str, *, backups: int = 0, pressure: float = 21.0) -> tuple[Gland, GlandCheck]:
    """A 214 ring on a piston of 31.75 mm, 25.9 mm groove: the example of the published groove tables."""
    place = Gland(
        Seat.PISTON,
        read_toleranced_length("25.90 mm", "groove_diameter"),
        read_toleranced_length("7.20 mm", "groove_width"),
        Motion.RECIPROCATING,
        bore=read_toleranced_length("31.75 mm", "bore"),
        diametral_clearance=read_toleranced_length(clearance, "clearance"),
        pressure=pressure,
        backup_rings_fitted=backups,
    )
    return place, check_gland(place, ring_table().find("AS568", "214"), shipped_tables().glands)


@pytest.mark.parametrize(
    ("element", "motion", "sign", "cause"),
    [
        ("o_ring", "reciprocating", "nibbled_low_side", "extrusion"),
        ("o_ring", "static", "flat_both_sides", "compression_set"),
        ("o_ring", "static", "soft_swollen", "chemical_swell"),
        ("o_ring", "static", "shrunk", "shrinkage"),
        ("o_ring", "reciprocating", "spiral_cuts", "twist"),
        ("o_ring", "static", "cut_at_fitting", "fitting_damage"),
        ("o_ring", "static", "blistered", "rapid_decompression"),
        ("lip_seal", "reciprocating", "worn_one_side", "side_load"),
        ("lip_seal", "reciprocating", "scored_along", "dirt"),
        ("lip_seal", "reciprocating", "lip_torn", "fitting_damage"),
        ("lip_seal", "reciprocating", "lip_folded", "fitting_damage"),
        ("lip_seal", "reciprocating", "reversed", "reversed"),
        ("slide_ring", "reciprocating", "energiser_spoiled", "energiser_fault"),
        ("energiser", "reciprocating", "energiser_spoiled", "energiser_fault"),
        ("wiper", "reciprocating", "rust_behind", "wiper_failure"),
        ("wiper", "reciprocating", "dirt_embedded", "dirt"),
        ("shaft_seal", "rotary", "glazed", "dry_running"),
        ("lip_seal", "reciprocating", "burnt", "dieseling"),
    ],
)
def test_one_sign_points_where_the_classical_picture_does(element: str, motion: str, sign: str, cause: str) -> None:
    found = causes(element, sign, motion=motion)
    ranked = list(found)
    assert ranked[0] == cause, [(key, round(one.share, 2)) for key, one in found.items()][:4]
    assert any("strong evidence for it" in text for text in found[cause].speaks_for)


def test_hard_and_cracked_is_heat_or_age_and_a_fact_decides() -> None:
    assert set(list(causes("o_ring", "hard_cracked"))[:2]) == {"heat", "old_age"}
    assert first("o_ring", "hard_cracked", years=12.0) == "old_age"
    assert first("o_ring", "hard_cracked", compound=NBR, temperature=130.0) == "heat"


def test_two_signs_are_more_than_one() -> None:
    one = causes("wiper", "rust_behind")["wiper_failure"].share
    two = causes("wiper", "rust_behind", "dirt_embedded")["wiper_failure"].share
    alone = causes("wiper", "dirt_embedded")["wiper_failure"].share
    assert two > alone
    assert one > 0.6


def test_sign_against_sum_a_gap_within_its_limit_speaks_against_extrusion() -> None:
    tight, wide = gland("0.04 mm", pressure=5.0), gland("0.60 mm")
    seen = causes("o_ring", "nibbled_low_side")["extrusion"].share
    with_gap = causes("o_ring", "nibbled_low_side", gland=wide[0], check=wide[1])
    without = causes("o_ring", "nibbled_low_side", gland=tight[0], check=tight[1])
    assert without["extrusion"].share < seen < with_gap["extrusion"].share + with_gap["missing_backup"].share
    assert without["extrusion"].speaks_against[0].startswith("gap 0.04 mm at worst")
    # A clearance of 0.60 mm all on one side is a gap of 0.60 mm; the table has no line for 70 Shore A at 210 bar.
    assert "gap 0.60 mm at worst" in with_gap["extrusion"].speaks_for[1]
    assert "1 backup ring wanted, 0 fitted" in with_gap["missing_backup"].speaks_for


def test_a_fitted_backup_speaks_against_its_missing() -> None:
    bare, backed = gland("0.30 mm"), gland("0.30 mm", backups=1)
    lacking = causes("o_ring", "nibbled_low_side", gland=bare[0], check=bare[1])["missing_backup"]
    there = causes("o_ring", "nibbled_low_side", gland=backed[0], check=backed[1])["missing_backup"]
    assert there.share < lacking.share / 5
    assert there.speaks_against == ("1 fitted, as many as are wanted",)
    missing = causes("o_ring", backup_missing=True)
    assert next(iter(missing)) == "missing_backup"


def test_reversed_is_said_without_being_asked() -> None:
    turned = Faced("outside", "rod_side", "open air", "rod side")
    right = Faced("rod_side", "rod_side", "rod side", "rod side")
    assert first("lip_seal", faced=turned) == "reversed"
    assert causes("lip_seal", faced=turned)["reversed"].share > 0.8
    assert "it faced open air and must face rod side" in causes("lip_seal", faced=turned)["reversed"].speaks_for
    assert causes("lip_seal", "lip_folded", faced=right)["reversed"].share < 0.02


def test_the_fluid_and_the_compound_decide_on_swelling() -> None:
    # NBR is rated 4, do not use, in brake fluid, and 1, good, in mineral oil (compatibility table).
    bad = causes("o_ring", compound=NBR, medium="glycol_brake_fluid")["chemical_swell"]
    good = causes("o_ring", compound=NBR, medium="mineral_hydraulic_oil")["chemical_swell"]
    unknown = causes("o_ring")["chemical_swell"]
    assert good.share < unknown.share < bad.share
    assert bad.speaks_for == ("NBR does not resist glycol brake fluid",)
    assert "change_compound" in [correction.key for correction in bad.corrections]


@pytest.mark.parametrize(
    ("temperature", "word"),
    [
        (60.0, "60 °C: NBR"),
        (85.0, "85 °C: NBR"),
        (85.1, "near its limit"),
        (100.0, "near its limit"),
        (100.1, "100.1 °C: NBR"),
    ],
)
def test_heat_is_held_against_the_compound(temperature: float, word: str) -> None:
    found = causes("o_ring", compound=NBR, temperature=temperature)["heat"]
    # NBR is for up to 100 °C; within 15 K of that it is near its limit.
    assert word in " ".join((*found.speaks_for, *found.speaks_against))
    assert bool(found.speaks_for) == (temperature > 85)


def test_a_ring_too_small_or_too_large_is_seen_in_its_sums() -> None:
    place, _ = gland("0.10 mm")
    small = check_gland(place, ring_table().find("AS568", "114"), shipped_tables().glands)
    large = check_gland(place, ring_table().find("AS568", "318"), shipped_tables().glands)
    # 114 has a section of 2.62 mm in a groove 2.93 mm deep; 318 has one of 5.33 mm.
    bare = causes("o_ring")
    told = causes("o_ring", gland=place, check=small)["too_small"]
    assert told.share > 2 * bare["too_small"].share
    assert told.speaks_for[0].startswith("squeeze")
    told = causes("o_ring", gland=place, check=large)["too_large"]
    assert told.share > 2 * bare["too_large"].share
    assert "% of the groove at worst" in told.speaks_for[0]


def test_gas_let_off_tears_rubber_and_liquid_does_not() -> None:
    place, check = gland("0.10 mm", pressure=20.0)
    gas = replace(place, medium=Medium.GAS)
    known = causes("o_ring", "blistered", gland=gas, check=check)["rapid_decompression"]
    assert known.speaks_for[-1] == "gas at 200 bar"
    assert causes("o_ring", "blistered", gas=False)["rapid_decompression"].share < 0.3
    low = causes("o_ring", gas=True, pressure=0.8)["rapid_decompression"]
    assert low.speaks_against == ("gas at 8 bar: rarely below 35 bar",)


@pytest.mark.parametrize(("medium", "against"), [("water", True), ("mineral_hydraulic_oil", False), ("diesel", False)])
def test_only_what_burns_can_diesel(medium: str, against: bool) -> None:
    assert bool(causes("lip_seal", medium=medium)["dieseling"].speaks_against) is against


@pytest.mark.parametrize(
    ("known", "cause", "more"),
    [
        ({"speed": 0.5}, "dry_running", None),
        ({"speed": 0.6}, "dry_running", True),
        ({"speed": 0.0}, "dry_running", False),
        ({"years": 0.9}, "old_age", False),
        ({"years": 1.0}, "old_age", None),
        ({"years": 5.0}, "old_age", True),
        ({"years": 10.0}, "old_age", True),
    ],
)
def test_use_speaks_for_age_and_dryness(known: dict[str, float], cause: str, more: bool | None) -> None:
    share, told = causes("lip_seal")[cause].share, causes("lip_seal", **known)[cause].share
    assert (told > share if more else told < share) if more is not None else told == pytest.approx(share)


def test_the_causes_of_a_still_ring_are_not_those_of_a_moving_one() -> None:
    still, moving = causes("o_ring", motion="static"), causes("o_ring", motion="reciprocating")
    assert still["twist"].share < moving["twist"].share / 5
    assert still["compression_set"].share > moving["compression_set"].share


def test_every_sign_and_cause_is_told_and_can_be_put_right() -> None:
    assert set(TABLE.signs) == set(Sign)
    assert set(TABLE.causes) == set(Cause)
    assert set(KINDS) == set(ElementKind)
    for sign, facts in TABLE.signs.items():
        speaks = [cause for cause, weight in facts.weights.items() if weight.ratio > 1]
        assert bool(speaks) is (sign is not Sign.NONE), sign
    for facts in TABLE.causes.values():
        assert facts.corrections
        assert facts.customer.endswith(".")
        assert {correction.when for correction in facts.corrections} <= {"inspect", "kit", "rebuild", "fit", "release"}
    keys = [correction.key for cause in TABLE.causes.values() for correction in cause.corrections]
    assert len(keys) == len(set(keys))


ELEMENTS = st.sampled_from(list(ElementKind))
SIGNS = st.lists(st.sampled_from(list(Sign)), max_size=4)
KNOWN = st.fixed_dictionaries(
    {},
    optional={
        "motion": st.sampled_from(["static", "reciprocating", "rotary", "rolling"]),
        "years": st.floats(0, 60),
        "speed": st.floats(0, 5),
        "compound": st.just(NBR),
        "temperature": st.floats(-60, 250),
        "medium": st.sampled_from(["water", "glycol_brake_fluid", "mineral_hydraulic_oil"]),
        "gas": st.booleans(),
        "pressure": st.floats(0, 60),
    },
)


@tried(60)
@given(ELEMENTS, SIGNS, KNOWN)
def test_shares_add_up_and_the_likeliest_is_first(
    element: ElementKind, signs: list[Sign], known: dict[str, object]
) -> None:
    found = diagnose(Circumstances(element, tuple(signs), **known), TABLE)  # type: ignore[arg-type]
    assert sum(one.share for one in found) == pytest.approx(1.0)
    shares = [one.share for one in found]
    assert shares == sorted(shares, reverse=True)
    assert all(share > 0 for share in shares)


@tried(60)
@given(ELEMENTS, SIGNS, KNOWN, st.sampled_from([sign for sign in Sign if sign is not Sign.NONE]))
def test_a_sign_never_lowers_the_cause_it_speaks_for_most(
    element: ElementKind, signs: list[Sign], known: dict[str, object], further: Sign
) -> None:
    before = {one.cause: one.share for one in diagnose(Circumstances(element, tuple(signs), **known), TABLE)}  # type: ignore[arg-type]
    told = Circumstances(element, (*signs, further), **known)  # type: ignore[arg-type]
    after = {one.cause: one.share for one in diagnose(told, TABLE)}
    for cause, weight in TABLE.signs[further].weights.items():
        if weight is Weight.STRONG:
            assert after[cause] >= before[cause] - 1e-12


@tried(60)
@given(ELEMENTS, SIGNS)
def test_what_is_not_known_moves_nothing(element: ElementKind, signs: list[Sign]) -> None:
    bare = diagnose(Circumstances(element, tuple(signs)), TABLE)
    # A temperature without a compound, a compound without medium or temperature: nothing can be held against anything.
    for known in ({"temperature": 120.0}, {"compound": NBR}, {"gas": True}, {"pressure": 30.0}):
        assert diagnose(Circumstances(element, tuple(signs), **known), TABLE) == bare  # type: ignore[arg-type]
    # What was seen twice is one sign, and nothing of the kind is none.
    assert diagnose(Circumstances(element, (*signs, *signs, Sign.NONE)), TABLE) == diagnose(
        Circumstances(element, (*signs, Sign.NONE)), TABLE
    )


@tried(60)
@given(st.floats(0.01, 0.8), st.floats(0.0, 0.4))
def test_a_wider_gap_never_lowers_extrusion(clearance: float, wider: float) -> None:
    one, other = gland(f"{clearance:.3f} mm"), gland(f"{clearance + wider:.3f} mm")
    share = causes("o_ring", "nibbled_low_side", gland=one[0], check=one[1])
    more = causes("o_ring", "nibbled_low_side", gland=other[0], check=other[1])
    wide = share["extrusion"].share + share["missing_backup"].share
    assert more["extrusion"].share + more["missing_backup"].share >= wide - 1e-9


def test_a_sign_speaks_for_against_or_not_at_all() -> None:
    found = causes("o_ring", "soft_swollen")
    assert found["old_age"].speaks_against == ("soft and swollen: evidence against it",)
    assert found["chemical_swell"].speaks_for == ("soft and swollen: strong evidence for it",)
    assert found["twist"].speaks_for == ()
    assert found["twist"].speaks_against == ()


def test_each_kind_is_offered_the_signs_it_can_show() -> None:
    on = {kind: [offer.sign for offer in offered] for kind, offered in TABLE.offered.items()}
    assert set(on) == set(ElementKind)
    assert all(signs[0] is Sign.NONE for signs in on.values())
    # The wrong way round is asked for by itself, of no kind.
    assert not any(Sign.REVERSED in signs for signs in on.values())
    assert Sign.LIP_FOLDED in on[ElementKind.WIPER]
    assert Sign.LIP_FOLDED not in on[ElementKind.O_RING]
    assert Sign.SPIRAL_CUTS in on[ElementKind.ENERGISER]
    # Metal neither swells nor takes a set.
    assert set(on[ElementKind.CONED_WASHER]) <= {
        Sign.NONE, Sign.WORN_ONE_SIDE, Sign.WORN_EVENLY, Sign.SCORED_ALONG, Sign.MISSING_PIECE, Sign.RUST_BEHIND,
        Sign.DIRT_EMBEDDED, Sign.BURNT, Sign.HARD_CRACKED,
    }  # fmt: skip
    # The likeliest stands first: of what a ring shows most often, before what it seldom shows.
    ring = on[ElementKind.O_RING]
    assert ring.index(Sign.FLAT_BOTH_SIDES) < ring.index(Sign.RUST_BEHIND)


def test_the_wrong_lubricant_speaks_and_the_right_one_moves_nothing() -> None:
    """EPDM swells in mineral oil and grease (compatibility table: do not use); NBR stands both."""
    epdm = next(one for one in compounds() if one.name == "EPDM")
    without = causes("o_ring", "soft_swollen", compound=epdm)["chemical_swell"]
    greased = causes("o_ring", "soft_swollen", compound=epdm, lubricant=Lubricant.MINERAL_GREASE)["chemical_swell"]
    assert greased.share > without.share
    assert "mineral grease was on it, which EPDM does not resist" in greased.speaks_for
    for compound, lubricant in (
        (NBR, Lubricant.MINERAL_GREASE),
        (epdm, Lubricant.SERVICE_FLUID),
        (None, Lubricant.MINERAL_OIL),
    ):
        told = causes("o_ring", "soft_swollen", compound=compound, lubricant=lubricant)["chemical_swell"]
        assert told.share == causes("o_ring", "soft_swollen", compound=compound)["chemical_swell"].share
    # Silicone grease draws into silicone rubber: the classical mistake (compatibility table: do not use).
    silicone = next(one for one in compounds() if one.name == "VMQ")
    told = causes("o_ring", "soft_swollen", compound=silicone, lubricant=Lubricant.SILICONE_GREASE)["chemical_swell"]
    assert told.share > causes("o_ring", "soft_swollen", compound=silicone)["chemical_swell"].share


def test_found_dry_speaks_for_dry_running() -> None:
    dry = causes("lip_seal", "worn_one_side", lubricant=Lubricant.DRY)["dry_running"]
    assert dry.share > causes("lip_seal", "worn_one_side")["dry_running"].share
    assert "it was dry as it came off" in dry.speaks_for
