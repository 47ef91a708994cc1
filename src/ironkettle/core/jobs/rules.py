"""Whether an entry may be added: its names exist in the sheet and the state of the job allows it."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from typing import Any
from uuid import UUID

from ironkettle.core.buildsheets import BuildSheet, orientation_of, zones_of
from ironkettle.core.errors import RefusedError, fault
from ironkettle.core.jobs import entries as e
from ironkettle.core.jobs.entries import Entry, Payload, Stage
from ironkettle.core.jobs.stages import stage_reports
from ironkettle.core.jobs.state import JobState, job_state
from ironkettle.core.pressure import Fluid
from ironkettle.core.quantities import read_gauge_pressure, read_torque
from ironkettle.core.rings import RingTable
from ironkettle.core.stacks import WORD
from ironkettle.core.tightening import Wrench


@dataclass(frozen=True, slots=True)
class Author:
    """Who writes the entry, and whether they may sign authorised releases."""

    key: str
    name: str
    may_release: bool


@dataclass(frozen=True)
class Bench:
    """What a rule may look up besides sheet and state."""

    rings: RingTable
    fluids: tuple[Fluid, ...]


def check_entry(sheet: BuildSheet, log: list[Entry], payload: Payload, author: Author, bench: Bench) -> None:
    """Raises RuleError for names or figures that do not fit, RefusedError for what the state forbids."""
    state = job_state(sheet, log)
    if state.released and not isinstance(payload, e.Reopened):
        raise RefusedError("job-released", "the job is released and takes no entry; reopen it with a reason first")
    if state.intake is None and not isinstance(payload, e.IntakeRecorded):
        raise RefusedError("no-intake", "the first entry of a job is its intake")
    check = _CHECKS.get(type(payload))
    if check is not None:
        check(_Case(sheet, state, log, author, bench), payload)


@dataclass(frozen=True)
class _Case:
    sheet: BuildSheet
    state: JobState
    log: list[Entry]
    author: Author
    bench: Bench


def _known(field: str, key: str, known: Iterable[str], what: str) -> None:
    names = tuple(known)
    if key not in names:
        raise fault(field, f"“{key}” is not a {what} of this build sheet", *names[:12])


def _elements(sheet: BuildSheet) -> list[str]:
    return [element.key for station in sheet.stations for element in station.elements]


def _intake(case: _Case, payload: e.IntakeRecorded) -> None:
    rating = case.sheet.ratings.pressure
    if read_gauge_pressure(payload.pressure, "pressure") > read_gauge_pressure(rating, "pressure"):
        raise fault("pressure", f"{payload.pressure} is above the rating of this unit", f"up to {rating}")


def _step(case: _Case, payload: e.StepDone) -> None:
    _known("step", payload.step, [step.key for step in case.sheet.steps], "step")
    step = case.sheet.step(payload.step)
    assert step is not None
    if step.stage == "strip":
        _safe_first(case)
    for before in step.after:
        if before not in case.state.steps and Stage(step.stage) not in case.state.skipped:
            earlier = case.sheet.step(before)
            text = earlier.text if earlier else before
            reason = f" ({step.why})" if step.why else ""
            raise RefusedError("step-too-early", f"first: {text}{reason}")
    if step.note and not payload.note:
        raise fault("note", f"write down: {step.note}")


def _safe_first(case: _Case) -> None:
    waiting = [s for s in case.sheet.steps if s.stage == "safe" and s.key not in case.state.steps]
    if waiting and Stage.SAFE not in case.state.skipped:
        raise RefusedError("not-safe", f"make it safe first: {waiting[0].text}")


def _observation(case: _Case, payload: e.ObservationNoted) -> None:
    _known("observation", payload.observation, [seen.key for seen in case.sheet.observations], "observation")


def _found(case: _Case, payload: e.ElementFound) -> None:
    _known("element", payload.element, _elements(case.sheet), "element")
    _safe_first(case)
    if payload.faced is not None:
        if not payload.present:
            raise fault("faced", "a missing element faced nothing; leave it out")
        _known_side(case, payload.element, payload.faced, "faced")
    elif payload.present and orientation_of(case.sheet).facing(payload.element) is not None:
        raise fault("faced", "which side did it face? This decides about the cause", *_sides(case, payload.element))
    element = case.sheet.element(payload.element)
    if element and element.one_use and payload.tray == "reuse":
        raise fault("tray", f"the {element.name} is for one use only and is never reused", "scrap", "later")


def _sides(case: _Case, element: str) -> tuple[str, ...]:
    station = case.sheet.station_of(element)
    return station.between if station else ()


def _known_side(case: _Case, element: str, zone: str, field: str) -> None:
    sides = _sides(case, element)
    if zone not in sides:
        raise fault(field, f"“{zone}” is not beside this station", *sides)


def _ring(case: _Case, payload: e.RingChosen) -> None:
    _known("element", payload.element, _elements(case.sheet), "element")
    case.bench.rings.find(payload.series, payload.designation, "ring")


def _kit(case: _Case, payload: e.KitCounted) -> None:
    _known("line", payload.line, [line.key for line in case.sheet.kit_lines], "kit line")
    line = next(line for line in case.sheet.kit_lines if line.key == payload.line)
    if payload.decision == "unused" and line.alternative_group is None:
        raise fault("decision", f"{line.name} has no alternative; it is used or ordered", "use")


def _fitted(case: _Case, payload: e.ElementFitted) -> None:
    _known("element", payload.element, _elements(case.sheet), "element")
    element = case.sheet.element(payload.element)
    assert element is not None
    if payload.reused and element.one_use:
        raise fault("reused", f"the {element.name} is for one use only; fit a new one", "new part")
    must = orientation_of(case.sheet).facing(payload.element)
    if payload.faces is not None:
        _known_side(case, payload.element, payload.faces, "faces")
    if must is not None and payload.faces != must:
        names = {zone.key: zone.label for zone in zones_of(case.sheet)}
        word = WORD[element.kind]
        if payload.faces is None:
            raise fault("faces", f"say which side the {word} face", names[must])
        text = (
            f"reversed: {word} of the {element.name} must face {names[must]}, not {names[payload.faces]}; turn it round"
        )
        raise fault("faces", text, names[must])
    if element.identify and payload.element not in case.state.rings and Stage.MATCH not in case.state.skipped:
        raise RefusedError("size-unknown", f"choose the size of the {element.name} at Match first")


def _tightened(case: _Case, payload: e.FastenerTightened) -> None:
    _known("group", payload.group, [group.key for group in case.sheet.fasteners], "fastener group")
    group = case.sheet.group(payload.group)
    assert group is not None
    if payload.number > group.count:
        raise fault("number", f"{group.name} has {group.count} fasteners", f"1 to {group.count}")
    if payload.round > len(group.passes_pct):
        raise fault("round", f"{group.name} has {len(group.passes_pct)} passes", f"1 to {len(group.passes_pct)}")
    low, high = read_torque(payload.wrench.low, "wrench.low"), read_torque(payload.wrench.high, "wrench.high")
    wrench = Wrench(low, high, payload.wrench.accuracy_pct)
    value = read_torque(payload.reading, "reading")
    if not wrench.usable_low <= value <= wrench.high:
        text = f"{payload.reading} is outside what {payload.wrench.name} can be trusted with"
        raise fault("reading", text, f"{wrench.usable_low:g} to {wrench.high:g} N·m")


def _test_started(case: _Case, payload: e.TestStarted) -> None:
    _known("test", payload.test, [test.key for test in case.sheet.tests], "test")
    if payload.run in case.state.runs:
        raise RefusedError("run-exists", "this run was started already")
    test = case.sheet.test(payload.test)
    assert test is not None
    if read_gauge_pressure(payload.gauge.range, "gauge.range") < read_gauge_pressure(test.pressure, "pressure"):
        raise fault(
            "gauge.range", f"{payload.gauge.range} does not reach the test pressure", f"{test.pressure} or more"
        )
    if read_gauge_pressure(payload.gauge.resolution, "gauge.resolution") <= 0:
        raise fault("gauge.resolution", "must be above zero", "0.1 bar")


def _open_run(case: _Case, run: UUID) -> None:
    if run not in case.state.runs:
        raise fault("run", "no such test run in this job")
    if case.state.runs[run].closed is not None:
        raise RefusedError("run-closed", "this run is closed; start a new one")


def _test_samples(case: _Case, payload: e.TestSamples) -> None:
    _open_run(case, payload.run)
    before = case.state.runs[payload.run].samples
    last = before[-1].t_s if before else -1.0
    for index, sample in enumerate(payload.samples):
        if sample.t_s <= last:
            raise fault(
                f"samples.{index}.t_s", f"time {sample.t_s:g} s does not come after {last:g} s", "times running forward"
            )
        last = sample.t_s


def _test_closed(case: _Case, payload: e.TestClosed) -> None:
    _open_run(case, payload.run)
    held = len(case.state.runs[payload.run].samples)
    if held < 3:
        raise RefusedError("too-few-samples", f"{held} readings so far; a rate needs at least 3")


def _struck(case: _Case, payload: e.EntryStruck) -> None:
    target = next((entry for entry in case.log if entry.id == payload.entry), None)
    if target is None:
        raise fault("entry", "no such entry in this job")
    if payload.entry in case.state.struck:
        raise RefusedError("struck-already", "this entry is struck out already")
    if isinstance(target.payload, e.EntryStruck | e.Released | e.Reopened):
        raise RefusedError("not-strikable", "releases, reopenings and strikings stay; write a new entry instead")
    intakes = [
        entry for entry in case.log if isinstance(entry.payload, e.IntakeRecorded) and entry.id not in case.state.struck
    ]
    if isinstance(target.payload, e.IntakeRecorded) and len(intakes) == 1:
        raise RefusedError("last-intake", "record the corrected intake first, then strike this one")


def _released(case: _Case, payload: e.Released) -> None:
    if case.sheet.authorised_release and not case.author.may_release:
        raise RefusedError(
            "not-authorised", f"{case.author.name} may not release this unit; a named authorised person must"
        )
    waiting = [
        r
        for r in stage_reports(case.sheet, case.state, case.bench.fluids)
        if r.status == "open" and r.stage is not Stage.RELEASE
    ]
    if waiting:
        text = "; ".join(f"{report.stage}: {report.needs[0].text}" for report in waiting)
        raise RefusedError("not-finished", f"not ready for release: {text}. Finish it, or go on with a written reason")


def _reopened(case: _Case, payload: e.Reopened) -> None:
    if case.state.released is None:
        raise RefusedError("not-released", "the job is not released, so there is nothing to reopen")


def _skipped(case: _Case, payload: e.StageSkipped) -> None:
    if payload.stage in {Stage.INTAKE, Stage.RELEASE}:
        raise fault(
            "stage",
            f"{payload.stage} cannot be passed over",
            *(s for s in Stage if s not in {Stage.INTAKE, Stage.RELEASE}),
        )


_CHECKS: dict[type, Callable[[_Case, Any], None]] = {
    e.IntakeRecorded: _intake,
    e.StepDone: _step,
    e.ObservationNoted: _observation,
    e.ElementFound: _found,
    e.RingChosen: _ring,
    e.KitCounted: _kit,
    e.ElementFitted: _fitted,
    e.FastenerTightened: _tightened,
    e.TestStarted: _test_started,
    e.TestSamples: _test_samples,
    e.TestClosed: _test_closed,
    e.StageSkipped: _skipped,
    e.EntryStruck: _struck,
    e.Released: _released,
    e.Reopened: _reopened,
}
