"""Load the demo data once: sheets, people, tools and the job waiting on the bench."""

from __future__ import annotations

import uuid
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

import yaml
from sqlalchemy.orm import Session

from ironkettle.core.buildsheets import read_sheet
from ironkettle.core.jobs import Author, Bench
from ironkettle.core.jobs.entries import IntakeRecorded
from ironkettle.reference import fluids, ring_table
from ironkettle.store.jobs import NewEntry, append_entry, open_job
from ironkettle.store.people import Person, all_people, find_person
from ironkettle.store.seals import SealItem
from ironkettle.store.sheets import add_sheet, load_sheet
from ironkettle.store.tools import GaugeTool, WrenchTool

_HERE = Path(__file__).parent
_NAMESPACE = uuid.UUID("6b1f6e8a-6f4e-5a34-9c61-0d3c7f6a9a11")


def load_demo(session: Session) -> bool:
    """Load everything into an empty workshop; False when there are people already."""
    if all_people(session):
        return False
    workshop: dict[str, Any] = yaml.safe_load((_HERE / "workshop.yaml").read_text(encoding="utf-8"))
    for path in sorted((_HERE / "sheets").glob("*.yaml")):
        add_sheet(session, read_sheet(path.read_text(encoding="utf-8")))
    session.add_all(Person(**person) for person in workshop["people"])
    session.add_all(WrenchTool(**wrench) for wrench in workshop["wrenches"])
    session.add_all(GaugeTool(**gauge) for gauge in workshop["gauges"])
    session.add_all(SealItem(**seal) for seal in workshop["seals"])
    session.flush()
    bench = Bench(ring_table(), fluids())
    for index, job in enumerate(workshop["jobs"]):
        _load_job(session, index, job, bench)
    return True


def _load_job(session: Session, index: int, job: dict[str, Any], bench: Bench) -> None:
    sheet = load_sheet(session, job["sheet"])
    person = find_person(session, job["who"])
    if sheet is None or person is None:
        raise LookupError(f"demo job {index} names a sheet or person that is not in the demo")
    now = datetime.now(UTC)
    job_id = uuid.uuid5(_NAMESPACE, f"job {index}")
    open_job(session, job_id, sheet, now)
    entry = NewEntry(uuid.uuid5(job_id, "intake"), now, IntakeRecorded(**job["intake"]))
    append_entry(session, job_id, entry, Author(person.key, person.name, person.may_release), bench, now)
