"""The label on the unit: job number, serial, and the seal as a QR code."""

from __future__ import annotations

import io
from xml.sax.saxutils import escape

import segno


def label_svg(number: int, serial: str, head: str) -> str:
    """An SVG label, 70 × 30 mm. The code holds job number, serial and the head of the log's chain."""
    code = segno.make(f"IRON-KETTLE JOB {number} SERIAL {serial} SEAL {head[:16]}", error="m")
    buffer = io.BytesIO()
    code.save(buffer, kind="svg", xmldecl=False, svgns=False, unit="mm", scale=26 / code.symbol_size()[0])
    return (
        '<svg xmlns="http://www.w3.org/2000/svg" width="70mm" height="30mm" viewBox="0 0 70 30" font-family="sans-serif">'
        '<rect width="70" height="30" fill="#fff"/>'
        f'<svg x="2" y="2" width="26" height="26">{buffer.getvalue().decode()}</svg>'
        f'<text x="31" y="9" font-size="4.6" font-weight="bold">Job {number}</text>'
        f'<text x="31" y="15.5" font-size="3.6">{escape(serial[:24])}</text>'
        f'<text x="31" y="21" font-size="2.8">seal {head[:16]}</text>'
        '<text x="31" y="26" font-size="2.6">Iron Kettle</text></svg>'
    )


def unit_label_svg(link: str, label: str, name: str, serial: str) -> str:
    """An SVG label of a unit, 70 × 30 mm: a QR code of the link that opens it here, and what can be typed instead."""
    code = segno.make(link, error="q")
    buffer = io.BytesIO()
    code.save(buffer, kind="svg", xmldecl=False, svgns=False, unit="mm", scale=26 / code.symbol_size()[0])
    lines = [name[:20], name[20:40]] if len(name) > 20 else [name]
    rows = "".join(
        f'<text x="31" y="{16 + 4.2 * place}" font-size="3.4">{escape(line)}</text>' for place, line in enumerate(lines)
    )
    return (
        '<svg xmlns="http://www.w3.org/2000/svg" width="70mm" height="30mm" viewBox="0 0 70 30" font-family="sans-serif">'
        '<rect width="70" height="30" fill="#fff"/>'
        f'<svg x="2" y="2" width="26" height="26">{buffer.getvalue().decode()}</svg>'
        f'<text x="31" y="9.5" font-size="5" font-weight="bold" font-family="monospace">{escape(label)}</text>'
        f'{rows}<text x="31" y="27" font-size="3.2">{escape(serial[:24])}</text></svg>'
    )
