"""A metal-clad wiper or rotary shaft seal pressed into its bore: the interference that holds it."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum

from ironkettle.core.base.errors import fault
from ironkettle.core.base.findings import Finding, caution, reject, verdict_of
from ironkettle.core.base.quantities import Toleranced

BASIS = "no published source; typical workshop practice of pressed seals over an H8 bore; the maker's drawing wins"


class Cladding(StrEnum):
    METAL = "metal"
    RUBBER = "rubber"


# Upper bound of the bore [mm], then allowance on the seal's outside diameter, low and high [mm].
_ALLOWANCE = {
    Cladding.METAL: ((50, 0.08, 0.20), (80, 0.09, 0.23), (120, 0.10, 0.25), (180, 0.12, 0.28), (300, 0.15, 0.35)),
    Cladding.RUBBER: ((50, 0.15, 0.30), (80, 0.20, 0.35), (120, 0.20, 0.35), (180, 0.25, 0.45), (300, 0.25, 0.45)),
}


@dataclass(frozen=True, slots=True)
class PressFit:
    """Interference on the diameter [mm]: least, nominal, most; and how the lip sits on the shaft."""

    low: float
    nominal: float
    high: float
    wanted_low: float
    wanted_high: float
    verdict: str
    findings: tuple[Finding, ...]


def allowance(bore: float, cladding: Cladding) -> tuple[float, float]:
    """How much larger than its nominal bore a seal is made, low and high, on the diameter. [mm]

    Parameters: bore, 0 < bore <= 300 [mm]. Raises RuleError above. Source: no published source; typical workshop practice.
    """
    for upper, low, high in _ALLOWANCE[cladding]:
        if bore <= upper:
            return low, high
    raise fault("bore", f"{bore:g} mm is over the table's 300 mm", "up to 300 mm")


def check_press_fit(
    seal: Toleranced | None, bore: Toleranced, width: float, depth: float, cladding: Cladding
) -> PressFit:
    """Interference of a pressed seal in its bore.

    Parameters
    ----------
    seal : outside diameter as measured [mm]; None takes the usual allowance on the nominal bore.
    bore : the housing bore, > 0 [mm].
    width : of the seal, > 0 [mm].
    depth : of the seat, > 0 [mm].
    cladding : what touches the bore.

    Judged at the worst case of both tolerances, and never better than a caution: the allowances have no published source.
    Source: no published source; typical workshop practice.
    """
    wanted_low, wanted_high = allowance(bore.nominal, cladding)
    if seal is None:
        middle = (wanted_low + wanted_high) / 2
        seal = Toleranced(bore.nominal + middle, middle - wanted_low, wanted_high - middle)
    low, nominal, high = seal.low - bore.high, seal.nominal - bore.nominal, seal.high - bore.low
    findings = [
        caution(
            "no-source",
            f"usual interference {wanted_low:g} to {wanted_high:g} mm: compare it with the maker's drawing",
            BASIS,
        )
    ]
    if low <= 0:
        text = (
            f"at worst the seal is {-low:.2f} mm smaller than its bore: it will not hold"
            if low < 0
            else "at worst nothing holds it"
        )
        findings.append(reject("loose", text, BASIS))
    elif low < wanted_low * 0.75:
        findings.append(
            caution("light", f"interference {low:.2f} mm at worst is light (usual {wanted_low:g} mm up)", BASIS)
        )
    if high > wanted_high * 1.25:
        text = f"interference {high:.2f} mm at worst is heavy (usual to {wanted_high:g} mm): the case buckles"
        findings.append(reject("heavy", text, BASIS))
    if width > depth + 0.05:
        text = f"the seal is {width:g} mm wide in a seat {depth:g} mm deep: it stands {width - depth:.2f} mm proud"
        findings.append(caution("proud", text, "sum of lengths"))
    return PressFit(low, nominal, high, wanted_low, wanted_high, verdict_of(findings), tuple(findings))
