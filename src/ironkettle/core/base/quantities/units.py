"""The units of the trade: how they are written, what they measure, their size in the base unit.

Inside the core lengths are mm, areas mm², pressures MPa, forces N, torques N·m, volumes ml,
temperatures °C, times s, flows ml/min, speeds m/s, bulk moduli MPa and angles degrees. The size of each
unit comes from Pint's unit definitions; a drop is what the shop takes it for.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from enum import StrEnum
from functools import cache

import pint

from ironkettle.core.base.quantities.notation import plain_notation


class Dimension(StrEnum):
    LENGTH = "length"
    PRESSURE = "pressure"
    TORQUE = "torque"
    TEMPERATURE = "temperature"
    VOLUME = "volume"
    FLOW = "flow"
    TIME = "time"
    ANGLE = "angle"
    SPEED = "speed"
    FORCE = "force"
    AREA = "area"


BASE_UNIT = {
    Dimension.LENGTH: "mm",
    Dimension.PRESSURE: "MPa",
    Dimension.TORQUE: "N·m",
    Dimension.TEMPERATURE: "°C",
    Dimension.VOLUME: "ml",
    Dimension.FLOW: "ml/min",
    Dimension.TIME: "s",
    Dimension.ANGLE: "°",
    Dimension.SPEED: "m/s",
    Dimension.FORCE: "N",
    Dimension.AREA: "mm²",
}

# Drops of oil or water off a fitting run from 0.03 to 0.07 ml; a shop setting says what the shop takes.
DROP_ML = 0.05


@dataclass(frozen=True, slots=True)
class Unit:
    """One unit: the symbol shown, Pint's name for it, the spellings read, gauge or absolute, vacuum.

    ``vacuum``: the figure counts down from the air. ``drops``: ml in a drop, for units counted in drops.
    """

    symbol: str
    dimension: Dimension
    pint_name: str
    spellings: tuple[str, ...]
    absolute: bool = False
    vacuum: bool = False
    drops: float | None = None


_L, _P, _T = Dimension.LENGTH, Dimension.PRESSURE, Dimension.TORQUE
_V, _Q, _F, _A = Dimension.VOLUME, Dimension.FLOW, Dimension.FORCE, Dimension.AREA
_GAUGE: tuple[Unit, ...] = (
    Unit("bar", _P, "bar", ("bar", "barg", "bar(g)", "bargauge")),
    Unit("psi", _P, "psi", ("psi", "psig", "psi(g)", "lbf/in2", "lb/in2", "lbs/in2", "psigauge")),
    Unit("MPa", _P, "megapascal", ("mpa", "mpag", "mpa(g)", "n/mm2")),
    Unit("kPa", _P, "kilopascal", ("kpa", "kpag", "kpa(g)")),
    Unit("mbar", _P, "millibar", ("mbar", "mbarg", "mbar(g)")),
    Unit("hPa", _P, "hectopascal", ("hpa",)),
    Unit("Pa", _P, "pascal", ("pa",)),
    Unit("kgf/cm²", _P, "kilogram_force / centimeter ** 2", ("kgf/cm2", "kp/cm2", "kg/cm2")),
    Unit("inH2O", _P, "inch_H2O", ("inh2o", "inwc", "inh20", "inaq", "inwg", '"h2o', '"h20', '"wc', '"wg')),
    Unit("mmH2O", _P, "millimeter_H2O", ("mmh2o", "mmh20", "mmwc", "mmwg")),
    Unit("inHg", _P, "inch_Hg", ("inhg", '"hg')),
    Unit("mmHg", _P, "millimeter_Hg", ("mmhg", "torr")),
)
_ABSOLUTE_SPELLINGS = {
    "bar": ("bara", "bar(a)", "barabs", "barabsolute"),
    "psi": ("psia", "psi(a)", "psiabs", "psiabsolute"),
    "kPa": ("kpaa", "kpa(a)", "kpaabs", "kpaabsolute"),
    "hPa": ("hpaa", "hpa(a)", "hpaabs", "hpaabsolute"),
    "mbar": ("mbara", "mbar(a)", "mbarabs", "mbarabsolute"),
    "MPa": ("mpaa", "mpa(a)", "mpaabs", "mpaabsolute"),
    "inHg": ("inhga", "inhg(a)", "inhgabs"),
    "mmHg": ("mmhga", "mmhg(a)", "mmhgabs"),
}
_PRESSURES = (
    *_GAUGE,
    *(
        Unit(f"{unit.symbol} abs", _P, unit.pint_name, _ABSOLUTE_SPELLINGS[unit.symbol], absolute=True)
        for unit in _GAUGE
        if unit.symbol in _ABSOLUTE_SPELLINGS
    ),
    *(
        Unit(
            f"{unit.symbol} vacuum",
            _P,
            unit.pint_name,
            tuple(f"{spelling}{word}" for spelling in unit.spellings for word in ("vac", "vacuum", "v")),
            vacuum=True,
        )
        for unit in _GAUGE
    ),
)
UNITS: tuple[Unit, ...] = (
    Unit("mm", _L, "millimeter", ("mm", "millimetre", "millimetres", "millimeter", "millimeters")),
    Unit("in", _L, "inch", ("in", "inch", "inches", '"')),
    Unit("cm", _L, "centimeter", ("cm",)),
    Unit("m", _L, "meter", ("m", "metre", "metres", "meter", "meters")),
    Unit("µm", _L, "micrometer", ("µm", "um", "micron", "microns")),
    Unit("thou", _L, "thou", ("thou", "thous", "mil", "mils")),
    Unit("ft", _L, "foot", ("ft", "foot", "feet", "'")),
    *_PRESSURES,
    Unit("N·m", _T, "newton * meter", ("nm", "newtonmetre", "newtonmetres", "newtonmeter", "newtonmeters")),
    Unit("N·cm", _T, "newton * centimeter", ("ncm",)),
    Unit("kN·m", _T, "kilonewton * meter", ("knm",)),
    Unit(
        "lbf·ft",
        _T,
        "force_pound * foot",
        ("lbfft", "ftlb", "ftlbf", "lbft", "ftlbs", "lbsft", "footpound", "footpounds", "poundfoot", "poundfeet"),
    ),
    Unit(
        "lbf·in",
        _T,
        "force_pound * inch",
        ("lbfin", "inlb", "inlbf", "lbin", "inlbs", "lbsin", "inchlb", "inchlbs", "inchpound", "inchpounds"),
    ),
    Unit("ozf·in", _T, "force_ounce * inch", ("ozfin", "inoz", "ozin", "inozf")),
    Unit("kgf·m", _T, "kilogram_force * meter", ("kgfm", "kgm", "mkg", "mkgf", "kpm")),
    Unit("kgf·cm", _T, "kilogram_force * centimeter", ("kgfcm", "kgcm", "cmkg", "cmkgf", "kpcm")),
    Unit("°C", Dimension.TEMPERATURE, "degC", ("°c", "c", "degc")),
    Unit("°F", Dimension.TEMPERATURE, "degF", ("°f", "f", "degf")),
    Unit("K", Dimension.TEMPERATURE, "kelvin", ("k", "kelvin")),
    Unit("ml", _V, "milliliter", ("ml", "cc", "cm3", "ccm")),
    Unit("l", _V, "liter", ("l", "litre", "litres", "liter", "liters", "dm3")),
    Unit("in³", _V, "inch ** 3", ("in3", "cuin")),
    Unit("US gal", _V, "US_liquid_gallon", ("usgal", "usgallon", "usgallons")),
    Unit("ml/min", _Q, "milliliter / minute", ("ml/min", "cc/min", "cm3/min", "ccm/min", "mlpm")),
    Unit("ml/h", _Q, "milliliter / hour", ("ml/h", "ml/hr", "cc/h", "cm3/h", "cc/hr")),
    Unit("l/min", _Q, "liter / minute", ("l/min", "lpm", "litre/min", "litres/min", "dm3/min")),
    Unit("l/h", _Q, "liter / hour", ("l/h", "l/hr")),
    Unit("US gal/min", _Q, "US_liquid_gallon / minute", ("usgpm", "usgal/min", "gpm", "gal/min")),
    Unit("drops/min", _Q, "milliliter / minute", ("drops/min", "drop/min", "dropsperminute"), drops=DROP_ML),
    Unit("s", Dimension.TIME, "second", ("s", "sec", "secs", "second", "seconds")),
    Unit("min", Dimension.TIME, "minute", ("min", "mins", "minute", "minutes")),
    Unit("h", Dimension.TIME, "hour", ("h", "hr", "hrs", "hour", "hours")),
    Unit("°", Dimension.ANGLE, "degree", ("°", "deg", "degree", "degrees")),
    Unit("turn", Dimension.ANGLE, "turn", ("turn", "turns", "rev")),
    Unit("rad", Dimension.ANGLE, "radian", ("rad",)),
    Unit("m/s", Dimension.SPEED, "meter / second", ("m/s",)),
    Unit("mm/s", Dimension.SPEED, "millimeter / second", ("mm/s",)),
    Unit("mm/min", Dimension.SPEED, "millimeter / minute", ("mm/min",)),
    Unit("m/min", Dimension.SPEED, "meter / minute", ("m/min",)),
    Unit("ft/s", Dimension.SPEED, "foot / second", ("ft/s", "fps")),
    Unit("ft/min", Dimension.SPEED, "foot / minute", ("ft/min", "fpm")),
    Unit("in/s", Dimension.SPEED, "inch / second", ("in/s", "ips")),
    Unit("N", _F, "newton", ("n", "newton", "newtons")),
    Unit("kN", _F, "kilonewton", ("kn",)),
    Unit("daN", _F, "decanewton", ("dan",)),
    Unit("lbf", _F, "force_pound", ("lbf", "lb", "lbs")),
    Unit("kgf", _F, "kilogram_force", ("kgf", "kp")),
    Unit("mm²", _A, "millimeter ** 2", ("mm2", "sqmm")),
    Unit("cm²", _A, "centimeter ** 2", ("cm2", "sqcm")),
    Unit("in²", _A, "inch ** 2", ("in2", "sqin")),
)

# The units a field steps through, commonest first: one table for every screen.
OFFERED: dict[Dimension, tuple[str, ...]] = {
    Dimension.LENGTH: ("mm", "in"),
    Dimension.PRESSURE: ("bar", "psi", "MPa"),
    Dimension.TORQUE: ("N·m", "lbf·ft", "lbf·in"),
    Dimension.TEMPERATURE: ("°C", "°F"),
    Dimension.VOLUME: ("ml", "l"),
    Dimension.FLOW: ("ml/min", "l/min", "drops/min"),
    Dimension.TIME: ("s", "min", "h"),
    Dimension.ANGLE: ("°", "turn"),
    Dimension.SPEED: ("m/s", "ft/min"),
    Dimension.FORCE: ("kN", "N", "lbf"),
    Dimension.AREA: ("mm²", "cm²", "in²"),
}

_SEPARATORS = str.maketrans("", "", " \t\u00a0·⋅*•-_.")
# Folded like the text they are compared with: folding turns the micro sign into the Greek letter.
_BY_SPELLING = {spelling.casefold(): unit for unit in UNITS for spelling in unit.spellings}


def normalise_spelling(text: str) -> str:
    """The spelling without separators and case: ``lbf·ft``, ``lbf.ft`` and ``LBF-FT`` are all ``lbfft``."""
    return plain_notation(text).translate(_SEPARATORS).casefold()


def find_unit(text: str) -> Unit | None:
    """The unit written as ``text``, or None. ``mPa`` is refused: it is not ``MPa``, nor is ``Mbar`` ``mbar``."""
    stripped = text.strip()
    if stripped.startswith(("-", ".", "·", "*", "_")):
        return None
    found = _BY_SPELLING.get(normalise_spelling(stripped))
    return None if found is None or _is_other_prefix(stripped, found) else found


def _is_other_prefix(text: str, found: Unit) -> bool:
    """Whether milli stands for mega or the other way round; all capitals or none of them are let pass."""
    prefixed = found.symbol.startswith(("mm", "ml", "mbar", "MPa")) and not text.casefold().startswith("mil")
    return prefixed and text[0] != found.symbol[0] and not (text.isupper() or text.islower())


def with_drop(unit: Unit, drop_ml: float) -> Unit:
    """The unit with the shop's size of a drop [ml], where it counts drops; else the unit itself. Range: ``drop_ml`` above 0."""
    return unit if unit.drops is None else replace(unit, drops=drop_ml)


def accepted_symbols(dimension: Dimension) -> tuple[str, ...]:
    """The symbols that fit a dimension, commonest first."""
    return tuple(unit.symbol for unit in UNITS if unit.dimension is dimension and not unit.absolute and not unit.vacuum)


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
    Dimension.ANGLE: "degree",
    Dimension.SPEED: "meter / second",
    Dimension.FORCE: "newton",
    Dimension.AREA: "millimeter ** 2",
}


@cache
def scale_and_offset(unit: Unit) -> tuple[float, float]:
    """Scale and offset with base = scale · value + offset (the offset only for temperatures). [base unit per unit, base unit]"""
    registry = _registry()
    base = _PINT_BASE[unit.dimension]
    name = registry.parse_units(unit.pint_name)
    offset = registry.Quantity(0.0, name).to(base).magnitude
    at_one = registry.Quantity(1.0, name).to(base).magnitude
    sign = -1.0 if unit.vacuum else 1.0
    return float(at_one - offset) * sign * (1.0 if unit.drops is None else unit.drops), float(offset)


def to_base(value: float, unit: Unit) -> float:
    """Any value in the given unit, in the base unit of its dimension. [unit of ``unit``] to [base unit]

    Source: the definition of the unit.
    Range: every finite number, above or below 0.
    """
    scale, offset = scale_and_offset(unit)
    return scale * value + offset


def from_base(value: float, unit: Unit) -> float:
    """Any value in the base unit, in the given unit. [base unit] to [unit of ``unit``]

    Source: the definition of the unit.
    Range: every finite number, above or below 0.
    """
    scale, offset = scale_and_offset(unit)
    return (value - offset) / scale
