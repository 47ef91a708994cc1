"""What a text may hold: nothing that breaks a label, a certificate or the reader's eye."""

from __future__ import annotations

from xml.etree import ElementTree
from xml.sax.saxutils import escape

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import BaseModel, ValidationError

from ironkettle.core.base.text import Figure, no_minus_zero, plain_lines, plain_text, spelled_out

ANY = st.text(max_size=30)


@given(ANY)
def test_every_plain_text_can_stand_in_xml(text: str) -> None:
    """XML 1.0, section 2.2, leaves out most control characters, surrogates, U+FFFE and U+FFFF."""
    try:
        plain_text(text)
    except ValueError:
        return
    assert ElementTree.fromstring(f"<t>{escape(text)}</t>").text in (text, None if text == "" else text)


@pytest.mark.parametrize("char", ["\0", "\x07", "\x1b", "\x7f", "\x85", "\u202e", "\u2066", "\ufffe", "\uffff"])
def test_what_is_refused_is_named(char: str) -> None:
    name = "NUL" if char == "\0" else f"U+{ord(char):04X}"
    for check in (plain_text, plain_lines):
        with pytest.raises(ValueError, match=name.replace("+", r"\+")):
            check(f"rod{char}seal")


def test_lines_are_for_notes_alone() -> None:
    assert plain_lines("wet\n\tat the wiper") == "wet\n\tat the wiper"
    with pytest.raises(ValueError, match=r"U\+000A"):
        plain_text("wet\nat the wiper")
    assert plain_text("Ø 28 f7, “wet” – 5 µm ≤ ½ in 密封") == "Ø 28 f7, “wet” – 5 µm ≤ ½ in 密封"


@given(st.floats(allow_nan=False))
def test_zero_has_no_sign_and_nothing_else_changes(value: float) -> None:
    assert no_minus_zero(value) == value
    assert str(no_minus_zero(value)) != "-0.0"


def test_what_came_in_is_kept_with_unreadable_characters_spelled_out() -> None:
    came = {"note": "a\x00b", "list": ["\u202e", 1, None], "\x07": "line\nbreak", "deep": {"x": "\udc80"}}
    kept = spelled_out(came)
    assert kept == {
        "note": "a\\u0000b",
        "list": ["\\u202e", 1, None],
        "\\u0007": "line\nbreak",
        "deep": {"x": "\\udc80"},
    }


class _Read(BaseModel):
    value: Figure


@pytest.mark.parametrize("value", [True, False])
def test_yes_and_no_are_no_figures(value: bool) -> None:
    with pytest.raises(ValidationError, match="a number is wanted"):
        _Read(value=value)
    assert _Read(value=1).value == 1.0
