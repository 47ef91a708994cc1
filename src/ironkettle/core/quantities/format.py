"""Show a quantity in the unit asked in, with its counterpart beside it."""

from __future__ import annotations

from ironkettle.core.quantities.units import Unit, find_unit, from_base

_COUNTERPART = {
    "mm": "in",
    "in": "mm",
    "bar": "psi",
    "psi": "bar",
    "MPa": "bar",
    "N·m": "lbf·ft",
    "lbf·ft": "N·m",
    "lbf·in": "N·m",
    "°C": "°F",
    "°F": "°C",
    "l": "US gal",
}
_DECIMALS = {"mm": 2, "in": 3, "bar": 1, "psi": 0, "MPa": 2, "N·m": 1, "lbf·ft": 1, "lbf·in": 0, "°C": 1, "°F": 0}


def show(value: float, symbol: str) -> str:
    """A base-unit value written in the unit ``symbol``, with that unit's usual decimals."""
    unit = _unit(symbol)
    return f"{from_base(value, unit):.{_DECIMALS.get(unit.symbol, 2)}f} {unit.symbol}"


def in_both(value: float, symbol: str) -> str:
    """A base-unit value in the unit asked in, the other unit in brackets behind it."""
    other = _COUNTERPART.get(_unit(symbol).symbol)
    return show(value, symbol) if other is None else f"{show(value, symbol)} ({show(value, other)})"


def _unit(symbol: str) -> Unit:
    unit = find_unit(symbol)
    if unit is None:
        raise ValueError(f"symbol must be a known unit, got {symbol!r}")
    return unit
