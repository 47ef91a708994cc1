"""Which measurement next: the expected gain against drawing the readings."""

from __future__ import annotations

import numpy as np
import pytest

from ironkettle.core.sealing.rings import (
    AS568,
    Condition,
    Further,
    GrooveEvidence,
    Measurement,
    NextMeasurement,
    Read,
    RingSize,
    RingTable,
    match_ring,
)
from ironkettle.core.sealing.rings.likelihood import rings_known, weigh_readings
from ironkettle.reference import ring_table

TABLE = ring_table()


def advice(measurement: Measurement, table: RingTable = TABLE, **options: object) -> NextMeasurement:
    found = match_ring(measurement, table, **options)  # type: ignore[arg-type]
    assert found.next_measurement is not None
    return found.next_measurement


def pair(d1: tuple[float, float], d2: tuple[float, float]) -> RingTable:
    return RingTable(tuple(RingSize(AS568, n, a, 0.15, b, 0.03, "test") for n, a, b in zip("ab", d1, d2, strict=True)))


def test_sections_apart_ask_for_the_section_and_diameters_apart_for_a_diameter() -> None:
    rough = {"uncertainty": 0.4}
    assert advice(Measurement(50.0, 3.05, **rough), pair((50, 50), (3.0, 3.1))).read is Read.SECTION
    by_diameter = advice(Measurement(50.2, 3.0, **rough), pair((50, 50.4), (3.0, 3.0)))
    assert by_diameter.read in {Read.INSIDE, Read.OUTSIDE}
    assert "settle" in by_diameter.why


def test_the_expected_probability_is_that_of_drawn_readings() -> None:
    """Independent method: draw the advised reading from each size's ring and judge it by Bayes' rule."""
    table = pair((50, 50.25), (3.0, 3.06))
    measured = Measurement(50.1, 3.03, uncertainty=0.3)
    found = match_ring(measured, table)
    told = found.next_measurement
    assert told is not None
    shares = {Read.SECTION: (0.0, 1.0), Read.INSIDE: (1.0, 0.0), Read.OUTSIDE: (1.0, 2.0)}[told.read]
    mean, variance = rings_known(measured, table).reading(*shares)
    deviation = np.sqrt(variance + (told.resolution_mm / 2) ** 2).ravel()
    log = weigh_readings(measured, table).log
    joint = np.exp(log - log.max()).ravel()  # parts of the condition by sizes, as one row
    joint, mean = joint / joint.sum(), mean.ravel()
    assert joint.reshape(log.shape).sum(axis=0) == pytest.approx(found.probabilities)
    chance = np.random.default_rng(8)
    truth = chance.choice(len(joint), 20_000, p=joint)
    readings = chance.normal(mean[truth], deviation[truth])[:, None]
    weight = np.exp(-0.5 * ((readings - mean) / deviation) ** 2) / deviation * joint
    by_size = weight.reshape(-1, *log.shape).sum(axis=1)
    drawn = float((by_size.max(axis=1) / by_size.sum(axis=1)).mean())
    assert told.expected == pytest.approx(drawn, abs=0.01)


def test_a_flattened_ring_read_once_may_be_read_crosswise() -> None:
    told = advice(Measurement(50.2, 2.75, Condition.FLATTENED), pair((50, 50), (2.9, 3.1)))
    assert told.read is Read.SECTION_CROSSED
    assert told.expected > 0.9


def test_a_swollen_ring_sends_one_to_the_groove() -> None:
    assert advice(Measurement(26, 3.65, Condition.SWOLLEN)).read is Read.GROOVE_DIAMETER


def test_what_was_read_is_not_asked_for_again() -> None:
    first = advice(Measurement(26, 3.65, Condition.SWOLLEN))
    again = advice(Measurement(26, 3.65, Condition.SWOLLEN, further=(Further(first.read, 25.5),)))
    assert again.read is not first.read


def test_when_all_is_measured_nothing_is_asked_for() -> None:
    further = tuple(
        Further(read, value) for read, value in ((Read.SECTION, 3.5), (Read.INSIDE, 44.1), (Read.OUTSIDE, 51.1))
    )
    groove = GrooveEvidence(np.zeros(len(TABLE.sizes)), np.zeros(len(TABLE.sizes)), lambda _place: ())
    found = match_ring(Measurement(44.1, 3.5, section_crossed=3.5, further=further), TABLE, groove=groove)
    assert not found.decided
    assert found.next_measurement is None


def test_sizes_nobody_can_tell_apart_are_said_so() -> None:
    # AS568-224 is 44.04 ±0.38 × 3.53, metric stock 44 × 3.5: nearer than rings are made true.
    told = advice(Measurement(44.1, 3.5))
    assert told.expected < 0.9
    assert "cannot be distinguished" in told.why


@pytest.mark.parametrize("seed", range(6))
def test_following_the_advice_raises_the_first_on_average(seed: int) -> None:
    """Rings drawn near look-alikes: after the advised reading the first stands as high as was expected."""
    chance = np.random.default_rng(seed)
    places = [i for i, s in enumerate(TABLE.sizes) if 20 < s.inside_diameter < 60 and 2 < s.section < 4]
    before, after, expected = [], [], []
    for place in chance.choice(places, 60):
        size = TABLE.sizes[place]
        d = chance.normal(size.inside_diameter, size.inside_tolerance / 3)
        s = chance.normal(size.section, size.section_tolerance / 3)
        measured = Measurement(float(chance.normal(d, 0.1)), float(chance.normal(s, 0.1)), uncertainty=0.2)
        found = match_ring(measured, TABLE)
        told = found.next_measurement
        if told is None or told.read not in {Read.SECTION, Read.INSIDE, Read.OUTSIDE}:
            continue
        a, b = {Read.SECTION: (0, 1), Read.INSIDE: (1, 0), Read.OUTSIDE: (1, 2)}[told.read]
        reading = float(chance.normal(a * d + b * s, told.resolution_mm / 2))
        more = Measurement(measured.diameter, measured.section, uncertainty=0.2, further=(Further(told.read, reading),))
        before.append(found.candidates[0].probability)
        after.append(match_ring(more, TABLE).candidates[0].probability)
        expected.append(told.expected)
    assert len(after) > 20
    assert np.mean(after) > np.mean(before)
    assert np.mean(after) == pytest.approx(np.mean(expected), abs=0.12)
