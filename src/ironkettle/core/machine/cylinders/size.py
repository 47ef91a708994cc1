"""Cylinder sums: areas, forces, volumes, times and the pressure a blocked rod side reaches."""

from __future__ import annotations

import math
from dataclasses import dataclass

from ironkettle.core.base.errors import FieldFault, RuleError
from ironkettle.core.base.findings import Finding, caution, info


@dataclass(frozen=True, slots=True)
class Cylinder:
    """Bore, rod and stroke in mm; ``rod`` as thick as the bore for a plunger, which has no rod side."""

    bore: float
    rod: float
    stroke: float

    def __post_init__(self) -> None:
        if self.rod > self.bore:
            raise RuleError(
                [FieldFault("rod", f"{self.rod:g} mm is thicker than the bore {self.bore:g} mm", ("mm", "in"))]
            )

    @property
    def cap_area(self) -> float:
        """Full piston area, π/4·bore². [mm²]"""
        return math.pi / 4 * self.bore**2

    @property
    def rod_area(self) -> float:
        """Annulus on the rod side, π/4·(bore² − rod²). [mm²]"""
        return math.pi / 4 * (self.bore**2 - self.rod**2)

    @property
    def plunger(self) -> bool:
        """Whether its rod fills its bore: it is pushed only."""
        return self.rod == self.bore

    @property
    def ratio(self) -> float | None:
        """Cap area over rod area, > 1; None for a plunger. [-]"""
        return None if self.plunger else self.cap_area / self.rod_area

    @property
    def cap_volume(self) -> float:
        """Oil of a full stroke on the cap side. [ml]"""
        return self.cap_area * self.stroke / 1000

    @property
    def rod_volume(self) -> float:
        """Oil of a full stroke on the rod side. [ml]"""
        return self.rod_area * self.stroke / 1000


@dataclass(frozen=True, slots=True)
class CylinderSums:
    """Areas mm², forces kN, volumes ml, pressure MPa, times s (None without a flow)."""

    cap_area: float
    rod_area: float
    push: float
    pull: float
    ratio: float | None
    cap_volume: float
    rod_volume: float
    blocked_rod_pressure: float | None
    extend: float | None
    retract: float | None
    findings: tuple[Finding, ...]


def size_cylinder(cylinder: Cylinder, pressure: float, flow: float | None = None) -> CylinderSums:
    """What a cylinder does at a pressure and a flow.

    Parameters: pressure >= 0 [MPa gauge]; flow > 0 [ml/min], friction left out.
    F = p·A (MPa·mm² = N); blocked rod side p·A_cap/A_rod; t = V/Q.
    Source: static balance of the piston.
    """
    blocked = None if cylinder.ratio is None else pressure * cylinder.ratio
    return CylinderSums(
        cap_area=cylinder.cap_area,
        rod_area=cylinder.rod_area,
        push=pressure * cylinder.cap_area / 1000,
        pull=pressure * cylinder.rod_area / 1000,
        ratio=cylinder.ratio,
        cap_volume=cylinder.cap_volume,
        rod_volume=cylinder.rod_volume,
        blocked_rod_pressure=blocked,
        extend=None if flow is None else cylinder.cap_volume / flow * 60,
        retract=None if flow is None or cylinder.plunger else cylinder.rod_volume / flow * 60,
        findings=_findings(pressure, blocked),
    )


def _findings(pressure: float, blocked: float | None) -> tuple[Finding, ...]:
    if blocked is None:
        return (info("plunger", "a plunger is pushed only; its load brings it back", "its rod fills its bore"),)
    if pressure <= 0:
        return ()
    text = (
        f"with the rod side blocked and the cap side at {pressure * 10:.0f} bar the rod side reaches "
        f"{blocked * 10:.0f} bar: vent it before pressing the cap side"
    )
    return (caution("blocked-rod-side", text, "balance of forces on the piston"),)


def oil_to_drain(cylinder: Cylinder) -> float:
    """The most oil that can come out: the larger full-stroke volume, piston at either end. [ml]"""
    return max(cylinder.cap_volume, cylinder.rod_volume)
