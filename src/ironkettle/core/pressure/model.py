"""A pressure test: the fluid, the gauge, the samples and the limit."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from ironkettle.core.errors import FieldFault, RuleError, fault

STANDARD_PRESSURE_MPA = 0.101325
STANDARD_TEMPERATURE_K = 293.15
ZERO_CELSIUS_K = 273.15
MOST_SAMPLES = 200_000


@dataclass(frozen=True, slots=True)
class Fluid:
    """A test medium. Bulk modulus in GPa (nominal), expansion per kelvin; None for a gas."""

    name: str
    gas: bool
    bulk_modulus_gpa: float | None
    expansion_per_k: float | None


@dataclass(frozen=True, slots=True)
class Gauge:
    """The gauge that reads the test: range and resolution in MPa, accuracy in per cent of reading."""

    range: float
    resolution: float
    accuracy_pct: float


@dataclass(frozen=True, slots=True)
class Sample:
    """One reading: seconds from the start, gauge pressure in MPa, temperature in °C or None."""

    t: float
    pressure: float
    temperature: float | None = None


def find_fluid(name: str, fluids: Iterable[Fluid], field: str) -> Fluid:
    """The fluid of that name. Raises RuleError naming those known."""
    rows = tuple(fluids)
    for row in rows:
        if row.name.casefold() == name.strip().casefold():
            return row
    raise fault(field, f"“{name}” is not a fluid known here", *(row.name for row in rows))


def check_samples(samples: tuple[Sample, ...], field: str = "samples") -> None:
    """Raises RuleError for fewer than three, times that do not run forward, or temperatures with holes."""
    faults: list[FieldFault] = []
    if len(samples) < 3:
        raise fault(field, f"{len(samples)} samples; a rate needs at least 3", "3 or more")
    if len(samples) > MOST_SAMPLES:
        raise fault(field, f"{len(samples)} samples are more than {MOST_SAMPLES}", f"up to {MOST_SAMPLES}")
    for index in range(1, len(samples)):
        before, here = samples[index - 1].t, samples[index].t
        if here <= before:
            faults.append(
                FieldFault(
                    f"{field}.{index}.t_s",
                    f"time {here:g} s does not come after {before:g} s",
                    ("times running forward",),
                )
            )
            break
    with_temperature = sum(sample.temperature is not None for sample in samples)
    if 0 < with_temperature < len(samples):
        gap = next(
            i
            for i, sample in enumerate(samples)
            if (sample.temperature is None) == (samples[0].temperature is not None)
        )
        faults.append(
            FieldFault(f"{field}.{gap}.temperature_c", "temperature is given for some samples only", ("all", "none"))
        )
    if faults:
        raise RuleError(faults)
