"""Certificate and label."""

from __future__ import annotations

import io

from pypdf import PdfReader

from ironkettle.reports.certificate import certificate_pdf
from ironkettle.reports.label import label_svg
from tests import walk
from tests.core.jobs.test_state import BENCH, FULL, SHEET, entries

NAMES = {"bede": "Bede Harrowgate"}


def text_of(content: bytes) -> str:
    return "\n".join(page.extract_text() for page in PdfReader(io.BytesIO(content)).pages)


def test_the_same_log_gives_the_same_bytes() -> None:
    one = certificate_pdf(1001, "ab" * 32, SHEET, FULL, BENCH, NAMES)
    assert one == certificate_pdf(1001, "ab" * 32, SHEET, FULL, BENCH, NAMES)


def test_it_tells_what_was_found_left_read_and_by_whom() -> None:
    text = text_of(certificate_pdf(1001, "ab" * 32, SHEET, FULL, BENCH, NAMES))
    for wanted in (
        "NOT RELEASED",
        "12 drops per minute",
        "0 drops per minute",
        "rod lip seal was found reversed",
        "missing",
        "AS568 224",
        "1: 202 N·m",
        "Hold on the rod side: PASS",
        "limit 0.5 ml/min",
        "Worked on by: Bede Harrowgate",
        "ab" * 32,
        "licensed practice win",
    ):
        assert wanted in text, wanted


def test_a_stage_passed_over_and_a_test_not_run_stand_on_it() -> None:
    skipped = {"kind": "stage_skipped", "stage": "test", "reason": "stand is away, tested on the bridge"}
    log = entries([FULL[0].payload.model_dump(mode="json"), skipped])
    text = text_of(certificate_pdf(7, "0" * 64, SHEET, log, BENCH, NAMES))
    assert "Went on without finishing test: stand is away" in text
    assert "Hold on the rod side: not run" in text


def test_words_of_the_shop_cannot_break_the_page() -> None:
    intake = {**FULL[0].payload.model_dump(mode="json"), "unit": "<b>ram</b> & co", "serial": "<FN>"}
    text = text_of(certificate_pdf(7, "0" * 64, SHEET, entries([intake]), BENCH, NAMES))
    assert "<b>ram</b> & co" in text
    assert "&lt;FN&gt;" in label_svg(7, "<FN>", "0" * 64)


def test_the_walk_used_here_is_the_whole_one() -> None:
    assert len(FULL) == 1 + len(list(walk.payloads()))
