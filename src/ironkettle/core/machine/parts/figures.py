"""What several readings of one point come to: ovality, taper, wear, run-out, flatness, mean."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping, Sequence

from ironkettle.core.base.errors import fault

_PAIR = 2
_TILT = 4


def ovality(readings: Sequence[float]) -> float:
    """The largest difference of two diameters read crosswise at one place; readings come in such pairs. [as read]

    An odd number of readings is taken as diameters round one place: largest less smallest.

    Parameters: readings : 1 or more [mm]. Raises nothing.
    Source: ISO 12180-1, two-point measurement: local diameters of one section.

    >>> round(ovality([50.02, 50.00, 50.05, 50.04]), 3)
    0.02
    """
    if len(readings) % _PAIR:
        return max(readings) - min(readings)
    pairs = zip(readings[::_PAIR], readings[1::_PAIR], strict=True)
    return max(abs(one - other) for one, other in pairs)


def taper(readings: Sequence[float]) -> float:
    """The largest difference of the mean diameters of two places; read crosswise in pairs, or one at each place. [as read]

    Parameters: readings : 1 or more [mm]; an even number of four or more is taken as pairs. Raises nothing.
    Source: ISO 12180-1: the spread of local diameters along the axis.

    >>> round(taper([50.02, 50.00, 50.05, 50.04]), 3)
    0.035
    """
    paired = len(readings) >= 2 * _PAIR and len(readings) % _PAIR == 0
    means = [(a + b) / 2 for a, b in zip(readings[::2], readings[1::2], strict=True)] if paired else list(readings)
    return max(means) - min(means)


def wear(readings: Sequence[float], nominal: float | None) -> float:
    """How far the worst reading lies from what the part was made to. [as read]

    Parameters: readings : 1 or more [mm]; nominal : what it was made to [mm].
    Raises RuleError where no nominal is given.
    Source: by definition.

    >>> round(wear([27.96, 27.91, 27.98], 28.0), 3)
    0.09
    """
    if nominal is None:
        raise fault("nominal", "wear is held against a nominal; the point has none", "28 mm")
    return max(abs(nominal - value) for value in readings)


def run_out(readings: Sequence[float]) -> float:
    """Largest less smallest reading of a dial as the part is turned. [as read]

    Parameters: readings : 1 or more [mm]. Raises nothing. Source: ISO 1101, circular run-out.

    >>> round(run_out([0.02, 0.05, -0.01]), 3)
    0.06
    """
    return max(readings) - min(readings)


def flatness(readings: Sequence[float]) -> float:
    """How far a face is out of flat, its tilt taken out: readings of a dial at places evenly round the face. [as read]

    Tilt shows as one wave round the circle and is no fault of the face; with fewer than four readings it cannot be told
    apart, and the whole spread counts.

    Parameters: readings : 1 or more, evenly round [mm]. Raises nothing.
    Source: least-squares plane through points evenly on a circle (ISO 12781-1): mean and first wave taken out.

    >>> round(flatness([0.00, 0.05, 0.00, -0.05]), 3)
    0.0
    """
    count = len(readings)
    if count < _TILT:
        return max(readings) - min(readings)
    turns = [2 * math.pi * place / count for place in range(count)]
    mean = sum(readings) / count
    cosine = 2 / count * sum(value * math.cos(turn) for value, turn in zip(readings, turns, strict=True))
    sine = 2 / count * sum(value * math.sin(turn) for value, turn in zip(readings, turns, strict=True))
    left = [
        value - mean - cosine * math.cos(turn) - sine * math.sin(turn)
        for value, turn in zip(readings, turns, strict=True)
    ]
    return max(left) - min(left)


_PLAIN: Mapping[str, Callable[[Sequence[float]], float]] = {
    "ovality": ovality,
    "taper": taper,
    "run_out": run_out,
    "flatness": flatness,
    "difference": run_out,
    "mean": lambda readings: sum(readings) / len(readings),
    "sum": sum,
}


def figure_of(compute: str, readings: Sequence[float], nominal: float | None) -> float:
    """What readings come to under the name a sheet gives it. [as read]

    Parameters: compute : ovality, taper, wear, run_out, flatness, difference, mean or sum; readings : at least one; nominal for wear [mm].
    Raises RuleError for wear without a nominal. Source: the functions of that name.
    """
    return wear(readings, nominal) if compute == "wear" else _PLAIN[compute](readings)


__all__ = ["figure_of", "flatness", "ovality", "run_out", "taper", "wear"]
