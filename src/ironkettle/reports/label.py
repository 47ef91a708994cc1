"""Labels: of a job that is done, with what it was and when it is due; of a unit, with the code that opens it."""

from __future__ import annotations

import io
import textwrap
from collections.abc import Iterable
from dataclasses import dataclass
from xml.sax.saxutils import escape

import segno

_HEAD = (
    '<svg xmlns="http://www.w3.org/2000/svg" width="70mm" height="30mm" viewBox="0 0 70 30" font-family="sans-serif">'
    '<rect width="70" height="30" fill="#fff"/>'
)
# So many letters of a size go beside the code. [mm to letters]
_FIT = {3.4: 22, 2.8: 27, 2.6: 29}


@dataclass(frozen=True, slots=True)
class JobLabel:
    """What stands on the label of a job. ``day``: on which it was signed, empty while it is not; ``due``: when its next service is,
    empty where nothing says so; ``check``: what its code says."""

    number: int
    unit: str
    serial: str
    day: str
    due: str
    check: str


def job_label_svg(label: JobLabel) -> str:
    """An SVG label, 70 × 30 mm; its code opens the check of the certificate where the server's address is known."""
    rows = [
        *_lines(label.unit, 3.4, 2),
        (f"serial {label.serial}", 2.8),
        (f"job {label.number}{f', {label.day}' if label.day else ', not signed'}", 2.8),
        *(_lines(f"next: {label.due}", 2.6, 2) if label.due else []),
    ]
    return _drawn(label.check, "m", rows)


def unit_label_svg(link: str, label: str, name: str, serial: str) -> str:
    """An SVG label of a unit, 70 × 30 mm: a QR code of the link that opens it here, and what can be typed instead."""
    rows = [*_lines(name, 3.4, 2), (serial, 2.8)]
    code = f'<text x="31" y="7.5" font-size="5" font-weight="bold" font-family="monospace">{escape(label)}</text>'
    return _drawn(link, "q", rows, top=8.5, above=code)


def _lines(text: str, size: float, most: int) -> list[tuple[str, float]]:
    """A text in lines that fit beside the code; the last ends in dots where more would follow. [mm]"""
    lines = textwrap.wrap(text, _FIT[size]) or [""]
    if len(lines) > most:
        lines = [*lines[: most - 1], f"{lines[most - 1][: _FIT[size] - 2]} …"]
    return [(line, size) for line in lines]


def _drawn(said: str, error: str, rows: Iterable[tuple[str, float]], top: float = 2.5, above: str = "") -> str:
    """The code at the left, the rows beside it, each with the size of its letters. [mm]"""
    code = segno.make(said, error=error)
    buffer = io.BytesIO()
    code.save(buffer, kind="svg", xmldecl=False, svgns=False, unit="mm", scale=26 / code.symbol_size()[0])
    texts, y = "", top
    for text, size in rows:
        y += size * 1.3
        cut = text if len(text) <= _FIT[size] else f"{text[: _FIT[size] - 2]} …"
        texts += f'<text x="31" y="{y:.2f}" font-size="{size}">{escape(cut)}</text>'
    return f'{_HEAD}<svg x="2" y="2" width="26" height="26">{buffer.getvalue().decode()}</svg>{above}{texts}</svg>'
