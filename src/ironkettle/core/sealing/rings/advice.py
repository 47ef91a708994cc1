"""Which single further measurement would settle which ring it is: computed, not guessed."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ironkettle.core.sealing.rings.condition import CROSSED_DEVIATION, CROSSED_MEAN, Condition
from ironkettle.core.sealing.rings.likelihood import Ring, groove_reading, rings_known, strata_for
from ironkettle.core.sealing.rings.measurement import ACROSS, FURTHER_UNCERTAINTY_MM, Measurement, Read
from ironkettle.core.sealing.rings.sizes import TOLERANCE_DEVIATIONS, Floats, RingTable

Places = NDArray[np.intp]

_MOST_LOOKED_AT = 8
_WORTH_LOOKING_AT = 1e-3
_MOST_PAIRS, _PAIR_WORTH = 32, 1e-3
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
    near: Places,
    joint: Floats,
    *,
    groove_known: bool,
) -> NextMeasurement | None:
    """The measurement whose expected largest probability is highest, over the likely sizes.

    None when everything that could be measured was.

    For each option the reading every likely size would give, in every way the ring may be, is normal, with
    what was read already taken into account; the expected probability of the first line afterwards
    is its integral. So a reading that settles how the ring is counts for what it is worth.

    Parameters
    ----------
    measurement : what was read already. [mm]
    table : the sizes. [mm]
    near : places of the sizes in reach.
    joint : probability of each part of the condition and each of those sizes now, parts × sizes. [-]
    groove_known : a groove given already is not asked for again.

    Source: expected value of a further observation, by quadrature.
    ``joint``: shares from 0 up to 1.
    """
    weights = joint.sum(axis=0)
    order = np.argsort(-weights, kind="stable")[:_MOST_LOOKED_AT]
    order = order[(weights[order] > _WORTH_LOOKING_AT) | (order == order[0])]
    likely = near[order].tolist()
    rows, columns = _worth_looking_at(joint[:, order])
    lines = [min(table.names_of(likely[column])) for column in columns]
    share = joint[rows, order[columns]]
    options = _options(measurement, table.part(likely), (rows, columns), groove_known=groove_known)
    if not options.reads:
        return None
    expected = _expected_best(share / share.sum(), options, lines)
    place = int(np.argmax(expected))
    gain, read = float(expected[place]), options.reads[place]
    first = min(table.names_of(likely[0]))
    other = next((i for i in likely if min(table.names_of(i)) != first), likely[0])
    names = f"{table.sizes[likely[0]].label} and {table.sizes[other].label}"
    why = _why(names, read.words, gain, groove_known=groove_known)
    return NextMeasurement(read, _WHAT[read], why, options.resolutions[place], gain)


def _worth_looking_at(joint: Floats) -> tuple[Places, Places]:
    """Rows and columns of the likeliest pairs of part and size."""
    flat = np.argsort(-joint, axis=None)[:_MOST_PAIRS]
    flat = flat[joint.ravel()[flat] > _PAIR_WORTH * joint.max()]
    rows, columns = np.unravel_index(flat, joint.shape)
    return np.asarray(rows), np.asarray(columns)


def _options(
    measurement: Measurement, part: RingTable, pairs: tuple[Places, Places], *, groove_known: bool
) -> _Options:
    """What could still be read, and what each pair of part and size would give. [mm]"""
    further = {extra.what for extra in measurement.further}
    known = rings_known(measurement, part)
    reads: list[Read] = []
    resolutions: list[float] = []
    means: list[Floats] = []
    deviations: list[Floats] = []

    def offer(read: Read, resolution: float, mean: Floats, variance: Floats) -> None:
        reads.append(read)
        resolutions.append(resolution)
        means.append(mean)
        deviations.append(np.sqrt(variance + (resolution / 2) ** 2))

    for read, shares in _ON_RING.items():
        if read not in further and not (read is Read.OUTSIDE and read is measurement.across):
            mean, variance = known.reading(*shares)
            offer(read, FURTHER_UNCERTAINTY_MM[read], mean[pairs], variance[pairs])
    if measurement.section_crossed is None:
        offer(
            Read.SECTION_CROSSED,
            2 * measurement.single_section_deviation,
            *_crossed_reading(measurement, part, known, pairs),
        )
    for read in (Read.GROOVE_DIAMETER, Read.GROOVE_WIDTH):
        if not groove_known and read not in further:
            resolution = FURTHER_UNCERTAINTY_MM[read]
            mean, deviation = groove_reading(read, part, 0.0)
            offer(read, resolution, mean[pairs[1]], deviation[pairs[1]] ** 2)
    return _Options(reads, resolutions, np.array(means), np.array(deviations))


def _crossed_reading(
    measurement: Measurement, part: RingTable, known: Ring, pairs: tuple[Places, Places]
) -> tuple[Floats, Floats]:
    """Mean and variance of the section read once more at right angles. [mm, mm²]

    A flattened ring keeps its area: a·b is (0.99 · made)². Any other reads the same both ways.
    """
    rows, columns = pairs
    strata, first = strata_for(measurement), measurement.section
    flat = strata.of(Condition.FLATTENED)[rows]
    made = CROSSED_MEAN * part.section[columns]
    relative = (CROSSED_DEVIATION / CROSSED_MEAN) ** 2 + (part.section_tolerance / TOLERANCE_DEVIATIONS / part.section)[
        columns
    ] ** 2
    across = made**2 / first
    same, variance = known.section[pairs], known.section_variance[pairs]
    return (
        np.where(flat, across, same),
        np.where(flat, (2 * across) ** 2 * relative, variance + strata.oval_variance[rows] * same**2),
    )


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
        by_line = np.stack([after[[line == own for line in lines]].sum(axis=0) for own in distinct])
    best = (by_line.max(axis=0) / after.sum(axis=0)).reshape(*mean.shape, len(_POINTS))
    return np.asarray(best @ _WEIGHTS @ share)


def _why(names: str, reading: str, gain: float, *, groove_known: bool) -> str:
    if gain >= _SETTLED:
        return f"{names} are both likely; the {reading} is expected to settle it ({gain:.0%})"
    way_out = "Where both fit this groove, either serves" if groove_known else "Let the groove decide"
    return (
        f"{names} cannot be distinguished with certainty: even the {reading} is expected to raise the first only to "
        f"{gain:.0%}. {way_out}"
    )
