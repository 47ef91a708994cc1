"""Which single further measurement would settle which ring it is: computed, not guessed."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ironkettle.core.rings.condition import Condition, factors_of
from ironkettle.core.rings.likelihood import groove_reading, rings_known
from ironkettle.core.rings.measurement import ACROSS, FURTHER_UNCERTAINTY_MM, Measurement, Read
from ironkettle.core.rings.sizes import Floats, RingTable

_MOST_LOOKED_AT = 8
_WORTH_LOOKING_AT = 1e-3
_SETTLED = 0.90
_POINTS, _WEIGHTS = np.polynomial.hermite_e.hermegauss(9)
_WEIGHTS = _WEIGHTS / _WEIGHTS.sum()

_ON_RING = {Read.SECTION: (0.0, 1.0), Read.OUTSIDE: ACROSS[Read.OUTSIDE], Read.INSIDE: ACROSS[Read.INSIDE]}
_WHAT = {
    Read.SECTION: "section to 0.01 mm, mean of three places",
    Read.SECTION_CROSSED: "section once more, at right angles to the first reading",
    Read.INSIDE: "inside diameter to 0.05 mm, on a cone or plug gauge",
    Read.OUTSIDE: "outside diameter to 0.05 mm, ring lying flat",
    Read.GROOVE_DIAMETER: "groove diameter to 0.05 mm, where the ring sits (on a rod: the rod)",
    Read.GROOVE_WIDTH: "groove width to 0.05 mm",
}


@dataclass(frozen=True, slots=True)
class NextMeasurement:
    """The one further measurement expected to raise the first candidate most.

    ``read`` is the dimension, ``what`` says it in words, ``resolution_mm`` how finely to read [mm],
    ``expected`` the probability the first is expected to reach [-].
    """

    read: Read
    what: str
    why: str
    resolution_mm: float
    expected: float


@dataclass(frozen=True, slots=True)
class _Options:
    """Measurements that could be taken: rows of the readings each likely size would give. [mm]"""

    reads: list[Read]
    resolutions: list[float]
    mean: Floats
    deviation: Floats


def advise_measurement(
    measurement: Measurement,
    table: RingTable,
    weights: Floats,
    order: NDArray[np.intp],
    *,
    groove_known: bool,
) -> NextMeasurement | None:
    """The measurement whose expected largest probability is highest, over the likely sizes.

    None when everything that could be measured was.

    For each option the reading every likely size would give is normal, with what was read already
    taken into account; the expected probability of the first line afterwards is its integral.

    Parameters
    ----------
    measurement : what was read already. [mm]
    table : the sizes. [mm]
    weights : probability of each size now. [-]
    order : indices, most probable first.
    groove_known : a groove given already is not asked for again.
    """
    likely = [int(i) for i in order[:_MOST_LOOKED_AT] if weights[i] > _WORTH_LOOKING_AT]
    lines = [min(table.names_of(index)) for index in likely]
    share = weights[likely] / weights[likely].sum()
    part = table.part(likely)
    options = _options(measurement, part, groove_known=groove_known)
    if not options.reads:
        return None
    expected = _expected_best(share, options, lines)
    place = int(np.argmax(expected))
    gain, read = float(expected[place]), options.reads[place]
    other = next((i for n, i in enumerate(likely) if lines[n] != lines[0]), likely[0])
    names = f"{table.sizes[likely[0]].label} and {table.sizes[other].label}"
    why = _why(names, read.words, gain, groove_known=groove_known)
    return NextMeasurement(read, _WHAT[read], why, options.resolutions[place], gain)


def _options(measurement: Measurement, part: RingTable, *, groove_known: bool) -> _Options:
    further = {one.what for one in measurement.further}
    reads = [
        read for read in _ON_RING if read not in further and not (read is Read.OUTSIDE and read is measurement.across)
    ]
    resolutions = [FURTHER_UNCERTAINTY_MM[read] for read in reads]
    a, b = (np.array([_ON_RING[read][side] for read in reads])[:, None] for side in (0, 1))
    known = rings_known(measurement, part)
    variance = a**2 * known.diameter_variance + b**2 * known.section_variance
    if known.covariance is not None:
        variance = variance + 2 * a * b * known.covariance
    half = np.array(resolutions)[:, None] / 2
    means = [a * known.diameter + b * known.section]
    deviations = [np.sqrt(np.maximum(variance, 0.0) + half**2)]
    if measurement.condition is Condition.FLATTENED and measurement.section_crossed is None:
        reading = measurement.section_deviation
        factor = factors_of(Condition.FLATTENED, crossed=True)
        spread = factor.section_variance * part.section**2 + (part.section_tolerance / 3) ** 2 + reading**2 / 2
        reads, resolutions = [*reads, Read.SECTION_CROSSED], [*resolutions, 2 * reading]
        means.append(factor.section * part.section[None])
        deviations.append(np.sqrt(spread)[None])
    for read in (Read.GROOVE_DIAMETER, Read.GROOVE_WIDTH):
        if groove_known or read in further:
            continue
        resolution = FURTHER_UNCERTAINTY_MM[read]
        mean, deviation = groove_reading(read, part, resolution / 2)
        reads, resolutions = [*reads, read], [*resolutions, resolution]
        means.append(mean[None])
        deviations.append(deviation[None])
    return _Options(reads, resolutions, np.concatenate(means), np.concatenate(deviations))


def _expected_best(share: Floats, options: _Options, lines: Sequence[int]) -> Floats:
    """Expected probability of the first line after each option's reading, by quadrature over the readings. [-]"""
    mean, deviation = options.mean, options.deviation
    # Axes: the size that is judged, option, the size that is true with its quadrature points.
    readings = (mean[:, :, None] + deviation[:, :, None] * _POINTS).reshape(len(mean), -1)
    judged_mean, judged_deviation = mean.T[:, :, None], deviation.T[:, :, None]
    after = np.exp(-0.5 * ((readings - judged_mean) / judged_deviation) ** 2)
    after *= share[:, None, None] / judged_deviation
    by_line = after
    distinct = list(dict.fromkeys(lines))
    if len(distinct) < len(lines):
        by_line = np.stack([after[[line == one for line in lines]].sum(axis=0) for one in distinct])
    best = (by_line.max(axis=0) / after.sum(axis=0)).reshape(*mean.shape, len(_POINTS))
    return np.asarray(best @ _WEIGHTS @ share)


def _why(names: str, reading: str, gain: float, *, groove_known: bool) -> str:
    if gain >= _SETTLED:
        return f"{names} are both likely; the {reading} is expected to settle it ({gain:.0%})"
    way_out = "Where both fit this groove, either serves" if groove_known else "Let the groove decide"
    return (
        f"{names} cannot be told apart for certain: even the {reading} is expected to raise the first only to "
        f"{gain:.0%}. {way_out}"
    )
