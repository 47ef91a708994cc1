"""Certificate and label."""

from __future__ import annotations

import io
from typing import Any

import pytest
from pypdf import PdfReader

from ironkettle.core.jobs import compose_statement
from ironkettle.core.moves.runs import SampleRead
from ironkettle.reports.certificate import Certified, certificate_pdf
from ironkettle.reports.label import label_svg
from ironkettle.reports.trace import _thinned
from tests.bench import INTAKE, TAMSIN, Job, filled
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
    return Certified(number, "ab" * 32, case, compose_statement(case, job.moves()), names, job.samples)


@pytest.fixture(scope="module")
def worked() -> Job:
    """The ram, found with a reversed lip and without its backup, worked up to its signature."""
    job = Job(sheet_of(unit("swing-bridge-ram")))
    while (move := job.next()) is not None and move.key != "sign":
        job.do(filled(move, **FOUND.get(move.key, {})))
    return job


def test_the_same_log_gives_the_same_bytes(worked: Job) -> None:
    assert certificate_pdf(certified(worked)) == certificate_pdf(certified(worked))


def test_it_tells_what_was_found_left_read_and_by_whom(worked: Job) -> None:
    text = text_of(certificate_pdf(certified(worked)))
    for wanted in (
        "NOT RELEASED",
        "Draft: Repaired as recorded, and tested, and fit for service.",
        "Leak at the rod 12 drops per minute 0 drops per minute",
        "rod lip seal was found reversed",
        "missing",
        "How does the retaining wire end?",
        "Inspection",
        "1: 170 N·m",
        "Hold on the rod side: PASS",
        "limit 0.5 ml/min",
        "Worked on by: Bede Harrowgate",
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


def test_what_was_passed_over_and_a_test_not_run_stand_on_it(worked: Job) -> None:
    job = Job(sheet_of(unit("swing-bridge-ram")))
    job.walk(until=lambda move: move.key == "test:rod-side-hold:as_left")
    reason = "stand is away, tested on the bridge"
    job.do({"kind": "move_skipped", "move": "test:rod-side-hold:as_left", "reason": reason})
    text = text_of(certificate_pdf(certified(job)))
    assert f"Passed over: Hold on the rod side. {reason}." in text
    assert "Hold on the rod side: not run" in text


def test_a_signed_one_names_the_signer_and_is_no_draft(worked: Job) -> None:
    signed = Job(worked.sheet, intake=False)
    signed.entries, signed.samples, signed.now = list(worked.entries), dict(worked.samples), worked.now
    signed.author = TAMSIN
    signed.walk()
    text = text_of(certificate_pdf(certified(signed)))
    assert "Released and signed by Tamsin Orrell" in text
    assert "NOT RELEASED" not in text
    assert "Next service: reseal every 12 months or 4,000 swings" in text


def test_words_of_the_shop_cannot_break_the_page() -> None:
    job = Job(sheet_of(unit("header-tank-valve")), intake=False)
    job.do({**INTAKE, "unit": "<b>valve</b> & co", "serial": "<FN>"})
    assert "<b>valve</b> & co" in text_of(certificate_pdf(certified(job)))
    assert "&lt;FN&gt;" in label_svg(7, "<FN>", "0" * 64)


def test_a_long_trace_is_thinned_without_losing_its_dips() -> None:
    read = [SampleRead(t_s=float(t), pressure_mpa=18.0) for t in range(500_000)]
    read[123_456] = SampleRead(t_s=123_456.0, pressure_mpa=17.2)
    thin = _thinned(read)
    assert len(thin) < 1100
    assert min(one.pressure_mpa for one in thin) == 17.2
    assert [one.t_s for one in thin] == sorted({one.t_s for one in thin})
    assert (thin[0].t_s, thin[-1].t_s) == (0.0, 499_999.0)
