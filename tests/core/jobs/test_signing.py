"""Who may write what, what a signature stands on, and which bench times are believed."""

from __future__ import annotations

from datetime import UTC, date, datetime, timedelta
from typing import Any
from uuid import UUID

import pytest

from ironkettle.core.base.errors import NotAllowedError, RuleError
from ironkettle.core.jobs.entry import Entry
from ironkettle.core.jobs.registry import read_payload
from ironkettle.core.jobs.signing import (
    check_bench_time,
    check_may_write,
    clock_in_doubt,
    needs_signature,
    signature_of,
    signed_words,
)
from ironkettle.core.sheets.document import Sheet
from ironkettle.core.sheets.document.approval import standing_of
from ironkettle.core.shop.people import Author, Authorisation, Authority, Role, Signature
from tests.bench import INTAKE, Job
from tests.tiny import sheet_of, unit
from tests.walk import RELEASE as RELEASED
from tests.walk import SKIP as SKIPPED

NOW = datetime(2026, 11, 25, 9, tzinfo=UTC)
SHEET = sheet_of(unit("swing-bridge-ram"))
RELEASE = read_payload(RELEASED)
REOPEN = read_payload({"kind": "reopened", "reason": "leaks again"})
SKIP = read_payload(SKIPPED)
NOTE: dict[str, Any] = {"kind": "note_made", "text": "one short"}
LIFTS = Authorisation(Authority.LIFTING, date(2026, 11, 25))
ENDED = Authorisation(Authority.LIFTING, date(2026, 11, 24))
OTHER = Authorisation(Authority.LIFE_SUPPORT, date(2030, 1, 1))


def who(role: Role, *held: Authorisation) -> Author:
    return Author("a", "Aldith Rowe", role, held)


def free(authority: Authority) -> Sheet:
    return SHEET.model_copy(update={"authority": authority})


def test_releases_reopenings_and_overrides_are_signatures_and_nothing_else_is() -> None:
    assert all(needs_signature(payload) for payload in (RELEASE, REOPEN, SKIP))
    job = Job(SHEET)
    job.walk(until=lambda task: task.key == "sign")
    assert not any(needs_signature(payload) for payload, _ in job.entries)


@pytest.mark.parametrize(
    ("role", "held", "payload", "may"),
    [
        (Role.LEAD, (), INTAKE, True),
        (Role.TECHNICIAN, (), INTAKE, True),
        (Role.STORES, (), INTAKE, False),
        (Role.STORES, (), NOTE, True),
        (Role.STORES, (), {"kind": "kit_counted", "kit": "K", "lines": [{"line": "k", "counted": 1}]}, True),
        (Role.STORES, (), {"kind": "step_done", "step": "isolate"}, False),
        (Role.READER, (), NOTE, False),
        (Role.READER, (LIFTS,), NOTE, False),
        (Role.READER, (LIFTS,), RELEASED, True),
        (Role.READER, (), RELEASED, False),
        (Role.STORES, (LIFTS,), {"kind": "reopened", "reason": "leaks again"}, True),
    ],
)
def test_who_may_write_what(role: Role, held: tuple[Authorisation, ...], payload: dict[str, Any], may: bool) -> None:
    author = who(role, *held)
    if may:
        check_may_write(author, read_payload(payload))
    else:
        with pytest.raises(NotAllowedError, match="a technician or the lead may"):
            check_may_write(author, read_payload(payload))


def test_a_release_stands_on_the_authority_of_the_sheet() -> None:
    assert SHEET.authority is Authority.LIFTING
    signature = signature_of(standing_of(SHEET, (), draft=False), RELEASE, who(Role.READER, OTHER, LIFTS), NOW)
    assert signature == Signature(role=Role.READER, authority=Authority.LIFTING, until=LIFTS.until)
    for held in ((), (OTHER,)):
        with pytest.raises(NotAllowedError, match=r"authorised for lifting gear$"):
            signature_of(standing_of(SHEET, (), draft=False), RELEASE, who(Role.LEAD, *held), NOW)


def test_an_authority_that_ended_yesterday_is_none_and_is_said() -> None:
    with pytest.raises(NotAllowedError, match="ended on 24 Nov 2026"):
        signature_of(standing_of(SHEET, (), draft=False), RELEASE, who(Role.LEAD, ENDED), NOW)


def test_a_sheet_without_an_authority_is_released_by_who_works_on_it() -> None:
    signature = signature_of(standing_of(free(Authority.NONE), (), draft=False), RELEASE, who(Role.TECHNICIAN), NOW)
    assert signature == Signature(role=Role.TECHNICIAN, authority=Authority.NONE)


def test_reopening_takes_the_lead_or_a_signatory_and_an_override_who_works_there() -> None:
    assert signature_of(standing_of(SHEET, (), draft=False), REOPEN, who(Role.LEAD), NOW) == Signature(
        role=Role.LEAD, authority=Authority.NONE
    )
    signed = signature_of(standing_of(SHEET, (), draft=False), REOPEN, who(Role.TECHNICIAN, LIFTS), NOW)
    assert signed is not None
    assert signed.authority is Authority.LIFTING
    with pytest.raises(NotAllowedError):
        signature_of(standing_of(SHEET, (), draft=False), REOPEN, who(Role.TECHNICIAN), NOW)
    assert signature_of(standing_of(SHEET, (), draft=False), SKIP, who(Role.TECHNICIAN), NOW) is not None
    assert signature_of(standing_of(SHEET, (), draft=False), read_payload(NOTE), who(Role.TECHNICIAN), NOW) is None


@pytest.mark.parametrize(
    "moment",
    [
        datetime(2000, 1, 1, tzinfo=UTC),
        NOW,
        NOW + timedelta(days=1),
        NOW - timedelta(days=400),
    ],
)
def test_bench_times_that_are_believed(moment: datetime) -> None:
    check_bench_time(moment, NOW)


@pytest.mark.parametrize(
    "moment",
    [
        datetime.min.replace(tzinfo=UTC),
        datetime(1999, 12, 31, 23, 59, 59, tzinfo=UTC),
        NOW + timedelta(days=1, seconds=1),
        datetime(2100, 1, 1, tzinfo=UTC),
        datetime.max.replace(tzinfo=UTC),
    ],
)
def test_bench_times_that_are_not(moment: datetime) -> None:
    with pytest.raises(RuleError, match="check the clock of this device"):
        check_bench_time(moment, NOW)
    with pytest.raises(RuleError):
        check_bench_time(datetime(2101, 1, 1, tzinfo=UTC), datetime(2101, 1, 1, tzinfo=UTC))


@pytest.mark.parametrize(
    ("ahead", "doubt"), [(None, False), (0.0, False), (120.0, False), (121.0, True), (-121.0, True)]
)
def test_a_clock_two_minutes_off_is_told(ahead: float | None, doubt: bool) -> None:
    entry = Entry(
        id=UUID(int=1),
        seq=1,
        who="bede",
        bench_time=NOW,
        server_time=NOW,
        clock_ahead_s=ahead,
        payload=read_payload(NOTE),
    )
    assert clock_in_doubt(entry) is doubt


def test_signatures_in_words() -> None:
    assert signed_words(None) is None
    assert signed_words(Signature(role=Role.TECHNICIAN, authority=Authority.NONE)) == "signed by PIN as technician"
    words = signed_words(Signature(role=Role.LEAD, authority=Authority.LIFTING, until=date(2027, 6, 30)))
    assert words == "signed by PIN, authorised for lifting gear, valid to 30 Jun 2027"
