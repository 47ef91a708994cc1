"""A test trace as a picture."""

from __future__ import annotations

from collections.abc import Sequence

from reportlab.graphics.shapes import Drawing, Line, PolyLine, Rect, String

from ironkettle.core.jobs.entries import SampleRead
from ironkettle.reports.style import COPPER, FAINT, INK, REGULAR, RULE

_LEFT, _BOTTOM, _TOP = 44.0, 18.0, 8.0


def trace_drawing(samples: Sequence[SampleRead], settled_from: float, width: float, height: float) -> Drawing:
    """Pressure over time in bar and seconds; the settling part left out of the rate is shaded."""
    drawing = Drawing(width, height)
    times = [sample.t_s for sample in samples]
    bars = [sample.pressure_mpa * 10 for sample in samples]
    low, high = min(bars), max(bars)
    margin = max((high - low) * 0.15, 0.5)
    low, high = low - margin, high + margin
    span = max(times[-1] - times[0], 1e-9)

    def x(t: float) -> float:
        return _LEFT + (t - times[0]) / span * (width - _LEFT - 6)

    def y(bar: float) -> float:
        return _BOTTOM + (bar - low) / (high - low) * (height - _BOTTOM - _TOP)

    drawing.add(
        Rect(
            x(times[0]),
            _BOTTOM,
            x(settled_from) - x(times[0]),
            height - _BOTTOM - _TOP,
            fillColor=RULE,
            strokeColor=None,
        )
    )
    for share in (0.0, 0.5, 1.0):
        bar = low + share * (high - low)
        drawing.add(Line(_LEFT, y(bar), width - 6, y(bar), strokeColor=RULE, strokeWidth=0.4))
        drawing.add(_text(_LEFT - 4, y(bar) - 2, f"{bar:.1f} bar", "end"))
        moment = times[0] + share * span
        drawing.add(_text(x(moment), 6, f"{moment:.0f} s", ("start", "middle", "end")[int(share * 2)]))
    drawing.add(Line(_LEFT, _BOTTOM, _LEFT, height - _TOP, strokeColor=INK, strokeWidth=0.6))
    points = [value for t, bar in zip(times, bars, strict=True) for value in (x(t), y(bar))]
    drawing.add(PolyLine(points, strokeColor=COPPER, strokeWidth=1.1))
    return drawing


def _text(x: float, y: float, text: str, anchor: str) -> String:
    return String(x, y, text, fontName=REGULAR, fontSize=6.5, fillColor=FAINT, textAnchor=anchor)
