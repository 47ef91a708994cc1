"""House rules: shipped values, changes within reason, reset."""

from __future__ import annotations

import pytest

from ironkettle.core.base.errors import RuleError
from ironkettle.core.sealing.grooves import HouseLimits
from ironkettle.core.sealing.rings import DEFAULT_PRIOR, DEFAULT_UNCERTAINTY_MM
from ironkettle.core.shop.settings import HOUSE_RULES, House
from ironkettle.core.shop.settings.limits import FAMILIES, PART_LIMITS, part_limit

SHIPPED = House({})


def test_without_changes_the_rules_are_the_shipped_ones() -> None:
    assert SHIPPED.limits == HouseLimits()
    assert SHIPPED.prior == pytest.approx(dict(DEFAULT_PRIOR))
    assert SHIPPED.uncertainty == DEFAULT_UNCERTAINTY_MM
    assert all(rule.low <= rule.shipped <= rule.high for rule in HOUSE_RULES)
    assert len({rule.key for rule in HOUSE_RULES}) == len(HOUSE_RULES)


def in_force(house: House) -> tuple[object, ...]:
    most = [house.most(one) for one in PART_LIMITS]
    ways = [held.way for held in house.schools.values()]
    return house.limits, house.prior, house.uncertainty, house.shift_hours, house.hold_rules, house.units, most, ways


@pytest.mark.parametrize("rule", HOUSE_RULES, ids=lambda rule: rule.key)
def test_every_rule_reaches_what_it_rules(rule: object) -> None:
    end = rule.high if rule.shipped == rule.low else rule.low  # type: ignore[attr-defined]
    other = end if rule.choices else rule.shipped + (end - rule.shipped) / 50  # type: ignore[attr-defined]
    house = SHIPPED.changed(rule.key, other)  # type: ignore[attr-defined]
    assert in_force(house) != in_force(SHIPPED)
    back = house.reset(rule.key)  # type: ignore[attr-defined]
    assert back.own == {}


def test_priors_are_shared_out_to_one() -> None:
    house = SHIPPED.changed("prior_as568", 1.0)
    # 1.0 of 1.0 + 0.2 + 0.3 + 0.1 = 1.6.
    assert house.prior["AS568"] == pytest.approx(1 / 1.6)
    assert sum(house.prior.values()) == pytest.approx(1)


@pytest.mark.parametrize(
    ("key", "value", "message"),
    [
        ("squeeze_static_low", 30.0, "not below"),
        ("squeeze_static_high", 5.0, "not below"),
        ("uncertainty", 0.0, "does not fit"),
        ("stretch_high", 99.0, "does not fit"),
        ("colour", 1.0, "not a shop setting"),
    ],
)
def test_what_cannot_be_is_refused(key: str, value: float, message: str) -> None:
    with pytest.raises(RuleError, match=message):
        SHIPPED.changed(key, value)


def test_a_reset_that_would_cross_its_partner_is_refused() -> None:
    # Least 2 and most 9 to and fro; most back at 20 is fine, least back at 8 is too, but with most at 7 it is not.
    house = SHIPPED.changed("squeeze_reciprocating_low", 2.0).changed("squeeze_reciprocating_high", 7.0)
    with pytest.raises(RuleError, match="not below"):
        house.reset("squeeze_reciprocating_low")
    with pytest.raises(RuleError, match="not a shop setting"):
        house.reset("colour")


def test_one_series_must_keep_a_weight() -> None:
    house = SHIPPED
    for key in ("prior_as568", "prior_iso3601", "prior_metric_stock"):
        house = house.changed(key, 0.0)
    with pytest.raises(RuleError, match="at least one series"):
        house.changed("prior_jisb2401", 0.0)


def test_what_a_bare_number_means_is_the_shops_choice() -> None:
    assert House({}).units["length"] == "mm"
    assert House({}).units["torque"] == "N·m"
    inch = House({}).changed("unit_length", 1).changed("unit_torque", 2)
    assert (inch.units["length"], inch.units["torque"], inch.units["time"]) == ("in", "lbf·in", "s")
    for value in (0.5, 2, -1):
        with pytest.raises(RuleError) as caught:
            House({}).changed("unit_length", value)
        assert caught.value.faults[0].field == "value"


def test_what_a_band_may_be_set_to() -> None:
    for key in ("squeeze_static_low", "squeeze_static_high", "squeeze_rotary_high"):
        rule = next(rule for rule in HOUSE_RULES if rule.key == key)
        assert (rule.low, rule.high) == (0, 60)
    assert House({}).changed("squeeze_static_high", 60).limits.squeeze_static.high == 60
    with pytest.raises(RuleError):
        House({}).changed("squeeze_static_high", 60.1)


def test_every_house_limit_is_of_a_family_there_is() -> None:
    assert {one.family for one in PART_LIMITS} < set(FAMILIES)


def test_a_limit_is_the_families_own_and_the_shop_may_set_it() -> None:
    pit = part_limit("cylinder", "rod_pit")
    assert pit is not None
    assert SHIPPED.most(pit) == 0.05
    assert SHIPPED.changed("limit_cylinder_rod_pit", 0.03).most(pit) == 0.03
    assert part_limit("coupler", "rod_pit") is None
    with pytest.raises(RuleError):
        SHIPPED.changed("limit_cylinder_rod_pit", 0)


def test_a_school_tells_its_way_and_the_others_in_a_line() -> None:
    careful = SHIPPED.schools["pits"]
    assert careful.way.words == "reject it"
    other = SHIPPED.changed("school_pits", 1).schools["pits"]
    assert other.told == (
        "A pitted rod: dress it within its limit, because a shallow pit under the seal does no harm for years. "
        "Others: reject it, because rust grows on under the chrome."
    )
    with pytest.raises(RuleError, match="none of the choices"):
        SHIPPED.changed("school_pits", 0.5)
