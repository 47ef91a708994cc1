"""From a fall of pressure to a volume lost: how soft the test volume is, from both ends of every doubt."""

from __future__ import annotations

from dataclasses import dataclass

from ironkettle.core.base.errors import fault
from ironkettle.core.machine.pressure.model import (
    STANDARD_PRESSURE_MPA,
    STANDARD_TEMPERATURE_K,
    ZERO_CELSIUS_K,
    Gauge,
    HoldRules,
    TestVolume,
)

_EXPANSION_DOUBT = 0.10
# What is measured may be this much stiffer than volume and fluid can be, as the stated volume is not exact.
_STIFFEST = 0.8
ROOM_C = 20.0


@dataclass(frozen=True, slots=True)
class Doubted:
    """A figure with the least and the most it may be."""

    low: float
    nominal: float
    high: float


@dataclass(frozen=True, slots=True)
class Softness:
    """``lost`` per fall of pressure [ml/MPa], ``warmth`` per rise of temperature [ml/K]; gas in standard ml.

    rate = lost · (−dp/dt) + warmth · dT/dt.
    """

    lost: Doubted
    warmth: Doubted

    def bounds(self, fall: tuple[float, float], warming: tuple[float, float]) -> tuple[float, float]:
        """The least and the most rate for a fall [MPa/s] and a warming [K/s] between two ends each. [ml/s]"""
        by_fall = [c * g for c in (self.lost.low, self.lost.high) for g in fall]
        by_warmth = [b * t for b in (self.warmth.low, self.warmth.high) for t in warming]
        return min(by_fall) + min(by_warmth), max(by_fall) + max(by_warmth)


def softness_of(volume: TestVolume, gauge: Gauge, rules: HoldRules, pressure: float, temperature: float) -> Softness:
    """How soft the test volume is at a pressure [MPa gauge] and temperature [°C].

    Liquid: lost = V/K, or a measured ΔV/Δp; warmth = V·(α − 3·α_housing). Gas, at 101.325 kPa and
    20 °C: lost = V·T_std/(p_std·T), warmth = V·T_std·p_abs/(p_std·T²). The gauge's accuracy is an
    error of scale and widens ``lost``; it drops out where the drop was read on the same gauge.

    Source: definition of the bulk modulus; ideal gas law.
    Range: pressure above −0.101 MPa, temperature above −273.15 °C. Raises RuleError below a full vacuum, and for a fluid without bulk modulus.
    """
    share = (rules.volume_doubt_pct if volume.volume_doubt_pct is None else volume.volume_doubt_pct) / 100
    scale = gauge.accuracy_pct / 100
    if volume.fluid.gas:
        kelvin = temperature + ZERO_CELSIUS_K
        per_mpa = volume.volume * STANDARD_TEMPERATURE_K / (STANDARD_PRESSURE_MPA * kelvin)
        absolute = pressure + volume.atmosphere
        if absolute <= 0:
            raise fault("samples", "a pressure is below a full vacuum; is it gauge or absolute?", "gauge", "absolute")
        warmth = per_mpa * absolute / kelvin
        return Softness(_within(per_mpa, share + scale), _within(warmth, share))
    expansion = volume.fluid.expansion_at(temperature) - 3 * volume.linear_expansion
    warmth = volume.volume * expansion
    return Softness(_lost(volume, gauge, rules, share, scale), _within(warmth, share + _EXPANSION_DOUBT))


def _lost(volume: TestVolume, gauge: Gauge, rules: HoldRules, share: float, scale: float) -> Doubted:
    measured = volume.compliance
    if measured is not None:
        step = gauge.resolution
        if measured.drop <= 2 * step:
            raise fault(
                "compliance.drop",
                "the drop is hardly more than a step of the gauge; let out a larger volume",
                f"more than {2 * step:g} MPa",
            )
        nominal = measured.volume / measured.drop
        known = max(volume.bulk_modulus_gpa or 0.0, volume.fluid.bulk_modulus_gpa or 0.0) * 1000
        stiffest = volume.volume * _STIFFEST / known if known else 0.0
        if nominal < stiffest:
            raise fault(
                "compliance.drop",
                f"{measured.drop * 10:g} bar for {measured.volume:g} ml is stiffer than the fluid itself: read again",
                f"at most {measured.volume / stiffest * 10:.3g} bar",
            )
        return Doubted(
            measured.volume * (1 - share) / (measured.drop + step),
            nominal,
            measured.volume * (1 + share) / (measured.drop - step),
        )
    nominal = volume.volume / volume.modulus
    low_modulus = rules.nominal_least if volume.bulk_modulus_gpa is None else rules.stated_least
    high_modulus = rules.modulus_most
    if volume.modulus_doubt_pct is not None and volume.bulk_modulus_gpa is not None:
        doubt = volume.modulus_doubt_pct / 100
        low_modulus, high_modulus = max(1 - doubt, 0.05), 1 + doubt
    return Doubted(
        nominal * (1 - share) * (1 - scale) / high_modulus, nominal, nominal * (1 + share) * (1 + scale) / low_modulus
    )


def _within(value: float, share: float) -> Doubted:
    ends = sorted((value * (1 - share), value * (1 + share)))
    return Doubted(ends[0], value, ends[1])
