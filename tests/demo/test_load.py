"""The demo is loaded once, whole, into an empty workshop only."""

from __future__ import annotations

from sqlalchemy import Engine

from ironkettle.demo.load import load_demo
from ironkettle.store.base import session_of
from ironkettle.store.jobs import check_log, list_jobs
from ironkettle.store.people import all_people
from ironkettle.store.seals import all_seals
from ironkettle.store.sheets import latest_sheets
from ironkettle.store.tools import all_gauges, all_wrenches


def test_everything_is_there_and_a_second_load_changes_nothing(workshop: Engine) -> None:
    with session_of(workshop) as session:
        assert load_demo(session) is False
        counts = [len(rows(session)) for rows in (all_people, all_wrenches, all_gauges, all_seals, latest_sheets)]  # type: ignore[operator]
        assert counts == [3, 4, 2, 14, 1]
        jobs = list_jobs(session)
        assert [job.serial for job in jobs] == ["FN-0417"]
        assert check_log(session, jobs[0]) == []
        assert sum(person.may_release for person in all_people(session)) == 1
