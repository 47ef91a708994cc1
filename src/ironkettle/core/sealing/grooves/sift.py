"""All sizes of a table against one gland at nominal dimensions, in one array pass."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

import numpy as np

from ironkettle.core.sealing.grooves.geometry import Figures, nominal_case
from ironkettle.core.sealing.grooves.judge import stretch_floor, stretch_most
from ironkettle.core.sealing.grooves.model import Gland, GrooveLimits, Seat
from ironkettle.core.sealing.rings.sizes import Floats, RingTable

# How far outside a limit weighs as one allowance: points of squeeze, stretch, fill and oversize. [%]
_ALLOWANCE = {"squeeze": 2.0, "stretch": 1.0, "fill": 4.0, "oversize": 1.0}
COMFORTABLE_STRETCH_PCT = 2.0


@dataclass(frozen=True)
class Sift:
    """Every size of a table in one gland: figures [-], what lies outside which limit, and why."""

    gland: Gland
    limits: GrooveLimits
    figures: Figures

    @cached_property
    def excess(self) -> dict[str, tuple[Floats, float, float]]:
        """By figure: values [%], least and most allowed [%]."""
        band = self.limits.squeeze(self.gland.motion, self.gland.medium)
        excess = {
            "squeeze": (self.figures.squeeze * 100, band.low, band.high),
            "stretch": (
                self.figures.stretch * 100,
                stretch_floor(self.gland, self.limits),
                stretch_most(self.gland, self.limits),
            ),
            "fill": (self.figures.fill * 100, 0.0, self.limits.fill_worst_max),
        }
        if self.gland.seat is not Seat.PISTON:
            excess["oversize"] = (self.figures.oversize * 100, -np.inf, self.limits.rod_ring_oversize_max)
        return excess

    @cached_property
    def misfit(self) -> Floats:
        """How far each size lies outside the limits, in allowances; 0 for one that can live there. [-]"""
        square = np.zeros_like(self.figures.squeeze)
        for name, (value, low, high) in self.excess.items():
            outside = np.maximum(np.maximum(low - value, value - high), 0.0) / _ALLOWANCE[name]
            # On the limit counts as inside; rounding must not decide.
            square += np.where(outside < 1e-9, 0.0, outside) ** 2
        return np.asarray(np.sqrt(square))

    @cached_property
    def discomfort(self) -> Floats:
        """How far squeeze lies from the middle of its limits and stretch from 2 %, each in allowances. [-]"""
        band = self.limits.squeeze(self.gland.motion, self.gland.medium)
        middle, half = (band.low + band.high) / 2, (band.high - band.low) / 2
        squeeze, stretch = self.figures.squeeze * 100, self.figures.stretch * 100
        return np.asarray(abs(squeeze - middle) / half + abs(stretch - COMFORTABLE_STRETCH_PCT) / 3)

    @cached_property
    def fits(self) -> Floats:
        return np.asarray(self.misfit == 0.0)

    def reasons(self, place: int) -> tuple[str, ...]:
        """Why the size at a place of the table cannot live there; nothing when it can."""
        texts = {
            "squeeze": ("squeeze {:.1f} % is below {:g} %", "squeeze {:.1f} % is above {:g} %"),
            "stretch": ("stretch {:.1f} % is below {:.0f} %: it hangs loose", "stretch {:.1f} % is above {:g} %"),
            "fill": ("", "fills {:.0f} % of the groove (limit {:g} %)"),
            "oversize": ("", "outside diameter is {:.1f} % over the groove (limit {:g} %)"),
        }
        found = []
        for name, (values, low, high) in self.excess.items():
            value = float(values[place])
            if value < low - 1e-9:
                found.append(texts[name][0].format(value, low))
            elif value > high + 1e-9:
                found.append(texts[name][1].format(value, high))
        return tuple(found)


def sift_rings(gland: Gland, table: RingTable, limits: GrooveLimits) -> Sift:
    """For every size of the table whether it can live in the gland: the same limits as the check, nominal figures.

    Parameters: gland [mm, MPa, °C]; table [mm]; limits [%].
    """
    return Sift(gland, limits, nominal_case(gland, table.inside_diameter, table.section))
