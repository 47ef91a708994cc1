"""Lubricant against compound and service: the rules of the bench, over the whole list."""

from __future__ import annotations

import pytest

from ironkettle.core.base.errors import RuleError
from ironkettle.core.sealing.compounds import (
    LUBRICANTS,
    Duty,
    Lubricant,
    check_lubricant,
    check_own_name,
    find_compound,
    find_lubricant,
    is_known,
    is_meant,
    lubricant_words,
    refusals,
)
from ironkettle.reference import compounds


def codes(lubricant: Lubricant, name: str, **options: object) -> list[tuple[str, str]]:
    found = check_lubricant(lubricant, find_compound(name, compounds()), **options)  # type: ignore[arg-type]
    return [(f.code, f.severity.value) for f in found]


@pytest.mark.parametrize(
    ("lubricant", "name", "options", "expected"),
    [
        # Nothing of mineral oil or petroleum on EPDM, no silicone on silicone (compatibility.csv: 4; guides to greases).
        (Lubricant.MINERAL_GREASE, "EPDM", {}, ("lubricant", "reject")),
        (Lubricant.MINERAL_OIL, "EPDM", {}, ("lubricant", "reject")),
        (Lubricant.PETROLEUM_JELLY, "EPDM", {}, ("lubricant", "reject")),
        (Lubricant.LITHIUM_GREASE, "EPDM", {}, ("lubricant", "reject")),
        (Lubricant.ENGINE_OIL, "EPDM", {}, ("lubricant", "reject")),
        (Lubricant.FOOD_GEL, "EPDM", {}, ("lubricant", "reject")),
        (Lubricant.SILICONE_GREASE, "VMQ", {}, ("lubricant", "reject")),
        (Lubricant.RUBBER_GREASE, "AU", {}, ("lubricant", "reject")),
        (Lubricant.SERVICE_FLUID, "EPDM", {"media": ["mineral_hydraulic_oil"]}, ("lubricant", "reject")),
        # For threads only.
        (Lubricant.PENETRATING_OIL, "FKM", {}, ("not-on-seals", "reject")),
        (Lubricant.ANTI_SEIZE_COPPER, "FKM", {}, ("not-on-seals", "reject")),
        # Nothing that burns near oxygen.
        (Lubricant.SILICONE_GREASE, "FKM", {"duty": Duty.OXYGEN}, ("burns", "reject")),
        (Lubricant.MINERAL_OIL, "FKM", {"duty": Duty.OXYGEN}, ("burns", "reject")),
        # Food, breathing and drinking water only with listed lubricants.
        (Lubricant.MINERAL_GREASE, "NBR", {"duty": Duty.FOOD}, ("not-listed", "reject")),
        (Lubricant.ANTI_SEIZE_COPPER, "NBR", {"duty": Duty.BREATHING}, ("not-listed", "reject")),
        (Lubricant.SILICONE_GREASE, "EPDM", {"duty": Duty.POTABLE}, ("not-listed", "reject")),
        (Lubricant.SILICONE_GREASE, "EPDM", {"duty": Duty.BREATHING}, ("not-listed", "reject")),
        (Lubricant.SILICONE_GREASE_POTABLE, "EPDM", {"duty": Duty.POTABLE}, ("listed-only", "caution")),
        (Lubricant.PFPE_GREASE, "FKM", {"duty": Duty.OXYGEN}, ("listed-only", "caution")),
        (Lubricant.SILICONE_GREASE, "EPDM", {"duty": Duty.FOOD}, ("listed-only", "caution")),
        # Oil, not grease, for packing sets.
        (Lubricant.MINERAL_GREASE, "NBR", {"packing_set": True}, ("packing-greased", "reject")),
        (Lubricant.PETROLEUM_JELLY, "NBR", {"packing_set": True}, ("packing-greased", "reject")),
        (Lubricant.DRY, "NBR", {}, ("dry", "info")),
    ],
)
def test_each_rule_speaks(
    lubricant: Lubricant, name: str, options: dict[str, object], expected: tuple[str, str]
) -> None:
    assert expected in codes(lubricant, name, **options)


def test_what_is_right_is_left_in_peace() -> None:
    assert codes(Lubricant.SILICONE_GREASE, "EPDM") == []
    assert codes(Lubricant.MINERAL_OIL, "NBR", packing_set=True) == []
    assert codes(Lubricant.SERVICE_FLUID, "NBR", media=["mineral_hydraulic_oil"]) == []
    assert codes(Lubricant.DRY, "FKM", duty=Duty.OXYGEN) == []


def test_the_service_fluid_is_no_lubricant_where_people_breathe() -> None:
    assert ("not-listed", "reject") in codes(Lubricant.SERVICE_FLUID, "EPDM", duty=Duty.BREATHING)
    assert codes(Lubricant.SERVICE_FLUID, "EPDM", duty=Duty.POTABLE) == []


@pytest.mark.parametrize("duty", [Duty.BREATHING, Duty.OXYGEN, Duty.POTABLE])
def test_where_it_is_breathed_or_drunk_only_what_is_listed_goes_on_whatever_the_compound(duty: Duty) -> None:
    for key, facts in LUBRICANTS.items():
        refused = bool(refusals(check_lubricant(key, None, duty=duty)))
        assert refused is (key is not Lubricant.DRY and duty not in facts.listed_for), key


def test_what_the_list_says_it_attacks_is_refused_and_rated_no_better_in_the_table_of_compounds() -> None:
    for key, facts in LUBRICANTS.items():
        for compound in compounds():
            attacked = compound.name in facts.attacks
            assert (
                "lubricant" in {refusal.code for refusal in refusals(check_lubricant(key, compound))}
            ) >= attacked, key


@pytest.mark.parametrize(
    ("word", "key"),
    [
        ("Lithium Grease", "lithium_grease"), ("  copper   grease ", "anti_seize_copper"), ("petrolatum", "petroleum_jelly"),
        ("penetrating spray", "penetrating_oil"), ("motor oil", "engine_oil"), ("clean service oil", "hydraulic_oil"),
        ("silicone_grease", "silicone_grease"), ("DRY", "dry"),
    ],
)  # fmt: skip
def test_everyday_words_find_their_entry(word: str, key: str) -> None:
    assert find_lubricant(word) == key


@pytest.mark.parametrize("word", ["grease", "olive oil", "spray", "", "the blue tub", "lithium", "oil"])
def test_a_word_that_is_none_is_asked_about_and_never_taken(word: str) -> None:
    with pytest.raises(RuleError, match="not in the list of lubricants: read the tin") as refused:
        find_lubricant(word, "lubricant")
    (fault,) = refused.value.faults
    assert refused.value.code == "wrong-lubricant"
    assert fault.field == "lubricant"
    assert "lithium_grease" in fault.accepts
    assert "penetrating_oil" not in fault.accepts


def test_every_word_of_the_list_belongs_to_one_entry() -> None:
    words = [
        word
        for key, facts in LUBRICANTS.items()
        for word in {key.value, key.value.replace("_", " "), facts.name.casefold(), *facts.says}
    ]
    assert len(words) == len(set(words))
    assert all(word == " ".join(word.casefold().split()) for facts in LUBRICANTS.values() for word in facts.says)


@pytest.mark.parametrize(
    ("what", "meant", "not_meant"),
    [
        ("mineral", {"lithium_grease", "engine_oil", "petroleum_jelly", "penetrating_oil", "food_gel"}, {"silicone_grease", "dry", "glycerine"}),
        ("Mineral grease", {"lithium_grease", "mineral_grease", "petroleum_jelly"}, {"engine_oil", "silicone_grease"}),
        ("mineral oil", {"engine_oil", "hydraulic_oil"}, {"lithium_grease", "silicone_grease"}),
        ("silicone", {"silicone_grease", "silicone_grease_potable", "viscous_fluid"}, {"lithium_grease"}),
        ("petroleum", {"petroleum_jelly", "penetrating_oil"}, {"lithium_grease"}),
        ("grease", {"lithium_grease", "pfpe_grease", "petroleum_jelly"}, {"engine_oil", "dry", "glycerine"}),
        ("oil", {"engine_oil", "air_tool_oil", "viscous_fluid"}, {"lithium_grease", "dry", "service_water"}),
        ("copper paste", {"anti_seize_copper"}, {"anti_seize_nickel"}),
        ("candle wax", set(), {"lithium_grease", "dry"}),
    ],
)  # fmt: skip
def test_a_base_stands_for_all_that_is_made_of_it(what: str, meant: set[str], not_meant: set[str]) -> None:
    assert {key for key in meant if not is_meant(what, Lubricant(key))} == set()
    assert {key for key in not_meant if is_meant(what, Lubricant(key))} == set()


def test_the_fluid_of_the_unit_is_meant_by_what_it_is() -> None:
    assert is_meant("mineral", Lubricant.SERVICE_FLUID, ("mineral_hydraulic_oil",))
    assert not is_meant("mineral", Lubricant.SERVICE_FLUID, ("water",))
    assert is_known("mineral")
    assert is_known("grease")
    assert not is_known("candle wax")


def test_a_record_names_it_and_keeps_the_words_of_an_older_one() -> None:
    assert lubricant_words("air_tool_oil") == "air-tool oil"
    assert lubricant_words("pfpe_grease") == "PFPE grease"
    assert lubricant_words("whale oil") == "whale oil"


def test_a_word_of_the_list_is_no_name_of_the_shop_s_own() -> None:
    check_own_name("The red drum", Lubricant.LITHIUM_GREASE)
    with pytest.raises(RuleError, match="is already Clean engine oil"):
        check_own_name("Motor oil", Lubricant.ENGINE_OIL)
    with pytest.raises(RuleError, match="is Clean engine oil in the list"):
        check_own_name("motor  OIL", Lubricant.SILICONE_GREASE)
    own = {"the red drum": Lubricant.LITHIUM_GREASE}
    assert find_lubricant(" The  red drum", own=own) is Lubricant.LITHIUM_GREASE
    # The list's own words come first.
    assert find_lubricant("motor oil", own={"motor oil": Lubricant.DRY}) is Lubricant.ENGINE_OIL


@pytest.mark.parametrize(
    ("duty", "says"),
    [(Duty.OXYGEN, "it can burn near oxygen"), (Duty.BREATHING, "it is not listed for breathing service")],
)
def test_why_a_grease_is_not_for_a_service_is_said(duty: Duty, says: str) -> None:
    found = check_lubricant(Lubricant.SILICONE_GREASE, find_compound("FKM", compounds()), duty=duty)
    assert any(says in one.message for one in found)
