"""The certificate of a job: as found and as left, sizes, torques, traces, verdicts, names."""

from __future__ import annotations

import io
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field

from reportlab.lib.pagesizes import A4
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas
from reportlab.platypus import Flowable, KeepTogether, SimpleDocTemplate, Spacer

from ironkettle.core.base.dates import shown_moment
from ironkettle.core.jobs import CLOCK_DOUBT_S, FIT, Case, Mark, Resolved, State, payload_words, signed_words
from ironkettle.core.jobs.disturbed import disturbed
from ironkettle.core.jobs.inspecting import VERDICT_WORD
from ironkettle.core.jobs.kinds.correction import decided_causes
from ironkettle.core.jobs.kinds.ending import ENDED, ENDING_WORD, closed_by, ending_of
from ironkettle.core.jobs.kinds.find import FOUND, reversed_words
from ironkettle.core.jobs.kinds.fitting import FITTED
from ironkettle.core.jobs.kinds.inspection import POINTS, standing
from ironkettle.core.jobs.kinds.intake import intake_of
from ironkettle.core.jobs.kinds.leak import LEAK
from ironkettle.core.jobs.kinds.observation import OBSERVED
from ironkettle.core.jobs.kinds.photo import PHOTOS, PhotoTaken
from ironkettle.core.jobs.kinds.question import ANSWERS
from ironkettle.core.jobs.kinds.release import release_of
from ironkettle.core.jobs.kinds.reopening import REOPENED
from ironkettle.core.jobs.kinds.setting import SETTINGS, SettingMade
from ironkettle.core.jobs.kinds.size import SIZES
from ironkettle.core.jobs.kinds.step import STEPS
from ironkettle.core.jobs.kinds.tightening import TIGHTENED
from ironkettle.core.jobs.runs import WrenchUsed
from ironkettle.core.machine.pressure import Sample
from ironkettle.core.sealing.catalogue import KINDS
from ironkettle.core.sheets.document.fastening import TargetSetting
from ironkettle.core.sheets.drawing import picture
from ironkettle.reports.photos import photos_section
from ironkettle.reports.pieces import WIDTH, paragraph, table, title
from ironkettle.reports.practice import practice_section
from ironkettle.reports.section import section_drawing
from ironkettle.reports.style import COPPER, FAIL, FAINT, INK, PASS, REGULAR, register_fonts
from ironkettle.reports.tests import tests_section, tool_words

CAVEAT = (
    "Figures from standards are guidance. The maker's drawing and manual, local codes and licensed practice win. "
    "This certificate states what was done and read on the bench; it is no approval of the machine it goes into."
)


@dataclass(frozen=True)
class Certified:
    """What a certificate is made from: the job, what it states, names for entries that carry none, the samples by run."""

    number: int
    head: str
    case: Case
    told: Sequence[str]
    names: Mapping[str, str]
    traces: Mapping[str, Sequence[Sample]]
    pictures: Mapping[str, bytes] = field(default_factory=dict)

    @property
    def state(self) -> State:
        return self.case.state

    @property
    def resolved(self) -> Resolved:
        return self.case.resolved

    @property
    def released(self) -> bool:
        """Whether it was signed: released, or ended otherwise."""
        return closed_by(self.state) is not None

    def who(self, mark: Mark) -> str:
        """The name as it was when the entry was made; entries of the first format have only a key."""
        return mark.author(self.names)


def certificate_pdf(report: Certified) -> bytes:
    """The certificate as PDF, the same bytes for the same log. A job not released is marked a draft."""
    register_fonts()
    buffer = io.BytesIO()
    document = SimpleDocTemplate(
        buffer,
        pagesize=A4,
        leftMargin=18 * mm,
        rightMargin=18 * mm,
        topMargin=16 * mm,
        bottomMargin=20 * mm,
        title=f"Certificate of job {report.number}",
        author="Iron Kettle",
        invariant=1,
    )
    parts: list[Flowable] = [
        *_heading(report),
        *_statement(report),
        *_drawing(report),
        *_found_and_left(report),
        *_elements(report),
        *_inspection(report),
        *practice_section(report.case),
        *_torques(report),
        *_settings(report),
        *tests_section(report),
        *_disturbed(report),
        *photos_section(_chosen(report), report.pictures),
        *_signature(report),
    ]
    draft = not report.released

    def page(canvas: Canvas, _document: SimpleDocTemplate) -> None:
        _foot(canvas, report, draft)

    document.build(parts, onFirstPage=page, onLaterPages=page)
    return buffer.getvalue()


def _chosen(report: Certified) -> list[PhotoTaken]:
    return [marked.value for marked in report.state.book(PHOTOS).values() if marked.value.on_certificate]


def _heading(report: Certified) -> list[Flowable]:
    sheet = report.resolved.whole
    intake = intake_of(report.state)
    rows = [["Build sheet", f"{sheet.name}, version {sheet.version} ({sheet.family})"]]
    if intake is not None:
        value = intake.value
        rows += [
            ["Unit", value.unit],
            ["Serial", value.serial],
            ["Customer", value.customer],
            ["Complaint", value.complaint],
            ["Fluid and rating", f"{value.fluid}, {value.pressure}"],
            ["Taken in", f"{report.who(intake.mark)}, {shown_moment(intake.mark.when)}"],
        ]
    return [
        paragraph(
            "Certificate of what was found" if (ending_of(report.state) is not None) else "Repair certificate",
            20,
            bold=True,
        ),
        paragraph(f"Job {report.number}", 11, colour=COPPER, before=2),
        Spacer(1, 4),
        table(rows, (0.2, 0.8), head=False),
    ]


def _statement(report: Certified) -> list[Flowable]:
    """On the first page: what is claimed, and beside it whatever stands against it. As it was signed, once it was."""
    claim, *beside = report.told
    # What only has to be known, as an old part that was kept, takes nothing from the claim.
    fit = claim.endswith(FIT)
    colour = PASS if fit and report.released else FAIL
    return [
        Spacer(1, 4),
        paragraph(claim if report.released else f"Draft: {claim}", 10, bold=True, colour=colour),
        *(paragraph(f"• {text}", 8.5, colour=INK if fit else FAIL) for text in beside),
    ]


def _drawing(report: Certified) -> list[Flowable]:
    faces = {key: fitted.value.faces for key, fitted in report.state.book(FITTED).items() if fitted.value.faces}
    shown = picture(report.resolved.sheet, report.case.tables.rings)
    legend = "  ·  ".join(f"{n} {station.name}" for n, station in enumerate(shown.stations, start=1))
    return [Spacer(1, 6), section_drawing(shown, faces, WIDTH), paragraph(legend, 7.5, colour=FAINT)]


def _found_and_left(report: Certified) -> list[Flowable]:
    state = report.state
    rows = [["What", "As found", "As left"]]
    for observation in report.resolved.sheet.observations:
        unit = f" {observation.unit}" if observation.unit else ""
        # As found is what was seen first, whatever a second look said.
        found = state.first(OBSERVED).get((observation.key, "as_found"))
        left = state.book(OBSERVED).get((observation.key, "as_left"))
        cells = [f"{cell.value.value}{unit}" if cell else "not noted" for cell in (found, left)]
        rows.append([observation.name, *cells])
    leak = state.first(LEAK).get("leak")
    if leak is not None:
        rows.append(["Where it was wet", payload_words(report.resolved, leak.value), ""])
    told = decided_causes(report.case)
    decided = {one.element for one in told}
    causes = [
        paragraph(f"{'Found' if key in decided else 'Likely cause'}: {words}", 8.5, bold=True, colour=FAIL, before=3)
        for key, words in reversed_words(report.case).items()
    ]
    for one in told:
        made = f" Corrected: {'; '.join(one.corrected)}." if one.corrected else ""
        causes.append(paragraph(f"Cause, {one.name}: {one.customer}{made}", 8.5, bold=True, before=3))
    answers = [
        paragraph(payload_words(report.resolved, marked.value), 8, colour=FAINT)
        for marked in state.book(ANSWERS).values()
    ]
    tables = [table(rows, (0.34, 0.33, 0.33))] if len(rows) > 1 else []
    parts: list[Flowable] = [*tables, *causes, *answers]
    return [title("As found and as left"), *parts] if parts else []


def _elements(report: Certified) -> list[Flowable]:
    resolved, state = report.resolved, report.state
    rows = [["Place", "Element and size", "As found", "As left"]]
    for key, at in resolved.elements.items():
        chosen = state.get(SIZES, key)
        ring = at.spec.ring
        size = chosen.size if chosen else f"{ring.series} {ring.designation}" if ring else at.spec.size or ""
        oriented = resolved.oriented.get(key)
        word = oriented.word if oriented else KINDS[at.spec.kind].word
        found = state.first(FOUND).get(key)
        as_found = "not noted"
        if found is not None:
            faced = resolved.zone_names.get(found.value.faced or "", "")
            as_found = "missing" if not found.value.present else f"{word} to {faced}" if faced else "there"
        fitted = state.get(FITTED, key)
        as_left = "not fitted"
        if fitted is not None:
            faces = resolved.zone_names.get(fitted.faces or "", "")
            as_left = f"{'kept' if fitted.reused else 'new'}{f', {word} to {faces}' if faces else ''}"
        rows.append([at.station.name, f"{at.spec.name}{f', {size}' if size else ''}", as_found, as_left])
    reasons = [
        paragraph(f"{payload_words(resolved, chosen.value)}; {chosen.value.reason}", 7.5, colour=FAINT)
        for chosen in state.book(SIZES).values()
        if chosen.value.reason
    ]
    parts: list[Flowable] = [title("What was fitted"), table(rows, (0.22, 0.34, 0.22, 0.22)), *reasons]
    return parts if len(rows) > 1 else []


def _disturbed(report: Certified) -> list[Flowable]:
    """What was opened, and what proved it."""
    rows = [["Place opened", "Seals", "Proven by"]]
    rows += [
        [disturbance.station, ", ".join(disturbance.seals) or "faces only", disturbance.proof]
        for disturbance in disturbed(report.case)
    ]
    return [title("What was opened, and what proved it"), table(rows, (0.26, 0.34, 0.4))] if len(rows) > 1 else []


def _inspection(report: Certified) -> list[Flowable]:
    rows = [["Part", "Read", "Verdict"]]
    for key, marked in report.state.book(POINTS).items():
        part, verdict = report.resolved.parts.get(key), standing(report.case, key)
        words = payload_words(report.resolved, marked.value)
        rows.append([part.name if part else key, words, VERDICT_WORD[verdict] if verdict else ""])
    return [title("Inspection"), table(rows, (0.22, 0.62, 0.16))] if len(rows) > 1 else []


def _torques(report: Certified) -> list[Flowable]:
    rows = [["Fasteners", "What was done", "Wrench"]]
    for marked in report.state.book(TIGHTENED).values():
        group = report.resolved.groups.get(marked.value.group)
        used = marked.value.wrench_used
        words = payload_words(report.resolved, marked.value).partition(": ")[2].rpartition(" with ")
        named = _wrench(used) if used else marked.value.wrench or ""
        rows.append(
            [group.name if group else marked.value.group, f"pass {marked.value.turn}: {words[0] or words[2]}", named]
        )
    return [title("Tightening"), table(rows, (0.26, 0.44, 0.3))] if len(rows) > 1 else []


def _settings(report: Certified) -> list[Flowable]:
    """What was adjusted: what it was to come to, what was read on the way, how it was left."""
    rows = [["Setting", "Wanted", "Readings during the work", "Left at"]]
    for key, marked in report.state.book(SETTINGS).items():
        spec = next((setting for setting in report.resolved.sheet.settings if setting.key == key), None)
        made: SettingMade = marked.value
        name, words = payload_words(report.resolved, made).split(": ", 1)
        by = f"; {report.who(marked.mark)}, {shown_moment(marked.mark.when)}"
        way = "; ".join(
            f"{reading.turns:+g} turns: {reading.value or ('yes' if reading.sign else 'no')}"
            for reading in made.readings
        )
        wanted = spec.target.value if isinstance(spec, TargetSetting) else ""
        rows.append([name, wanted, way, f"{words}{by}"])
    return [title("Settings"), table(rows, (0.24, 0.18, 0.3, 0.28))] if len(rows) > 1 else []


def _wrench(wrench: WrenchUsed) -> str:
    return tool_words(wrench.name, wrench.accuracy_pct, wrench.calibration, wrench.calibrated_until)


def _signature(report: Certified) -> list[Flowable]:
    state = report.state
    parts: list[Flowable] = [title("End of the job" if (ending_of(report.state) is not None) else "Release")]
    for reopened in state.book(REOPENED).values():
        words = f"Reopened by {report.who(reopened.mark)}, {shown_moment(reopened.mark.when)}: {reopened.value.reason}"
        parts.append(paragraph(words, 8.5))
    released, ended = release_of(state), state.book(ENDED).get("ended")
    if ended is not None:
        how = f"Not repaired, {ENDING_WORD[ended.value.how]}; signed by {report.who(ended.mark)}, {shown_moment(ended.mark.when)}"
        parts += [paragraph(how, 10, bold=True, colour=FAIL), *_stood_on(ended.mark)]
        parts.append(paragraph("This certificate states what was found. The unit is not released for service."))
    elif released is None:
        parts.append(paragraph("NOT RELEASED. This is a draft.", 10, bold=True, colour=FAIL))
    else:
        value, mark = released.value, released.mark
        parts += [
            paragraph(
                f"Released and signed by {report.who(mark)}, {shown_moment(mark.when)}", 10, bold=True, colour=PASS
            ),
            *_stood_on(mark),
        ]
        if value.remark:
            parts.append(paragraph(f"Remark: {value.remark}"))
        if value.next_service:
            parts.append(paragraph(f"Next service: {value.next_service}"))
    hands = sorted(
        {report.who(mark) for book in (STEPS, FOUND, FITTED, TIGHTENED, SETTINGS) for mark in state.marks(book)}
    )
    if hands:
        parts.append(paragraph(f"Worked on by: {', '.join(hands)}"))
    parts += [
        paragraph(f"Record hash ({state.count} entries): {report.head}", 7, colour=FAINT, before=4),
        paragraph(CAVEAT, 7.5, colour=FAINT, before=3),
    ]
    return [KeepTogether(parts)]


def _stood_on(mark: Mark) -> list[Flowable]:
    """On what the signature stood, and how far the bench's clock was off, where it was."""
    words = signed_words(mark.signature)
    parts: list[Flowable] = [paragraph(words[0].upper() + words[1:])] if words else []
    if mark.clock_ahead_s is not None and abs(mark.clock_ahead_s) > CLOCK_DOUBT_S:
        ahead = "ahead of" if mark.clock_ahead_s > 0 else "behind"
        text = (
            f"The time is the server's; the clock at the bench was {abs(mark.clock_ahead_s) / 60:.0f} min {ahead} it."
        )
        parts.append(paragraph(text, 7.5, colour=FAINT))
    return parts


def _foot(canvas: Canvas, report: Certified, draft: bool) -> None:
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
