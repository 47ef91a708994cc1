"""Build sheets: the demo's are sound, and every fault of a bad one is told with its path."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest
import yaml
from hypothesis import given
from hypothesis import strategies as st

import ironkettle.demo
from ironkettle.core.buildsheets import BuildSheet, gland_of, orientation_of, read_sheet, sheet_schema
from ironkettle.core.errors import RuleError
from ironkettle.core.glands import GlandTables, check_gland
from ironkettle.reference import extrusion_limits, gland_rows, ring_table

SHEETS = sorted((Path(ironkettle.demo.__file__).parent / "sheets").glob("*.yaml"))
TEXT = SHEETS[0].read_text(encoding="utf-8")


@pytest.mark.parametrize("path", SHEETS, ids=lambda path: path.stem)
def test_demo_sheets_are_sound(path: Path) -> None:
    sheet = read_sheet(path.read_text(encoding="utf-8"))
    rejects = [f.message for f in orientation_of(sheet).findings if f.severity == "reject"]
    assert rejects == []
    tables = GlandTables(extrusion_limits(), gland_rows())
    for station in sheet.stations:
        for element in station.elements:
            if element.ring:
                ring = ring_table().find(element.ring.series, element.ring.designation)
                check = check_gland(gland_of(sheet, station), ring, tables)
                assert check.verdict != "reject", (station.key, check.findings)


@pytest.mark.parametrize("path", SHEETS, ids=lambda path: path.stem)
def test_a_sheet_goes_out_as_it_came_in(path: Path) -> None:
    sheet = read_sheet(path.read_text(encoding="utf-8"))
    again = read_sheet(yaml.safe_dump(sheet.model_dump(mode="json", exclude_none=True), allow_unicode=True))
    assert again == sheet


def broken(change: Callable[[dict[str, Any]], object]) -> list[tuple[str, str]]:
    document = yaml.safe_load(TEXT)
    change(document)
    with pytest.raises(RuleError) as caught:
        read_sheet(yaml.safe_dump(document))
    return [(fault.field, fault.message) for fault in caught.value.faults]


@pytest.mark.parametrize(
    ("change", "field", "words"),
    [
        (lambda d: d["stations"][3]["between"].__setitem__(0, "moon"), "stations.3.between.0", "not a zone"),
        (lambda d: d["stations"][3].update(entered_from="moon"), "stations.3.entered_from", "not one of its two"),
        (lambda d: d["stations"][0]["seat"].update(bore="50"), "stations.0.seat.bore", "has no unit"),
        (lambda d: d["stations"][0]["seat"].pop("bore"), "stations.0.seat.bore", "is needed for a piston seat"),
        (
            lambda d: d["stations"][0]["seat"].update(bore="39 mm"),
            "stations.0.seat.groove_diameter",
            "smaller than the bore",
        ),
        (
            lambda d: d["stations"][0]["elements"][0].update(kind="rope"),
            "stations.0.elements.0.kind",
            "Input should be",
        ),
        (
            lambda d: d["stations"][0]["elements"][1].update(slot_mm=[20, 30]),
            "stations.0.elements.1.slot_mm",
            "without overlap",
        ),
        (lambda d: d["stations"][1].update(key="rod-seal"), "stations", "used more than once"),
        (lambda d: d["steps"][1].update(after=["nothing"]), "steps.1.after.0", "not a step"),
        (lambda d: d["steps"][0].update(after=["drain"]), "steps.0.after", "in a circle"),
        (lambda d: d["zones"][0].pop("pressure"), "zones.0.pressure", "needed for a pressure zone"),
        (lambda d: d["tests"][0].update(pressure="400 bar"), "tests.0.pressure", "more than 1.5 times"),
        (lambda d: d["tests"][0].update(zone="moon"), "tests.0.zone", "not a zone"),
        (lambda d: d["kits"][0]["lines"][0].update(element="moon"), "kits.0.lines.0.element", "not a element"),
        (lambda d: d["fasteners"][0].update(low="300 N·m"), "fasteners.0.low", "is above"),
        (lambda d: d["fasteners"][0].update(target="200 N·m"), "fasteners.0.low", "or target alone"),
        (lambda d: d["fasteners"][1].update(passes_pct=[60]), "fasteners.1.passes_pct", "last pass must be 100"),
        (lambda d: d["cylinder"].update(rod="60 mm"), "cylinder.rod", "not smaller than the bore"),
        (lambda d: d.pop("cylinder"), "cylinder", "a step shows a sum"),
        (lambda d: d.update(colour="red"), "colour", "not permitted"),
        (lambda d: d.update(format="other/1"), "format", "Input should be"),
    ],
)
def test_each_fault_has_its_path(change: Callable[[dict[str, Any]], object], field: str, words: str) -> None:
    faults = broken(change)
    assert any(path == field and words in message for path, message in faults), faults


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("a: [1, 2", "cannot be read as YAML at line"),
        ("just words", "not a document with named fields"),
        ("", "not a document with named fields"),
        ("x" * 400_001, "longer than"),
        ("!!python/object:os.system {}", "cannot be read as YAML"),
    ],
)
def test_text_that_is_no_sheet(text: str, words: str) -> None:
    with pytest.raises(RuleError, match=words):
        read_sheet(text)


@given(text=st.text(max_size=200))
def test_any_text_is_refused_in_words(text: str) -> None:
    with pytest.raises(RuleError):
        read_sheet(text)


def test_schema_is_published() -> None:
    schema = sheet_schema()
    assert schema["$schema"].startswith("https://json-schema.org")
    assert set(schema["required"]) >= {"format", "key", "version", "zones", "stations", "steps", "drawing"}
    assert set(schema["properties"]) == set(BuildSheet.model_fields)
