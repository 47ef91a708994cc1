"""Twenty hostile sheets with figures of another kind: each is refused at its path; what is stored already is still read."""

from __future__ import annotations

import copy
from typing import Any

import pytest

from ironkettle.core.sheets.document import upgraded_document
from ironkettle.core.sheets.document.strays import without_strays
from ironkettle.core.sheets.soundness.check import check_document
from tests.tiny import TABLES, plug

HOLD = {
    "key": "hold", "kind": "pressure_hold", "name": "Hold", "pressure": "4 bar", "volume": "20 ml",
    "medium": "mineral oil ISO VG 46", "leak_limit": "1 ml/min",
}  # fmt: skip
OPENING = {"key": "open", "kind": "opening_pressure", "name": "Opening", "value": "4 bar ±0.2"}
COUNT = {"key": "drops", "kind": "count", "name": "Drops", "what": "drops", "limit": "at most 2 /min"}
POINT = {"key": "look", "ask": "Scored?", "read": "look", "bad": ["scored"]}
WEAR = {"key": "wear", "ask": "Wear", "read": "length", "limit": "at most 0.05 mm"}


def with_test(test: dict[str, Any], **stray: Any) -> dict[str, Any]:
    return plug(tests=[{**test, **stray}])


def with_point(point: dict[str, Any], **stray: Any) -> dict[str, Any]:
    sheet = plug()
    sheet["parts"][0]["points"] = [{**point, **stray}]
    return sheet


def with_phase(**phase: Any) -> dict[str, Any]:
    return plug(fasteners=[{"key": "nut", "name": "Nut", "thread": "M10", "phases": [phase]}])


def with_setting(**setting: Any) -> dict[str, Any]:
    return plug(settings=[{"key": "set", "name": "Set", **setting}])


def with_seat(**stray: Any) -> dict[str, Any]:
    sheet = plug()
    sheet["stations"][0]["seats"][0].update(stray)
    return sheet


def with_step(stage: str, **stray: Any) -> dict[str, Any]:
    sheet = plug()
    step = next(one for one in sheet["steps"] if one["stage"] == stage)
    step.update(stray)
    return sheet


def place_of(stage: str) -> int:
    return next(place for place, one in enumerate(plug()["steps"]) if one["stage"] == stage)


STRAYS: list[tuple[dict[str, Any], str]] = [
    (with_test(OPENING, lock_up="1 bar"), "tests.0.lock_up"),
    (with_test(OPENING, limit="1 ml/min"), "tests.0.limit"),
    (with_test(HOLD, limit="1 ml/min"), "tests.0.limit"),
    (with_test(HOLD, value="4 bar"), "tests.0.value"),
    (with_test(HOLD, seconds=60), "tests.0.seconds"),
    (with_test({**HOLD, "kind": None}, droop={"limit": "1 bar"}), "tests.0"),
    (with_test(COUNT, leak_limit="1 ml/min"), "tests.0.leak_limit"),
    (with_test(COUNT, hold="10 min"), "tests.0.hold"),
    (with_point(POINT, limit="at most 0.05 mm"), "parts.0.points.0.limit"),
    (with_point(POINT, nominal="28 mm"), "parts.0.points.0.nominal"),
    (with_point(WEAR, bad=["scored"]), "parts.0.points.0.bad"),
    (with_phase(to="hand", low="4 N·m", high="5 N·m"), "fasteners.0.phases.0.low"),
    (with_phase(to="turns", turns=0.5, slots=6), "fasteners.0.phases.0.slots"),
    (with_phase(to="torque", target="5 N·m", back=True), "fasteners.0.phases.0.back"),
    (with_phase(to="stop", gap=["1 mm", "2 mm"]), "fasteners.0.phases.0.gap"),
    (with_setting(kind="contact", contact={"until": "it touches"}, target={"reading": "pressure", "value": "4 bar"}), "settings.0.target"),
    (with_setting(kind="edge", edge={"open": "clockwise", "sign": "it hisses", "close_plus_deg": 10}, preset={}), "settings.0.preset"),
    (with_seat(groove_depth="2 mm"), "stations.0.seats.0.groove_depth"),
    (with_seat(thickness="2 mm"), "stations.0.seats.0.thickness"),
    (with_step("strip", closes=["seat"]), f"steps.{place_of('strip')}.closes"),
    (with_step("rebuild", opens=["seat"]), f"steps.{place_of('rebuild')}.opens"),
]  # fmt: skip


@pytest.mark.parametrize(("sheet", "path"), STRAYS, ids=[f"{place} {path}" for place, (_, path) in enumerate(STRAYS)])
def test_a_figure_of_another_kind_is_a_fault_at_its_path(sheet: dict[str, Any], path: str) -> None:
    found = check_document(sheet, TABLES)
    assert path in {fault.field for fault in found.faults}


def test_a_sheet_that_was_stored_with_such_figures_is_still_read_and_loses_nothing_else() -> None:
    stored = copy.deepcopy(plug(tests=[{**OPENING, "lock_up": "1 bar"}, HOLD]))
    stored["stations"][0]["seats"][0]["thickness"] = "2 mm"
    sheet = upgraded_document(stored)
    assert [test.key for test in sheet.tests] == ["open", "hold"]
    assert not hasattr(sheet.tests[0], "lock_up")
    clean = plug(tests=[OPENING, HOLD])
    assert sheet == upgraded_document(clean)
    assert without_strays(clean) == clean
