"""A V-packing set in its box: how many rings, how far they are pressed, how many turns of the nut."""

from __future__ import annotations

import math
from dataclasses import dataclass

from ironkettle.core.base.errors import FieldFault, RuleError
from ironkettle.core.base.findings import Finding, caution, info, reject

BASIS = "sum of heights; usual compression of a V-packing set 3 to 8 % of the rings (shop guidance)"
USUAL_COMPRESSION_PCT = (3.0, 8.0)
FEWEST_RINGS = 3


@dataclass(frozen=True, slots=True)
class PackingBox:
    """A stuffing box and the rings for it. Lengths in mm.

    ``header`` and ``follower`` are the heights of the end rings, 0 when the box has none;
    ``lead`` is how far the gland nut travels in one turn; ``nut_reach`` how far the nut enters the box
    at first thread.
    """

    bore: float
    rod: float
    depth: float
    ring_height: float
    header: float = 0.0
    follower: float = 0.0
    lead: float | None = None
    nut_reach: float = 0.0
    compression_pct: float = 5.0

    def __post_init__(self) -> None:
        faults = []
        if self.rod >= self.bore:
            faults.append(FieldFault("rod", f"{self.rod:g} mm is not smaller than the box bore {self.bore:g} mm"))
        if self.header + self.follower + self.ring_height > self.depth:
            text = f"{self.depth:g} mm does not take the end rings and one packing ring"
            faults.append(
                FieldFault("depth", text, (f"{self.header + self.follower + self.ring_height:g} mm or more",))
            )
        if faults:
            raise RuleError(faults)


@dataclass(frozen=True, slots=True)
class PackingPlan:
    """``section``, ``stack`` and ``compression`` in mm; ``turns`` of the nut from first contact."""

    section: float
    rings: int
    stack: float
    compression: float
    turns: float | None
    findings: tuple[Finding, ...]


def plan_packing(box: PackingBox) -> PackingPlan:
    """The stack for a box: rings that go in, free height, compression, turns of the nut.

    rings = ⌊(depth − nut reach − header − follower) / ring height⌋, since the nut must still enter
    by ``nut_reach`` to hold; compression = rings · height · percent; turns = compression / lead.

    Parameters: the box [mm]; compression in per cent of the rings' height.
    Source: sum of heights.
    """
    room = box.depth - box.nut_reach - box.header - box.follower
    rings = max(math.floor(room / box.ring_height + 1e-9), 0)
    stack = box.header + box.follower + rings * box.ring_height
    compression = rings * box.ring_height * box.compression_pct / 100
    turns = None if box.lead is None else compression / box.lead
    findings = [
        info(
            "stack-order",
            "head ring first, flat to the bottom of the box; then V-rings one by one, openings to the pressure, "
            "joints of cut rings a quarter turn apart; follower last, hollow on the last V",
            "order of a V-packing set",
        )
    ]
    if rings < FEWEST_RINGS:
        findings.append(caution("few-rings", f"only {rings} rings go in; {FEWEST_RINGS} or more are usual", BASIS))
    if rings == 0:
        findings.append(reject("no-room", "no ring goes in with the nut holding", BASIS))
    low, high = USUAL_COMPRESSION_PCT
    if not low <= box.compression_pct <= high:
        text = f"compression {box.compression_pct:g} % is outside the usual {low:g} to {high:g} %"
        findings.append(caution("compression", text, BASIS))
    return PackingPlan((box.bore - box.rod) / 2, rings, stack, compression, turns, tuple(findings))
