"""The tests of a job on its certificate: every run with its figures, their doubt, its verdict and its trace."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from datetime import datetime
from typing import Protocol

from reportlab.platypus import Flowable, KeepTogether, Spacer

from ironkettle.core.base.quantities import read_gauge_pressure
from ironkettle.core.jobs import Mark, Resolved, Run, State
from ironkettle.core.jobs.figure_tests import in_words
from ironkettle.core.jobs.runs import Judgement
from ironkettle.core.jobs.summary import VERDICT_SHOWN, gauge_words
from ironkettle.core.machine.pressure import Sample
from ironkettle.reports.pieces import WIDTH, paragraph, table, title
from ironkettle.reports.style import FAIL, FAINT, PASS
from ironkettle.reports.trace import trace_drawing


class Report(Protocol):
    """What of a certificate its tests are made from."""

    @property
    def state(self) -> State: ...

    @property
    def resolved(self) -> Resolved: ...

    @property
    def traces(self) -> Mapping[str, Sequence[Sample]]: ...

    def who(self, mark: Mark) -> str: ...

    def when(self, moment: datetime) -> str: ...


def tests_section(report: Report) -> list[Flowable]:
    """Every run that was closed, the failed and undecided ones too."""
    parts: list[Flowable] = []
    for test in report.resolved.sheet.tests:
        runs = [run for run in report.state.runs_of(test.key) if run.closed is not None]
        if not runs:
            parts.append(paragraph(f"{test.name}: not run", 8.5, bold=True))
        for number, run in enumerate(runs, start=1):
            name = test.name if len(runs) == 1 else f"{test.name}, run {number}"
            name = f"{name}, as found" if run.when == "as_found" else name
            parts.append(KeepTogether(_run(report, run, name)))
    return [title("Tests"), *parts] if parts else []


def _run(report: Report, run: Run, name: str) -> list[Flowable]:
    gauge = run.gauge
    tool = f"{gauge_words(gauge)}; " if gauge else ""
    by = f"{tool}{report.who(run.mark)}, {report.when(run.mark.when)}"
    if run.abandoned:
        return [paragraph(f"{name}: abandoned, {run.note}", 8.5, bold=True, colour=FAIL), paragraph(by, 8)]
    found = run.judgement
    if found is None:
        return [paragraph(f"{name}: closed without a verdict", 8.5, bold=True, colour=FAIL), paragraph(by, 8)]
    colour = PASS if found.verdict == "pass" else FAIL
    heading = paragraph(f"{name}: {found.verdict.upper()}", 9.5, bold=True, colour=colour, before=3)
    if run.record is not None:
        return [heading, *_figures(found), paragraph(f"{found.limit}: {in_words(run.record)}; {by}", 8)]
    assert gauge is not None
    samples = report.traces.get(run.key, ())
    held = f"held {found.held_low_mpa * 10:.1f} to {found.held_high_mpa * 10:.1f} bar of the required {found.wanted}"
    facts = (
        f"{held}, {found.hold_s:.0f} s; leak {found.rate_ml_min:.3f} ml/min "
        f"(95 %: {found.low_ml_min:.3f} to {found.high_ml_min:.3f}), limit {found.limit}; "
        f"{_warmth(samples) if found.temperature_corrected else 'no temperature readings'}; {by}"
    )
    words = [paragraph(text, 7.5, colour=FAINT) for text in found.words]
    wanted = read_gauge_pressure(found.wanted, "wanted") * 10
    said = [paragraph(f"Of the recording: {text}", 7.5, colour=FAIL) for text in run.said]
    start = samples[0].t if found.judged_from_s is None and samples else found.judged_from_s or 0.0
    judged = (start, start + found.hold_s)
    trace = [trace_drawing(samples, judged, wanted, WIDTH, 84)] if len(samples) > 1 else []
    return [heading, paragraph(facts, 8), *words, *said, *trace]


def _warmth(samples: Sequence[Sample]) -> str:
    """Between which temperatures it was held."""
    read = [sample.temperature for sample in samples if sample.temperature is not None]
    return f"temperature corrected, {min(read):.1f} to {max(read):.1f} °C" if read else "temperature corrected"


def _figures(found: Judgement) -> list[Flowable]:
    """Every figure a run came to, with its doubt and what it was held against."""
    rows = [["Figure", "Found", "95 %", "Allowed", ""]]
    for result in found.results:
        mark = "" if result.verdict is None else VERDICT_SHOWN[result.verdict]
        rows.append([result.name, result.shown, result.interval or "", result.within or "", mark])
    words = [paragraph(text, 7.5, colour=FAINT) for text in found.words]
    return [table(rows, (0.28, 0.16, 0.24, 0.22, 0.1)) if len(rows) > 1 else Spacer(0, 0), *words]
