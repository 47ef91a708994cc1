"""Cleaners against soil, material, duty and what still stands in a unit. Expected by the list's own rows and general chemistry."""

from __future__ import annotations

import pytest

from ironkettle.core.base.errors import RuleError
from ironkettle.core.sealing.compounds import (
    CLEANERS,
    Cleaner,
    Duty,
    Nature,
    clash_of,
    cleaner_faults,
    cleaner_words,
    cleaners_named,
    find_cleaner,
    flammable_in,
    is_fuel,
    residues_of,
)
from ironkettle.core.sealing.compounds.cleaners import SOILS
from ironkettle.core.sheets.document.parts import Material
from ironkettle.reference import cleaning


@pytest.mark.parametrize(
    ("cleaner", "soil", "materials", "duty", "says"),
    [
        # Acid dissolves aluminium and lifts chrome; solvents swell rubber and craze plastic.
        (Cleaner.CITRIC_ACID, "salt and lime", ["steel", "aluminium"], Duty.GENERAL, ["attacks aluminium"]),
        (Cleaner.PHOSPHORIC_ACID, "rust and scale", ["chromed steel"], Duty.GENERAL, ["attacks chromed steel"]),
        (Cleaner.SOLVENT_SPRAY, "oil and dirt", ["rubber", "plastic"], Duty.GENERAL, ["attacks plastic and rubber"]),
        (Cleaner.PARTS_WASH_ALKALINE, "oil and dirt", ["aluminium"], Duty.GENERAL, ["attacks aluminium"]),
        (Cleaner.STEEL_WOOL_SHOT, "rust and scale", ["brass"], Duty.OXYGEN, ["attacks brass", "not for oxygen"]),
        (Cleaner.PARAFFIN, "oil and dirt", ["steel"], Duty.BREATHING, ["not for breathing"]),
        (Cleaner.NEUTRAL_WASH, "rust and scale", ["steel"], Duty.GENERAL, ["does not lift rust and scale"]),
        (Cleaner.HYDROCHLORIC_ACID, "salt and lime", ["steel"], Duty.GENERAL, ["not for this bench"]),
        (Cleaner.HYPOCHLORITE, "oil and dirt", ["steel"], Duty.GENERAL, ["not for parts"]),
        (Cleaner.CITRIC_ACID, "Salt and lime ", ["stainless steel", "plastic"], Duty.FOOD, []),
        (Cleaner.NEUTRAL_WASH, "oil and dirt", ["steel", "rubber"], Duty.OXYGEN, []),
    ],
)
def test_what_speaks_against_a_cleaner(
    cleaner: Cleaner, soil: str, materials: list[str], duty: Duty, says: list[str]
) -> None:
    found = cleaner_faults(cleaner, soil, materials, duty)
    assert len(found) == len(says)
    for words, part in zip(found, says, strict=True):
        assert part in words


@pytest.mark.parametrize(
    ("fluid", "residue", "acid"),
    [
        ("sodium hypochlorite solution", Nature.HYPOCHLORITE, "chlorine"),
        ("Bleach 5 %", Nature.HYPOCHLORITE, "chlorine"),
        ("chlorinated water", Nature.HYPOCHLORITE, "chlorine"),
        ("caustic soda", Nature.ALKALI, "boils up"),
        ("ammonia water", Nature.AMMONIA, None),
        ("peracetic acid", Nature.ACID, None),
    ],
)
def test_acid_never_meets_bleach_or_alkali(fluid: str, residue: Nature, acid: str | None) -> None:
    assert residues_of(["mineral oil ISO VG 46", fluid]) == {residue}
    for cleaner in (Cleaner.CITRIC_ACID, Cleaner.VINEGAR, Cleaner.PHOSPHORIC_ACID, Cleaner.DESCALER_INHIBITED):
        why = clash_of(cleaner, [residue])
        assert why is None if acid is None else why is not None and acid in why
    assert clash_of(Cleaner.WATER, [residue]) is None


def test_alkali_never_meets_acid_and_bleach_neither_acid_nor_ammonia() -> None:
    assert "boils up" in str(clash_of(Cleaner.PARTS_WASH_ALKALINE, [Nature.ACID]))
    assert "chlorine" in str(clash_of(Cleaner.HYPOCHLORITE, [Nature.ACID]))
    assert "chloramine" in str(clash_of(Cleaner.HYPOCHLORITE, [Nature.AMMONIA]))
    assert clash_of(Cleaner.CITRIC_ACID, []) is None
    assert residues_of(["placid water", "hydraulic oil"]) == frozenset()


@pytest.mark.parametrize(
    ("word", "found"),
    [
        (" Washing  Fluid", Cleaner.NEUTRAL_WASH), ("kerosene", Cleaner.PARAFFIN), ("citric acid", Cleaner.CITRIC_ACID),
        ("steel_wool_shot", Cleaner.STEEL_WOOL_SHOT), ("brake cleaner", Cleaner.SOLVENT_SPRAY),
    ],
)  # fmt: skip
def test_everyday_names_find_their_cleaner(word: str, found: Cleaner) -> None:
    assert find_cleaner(word) is found


def test_an_unknown_word_is_asked_about_and_never_taken() -> None:
    with pytest.raises(RuleError) as caught:
        find_cleaner("what stood there")
    (fault,) = caught.value.faults
    assert fault.field == "cleaner"
    assert "hydrochloric_acid" not in fault.accepts
    assert "neutral_wash" in fault.accepts


def test_a_text_names_its_cleaners() -> None:
    assert cleaners_named("Lime off with dilute vinegar, then in citric acid") == (Cleaner.CITRIC_ACID, Cleaner.VINEGAR)
    assert cleaners_named("a hot shotgun") == ()
    assert cleaner_words("citric_acid") == "citric acid"
    assert cleaner_words("elbow grease") == "elbow grease"


@pytest.mark.parametrize(
    ("text", "burns"),
    [
        ("penetrant", "Penetrating oil or spray"), ("Acetone on a rag", "Acetone"), ("clean diesel fuel", "Clean diesel fuel of the unit"),
        ("lint-free rags", None), ("citric_acid", None), ("solvent_spray", "Solvent spray"),
    ],
)  # fmt: skip
def test_what_burns(text: str, burns: str | None) -> None:
    assert flammable_in(text) == burns


def test_fuels_are_known_by_their_names() -> None:
    assert [is_fuel(one) for one in ("Diesel fuel", "petrol E10", "water", "mineral oil ISO VG 46")] == [
        True, True, False, False,
    ]  # fmt: skip


def test_every_row_of_the_cleaning_table_is_cleaned_with_what_suits_it() -> None:
    for row in cleaning():
        assert row.soil in SOILS
        if row.cleaner:
            assert cleaner_faults(find_cleaner(row.cleaner), row.soil, [row.material], Duty.GENERAL) == ()
    for facts in CLEANERS.values():
        assert facts.lifts <= set(SOILS)
        assert facts.attacks <= {one.value for one in Material}
