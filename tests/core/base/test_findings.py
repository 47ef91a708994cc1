"""What every rule says with: findings and their verdict, faults and their places, JSON, days, half characters."""

from __future__ import annotations

from datetime import UTC, date, datetime, timedelta, timezone

import pytest

from ironkettle.core.base.dates import shown_day, shown_moment
from ironkettle.core.base.errors import FieldFault, RuleError, UnconvergedError, fault
from ironkettle.core.base.findings import Severity, caution, info, reject, verdict_of
from ironkettle.core.base.json import json_list, json_object
from ironkettle.core.base.text import half_character_at

SAID = {"info": info("a", "x", "y"), "caution": caution("b", "x", "y"), "reject": reject("c", "x", "y")}


@pytest.mark.parametrize(
    ("found", "verdict"),
    [
        ((), "good"),
        (("info",), "good"),
        (("info", "caution"), "caution"),
        (("caution",), "caution"),
        (("caution", "reject"), "reject"),
        (("reject", "info"), "reject"),
    ],
)
def test_the_verdict_is_the_worst_of_the_findings(found: tuple[str, ...], verdict: str) -> None:
    assert verdict_of(SAID[one] for one in found) == verdict
    assert [SAID[one].severity for one in found] == [Severity(one) for one in found]


def test_a_fault_names_its_field_from_every_level_up() -> None:
    one = fault("bore", "is missing", "50 mm")
    assert isinstance(one, RuleError)
    assert one.faults == (FieldFault("bore", "is missing", ("50 mm",)),)
    assert one.faults[0].under("groove") == FieldFault("groove.bore", "is missing", ("50 mm",))
    assert str(RuleError([*one.faults, FieldFault("rod", "is bent")])) == "bore: is missing; rod: is bent"


def test_a_solver_that_does_not_settle_says_where() -> None:
    assert str(UnconvergedError("area", 40, 1.5, 0.25)) == (
        "area did not settle in 40 rounds (last 1.5, residual 0.25)"
    )


def test_json_of_another_shape_is_refused_by_its_type() -> None:
    assert json_object({"a": 1}) == {"a": 1}
    assert json_list([1]) == [1]
    with pytest.raises(TypeError, match="an object is wanted, not list"):
        json_object([1])
    with pytest.raises(TypeError, match="a list is wanted, not str"):
        json_list("abc")


def test_days_and_moments_are_shown_alike_everywhere() -> None:
    assert [shown_day(date(2026, month, 1)).split()[1] for month in range(1, 13)] == [
        "Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec",
    ]  # fmt: skip
    assert shown_day(date(2027, 12, 31)) == "31 Dec 2027"
    # Half past midnight two hours east of Greenwich is the evening before by UTC.
    east = datetime(2026, 3, 1, 0, 30, tzinfo=timezone(timedelta(hours=2)))
    assert shown_moment(east) == "28 Feb 2026, 22:30 UTC"
    assert shown_moment(east.astimezone(UTC)) == shown_moment(east)


@pytest.mark.parametrize(
    ("document", "at"),
    [
        ("plain", None),
        ("half \ud800", ""),
        ("\udfff behind", ""),
        ("\ud7ff\ue000", None),
        ({"a": ["x", {"b": "\udc00"}]}, "a.1.b"),
        ({"\udc00": 1}, ""),
        ([1, None, "\ud800"], "2"),
        ({"a": [1, {"b": "c"}]}, None),
        (7, None),
    ],
)
def test_half_a_character_is_found_where_it_is(document: object, at: str | None) -> None:
    assert half_character_at(document) == at
