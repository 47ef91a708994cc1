"""The label: well-formed whatever the serial, with what a scanner needs."""

from __future__ import annotations

import xml.etree.ElementTree as ET

from hypothesis import given
from hypothesis import strategies as st

from ironkettle.reports.label import label_svg

HEAD = "3127b148c20d5fa5" + "0" * 48


def words(svg: str) -> list[str]:
    return [text for element in ET.fromstring(svg).iter() if (text := (element.text or "").strip())]


def test_number_serial_and_seal_stand_on_it() -> None:
    svg = label_svg(1001, "FN-0417", HEAD)
    assert words(svg) == ["Job 1001", "FN-0417", "seal 3127b148c20d5fa5", "Iron Kettle"]
    assert 'width="70mm"' in svg
    assert label_svg(1001, "FN-0417", HEAD) == svg


@given(st.text(st.characters(codec="utf-8", exclude_categories=["Cs", "Cc"]), max_size=120))
def test_any_serial_makes_a_well_formed_label(serial: str) -> None:
    root = ET.fromstring(label_svg(7, serial, HEAD))
    assert root.tag.endswith("svg")


def test_the_code_changes_with_the_seal() -> None:
    other = label_svg(1001, "FN-0417", "f" * 64)
    assert other.split("seal ")[0] != label_svg(1001, "FN-0417", HEAD).split("seal ")[0]
