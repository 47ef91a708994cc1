"""Which compound stands the service, and how hard it must be for the gap."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from ironkettle.core.base.errors import fault
from ironkettle.core.base.findings import Finding, caution, info, reject, verdict_of
from ironkettle.core.sealing.compounds.model import BASIS, Compound, Duty, Rating

WORDS = {
    Rating.GOOD: "good",
    Rating.FAIR: "fair, usually fit for static use",
    Rating.DOUBTFUL: "doubtful",
    Rating.DO_NOT_USE: "do not use",
}
DUTY_BASIS = "shop rule for this service; the unit's maker and local codes win"
_ORDER = {"good": 0, "caution": 1, "reject": 2}


@dataclass(frozen=True, slots=True)
class CompoundAdvice:
    """One compound in one service. ``worst`` is its poorest rating over the media."""

    compound: Compound
    worst: Rating
    verdict: str
    findings: tuple[Finding, ...]


def judge_compound(
    compound: Compound, media: Sequence[str], low: float, high: float, *, moving: bool, duty: Duty = Duty.GENERAL
) -> CompoundAdvice:
    """One compound against media, temperatures and service.

    A *fair* rating is noted at rest and cautioned when moving; *doubtful* is cautioned at rest and
    rejected when moving; *do not use* is rejected.

    Parameters
    ----------
    compound : what the seal is made of.
    media : columns of the compatibility table the seal meets.
    low, high : temperatures it works between [°C].
    moving : whether a surface slides on it.
    duty : a service with rules of its own.

    Source: reference/tables/compatibility.csv.
    """
    findings = [f for medium in media if (f := _medium(compound, medium, moving=moving)) is not None]
    findings += _temperatures(compound, low, high)
    if duty is not Duty.GENERAL:
        where = duty.value.replace("_", " ")
        text = f"{where} service: only a batch whose maker lists it for {where}, clean and by paper"
        findings.append(caution("listed-only", text, DUTY_BASIS))
    worst = max((compound.ratings[medium] for medium in media), default=Rating.GOOD)
    return CompoundAdvice(compound, worst, verdict_of(findings), tuple(findings))


def rank_compounds(
    compounds: Iterable[Compound],
    media: Sequence[str],
    low: float,
    high: float,
    *,
    moving: bool,
    duty: Duty = Duty.GENERAL,
) -> tuple[CompoundAdvice, ...]:
    """All compounds for a service, best first: verdict, worst rating, then the order of the table.

    Parameters as ``judge_compound``, temperatures [°C]. Raises RuleError when ``low`` is above ``high``.
    """
    if low > high:
        raise fault("temperature_min", f"{low:g} °C is above the highest temperature {high:g} °C", f"up to {high:g} °C")
    judged = [judge_compound(compound, media, low, high, moving=moving, duty=duty) for compound in compounds]
    return tuple(sorted(judged, key=lambda advice: (_ORDER[advice.verdict], advice.worst)))


def _medium(compound: Compound, medium: str, *, moving: bool) -> Finding | None:
    rating = compound.ratings[medium]
    text = f"{compound.name} in {medium.replace('_', ' ')}: {WORDS[rating]}"
    if rating is Rating.DO_NOT_USE or (rating is Rating.DOUBTFUL and moving):
        return reject("medium", f"{text}{'' if rating is Rating.DO_NOT_USE else ' where it moves'}", BASIS)
    if rating is Rating.DOUBTFUL or (rating is Rating.FAIR and moving):
        return caution("medium", text, BASIS)
    return info("medium", text, BASIS) if rating is Rating.FAIR else None


def _temperatures(compound: Compound, low: float, high: float) -> list[Finding]:
    found = []
    span = f"{compound.name} is for {compound.low:g} to {compound.high:g} °C"
    if high > compound.high:
        found.append(reject("too-hot", f"{high:g} °C is too hot: {span}", BASIS))
    if low < compound.low:
        found.append(reject("too-cold", f"{low:g} °C is too cold: {span}", BASIS))
    return found
