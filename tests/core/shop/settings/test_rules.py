"""Shop settings: shipped values, changes within reason, reset."""

from __future__ import annotations

import pytest

from ironkettle.core.base.errors import RuleError
from ironkettle.core.sealing.grooves import GrooveLimits
from ironkettle.core.sealing.rings import DEFAULT_PRIOR, DEFAULT_UNCERTAINTY_MM
from ironkettle.core.shop.settings import SHOP_SETTINGS, ShopSettings, under_their_names
from ironkettle.core.shop.settings.limits import FAMILIES, PART_LIMITS, part_limit

SHIPPED = ShopSettings({})


def test_without_changes_the_rules_are_the_shipped_ones() -> None:
    assert SHIPPED.limits == GrooveLimits()
    assert SHIPPED.prior == pytest.approx(dict(DEFAULT_PRIOR))
    assert SHIPPED.uncertainty == DEFAULT_UNCERTAINTY_MM
    assert all(rule.low <= rule.shipped <= rule.high for rule in SHOP_SETTINGS)
    assert len({rule.key for rule in SHOP_SETTINGS}) == len(SHOP_SETTINGS)


def in_force(settings: ShopSettings) -> tuple[object, ...]:
    most = [settings.most(limit) for limit in PART_LIMITS]
    ways = [held.way for held in settings.practice.values()]
    return (
        settings.limits,
        settings.prior,
        settings.uncertainty,
        settings.shift_hours,
        settings.hold_rules,
        settings.units,
        most,
        ways,
    )


@pytest.mark.parametrize("rule", SHOP_SETTINGS, ids=lambda rule: rule.key)
def test_every_rule_reaches_what_it_rules(rule: object) -> None:
    end = rule.high if rule.shipped == rule.low else rule.low  # type: ignore[attr-defined]
    other = end if rule.choices else rule.shipped + (end - rule.shipped) / 50  # type: ignore[attr-defined]
    settings = SHIPPED.changed(rule.key, other)  # type: ignore[attr-defined]
    assert in_force(settings) != in_force(SHIPPED)
    back = settings.reset(rule.key)  # type: ignore[attr-defined]
    assert back.own == {}


def test_priors_are_shared_out_to_one() -> None:
    settings = SHIPPED.changed("prior_as568", 1.0)
    # 1.0 of 1.0 + 0.2 + 0.3 + 0.1 = 1.6.
    assert settings.prior["AS568"] == pytest.approx(1 / 1.6)
    assert sum(settings.prior.values()) == pytest.approx(1)


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
    settings = SHIPPED.changed("squeeze_reciprocating_low", 2.0).changed("squeeze_reciprocating_high", 7.0)
    with pytest.raises(RuleError, match="not below"):
        settings.reset("squeeze_reciprocating_low")
    with pytest.raises(RuleError, match="not a shop setting"):
        settings.reset("colour")


def test_one_series_must_keep_a_weight() -> None:
    settings = SHIPPED
    for key in ("prior_as568", "prior_iso3601", "prior_metric_stock"):
        settings = settings.changed(key, 0.0)
    with pytest.raises(RuleError, match="at least one series"):
        settings.changed("prior_jisb2401", 0.0)


def test_what_a_bare_number_means_is_the_shops_choice() -> None:
    assert ShopSettings({}).units["length"] == "mm"
    assert ShopSettings({}).units["torque"] == "N·m"
    inch = ShopSettings({}).changed("unit_length", 1).changed("unit_torque", 2)
    assert (inch.units["length"], inch.units["torque"], inch.units["time"]) == ("in", "lbf·in", "s")
    for value in (0.5, 2, -1):
        with pytest.raises(RuleError) as caught:
            ShopSettings({}).changed("unit_length", value)
        assert caught.value.faults[0].field == "value"


def test_what_a_band_may_be_set_to() -> None:
    for key in ("squeeze_static_low", "squeeze_static_high", "squeeze_rotary_high"):
        rule = next(rule for rule in SHOP_SETTINGS if rule.key == key)
        assert (rule.low, rule.high) == (0, 60)
    assert ShopSettings({}).changed("squeeze_static_high", 60).limits.squeeze_static.high == 60
    with pytest.raises(RuleError):
        ShopSettings({}).changed("squeeze_static_high", 60.1)


def test_every_house_limit_is_of_a_family_there_is() -> None:
    assert {limit.family for limit in PART_LIMITS} < set(FAMILIES)


def test_a_limit_is_the_families_own_and_the_shop_may_set_it() -> None:
    pit = part_limit("cylinder", "rod_pit")
    assert pit is not None
    assert SHIPPED.most(pit) == 0.05
    assert SHIPPED.changed("limit_cylinder_rod_pit", 0.03).most(pit) == 0.03
    assert part_limit("coupler", "rod_pit") is None
    with pytest.raises(RuleError):
        SHIPPED.changed("limit_cylinder_rod_pit", 0)


def test_a_practice_option_tells_its_way_and_the_others_in_a_line() -> None:
    careful = SHIPPED.practice["pits"]
    assert careful.way.words == "reject it"
    other = SHIPPED.changed("practice_pits", 1).practice["pits"]
    assert other.sentence == (
        "A pitted rod: dress it within its limit, because a shallow pit under the seal does no harm for years. "
        "Others: reject it, because rust grows on under the chrome."
    )
    with pytest.raises(RuleError, match="none of the choices"):
        SHIPPED.changed("practice_pits", 0.5)


def test_settings_sealed_under_the_names_before_are_read_under_those_of_today() -> None:
    """Migration 20261202b: the keys of practice options began with ``school_``; what an intake sealed is not rewritten."""
    before = {"school_pits": 1.0, "squeeze_static_low": 12.0}
    now = under_their_names(before)
    assert now == {"practice_pits": 1.0, "squeeze_static_low": 12.0}
    assert ShopSettings(now).follows("pits", 1)
    assert not ShopSettings({}).follows("pits", 1)
