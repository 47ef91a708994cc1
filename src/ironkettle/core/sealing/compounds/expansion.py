"""How much rubber grows with heat, by compound."""

from __future__ import annotations

# Linear expansion at 20 to 100 °C [1/K]: middle of the ranges that seal handbooks give; unverified, the maker's wins.
_LINEAR = {
    "NBR": 120e-6,
    "HNBR": 130e-6,
    "FKM": 160e-6,
    "EPDM": 160e-6,
    "VMQ": 200e-6,
    "CR": 140e-6,
    "AU": 150e-6,
    "PTFE": 130e-6,
}
USUAL_EXPANSION = 160e-6


def rubber_expansion(material: str) -> float:
    """Linear expansion of a compound by its name; the usual one of rubber for a name not known here. [1/K]

    Source: seal handbooks, middle of the ranges given for each family; guidance only.

    >>> rubber_expansion("nbr")
    0.00012
    """
    return _LINEAR.get(material.strip().upper(), USUAL_EXPANSION)
