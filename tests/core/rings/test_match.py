"""Which ring is it: honest probabilities from stated distributions."""

from __future__ import annotations

import numpy as np
import pytest

from ironkettle.core.rings import (
    AS568,
    DEFAULT_PRIOR,
    SERIES,
    Condition,
    GrooveEvidence,
    Measurement,
    RingTable,
    match_ring,
)
from ironkettle.core.rings.condition import bias_of
from ironkettle.core.rings.match import log_likelihood
from ironkettle.reference import ring_table

TABLE = ring_table()


def test_a_clean_inch_ring_is_named() -> None:
    # AS568-325: 1.475 in inside, 0.210 in section (SAE AS568); no other series has that section.
    found = match_ring(Measurement(37.47, 5.33, uncertainty=0.02, diameter_uncertainty=0.05), TABLE)
    assert (found.candidates[0].size.series, found.candidates[0].size.designation) == (AS568, "325")
    assert found.decided
    assert found.next_measurement is None


def test_look_alikes_stay_undecided_and_name_the_next_measurement() -> None:
    found = match_ring(Measurement(44.1, 3.5, Condition.USED), TABLE)
    names = {(c.size.series, c.size.designation) for c in found.candidates[:4]}
    assert ("AS568", "224") in names
    assert ("ISO 3601", "43.7x3.55") in names
    assert not found.decided
    assert found.next_measurement is not None
    assert found.next_measurement.resolution_mm <= 0.05


def test_two_crossed_readings_give_the_round_section_of_equal_area() -> None:
    # √(2.9 · 4.2) = 3.490 by hand.
    assert Measurement(44.1, 2.9, section_crossed=4.2).round_section == pytest.approx(3.490, abs=1e-3)


def test_the_groove_outranks_the_old_ring() -> None:
    plain = match_ring(Measurement(44.1, 3.5), TABLE)
    best = TABLE.sizes.index(plain.candidates[0].size)
    fits = [index != best for index in range(len(TABLE.sizes))]
    reasons = [() if ok else ("squeeze too small",) for ok in fits]
    with_groove = match_ring(Measurement(44.1, 3.5), TABLE, groove=GrooveEvidence(fits, reasons))
    wrong = next(c for c in with_groove.candidates if c.size == plain.candidates[0].size)
    assert wrong.probability < 0.2 * plain.candidates[0].probability
    assert wrong.fits_groove is False
    assert "squeeze too small" in wrong.reasons


@pytest.mark.parametrize("condition", list(Condition))
def test_probabilities_add_up_to_one_in_every_condition(condition: Condition) -> None:
    found = match_ring(Measurement(24.9, 3.5, condition), TABLE, limit=len(TABLE.sizes))
    assert sum(c.probability for c in found.candidates) == pytest.approx(1.0)


@pytest.mark.parametrize("condition", list(Condition))
def test_weights_of_a_condition_add_up_to_one(condition: Condition) -> None:
    for crossed in (False, True):
        assert bias_of(condition, crossed=crossed).weight.sum() == pytest.approx(1.0)


def test_a_new_ring_is_normal_about_its_size() -> None:
    # By hand: deviations are tolerance/3 and uncertainty/2, added in square; a reading on the size itself
    # differs from one a standard deviation off by a factor exp(-1/2).
    table = TABLE.of_series([AS568])
    size = table.find(AS568, "214")
    index = table.sizes.index(size)
    spread = float(np.hypot(size.inside_tolerance / 3, 0.08 / 2))
    on = log_likelihood(Measurement(size.inside_diameter, size.section, diameter_uncertainty=0.08), table)[index]
    off = log_likelihood(Measurement(size.inside_diameter + spread, size.section, diameter_uncertainty=0.08), table)[
        index
    ]
    assert on - off == pytest.approx(0.5)


def _simulated(count: int, uncertainty: float, seed: int) -> tuple[np.ndarray, np.ndarray, np.ndarray, np.ndarray]:
    """Rings drawn from the stated model: prior, tolerance as 3 s, reading as 2 s."""
    chance = np.random.default_rng(seed)
    counts = np.bincount(TABLE.series_index, minlength=len(SERIES))
    prior = np.array([DEFAULT_PRIOR[s] for s in SERIES])[TABLE.series_index] / counts[TABLE.series_index]
    true = chance.choice(len(TABLE.sizes), size=count, p=prior / prior.sum())
    d1, d2 = TABLE.inside_diameter[true], TABLE.section[true]
    reading_d = uncertainty / 2
    made_d1 = chance.normal(d1, TABLE.inside_tolerance[true] / 3)
    made_d2 = chance.normal(d2, TABLE.section_tolerance[true] / 3)
    return true, chance.normal(made_d1, reading_d), chance.normal(made_d2, uncertainty / 2), prior / prior.sum()


def test_stated_probabilities_are_calibrated() -> None:
    """In each tenth from 0.5 up the share of right answers is the stated probability within 3 points plus chance."""
    uncertainty = 0.05
    true, diameters, sections, _ = _simulated(2500, uncertainty, seed=11)
    stated, right = np.empty(len(true)), np.empty(len(true), dtype=bool)
    for i, (d, s) in enumerate(zip(diameters, sections, strict=True)):
        found = match_ring(
            Measurement(float(d), float(s), uncertainty=uncertainty, diameter_uncertainty=uncertainty), TABLE, limit=1
        )
        stated[i] = found.candidates[0].probability
        right[i] = found.candidates[0].size is TABLE.sizes[true[i]]
    for low in np.arange(0.5, 1.0, 0.1):
        chosen = (stated >= low) & (stated < low + 0.1)
        if chosen.sum() >= 100:
            chance = 2 * float(np.sqrt(0.25 / chosen.sum()))
            assert abs(right[chosen].mean() - stated[chosen].mean()) < 0.03 + chance


def test_first_candidate_is_as_often_right_as_the_best_classifier() -> None:
    """The best classifier takes the largest prior times likelihood, computed here apart from the rule."""
    uncertainty = 0.05
    true, diameters, sections, prior = _simulated(1500, uncertainty, seed=23)
    ours = best = 0
    for i, (d, s) in enumerate(zip(diameters, sections, strict=True)):
        sd = np.sqrt((TABLE.inside_tolerance / 3) ** 2 + (uncertainty / 2) ** 2)
        ss = np.sqrt((TABLE.section_tolerance / 3) ** 2 + (uncertainty / 2) ** 2)
        density = (
            prior
            * np.exp(-((d - TABLE.inside_diameter) ** 2) / (2 * sd**2) - (s - TABLE.section) ** 2 / (2 * ss**2))
            / (sd * ss)
        )
        best += int(np.argmax(density)) == true[i]
        reading = Measurement(float(d), float(s), uncertainty=uncertainty, diameter_uncertainty=uncertainty)
        ours += match_ring(reading, TABLE, limit=1).candidates[0].size is TABLE.sizes[true[i]]
    assert ours >= 0.99 * best


def test_table_finds_sizes_by_any_writing_and_names_what_fits() -> None:
    assert TABLE.find(AS568, "-214") is TABLE.find(AS568, "214")
    assert TABLE.find("ISO 3601", "20X1.80").section == 1.80
    with pytest.raises(Exception, match="has no size"):
        TABLE.find(AS568, "999")
    with pytest.raises(Exception, match="not a series"):
        TABLE.find("DIN", "1")
    assert len(RingTable(()).sizes) == 0
