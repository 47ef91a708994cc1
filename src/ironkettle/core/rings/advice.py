"""Which single further measurement would settle which ring it is: computed, not guessed."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
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
class _Option:
    """A measurement: the reading each likely size would give, mean and deviation. [mm]"""

    read: Read
    resolution: float
    mean: Floats
    deviation: Floats


def advise_measurement(
    measurement: Measurement,
    table: RingTable,
    weights: Floats,
    order: NDArray[np.intp],
    *,
    groove_known: bool,
) -> NextMeasurement:
    """The measurement whose expected largest probability is highest, over the likely sizes.

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
    options = list(_options(measurement, part, groove_known=groove_known))
    expected = _expected_best(share, options, lines)
    place = int(np.argmax(expected))
    gain, best = float(expected[place]), options[place]
    other = next((i for n, i in enumerate(likely) if lines[n] != lines[0]), likely[0])
    names = f"{table.sizes[likely[0]].label} and {table.sizes[other].label}"
    return NextMeasurement(
        best.read,
        _WHAT[best.read],
        _why(names, best.read.words, gain, groove_known=groove_known),
        best.resolution,
        gain,
    )


def _options(measurement: Measurement, part: RingTable, *, groove_known: bool) -> Iterator[_Option]:
    further = {one.what for one in measurement.further}
    known = rings_known(measurement, part)
    for read, shares in ((Read.SECTION, (0.0, 1.0)), (Read.OUTSIDE, ACROSS[Read.OUTSIDE]), (Read.INSIDE, (1.0, 0.0))):
        if read in further or read is Read.OUTSIDE is measurement.across:
            continue
        resolution = FURTHER_UNCERTAINTY_MM[read]
        mean, variance = known.reading(*shares)
        yield _Option(read, resolution, mean, np.sqrt(variance + (resolution / 2) ** 2))
    if measurement.condition is Condition.FLATTENED and measurement.section_crossed is None:
        factor = factors_of(Condition.FLATTENED, crossed=True)
        reading = measurement.section_deviation
        spread = factor.section_variance * part.section**2 + (part.section_tolerance / 3) ** 2 + reading**2 / 2
        yield _Option(Read.SECTION_CROSSED, 2 * reading, factor.section * part.section, np.sqrt(spread))
    for read in (Read.GROOVE_DIAMETER, Read.GROOVE_WIDTH):
        if groove_known or read in further:
            continue
        resolution = FURTHER_UNCERTAINTY_MM[read]
        yield _Option(read, resolution, *groove_reading(read, part, resolution / 2))


def _expected_best(share: Floats, options: Sequence[_Option], lines: Sequence[int]) -> Floats:
    """Expected probability of the first line after each option's reading, by quadrature over the readings. [-]"""
    mean = np.array([option.mean for option in options])
    deviation = np.array([option.deviation for option in options])
    # Axes: the size that is judged, option, the size that is true with its quadrature points.
    readings = (mean[:, :, None] + deviation[:, :, None] * _POINTS).reshape(len(options), -1)
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
