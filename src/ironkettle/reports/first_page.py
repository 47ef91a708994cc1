"""The first page of a certificate, for the customer: what came, what was found, what was done, how it was proven, who signed."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import starmap

import segno
from reportlab.graphics.shapes import Drawing, Rect
from reportlab.lib.colors import Color
from reportlab.lib.units import mm
from reportlab.platypus import Flowable, Spacer, Table

from ironkettle.core.base.quantities import read_gauge_pressure
from ironkettle.core.jobs import FIT, signed_words
from ironkettle.core.jobs.kinds.ending import ENDED, ENDING_WORD
from ironkettle.core.jobs.kinds.intake import intake_of
from ironkettle.core.jobs.kinds.release import release_of
from ironkettle.core.jobs.signing import CLOCK_DOUBT_S
from ironkettle.core.jobs.state import Mark
from ironkettle.core.jobs.summary import Figure, TestLine, deviations_of
from ironkettle.reports.certified import Certified
from ironkettle.reports.pieces import WIDTH, boxed, paragraph, table, title
from ironkettle.reports.style import COPPER, FAIL, FAINT, INK, PASS
from ironkettle.reports.trace import trace_thumbnail

CAVEAT = (
    "Figures from standards are guidance. The maker's drawing and manual, local codes and licensed practice win. "
    "This certificate states what was done and read on the bench; it is no approval of the machine it goes into."
)
_CODE = 22 * mm
# So many rows of each list and letters of each text at most, tried in this order until all of it fits the page.
_ROOM = ((60, 4000), (20, 1500), (14, 800), (10, 600), (8, 450), (6, 350), (4, 250), (3, 180), (2, 140), (1, 100))
_ADDRESS_LINES = 4
_THUMB = (0.15 * WIDTH, 22.0)


@dataclass(frozen=True)
class FirstPage:
    """``parts``: what stands on it; ``short``: whether a list did not fit, so that the record begins with all of it."""

    parts: list[Flowable]
    short: bool


def first_page(report: Certified, height: float) -> FirstPage:
    """The page for the customer, its lists cut to what fits a page. ``height``: what there is of it [pt]."""
    for most in starmap(Room, _ROOM):
        parts = _page(report, most)
        if _high(parts) <= height:
            break
    return FirstPage(parts, most.rows < _longest(report) or any(len(text) > most.letters for text in _texts(report)))


@dataclass(frozen=True)
class Room:
    """So many rows of a list, and letters of a text, at most."""

    rows: int
    letters: int

    def cut(self, text: str) -> str:
        """A text that fits; what is left out stands on the next page."""
        return text if len(text) <= self.letters else f"{text[: self.letters]} … (in full on the next page)"

    def over(self, listed: Sequence[object]) -> int:
        """How many rows of a list find no room. [-]"""
        return max(0, len(listed) - self.rows)


def _texts(report: Certified) -> Iterator[str]:
    """What people wrote, or what was made of it, that may be of any length."""
    intake, released = intake_of(report.state), release_of(report.state)
    yield from (*report.statement, *report.summary.causes, *report.summary.done)
    yield from (words for line in report.summary.found_left for words in (line.found, line.left))
    yield intake.value.complaint if intake else ""
    yield released.value.remark if released else ""


def full_lists(report: Certified) -> list[Flowable]:
    """The lists and texts of the first page without end, for the record."""
    everything = Room(_longest(report), max(map(len, _texts(report))))
    intake, released = intake_of(report.state), release_of(report.state)
    sentences = [f"Complaint: {intake.value.complaint}"] if intake else []
    sentences += [report.statement[0]]
    sentences += [f"Remark: {released.value.remark}"] if released and released.value.remark else []
    return [
        *(paragraph(text, 8.5, before=3) for text in sentences),
        *_deviations(report, everything),
        *_lists(report, everything),
    ]


def _longest(report: Certified) -> int:
    summary = report.summary
    lists: Sequence[Sequence[object]] = (
        summary.found_left, summary.causes, summary.done, summary.fitted, deviations_of(report.statement),
    )  # fmt: skip
    return max(*(len(listed) for listed in lists), sum(len(_shown_of(line)) for line in summary.tests))


def _high(parts: Sequence[Flowable]) -> float:
    """How high these are on the page, one below the other. [pt]"""
    total = 0.0
    for part in parts:
        total += part.wrap(WIDTH, 10_000)[1] + part.getSpaceBefore() + part.getSpaceAfter()
    return total


def _page(report: Certified, most: Room) -> list[Flowable]:
    return [
        _head(report),
        Spacer(1, 5),
        _unit(report, most),
        *_verdict(report, most),
        *_deviations(report, most),
        *_lists(report, most),
        *_signature(report, most),
        paragraph(CAVEAT, 7, colour=FAINT, before=4),
    ]


def _lists(report: Certified, most: Room) -> list[Flowable]:
    return [*_found(report, most), *_done(report, most), *_tests(report, most)]


def _head(report: Certified) -> Flowable:
    """The shop's letterhead with the title below it, and the code that opens the check of this certificate."""
    letterhead = report.letterhead
    lines: list[Flowable] = []
    if letterhead.name:
        lines.append(paragraph(letterhead.name, 13, bold=True))
    address = letterhead.address if len(letterhead.address) <= _ADDRESS_LINES else (", ".join(letterhead.address),)
    lines += [paragraph(line, 8, colour=FAINT) for line in (*address, letterhead.contact) if line]
    lines.append(paragraph(report.summary.title, 18, bold=True, before=4))
    lines.append(paragraph(f"Job {report.number}", 10.5, colour=COPPER))
    code = [_code(report), paragraph("Check this certificate", 6.5, colour=FAINT)]
    return Table([[lines, code]], colWidths=[WIDTH - _CODE - 8, _CODE + 8], style=[
        ("VALIGN", (0, 0), (-1, -1), "TOP"), ("LEFTPADDING", (0, 0), (0, 0), 2), ("TOPPADDING", (0, 0), (-1, -1), 0),
        ("BOTTOMPADDING", (0, 0), (-1, -1), 0),
    ])  # fmt: skip


def _code(report: Certified) -> Drawing:
    drawing = Drawing(_CODE, _CODE)
    rows = list(segno.make(report.check_text, error="m", boost_error=False).matrix_iter(border=1))
    cell = _CODE / len(rows)
    for y, row in enumerate(rows):
        for x, dark in enumerate(row):
            if dark:
                box = (x * cell, _CODE - (y + 1) * cell, cell, cell)
                drawing.add(Rect(*box, fillColor=INK, strokeColor=None))
    return drawing


def _unit(report: Certified, most: Room) -> Flowable:
    sheet, intake = report.resolved.whole, intake_of(report.state)
    if intake is None:
        return table([["Unit", sheet.name]], (0.2, 0.8), head=False)
    value = intake.value
    rows = [
        ["Unit", value.unit, "Serial", value.serial],
        ["Customer", value.customer, "Taken in", report.when(intake.mark.when)],
        ["Complaint", most.cut(value.complaint), "Fluid, pressure", f"{value.fluid}, {value.pressure}"],
    ]
    return table(rows, (0.12, 0.42, 0.14, 0.32), head=False)


def _verdict(report: Certified, most: Room) -> list[Flowable]:
    claim = most.cut(report.statement[0])
    colour = PASS if report.statement[0].endswith(FIT) and report.released else FAIL
    words = claim if report.released else f"Draft, not signed: {claim}"
    return [Spacer(1, 5), boxed(paragraph(words, 11, bold=True, colour=colour), colour)]


def _deviations(report: Certified, most: Room) -> list[Flowable]:
    """What stands beside the claim, plainly: restrictions, what was skipped, what has to be known."""
    listed = deviations_of(report.statement)
    colour = INK if report.statement[0].endswith(FIT) else FAIL
    shown = [paragraph(f"• {most.cut(text)}", 8.5, colour=colour) for text in listed[: most.rows]]
    return [*shown, *_more(most.over(listed))]


def _more(left: int) -> list[Flowable]:
    return [paragraph(f"and {left} more: see the next page", 8, bold=True, colour=FAINT)] if left > 0 else []


def _found(report: Certified, most: Room) -> list[Flowable]:
    summary = report.summary
    if not summary.found_left and not summary.causes:
        return []
    rows = [["", "As found", "As left", "Allowed"]]
    rows += [
        [line.what, most.cut(line.found), most.cut(line.left), line.allowed] for line in summary.found_left[: most.rows]
    ]
    tables = [table(rows, (0.4, 0.2, 0.2, 0.2))] if len(rows) > 1 else []
    causes = [paragraph(most.cut(words), 8.5, before=2) for words in summary.causes[: most.rows]]
    left = most.over(summary.found_left) + most.over(summary.causes)
    return [title("What was found, and how it is now"), *tables, *causes, *_more(left)]


def _done(report: Certified, most: Room) -> list[Flowable]:
    summary = report.summary
    if not summary.fitted and not summary.done:
        return []
    rows = [["Fitted", "Size", "Compound", "From"]]
    for line in summary.fitted[: most.rows]:
        rows.append(
            [f"{line.count} × {line.what}" if line.count > 1 else line.what, line.size, line.compound, line.origin]
        )
    tables = [table(rows, (0.34, 0.2, 0.14, 0.32))] if len(rows) > 1 else []
    words = [paragraph(f"• {most.cut(text)}", 8.5) for text in summary.done[: most.rows]]
    left = most.over(summary.fitted) + most.over(summary.done)
    return [title("What was done and fitted"), *words, *tables, *_more(left)]


def _tests(report: Certified, most: Room) -> list[Flowable]:
    rows = list(_test_rows(report))
    if not rows:
        return []
    shown: list[list[str | Flowable]] = [
        ["Test", "Figure", "Result", "95 %", "Limit", "", ""],
        *rows[: most.rows],
    ]
    gauges = dict.fromkeys(line.gauge for line in report.summary.tests if line.gauge)
    read = [paragraph(f"Read with {gauge}", 7.5, colour=FAINT) for gauge in gauges]
    widths: tuple[float, ...] = (0.19, 0.12, 0.14, 0.15, 0.14, 0.11, 0.15)
    if not any(row[-1] for row in rows):
        # No trace: its room goes to the names.
        shown, widths = [row[:-1] for row in shown], (0.22, 0.2, 0.14, 0.17, 0.15, 0.12)
    return [title("Tests"), table(shown, widths), *read, *_more(most.over(rows))]


def _test_rows(report: Certified) -> Iterator[list[str | Flowable]]:
    """A row a figure; the first of a test has its name, its verdict and its trace in small."""
    for line in report.summary.tests:
        judged = _shown_of(line)
        head: list[str | Flowable] = [line.name]
        tail: list[str | Flowable] = [line.verdict, _thumbnail(report, line)]
        for place, figure in enumerate(judged):
            name, end = (head, tail) if place == 0 else ([""], ["", ""])
            yield [*name, figure.name, figure.shown, figure.interval, figure.within, *end]


def _shown_of(line: TestLine) -> list[Figure]:
    """The figures of a test that were held against something, else all of them; one without any has one empty row."""
    return [figure for figure in line.figures if figure.within] or list(line.figures) or [Figure("", "")]


def _thumbnail(report: Certified, line: TestLine) -> str | Flowable:
    samples = report.traces.get(line.run or "", ())
    run = report.state.runs.get(line.run or "")
    if len(samples) <= 1 or run is None or run.judgement is None:
        return ""
    return trace_thumbnail(samples, read_gauge_pressure(run.judgement.wanted, "wanted") * 10, *_THUMB)


def _signature(report: Certified, most: Room) -> list[Flowable]:
    released, ended = release_of(report.state), report.state.book(ENDED).get("ended")
    if ended is not None:
        words = f"Not repaired, {ENDING_WORD[ended.value.how]}; signed by {report.who(ended.mark)}, {report.when(ended.mark.when)}"
        below = ["This certificate states what was found. The unit is not released for service."]
        return [*_signed(words, ended.mark, FAIL), *(paragraph(text) for text in below)]
    if released is None:
        return [title("Release"), paragraph("NOT RELEASED. This is a draft.", 10, bold=True, colour=FAIL)]
    value, mark = released.value, released.mark
    parts = _signed(f"Released and signed by {report.who(mark)}, {report.when(mark.when)}", mark, PASS)
    if value.remark:
        parts.append(paragraph(f"Remark: {most.cut(value.remark)}"))
    if value.next_service:
        parts.append(paragraph(f"Next service: {value.next_service}", bold=True))
    return parts


def _signed(words: str, mark: Mark, colour: Color) -> list[Flowable]:
    """Who signed, on what the signature stood, and how far the bench's clock was off, where it was."""
    parts: list[Flowable] = [title("Signature"), paragraph(words, 10, bold=True, colour=colour)]
    stood = signed_words(mark.signature)
    if stood:
        parts.append(paragraph(stood[0].upper() + stood[1:]))
    if mark.clock_ahead_s is not None and abs(mark.clock_ahead_s) > CLOCK_DOUBT_S:
        ahead = "ahead of" if mark.clock_ahead_s > 0 else "behind"
        off = f"{abs(mark.clock_ahead_s) / 60:.0f} min {ahead} it"
        parts.append(paragraph(f"The time is the server's; the clock at the bench was {off}.", 7.5, colour=FAINT))
    return parts
