"""Whether a gauge can judge a hold at all, and which step could."""

from __future__ import annotations

from ironkettle.core.machine.pressure.model import Gauge, HoldRules

_STEPS_IN_BAND = 2.0
_READABLE = (1.0, 2.0, 5.0)


def unsuited(gauge: Gauge, pressure: float, rules: HoldRules) -> str | None:
    """Why a gauge cannot judge a hold at a pressure, with the step that could; None where it can.

    The start is taken a little below the wanted pressure, by the shop's tolerance, the gauge's accuracy and one step. That and
    two steps more must lie within the band that is judged, or nothing tells a hold from a fall.

    Parameters: pressure : gauge pressure, negative for a vacuum [MPa]. Source: the shop's rules (docs/guide/pressure-tests.md).
    """
    size = abs(pressure)
    room = size * (rules.band_pct - rules.start_below_pct - gauge.accuracy_pct) / 100
    if room <= 0:
        most = rules.band_pct - rules.start_below_pct
        return (
            f"A gauge of ±{gauge.accuracy_pct:g} % cannot judge a hold in a band of {rules.band_pct:g} %. "
            f"Use one of less than ±{most:g} %."
        )
    if gauge.resolution * (1 + _STEPS_IN_BAND) <= room:
        return None
    finest = readable_step(room / (1 + _STEPS_IN_BAND))
    return (
        f"Steps of {gauge.resolution * 10:g} bar are too coarse to judge a hold at {pressure * 10:.4g} bar: the start and the "
        f"band of {rules.band_pct:g} % cannot be distinguished. Use a gauge with steps of {finest * 10:g} bar or finer."
    )


def readable_step(step: float) -> float:
    """The next finer step that gauges are made with: 1, 2, 5 and their tenths; above 0. [MPa]

    Source: no published source; typical scales of gauges.
    """
    power = 10.0**6
    while power > step:
        power /= 10
    return max((base * power for base in _READABLE if base * power <= step * (1 + 1e-9)), default=power)
