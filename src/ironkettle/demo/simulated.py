"""What the demo's tests read: taken from the simulated stand, so that a leak, a creep or a weak spring shows as it would."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from ironkettle.core.base.quantities import find_unit, from_base, read_gauge_pressure
from ironkettle.core.jobs import Task
from ironkettle.core.sheets.document import Sheet
from ironkettle.core.sheets.document.trials import HoldTest
from ironkettle.core.simulation import RIGS, Liquid, LiquidVolume, OilUnit, Opening, Stand

# What the hoses of the stand give, for each millilitre of the unit. [1/MPa]
_HOSES_PER_ML = 1e-4
_STEP_S, _MOST_STEPS, _STEPS_A_MINUTE, _BREATH_S = 0.02, 200_000, 3000, 4.0


def simulated_trace(
    sheet: Sheet, task: Task, rod_um: float = 0.0, bypass_um: float = 0.0, longer: float = 1.0
) -> list[dict[str, float]]:
    """The readings that a hold of the simulated stand gives, as often as the task asks for and so many times as long. [µm]"""
    needs = dict(task.asks[0].needs or {})
    spec = next(test for test in sheet.tests if isinstance(test, HoldTest) and test.key == task.subject)
    volume = spec.volume.value
    unit = LiquidVolume(Liquid(), volume, hoses=_HOSES_PER_ML * volume)
    stand = Stand(OilUnit(unit), {"rod_gap": rod_um, "bypass_gap": bypass_um})
    stand.raise_to(needs["pressure_mpa"], 1)
    while not stand.shut:
        stand.advance(0.1)
    readings = []
    for place in range(int(longer * needs["seconds"] / needs["every_s"]) + 1):
        shown = stand.shows(needs["every_s"])
        readings.append(
            {
                "t_s": place * needs["every_s"],
                "pressure_mpa": round(shown["pressure"], 3),
                "temperature_c": round(shown["temperature"], 1),
            }
        )
        stand.advance(needs["every_s"])
    return readings


def from_stand(answer: Any) -> Any:
    """What was found, with every ``from_stand`` in it read on the simulated stand: ``rig``, ``dials``, ``raise``, ``read``.

    Raises LookupError for something the stand cannot read.
    """
    if isinstance(answer, list):
        return [from_stand(item) for item in answer]
    if not isinstance(answer, dict):
        return answer
    wanted = answer.get("from_stand")
    if wanted is None:
        return {key: from_stand(value) for key, value in answer.items()}
    stand = Stand(RIGS[wanted["rig"]](), dict(wanted["dials"]))
    stand.raise_to(read_gauge_pressure(wanted["raise"], "raise"), 1)
    return _READ[wanted["read"]](stand, wanted)


def _openings(stand: Stand, wanted: dict[str, Any]) -> list[str]:
    """The highest pressure before each opening."""
    assert isinstance(stand.rig, Opening)
    found: list[str] = []
    highest, open_before = 0.0, False
    for _ in range(_MOST_STEPS):
        stand.advance(_STEP_S)
        highest = max(highest, stand.shows(_STEP_S)["pressure"])
        if stand.rig.valve.is_open and not open_before:
            found.append(f"{highest * 10:.0f} bar")
            highest = 0.0
        open_before = stand.rig.valve.is_open
        if len(found) == wanted["count"]:
            return found
    raise LookupError("it does not open")


def _shut(stand: Stand) -> None:
    for _ in range(_MOST_STEPS):
        if stand.shut:
            return
        stand.advance(_STEP_S)
    raise LookupError("the stand does not come to its pressure")


def _creep(stand: Stand, wanted: dict[str, Any]) -> list[dict[str, Any]]:
    """The outlet at rest, at the times asked for. [s]"""
    _shut(stand)
    found, before = [], 0.0
    for at in wanted["at_s"]:
        stand.advance(at - before)
        before = at
        found.append({"t_s": at, "pressure": f"{stand.rig.reading().pressure * 10:.2f} bar"})
    return found


def _efforts(stand: Stand, wanted: dict[str, Any]) -> list[str]:
    """The deepest of each breath."""
    water = find_unit("inH2O")
    assert water is not None
    found = []
    for _ in range(wanted["count"]):
        deepest = 0.0
        for _ in range(round(_BREATH_S / _STEP_S)):
            stand.advance(_STEP_S)
            deepest = max(deepest, -stand.rig.reading().pressure)
        found.append(f"{from_base(deepest, water):.2f} inH2O")
    return found


def _counts(stand: Stand, wanted: dict[str, Any]) -> list[dict[str, Any]]:
    """Strokes minute by minute, told by the turns of the position."""
    found, way, before = [], 0.0, stand.rig.reading().position
    for minute in range(1, wanted["count"] + 1):
        turns = 0
        for _ in range(_STEPS_A_MINUTE):
            stand.advance(_STEP_S)
            now = stand.rig.reading().position
            turns += way * (now - before) < 0
            way, before = (now - before) or way, now
        found.append({"t_s": 60 * minute, "count": turns})
    return found


_READ: dict[str, Callable[[Stand, dict[str, Any]], Any]] = {
    "openings": _openings,
    "creep": _creep,
    "efforts": _efforts,
    "counts": _counts,
}
