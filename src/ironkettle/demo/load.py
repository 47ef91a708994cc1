"""Load the demo data once: sheets, people, tools and the job waiting on the bench."""

from __future__ import annotations

import uuid
from datetime import UTC, datetime, timedelta
from functools import cache
from pathlib import Path
from typing import Any

from sqlalchemy import text
from sqlalchemy.orm import Session

from ironkettle.core.jobs import next_task, read_payload
from ironkettle.core.jobs.kinds.begin import begin_entry
from ironkettle.core.sheets.document import Sheet
from ironkettle.core.sheets.document.text import read_document
from ironkettle.core.shop.letterhead import Letterhead
from ironkettle.core.shop.people import Authority, Role
from ironkettle.demo.simulated import from_stand, simulated_trace
from ironkettle.demo.walker import filled
from ironkettle.store.jobs.logs import NewEntry, append_entry
from ironkettle.store.jobs.rows import open_job
from ironkettle.store.sheets.rows import add_sheet, load_sheet
from ironkettle.store.shop.letterhead import keep_letterhead
from ironkettle.store.shop.people import AuthorisationRow, Person, all_people, find_person, set_secret
from ironkettle.store.shop.settings import settings_in_force
from ironkettle.store.shop.stock import StockItem
from ironkettle.store.shop.tables import Shop, shop_of
from ironkettle.store.shop.tools import GaugeTool, WrenchTool
from ironkettle.store.shop.units import CounterRow, register, update_dues

_HERE = Path(__file__).parent
_MOST_ENTRIES = 400
_LEAD = "tamsin"
_NAMESPACE = uuid.UUID("6b1f6e8a-6f4e-5a34-9c61-0d3c7f6a9a11")


def load_demo(session: Session) -> bool:
    """Load everything into an empty workshop; False when there are people already."""
    if all_people(session):
        return False
    workshop = _workshop()
    # Between its statements it walks whole jobs: a slow machine is not idle.
    session.execute(text("SET LOCAL idle_in_transaction_session_timeout = 0"))
    for path in sorted((_HERE / "sheets").glob("*.yaml")):
        # Shipped sheets are proved by the tests, not at every first start.
        add_sheet(session, Sheet.model_validate(read_document(path.read_text(encoding="utf-8"))))
    for person in workshop["people"]:
        _load_person(session, person)
    keep_letterhead(session, Letterhead.model_validate(workshop["letterhead"]), _LEAD, datetime.now(UTC))
    session.add_all(WrenchTool(**wrench) for wrench in workshop["wrenches"])
    session.add_all(GaugeTool(**gauge) for gauge in workshop["gauges"])
    session.add_all(StockItem(**item) for item in workshop["stock"])
    session.flush()
    shop = shop_of(session)
    for document in workshop["units"]:
        _load_unit(session, document)
    for index, job in enumerate(workshop["jobs"]):
        _load_job(session, index, job, shop)
    return True


@cache
def shipped_pins() -> dict[str, str]:
    """The PINs the demo's people come with, by key; they stand in the README too."""
    return {person["key"]: person["pin"] for person in _workshop()["people"]}


@cache
def _workshop() -> dict[str, Any]:
    return read_document((_HERE / "workshop.yaml").read_text(encoding="utf-8"), "workshop")


def _load_person(session: Session, document: dict[str, Any]) -> None:
    now = datetime.now(UTC)
    person = Person(key=document["key"], name=document["name"], role=Role(document["role"]))
    set_secret(person, document["pin"], shipped=True)
    session.add(person)
    session.flush()
    for authority in document.get("authorities", []):
        # A year from the day it is loaded, so that the demo can always be signed.
        until = (now + timedelta(days=365)).date()
        row = AuthorisationRow(authority=Authority(authority), until=until, granted_by=person.key, granted_at=now)
        person.authorisations.append(row)


def _load_unit(session: Session, document: dict[str, Any]) -> None:
    """A tool that carries a label, with what its counters stood at some days ago."""
    now = datetime.now(UTC)
    first = now - timedelta(days=document["days_ago"])
    unit = register(session, document["sheet"], document["serial"], document["name"], document["customer"], first)
    unit.by_hand = True
    for counter, readings in document["counters"].items():
        for days_ago, value in readings:
            key = uuid.uuid5(_NAMESPACE, f"{document['serial']} {counter} {days_ago}")
            at = now - timedelta(days=days_ago)
            row = CounterRow(id=key, unit_id=unit.id, counter=counter, value=value, at=at, who="bede", source="typed")
            session.add(row)
    session.flush()
    update_dues(session, unit, now)


def _load_job(session: Session, index: int, job: dict[str, Any], shop: Shop) -> None:
    """A job taken in by the loader and walked by its tasks to its point, with what was found on the way.

    Raises LookupError for a sheet, a person or a task that is not in the demo.
    """
    sheet = load_sheet(session, job["sheet"])
    person = find_person(session, job["who"])
    if sheet is None or person is None:
        raise LookupError(f"demo job {index} names a sheet or person that is not in the demo")
    author = person.author()
    start = datetime.now(UTC) - timedelta(hours=job.get("hours_ago", 3), days=job.get("days_ago", 0))
    job_id = uuid.uuid5(_NAMESPACE, f"job {index}")
    open_job(session, job_id, sheet, settings_in_force(session), start)
    # What was found is found once: measured again after dressing it is as it should be.
    waited = timedelta()
    payload, found = {"kind": "intake_recorded", **job["intake"]}, dict(job.get("found", {}))
    for count in range(_MOST_ENTRIES):
        moment = start + waited + timedelta(minutes=job.get("minutes", 2) * count)
        entry = NewEntry(uuid.uuid5(job_id, str(count)), moment, read_payload(payload))
        done = append_entry(session, job_id, entry, author, shop, moment)
        task = next_task(done.tasks)
        if task is None and job["until"] == "released":
            return
        if task is None:
            break
        if task.key == job["until"]:
            if "run" in job:
                run = filled(task, samples=simulated_trace(sheet, task, **job["run"]))
                last = NewEntry(uuid.uuid5(job_id, "run"), moment, read_payload(run))
                append_entry(session, job_id, last, author, shop, moment)
            return
        if task.lasts is not None and task.until is None:
            payload = begin_entry(task.key)
            continue
        if task.until is not None:
            waited += max(task.until - moment, timedelta())
        payload = filled(task, **from_stand(found.pop(task.key, {})))
    raise LookupError(f"demo job {index} does not come to {job['until']}")
