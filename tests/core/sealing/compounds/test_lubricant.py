"""Lubricant against compound and service: the rules of the bench."""

from __future__ import annotations

import pytest

from ironkettle.core.sealing.compounds import Duty, Lubricant, check_lubricant, find_compound
from ironkettle.reference import compounds


def codes(lubricant: Lubricant, name: str, **options: object) -> list[tuple[str, str]]:
    found = check_lubricant(lubricant, find_compound(name, compounds()), **options)  # type: ignore[arg-type]
    return [(f.code, f.severity.value) for f in found]


@pytest.mark.parametrize(
    ("lubricant", "name", "options", "expected"),
    [
        # No mineral grease on EPDM, no silicone on silicone (compatibility.csv: 4).
        (Lubricant.MINERAL_GREASE, "EPDM", {}, ("lubricant", "reject")),
        (Lubricant.MINERAL_OIL, "EPDM", {}, ("lubricant", "reject")),
        (Lubricant.SILICONE_GREASE, "VMQ", {}, ("lubricant", "reject")),
        (Lubricant.SERVICE_FLUID, "EPDM", {"media": ["mineral_hydraulic_oil"]}, ("lubricant", "reject")),
        # Nothing that burns near oxygen.
        (Lubricant.SILICONE_GREASE, "FKM", {"duty": Duty.OXYGEN}, ("burns", "reject")),
        (Lubricant.MINERAL_OIL, "FKM", {"duty": Duty.OXYGEN}, ("burns", "reject")),
        # Food and breathing only with listed lubricants.
        (Lubricant.MINERAL_GREASE, "NBR", {"duty": Duty.FOOD}, ("not-listed", "reject")),
        (Lubricant.SILICONE_GREASE, "EPDM", {"duty": Duty.POTABLE_WATER}, ("listed-only", "caution")),
        (Lubricant.PFPE_GREASE, "FKM", {"duty": Duty.OXYGEN}, ("listed-only", "caution")),
        # Oil, not grease, for packing sets.
        (Lubricant.MINERAL_GREASE, "NBR", {"packing_set": True}, ("packing-greased", "reject")),
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
    assert ("not-listed", "reject") not in codes(Lubricant.SERVICE_FLUID, "EPDM", duty=Duty.POTABLE_WATER)
    assert ("listed-only", "caution") not in codes(Lubricant.SERVICE_FLUID, "EPDM", duty=Duty.POTABLE_WATER)
    assert ("listed-only", "caution") in codes(Lubricant.SILICONE_GREASE, "EPDM", duty=Duty.BREATHING)
