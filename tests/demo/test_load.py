"""The demo is loaded once, whole, into an empty workshop only."""

from __future__ import annotations

from datetime import UTC, datetime

from sqlalchemy import Engine

from ironkettle.demo.load import load_demo, shipped_pins
from ironkettle.store.base import session_of
from ironkettle.store.jobs.bench_list import Sought, list_jobs
from ironkettle.store.jobs.logs import check_log, snapshot_differs
from ironkettle.store.sheets.rows import latest_sheets
from ironkettle.store.shop.people import all_people, secret_fits
from ironkettle.store.shop.stock import all_stock
from ironkettle.store.shop.tools import all_gauges, all_wrenches


def test_everything_is_there_and_a_second_load_changes_nothing(workshop: Engine) -> None:
    with session_of(workshop) as session:
        assert load_demo(session) is False
        counts = [len(rows(session)) for rows in (all_people, all_wrenches, all_gauges, all_stock, latest_sheets)]  # type: ignore[operator]
        assert counts == [5, 7, 6, 32, 21]
        now = datetime.now(UTC)
        jobs = {job.serial: job for job in list_jobs(session, Sought("open"), now).jobs}
        # Each at its point: before anything, at the reversed lip, with a short kit, before what sticks or lets go.
        assert {serial: (job.stage, job.next_need[:13]) for serial, job in jobs.items()} == {
            "FN-0417": ("as_found", "Leak at the r"),
            "FN-0416": ("strip", "Rod lip seal:"),
            "FN-3310": ("kit", "Order 1 × gui"),
            "FN-2207": ("rebuild", "Thin film of "),
            "FN-1188": ("strip", "Stuffing box "),
            "FN-0902": ("strip", "Unscrew the g"),
            "FN-0610": ("strip", "V-rings: as i"),
            "FN-0755": ("inspect", "Inspect: rod"),
            "FN-0756": ("strip", "Gland off the"),
            "FN-5203": ("rebuild", "Set opening p"),
            "FN-4104": ("rebuild", "Cover bolts: "),
            "FN-6107": ("set", "Set effort to"),
            "FN-5510": ("strip", "Coupling clam"),
            "FN-3702": ("release", "Tray and kit "),
            "FN-7203": ("strip", "Cup seal, cyl"),
            "FN-8001": ("rebuild", "Head bolts: 1"),
            "FN-0903": ("test", "Hold on the c"),
            "FN-0611": ("test", "Hold on the p"),
            "FN-4410": ("rebuild", "First pour of"),
            "FN-3322": ("rebuild", "Move the diap"),
            "FN-6680": ("rebuild", "Front gland: "),
            "FN-6801": ("rebuild", "Front head to"),
            "FN-7710": ("kit", "Receive: star"),
            "FN-7711": ("rebuild", "Rod pushed to"),
            "FN-9020": ("rebuild", "Two drops of "),
        }
        past = list_jobs(session, Sought("released"), now).jobs
        assert sorted(job.serial for job in past) == ["FN-5203", "FN-5203", "FN-9019"]
        assert [check_log(session, job) for job in (*jobs.values(), *past)] == [[]] * 28
        assert not any(snapshot_differs(session, job) for job in jobs.values())
        signatories = {
            person.key: len(person.authorisations) for person in all_people(session) if person.authorisations
        }
        assert signatories == {"tamsin": 5}
        assert all(secret_fits(person, shipped_pins()[person.key]) for person in all_people(session))
