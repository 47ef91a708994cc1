"""The characters of the bench made one: quotes, minus signs, fractions and raised figures as plain text."""

from __future__ import annotations

import re
import unicodedata

_SIGNS = str.maketrans(
    {
        **dict.fromkeys("”“″‟〃", '"'),
        **dict.fromkeys("’‘′‛", "'"),
        **dict.fromkeys("−–‒﹣", "-"),
        "º": "°",
        "×": "x",
    }
)
_BEFORE_FRACTION = re.compile(r"(?<=\d)\s*(?=[¼-¾⅐-⅞])")
_TWO_QUOTES = re.compile(r"''")


def plain_notation(text: str) -> str:
    """The text in plain characters: ``1½”`` is ``1 1/2"``, ``cm³`` is ``cm3``, ``inH₂O`` is ``inH2O``."""
    spaced = _BEFORE_FRACTION.sub(" ", text.translate(_SIGNS))
    folded = unicodedata.normalize("NFKC", spaced).replace("\u2044", "/").replace("μ", "µ")
    return _TWO_QUOTES.sub('"', folded).strip()
