"""Certificate and label."""

from __future__ import annotations

import io
from dataclasses import replace
from typing import Any

import pytest
from pypdf import PdfReader
from reportlab.graphics.shapes import Rect

from ironkettle.core.jobs import compose_statement
from ironkettle.core.machine.pressure import Sample
from ironkettle.core.sheets.drawing import picture
from ironkettle.core.shop.letterhead import Letterhead
from ironkettle.reports.certificate import Certified, certificate_pdf
from ironkettle.reports.label import JobLabel, job_label_svg
from ironkettle.reports.section import first_of_each
from ironkettle.reports.trace import trace_drawing
from tests.bench import INTAKE, TABLES, TAMSIN, Job, filled, trace
from tests.tiny import sheet_of, unit

FOUND: dict[str, dict[str, Any]] = {
    "observe:rod-leak:as_found": {"value": "12"},
    "find:rod-lip": {"faced": "outside"},
    "find:gland-backup": {"present": False, "faced": None, "note": "nothing beside the ring"},
    "observe:rod-leak:as_left": {"value": "0"},
}


def text_of(content: bytes) -> str:
    return " ".join(" ".join(page.extract_text() for page in PdfReader(io.BytesIO(content)).pages).split())


def certified(job: Job, number: int = 1001) -> Certified:
    case = job.case()
    names = {"bede": "Bede Harrowgate", "tamsin": "Tamsin Orrell"}
    return Certified(number, "ab" * 32, case, compose_statement(case, job.tasks()), names, job.samples)


@pytest.fixture(scope="module")
def worked() -> Job:
    """The ram, found with a reversed lip and without its backup, worked up to its signature."""
    job = Job(sheet_of(unit("swing-bridge-ram")))
    while (task := job.next()) is not None and task.key != "sign":
        job.take(task, **FOUND.get(task.key, {}))
    return job


def test_the_same_log_gives_the_same_bytes(worked: Job) -> None:
    assert certificate_pdf(certified(worked)) == certificate_pdf(certified(worked))


def test_it_tells_what_was_found_left_read_and_by_whom(worked: Job) -> None:
    text = text_of(certificate_pdf(certified(worked)))
    for wanted in (
        "NOT RELEASED",
        "Draft, not signed: Repaired as recorded, and tested, and fit for service.",
        "Leak at the rod 12 drops per minute 0 drops per minute",
        "rod lip seal was found reversed",
        "missing",
        "How does the retaining wire end?",
        "Inspection",
        "1: 170 N·m",
        "Hold on the rod side: PASS",
        "limit 0.5 ml/min",
        "Worked on by Bede Harrowgate",
        "ab" * 32,
        "licensed practice win",
    ):
        assert wanted in text, wanted


def test_what_was_seen_as_found_is_what_was_seen_first() -> None:
    job = Job(sheet_of(unit("swing-bridge-ram")))
    note = {"kind": "observation_noted", "observation": "rod-leak", "when": "as_found", "value": "12"}
    job.do(note)
    job.do(note | {"value": "3"})
    assert "12 drops per minute" in text_of(certificate_pdf(certified(job)))


def test_what_was_skipped_and_a_test_not_run_stand_on_it(worked: Job) -> None:
    job = Job(sheet_of(unit("swing-bridge-ram")))
    job.walk(until=lambda task: task.key == "test:rod-side-hold:as_left")
    reason = "stand is away, tested on the bridge"
    job.do({"kind": "task_skipped", "task": "test:rod-side-hold:as_left", "reason": reason})
    text = text_of(certificate_pdf(certified(job)))
    assert f"Skipped: Hold on the rod side. {reason}." in text
    assert "Hold on the rod side: not run" in text


def test_a_signed_one_names_the_signer_and_is_no_draft(worked: Job) -> None:
    signed = Job(worked.sheet, intake=False)
    signed.entries, signed.samples, signed.now = list(worked.entries), dict(worked.samples), worked.now
    signed.author = TAMSIN
    signed.walk()
    text = text_of(certificate_pdf(certified(signed)))
    assert "Released and signed by Tamsin Orrell" in text
    assert "NOT RELEASED" not in text
    # Signed on 24 November 2026, a year before the next.
    assert "Next service: reseal by 2027-11-24 or after 4,000 swings, whichever comes first" in text


def test_words_of_the_shop_cannot_break_the_page() -> None:
    job = Job(sheet_of(unit("header-tank-valve")), intake=False)
    job.do({**INTAKE, "unit": "<b>valve</b> & co", "serial": "<FN>"})
    assert "<b>valve</b> & co" in text_of(certificate_pdf(certified(job)))
    label = job_label_svg(JobLabel(7, "<b>valve</b>", "<FN>", "", "", "JOB 7"))
    assert "&lt;FN&gt;" in label
    assert "<b>" not in label


def shaded(judged: tuple[float, float]) -> list[tuple[float, float]]:
    """From where to where a trace of 0 to 100 s is shaded, in hundredths of its width."""
    read = [Sample(float(t), 18.0) for t in range(101)]
    drawing = trace_drawing(read, judged, 180.0, 450.0, 84.0)
    boxes = [content for content in drawing.contents if isinstance(content, Rect)]
    # The time runs from 44 to 6 before the right edge: 400 points.
    return [(round((box.x - 44) / 4), round((box.x - 44 + box.width) / 4)) for box in boxes]


@pytest.mark.parametrize(
    ("judged", "shades"),
    [((0, 100), [(0, 0), (100, 100)]), ((20, 80), [(0, 20), (80, 100)]), ((20, 300), [(0, 20), (100, 100)])],
)
def test_the_part_of_a_trace_that_was_not_judged_is_shaded(
    judged: tuple[float, float], shades: list[tuple[float, float]]
) -> None:
    assert shaded(judged) == shades


def test_what_was_wrong_with_the_stand_stands_beside_the_verdict() -> None:
    job = Job(sheet_of(unit("swing-bridge-ram")))
    job.walk(until=lambda task: task.key == "test:rod-side-hold:as_left")
    task, run = job.task("test:rod-side-hold:as_left"), "00000000-0000-0000-0000-000000000005"
    gauge = dict(task.entry)["gauge"]
    job.do({"kind": "test_started", "test": "rod-side-hold", "run": run, "gauge": gauge, "source": "stand"})
    read = list(trace(**dict(task.asks[0].needs or {})))
    job.do({"kind": "test_samples", "run": run, "samples": read[:20], "hold": 7, "said": ["Pressure jumped"]})
    job.do({"kind": "test_samples", "run": run, "samples": read[20:], "hold": 7, "said": ["the cable was out"]})
    job.do({"kind": "test_closed", "run": run, "collected": "0.1 ml"})
    text = text_of(certificate_pdf(certified(job)))
    assert "Of the recording: Pressure jumped" in text
    assert "Of the recording: the cable was out" in text
    assert "temperature corrected, 24.0 to 24.0 °C" in text


def test_a_setting_tells_what_was_wanted_read_and_left() -> None:
    job = Job(sheet_of(unit("fuel-injector")))
    job.walk(until=lambda task: task.key == "set:opening")
    told = filled(
        job.task("set:opening"),
        value="284 bar",
        locked="284 bar",
        readings=[{"turns": 0.0, "value": "252 bar"}, {"turns": 0.25, "value": "284 bar"}],
    )
    job.do(told)
    text = text_of(certificate_pdf(certified(job)))
    assert "+0 turns: 252 bar; +0.25 turns: 284 bar" in text
    assert "set to 284 bar, 284 bar once locked" in text


def pages_of(content: bytes) -> list[str]:
    return [" ".join(page.extract_text().split()) for page in PdfReader(io.BytesIO(content)).pages]


def test_whatever_is_written_the_signature_stays_on_the_first_page_and_nothing_is_lost(worked: Job) -> None:
    signed = Job(worked.sheet, intake=False)
    signed.entries, signed.samples, signed.now = list(worked.entries), dict(worked.samples), worked.now
    signed.author = TAMSIN
    signed.do({**INTAKE, "complaint": "It leaks, and " * 100, "unit": "A unit with a name of eighty letters " * 2})
    signed.walk()
    plain = certified(signed)
    remarks = [f"Remark {number}: {'the pin was worn and was left as it is, ' * 8}" for number in range(40)]
    head = Letterhead(name="A shop " * 11, address=("A line of the address",) * 12, contact="telephone " * 15)
    first, second, *_ = pages_of(
        certificate_pdf(replace(plain, statement=(plain.statement[0], *remarks), letterhead=head))
    )
    assert "Released and signed by Tamsin Orrell" in first
    assert "more: see the next page" in first
    assert "in full on the next page" in first
    rest = " ".join(pages_of(certificate_pdf(replace(plain, statement=(plain.statement[0], *remarks))))[1:])
    for remark in remarks:
        assert remark.split(":")[0] + ":" in rest
    assert "Technical record" in second


def test_what_is_there_several_times_has_one_number_in_the_drawing() -> None:
    # Three boxes of three places each are drawn in one spot.
    whole = picture(Job(sheet_of(unit("jetting-pump-box"))).resolved.sheet, TABLES.rings)
    shown = first_of_each(whole)
    assert len(whole.stations) == 9
    assert [station.name for station in shown.stations] == [
        "Packing of the plunger, box 1", "Lantern ring and wiper in the nut, box 1", "Nut in the box, box 1",
    ]  # fmt: skip
    # One thread has a sealant, which is not drawn.
    assert {element.station for element in shown.elements} == {"packing@1", "nut-wiper@1"}
    ram = picture(sheet_of(unit("swing-bridge-ram")), TABLES.rings)
    assert first_of_each(ram) == ram


def test_the_pdf_says_what_it_is_when_it_was_signed_and_in_which_language(worked: Job) -> None:
    report = replace(certified(worked), letterhead=Letterhead(name="Lock Gate Workshop"))
    reader = PdfReader(io.BytesIO(certificate_pdf(report)))
    assert reader.metadata is not None
    assert reader.metadata.title == "Repair certificate, job 1001"
    assert reader.metadata.author == "Lock Gate Workshop"
    assert reader.metadata.creation_date == report.case.now.replace(microsecond=0)
    assert reader.trailer["/Root"]["/Lang"] == "en-GB"
    count = len(reader.pages)
    assert [
        f"page {number} of {count}" in text for number, text in enumerate(pages_of(certificate_pdf(report)), 1)
    ] == [True] * count
