"""The certificate of a job: as found and as left, sizes, torques, traces, verdicts, names."""

from __future__ import annotations

import io
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from xml.sax.saxutils import escape

from reportlab.lib.colors import Color
from reportlab.lib.pagesizes import A4
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas
from reportlab.platypus import Flowable, KeepTogether, Paragraph, SimpleDocTemplate, Spacer, Table, TableStyle

from ironkettle.core.buildsheets import BuildSheet, orientation_of, zones_of
from ironkettle.core.drawings import draw
from ironkettle.core.jobs import Bench, Entry, JobState, analysis_of, job_state, last_closed_run
from ironkettle.core.stacks import WORD
from ironkettle.reports.section import section_drawing
from ironkettle.reports.style import COPPER, FAIL, FAINT, INK, PASS, REGULAR, RULE, paragraph_style, register_fonts
from ironkettle.reports.trace import trace_drawing

_WIDTH = A4[0] - 36 * mm
CAVEAT = (
    "Figures from standards are guidance. The maker's drawing and manual, local codes and licensed practice win. "
    "This certificate tells what was done and read on the bench; it is no approval of the machine it goes into."
)


@dataclass(frozen=True)
class _Report:
    number: int
    head: str
    sheet: BuildSheet
    state: JobState
    bench: Bench
    names: Mapping[str, str]

    def who(self, key: str) -> str:
        return self.names.get(key, key)


def certificate_pdf(
    number: int, head: str, sheet: BuildSheet, log: Sequence[Entry], bench: Bench, names: Mapping[str, str]
) -> bytes:
    """The certificate as PDF, the same bytes for the same log. A job not released is marked a draft."""
    register_fonts()
    report = _Report(number, head, sheet, job_state(sheet, log), bench, names)
    buffer = io.BytesIO()
    document = SimpleDocTemplate(
        buffer,
        pagesize=A4,
        leftMargin=18 * mm,
        rightMargin=18 * mm,
        topMargin=16 * mm,
        bottomMargin=20 * mm,
        title=f"Certificate of job {number}",
        author="Iron Kettle",
        invariant=1,
    )
    parts: list[Flowable] = [
        *_heading(report),
        *_drawing(report),
        *_found_and_left(report),
        *_elements(report),
        *_torques(report),
        *_tests(report),
        *_signature(report),
    ]
    draft = report.state.released is None

    def page(canvas: Canvas, _document: SimpleDocTemplate) -> None:
        _foot(canvas, report, draft)

    document.build(parts, onFirstPage=page, onLaterPages=page)
    return buffer.getvalue()


def _p(text: str, size: float = 8.5, *, bold: bool = False, colour: Color = INK, before: float = 0) -> Paragraph:
    return Paragraph(escape(text), paragraph_style(size, bold=bold, colour=colour, before=before))


def _title(text: str) -> Paragraph:
    return _p(text, 11, bold=True, colour=COPPER, before=9)


def _table(rows: list[list[str]], widths: Sequence[float], *, head: bool = True) -> Table:
    cells = [[_p(cell, 8, bold=head and index == 0) for cell in row] for index, row in enumerate(rows)]
    table = Table(cells, colWidths=[share * _WIDTH for share in widths], repeatRows=1 if head else 0)
    table.setStyle(
        TableStyle(
            [
                ("LINEBELOW", (0, 0), (-1, -1), 0.4, RULE),
                ("VALIGN", (0, 0), (-1, -1), "TOP"),
                ("TOPPADDING", (0, 0), (-1, -1), 2),
                ("BOTTOMPADDING", (0, 0), (-1, -1), 2.5),
                ("LEFTPADDING", (0, 0), (-1, -1), 2),
            ]
        )
    )
    return table


def _day(moment: datetime) -> str:
    return moment.strftime("%Y-%m-%d %H:%M UTC")


def _heading(report: _Report) -> list[Flowable]:
    intake = report.state.intake
    rows = [["Build sheet", f"{report.sheet.name}, version {report.sheet.version} ({report.sheet.family})"]]
    if intake is not None:
        value = intake.value
        rows += [
            ["Unit", value.unit],
            ["Serial", value.serial],
            ["Customer", value.customer],
            ["Complaint", value.complaint],
            ["Fluid and rating", f"{value.fluid}, {value.pressure}"],
            ["Taken in", f"{report.who(intake.mark.who)}, {_day(intake.mark.when)}"],
        ]
    return [
        _p("Repair certificate", 20, bold=True),
        _p(f"Job {report.number}", 11, colour=COPPER, before=2),
        Spacer(1, 4),
        _table(rows, (0.2, 0.8), head=False),
    ]


def _drawing(report: _Report) -> list[Flowable]:
    faces = {key: fitted.value.faces for key, fitted in report.state.fitted.items() if fitted.value.faces}
    drawing = section_drawing(draw(report.sheet, report.bench.rings), faces, _WIDTH)
    legend = "  ·  ".join(f"{n} {station.name}" for n, station in enumerate(report.sheet.stations, start=1))
    return [Spacer(1, 6), drawing, _p(legend, 7.5, colour=FAINT)]


def _found_and_left(report: _Report) -> list[Flowable]:
    seen = report.state.observations
    rows = [["What", "As found", "As left"]]
    for observation in report.sheet.observations:
        cells = [seen.get((observation.key, when)) for when in ("as_found", "as_left")]
        unit = f" {observation.unit}" if observation.unit else ""
        rows.append([observation.name, *(f"{cell.value.value}{unit}" if cell else "not noted" for cell in cells)])
    findings = orientation_of(report.sheet, report.state.faced_as_found()).findings
    reversed_ = [finding for finding in findings if finding.code == "reversed"]
    notes: list[Flowable] = [
        _p(f"Likely cause: {finding.message}", 8.5, bold=True, colour=FAIL, before=3) for finding in reversed_
    ]
    return [_title("As found and as left"), _table(rows, (0.34, 0.33, 0.33)), *notes]


def _elements(report: _Report) -> list[Flowable]:
    zones = {zone.key: zone.label for zone in zones_of(report.sheet)}
    rows = [["Place", "Element and size", "As found", "As left"]]
    for station in report.sheet.stations:
        for element in station.elements:
            ring = report.state.rings.get(element.key)
            size = f"{ring.value.series} {ring.value.designation}" if ring else ""
            if not size and element.ring:
                size = f"{element.ring.series} {element.ring.designation}"
            found, fitted = report.state.found.get(element.key), report.state.fitted.get(element.key)
            word = WORD.get(element.kind, "")
            as_found = "not noted"
            if found is not None:
                faced = found.value.faced
                as_found = "missing" if not found.value.present else f"{word} to {zones[faced]}" if faced else "there"
            as_left = "not fitted"
            if fitted is not None:
                faces = fitted.value.faces
                as_left = ("kept, " if fitted.value.reused else "new, ") + (
                    f"{word} to {zones[faces]}" if faces else "fitted"
                )
            rows.append([station.name, f"{element.name}{', ' + size if size else ''}", as_found, as_left])
    reasons: list[Flowable] = [
        _p(f"Size of {key}: {ring.value.series} {ring.value.designation}; {ring.value.reason}", 7.5, colour=FAINT)
        for key, ring in report.state.rings.items()
    ]
    return [_title("What was fitted"), _table(rows, (0.22, 0.34, 0.22, 0.22)), *reasons]


def _torques(report: _Report) -> list[Flowable]:
    rows = [["Fasteners", "Range", "Readings, last pass", "Wrench"]]
    for group in report.sheet.fasteners:
        last = len(group.passes_pct)
        readings = [report.state.readings.get((group.key, last, number)) for number in range(1, group.count + 1)]
        text = ", ".join(f"{n}: {r.value.reading if r else 'none'}" for n, r in enumerate(readings, start=1))
        wrenches = sorted({f"{r.value.wrench.name} ±{r.value.wrench.accuracy_pct:g} %" for r in readings if r})
        wanted = f"{group.low} to {group.high}" if group.low else str(group.target)
        rows.append([group.name, wanted, text, ", ".join(wrenches) or "none"])
    return [_title("Torques"), _table(rows, (0.26, 0.2, 0.3, 0.24))] if report.sheet.fasteners else []


def _tests(report: _Report) -> list[Flowable]:
    title = _title("Pressure tests")
    parts: list[Flowable] = []
    for test in report.sheet.tests:
        run = last_closed_run(report.state, test.key)
        analysis = analysis_of(run, test, report.bench.fluids) if run else None
        if run is None or analysis is None:
            parts += [*_first(parts, title), _p(f"{test.name}: not run", 8.5, bold=True)]
            continue
        low, high = analysis.interval
        verdict = {"pass": "PASS", "fail": "FAIL"}.get(analysis.verdict, "UNDECIDED")
        colour = PASS if analysis.verdict == "pass" else FAIL
        gauge = run.started.value.gauge
        facts = (
            f"{test.pressure}, held {analysis.hold:.0f} s after {analysis.settled_from:.0f} s of settling; "
            f"leak {analysis.leak_rate:.3f} ml/min (95 %: {low:.3f} to {high:.3f}), limit {test.leak_limit}; "
            f"{'temperature corrected' if analysis.temperature_corrected else 'no temperature readings'}; "
            f"{gauge.name}; {report.who(run.started.mark.who)}, {_day(run.started.mark.when)}"
        )
        block: list[Flowable] = [
            *_first(parts, title),
            _p(f"{test.name}: {verdict}", 9.5, bold=True, colour=colour, before=3),
            _p(facts, 8),
            trace_drawing(run.samples, analysis.settled_from, _WIDTH, 84),
        ]
        parts.append(KeepTogether(block))
    return parts


def _first(parts: list[Flowable], title: Paragraph) -> list[Flowable]:
    """The title, kept together with what comes first under it."""
    return [] if parts else [title]


def _signature(report: _Report) -> list[Flowable]:
    state = report.state
    parts: list[Flowable] = [_title("Release")]
    for stage, skipped in state.skipped.items():
        parts.append(
            _p(
                f"Went on without finishing {stage}: {skipped.value.reason} ({report.who(skipped.mark.who)})",
                8.5,
                colour=FAIL,
            )
        )
    for reopened in state.reopened:
        parts.append(
            _p(f"Reopened by {report.who(reopened.mark.who)}, {_day(reopened.mark.when)}: {reopened.value.reason}", 8.5)
        )
    if state.released is None:
        parts.append(_p("NOT RELEASED. This is a draft.", 10, bold=True, colour=FAIL))
    else:
        value, mark = state.released.value, state.released.mark
        parts += [
            _p(f"Released and signed by {report.who(mark.who)}, {_day(mark.when)}", 10, bold=True, colour=PASS),
            _p(value.statement),
        ]
        if value.next_service:
            parts.append(_p(f"Next service: {value.next_service}"))
    hands = sorted(
        {report.who(m.mark.who) for marks in (state.steps, state.fitted, state.readings) for m in marks.values()}
    )
    if hands:
        parts.append(_p(f"Worked on by: {', '.join(hands)}"))
    parts += [
        _p(f"Seal of the log ({state.count} entries): {report.head}", 7, colour=FAINT, before=4),
        _p(CAVEAT, 7.5, colour=FAINT, before=3),
    ]
    return [KeepTogether(parts)]


def _foot(canvas: Canvas, report: _Report, draft: bool) -> None:
    canvas.saveState()
    canvas.setFont(REGULAR, 7.5)
    canvas.setFillColor(FAINT)
    canvas.drawString(18 * mm, 11 * mm, f"Iron Kettle · job {report.number} · page {canvas.getPageNumber()}")
    if draft:
        canvas.setFillColor(FAIL, alpha=0.12)
        canvas.setFont(REGULAR, 64)
        canvas.translate(A4[0] / 2, A4[1] / 2)
        canvas.rotate(52)
        canvas.drawCentredString(0, 0, "DRAFT · NOT RELEASED")
    canvas.restoreState()
