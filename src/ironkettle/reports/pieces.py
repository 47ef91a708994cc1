"""What the sections of a report are made of: paragraphs, headings, tables."""

from __future__ import annotations

from collections.abc import Sequence
from xml.sax.saxutils import escape

from reportlab.lib.colors import Color
from reportlab.lib.pagesizes import A4
from reportlab.lib.units import mm
from reportlab.platypus import Flowable, Paragraph, Table, TableStyle

from ironkettle.reports.style import COPPER, INK, RULE, paragraph_style

WIDTH = A4[0] - 36 * mm


def paragraph(text: str, size: float = 8.5, *, bold: bool = False, colour: Color = INK, before: float = 0) -> Paragraph:
    """A paragraph in the certificate's style."""
    return Paragraph(escape(text), paragraph_style(size, bold=bold, colour=colour, before=before))


def title(text: str) -> Paragraph:
    """The heading of a section."""
    return paragraph(text, 11, bold=True, colour=COPPER, before=9)


def table(rows: Sequence[Sequence[str | Flowable]], widths: Sequence[float], *, head: bool = True) -> Table:
    """A ruled table over the whole width; ``widths``: its columns as shares of it."""
    cells = [
        [paragraph(cell, 8, bold=head and index == 0) if isinstance(cell, str) else cell for cell in row]
        for index, row in enumerate(rows)
    ]
    made = Table(cells, colWidths=[share * WIDTH for share in widths], repeatRows=1 if head else 0)
    made.setStyle(
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
    return made


def boxed(part: Flowable, colour: Color) -> Table:
    """What must not be overlooked, between a bar at its left and a rule around it."""
    style = [
        ("BOX", (0, 0), (-1, -1), 0.8, colour),
        ("LINEBEFORE", (0, 0), (0, -1), 4, colour),
        ("LEFTPADDING", (0, 0), (-1, -1), 9),
        ("TOPPADDING", (0, 0), (-1, -1), 4),
        ("BOTTOMPADDING", (0, 0), (-1, -1), 5),
    ]
    return Table([[part]], colWidths=[WIDTH], style=style)
