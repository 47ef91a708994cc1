"""Show a quantity in the unit asked in, with its counterpart beside it."""

from __future__ import annotations

from ironkettle.core.base.quantities.tolerance import Toleranced
from ironkettle.core.base.quantities.units import BASE_UNIT, Unit, find_unit, from_base, scale_and_offset

_COUNTERPART = {
    "mm": "in",
    "in": "mm",
    "bar": "psi",
    "psi": "bar",
    "MPa": "bar",
    "inHg": "mbar",
    "inH2O": "mbar",
    "inHg vacuum": "mbar",
    "N·m": "lbf·ft",
    "lbf·ft": "N·m",
    "lbf·in": "N·m",
    "°C": "°F",
    "°F": "°C",
    "l": "US gal",
    "N": "lbf",
    "kN": "lbf",
    "lbf": "N",
    "m/s": "ft/min",
}
_DECIMALS = {"mm": 2, "in": 3, "bar": 1, "psi": 0, "MPa": 2, "N·m": 1, "lbf·ft": 1, "lbf·in": 0, "°C": 1, "°F": 0}
_LOST_AT_MOST = 0.005


def show(value: float, unit: str | Unit) -> str:
    """Any value [base unit] written in a unit, with its usual decimals; three figures where those would lose it.

    Range: every finite number, above or below 0.
    """
    found = _unit(unit)
    return f"{_figure(from_base(value, found), found)} {found.symbol}"


def in_both(value: float, unit: str | Unit) -> str:
    """Any value [base unit] in the unit asked in, the other unit in brackets behind it. Range: every finite number, above or below 0."""
    asked = _unit(unit)
    base = BASE_UNIT[asked.dimension]
    other = _COUNTERPART.get(asked.symbol, base if base != asked.symbol else None)
    return show(value, asked) if other is None else f"{show(value, asked)} ({show(value, other)})"


def show_tolerance(tolerance: Toleranced, unit: Unit) -> str:
    """Any allowance of a value [base unit] in the unit it is written in: ``±0.1``, ``+0.03/−0``; empty where there is none.

    Range: minus and plus with -minus ≤ plus.
    """
    scale, _ = scale_and_offset(unit)
    minus, plus = tolerance.minus / scale, tolerance.plus / scale
    if abs(minus - plus) < 1e-9:
        return f"±{plus:.4g}" if plus else ""
    return f"{_signed(plus)}/{_signed(-minus)}"


def _signed(value: float) -> str:
    return f"{value:+.4g}".replace("-", "−") if abs(value) > 1e-9 else "0"


def _figure(value: float, unit: Unit) -> str:
    text = f"{value:.{_DECIMALS.get(unit.symbol, 2)}f}"
    return text if abs(float(text) - value) <= _LOST_AT_MOST * abs(value) else f"{value:.3g}"


def _unit(unit: str | Unit) -> Unit:
    found = find_unit(unit) if isinstance(unit, str) else unit
    if found is None:
        raise ValueError(f"symbol must be a known unit, got {unit!r}")
    return found
