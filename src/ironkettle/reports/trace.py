"""A test trace as a picture."""

from __future__ import annotations

from collections.abc import Sequence

from reportlab.graphics.shapes import Drawing, Line, PolyLine, Rect, String

from ironkettle.core.moves.runs import SampleRead
from ironkettle.reports.style import COPPER, FAINT, INK, REGULAR, RULE

_LEFT, _BOTTOM, _TOP = 44.0, 18.0, 8.0
_COLUMNS = 500


def trace_drawing(
    samples: Sequence[SampleRead], judged_s: float, wanted_bar: float, width: float, height: float
) -> Drawing:
    """Pressure over time in bar and seconds; the wanted pressure as a line, what was not judged shaded."""
    drawing = Drawing(width, height)
    samples = _thinned(samples)
    times = [sample.t_s for sample in samples]
    bars = [sample.pressure_mpa * 10 for sample in samples]
    low, high = min(*bars, wanted_bar), max(*bars, wanted_bar)
    margin = max((high - low) * 0.15, 0.5)
    low, high = low - margin, high + margin
    span = max(times[-1] - times[0], 1e-9)

    def x(t: float) -> float:
        return _LEFT + (t - times[0]) / span * (width - _LEFT - 6)

    def y(bar: float) -> float:
        return _BOTTOM + (bar - low) / (high - low) * (height - _BOTTOM - _TOP)

    judged_to = min(times[0] + judged_s, times[-1])
    shaded = x(times[-1]) - x(judged_to)
    drawing.add(Rect(x(judged_to), _BOTTOM, shaded, height - _BOTTOM - _TOP, fillColor=RULE, strokeColor=None))
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
    points = [value for t, bar in zip(times, bars, strict=True) for value in (x(t), y(bar))]
    drawing.add(PolyLine(points, strokeColor=COPPER, strokeWidth=1.1))
    return drawing


def _thinned(samples: Sequence[SampleRead]) -> Sequence[SampleRead]:
    """At most two a column of the picture, the lowest and the highest of it, so that no dip is lost."""
    if len(samples) <= 2 * _COLUMNS:
        return samples
    size = -(-len(samples) // _COLUMNS)
    kept = [samples[0]]
    for start in range(0, len(samples), size):
        part = samples[start : start + size]
        ends = {id(one): one for one in (min(part, key=_pressure), max(part, key=_pressure))}
        kept += sorted((one for one in ends.values() if one.t_s > kept[-1].t_s), key=lambda one: one.t_s)
    return kept if kept[-1].t_s == samples[-1].t_s else [*kept, samples[-1]]


def _pressure(sample: SampleRead) -> float:
    return sample.pressure_mpa


def _text(x: float, y: float, text: str, anchor: str) -> String:
    return String(x, y, text, fontName=REGULAR, fontSize=6.5, fillColor=FAINT, textAnchor=anchor)
