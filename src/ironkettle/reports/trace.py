"""A test trace as a picture."""

from __future__ import annotations

from collections.abc import Sequence

from reportlab.graphics.shapes import Drawing, Line, PolyLine, Rect, String

from ironkettle.core.machine.pressure import Sample, thinned
from ironkettle.reports.style import COPPER, FAINT, INK, REGULAR, RULE

_LEFT, _BOTTOM, _TOP = 44.0, 18.0, 8.0
_COLUMNS = 500


def trace_drawing(
    samples: Sequence[Sample], judged: tuple[float, float], wanted_bar: float, width: float, height: float
) -> Drawing:
    """Pressure over time in bar and seconds; the wanted pressure as a line, what was not judged shaded. ``judged``: from, to [s]."""
    drawing = Drawing(width, height)
    points = thinned([sample.t for sample in samples], [sample.pressure * 10 for sample in samples], 2 * _COLUMNS)
    times, bars = [t for t, _ in points], [bar for _, bar in points]
    low, high = _margins(bars, wanted_bar)
    span = max(times[-1] - times[0], 1e-9)

    def x(t: float) -> float:
        return _LEFT + (t - times[0]) / span * (width - _LEFT - 6)

    def y(bar: float) -> float:
        return _BOTTOM + (bar - low) / (high - low) * (height - _BOTTOM - _TOP)

    first, last = (min(max(moment, times[0]), times[-1]) for moment in judged)
    for begins, ends in ((times[0], first), (last, times[-1])):
        box = (x(begins), _BOTTOM, x(ends) - x(begins), height - _BOTTOM - _TOP)
        drawing.add(Rect(*box, fillColor=RULE, strokeColor=None))
    drawing.add(
        Line(_LEFT, y(wanted_bar), width - 6, y(wanted_bar), strokeColor=FAINT, strokeWidth=0.6, strokeDashArray=[3, 2])
    )
    for share in (0.0, 0.5, 1.0):
        bar = low + share * (high - low)
        drawing.add(Line(_LEFT, y(bar), width - 6, y(bar), strokeColor=RULE, strokeWidth=0.4))
        drawing.add(_text(_LEFT - 4, y(bar) - 2, f"{bar:.1f} bar", "end"))
        moment = times[0] + share * span
        drawing.add(_text(x(moment), 6, f"{moment:.0f} s", ("start", "middle", "end")[int(share * 2)]))
    drawing.add(Line(_LEFT, _BOTTOM, _LEFT, height - _TOP, strokeColor=INK, strokeWidth=0.6))
    line = [value for t, bar in points for value in (x(t), y(bar))]
    drawing.add(PolyLine(line, strokeColor=COPPER, strokeWidth=1.1))
    return drawing


def _margins(bars: Sequence[float], wanted_bar: float) -> tuple[float, float]:
    """From where to where the pressure is drawn, so that the noise of a gauge stays a line. [bar]"""
    low, high = min(*bars, wanted_bar), max(*bars, wanted_bar)
    margin = max((high - low) * 0.15, 0.5)
    return low - margin, high + margin


def trace_thumbnail(samples: Sequence[Sample], wanted_bar: float, width: float, height: float) -> Drawing:
    """The trace in small, without figures: the pressure, and the wanted one as a line. [bar, pt]"""
    points = thinned([sample.t for sample in samples], [sample.pressure * 10 for sample in samples], int(width))
    times, bars = [t for t, _ in points], [bar for _, bar in points]
    low, high = _margins(bars, wanted_bar)
    span, reach = max(times[-1] - times[0], 1e-9), max(high - low, 1e-9)
    drawing = Drawing(width, height)
    drawing.add(Rect(0, 0, width, height, fillColor=None, strokeColor=RULE, strokeWidth=0.4))

    def y(bar: float) -> float:
        return 2 + (bar - low) / reach * (height - 4)

    drawing.add(
        Line(0, y(wanted_bar), width, y(wanted_bar), strokeColor=FAINT, strokeWidth=0.5, strokeDashArray=[2, 2])
    )
    line = [value for t, bar in points for value in ((t - times[0]) / span * width, y(bar))]
    drawing.add(PolyLine(line, strokeColor=COPPER, strokeWidth=0.9))
    return drawing


def _text(x: float, y: float, text: str, anchor: str) -> String:
    return String(x, y, text, fontName=REGULAR, fontSize=6.5, fillColor=FAINT, textAnchor=anchor)
