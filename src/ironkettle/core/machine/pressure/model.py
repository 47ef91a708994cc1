"""A pressure test: the fluid, what is under pressure and how well it is known, the gauge, the samples."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

import numpy as np

from ironkettle.core.base.errors import FieldFault, RuleError, fault
from ironkettle.core.base.housing import HOUSINGS, HousingMaterial
from ironkettle.core.base.quantities import DROP_ML

STANDARD_PRESSURE_MPA = 0.101325
STANDARD_TEMPERATURE_K = 293.15
ZERO_CELSIUS_K = 273.15
MOST_SAMPLES = 200_000
# Each part of a hold that is judged by itself has so many readings at least.
LEAST_READINGS = 5
# Where a gauge's maker states no stability, so much of its accuracy is taken for a hold.
UNSTATED_STABILITY = 0.2
# What a shop's thermometer shows.
TEMPERATURE_STEP_K = 0.1


@dataclass(frozen=True, slots=True)
class Fluid:
    """A test medium: nominal bulk modulus [GPa] and volume expansion over temperature [°C, 1/K]; none for a gas."""

    name: str
    gas: bool
    bulk_modulus_gpa: float | None
    expansion: tuple[tuple[float, float], ...] = ()

    def expansion_at(self, temperature: float) -> float:
        """Volume expansion at a temperature [°C], between the tabled ones by straight line. [1/K]"""
        if not self.expansion:
            return 0.0
        at, values = zip(*self.expansion, strict=True)
        return float(np.interp(temperature, at, values))

    def expansion_between(self, cold: float, warm: float) -> float:
        """Mean volume expansion from one temperature to another [°C]: that of water grows threefold from 20 to 80 °C. [1/K]"""
        if warm == cold or not self.expansion:
            return self.expansion_at(cold)
        steps = np.linspace(cold, warm, 201)
        at, values = zip(*self.expansion, strict=True)
        return float(np.trapezoid(np.interp(steps, at, values), steps) / (warm - cold))


@dataclass(frozen=True, slots=True)
class Gauge:
    """The gauge that reads the test: range and resolution in MPa, accuracy in per cent of reading.

    ``stability_pct``: by how much of the reading it may drift or stick during a hold, as its maker states it; None where that
    is not stated.
    """

    range: float
    resolution: float
    accuracy_pct: float
    stability_pct: float | None = None

    @property
    def stability(self) -> float:
        """Of the reading, during one hold: as stated, else a fifth of the accuracy. [share]"""
        stated = self.accuracy_pct * UNSTATED_STABILITY if self.stability_pct is None else self.stability_pct
        return stated / 100


@dataclass(frozen=True, slots=True)
class Sample:
    """One reading: seconds from the start, gauge pressure in MPa, temperature in °C or None."""

    t: float
    pressure: float
    temperature: float | None = None


@dataclass(frozen=True, slots=True)
class Compliance:
    """Measured in place: a known volume let out once [ml] and the drop of pressure it made [MPa]."""

    volume: float
    drop: float


@dataclass(frozen=True, slots=True)
class HoldRules:
    """The shop's rules of judging a hold; the shipped values. Doubts in %, times in s, temperatures in K.

    ``drop_ml``: what a drop counted at a fitting is taken for [ml].

    ``stated_least`` and ``nominal_least``: the true modulus may be that share of the one stated for the
    unit, or of the fluid's nominal one: trapped air and hoses make it softer, and only the compliance step (a known volume let
    out) tells how much. ``modulus_most``: it is hardly higher.
    """

    start_below_pct: float = 1.0
    band_pct: float = 10.0
    stated_least: float = 0.3
    nominal_least: float = 0.2
    modulus_most: float = 1.05
    volume_doubt_pct: float = 5.0
    drift_k_per_min: float = 0.1
    drift_most_k: float = 5.0
    settling_pct: float = 1.0
    sensor_lag_s: float = 60.0
    least_hold_s: float = 60.0
    gas_energy_j: float = 1000.0
    drop_ml: float = DROP_ML


@dataclass(frozen=True, slots=True)
class TestVolume:
    """What is under pressure, and how well it is known.

    ``volume`` in ml; ``bulk_modulus_gpa`` as stated for this unit, None for the fluid's nominal one;
    doubts in per cent, None for the shop's usual; ``compliance`` measured in place replaces volume
    and modulus; ``atmosphere`` in MPa.
    """

    __test__ = False

    volume: float
    fluid: Fluid
    bulk_modulus_gpa: float | None = None
    volume_doubt_pct: float | None = None
    modulus_doubt_pct: float | None = None
    compliance: Compliance | None = None
    housing: HousingMaterial = HousingMaterial.STEEL
    atmosphere: float = STANDARD_PRESSURE_MPA

    @property
    def linear_expansion(self) -> float:
        """Of what the volume is enclosed in. [1/K]"""
        return HOUSINGS[self.housing].linear_expansion

    @property
    def modulus(self) -> float:
        """Bulk modulus of a liquid, as stated or nominal. [MPa] Raises RuleError for a fluid without one."""
        used = self.bulk_modulus_gpa or self.fluid.bulk_modulus_gpa
        if used is None:
            raise fault("bulk_modulus_gpa", f"{self.fluid.name} has no bulk modulus")
        return used * 1000


def find_fluid(name: str, fluids: Iterable[Fluid], field: str) -> Fluid:
    """The fluid of that name. Raises RuleError naming those known."""
    rows = tuple(fluids)
    for row in rows:
        if row.name.casefold() == name.strip().casefold():
            return row
    raise fault(field, f"“{name}” is not a known fluid", *(row.name for row in rows))


def check_samples(samples: tuple[Sample, ...], field: str = "samples") -> None:
    """Raises RuleError for fewer than three, too many, or times that do not run forward."""
    if len(samples) < 3:
        raise fault(field, f"{len(samples)} samples; a rate needs at least 3", "3 or more")
    if len(samples) > MOST_SAMPLES:
        raise fault(field, f"{len(samples)} samples are more than {MOST_SAMPLES}", f"up to {MOST_SAMPLES}")
    for index in range(1, len(samples)):
        before, here = samples[index - 1].t, samples[index].t
        if here <= before:
            text = f"time {here:g} s does not come after {before:g} s"
            raise RuleError([FieldFault(f"{field}.{index}.t_s", text, ("times running forward",))])
