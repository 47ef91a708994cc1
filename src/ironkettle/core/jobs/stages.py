"""What each stage has done and still needs, and which comes next."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from typing import Literal

from ironkettle.core.buildsheets import BuildSheet, orientation_of, torque_range_of
from ironkettle.core.jobs.entries import Stage
from ironkettle.core.jobs.state import JobState
from ironkettle.core.jobs.tests import analysis_of, last_closed_run
from ironkettle.core.pressure import Fluid
from ironkettle.core.quantities import read_torque


@dataclass(frozen=True, slots=True)
class Need:
    """One thing a stage still needs: a sentence and the key of what it concerns."""

    text: str
    subject: str


@dataclass(frozen=True, slots=True)
class StageReport:
    stage: Stage
    status: Literal["done", "open", "skipped"]
    done: int
    total: int
    needs: tuple[Need, ...]


def stage_reports(sheet: BuildSheet, state: JobState, fluids: Iterable[Fluid]) -> tuple[StageReport, ...]:
    """A report for each of the nine stages, in working order."""
    media = tuple(fluids)
    counts: dict[Stage, Callable[[], tuple[int, list[Need]]]] = {
        Stage.INTAKE: lambda: (1, [] if state.intake else [Need("record the unit and the complaint", "intake")]),
        Stage.SAFE: lambda: _steps(sheet, state, "safe"),
        Stage.STRIP: lambda: _strip(sheet, state),
        Stage.MATCH: lambda: _match(sheet, state),
        Stage.KIT: lambda: _kit(sheet, state),
        Stage.REBUILD: lambda: _rebuild(sheet, state),
        Stage.TIGHTEN: lambda: _tighten(sheet, state),
        Stage.TEST: lambda: _tests(sheet, state, media),
        Stage.RELEASE: lambda: (1, [] if state.released else [Need("sign and release", "release")]),
    }
    reports = []
    for stage, count in counts.items():
        total, needs = count()
        skipped = stage in state.skipped and bool(needs)
        status: Literal["done", "open", "skipped"] = "skipped" if skipped else "open" if needs else "done"
        reports.append(StageReport(stage, status, total - len(needs), total, tuple(needs)))
    return tuple(reports)


def next_stage(reports: Iterable[StageReport]) -> Stage:
    """The first stage that still needs something, else release."""
    return next((report.stage for report in reports if report.status == "open"), Stage.RELEASE)


def _steps(sheet: BuildSheet, state: JobState, stage: str) -> tuple[int, list[Need]]:
    steps = [step for step in sheet.steps if step.stage == stage]
    return len(steps), [Need(step.text, step.key) for step in steps if step.key not in state.steps]


def _strip(sheet: BuildSheet, state: JobState) -> tuple[int, list[Need]]:
    total, needs = _steps(sheet, state, "strip")
    for station in sheet.stations:
        for element in station.elements:
            total += 1
            if element.key not in state.found:
                needs.append(Need(f"{station.name}: how did the {element.name} come off?", element.key))
    return total, needs


def _match(sheet: BuildSheet, state: JobState) -> tuple[int, list[Need]]:
    wanted = [e for station in sheet.stations for e in station.elements if e.identify]
    return len(wanted), [Need(f"find the size of the {e.name}", e.key) for e in wanted if e.key not in state.rings]


def _kit(sheet: BuildSheet, state: JobState) -> tuple[int, list[Need]]:
    needs: list[Need] = []
    for line in sheet.kit_lines:
        counted = state.kit.get(line.key)
        if counted is None:
            needs.append(Need(f"count: {line.name}", line.key))
        elif counted.value.decision == "use" and counted.value.counted < line.count and not counted.value.ordered:
            short = line.count - counted.value.counted
            needs.append(Need(f"{line.name}: {short} short; order it apart", line.key))
    groups = {line.alternative_group for line in sheet.kit_lines if line.alternative_group}
    for group in sorted(groups):
        lines = [line for line in sheet.kit_lines if line.alternative_group == group]
        counted_lines = [state.kit[line.key].value for line in lines if line.key in state.kit]
        if len(counted_lines) == len(lines) and sum(c.decision == "use" for c in counted_lines) != 1:
            names = " or ".join(line.name for line in lines)
            needs.append(Need(f"decide which one is used: {names}", lines[0].key))
    return len(sheet.kit_lines) + len(groups), needs


def _rebuild(sheet: BuildSheet, state: JobState) -> tuple[int, list[Need]]:
    total, needs = _steps(sheet, state, "rebuild")
    orientation = orientation_of(sheet)
    for station, oriented in zip(sheet.stations, orientation.stations, strict=True):
        for key in oriented.fitting_order:
            total += 1
            if key not in state.fitted:
                element = next(e for e in station.elements if e.key == key)
                needs.append(Need(f"{station.name}: fit the {element.name}", key))
    return total, needs


def _tighten(sheet: BuildSheet, state: JobState) -> tuple[int, list[Need]]:
    total, needs = 0, []
    for group in sheet.fasteners:
        allowed = torque_range_of(group)
        for turn in range(1, len(group.passes_pct) + 1):
            for number in range(1, group.count + 1):
                total += 1
                reading = state.readings.get((group.key, turn, number))
                if reading is None:
                    needs.append(Need(f"{group.name}: pass {turn}, number {number}", group.key))
                elif turn == len(group.passes_pct) and allowed.low < allowed.high:
                    value = read_torque(reading.value.reading, "reading")
                    if not allowed.low * (1 - 1e-9) <= value <= allowed.high * (1 + 1e-9):
                        text = f"{group.name}: number {number} read {reading.value.reading}, outside {group.low} to {group.high}"
                        needs.append(Need(text, group.key))
    return total, needs


def _tests(sheet: BuildSheet, state: JobState, fluids: tuple[Fluid, ...]) -> tuple[int, list[Need]]:
    needs: list[Need] = []
    for test in sheet.tests:
        run = last_closed_run(state, test.key)
        if run is None:
            needs.append(Need(f"run: {test.name}", test.key))
            continue
        analysis = analysis_of(run, test, fluids)
        if analysis is None or analysis.verdict == "undecided":
            needs.append(Need(f"{test.name}: undecided, hold longer", test.key))
        elif analysis.verdict == "fail":
            needs.append(Need(f"{test.name}: leaks more than {test.leak_limit}", test.key))
    return len(sheet.tests), needs
