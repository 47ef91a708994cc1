"""Read a number as it is written at the bench: decimals with point or comma, fractions, mixed numbers."""

from __future__ import annotations

import re

from ironkettle.core.base.errors import fault
from ironkettle.core.base.quantities.notation import plain_notation

LARGEST_NUMBER = 1e9
LONGEST_NUMBER = 24

SIGNED = r"[+\-]?"
# Thousands set off by commas: which of two readings it is, its unit tells.
GROUPED = r"[0-9]{1,3}(?:,[0-9]{3})+(?:\.[0-9]+)?"
MIXED = r"[0-9]+[ \-][0-9]+/[0-9]+"
FRACTION = r"[0-9]+/[0-9]+"
DECIMAL = r"[0-9]*[.,]?[0-9]+|[0-9]+[.,]"
NUMBER = rf"{SIGNED}\s*(?:{MIXED}|{FRACTION}|{GROUPED}|{DECIMAL})"

_FRACTIONAL = re.compile(rf"(?P<sign>{SIGNED})\s*(?:(?P<whole>[0-9]+)[ \-])?(?P<over>[0-9]+)/(?P<under>[0-9]+)")
_PLAIN = re.compile(rf"{SIGNED}\s*(?:{DECIMAL})")
_AMBIGUOUS_COMMA = re.compile(r"[+\-]?[1-9][0-9]{0,2},[0-9]{3}")


def read_number(text: str, field: str) -> float:
    """The number written as ``24,9``, ``.984``, ``5/16``, ``1-5/16``, ``1 5/16`` or ``1½``. [-]

    Raises RuleError when it is no number, has a zero denominator, a fraction of one or more behind a
    whole number, more than 24 characters or a size above 1e9, or when a comma could be a thousands
    mark as well as a decimal one (``3,000``).
    """
    plain = plain_notation(text)
    if len(plain) > LONGEST_NUMBER:
        raise fault(field, f"“{plain[:12]}…” is too long for a number", f"up to {LONGEST_NUMBER} figures")
    if _AMBIGUOUS_COMMA.fullmatch(plain):
        ways = (plain.replace(",", ""), plain.replace(",", "."))
        raise fault(field, f"“{plain}” can be read two ways; write {ways[0]} or {ways[1]}", *ways)
    fraction = _FRACTIONAL.fullmatch(plain)
    if fraction:
        value = _fraction(fraction, field)
    elif _PLAIN.fullmatch(plain):
        value = float(plain.replace(",", ".").replace(" ", ""))
    else:
        raise fault(field, f"“{plain}” is not a number", "24.9", "24,9", "1-5/16")
    if not abs(value) <= LARGEST_NUMBER:
        raise fault(field, f"“{plain}” is out of range", "up to 1000000000")
    return value


def _fraction(match: re.Match[str], field: str) -> float:
    whole, over, under = int(match["whole"] or 0), int(match["over"]), int(match["under"])
    if under == 0:
        raise fault(field, f"“{match[0]}” divides by zero", "5/16", "1-5/16")
    if match["whole"] is not None and over >= under:
        text = f"“{match[0]}”: {over}/{under} after a whole number must be below one"
        raise fault(field, text, "1-5/16", f"{(whole * under + over) / under:g}")
    return (whole + over / under) * (-1 if match["sign"] == "-" else 1)
