"""What a step opens is loaded by a test of the finished unit. Expected stations follow from which zones a test presses."""

from __future__ import annotations

from typing import Any

import pytest

from ironkettle.core.sheets.soundness.check import check_document
from ironkettle.core.sheets.soundness.proven import proof_of, stations_opened
from tests.tiny import TABLES, UNITS, faults, plug, sheet_of, unit

EVERY = sorted(path.stem for path in UNITS.glob("*.yaml"))
TEST = {"key": "hold", "kind": "function", "name": "Held", "place": "bench", "zone": "oil", "sign": "dry"}


@pytest.mark.parametrize("key", EVERY)
def test_every_station_that_a_shipped_sheet_opens_is_proven_or_says_why_not(key: str) -> None:
    sheet = sheet_of(unit(key))
    proof = proof_of(sheet)
    assert list(proof) == list(stations_opened(sheet))
    for station in sheet.stations:
        tests = proof.get(station.key)
        if tests is not None:
            assert bool(tests) == (station.unproven is None), station.key


def bare(**changes: Any) -> dict[str, Any]:
    return plug(stations__0__unproven=None, **changes)


def test_a_station_that_no_test_loads_is_a_fault_at_its_path() -> None:
    (found,) = check_document(bare(), TABLES).faults
    assert found.field == "stations.0"
    assert "Plug in its bore is opened, and no test of the finished unit loads it" in found.message
    assert faults() == []


@pytest.mark.parametrize(
    ("test", "loads"),
    [
        ({}, True),
        ({"zone": "air"}, True),
        # Pressed on both sides nothing lies across it; as found it was another unit.
        ({"zone": None, "zones": ["oil", "air"]}, False),
        ({"zone": None}, False),
        ({"when": "as_found"}, False),
        ({"when": "both"}, True),
        # Before it is closed a test says nothing of it.
        ({"after": ["wash"]}, False),
        ({"after": ["in"]}, True),
    ],
)
def test_a_test_loads_it_that_presses_one_side_alone_once_it_is_closed(test: dict[str, Any], loads: bool) -> None:
    told = {key: value for key, value in {**TEST, **test}.items() if value is not None}
    document = bare(tests=[told])
    assert proof_of(sheet_of(document)) == {"ring-place": ("hold",) if loads else ()}
    assert [fault.field for fault in check_document(document, TABLES).faults] == ([] if loads else ["stations.0"])


def test_one_that_a_step_runs_counts_from_that_step_on() -> None:
    early = bare(tests=[TEST], steps__2__runs=["hold"])
    assert proof_of(sheet_of(early)) == {"ring-place": ()}
    late = bare(tests=[TEST], steps__3__runs=["hold"])
    assert proof_of(sheet_of(late)) == {"ring-place": ("hold",)}


def test_what_is_never_opened_needs_no_proof() -> None:
    document = bare(steps__1__opens=[], steps__3__closes=[])
    assert proof_of(sheet_of(document)) == {}
    assert not any("no test" in fault.message for fault in check_document(document, TABLES).faults)
