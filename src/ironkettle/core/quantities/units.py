"""The units of the trade: how they are written, what they measure, their size in the base unit.

Inside the core lengths are mm, pressures MPa, torques N·m, volumes ml, temperatures °C, times s,
flows ml/min, bulk moduli MPa and angles degrees. The size of each unit comes from Pint's unit definitions.
"""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from functools import cache

import pint


class Dimension(StrEnum):
    LENGTH = "length"
    PRESSURE = "pressure"
    TORQUE = "torque"
    TEMPERATURE = "temperature"
    VOLUME = "volume"
    FLOW = "flow"
    TIME = "time"


BASE_UNIT = {
    Dimension.LENGTH: "mm",
    Dimension.PRESSURE: "MPa",
    Dimension.TORQUE: "N·m",
    Dimension.TEMPERATURE: "°C",
    Dimension.VOLUME: "ml",
    Dimension.FLOW: "ml/min",
    Dimension.TIME: "s",
}


@dataclass(frozen=True, slots=True)
class Unit:
    """One unit: the symbol shown, Pint's name for it, the spellings read, and gauge or absolute."""

    symbol: str
    dimension: Dimension
    pint_name: str
    spellings: tuple[str, ...]
    absolute: bool = False


_L, _P, _T = Dimension.LENGTH, Dimension.PRESSURE, Dimension.TORQUE
UNITS: tuple[Unit, ...] = (
    Unit("mm", _L, "millimeter", ("mm", "millimetre", "millimetres", "millimeter", "millimeters")),
    Unit("in", _L, "inch", ("in", "inch", "inches", '"', "''", "″")),
    Unit("cm", _L, "centimeter", ("cm",)),
    Unit("m", _L, "meter", ("m", "metre", "metres")),
    Unit("µm", _L, "micrometer", ("µm", "um", "micron", "microns")),
    Unit("ft", _L, "foot", ("ft", "foot", "feet")),
    Unit("bar", _P, "bar", ("bar", "barg", "bar(g)")),
    Unit("psi", _P, "psi", ("psi", "psig", "lbf/in2", "psi(g)")),
    Unit("MPa", _P, "megapascal", ("mpa", "n/mm2")),
    Unit("kPa", _P, "kilopascal", ("kpa",)),
    Unit("mbar", _P, "millibar", ("mbar",)),
    Unit("hPa", _P, "hectopascal", ("hpa",)),
    Unit("Pa", _P, "pascal", ("pa",)),
    Unit("inH2O", _P, "inch_H2O", ("inh2o", "inwc", "inh20", "inaq", "inwg", '"h2o', '"wc')),
    Unit("mmH2O", _P, "millimeter_H2O", ("mmh2o", "mmwc")),
    Unit("bar abs", _P, "bar", ("bara", "bar(a)", "barabs"), absolute=True),
    Unit("psi abs", _P, "psi", ("psia", "psi(a)", "psiabs"), absolute=True),
    Unit("kPa abs", _P, "kilopascal", ("kpaa", "kpa(a)", "kpaabs"), absolute=True),
    Unit("hPa abs", _P, "hectopascal", ("hpaa", "hpa(a)", "hpaabs"), absolute=True),
    Unit("mbar abs", _P, "millibar", ("mbara", "mbar(a)", "mbarabs"), absolute=True),
    Unit("MPa abs", _P, "megapascal", ("mpaa", "mpa(a)", "mpaabs"), absolute=True),
    Unit("N·m", _T, "newton * meter", ("nm", "n.m", "newtonmetre", "newtonmetres")),
    Unit("N·cm", _T, "newton * centimeter", ("ncm",)),
    Unit("lbf·ft", _T, "force_pound * foot", ("lbfft", "ftlb", "ftlbf", "lbft", "ftlbs", "lbsft")),
    Unit("lbf·in", _T, "force_pound * inch", ("lbfin", "inlb", "inlbf", "lbin", "inlbs", "lbsin")),
    Unit("ozf·in", _T, "force_ounce * inch", ("ozfin", "inoz", "ozin", "inozf")),
    Unit("kgf·m", _T, "kilogram_force * meter", ("kgfm", "kgm", "mkg", "mkgf")),
    Unit("°C", Dimension.TEMPERATURE, "degC", ("°c", "c", "degc", "ºc")),
    Unit("°F", Dimension.TEMPERATURE, "degF", ("°f", "f", "degf", "ºf")),
    Unit("K", Dimension.TEMPERATURE, "kelvin", ("k", "kelvin")),
    Unit("ml", Dimension.VOLUME, "milliliter", ("ml", "cc", "cm3", "cm³")),
    Unit("l", Dimension.VOLUME, "liter", ("l", "litre", "litres", "liter", "dm3")),
    Unit("in³", Dimension.VOLUME, "inch ** 3", ("in3", "in³", "cuin")),
    Unit("US gal", Dimension.VOLUME, "US_liquid_gallon", ("usgal", "usgallon")),
    Unit("ml/min", Dimension.FLOW, "milliliter / minute", ("ml/min", "cc/min", "cm3/min", "mlpm")),
    Unit("l/min", Dimension.FLOW, "liter / minute", ("l/min", "lpm", "litre/min", "litres/min")),
    Unit("US gal/min", Dimension.FLOW, "US_liquid_gallon / minute", ("usgpm", "usgal/min")),
    Unit("s", Dimension.TIME, "second", ("s", "sec", "second", "seconds")),
    Unit("min", Dimension.TIME, "minute", ("min", "minute", "minutes")),
    Unit("h", Dimension.TIME, "hour", ("h", "hr", "hour", "hours")),
)

_SEPARATORS = str.maketrans("", "", " \t\u00a0·⋅*•-_")
# Folded like the text they are compared with: folding turns the micro sign into the Greek letter.
_BY_SPELLING = {spelling.casefold(): unit for unit in UNITS for spelling in unit.spellings}


def normalise_spelling(text: str) -> str:
    """The spelling without separators and case: ``lbf·ft`` and ``LBF-FT`` are both ``lbfft``."""
    return text.translate(_SEPARATORS).replace("²", "2").casefold()


def find_unit(text: str) -> Unit | None:
    """The unit written as ``text``, or None. ``mPa`` is refused: it is not ``MPa``."""
    if text.strip() in {"mPa", "Mm", "Ml"}:
        return None
    spelling = normalise_spelling(text)
    return _BY_SPELLING.get(spelling) or _BY_SPELLING.get(spelling.rstrip("."))


def accepted_symbols(dimension: Dimension) -> tuple[str, ...]:
    """The symbols that fit a dimension, commonest first."""
    return tuple(unit.symbol for unit in UNITS if unit.dimension is dimension and not unit.absolute)


@cache
def _registry() -> pint.UnitRegistry[float]:
    return pint.UnitRegistry(autoconvert_offset_to_baseunit=True)


_PINT_BASE = {
    Dimension.LENGTH: "millimeter",
    Dimension.PRESSURE: "megapascal",
    Dimension.TORQUE: "newton * meter",
    Dimension.TEMPERATURE: "degC",
    Dimension.VOLUME: "milliliter",
    Dimension.FLOW: "milliliter / minute",
    Dimension.TIME: "second",
}


@cache
def scale_and_offset(unit: Unit) -> tuple[float, float]:
    """Scale and offset with base = scale · value + offset (the offset only for temperatures)."""
    registry = _registry()
    base = _PINT_BASE[unit.dimension]
    offset = registry.Quantity(0.0, registry.parse_units(unit.pint_name)).to(base).magnitude
    at_one = registry.Quantity(1.0, unit.pint_name).to(base).magnitude
    return float(at_one - offset), float(offset)


def to_base(value: float, unit: Unit) -> float:
    """A value in the given unit, in the base unit of its dimension. [unit of ``unit``] to [base unit]"""
    scale, offset = scale_and_offset(unit)
    return scale * value + offset


def from_base(value: float, unit: Unit) -> float:
    """A value in the base unit, in the given unit. [base unit] to [unit of ``unit``]"""
    scale, offset = scale_and_offset(unit)
    return (value - offset) / scale
