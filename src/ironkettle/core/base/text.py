"""What a text may hold, and numbers as they are kept: the same everywhere a text or number comes in."""

from __future__ import annotations

import re
from collections.abc import Iterable
from typing import Annotated

from pydantic import AfterValidator, BeforeValidator, Field

# Control characters, half characters, the last two of every plane, which are none, and marks that turn the reading
# direction: those could make a certificate read other than it was written.
_PLANES = "".join(f"{chr(plane | 0xFFFE)}{chr(plane | 0xFFFF)}" for plane in range(0, 0x110000, 0x10000))
_NOT_PLAIN = "\0-\x1f\x7f-\x9f\ud800-\udfff\u200e\u200f\u202a-\u202e\u2066-\u2069" + _PLANES
_NOT_IN_A_LINE = re.compile(f"[{_NOT_PLAIN}]")
_NOT_IN_LINES = re.compile(f"(?![\n\t])[{_NOT_PLAIN}]")


def plain_text(text: str, *, lines: bool = False) -> str:
    """The text itself, when it is plain: no control characters, nothing XML cannot hold.

    With ``lines`` line ends and tabs may stand in it. Raises ValueError naming the character.
    """
    found = (_NOT_IN_LINES if lines else _NOT_IN_A_LINE).search(text)
    if found is not None:
        what = "a NUL character" if found[0] == "\0" else f"the control character U+{ord(found[0]):04X}"
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
        return _NOT_IN_LINES.sub(lambda found: f"\\u{ord(found[0]):04x}", value)
    if isinstance(value, dict):
        return {str(spelled_out(key)): spelled_out(item) for key, item in value.items()}
    if isinstance(value, list):
        return [spelled_out(item) for item in value]
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
    for key, item in inside:
        found = half_character_at(item)
        if found is not None:
            return f"{key}.{found}" if found else str(key)
    return None


def no_minus_zero(value: float) -> float:
    """The value, with 0 for -0: a zero has one way to be written. [-] Range: every finite number, above or below 0. Source: by definition."""
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
