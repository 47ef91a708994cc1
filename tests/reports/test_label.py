"""The label of a job: well-formed whatever stands on it, with what a hand and a scanner need."""

from __future__ import annotations

import xml.etree.ElementTree as ET
from dataclasses import replace

from hypothesis import given
from hypothesis import strategies as st

from ironkettle.reports.label import JobLabel, job_label_svg, unit_label_svg

LABEL = JobLabel(
    number=1001, unit="Swing bridge latch ram, east abutment", serial="FN-0417", day="24 Nov 2026",
    due="reseal by 24 Nov 2027 or after 4,000 swings, whichever comes first", check="https://kettle.example/check?job=1001",
)  # fmt: skip
TEXT = st.text(st.characters(codec="utf-8", exclude_categories=["Cs", "Cc"]), max_size=120)


def words(svg: str) -> list[str]:
    return [text for element in ET.fromstring(svg).iter() if (text := (element.text or "").strip())]


def test_unit_serial_job_day_and_next_service_stand_on_it() -> None:
    svg = job_label_svg(LABEL)
    assert words(svg) == [
        "Swing bridge latch", "ram, east abutment", "serial FN-0417", "job 1001, 24 Nov 2026", "next: reseal by 24 Nov 2027",
        "or after 4,000 swings, …",
    ]  # fmt: skip
    assert 'width="70mm"' in svg
    assert job_label_svg(LABEL) == svg


def test_what_is_not_signed_says_so_and_nothing_of_a_next_service() -> None:
    told = words(job_label_svg(replace(LABEL, day="", due="")))
    assert told[-1] == "job 1001, not signed"
    assert not any("next" in line for line in told)


@given(unit=TEXT, serial=TEXT, due=TEXT)
def test_any_text_makes_a_well_formed_label_that_stays_in_its_frame(unit: str, serial: str, due: str) -> None:
    root = ET.fromstring(job_label_svg(replace(LABEL, unit=unit, serial=serial, due=due)))
    lines = [element for element in root.iter() if element.tag.endswith("text")]
    assert all(float(line.attrib["y"]) <= 29 for line in lines)
    assert all(len(line.text or "") <= 29 for line in lines)


def test_the_code_changes_with_what_it_says() -> None:
    assert job_label_svg(LABEL) != job_label_svg(replace(LABEL, check="JOB 1002"))


def test_the_label_of_a_unit_has_its_code_to_be_typed() -> None:
    assert words(unit_label_svg("https://kettle.example/u/K7QF-3ZTM24", "K7QF-3ZTM24", "Needle scaler 4", "FN-9019")) == [
        "K7QF-3ZTM24", "Needle scaler 4", "FN-9019",
    ]  # fmt: skip
