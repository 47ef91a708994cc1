"""What a PIN, a password or a badge must be."""

from __future__ import annotations

import itertools

from ironkettle.core.base.errors import fault

PIN_DIGITS = 6
SHORTEST_PASSWORD = 10
LONGEST_SECRET = 128
SHORTEST_BADGE = 10
# A code of a badge has so many different characters at least, and is no row.
FEWEST_DIFFERENT = 5


def check_secret(text: str, field: str = "pin") -> str:
    """The secret, when it is a PIN of six digits or a longer password. Raises RuleError naming the field.

    Digits all alike or in a row (``111111``, ``123456``, ``654321``) are refused: they are tried first.
    """
    accepts = (f"a PIN of {PIN_DIGITS} digits", f"a password of {SHORTEST_PASSWORD} characters or more")
    if len(text) > LONGEST_SECRET:
        raise fault(field, f"is longer than {LONGEST_SECRET} characters", *accepts)
    if text != text.strip() or not text.isprintable():
        raise fault(field, "begins or ends with a space, or holds a character that cannot be typed", *accepts)
    if text.isdecimal() and text.isascii() and len(text) == PIN_DIGITS:
        steps = {int(after) - int(before) for before, after in itertools.pairwise(text)}
        if len(steps) == 1 and steps <= {-1, 0, 1}:
            raise fault(field, "is too easy to guess: repeated or consecutive digits", *accepts)
        return text
    if len(text) < SHORTEST_PASSWORD:
        raise fault(field, "is neither a PIN of six digits nor long enough for a password", *accepts)
    if len(set(text)) < 4:
        raise fault(field, "is too easy to guess: too few different characters", *accepts)
    return text


def check_badge(text: str, field: str = "badge") -> str:
    """What a reader types for a badge, without the Enter it ends with.

    Raises RuleError naming the field for fewer than 10 characters, and for a code whose characters are alike or in a row: it
    opens a session without a PIN, so it must be as hard to guess as a code printed by the reader's maker.
    Source: no published source; this project's own choice.
    """
    badge = text.strip()
    accepts = f"a code of {SHORTEST_BADGE} to {LONGEST_SECRET} characters that cannot be guessed"
    if not SHORTEST_BADGE <= len(badge) <= LONGEST_SECRET or not badge.isprintable():
        raise fault(field, f"{len(badge)} characters are not the code of a badge; read it again", accepts)
    steps = [ord(after) - ord(before) for before, after in itertools.pairwise(badge)]
    most_alike = max(steps.count(step) for step in set(steps))
    if len(set(badge)) < FEWEST_DIFFERENT or most_alike > len(steps) / 2:
        raise fault(field, "the code is too easy to guess: repeated or consecutive characters", accepts)
    return badge
