"""Preload from torque, and its share of what the thread stands."""

from __future__ import annotations

import math
from collections.abc import Iterable
from dataclasses import dataclass

from ironkettle.core.errors import fault
from ironkettle.core.quantities.parse import read_length


@dataclass(frozen=True, slots=True)
class Thread:
    """A thread: designation, nominal diameter and pitch in mm."""

    designation: str
    major_diameter: float
    pitch: float


@dataclass(frozen=True, slots=True)
class NutFactor:
    """Torque coefficient K in T = K·d·F by condition. [-]"""

    condition: str
    nominal: float
    low: float
    high: float


@dataclass(frozen=True, slots=True)
class BoltStrength:
    """Proof stress of a property class over a range of diameters. [mm, MPa]"""

    standard: str
    grade: str
    diameter_over: float
    diameter_up_to: float
    proof: float


@dataclass(frozen=True)
class FastenerTables:
    """Threads, torque coefficients and proof stresses the tightening rules read."""

    threads: tuple[Thread, ...]
    nut_factors: tuple[NutFactor, ...]
    strengths: tuple[BoltStrength, ...]


@dataclass(frozen=True, slots=True)
class Range:
    low: float
    nominal: float
    high: float


def stress_area(thread: Thread) -> float:
    """Tensile stress area As = π/4·(d − 0.9382·p)². [mm²]

    Source: ISO 898-1, nominal stress area.

    >>> round(stress_area(Thread("M10", 10.0, 1.5)), 1)
    58.0
    """
    return math.pi / 4 * (thread.major_diameter - 0.9382 * thread.pitch) ** 2


def preload(torque: float, thread: Thread, factor: NutFactor) -> Range:
    """Preload F = T/(K·d), low and high from the range of K. [kN]

    Parameters: torque > 0 [N·m]. The nominal thread diameter is d. N·m / mm = kN.
    """
    return Range(*(torque / (k * thread.major_diameter) for k in (factor.high, factor.nominal, factor.low)))


def proof_share(load: Range, thread: Thread, proof: float) -> Range:
    """Preload as a share of the proof load As·proof. [%]

    Parameters: load in kN, proof in MPa.
    """
    most = stress_area(thread) * proof / 1000
    return Range(*(100 * part / most for part in (load.low, load.nominal, load.high)))


def find_thread(text: str, threads: Iterable[Thread], field: str) -> Thread:
    """A thread by designation: from the table, or a metric ``M42x2`` by its own figures.

    Raises RuleError when it is neither.
    """
    plain = _plain(text)
    for thread in threads:
        if _plain(thread.designation) == plain:
            return thread
    if plain.startswith("m") and "x" in plain:
        diameter, _, pitch = plain[1:].partition("x")
        major = read_length(f"{diameter} mm", field, high=1000)
        return Thread(f"M{diameter}x{pitch}", major, read_length(f"{pitch} mm", field, high=major / 2))
    raise fault(field, f"“{text}” is not a thread known here", "M10", "M42x2", "3/8-16")


def find_factor(condition: str, factors: Iterable[NutFactor], field: str) -> NutFactor:
    """The torque coefficient of a thread condition. Raises RuleError naming those known."""
    rows = tuple(factors)
    for row in rows:
        if row.condition.casefold() == condition.strip().casefold():
            return row
    raise fault(field, f"“{condition}” is not a condition known here", *(row.condition for row in rows))


def find_proof(grade: str, diameter: float, strengths: Iterable[BoltStrength], field: str) -> float:
    """Proof stress of a property class at a diameter [mm]. [MPa] Raises RuleError when not tabled."""
    rows = tuple(strengths)
    for row in rows:
        if row.grade.casefold() == grade.strip().casefold() and row.diameter_over < diameter <= row.diameter_up_to:
            return row.proof
    raise fault(
        field, f"“{grade}” has no proof stress tabled at {diameter:g} mm", *dict.fromkeys(row.grade for row in rows)
    )


def _plain(text: str) -> str:
    return text.strip().casefold().replace(" ", "").replace("×", "x").replace(",", ".")
