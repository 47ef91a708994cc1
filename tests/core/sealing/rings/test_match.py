"""Which ring is it: ranking, groove evidence, names of one ring, priors."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from ironkettle.core.base.quantities import Toleranced
from ironkettle.core.sealing.grooves import Gland, GrooveLimits, Seat, sift_rings
from ironkettle.core.sealing.rings import (
    AS568,
    DEFAULT_PRIOR,
    Condition,
    Further,
    GrooveEvidence,
    Measurement,
    Read,
    RingSize,
    RingTable,
    match_ring,
)
from ironkettle.core.sealing.rings.match import OTHERWISE
from ironkettle.reference import ring_table

TABLE = ring_table()


def test_a_clean_inch_ring_is_named() -> None:
    # AS568-325: 1.475 in inside, 0.210 in section (SAE AS568); no other series has that section.
    found = match_ring(Measurement(37.47, 5.33, uncertainty=0.02), TABLE)
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


@pytest.mark.parametrize("condition", list(Condition))
def test_probabilities_of_all_lines_add_up_to_one(condition: Condition) -> None:
    found = match_ring(Measurement(24.9, 3.5, condition), TABLE, limit=len(TABLE.sizes))
    assert sum(c.probability for c in found.candidates) == pytest.approx(1.0)
    assert [c.probability for c in found.candidates] == sorted((c.probability for c in found.candidates), reverse=True)
    assert sum(1 + len(c.also) for c in found.candidates) == len(TABLE.sizes)


def test_one_ring_under_two_names_is_one_line() -> None:
    # AS568-214 is 0.984 × 0.139 in = 24.99 × 3.53 mm; ISO 3601 has 25 × 3.55.
    found = match_ring(Measurement(25.0, 3.54), TABLE)
    first = found.candidates[0]
    assert {first.size.label, *(other.label for other in first.also)} == {"AS568 214", "ISO 3601 25x3.55"}
    places = [i for i, size in enumerate(TABLE.sizes) if size in {first.size, *first.also}]
    assert first.probability == pytest.approx(float(found.probabilities[places].sum()))


def _evidence(gland: Gland) -> GrooveEvidence:
    sifted = sift_rings(gland, TABLE, GrooveLimits())
    return GrooveEvidence(sifted.misfit, sifted.discomfort, sifted.reasons)


def test_the_groove_outranks_the_old_ring() -> None:
    # A 3.5 mm ring out of a groove 2.05 deep: only 2.6 mm sections can live there.
    gland = Gland(Seat.PISTON, Toleranced(45.9), Toleranced(3.6), bore=Toleranced(50))
    plain = match_ring(Measurement(44.1, 3.5), TABLE)
    with_groove = match_ring(Measurement(44.1, 3.5), TABLE, groove=_evidence(gland))
    wrong = next(c for c in with_groove.candidates if c.size == plain.candidates[0].size)
    assert wrong.fits_groove is False
    assert any("squeeze" in reason for reason in wrong.reasons)
    assert plain.candidates[0].fits_groove is None


def test_a_size_just_outside_a_limit_is_doubted_less_than_one_far_outside() -> None:
    evidence = GrooveEvidence(np.array([0.0, 0.5, 1.0, 30.0]), np.zeros(4), lambda _place: ())
    likelihood = evidence.likelihood
    assert likelihood[0] == 1.0
    # exp(−0.5²/2) = 0.8825 by hand; far outside the floor of 2 % is left.
    assert likelihood[1] == pytest.approx(0.8825, abs=1e-4)
    assert likelihood[3] == 0.02
    assert list(likelihood) == sorted(likelihood, reverse=True)


def test_the_groove_turns_the_order_of_look_alikes() -> None:
    # 44.1 × 3.5 may be AS568-224 (44.04) or metric stock 44.5; a groove of 45.2 wants the larger ring.
    gland = Gland(Seat.PISTON, Toleranced(46.9), Toleranced(4.8), bore=Toleranced(52.6))
    plain = match_ring(Measurement(44.4, 3.5, uncertainty=0.5), TABLE)
    grooved = match_ring(Measurement(44.4, 3.5, uncertainty=0.5), TABLE, groove=_evidence(gland))
    assert grooved.candidates[0].size.inside_diameter > plain.candidates[0].size.inside_diameter
    assert grooved.candidates[0].fits_groove


def test_a_series_without_weight_is_never_first_unless_alone() -> None:
    prior = {**DEFAULT_PRIOR, "AS568": 0.0}
    assert match_ring(Measurement(24.99, 3.53), TABLE, prior=prior).candidates[0].size.series != AS568
    only = match_ring(Measurement(24.99, 3.53), TABLE.of_series([AS568]), prior=prior)
    assert only.candidates[0].size.label == "AS568 214"
    assert only.decided


def test_a_further_reading_settles_it() -> None:
    # A ruler reads 37.2 × 5.2; AS568-325 is 1.475 × 0.210 in = 37.47 × 5.33 mm.
    rough = Measurement(37.2, 5.2, uncertainty=0.8)
    before = match_ring(rough, TABLE)
    assert not before.decided
    further = (Further(Read.SECTION, 5.33, 0.02), Further(Read.INSIDE, 37.46, 0.02))
    after = match_ring(Measurement(37.2, 5.2, uncertainty=0.8, further=further), TABLE)
    assert after.candidates[0].size.label == "AS568 325"
    assert after.decided
    assert any(reason.startswith("inside diameter read −0.27 mm") for reason in after.candidates[0].reasons)


def test_sources_and_estimates_are_told() -> None:
    by_series = {size.series: size for size in TABLE.sizes}
    assert by_series["JIS B 2401"].tolerance_estimated
    assert "estimated" in by_series["JIS B 2401"].sure
    assert not by_series["AS568"].tolerance_estimated
    assert "not a standard" in by_series["metric"].sure


@given(d=st.floats(10, 120), s=st.floats(1, 8), condition=st.sampled_from(list(Condition)))
def test_the_order_of_the_table_does_not_matter(d: float, s: float, condition: Condition) -> None:
    measurement = Measurement(d, s, condition)
    upside_down = TABLE.part(range(len(TABLE.sizes) - 1, -1, -1))
    here, there = match_ring(measurement, TABLE, limit=3), match_ring(measurement, upside_down, limit=3)
    assert [c.probability for c in here.candidates] == pytest.approx([c.probability for c in there.candidates])


@given(place=st.integers(0, len(TABLE.sizes) - 1))
def test_sizes_far_away_take_no_share(place: int) -> None:
    """A new ring read true shares all its probability among sizes within 8 % of its diameter and a millimetre."""
    size = TABLE.sizes[place]
    found = match_ring(Measurement(size.inside_diameter, size.section), TABLE)
    near = (abs(TABLE.inside_diameter / size.inside_diameter - 1) < 0.08) | (
        abs(TABLE.inside_diameter - size.inside_diameter) < 1.0
    )
    assert found.probabilities[near].sum() == pytest.approx(1.0, abs=2e-3)


@pytest.mark.parametrize(
    ("measurement", "nearest"),
    [
        (Measurement(3.0, 3.5), "AS568 104"),  # a hole smaller than its cord
        (Measurement(25.0, 4.4, uncertainty=0.02), "metric stock 25x4"),  # between the sections of every series
        (Measurement(900.0, 8.0), "ISO 3601 670x7.00"),
        (Measurement(5000.0, 7.0), "ISO 3601 670x7.00"),
    ],
)
def test_a_reading_near_no_size_is_said_to_be_so_and_never_decided(measurement: Measurement, nearest: str) -> None:
    found = match_ring(measurement, TABLE)
    assert not found.decided
    assert found.next_measurement is None or found.findings[0].code == "condition-doubt"
    assert found.findings[0].code in {"no-known-size", "condition-doubt"}
    if found.findings[0].code == "no-known-size":
        assert nearest in found.findings[0].message


def test_larger_than_any_size_is_said() -> None:
    text = match_ring(Measurement(5000, 7), TABLE).findings[0].message
    assert text.startswith("larger than any known size, the largest of which is ISO 3601 670x7.00")
    # 670 ± 4.5 by its formula: three tolerances over are 683.6.
    assert "larger than any" not in match_ring(Measurement(683, 7, uncertainty=0.1), TABLE).findings[0].message


def test_a_section_of_no_common_series_is_not_decided() -> None:
    # 19.3 × 2.4 lies between AS568-910 (19.18 × 2.46) and stock on a JIS section: neither is sure.
    found = match_ring(Measurement(19.3, 2.4), TABLE)
    assert not found.decided
    names = {c.size.label for c in found.candidates[:2]}
    assert names == {"AS568 910", "metric stock 19.3x2.4"}
    assert next(c.size for c in found.candidates if c.size.label == "metric stock 19.3x2.4").seldom


def test_another_condition_that_explains_the_reading_is_named() -> None:
    # 3.2 is a flattened 3.53: too thin for any new ring of that diameter.
    told_new = match_ring(Measurement(24.99, 3.2), TABLE)
    assert not told_new.decided
    assert "as a flattened one AS568 214 would" in told_new.findings[0].message
    assert match_ring(Measurement(25.2, 3.2, Condition.FLATTENED), TABLE).findings == ()
    # Two readings that differ speak for themselves, whatever was told.
    crossed = match_ring(Measurement(24.99, 3.2, section_crossed=3.9), TABLE)
    assert "entered as new, but it reads like a flattened ring" in crossed.findings[0].message
    assert not crossed.decided


def test_a_size_that_does_not_fit_the_groove_is_never_decided() -> None:
    # AS568-325 read to a hundredth, in a groove for 2.62 sections: 40.5 bore, 36.2 bottom, 3.6 wide.
    gland = Gland(Seat.PISTON, Toleranced(36.2), Toleranced(3.6), bore=Toleranced(40.5))
    measured = Measurement(37.47, 5.33, uncertainty=0.02)
    assert match_ring(measured, TABLE).decided
    found = match_ring(measured, TABLE, groove=_evidence(gland))
    assert not found.decided
    assert found.reads_as.size.label == "AS568 325"
    assert found.reads_as.fits_groove is False
    assert [f.code for f in found.findings] == ["wrong-size"]
    assert "reads as AS568 325, which does not fit this groove: it was the wrong size" in found.findings[0].message
    assert found.fitting[0].label in found.findings[0].message
    # 36.2/1.02 = 35.5 inside and about 2.6 thick sit comfortably.
    assert found.fitting[0].inside_diameter == pytest.approx(35.5, abs=0.6)
    assert found.fitting[0].section == pytest.approx(2.6, abs=0.15)


def test_a_ring_that_fits_its_groove_is_decided_with_it() -> None:
    # AS568-325: bottom 38.0 is 1.4 % of stretch; depth 4.5 of 5.33 is 15 % of squeeze.
    gland = Gland(Seat.PISTON, Toleranced(38.0), Toleranced(7.1), bore=Toleranced(47.0))
    found = match_ring(Measurement(37.47, 5.33, uncertainty=0.02), TABLE, groove=_evidence(gland))
    assert found.decided
    assert found.findings == ()
    assert "AS568 325" in {size.label for size in found.fitting}


def test_a_groove_that_no_size_fits_is_to_be_read_again() -> None:
    evidence = GrooveEvidence(np.full(len(TABLE.sizes), 5.0), np.zeros(len(TABLE.sizes)), lambda _place: ("too deep",))
    found = match_ring(Measurement(37.47, 5.33, uncertainty=0.02), TABLE, groove=evidence)
    assert found.fitting == ()
    assert "no known size fits it: measure the groove again" in found.findings[0].message


def test_what_is_seldom_met_weighs_a_quarter() -> None:
    sizes = (
        RingSize("metric", "a", 50.0, 0.4, 3.0, 0.1, "test"),
        RingSize("metric", "b", 50.0, 0.4, 3.2, 0.1, "test", seldom=True),
    )
    found = match_ring(Measurement(50, 3.1), RingTable(sizes))
    assert {c.size.designation: c.probability for c in found.candidates}["b"] == pytest.approx(0.2, abs=0.03)


@given(place=st.integers(0, len(TABLE.sizes) - 1), condition=st.sampled_from(list(Condition)), seed=st.integers(0, 99))
def test_a_ring_drawn_from_its_size_is_near_it(place: int, condition: Condition, seed: int) -> None:
    """Four thirds of an ordinary deviation off in both readings are nothing to remark on."""
    size, chance = TABLE.sizes[place], np.random.default_rng(seed)
    factor = {
        Condition.NEW: (1.0, 1.0),
        Condition.USED: (1.005, 0.985),
        Condition.FLATTENED: (1.01, 0.91),
        Condition.SWOLLEN: (1.05, 1.05),
        Condition.STRETCHED: (1.03, 1.03**-0.5),
    }[condition]
    d = size.inside_diameter * factor[0] + 1.3 * chance.uniform(-1, 1) * size.inside_tolerance / 2.6
    s = size.section * factor[1] + 1.3 * chance.uniform(-1, 1) * size.section_tolerance / 2.6
    found = match_ring(Measurement(float(d), float(s), condition), TABLE).findings
    assert [one for one in found if one.code != OTHERWISE] == []


def test_a_doubt_of_the_condition_never_names_the_one_that_was_told() -> None:
    # 22 × 1.60 mm, told as used: AS568 020 (21.95 × 1.78) flattened by 10 %.
    found = match_ring(Measurement(22.0, 1.60, Condition.USED, uncertainty=0.05), TABLE).findings
    assert [one.code for one in found] == ["condition-doubt"]
    assert "as a flattened one AS568 020" in found[0].message


def test_swapped_readings_are_noticed() -> None:
    # AS568-214 is 24.99 × 3.53 mm.
    found = match_ring(Measurement(3.53, 24.99), TABLE)
    assert [finding.code for finding in found.findings] == ["swapped", "no-known-size"]
    assert not found.known
    assert not found.decided
    # AS568-001 is thicker than its hole, 0.74 × 1.02 mm, and no mistake.
    small = match_ring(Measurement(0.74, 1.02), TABLE)
    assert small.known
    assert small.findings == ()


def test_what_swelled_and_took_a_set_is_not_decided_as_what_only_swelled() -> None:
    """Told swollen, but set as well: of 200 drawn so, hardly one may be decided for another size."""
    chance, wrong, decided = np.random.default_rng(5), 0, 0
    for _ in range(200):
        size = TABLE.sizes[int(chance.integers(len(TABLE.sizes)))]
        growth = (1 + chance.uniform(0.02, 0.30)) ** (1 / 3)
        lost = 1 - chance.uniform(0.05, 0.95) * chance.uniform(0.10, 0.25)
        read = Measurement(
            size.inside_diameter * growth * 1.01, size.section * growth * lost, Condition.SWOLLEN, uncertainty=0.05
        )
        found = match_ring(read, TABLE)
        decided += found.decided
        wrong += found.decided and size not in {found.candidates[0].size, *found.candidates[0].also}
    assert wrong <= 6


def test_all_that_is_true_of_a_ring_can_be_told() -> None:
    # 20 × 4 mm swollen by 15 % and flattened by 10 %: 20 · 1.0477 · 1.01 and 4 · 1.0477 · 0.9.
    both = Measurement(21.16, 3.77, Condition.SWOLLEN, uncertainty=0.05, as_well=(Condition.FLATTENED,))
    alone = Measurement(21.16, 3.77, Condition.SWOLLEN, uncertainty=0.05)
    metric = TABLE.of_series(["metric"])

    def share(read: Measurement) -> float:
        lines = match_ring(read, metric, limit=50).candidates
        return sum(line.probability for line in lines if line.size.designation == "20x4")

    assert share(both) > 3 * share(alone)
