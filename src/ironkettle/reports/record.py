"""The technical record behind the first page: the drawing, inspection, tightening, settings, traces, proof, photos, the log."""

from __future__ import annotations

from reportlab.platypus import CondPageBreak, Flowable, PageBreak, Spacer

from ironkettle.core.jobs import payload_words
from ironkettle.core.jobs.disturbed import disturbed
from ironkettle.core.jobs.inspecting import VERDICT_WORD
from ironkettle.core.jobs.kinds.find import FOUND
from ironkettle.core.jobs.kinds.fitting import FITTED
from ironkettle.core.jobs.kinds.inspection import POINTS, standing
from ironkettle.core.jobs.kinds.leak import LEAK
from ironkettle.core.jobs.kinds.photo import PHOTOS, PhotoTaken
from ironkettle.core.jobs.kinds.question import ANSWERS
from ironkettle.core.jobs.kinds.reopening import REOPENED
from ironkettle.core.jobs.kinds.setting import SETTINGS, SettingMade
from ironkettle.core.jobs.kinds.size import SIZES
from ironkettle.core.jobs.kinds.step import STEPS
from ironkettle.core.jobs.kinds.tightening import TIGHTENED
from ironkettle.core.jobs.runs import WrenchUsed
from ironkettle.core.jobs.summary import tool_words
from ironkettle.core.sealing.catalogue import KINDS
from ironkettle.core.sheets.document.fastening import TargetSetting
from ironkettle.core.sheets.drawing import picture
from ironkettle.reports.certified import Certified
from ironkettle.reports.first_page import full_lists
from ironkettle.reports.photos import photos_section
from ironkettle.reports.pieces import WIDTH, paragraph, table, title
from ironkettle.reports.practice import practice_section
from ironkettle.reports.section import first_of_each, section_drawing
from ironkettle.reports.style import COPPER, FAINT
from ironkettle.reports.tests import tests_section


def record_pages(report: Certified, *, short: bool) -> list[Flowable]:
    """From the second page on. ``short``: the first page has not all of its lists, which begin the record."""
    return [
        PageBreak(),
        paragraph("Technical record", 16, bold=True),
        paragraph(f"Job {report.number}", 10.5, colour=COPPER),
        *(full_lists(report) if short else []),
        *_sheet(report),
        *_drawing(report),
        *_answers(report),
        *_elements(report),
        *_inspection(report),
        *practice_section(report.case),
        *_torques(report),
        *_settings(report),
        *tests_section(report),
        *_disturbed(report),
        *photos_section(_chosen(report), report.pictures),
        *_log(report),
    ]


def _chosen(report: Certified) -> list[PhotoTaken]:
    return [marked.value for marked in report.state.book(PHOTOS).values() if marked.value.on_certificate]


def _sheet(report: Certified) -> list[Flowable]:
    sheet, state = report.resolved.whole, report.state
    rows = [["Build sheet", f"{sheet.name}, version {sheet.version} ({sheet.family})"]]
    hands = sorted(
        {report.who(mark) for book in (STEPS, FOUND, FITTED, TIGHTENED, SETTINGS) for mark in state.marks(book)}
    )
    if hands:
        rows.append(["Worked on by", ", ".join(hands)])
    for reopened in state.book(REOPENED).values():
        words = f"{report.who(reopened.mark)}, {report.when(reopened.mark.when)}: {reopened.value.reason}"
        rows.append(["Reopened by", words])
    return [Spacer(1, 4), table(rows, (0.2, 0.8), head=False)]


def _drawing(report: Certified) -> list[Flowable]:
    faces = {key: fitted.value.faces for key, fitted in report.state.book(FITTED).items() if fitted.value.faces}
    whole = picture(report.resolved.sheet, report.case.tables.rings)
    shown = first_of_each(whole)
    legend = "  ·  ".join(f"{n} {station.name}" for n, station in enumerate(shown.stations, start=1))
    if len(shown.stations) < len(whole.stations):
        legend += "  ·  identical positions are drawn once"
    return [Spacer(1, 6), section_drawing(shown, faces, WIDTH), paragraph(legend, 7.5, colour=FAINT)]


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
        by = f"; {report.who(marked.mark)}, {report.when(marked.mark.when)}"
        way = "; ".join(
            f"{reading.turns:+g} turns: {reading.value or ('yes' if reading.sign else 'no')}"
            for reading in made.readings
        )
        wanted = spec.target.value if isinstance(spec, TargetSetting) else ""
        rows.append([name, wanted, way, f"{words}{by}"])
    return [title("Settings"), table(rows, (0.24, 0.18, 0.3, 0.28))] if len(rows) > 1 else []


def _wrench(wrench: WrenchUsed) -> str:
    return tool_words(wrench.name, wrench.accuracy_pct, wrench.calibration, wrench.calibrated_until)


def _answers(report: Certified) -> list[Flowable]:
    """What was asked of the unit, and where it was wet as found."""
    words = [payload_words(report.resolved, marked.value) for marked in report.state.book(ANSWERS).values()]
    leak = report.state.first(LEAK).get("leak")
    if leak is not None:
        words.append(f"Where it was wet: {payload_words(report.resolved, leak.value)}")
    return [title("As found"), *(paragraph(text, 8) for text in words)] if words else []


def _log(report: Certified) -> list[Flowable]:
    """Every entry as it stands in the log, and the hash of the last."""
    rows = [["", "When", "Who", "What"]]
    for payload, mark in report.log:
        words = payload_words(report.resolved, payload)
        if isinstance(payload, PhotoTaken) and not payload.on_certificate:
            words = "a photo, kept with the record"
        rows.append([str(mark.seq), report.when(mark.when), report.who(mark), words])
    hashed = paragraph(f"Record hash ({report.state.count} entries): {report.head}", 7, colour=FAINT, before=4)
    listed = [title("Log"), table(rows, (0.05, 0.2, 0.17, 0.58))] if len(rows) > 1 else []
    return [CondPageBreak(80), *listed, hashed]
