"""Labels: every wrong letter and every swapped pair is told; links, spaces and small letters are read."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ironkettle.core.base.errors import RuleError
from ironkettle.core.shop.service import LETTERS, label_of, number_of, read_label

SHOP = "K7QF"
numbers = st.integers(0, len(LETTERS) ** 5 - 1)


@given(numbers)
def test_a_label_is_read_back_however_it_is_written(number: int) -> None:
    label = label_of(SHOP, number)
    for text in (
        label,
        label.lower(),
        label.replace("-", " "),
        f"https://shop.example:8443/u/{label}",
        f" /u/{label}/?x=1#y",
    ):
        assert read_label(text, SHOP) == label
    assert number_of(label) == number


@given(numbers, st.integers(0, 9), st.sampled_from(LETTERS))
def test_a_wrong_letter_is_told(number: int, place: int, letter: str) -> None:
    code = label_of(SHOP, number).replace("-", "")
    wrong = code[:place] + letter + code[place + 1 :]
    if wrong != code:
        with pytest.raises(RuleError, match="mistyped"):
            read_label(wrong, SHOP)


@given(numbers, st.integers(0, 8))
def test_two_swapped_letters_are_told(number: int, place: int) -> None:
    code = label_of(SHOP, number).replace("-", "")
    swapped = code[:place] + code[place + 1] + code[place] + code[place + 2 :]
    if swapped != code:
        with pytest.raises(RuleError, match="mistyped"):
            read_label(swapped, SHOP)


def test_the_label_of_another_shop_is_told() -> None:
    with pytest.raises(RuleError, match="of another shop; this one is K7QF"):
        read_label(label_of("ABCD", 77), SHOP)


@pytest.mark.parametrize(
    "text", ["", "FN-0417", "https://example.org/", "K7QF-12345", "⚙" * 10, "0" * 10, "K7QF-1234567"]
)
def test_what_is_no_label_is_told(text: str) -> None:
    with pytest.raises(RuleError, match="not a unit label"):
        read_label(text, SHOP)


def test_numbers_out_of_range_have_no_label() -> None:
    for number in (-1, len(LETTERS) ** 5):
        with pytest.raises(ValueError, match=str(number)):
            label_of(SHOP, number)
