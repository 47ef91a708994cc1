"""What stands on a unit's label: the shop's mark, the unit's number, and a sign that tells a wrong letter."""

from __future__ import annotations

import re

from ironkettle.core.base.errors import fault

# No 0, I, L, O, U: what is easily misread is not among them; a prime number of letters lets one of them check the rest.
LETTERS = "123456789ABCDEFGHJKMNPQRSTVWXYZ"
SHOP_LENGTH, UNIT_LENGTH = 4, 5
_MISREAD = str.maketrans({"I": "1", "L": "1", "U": "V"})
_SHAPE = re.compile(rf"^[{LETTERS}]{{{SHOP_LENGTH + UNIT_LENGTH + 1}}}$")
_FITS = "K7QF-3ZTM24"


def label_of(shop: str, number: int) -> str:
    """The code of a unit: the shop's four letters, five for its number, and one that checks them. [letters]

    Parameters: number : 0 to 28629150. Raises ValueError for one out of range. Source: weighted sum modulo 31.
    """
    if not 0 <= number < len(LETTERS) ** UNIT_LENGTH:
        raise ValueError(number)
    digits = ""
    for _ in range(UNIT_LENGTH):
        number, rest = divmod(number, len(LETTERS))
        digits = LETTERS[rest] + digits
    return f"{shop}-{digits}{_check_of(shop + digits)}"


def _check_of(text: str) -> str:
    total = sum((place + 2) * LETTERS.index(letter) for place, letter in enumerate(text))
    return LETTERS[total % len(LETTERS)]


def _letters_in(text: str) -> str:
    """What may be a label in a text or at the end of a link, without its dash."""
    said = text.strip()
    if "/" in said:
        said = re.split(r"[?#]", said)[0].rstrip("/").rpartition("/")[2]
    return re.sub(r"[\s-]", "", said).upper().translate(_MISREAD)


def is_like_label(text: str) -> bool:
    """Whether a text has the shape of a unit's label, or is a link that ends in one, mistyped or not."""
    return _SHAPE.match(_letters_in(text)) is not None


def read_label(text: str, shop: str) -> str:
    """The code in what was scanned or typed: the code itself, with or without its dash, or a link that ends in it.

    Raises RuleError for what is no label, one that was mistyped, and one of another shop.
    """
    code = _letters_in(text)
    if not _SHAPE.match(code):
        raise fault("label", f"“{text.strip()[:60]}” is not a unit label", _FITS)
    if _check_of(code[:-1]) != code[-1]:
        raise fault("label", f"“{text.strip()[:60]}” is mistyped: one letter is wrong", _FITS)
    if code[:SHOP_LENGTH] != shop:
        raise fault(
            "label", f"{code[:SHOP_LENGTH]}-{code[SHOP_LENGTH:]} is a label of another shop; this one is {shop}"
        )
    return f"{code[:SHOP_LENGTH]}-{code[SHOP_LENGTH:]}"


def number_of(code: str) -> int:
    """The unit's number in a code that was read. [0 to 28629150] Raises ValueError for letters that are none of a code."""
    number = 0
    for letter in code.replace("-", "")[SHOP_LENGTH : SHOP_LENGTH + UNIT_LENGTH]:
        number = number * len(LETTERS) + LETTERS.index(letter)
    return number
