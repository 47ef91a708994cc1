"""Wrong tries wait longer each time, and never for ever."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ironkettle.core.shop.people import ADDRESS_TRIES, PERSON_TRIES, Tries, pause_after

BOTH = st.sampled_from([PERSON_TRIES, ADDRESS_TRIES])


@pytest.mark.parametrize(
    ("wrong", "pause"),
    # By hand: three are free, then 5 s doubled each time, at most 15 min.
    [(0, 0), (3, 0), (4, 5), (5, 10), (6, 20), (10, 320), (11, 640), (12, 900), (13, 900), (10**9, 900)],
)
def test_a_persons_pauses(wrong: int, pause: float) -> None:
    assert pause_after(wrong, PERSON_TRIES) == pause


def test_an_address_is_shared_and_has_more_free_tries() -> None:
    assert pause_after(20, ADDRESS_TRIES) == 0
    assert pause_after(21, ADDRESS_TRIES) == 5


@given(tries=BOTH, wrong=st.integers(0, 10_000))
def test_pauses_never_shrink_and_always_end(tries: Tries, wrong: int) -> None:
    assert 0 <= pause_after(wrong, tries) <= pause_after(wrong + 1, tries) <= tries.longest_pause == 900


def test_a_day_of_guessing_gets_nowhere() -> None:
    """How many tries fit into a day at the growing pauses, counted one by one: far from a million PINs."""
    clock, wrong = 0.0, 0
    while clock < 24 * 3600:
        wrong += 1
        clock += pause_after(wrong, PERSON_TRIES)
    assert wrong < 120
