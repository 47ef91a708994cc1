"""Preload from torque, and its share of what the thread stands."""

from __future__ import annotations

import math
from collections.abc import Iterable
from dataclasses import dataclass

from ironkettle.core.base.errors import fault
from ironkettle.core.machine.tightening.threads import Thread

METRIC_DEPTH = 0.9382
UNIFIED_DEPTH = 0.9743


@dataclass(frozen=True, slots=True)
class NutFactor:
    """Torque coefficient K in T = K·d·F by condition; ``also``: everyday words for it. [-]"""

    condition: str
    nominal: float
    low: float
    high: float
    also: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class BoltStrength:
    """Proof stress of a property class over a range of diameters. [mm, MPa]"""

    standard: str
    grade: str
    diameter_over: float
    diameter_up_to: float
    proof: float


@dataclass(frozen=True, slots=True)
class Range:
    low: float
    nominal: float
    high: float


def stress_area(thread: Thread) -> float:
    """Tensile stress area As = π/4·(d − 0.9382·p)², of a unified thread π/4·(d − 0.9743·p)². [mm²]

    Parameters: thread : diameter and pitch above zero [mm].
    Source: ISO 898-1 nominal stress area; ASME B1.1 tensile stress area.

    >>> round(stress_area(Thread("M10", 10.0, 1.5)), 1)
    58.0
    """
    taken = UNIFIED_DEPTH if thread.unified else METRIC_DEPTH
    return math.pi / 4 * (thread.major_diameter - taken * thread.pitch) ** 2


def preload(torque: float, thread: Thread, factor: NutFactor) -> Range:
    """Preload F = T/(K·d), low and high from the range of K. [kN]

    Parameters: torque > 0 [N·m]. The nominal thread diameter is d. N·m / mm = kN.
    Source: the torque coefficient's definition.

    >>> round(preload(37, Thread("M10", 10.0, 1.5), NutFactor("light oil", 0.17, 0.13, 0.2)).nominal, 2)
    21.76
    """
    return Range(*(torque / (k * thread.major_diameter) for k in (factor.high, factor.nominal, factor.low)))


def proof_share(load: Range, thread: Thread, proof: float) -> Range:
    """Preload as a share of the proof load As·proof. [%]

    Parameters: load in kN, proof > 0 in MPa. Source: ISO 898-1, proof load on the stress area.
    """
    most = stress_area(thread) * proof / 1000
    return Range(*(100 * part / most for part in (load.low, load.nominal, load.high)))


def find_factor(condition: str, factors: Iterable[NutFactor], field: str) -> NutFactor:
    """The torque coefficient of a thread condition, by its name or an everyday word. Raises RuleError naming those known."""
    rows, wanted = tuple(factors), condition.strip().casefold()
    for row in rows:
        if wanted in {word.casefold() for word in (row.condition, *row.also)}:
            return row
    raise fault(field, f"“{condition}” is not a known condition", *(row.condition for row in rows))


def find_proof(grade: str, diameter: float, strengths: Iterable[BoltStrength], field: str) -> float:
    """Proof stress of a property class at a diameter, above 0. [mm] to [MPa]

    Raises RuleError when not tabled. Source: reference/tables/bolt_strength.csv (ISO 898-1, SAE J429).
    """
    rows = tuple(strengths)
    for row in rows:
        if row.grade.casefold() == grade.strip().casefold() and row.diameter_over < diameter <= row.diameter_up_to:
            return row.proof
    raise fault(
        field, f"“{grade}” has no proof stress tabled at {diameter:g} mm", *dict.fromkeys(row.grade for row in rows)
    )
