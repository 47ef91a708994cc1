"""The head of the shop's papers."""

from __future__ import annotations

from datetime import UTC, datetime

import pytest
from pydantic import ValidationError

from ironkettle.core.base.dates import shown_moment
from ironkettle.core.base.errors import RuleError
from ironkettle.core.shop.letterhead import MOST_LINES, Letterhead, check_letterhead


def test_what_is_empty_is_named() -> None:
    assert Letterhead().missing == ("name", "address", "contact")
    assert Letterhead(name="Lock Gate Workshop", address=("Lock Lane",)).missing == ("contact",)
    assert Letterhead(name="a", address=("b",), contact="c").missing == ()


@pytest.mark.parametrize(
    ("field", "value"),
    [
        ("zone", "Middle Earth"),
        ("zone", "localtime"),
        ("zone", "Factory"),
        ("site", "kettle"),
        ("site", "javascript:alert(1)"),
        ("site", "https://a b"),
        ("site", "https://"),
        ("site", "https://x:99999"),
        ("site", "https://x/?a=1"),
        ("site", "https://me@x"),
        ("site", "https://[::1"),
    ],
)
def test_a_zone_nobody_knows_and_a_site_that_is_none_are_refused(field: str, value: str) -> None:
    with pytest.raises(RuleError) as refused:
        check_letterhead(Letterhead.model_validate({field: value}))
    assert [fault.field for fault in refused.value.faults] == [field]


def test_a_known_zone_and_a_site_are_taken() -> None:
    check_letterhead(Letterhead(zone="Asia/Kolkata", site="https://kettle.example"))
    check_letterhead(Letterhead())
    check_letterhead(Letterhead(site="http://192.168.1.5:8600/kettle/"))


def test_its_times_are_those_of_its_zone_with_their_offset() -> None:
    # London is an hour ahead of UTC from the end of March to the end of October (IANA time zone database).
    summer, winter = datetime(2026, 7, 1, 8, 5, tzinfo=UTC), datetime(2026, 12, 1, 8, 5, tzinfo=UTC)
    london = Letterhead(zone="Europe/London").clock
    assert shown_moment(summer, london) == "1 Jul 2026, 09:05 UTC+01:00"
    assert shown_moment(winter, london) == "1 Dec 2026, 08:05 UTC"
    assert shown_moment(summer, Letterhead(zone="America/St_Johns").clock) == "1 Jul 2026, 05:35 UTC-02:30"


def test_an_address_has_its_lines_and_no_more() -> None:
    assert len(Letterhead(address=("x",) * MOST_LINES).address) == MOST_LINES
    with pytest.raises(ValidationError):
        Letterhead(address=("x",) * (MOST_LINES + 1))
