"""Fonts, colours and paragraph styles of printed reports."""

from __future__ import annotations

from functools import cache
from pathlib import Path

from reportlab.lib.colors import Color, HexColor
from reportlab.lib.styles import ParagraphStyle
from reportlab.pdfbase import pdfmetrics
from reportlab.pdfbase.ttfonts import TTFont

REGULAR, BOLD = "Kettle", "Kettle-Bold"
INK = HexColor("#1c1a19")
FAINT = HexColor("#6d645e")
COPPER = HexColor("#9c4f24")
RULE = HexColor("#cfc6bf")
PASS = HexColor("#20613a")
FAIL = HexColor("#9b1c1c")
IRON = HexColor("#b9b4ae")
RUBBER = HexColor("#2b2f36")
TINT = HexColor("#f2c48d")

_FONTS = Path(__file__).parent / "fonts"


@cache
def register_fonts() -> None:
    """Register the shipped fonts once per process."""
    for name, file in ((REGULAR, "Regular"), (BOLD, "Bold")):
        pdfmetrics.registerFont(TTFont(name, str(_FONTS / f"AtkinsonHyperlegibleNext-{file}.ttf")))
    pdfmetrics.registerFontFamily(REGULAR, normal=REGULAR, bold=BOLD, italic=REGULAR, boldItalic=BOLD)


def paragraph_style(size: float = 9, *, bold: bool = False, colour: Color = INK, before: float = 0) -> ParagraphStyle:
    return ParagraphStyle(
        f"s{size}{bold}{colour.hexval()}{before}",
        fontName=BOLD if bold else REGULAR,
        fontSize=size,
        leading=size * 1.3,
        textColor=colour,
        spaceBefore=before,
    )
