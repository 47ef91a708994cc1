"""House rules: shipped values, changes within reason, reset."""

from __future__ import annotations

import pytest

from ironkettle.core.errors import RuleError
from ironkettle.core.glands import HouseLimits
from ironkettle.core.house import HOUSE_RULES, House
from ironkettle.core.rings import DEFAULT_PRIOR, DEFAULT_UNCERTAINTY_MM

SHIPPED = House({})


def test_without_changes_the_rules_are_the_shipped_ones() -> None:
    assert SHIPPED.limits == HouseLimits()
    assert SHIPPED.prior == pytest.approx(dict(DEFAULT_PRIOR))
    assert SHIPPED.uncertainty == DEFAULT_UNCERTAINTY_MM
    assert all(rule.low <= rule.shipped <= rule.high for rule in HOUSE_RULES)
    assert len({rule.key for rule in HOUSE_RULES}) == len(HOUSE_RULES)


@pytest.mark.parametrize("rule", HOUSE_RULES, ids=lambda rule: rule.key)
def test_every_rule_reaches_what_it_rules(rule: object) -> None:
    middle = rule.shipped * 0.9 if rule.shipped else 0.5  # type: ignore[attr-defined]
    house = SHIPPED.changed(rule.key, middle)  # type: ignore[attr-defined]
    assert (house.limits, house.prior, house.uncertainty) != (SHIPPED.limits, SHIPPED.prior, SHIPPED.uncertainty)
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
        ("colour", 1.0, "not a house rule"),
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
    with pytest.raises(RuleError, match="not a house rule"):
        house.reset("colour")


def test_one_series_must_keep_a_weight() -> None:
    house = SHIPPED
    for key in ("prior_as568", "prior_iso3601", "prior_metric_stock"):
        house = house.changed(key, 0.0)
    with pytest.raises(RuleError, match="at least one series"):
        house.changed("prior_jisb2401", 0.0)
