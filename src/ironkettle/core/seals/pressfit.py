"""A metal-clad wiper or rotary shaft seal pressed into its bore: the interference that holds it."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum

from ironkettle.core.errors import fault
from ironkettle.core.findings import Finding, caution, reject, verdict_of
from ironkettle.core.quantities import Toleranced

BASIS = "press-in allowances of rotary shaft seals, ISO 6194-1 (from memory of the table; the maker's drawing wins)"


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

    Parameters: bore, 0 < bore <= 300 [mm]. Raises RuleError above. Source: ISO 6194-1.
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

    Source: allowances of ISO 6194-1 over an H8 bore.
    """
    wanted_low, wanted_high = allowance(bore.nominal, cladding)
    if seal is None:
        middle = (wanted_low + wanted_high) / 2
        seal = Toleranced(bore.nominal + middle, middle - wanted_low, wanted_high - middle)
    low, nominal, high = seal.low - bore.high, seal.nominal - bore.nominal, seal.high - bore.low
    findings = []
    if nominal <= 0:
        findings.append(
            reject("loose", f"the seal is {-nominal:.2f} mm smaller than its bore: it will not hold", BASIS)
        )
    elif nominal < wanted_low * 0.75:
        findings.append(caution("light", f"interference {nominal:.2f} mm is light (usual {wanted_low:g} mm up)", BASIS))
    elif nominal > wanted_high * 1.25:
        text = f"interference {nominal:.2f} mm is heavy (usual to {wanted_high:g} mm): the case buckles"
        findings.append(reject("heavy", text, BASIS))
    if width > depth + 0.05:
        text = f"the seal is {width:g} mm wide in a seat {depth:g} mm deep: it stands {width - depth:.2f} mm proud"
        findings.append(caution("proud", text, "sum of lengths"))
    return PressFit(low, nominal, high, wanted_low, wanted_high, verdict_of(findings), tuple(findings))
