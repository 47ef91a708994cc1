"""What a PIN, a password and a badge must be."""

from __future__ import annotations

import pytest

from ironkettle.core.base.errors import RuleError
from ironkettle.core.shop.people import check_badge, check_secret


@pytest.mark.parametrize("secret", ["417902", "000001", "135790", "lock gate 7 oak", "Schleuse-44"])
def test_taken(secret: str) -> None:
    assert check_secret(secret) == secret


@pytest.mark.parametrize(
    ("secret", "words"),
    [
        ("", "neither"),
        ("41790", "neither"),
        ("4179021", "neither"),
        ("111111", "easy to guess"),
        ("123456", "easy to guess"),
        ("654321", "easy to guess"),
        ("kettle", "neither"),
        ("lockgate7", "neither"),
        ("aaaaaaaaaaaa", "easy to guess"),
        ("ababababababc", "easy to guess"),
        (" 417902", "space"),
        ("lock gate\t7 oak", "cannot be typed"),
        ("x" * 129, "longer than 128"),
        ("٤١٧٩٠٢", "neither"),
    ],
)
def test_refused_with_what_fits(secret: str, words: str) -> None:
    with pytest.raises(RuleError, match=words) as caught:
        check_secret(secret, "pin")
    assert caught.value.faults[0].field == "pin"
    assert "a PIN of 6 digits" in caught.value.faults[0].accepts


def test_the_shortest_and_longest_that_are_taken() -> None:
    assert check_secret("abcd567890")
    assert check_secret("abcd" * 32)


def test_a_badge_is_what_the_reader_types_without_its_enter() -> None:
    assert check_badge("04A1B2C3D4\r\n") == "04A1B2C3D4"
    for bad in ("", "730516", "04A1B2C3D", "x" * 129, "04A1\x00B2C3D4"):
        with pytest.raises(RuleError, match="read it again"):
            check_badge(bad)


@pytest.mark.parametrize("bad", ["1234567890", "0000000000", "1212121212", "abcdefghij", "aabbccddaa", "9876543210"])
def test_a_badge_that_can_be_guessed_is_refused(bad: str) -> None:
    with pytest.raises(RuleError, match="too easy to guess"):
        check_badge(bad)


def test_a_badge_of_the_fewest_and_most_characters_is_taken() -> None:
    assert check_badge("5814026937") == "5814026937"
    assert check_badge("04A1B2C3D4E5F607" * 8) == "04A1B2C3D4E5F607" * 8
