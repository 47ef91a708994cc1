"""Figures of any unit: the proof of its zones, its picture, its tasks with a short log and with a long one."""

from __future__ import annotations

import uuid
from collections.abc import Iterator
from datetime import UTC, datetime
from pathlib import Path

import shapely

import ironkettle.demo
from ironkettle.benchmarks.timing import median_time
from ironkettle.core.jobs import Case, Mark, Payload, Tables, fold, read_payload, resolve, tasks_of
from ironkettle.core.jobs.kinds.full_job import quick_service_in
from ironkettle.core.jobs.kinds.question import answers_in
from ironkettle.core.sheets.document.answers import answered, first_answers
from ironkettle.core.sheets.document.sheet import Sheet
from ironkettle.core.sheets.document.text import read_document
from ironkettle.core.sheets.drawing.picture import picture
from ironkettle.core.sheets.drawing.proof import prove
from ironkettle.core.sheets.drawing.section import Section, section, views_of
from ironkettle.reference import ring_table, shipped_tables

Figure = tuple[str, float, float]
_UNIT = "swing-bridge-ram"
SHORT_LOG, LONG_LOG = 20, 1000


def figures() -> Iterator[Figure]:
    """Each as its time beside a floor taken in the same run."""
    path = Path(ironkettle.demo.__file__).parent / f"sheets/{_UNIT}.yaml"
    sheet = Sheet.model_validate(read_document(path.read_text(encoding="utf-8")))
    plain = answered(sheet, first_answers(sheet, {}))
    drawn = section(plain, views_of(plain)[0])
    floor = median_time(lambda: bare_spaces(drawn))
    yield "proof of the latch ram's zones / subtracting its areas once", median_time(lambda: prove(sheet), 10), floor
    rings = ring_table()
    yield "picture of the latch ram / subtracting its areas once", median_time(lambda: picture(plain, rings), 10), floor
    shipped = shipped_tables()
    tables = Tables(
        shipped.rings,
        shipped.fluids,
        shipped.glands,
        shipped.failures,
        shipped.fasteners,
        shipped.cleaning,
        shipped.settings,
    )
    short, long = (_case(sheet, tables, length) for length in (SHORT_LOG, LONG_LOG))
    yield (
        f"tasks after {LONG_LOG:,} entries / after {SHORT_LOG}",
        median_time(lambda: tasks_of(long), 10),
        median_time(lambda: tasks_of(short), 10),
    )
    log = _log(LONG_LOG)
    yield (
        f"state from {LONG_LOG:,} entries / walking the list",
        median_time(lambda: fold(log)),
        median_time(lambda: walk(log)),
    )


def bare_spaces(drawn: Section) -> object:
    """The open spaces of a section: its areas taken from the envelope, and nothing else."""
    return shapely.difference(drawn.envelope, shapely.union_all([drawn.base, *(seat.box.area for seat in drawn.seats)]))


def _log(length: int) -> list[tuple[Payload, Mark]]:
    now = datetime.now(UTC)
    documents = (
        {"kind": "step_done", "step": "isolate"},
        {"kind": "note_made", "text": "turned, cleaned, looked at"},
        {"kind": "observation_noted", "observation": "rod-leak", "when": "as_found", "value": "12"},
    )
    payloads = [read_payload(document) for document in documents]
    return [(payloads[i % 3], Mark(uuid.uuid4(), i + 1, "bede", now)) for i in range(length)]


def _case(sheet: Sheet, tables: Tables, length: int) -> Case:
    state = fold(_log(length))
    return Case(resolve(sheet, answers_in(state), quick_service_in(state)), state, tables, datetime.now(UTC))


def walk(log: list[tuple[Payload, Mark]]) -> int:
    return sum(payload is not None for payload, _ in log)
