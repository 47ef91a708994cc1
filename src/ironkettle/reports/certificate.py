"""The certificate of a job: a page for the customer with verdict and signature on it, and the technical record behind it."""

from __future__ import annotations

import io
from datetime import datetime
from typing import Any

from reportlab.lib.pagesizes import A4
from reportlab.lib.units import mm
from reportlab.lib.utils import TimeStamp
from reportlab.pdfgen.canvas import Canvas
from reportlab.platypus import SimpleDocTemplate

from ironkettle.core.jobs.kinds.ending import closed_by
from ironkettle.reports.certified import Certified
from ironkettle.reports.first_page import first_page
from ironkettle.reports.record import record_pages
from ironkettle.reports.style import FAIL, FAINT, REGULAR, register_fonts

__all__ = ["Certified", "certificate_pdf"]

_SIDE, _TOP, _BOTTOM = 18 * mm, 14 * mm, 18 * mm
# What the frame of a page keeps free inside its margins, both sides together. [pt]
_PADDING = 12


def certificate_pdf(report: Certified) -> bytes:
    """The certificate as PDF, the same bytes for the same log. A job not released is marked a draft."""
    register_fonts()
    buffer = io.BytesIO()
    document = SimpleDocTemplate(
        buffer,
        pagesize=A4,
        leftMargin=_SIDE - _PADDING / 2,
        rightMargin=_SIDE - _PADDING / 2,
        topMargin=_TOP,
        bottomMargin=_BOTTOM,
        title=f"{report.summary.title}, job {report.number}",
        author=report.letterhead.name or "Iron Kettle",
        subject=report.statement[0],
        lang="en-GB",
        invariant=1,
    )
    first = first_page(report, A4[1] - _TOP - _BOTTOM - _PADDING)
    parts = [*first.parts, *record_pages(report, short=first.short)]

    def page(canvas: _Numbered, _document: SimpleDocTemplate) -> None:
        if not report.released:
            _across(canvas)

    def canvas(*arguments: Any, **named: Any) -> _Numbered:
        return _Numbered(*arguments, report=report, **named)

    document.build(parts, onFirstPage=page, onLaterPages=page, canvasmaker=canvas)
    return buffer.getvalue()


class _Stamp(TimeStamp):  # type: ignore[misc]
    """When the record was closed, in place of when the file was made: the same log gives the same bytes."""

    def __init__(self, moment: datetime) -> None:
        super().__init__(invariant=1)
        self.t, self.lt = moment.timestamp(), moment.utctimetuple()
        self.YMDhms = tuple(self.lt)[:6]


class _Numbered(Canvas):  # type: ignore[misc]
    """Pages that know how many there are: each is kept until the last is there."""

    def __init__(self, *arguments: Any, report: Certified, **named: Any) -> None:
        super().__init__(*arguments, **named)
        self._report, self._kept = report, list[dict[str, Any]]()
        self._doc._timeStamp = _Stamp(_dated(report))

    def showPage(self) -> None:
        self._kept.append(dict(self.__dict__))
        self._startPage()

    def save(self) -> None:
        for kept in self._kept:
            self.__dict__.update(kept)
            self._foot(len(self._kept))
            super().showPage()
        super().save()

    def _foot(self, pages: int) -> None:
        self.saveState()
        self.setFont(REGULAR, 7.5)
        self.setFillColor(FAINT)
        left = f"Iron Kettle · {self._report.summary.title.lower()} · job {self._report.number}"
        self.drawString(_SIDE, 10 * mm, f"{left} · record {self._report.head[:16]}")
        self.drawRightString(A4[0] - _SIDE, 10 * mm, f"page {self.getPageNumber()} of {pages}")
        self.restoreState()


def _dated(report: Certified) -> datetime:
    """When it was signed; of a draft, when something was recorded last."""
    closed = closed_by(report.state)
    if closed is not None:
        return closed.mark.when
    return report.log[-1][1].when if report.log else report.case.now


def _across(canvas: Canvas) -> None:
    canvas.saveState()
    canvas.setFillColor(FAIL, alpha=0.12)
    canvas.setFont(REGULAR, 64)
    canvas.translate(A4[0] / 2, A4[1] / 2)
    canvas.rotate(52)
    canvas.drawCentredString(0, 0, "DRAFT · NOT RELEASED")
    canvas.restoreState()
