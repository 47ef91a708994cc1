"""What a text may hold, and numbers as they are kept: the same everywhere a text or number comes in."""

from __future__ import annotations

import unicodedata
from collections.abc import Iterable
from typing import Annotated

from pydantic import AfterValidator, BeforeValidator, Field

# Marks that turn the reading direction could make a certificate read other than it was written.
_TURNING = frozenset("\u200e\u200f\u202a\u202b\u202c\u202d\u202e\u2066\u2067\u2068\u2069")


def plain_text(text: str, *, lines: bool = False) -> str:
    """The text itself, when it is plain: no control characters, nothing XML cannot hold.

    With ``lines`` line ends and tabs may stand in it. Raises ValueError naming the character.
    """
    for char in text:
        if lines and char in "\n\t":
            continue
        if not _is_plain(char):
            what = "a NUL character" if char == "\0" else f"the control character U+{ord(char):04X}"
            raise ValueError(f"holds {what}; plain text is wanted")
    return text


def plain_lines(text: str) -> str:
    """``plain_text`` that may run over several lines."""
    return plain_text(text, lines=True)


def _unix_lines(text: object) -> object:
    return text.replace("\r\n", "\n").replace("\r", "\n") if isinstance(text, str) else text


def spelled_out(value: object) -> object:
    """What came in from outside, kept though it is not plain: unreadable characters spelled as ``\\u0000``."""
    if isinstance(value, str):
        return "".join(char if _is_plain(char) or char in "\n\t" else f"\\u{ord(char):04x}" for char in value)
    if isinstance(value, dict):
        return {str(spelled_out(key)): spelled_out(one) for key, one in value.items()}
    if isinstance(value, list):
        return [spelled_out(one) for one in value]
    return value


def half_character_at(value: object) -> str | None:
    """Where in a document a text holds a lone surrogate, as ``lines.0.name``; empty for the document itself, None for nowhere."""
    if isinstance(value, str):
        return "" if any("\ud800" <= char <= "\udfff" for char in value) else None
    inside: Iterable[tuple[object, object]] = ()
    if isinstance(value, dict):
        if any(half_character_at(key) is not None for key in value):
            return ""
        inside = value.items()
    elif isinstance(value, list):
        inside = enumerate(value)
    for key, one in inside:
        found = half_character_at(one)
        if found is not None:
            return f"{key}.{found}" if found else str(key)
    return None


def _is_plain(char: str) -> bool:
    return not (unicodedata.category(char) in {"Cc", "Cs"} or ord(char) & 0xFFFE == 0xFFFE or char in _TURNING)


def no_minus_zero(value: float) -> float:
    """The value, with 0 for -0: a zero has one way to be written. [-]"""
    return value + 0.0


Plain = AfterValidator(plain_text)
PlainLines = (BeforeValidator(_unix_lines), AfterValidator(plain_lines))


def _no_yes_or_no(value: object) -> object:
    """Yes and no are no figures, though a program may count them as 1 and 0."""
    if isinstance(value, bool):
        raise ValueError("a number is wanted, not yes or no")
    return value


Figure = Annotated[float, BeforeValidator(_no_yes_or_no), Field(allow_inf_nan=False), AfterValidator(no_minus_zero)]

__all__ = [
    "Figure",
    "Plain",
    "PlainLines",
    "half_character_at",
    "no_minus_zero",
    "plain_lines",
    "plain_text",
    "spelled_out",
]
